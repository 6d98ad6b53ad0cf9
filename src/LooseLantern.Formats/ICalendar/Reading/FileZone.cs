using NodaTime;
using NodaTime.TimeZones;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// A time zone as a file's own VTIMEZONE explains it (RFC 5545 section 3.6.5), for names that no zone table knows.
/// </summary>
internal sealed class FileZone : DateTimeZone
{
    private const int LastYear = 2100;
    private const int MostChanges = 4000;

    private readonly List<ZoneInterval> _intervals;

    private FileZone(string id, List<ZoneInterval> intervals)
        : base(id, isFixed: intervals.Count == 1, intervals.Min(i => i.WallOffset), intervals.Max(i => i.WallOffset)) =>
        _intervals = intervals;

    /// <exception cref="EventFaultException">When the VTIMEZONE itself can't be read.</exception>
    public static FileZone Read(string id, Component zone, EventBudget budget)
    {
        if (zone.BrokenLine is { } broken)
            throw new EventFaultException(broken, $"The VTIMEZONE of \"{id}\" can't be read here.");

        var changes = zone
            .Within.Where(part => part.Name is "STANDARD" or "DAYLIGHT")
            .SelectMany(part => Changes(part, budget))
            .Take(MostChanges + 1)
            .OrderBy(change => change.At)
            .ToList();
        if (changes.Count > MostChanges || budget.IsOver)
            throw new EventFaultException(
                zone.Line,
                $"The VTIMEZONE of \"{id}\" changes its offset too often to be read."
            );
        if (changes.Count == 0)
            throw new EventFaultException(
                zone.Line,
                $"The VTIMEZONE of \"{id}\" has neither STANDARD nor DAYLIGHT time."
            );

        // What held before the first change is what that change came from.
        var intervals = new List<ZoneInterval>();
        Instant? start = null;
        var offset = changes[0].From;
        foreach (var change in changes)
        {
            if (start is null || change.At > start)
                intervals.Add(new ZoneInterval(id, start, change.At, offset, Offset.Zero));
            (start, offset) = (change.At, change.To);
        }

        intervals.Add(new ZoneInterval(id, start, null, offset, Offset.Zero));
        return new FileZone(id, intervals);
    }

    public override ZoneInterval GetZoneInterval(Instant instant)
    {
        int low = 0,
            high = _intervals.Count - 1;
        while (low < high)
        {
            var middle = (low + high + 1) / 2;
            if (_intervals[middle].Start <= instant)
                low = middle;
            else
                high = middle - 1;
        }

        return _intervals[low];
    }

    private static IEnumerable<(Instant At, Offset From, Offset To)> Changes(Component part, EventBudget budget)
    {
        var from = ReadOffset(part, "TZOFFSETFROM");
        var to = ReadOffset(part, "TZOFFSETTO");
        var start = part.First("DTSTART")
            ?? throw new EventFaultException(part.Line, $"This {part.Name} time has no DTSTART.");
        var first = TimeValue.Read(start);

        var onsets = new List<LocalDateTime> { first.Local };
        onsets.AddRange(part.All("RDATE").SelectMany(TimeValue.ReadList).Select(value => value.Local));
        foreach (var rule in part.All("RRULE"))
        {
            onsets.AddRange(
                Repetition
                    .Read(rule, first, instant => instant.WithOffset(from).LocalDateTime)
                    .Starts(first.Local, new LocalDateTime(LastYear, 1, 1, 0, 0), budget)
                    .Take(MostChanges + 1)
            );
        }

        return onsets.Distinct().Select(local => (local.WithOffset(from).ToInstant(), from, to));
    }

    private static Offset ReadOffset(Component part, string property)
    {
        var line = part.First(property)
            ?? throw new EventFaultException(part.Line, $"This {part.Name} time has no {property}.");
        var text = line.Value.Trim();
        var digits = text.Length is (5 or 7) && text[0] is ('+' or '-') ? text[1..] : "";
        if (digits.Length == 0 || !digits.All(char.IsAsciiDigit))
            throw new EventFaultException(line.Line, $"{property} \"{text}\" is no offset (+0200, say).");

        int Pair(int position) =>
            position < digits.Length ? (digits[position] - '0') * 10 + digits[position + 1] - '0' : 0;
        var seconds = Pair(0) * 3600 + Pair(2) * 60 + Pair(4);
        if (seconds > 18 * 3600)
            throw new EventFaultException(line.Line, $"{property} \"{text}\" is more than 18 hours.");
        return Offset.FromSeconds(text[0] == '-' ? -seconds : seconds);
    }
}
