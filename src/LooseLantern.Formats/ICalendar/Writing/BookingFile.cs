using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.Serialization;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Writing;

/// <summary>
/// What a guest's calendar should know of a booking. <see cref="Sequence"/> rises with each move (RFC 5545 section
/// 3.8.7.4).
/// </summary>
public sealed record BookingEvent(
    string Uid,
    int Sequence,
    Instant StampedAt,
    Span Time,
    string Title,
    string? Place,
    string? Description,
    Uri? PrivateLink
);

/// <summary>
/// Writes a booking as an iCalendar file to keep: one VEVENT in UTC, so that any calendar shows it right wherever its
/// reader is.
/// </summary>
public static class BookingFile
{
    public const string MediaType = "text/calendar";

    public static string Write(BookingEvent booking)
    {
        var calendar = new Calendar { ProductId = "-//Loose Lantern//Booking//EN", Version = "2.0" };
        calendar.Events.Add(
            new CalendarEvent
            {
                Uid = booking.Uid,
                Sequence = booking.Sequence,
                DtStamp = Utc.Of(booking.StampedAt),
                DtStart = Utc.Of(booking.Time.Start),
                DtEnd = Utc.Of(booking.Time.End),
                Summary = booking.Title,
                Location = booking.Place,
                Description = booking.Description,
                Url = booking.PrivateLink,
                Status = "CONFIRMED",
            }
        );
        return new CalendarSerializer().SerializeToString(calendar)!;
    }
}
