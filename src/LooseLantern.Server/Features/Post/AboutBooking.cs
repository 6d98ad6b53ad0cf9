using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Post;

/// <summary>A booking with all that messages say of it.</summary>
/// <param name="People">Of the team, who have a mail address, by id.</param>
public sealed record AboutBooking(
    Booking Booking,
    Session Session,
    Page Page,
    string Workspace,
    IReadOnlyDictionary<Guid, Person> People
)
{
    public Span Time => new(Session.Time.LowerBound, Session.Time.UpperBound);

    /// <summary>In the order of their seats.</summary>
    public IEnumerable<Host> Hosts => Session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!);

    public string HostNames => string.Join(", ", Hosts.Select(host => host.Name));

    /// <summary>
    /// Whoever speaks for all: the seat that leads, or else the first that a person fills; a room asks nobody.
    /// </summary>
    public Participant Lead =>
        Session
            .Hosts.OrderBy(host => host.Seat == Page.Details.Lead ? -1 : host.Seat)
            .Select(host => PartyOf(host.Host!))
            .FirstOrDefault(party => party is { Kind: ParticipantKind.Person, Email: not null })
        ?? new Participant(Session.Id, Page.Desk!.Name, null);

    /// <summary>Whether a room is made for each of its bookings.</summary>
    public bool HasRoom => Page is { PlaceKind: PlaceKind.Video, Place.Length: 0 };

    /// <summary>Who of the team booked it for the guest; null where the guest did, or it is the guest.</summary>
    public Person? BookedBy =>
        Booking.BookedBy is { } id
        && People.GetValueOrDefault(id) is { } person
        && !string.Equals(person.Email, Booking.GuestEmail, StringComparison.OrdinalIgnoreCase)
            ? person
            : null;

    public Person? PersonOf(Host host) => host.PersonId is { } id ? People.GetValueOrDefault(id) : null;

    public Participant PartyOf(Host host) => BookingParticipants.Of(host, PersonOf(host)?.Email);

    /// <summary>All of these bookings, cancelled ones too, in order of id.</summary>
    public static async Task<List<AboutBooking>> ReadAsync(
        LanternDb db,
        IReadOnlyCollection<Guid> bookingIds,
        CancellationToken ct
    )
    {
        var bookings = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Where(booking => bookingIds.Contains(booking.Id))
            .Include(booking => booking.Session!)
                .ThenInclude(session => session.Page!)
                    .ThenInclude(page => page.Desk)
            .Include(booking => booking.Session!)
                .ThenInclude(session => session.Hosts)
                    .ThenInclude(host => host.Host)
            .AsSplitQuery()
            .OrderBy(booking => booking.Id)
            .ToListAsync(ct);
        if (bookings.Count == 0)
            return [];
        var workspace = await db.Workspaces.Select(row => row.Name).SingleAsync(ct);
        var people = await db
            .Users.AsNoTracking()
            .Where(person => person.Email != null && person.LeftAt == null)
            .ToDictionaryAsync(person => person.Id, ct);
        return bookings.ConvertAll(booking => new AboutBooking(
            booking,
            booking.Session!,
            booking.Session!.Page!,
            workspace,
            people
        ));
    }
}
