using System.Text;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// A calendar as an iCalendar file (RFC 5545). Reading it has two steps: the structure, which must be right as a whole, and the events,
/// each of which may be broken by itself and is then listed instead of read.
/// </summary>
public sealed class CalendarFile
{
    private readonly IReadOnlyList<Component> _events;
    private readonly IReadOnlyDictionary<string, Component> _zones;

    private CalendarFile(IReadOnlyList<Component> events, IReadOnlyDictionary<string, Component> zones) => (_events, _zones) = (events, zones);

    /// <summary>How many VEVENTs the file has, readable or not.</summary>
    public int EventCount => _events.Count;

    /// <exception cref="CalendarFileException">When the file is no iCalendar or breaks off; says what and on which line.</exception>
    public static CalendarFile Parse(byte[] file) => Of(Components(file));

    /// <inheritdoc cref="Parse(byte[])"/>
    public static CalendarFile Parse(string text) => Of(Components(text));

    /// <summary>The components of all calendars in a file.</summary>
    /// <exception cref="CalendarFileException">As <see cref="Parse(byte[])"/>.</exception>
    internal static List<Component> Components(byte[] file)
    {
        try
        {
            var text = new UTF8Encoding(encoderShouldEmitUTF8Identifier: false, throwOnInvalidBytes: true).GetString(file);
            return Components(text.TrimStart('\uFEFF'));
        }
        catch (DecoderFallbackException e)
        {
            var line = 1 + file.AsSpan(0, Math.Clamp(e.Index, 0, file.Length)).Count((byte)'\n');
            throw new CalendarFileException(line, "There are bytes that are not UTF-8; save or export the calendar as UTF-8.");
        }
    }

    /// <summary>The VTIMEZONEs of a file by their TZID.</summary>
    internal static Dictionary<string, Component> ZonesIn(IEnumerable<Component> components)
    {
        var zones = new Dictionary<string, Component>();
        foreach (var zone in components.Where(component => component.Name == "VTIMEZONE"))
        {
            if (zone.First("TZID")?.Value.Trim() is { } id) zones.TryAdd(id, zone);
        }

        return zones;
    }

    private static List<Component> Components(string text) => ComponentReader.Read(text).SelectMany(calendar => calendar.Within).ToList();

    private static CalendarFile Of(List<Component> components) =>
        new(components.Where(component => component.Name == "VEVENT").ToList(), ZonesIn(components));

    /// <summary>The occurrences that meet <paramref name="range"/>, by start, and the events that could not be read.</summary>
    /// <param name="owner">The zone of the calendar's owner, in which whole days and floating times are meant.</param>
    public CalendarReading Read(Span range, DateTimeZone owner)
    {
        var zones = new CalendarZones(owner, _zones);
        var entries = new List<CalendarEntry>();
        var unread = new List<UnreadEvent>();
        var readable = new List<(Component Component, EventSeries Series)>();

        foreach (var component in _events) Attempt(component, () => readable.Add((component, EventSeries.Read(component, zones))));

        foreach (var sameUid in readable.GroupBy(pair => pair.Series.Uid.Length > 0 ? pair.Series.Uid : $"line {pair.Component.Line}"))
        {
            var heads = sameUid.Where(pair => pair.Series.RecurrenceId is null).ToList();
            var versions = sameUid
                .Where(pair => pair.Series.RecurrenceId is not null)
                .GroupBy(pair => (pair.Series.RecurrenceId!.Local, pair.Series.RecurrenceId.ZoneId, pair.Series.RecurrenceId.IsUtc))
                .Select(Newest)
                .ToList();

            if (heads.Count == 0)
            {
                foreach (var (component, version) in versions) Attempt(component, () => entries.AddRange(version.Alone(range)));
            }
            else
            {
                var (component, head) = Newest(heads);
                Attempt(component, () => entries.AddRange(head.Occurrences(range, [.. versions.Select(pair => pair.Series)]).ToList()));
            }
        }

        entries.RemoveAll(entry => entry.Time.IsEmpty);
        entries.Sort((a, b) => a.Time.Start.CompareTo(b.Time.Start));
        unread.Sort((a, b) => a.Line.CompareTo(b.Line));
        return new CalendarReading(entries, unread);

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
                unread.Add(new UnreadEvent(component.Line, EventSeries.TitleOf(component), "The event lies outside the dates that can be read."));
            }
        }
    }

    /// <summary>A file may hold an event twice: the higher SEQUENCE supersedes (section 3.8.7.4), the later one where they are equal.</summary>
    private static (Component Component, EventSeries Series) Newest(IEnumerable<(Component Component, EventSeries Series)> same) =>
        same.Aggregate((newest, next) => next.Series.Sequence >= newest.Series.Sequence ? next : newest);
}
