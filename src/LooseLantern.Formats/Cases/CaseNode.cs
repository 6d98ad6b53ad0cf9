using System.Globalization;
using System.Text.Json;
using LooseLantern.Core.Hours;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Formats.Cases;

/// <summary>
/// A value of a case file with its path. Each way of reading it notes what is wrong and goes on with something
/// harmless, so that one pass finds every fault.
/// </summary>
internal readonly struct CaseNode(JsonElement element, string path, List<CaseFault> faults)
{
    /// <summary>
    /// The most of any number: minutes of some ten years, far past what any rule needs and short of what dates can't
    /// hold.
    /// </summary>
    public const int Most = 5_000_000;

    private static readonly InstantPattern At = InstantPattern.CreateWithInvariantCulture(
        "uuuu'-'MM'-'dd'T'HH':'mm':'ss'Z'"
    );

    // Room on either side for every buffer and duration that can be added.
    private static readonly Instant Earliest = NodaTime.Instant.FromUtc(100, 1, 1, 0, 0);
    private static readonly Instant Latest = NodaTime.Instant.FromUtc(9900, 1, 1, 0, 0);

    private readonly JsonElement _element = element;

    public string Path { get; } = path;

    public bool IsNull => _element.ValueKind is JsonValueKind.Null or JsonValueKind.Undefined;

    public void Fault(string fault) => faults.Add(new CaseFault(Path, fault));

    /// <summary>
    /// The members of an object. Names with a question mark may be missing; any name beyond these is a fault.
    /// </summary>
    public CaseMembers Members(params string[] names)
    {
        var found = new Dictionary<string, CaseNode>();
        if (_element.ValueKind != JsonValueKind.Object)
        {
            Fault("An object is expected.");
            return new CaseMembers(found, this);
        }

        var known = names.Select(name => name.TrimEnd('?')).ToHashSet();
        foreach (var member in _element.EnumerateObject())
        {
            var node = new CaseNode(member.Value, Join(member.Name), faults);
            if (!known.Contains(member.Name))
                node.Fault("There is no such member.");
            else if (!found.TryAdd(member.Name, node))
                node.Fault("This member stands twice.");
        }

        foreach (var name in names.Where(name => !name.EndsWith('?') && !found.ContainsKey(name)))
            faults.Add(new CaseFault(Join(name), "This member is missing."));
        return new CaseMembers(found, this);
    }

    /// <summary>The named members of an object whose names are free, such as the days of a week.</summary>
    public IEnumerable<(string Name, CaseNode Node)> Entries()
    {
        if (_element.ValueKind != JsonValueKind.Object)
        {
            Fault("An object is expected.");
            return [];
        }

        var (join, noted) = (Path, faults);
        return _element
            .EnumerateObject()
            .Select(member =>
                (
                    member.Name,
                    new CaseNode(member.Value, join.Length == 0 ? member.Name : $"{join}.{member.Name}", noted)
                )
            )
            .ToList();
    }

    public IReadOnlyList<CaseNode> List()
    {
        if (_element.ValueKind == JsonValueKind.Array)
        {
            var (path, noted) = (Path, faults);
            return _element.EnumerateArray().Select((item, i) => new CaseNode(item, $"{path}[{i}]", noted)).ToList();
        }

        Fault("A list is expected.");
        return [];
    }

    /// <summary>A list of exactly two.</summary>
    public (CaseNode First, CaseNode Second)? Pair()
    {
        var items = List();
        if (items.Count == 2)
            return (items[0], items[1]);
        if (_element.ValueKind == JsonValueKind.Array)
            Fault("A pair of two values is expected.");
        return null;
    }

    public string Text()
    {
        if (_element.ValueKind == JsonValueKind.String)
            return _element.GetString()!;
        Fault("A text is expected.");
        return "";
    }

    public string Id()
    {
        var text = Text();
        if (_element.ValueKind == JsonValueKind.String && text.Length == 0)
            Fault("An id is not empty.");
        return text;
    }

    public string? TextOrNull() => IsNull ? null : Text();

    public string OneOf(params string[] words)
    {
        var text = Text();
        if (words.Contains(text))
            return text;
        if (_element.ValueKind == JsonValueKind.String)
            Fault($"One of {string.Join(", ", words)} is expected.");
        return words[0];
    }

    public int Number(int least)
    {
        if (
            _element.ValueKind != JsonValueKind.Number
            || !_element.TryGetDecimal(out var number)
            || number != decimal.Truncate(number)
        )
        {
            Fault("A whole number is expected.");
            return least;
        }

        if (number >= least && number <= Most)
            return (int)number;
        Fault($"The number must be from {least} to {Most}.");
        return least;
    }

    public int? NumberOrNull(int least) => IsNull ? null : Number(least);

    public Instant Instant()
    {
        var text = Text();
        if (At.Parse(text) is { Success: true } parsed)
            return NodaTime.Instant.Max(Earliest, NodaTime.Instant.Min(Latest, parsed.Value));
        if (_element.ValueKind == JsonValueKind.String)
            Fault("An instant such as 2026-12-01T08:00:00Z is expected.");
        return Earliest;
    }

    public LocalDate Date()
    {
        var text = Text();
        if (LocalDatePattern.Iso.Parse(text) is { Success: true, Value.Year: > 100 and < 9900 } parsed)
            return parsed.Value;
        if (_element.ValueKind == JsonValueKind.String)
            Fault("A date such as 2026-12-01 is expected.");
        return new LocalDate(2000, 1, 1);
    }

    public DateTimeZone Zone()
    {
        var text = Text();
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(text) is { } zone)
            return zone;
        if (_element.ValueKind == JsonValueKind.String)
            Fault("There is no such time zone; an IANA name is expected.");
        return DateTimeZone.Utc;
    }

    /// <summary>Minutes after midnight of "HH:MM".</summary>
    public int? Minute()
    {
        var text = Text();
        if (OpenTime.TryParseMinute(text, out var minute))
            return minute;
        if (_element.ValueKind == JsonValueKind.String)
            Fault("A time of day such as 09:00 is expected, up to 24:00.");
        return null;
    }

    private string Join(string name) =>
        Path.Length == 0 ? name : string.Create(CultureInfo.InvariantCulture, $"{Path}.{name}");
}

/// <summary>
/// The members that an object was read with. One that is missing was noted already; it reads as null.
/// </summary>
internal sealed class CaseMembers(Dictionary<string, CaseNode> found, CaseNode owner)
{
    public CaseNode Owner => owner;

    public bool Has(string name) => found.ContainsKey(name);

    public bool HasValue(string name) => found.TryGetValue(name, out var node) && !node.IsNull;

    /// <summary>Reads a member, or gives <paramref name="missing"/> where it is not there.</summary>
    public T Read<T>(string name, T missing, Func<CaseNode, T> read) =>
        found.TryGetValue(name, out var node) ? read(node) : missing;
}
