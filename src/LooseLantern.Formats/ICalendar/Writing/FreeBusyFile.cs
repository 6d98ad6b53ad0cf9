using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Writing;

/// <summary>
/// Writes when somebody is busy, and nothing else of it, as one VFREEBUSY (RFC 5545 section 3.6.4) in UTC.
/// </summary>
public static class FreeBusyFile
{
    /// <param name="uid">Stays the same for the same somebody.</param>
    /// <param name="range">The run of time that is told of.</param>
    /// <param name="busy">Time that is taken; unsorted and overlapping spans are ordinary input.</param>
    /// <param name="tentative">Time that is taken only perhaps; what is also in <paramref name="busy"/> is
    /// busy.</param>
    public static string Write(
        string uid,
        Instant stampedAt,
        Span range,
        IEnumerable<Span> busy,
        IEnumerable<Span> tentative
    )
    {
        var calendar = new Calendar { ProductId = "-//Loose Lantern//Busy times//EN", Version = "2.0" };
        var taken = SpanUnion.Of(busy.Select(Within));
        var freeBusy = new FreeBusy
        {
            Uid = uid,
            DtStamp = Utc.Of(stampedAt),
            DtStart = Utc.Of(range.Start),
            DtEnd = Utc.Of(range.End),
        };
        foreach (var span in taken)
            freeBusy.Entries.Add(new FreeBusyEntry(PeriodOf(span), FreeBusyStatus.Busy));
        foreach (var span in Core.FreeTimes.FreeTime.Of(tentative.Select(Within), taken))
            freeBusy.Entries.Add(new FreeBusyEntry(PeriodOf(span), FreeBusyStatus.BusyTentative));
        calendar.FreeBusy.Add(freeBusy);
        return new CalendarSerializer().SerializeToString(calendar)!;

        Span Within(Span span) => new(Instant.Max(span.Start, range.Start), Instant.Min(span.End, range.End));
    }

    private static Ical.Net.DataTypes.Period PeriodOf(Span span) => new(Utc.Of(span.Start), Utc.Of(span.End));
}
