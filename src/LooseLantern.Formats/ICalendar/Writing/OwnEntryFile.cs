using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Writing;

/// <summary>An entry of a calendar that is kept here, on the wall clock of its host.</summary>
/// <param name="Start">Local start; midnight for whole days.</param>
/// <param name="End">Local end, not included; the midnight after the last of whole days.</param>
/// <param name="Zone">IANA id; not written for whole days, which are the host's wherever they are.</param>
/// <param name="Rule">How it repeats (RFC 5545 section 3.3.10), without "RRULE:"; null for once.</param>
/// <param name="IsFree">Shown, but in nobody's way.</param>
public sealed record OwnEntry(
    string Uid,
    Instant StampedAt,
    string Title,
    LocalDateTime Start,
    LocalDateTime End,
    bool WholeDay,
    string Zone,
    string? Rule,
    bool IsFree,
    bool IsTentative
);

public static class OwnEntryFile
{
    /// <summary>One calendar object with one VEVENT.</summary>
    public static string Write(OwnEntry entry)
    {
        var calendar = new Calendar { ProductId = "-//Loose Lantern//Entry//EN", Version = "2.0" };
        var written = new CalendarEvent
        {
            Uid = entry.Uid,
            DtStamp = Utc.Of(entry.StampedAt),
            DtStart = TimeOf(entry.Start),
            DtEnd = TimeOf(entry.End),
            Summary = entry.Title,
            Transparency = entry.IsFree ? "TRANSPARENT" : "OPAQUE",
            Status = entry.IsTentative ? "TENTATIVE" : "CONFIRMED",
        };
        if (entry.Rule is not null)
            written.RecurrenceRule = new RecurrenceRule(entry.Rule);
        calendar.Events.Add(written);
        return new CalendarSerializer().SerializeToString(calendar)!;

        CalDateTime TimeOf(LocalDateTime local) =>
            entry.WholeDay
                ? new CalDateTime(local.Year, local.Month, local.Day)
                : new CalDateTime(local.Year, local.Month, local.Day, local.Hour, local.Minute, 0, entry.Zone);
    }
}
