using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using LooseLantern.Core.Hours;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Formats.ICalendar.Availability;

/// <summary>
/// Writes hours as VAVAILABILITY (RFC 7953): the week as one of lowest priority and without end, and each run of
/// changed dates as one of highest priority for just those days, in which only its own times are available.
/// </summary>
public static class AvailabilityWriter
{
    public const string MediaType = "text/calendar";

    // The week is written from this Monday on; nothing before it is asked for.
    private static readonly LocalDate FirstMonday = new(2001, 1, 1);
    private static readonly LocalDatePattern DatePattern = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");
    private static readonly string[] DayCodes = ["", "MO", "TU", "WE", "TH", "FR", "SA", "SU"];

    /// <param name="uid">A UID that stays the same for these hours.</param>
    /// <param name="nameOf">What a changed date is called; null or empty for nothing.</param>
    public static string Write(
        HoursSet hours,
        string uid,
        string title,
        Instant stampedAt,
        Func<LocalDate, string?> nameOf
    )
    {
        var calendar = new Calendar { ProductId = "-//Loose Lantern//Hours//EN", Version = "2.0" };
        var zone = hours.Zone.Id;
        calendar.AddTimeZone(
            VTimeZone.FromDateTimeZone(zone, FirstMonday.ToDateTimeUnspecified(), includeHistoricalData: false)
        );

        var week = Availability(calendar, uid, title, stampedAt, priority: 9);
        var times = Enumerable
            .Range(1, 7)
            .SelectMany(day =>
                hours.Week.GetValueOrDefault((IsoDayOfWeek)day, []).Select(open => (Day: day, Open: open))
            )
            .GroupBy(pair => pair.Open, pair => pair.Day)
            .OrderBy(group => group.Min())
            .ThenBy(group => group.Key.From);
        foreach (var group in times)
        {
            var days = group.Order().ToList();
            Available(
                week,
                $"{uid}-w{days[0]}-{group.Key.From}",
                zone,
                stampedAt,
                FirstMonday.PlusDays(days[0] - 1),
                group.Key,
                $"FREQ=WEEKLY;BYDAY={string.Join(',', days.Select(day => DayCodes[day]))}"
            );
        }

        foreach (var (from, to, open, name) in ChangedRuns(hours, nameOf))
        {
            var change = Availability(calendar, $"{uid}-{DatePattern.Format(from)}", name, stampedAt, priority: 1);
            Add(change, "DTSTART", Local(from, 0), zone);
            Add(change, "DTEND", Local(to, OpenTime.MinutesOfDay), zone);
            foreach (var time in open)
            {
                Available(
                    change,
                    $"{uid}-{DatePattern.Format(from)}-{time.From}",
                    zone,
                    stampedAt,
                    from,
                    time,
                    from == to ? null : $"FREQ=DAILY;COUNT={NodaTime.Period.DaysBetween(from, to) + 1}"
                );
            }
        }

        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    /// <summary>The changed dates by the change that counts on each, run by run.</summary>
    private static IEnumerable<(LocalDate From, LocalDate To, IReadOnlyList<OpenTime> Open, string Name)> ChangedRuns(
        HoursSet hours,
        Func<LocalDate, string?> nameOf
    )
    {
        var dates = new SortedSet<LocalDate>(
            hours.Changes.SelectMany(change =>
                Enumerable
                    .Range(0, NodaTime.Period.DaysBetween(change.From, change.To) + 1)
                    .Select(change.From.PlusDays)
            )
        );
        (LocalDate From, LocalDate To, IReadOnlyList<OpenTime> Open, string Name)? run = null;
        foreach (var date in dates)
        {
            var (open, name) = (hours.OpenOn(date), nameOf(date) ?? "");
            if (run is { } last && last.To.PlusDays(1) == date && last.Name == name && last.Open.SequenceEqual(open))
            {
                run = last with { To = date };
                continue;
            }

            if (run is { } done)
                yield return done;
            run = (date, date, open, name);
        }

        if (run is { } final)
            yield return final;
    }

    private static CalendarComponent Availability(
        Calendar calendar,
        string uid,
        string title,
        Instant stampedAt,
        int priority
    )
    {
        var component = new CalendarComponent("VAVAILABILITY");
        Add(component, "UID", uid);
        Add(component, "DTSTAMP", Stamp(stampedAt));
        if (title.Length > 0)
            Add(component, "SUMMARY", title);
        Add(component, "PRIORITY", priority.ToString(System.Globalization.CultureInfo.InvariantCulture));
        Add(component, "BUSYTYPE", "BUSY-UNAVAILABLE");
        calendar.AddChild(component);
        return component;
    }

    private static void Available(
        CalendarComponent within,
        string uid,
        string zone,
        Instant stampedAt,
        LocalDate first,
        OpenTime time,
        string? rule
    )
    {
        // An AVAILABLE has the properties of an event (section 3.1), so it is one under another name.
        var component = new CalendarEvent
        {
            Name = "AVAILABLE",
            Uid = uid,
            DtStamp = new CalDateTime(stampedAt.ToDateTimeUtc(), hasTime: true),
            DtStart = At(time.From),
            DtEnd = At(time.To),
        };
        if (rule is not null)
            component.RecurrenceRule = new RecurrenceRule(rule);
        within.AddChild(component);

        CalDateTime At(int minute) =>
            new(first.AtMidnight().PlusMinutes(minute).ToDateTimeUnspecified(), zone, hasTime: true);
    }

    private static void Add(CalendarComponent component, string name, string value, string? zone = null)
    {
        var property = new CalendarProperty(name, value);
        if (zone is not null)
            property.AddParameter("TZID", zone);
        component.Properties.Add(property);
    }

    private static string Local(LocalDate date, int minute)
    {
        var time = date.AtMidnight().PlusMinutes(minute);
        return LocalDateTimePattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss").Format(time);
    }

    private static string Stamp(Instant at) =>
        InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'").Format(at);
}
