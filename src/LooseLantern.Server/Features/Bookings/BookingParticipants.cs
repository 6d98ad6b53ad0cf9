using System.Globalization;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>
/// Who takes part in a booking, as calendars have it: in invitations and in hosts' own calendars alike.
/// </summary>
public static class BookingParticipants
{
    public static Participant Of(Host host, string? address) =>
        new(
            host.Id,
            host.Name,
            address,
            host.Kind switch
            {
                HostKind.Room => ParticipantKind.Room,
                HostKind.Thing => ParticipantKind.Thing,
                _ => ParticipantKind.Person,
            }
        );

    /// <summary>The guest, and whom they bring along.</summary>
    public static IEnumerable<Participant> Of(Booking booking) =>
        booking
            .Companions.Select(one => new Participant(
                booking.Id,
                one.Name.Length == 0 ? one.Email : one.Name,
                one.Email
            ))
            .Prepend(new Participant(booking.Id, booking.GuestName, booking.GuestEmail));

    /// <summary>
    /// What hosts read of these guests: who each is and what they answered, and the page's words for hosts.
    /// </summary>
    /// <param name="start">Of the session: where a guest's clock shows another hour then, it is told.</param>
    public static string ForHosts(IEnumerable<Booking> guests, Page page, Instant start) =>
        string.Join(
                '\n',
                guests
                    .SelectMany(guest =>
                        guest
                            .Answers.Select(answer => answer.Line)
                            .Prepend($"{guest.GuestName}, {guest.GuestEmail}{ThereInWords(guest, page, start)}")
                            .Concat(guest.Flags)
                    )
                    .Append(page.Post.HostWords)
            )
            .Trim();

    private static string ThereInWords(Booking guest, Page page, Instant start)
    {
        var (there, here) = (
            start.InZone(DateTimeZoneProviders.Tzdb[guest.GuestZone]),
            start.InZone(DateTimeZoneProviders.Tzdb[page.Zone])
        );
        if (there.Offset == here.Offset)
            return "";
        var form = there.Date == here.Date ? "HH:mm" : "ddd HH:mm";
        var city = guest.GuestZone[(guest.GuestZone.LastIndexOf('/') + 1)..].Replace('_', ' ');
        return $" ({there.ToString(form, CultureInfo.InvariantCulture)} in {city})";
    }
}
