using System.Security.Cryptography;
using System.Text;

namespace LooseLantern.StandIns.Calendars;

/// <summary>One calendar object (RFC 4791 section 4.1).</summary>
public sealed record StoredEvent(string Name, string Text)
{
    /// <summary>The strong entity tag of its text, with its quotes.</summary>
    public string EntityTag => $"\"{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(Text)))[..24]}\"";
}

/// <summary>What became of an event, counted by the collection.</summary>
internal sealed record StoredChange(long Number, string Name, bool IsGone);

/// <summary>
/// The calendars of all accounts, each event a file in a folder. What changed since when is known for as long as the
/// program runs; tokens of an earlier run are not known any more.
/// </summary>
public sealed class CalendarStore
{
    private readonly string _folder;
    private readonly Lock _lock = new();
    private readonly string _run = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(6));
    private readonly Dictionary<(string User, string Calendar), List<StoredChange>> _changes = [];
    private long _number;

    public CalendarStore(string folder)
    {
        _folder = Path.GetFullPath(folder);
        Directory.CreateDirectory(_folder);
    }

    public bool IsEmpty => Users().Count == 0;

    public IReadOnlyList<string> Users() => Names(_folder);

    public IReadOnlyList<string> Calendars(string user) => IsName(user) ? Names(Path.Combine(_folder, user)) : [];

    public bool Has(string user, string calendar) =>
        IsName(user) && IsName(calendar) && Directory.Exists(FolderOf(user, calendar));

    public void AddCalendar(string user, string calendar) => Directory.CreateDirectory(FolderOf(user, calendar));

    public IReadOnlyList<StoredEvent> Events(string user, string calendar)
    {
        lock (_lock)
        {
            if (!Has(user, calendar))
                return [];
            return
            [
                .. Directory
                    .GetFiles(FolderOf(user, calendar), "*.ics")
                    .Order(StringComparer.Ordinal)
                    .Select(file => new StoredEvent(Path.GetFileName(file), File.ReadAllText(file))),
            ];
        }
    }

    public StoredEvent? Find(string user, string calendar, string name)
    {
        lock (_lock)
        {
            return Has(user, calendar) && IsName(name) && File.Exists(FileOf(user, calendar, name))
                ? new StoredEvent(name, File.ReadAllText(FileOf(user, calendar, name)))
                : null;
        }
    }

    /// <summary>Puts an event where the condition holds for what is there now.</summary>
    /// <returns>The event, or null where the condition does not hold.</returns>
    public StoredEvent? Put(string user, string calendar, string name, string text, Func<StoredEvent?, bool> condition)
    {
        lock (_lock)
        {
            if (!condition(Find(user, calendar, name)))
                return null;
            // Written aside first, so that a stop in the middle leaves the old one whole.
            var file = FileOf(user, calendar, name);
            File.WriteAllText(file + ".new", text);
            File.Move(file + ".new", file, overwrite: true);
            Note(user, calendar, name, isGone: false);
            return new StoredEvent(name, text);
        }
    }

    /// <returns>False where the condition does not hold for what is there now.</returns>
    public bool Delete(string user, string calendar, string name, Func<StoredEvent, bool> condition)
    {
        lock (_lock)
        {
            if (Find(user, calendar, name) is not { } found || !condition(found))
                return false;
            File.Delete(FileOf(user, calendar, name));
            Note(user, calendar, name, isGone: true);
            return true;
        }
    }

    /// <summary>The token of now (RFC 6578 section 3).</summary>
    public string Token()
    {
        lock (_lock)
            return $"urn:stand-in:{_run}:{_number}";
    }

    /// <summary>
    /// The names of what changed since a token, the last change of each; null for a token that is not known.
    /// </summary>
    public IReadOnlyList<(string Name, bool IsGone)>? Since(string user, string calendar, string token)
    {
        lock (_lock)
        {
            if (
                token.Split(':') is not ["urn", "stand-in", var run, var text]
                || run != _run
                || !long.TryParse(text, out var number)
            )
                return null;
            return
            [
                .. _changes
                    .GetValueOrDefault((user, calendar), [])
                    .Where(change => change.Number > number)
                    .GroupBy(change => change.Name)
                    .Select(group => (group.Key, group.Last().IsGone)),
            ];
        }
    }

    /// <summary>
    /// Names go into paths: letters, digits, dots, dashes and underscores, and no dot at the beginning.
    /// </summary>
    public static bool IsName(string name) =>
        name.Length is > 0 and <= 120
        && name[0] != '.'
        && name.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '.' or '-' or '_' or '@');

    private void Note(string user, string calendar, string name, bool isGone)
    {
        if (!_changes.TryGetValue((user, calendar), out var changes))
            _changes[(user, calendar)] = changes = [];
        changes.Add(new StoredChange(++_number, name, isGone));
    }

    private static IReadOnlyList<string> Names(string folder) =>
        Directory.Exists(folder)
            ? [.. Directory.GetDirectories(folder).Select(each => Path.GetFileName(each)).Order(StringComparer.Ordinal)]
            : [];

    private string FolderOf(string user, string calendar) => Path.Combine(_folder, user, calendar);

    private string FileOf(string user, string calendar, string name) => Path.Combine(FolderOf(user, calendar), name);
}
