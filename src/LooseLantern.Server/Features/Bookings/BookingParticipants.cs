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

    /// <summary>
    /// The guest, who booked for them, and whom they bring along, as far as they are to be mailed: whom no mail reaches
    /// can't answer an invitation. A time among ourselves has none of these.
    /// </summary>
    public static IEnumerable<Participant> Of(Booking booking) =>
        booking.IsAmongOurselves
            ? []
            : booking
                .Companions.Select(one => (Name: one.Name.Length == 0 ? one.Email : one.Name, one.Email))
                .Prepend((Name: booking.BookerName, Email: booking.BookerEmail))
                .Prepend((Name: booking.GuestName, Email: booking.GuestEmail))
                .Where(one => one.Email.Length > 0)
                .DistinctBy(one => one.Email, StringComparer.OrdinalIgnoreCase)
                .Select(one => new Participant(booking.Id, one.Name, one.Email));

    /// <summary>What the session is called in hosts' calendars: the page and its guests.</summary>
    public static string TitleFor(Page page, IEnumerable<Booking> guests)
    {
        var names = string.Join(", ", guests.Where(guest => !guest.IsAmongOurselves).Select(guest => guest.GuestName));
        return names.Length == 0 ? page.Title : $"{page.Title}: {names}";
    }

    /// <summary>
    /// What hosts read of these guests: who each is and what they answered, and the page's words for hosts.
    /// </summary>
    /// <param name="start">Of the session: where a guest's clock shows another hour then, it is told.</param>
    public static string ForHosts(IEnumerable<Booking> guests, Page page, Instant start) =>
        string.Join(
                '\n',
                guests
                    .Where(guest => !guest.IsAmongOurselves)
                    .SelectMany(guest =>
                        guest
                            .Answers.Select(answer => answer.Line)
                            .Prepend($"{WhoIs(guest)}{ThereInWords(guest, page, start)}")
                            .Concat(guest.Flags)
                    )
                    .Append(page.Post.HostWords)
            )
            .Trim();

    private static string WhoIs(Booking guest)
    {
        var email = guest.GuestEmail.Length == 0 ? "" : $", {guest.GuestEmail}";
        var party = guest.Party == 1 ? "" : $", {guest.Party} people";
        var booker = guest.BookerName.Length == 0 ? "" : $", booked by {guest.BookerName}, {guest.BookerEmail}";
        return $"{guest.GuestName}{email}{party}{booker}";
    }

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
