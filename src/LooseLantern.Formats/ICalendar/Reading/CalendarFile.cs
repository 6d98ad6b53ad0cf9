using System.Text;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// A calendar as an iCalendar file (RFC 5545). Reading it has two steps: the structure, which must be right as a whole,
/// and the events, each of which may be broken by itself and is then listed instead of read.
/// </summary>
public sealed class CalendarFile
{
    private readonly IReadOnlyList<Component> _events;
    private readonly IReadOnlyDictionary<string, Component> _zones;

    private CalendarFile(
        IReadOnlyList<Component> events,
        IReadOnlyDictionary<string, Component> zones,
        IReadOnlyList<Component> calendars
    )
    {
        (_events, _zones) = (events, zones);
        Name = calendars
            .Select(calendar => (calendar.First("NAME") ?? calendar.First("X-WR-CALNAME"))?.Text().Trim())
            .FirstOrDefault(name => !string.IsNullOrEmpty(name));
        RefreshEvery = calendars
            .Select(calendar => IntervalOf(calendar.First("REFRESH-INTERVAL")))
            .FirstOrDefault(interval => interval is not null);
    }

    /// <summary>
    /// What the calendar calls itself (NAME, RFC 7986 section 5.1, or what programs wrote before that was there).
    /// </summary>
    public string? Name { get; }

    /// <summary>
    /// How long its publisher asks to wait between looks (REFRESH-INTERVAL, RFC 7986 section 5.7); null where it does
    /// not say, or not so that it can be read.
    /// </summary>
    public Duration? RefreshEvery { get; }

    /// <summary>How many VEVENTs the file has, readable or not.</summary>
    public int EventCount => _events.Count;

    /// <exception cref="CalendarFileException">When the file is no iCalendar or breaks off; says what and on which
    /// line.</exception>
    public static CalendarFile Parse(byte[] file) => Of(Calendars(file));

    /// <inheritdoc cref="Parse(byte[])"/>
    public static CalendarFile Parse(string text) => Of(ComponentReader.Read(text));

    /// <summary>The components of all calendars in a file.</summary>
    /// <exception cref="CalendarFileException">As <see cref="Parse(byte[])"/>.</exception>
    internal static List<Component> Components(byte[] file) => Within(Calendars(file));

    private static IReadOnlyList<Component> Calendars(byte[] file)
    {
        try
        {
            var text = new UTF8Encoding(encoderShouldEmitUTF8Identifier: false, throwOnInvalidBytes: true).GetString(
                file
            );
            return ComponentReader.Read(text.TrimStart('\uFEFF'));
        }
        catch (DecoderFallbackException e)
        {
            var line = 1 + file.AsSpan(0, Math.Clamp(e.Index, 0, file.Length)).Count((byte)'\n');
            throw new CalendarFileException(
                line,
                "There are bytes that are not UTF-8; save or export the calendar as UTF-8."
            );
        }
    }

    /// <summary>The VTIMEZONEs of a file by their TZID.</summary>
    internal static Dictionary<string, Component> ZonesIn(IEnumerable<Component> components)
    {
        var zones = new Dictionary<string, Component>();
        foreach (var zone in components.Where(component => component.Name == "VTIMEZONE"))
        {
            if (zone.First("TZID")?.Value.Trim() is { } id)
                zones.TryAdd(id, zone);
        }

        return zones;
    }

    private static List<Component> Within(IReadOnlyList<Component> calendars) =>
        calendars.SelectMany(calendar => calendar.Within).ToList();

    private static CalendarFile Of(IReadOnlyList<Component> calendars)
    {
        var components = Within(calendars);
        return new CalendarFile(
            components.Where(component => component.Name == "VEVENT").ToList(),
            ZonesIn(components),
            calendars
        );
    }

    private static Duration? IntervalOf(ContentLine? line)
    {
        if (line is null)
            return null;
        try
        {
            var length = EventLength.Read(line);
            return Duration.FromDays(length.Days) + length.Exact;
        }
        catch (Exception e) when (e is EventFaultException or OverflowException)
        {
            // A hint that can't be read is none.
            return null;
        }
    }

    /// <summary>
    /// The occurrences that meet <paramref name="range"/>, by start, and the events that could not be read.
    /// </summary>
    /// <param name="owner">The zone of the calendar's owner, in which whole days and floating times are meant.</param>
    /// <param name="budget">What reading it may take, together with the calendar's other files.</param>
    public CalendarReading Read(Span range, DateTimeZone owner, ReadingBudget budget)
    {
        var zones = new CalendarZones(owner, _zones, budget);
        var entries = new List<CalendarEntry>();
        var unread = new List<UnreadEvent>();
        var readable = new List<(Component Component, EventSeries Series)>();

        foreach (var component in _events)
        {
            // Said without an exception: a file can have two hundred thousand of these.
            if (component.BrokenLine is null && !component.Has("DTSTART"))
                unread.Add(new UnreadEvent(component.Line, EventSeries.TitleOf(component), EventSeries.NoStart));
            else
                Attempt(component, () => readable.Add((component, EventSeries.Read(component, zones))));
        }

        // What asks for least comes first, and those that ask for too much can take only from each other.
        foreach (
            var sameUid in readable
                .GroupBy(pair => pair.Series.Uid.Length > 0 ? pair.Series.Uid : $"line {pair.Component.Line}")
                .OrderBy(same => same.Max(pair => pair.Series.Every is { } every ? (int)every : -1))
        )
        {
            if (sameUid.Count() == 1)
            {
                var (component, only) = sameUid.First();
                Keep(component, budget =>
                    only.RecurrenceId is null ? only.Occurrences(range, [], budget) : only.Alone(range, budget)
                );
                continue;
            }

            var heads = sameUid.Where(pair => pair.Series.RecurrenceId is null).ToList();
            var versions = sameUid
                .Where(pair => pair.Series.RecurrenceId is not null)
                .GroupBy(pair =>
                    (pair.Series.RecurrenceId!.Local, pair.Series.RecurrenceId.ZoneId, pair.Series.RecurrenceId.IsUtc)
                )
                .Select(Newest)
                .ToList();

            if (heads.Count == 0)
            {
                foreach (var (component, version) in versions)
                    Keep(component, budget => version.Alone(range, budget));
            }
            else
            {
                var (component, head) = Newest(heads);
                Keep(component, budget => head.Occurrences(range, [.. versions.Select(pair => pair.Series)], budget));
            }
        }

        entries.RemoveAll(entry => entry.Time.IsEmpty);
        entries.Sort((a, b) => a.Time.Start.CompareTo(b.Time.Start));
        unread.Sort((a, b) => a.Line.CompareTo(b.Line));
        return new CalendarReading(entries, unread);

        void Keep(Component component, Func<EventBudget, IEnumerable<CalendarEntry>> occurrences)
        {
            var own = budget.ForEvent();
            var first = entries.Count;
            // One by one: what was found before something goes wrong is kept.
            Attempt(component, () =>
            {
                foreach (var entry in occurrences(own))
                    entries.Add(entry);
            });
            budget.Pause();
            if (!own.IsOver)
                return;
            Join(entries, first);
            unread.Add(
                new UnreadEvent(
                    component.Line,
                    EventSeries.TitleOf(component),
                    "It names more times than are read of one event. Whoever does not need it deletes it there.",
                    IsPartly: true
                )
            );
        }

        void Attempt(Component component, Action read)
        {
            try
            {
                read();
            }
            catch (EventFaultException e)
            {
                unread.Add(new UnreadEvent(e.Line, EventSeries.TitleOf(component), e.Message));
            }
            catch (Exception e) when (e is ArgumentException or OverflowException)
            {
                // NodaTime's own ends of time: a date such as the year 9999 plus a length.
                unread.Add(
                    new UnreadEvent(
                        component.Line,
                        EventSeries.TitleOf(component),
                        "The event lies outside the dates that can be read."
                    )
                );
            }
        }
    }

    /// <summary>
    /// Of an event that is in the calendar without end, times that are less than a minute apart are one: nothing fits
    /// between them, and thirty thousand of them would be as many bars on a board.
    /// </summary>
    private static void Join(List<CalendarEntry> entries, int first)
    {
        var joined = new List<CalendarEntry>();
        foreach (var entry in entries[first..].OrderBy(entry => entry.Time.Start))
        {
            if (joined is [.., var last] && entry.Time.Start - last.Time.End < Duration.FromMinutes(1))
                joined[^1] = last with { Time = new Span(last.Time.Start, Instant.Max(last.Time.End, entry.Time.End)) };
            else
                joined.Add(entry);
        }

        entries.RemoveRange(first, entries.Count - first);
        entries.AddRange(joined);
    }

    /// <summary>
    /// When the event with this UID is, for one that was written in UTC; of a repeating one, the first time. Null where
    /// it is not in the file, can't be read, or is cancelled.
    /// </summary>
    public Span? TimeOf(string uid)
    {
        var zones = new CalendarZones(DateTimeZone.Utc, _zones, new ReadingBudget());
        foreach (
            var component in _events.Where(component =>
                component.First("UID")?.Value.Trim() == uid && component.First("RECURRENCE-ID") is null
            )
        )
        {
            try
            {
                return EventSeries.Read(component, zones).FirstTime;
            }
            catch (Exception e) when (e is EventFaultException or ArgumentException or OverflowException)
            {
                return null;
            }
        }

        return null;
    }

    /// <summary>
    /// A file may hold an event twice: the higher SEQUENCE supersedes (section 3.8.7.4), the later one where they are
    /// equal.
    /// </summary>
    private static (Component Component, EventSeries Series) Newest(
        IEnumerable<(Component Component, EventSeries Series)> same
    ) => same.Aggregate((newest, next) => next.Series.Sequence >= newest.Series.Sequence ? next : newest);
}
