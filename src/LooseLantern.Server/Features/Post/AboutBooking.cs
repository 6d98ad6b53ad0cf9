using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Post;

/// <summary>A booking with all that messages say of it.</summary>
/// <param name="People">Of the team, who have a mail address and may hear of it, by id.</param>
public sealed record AboutBooking(
    Booking Booking,
    Session Session,
    Page Page,
    string Workspace,
    IReadOnlyDictionary<Guid, Person> People
)
{
    private const int MostInOneQuery = 4;

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
    /// <param name="moreHosts">Who is spoken of too, as those who were hosts before.</param>
    public static async Task<List<AboutBooking>> ReadAsync(
        LanternDb db,
        IReadOnlyCollection<Guid> bookingIds,
        CancellationToken ct,
        IReadOnlyList<Guid>? moreHosts = null
    )
    {
        var whole = db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Where(booking => bookingIds.Contains(booking.Id))
            .Include(booking => booking.Session!)
                .ThenInclude(session => session.Page!)
                    .ThenInclude(page => page.Desk)
            .Include(booking => booking.Session!)
                .ThenInclude(session => session.Hosts)
                    .ThenInclude(host => host.Host)
            .OrderBy(booking => booking.Id);
        // Of a few bookings all comes in one round trip; of a group the page would come once for each.
        var bookings = await (
            bookingIds.Count <= MostInOneQuery ? whole.AsSingleQuery() : whole.AsSplitQuery()
        ).ToListAsync(ct);
        if (bookings.Count == 0)
            return [];
        var workspace = await db.Workspaces.Select(row => row.Name).SingleAsync(ct);
        var people = await PeopleAsync(db, bookings, moreHosts ?? [], ct);
        return bookings.ConvertAll(booking => new AboutBooking(
            booking,
            booking.Session!,
            booking.Session!.Page!,
            workspace,
            people
        ));
    }

    /// <summary>Who of the team may hear of it: its hosts, who acts for them, and whoever sees all bookings.</summary>
    private static Task<Dictionary<Guid, Person>> PeopleAsync(
        LanternDb db,
        List<Booking> bookings,
        IReadOnlyList<Guid> moreHosts,
        CancellationToken ct
    )
    {
        var hosts = bookings
            .SelectMany(booking => booking.Session!.Hosts)
            .Select(host => host.HostId)
            .Concat(moreHosts)
            .Distinct()
            .ToList();
        var makers = bookings.Select(booking => booking.BookedBy).OfType<Guid>().Distinct().ToList();
        return db
            .Users.AsNoTracking()
            .Where(person =>
                person.Email != null
                && person.LeftAt == null
                && (
                    person.IsOwner
                    || person.IsCoordinator
                    || makers.Contains(person.Id)
                    || db.Hosts.Any(host => host.PersonId == person.Id && hosts.Contains(host.Id))
                    || db.ActingFor.Any(acting => acting.PersonId == person.Id && hosts.Contains(acting.HostId))
                )
            )
            .ToDictionaryAsync(person => person.Id, ct);
    }
}
