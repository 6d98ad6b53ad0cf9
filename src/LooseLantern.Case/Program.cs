using LooseLantern.Formats.Cases;

// ./lantern case FILE|FOLDER: the openings of a case file, or of every case file in a folder, one line of JSON each.
// Ends with 0 when all were answered and 2 when something was wrong with a file or with what was asked.
if (args is not [var path])
{
    Console.Error.WriteLine("lantern: case needs a case file or a folder of them");
    return 2;
}

var isFolder = Directory.Exists(path);
if (!isFolder && !File.Exists(path))
{
    Console.Error.WriteLine($"lantern: there is no file or folder {path}");
    return 2;
}

string[] files = isFolder
    ? [.. Directory.GetFiles(path, "*.json").Where(file => !file.EndsWith(".expected.json", StringComparison.Ordinal)).Order(StringComparer.Ordinal)]
    : [path];

var code = 0;
await using var output = new StreamWriter(Console.OpenStandardOutput());
foreach (var file in files)
{
    var reading = CaseFile.Read(await File.ReadAllBytesAsync(file));
    if (reading.Input is null) code = 2;
    await output.WriteLineAsync(CaseAnswer.Write(reading, isFolder ? Path.GetFileName(file) : null));
}

return code;
