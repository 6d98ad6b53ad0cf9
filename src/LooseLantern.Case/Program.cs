using LooseLantern.Formats.Cases;
using NodaTime;
using NodaTime.Text;

// ./lantern case FILE|FOLDER [--reasons START]: the openings of a case file, or of every case file in a folder, one
// line of JSON each; or why a time is not among them. Ends with 0 when all were answered and 2 when something was wrong
// with a file or with what was asked.
string? path = null;
Instant? start = null;
for (var i = 0; i < args.Length; i++)
{
    if (args[i] == "--reasons")
    {
        var text = i + 1 < args.Length ? args[++i] : "";
        if (OffsetDateTimePattern.Rfc3339.Parse(text) is not { Success: true, Value: { Year: > 100 and < 9900 } time })
            return Wrong(
                $"--reasons needs a time such as 2026-12-07T09:00:00Z or 2026-12-07T10:00:00+01:00, not \"{text}\""
            );
        start = time.ToInstant();
    }
    else if (args[i].StartsWith("--", StringComparison.Ordinal))
    {
        return Wrong($"case does not know \"{args[i]}\"; it knows --reasons START");
    }
    else if (path is not null)
    {
        return Wrong("case takes one case file or one folder");
    }
    else
    {
        path = args[i];
    }
}

if (path is null)
    return Wrong("case needs a case file or a folder of them");
var isFolder = Directory.Exists(path);
if (!isFolder && !File.Exists(path))
    return Wrong($"there is no file or folder {path}");

string[] files = isFolder
    ?
    [
        .. Directory
            .GetFiles(path, "*.json")
            .Where(file => !file.EndsWith(".expected.json", StringComparison.Ordinal))
            .Order(StringComparer.Ordinal),
    ]
    : [path];

var code = 0;
await using var output = new StreamWriter(Console.OpenStandardOutput());
foreach (var file in files)
{
    var reading = CaseFile.Read(await File.ReadAllBytesAsync(file));
    if (reading.Input is null)
        code = 2;
    var name = isFolder ? Path.GetFileName(file) : null;
    await output.WriteLineAsync(
        start is { } asked ? CaseAnswer.WriteReasons(reading, asked, name) : CaseAnswer.Write(reading, name)
    );
}

return code;

static int Wrong(string what)
{
    Console.Error.WriteLine($"lantern: {what}");
    return 2;
}
