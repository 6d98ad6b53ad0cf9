using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data.Model;

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
    public static string ForHosts(IEnumerable<Booking> guests, Page page) =>
        string.Join(
                '\n',
                guests
                    .SelectMany(guest =>
                        guest
                            .Answers.Select(answer => answer.Line)
                            .Prepend($"{guest.GuestName}, {guest.GuestEmail}")
                            .Concat(guest.Flags)
                    )
                    .Append(page.Post.HostWords)
            )
            .Trim();
}
