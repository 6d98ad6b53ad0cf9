using System.Globalization;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// One VEVENT: a single event, the head of a repeating one, or (with a RECURRENCE-ID) another version of one
/// occurrence.
/// </summary>
internal sealed class EventSeries
{
    public const string NoStart = "The event has no DTSTART, so it has no time.";

    private const int MostTitle = 200;

    private readonly Component _component;
    private readonly CalendarZones _zones;
    private readonly TimeValue _start;
    private readonly EventLength _length;

    private EventSeries(Component component, CalendarZones zones, TimeValue start, EventLength length) =>
        (_component, _zones, _start, _length) = (component, zones, start, length);

    public required string Uid { get; init; }

    public required string Title { get; init; }

    public required int Sequence { get; init; }

    public required bool Cancelled { get; init; }

    public required bool Free { get; init; }

    public required bool Tentative { get; init; }

    public required IReadOnlyList<EventPerson> People { get; init; }

    /// <summary>Which occurrence this is another version of; null for the series itself.</summary>
    public required TimeValue? RecurrenceId { get; init; }

    public required bool AndFuture { get; init; }

    /// <summary>The time of the event itself, or of the first of a series; null for one that is cancelled.</summary>
    public Span? FirstTime => Cancelled ? null : EntryAt(_start.Local).Time;

    public static string TitleOf(Component component) =>
        component.First("SUMMARY") is { } line
        && CutText.Kept(line.Text().ReplaceLineEndings(" ").Trim(), MostTitle) is { Length: > 0 } title
            ? title
            : "(no title)";

    /// <exception cref="EventFaultException">Names what is wrong and on which line.</exception>
    public static EventSeries Read(Component component, CalendarZones zones)
    {
        if (component.Lines.Count == ComponentReader.MostLines)
            throw new EventFaultException(
                component.Line,
                $"The event has more than {ComponentReader.MostLines} lines; that is more than is read of one."
            );
        if (component.BrokenLine is { } broken)
            throw new EventFaultException(
                broken,
                "This line of the event is no property: a name, a colon and a value are expected."
            );

        var start = TimeValue.Read(
            component.Single("DTSTART") ?? throw new EventFaultException(component.Line, NoStart)
        );
        zones.Of(start);

        var recurrenceId = component.Single("RECURRENCE-ID");
        return new EventSeries(component, zones, start, ReadLength(component, zones, start))
        {
            Uid = component.Single("UID")?.Value.Trim() ?? "",
            Title = TitleOf(component),
            Sequence = int.TryParse(component.Single("SEQUENCE")?.Value, CultureInfo.InvariantCulture, out var sequence)
                ? sequence
                : 0,
            Cancelled = IsSetTo(component, "STATUS", "CANCELLED"),
            Tentative = IsSetTo(component, "STATUS", "TENTATIVE"),
            Free = IsSetTo(component, "TRANSP", "TRANSPARENT"),
            People = EventPeople.Of(component),
            RecurrenceId = recurrenceId is null ? null : TimeValue.Read(recurrenceId),
            AndFuture = recurrenceId?.Parameters.GetValueOrDefault("RANGE")?.ToUpperInvariant() == "THISANDFUTURE",
        };
    }

    /// <summary>
    /// Its occurrences that meet <paramref name="range"/>, with the versions that replace single ones applied.
    /// </summary>
    /// <param name="budget">What it may take; where that runs out, what was found until then is all there is.</param>
    public IEnumerable<CalendarEntry> Occurrences(
        Span range,
        IReadOnlyList<EventSeries> versions,
        EventBudget budget
    ) =>
        // Of what there is no room for any more, at least the event itself counts.
        versions.Count == 0
        && (!IsRepeated || !budget.Step())
            ? Alone(range, budget)
            : All(range, versions, budget).Where(entry => entry.Time.Meets(range)).TakeWhile(_ => budget.Entry());

    private IEnumerable<CalendarEntry> All(Span range, IReadOnlyList<EventSeries> versions, EventBudget budget)
    {
        var single = versions.Where(version => !version.AndFuture).ToList();
        var future = versions
            .Where(version => version.AndFuture)
            .Select(version => (From: _zones.At(version.RecurrenceId!), Version: version))
            .OrderBy(pair => pair.From)
            .ToList();
        var leftOut = new NamedOccurrences(_start.IsDate);
        foreach (var value in _component.All("EXDATE").SelectMany(TimeValue.ReadList))
            leftOut.Add(value, _zones);
        foreach (var version in single)
            leftOut.Add(version.RecurrenceId!, _zones);

        // What was put in the place of others comes first: there is no more of it than the file has lines.
        foreach (var version in single.Where(version => !version.Cancelled))
            yield return version.EntryAt(version._start.Local);
        foreach (var entry in Periods().Where(_ => !Cancelled))
            yield return entry;

        foreach (var local in Starts(range, budget))
        {
            var at = _zones.At(local, _start, _start.IsDate);
            if (leftOut.Has(local, at))
                continue;

            var changed = LastBefore(future, at);
            if (changed is null)
            {
                if (!Cancelled)
                    yield return EntryAt(local, at);
            }
            else if (!changed.Cancelled)
            {
                // "This and future" moves each later occurrence by as much as it moved the first of them.
                var moved =
                    local
                    + Period.Between(
                        changed.RecurrenceId!.Local,
                        changed._start.Local,
                        PeriodUnits.Days | PeriodUnits.AllTimeUnits
                    );
                yield return changed.EntryAt(moved);
            }
        }
    }

    private bool IsRepeated => _component.Has("RRULE") || _component.Has("RDATE") || _component.Has("EXDATE");

    /// <summary>How often it repeats; null for one that does not by a rule, or by none that can be read.</summary>
    public RepeatEvery? Every => _component.First("RRULE") is { } line ? RepeatRule.EveryOf(line) : null;

    /// <summary>Of versions in order, the last that begins at a time or before.</summary>
    private static EventSeries? LastBefore(List<(Instant From, EventSeries Version)> versions, Instant at)
    {
        var (low, high) = (0, versions.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (versions[middle].From <= at)
                low = middle + 1;
            else
                high = middle;
        }

        return low == 0 ? null : versions[low - 1].Version;
    }

    /// <summary>The event as it stands by itself, for a version whose series is not in the file.</summary>
    public IEnumerable<CalendarEntry> Alone(Span range, EventBudget budget)
    {
        if (!Cancelled && EntryAt(_start.Local) is var entry && entry.Time.Meets(range) && budget.Entry())
            yield return entry;
    }

    private static bool IsSetTo(Component component, string property, string value) =>
        component.Single(property)?.Value.Trim().Equals(value, StringComparison.OrdinalIgnoreCase) ?? false;

    private static EventLength ReadLength(Component component, CalendarZones zones, TimeValue start)
    {
        if (component.Single("DTEND") is not { } endLine)
        {
            if (component.Single("DURATION") is { } duration)
                return EventLength.Read(duration);
            return new EventLength(start.IsDate ? 1 : 0, Duration.Zero);
        }

        var end = TimeValue.Read(endLine);
        if (end.IsDate != start.IsDate)
            throw new EventFaultException(end.Line, "DTSTART and DTEND must both be dates or both be times.");

        if (start.IsDate)
        {
            var days = Period.DaysBetween(start.Local.Date, end.Local.Date);
            if (days < 0)
                throw new EventFaultException(end.Line, "The event ends before it starts.");
            // Some programs write a one-day event with the same date twice; read as nothing it would be taken for free
            // time.
            return new EventLength(Math.Max(days, 1), Duration.Zero);
        }

        var length = zones.At(end) - zones.At(start);
        if (length < Duration.Zero)
            throw new EventFaultException(end.Line, "The event ends before it starts.");
        return new EventLength(0, length);
    }

    private IEnumerable<LocalDateTime> Starts(Span range, EventBudget budget)
    {
        var zone = _zones.Of(_start);
        // A zone can skip a whole day or have it twice; UTC does neither.
        var around = zone == DateTimeZone.Utc ? 0 : 2;
        var from =
            range.Start.InZone(zone).LocalDateTime.PlusDays(-_length.Days - around)
            - Period.FromSeconds((long)_length.Exact.TotalSeconds);
        var until = range.End.InZone(zone).LocalDateTime.PlusDays(around);

        var starts = new List<LocalDateTime> { _start.Local };
        if (_component.Single("RRULE") is { } rule)
            starts.AddRange(
                Repetition.Read(rule, _start, instant => instant.InZone(zone).LocalDateTime).Starts(from, until, budget)
            );
        var ordered = starts.Count;
        foreach (var value in _component.All("RDATE").Where(line => !IsPeriods(line)).SelectMany(TimeValue.ReadList))
        {
            var start = _start.IsDate || value.IsDate ? value.Local : _zones.At(value).InZone(zone).LocalDateTime;
            if (start >= from && start < until && budget.Step())
                starts.Add(start);
        }

        // A rule gives its times in order, from that of the event on.
        if (starts.Count > ordered)
            starts.Sort();
        return WithoutDoubles(starts);
    }

    private static IEnumerable<LocalDateTime> WithoutDoubles(List<LocalDateTime> ordered)
    {
        for (var place = 0; place < ordered.Count; place++)
        {
            if (place == 0 || ordered[place] != ordered[place - 1])
                yield return ordered[place];
        }
    }

    /// <summary>
    /// Further occurrences given as PERIODs (section 3.8.5.2): each with an end or a length of its own.
    /// </summary>
    private IEnumerable<CalendarEntry> Periods()
    {
        foreach (var line in _component.All("RDATE").Where(IsPeriods))
        {
            foreach (var period in line.Value.Split(','))
            {
                if (period.Trim().Split('/') is not [var from, var to])
                    throw new EventFaultException(
                        line.Line,
                        $"RDATE \"{period}\" is no period (a start, a slash, and an end or a length)."
                    );
                var start = _zones.At(TimeValue.Read(line, from));
                var length = to.StartsWith('P') ? EventLength.Read(line with { Value = to }) : default;
                var end = to.StartsWith('P')
                    ? start + Duration.FromDays(length.Days) + length.Exact
                    : _zones.At(TimeValue.Read(line, to));
                yield return new CalendarEntry(Uid, Title, new Span(start, end), WholeDay: false, Free, Tentative)
                {
                    People = People,
                };
            }
        }
    }

    private static bool IsPeriods(ContentLine line) =>
        string.Equals(line.Parameters.GetValueOrDefault("VALUE"), "PERIOD", StringComparison.OrdinalIgnoreCase);

    private CalendarEntry EntryAt(LocalDateTime local) => EntryAt(local, _zones.At(local, _start, _start.IsDate));

    private CalendarEntry EntryAt(LocalDateTime local, Instant start)
    {
        var end = _length.Days == 0 ? start : _zones.At(local.PlusDays(_length.Days), _start, _start.IsDate);
        return new CalendarEntry(Uid, Title, new Span(start, end + _length.Exact), _start.IsDate, Free, Tentative)
        {
            People = People,
        };
    }
}
