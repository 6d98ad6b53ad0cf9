using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Writing;

/// <summary>Sessions, and time that is held, as events for hosts' own calendars.</summary>
public sealed class SessionTexts(LanternDb db, IClock clock)
{
    /// <summary>The sessions that were not yet over at an instant, as all their hosts see them.</summary>
    /// <param name="hostId">Of one host; null for all.</param>
    public async Task<IReadOnlyList<SessionEvent>> SessionsAsync(
        Guid? hostId,
        Instant from,
        int most,
        CancellationToken ct
    )
    {
        var sessions = await Whole()
            .Where(session =>
                session.Time.UpperBound > from && (hostId == null || session.Hosts.Any(host => host.HostId == hostId))
            )
            .OrderBy(session => session.Time.LowerBound)
            .ThenBy(session => session.Id)
            .Take(most)
            .ToListAsync(ct);
        return await OfAsync(sessions, ct);
    }

    /// <summary>These sessions, as far as they stand, in their order.</summary>
    public async Task<IReadOnlyList<SessionEvent>> SessionsAsync(IReadOnlyList<Guid> ids, CancellationToken ct)
    {
        var places = ids.Index().ToDictionary(pair => pair.Item, pair => pair.Index);
        var sessions = await Whole().Where(session => ids.Contains(session.Id)).ToListAsync(ct);
        return await OfAsync([.. sessions.OrderBy(session => places[session.Id])], ct);
    }

    /// <summary>
    /// What should stand in the calendar; null where nothing should, since the session or the held time is no more.
    /// </summary>
    public async Task<SessionEvent?> OfAsync(WrittenEvent written, CancellationToken ct)
    {
        if (written.SessionId is { } sessionId)
        {
            var session = await Whole().FirstOrDefaultAsync(row => row.Id == sessionId, ct);
            return session is null ? null : (await OfAsync([session], ct))[0];
        }

        var hold = await db.Commitments.AsNoTracking().FirstOrDefaultAsync(row => row.Id == written.HoldId, ct);
        return hold is null
            ? null
            : new SessionEvent(
                written.Uid,
                0,
                clock.GetCurrentInstant(),
                hold.Span.ToSpan(),
                $"Held: {written.HoldTitle}",
                null,
                null,
                IsHeld: true,
                Organizer: null,
                []
            );
    }

    private IQueryable<Session> Whole() =>
        db
            .Sessions.AsNoTracking()
            .Include(session => session.Page)
            .Include(session => session.Bookings)
            .Include(session => session.Hosts)
                .ThenInclude(host => host.Host)
            .AsSplitQuery();

    private async Task<IReadOnlyList<SessionEvent>> OfAsync(List<Session> sessions, CancellationToken ct)
    {
        var people = sessions
            .SelectMany(session => session.Hosts)
            .Select(host => host.Host!.PersonId)
            .OfType<Guid>()
            .Distinct()
            .ToList();
        var addresses = await db
            .Users.AsNoTracking()
            .Where(person => people.Contains(person.Id))
            .ToDictionaryAsync(person => person.Id, person => person.Email, ct);
        var ids = sessions.ConvertAll(session => session.Id);
        var rooms = await db
            .VideoRooms.AsNoTracking()
            .Where(row => ids.Contains(row.SessionId) && row.Link != null && row.IsWanted)
            .ToDictionaryAsync(
                row => row.SessionId,
                row => row.Code.Length == 0 ? row.Link! : $"{row.Link} ({row.Code})",
                ct
            );
        return sessions.ConvertAll(session =>
            Of(session, rooms.GetValueOrDefault(session.Id), host =>
                host.PersonId is { } id ? addresses.GetValueOrDefault(id) : null
            )
        );
    }

    private SessionEvent Of(Session session, string? room, Func<Host, string?> addressOf)
    {
        var hosts = session
            .Hosts.OrderBy(host => host.Seat)
            .Select(host => BookingParticipants.Of(host.Host!, addressOf(host.Host!)))
            .ToList();
        var guests = session.Bookings.OrderBy(booking => booking.BookedAt).ThenBy(booking => booking.Id).ToList();
        var place = room
            ?? PlaceWords.ForTeam(
                session.Page!,
                guests,
                session.Page!.Details.Face.Language is { Length: > 0 } language ? language : "en"
            );
        // The first seat that a person fills speaks for all; a room asks nobody.
        var organizer = hosts.Find(host => host is { Kind: ParticipantKind.Person, Email: not null });
        return new SessionEvent(
            session.Uid,
            session.Sequence,
            clock.GetCurrentInstant(),
            session.Time.ToSpan(),
            BookingParticipants.TitleFor(session.Page!, guests),
            place.Length == 0 ? null : place,
            BookingParticipants.ForHosts(guests, session.Page!, session.Time.LowerBound),
            IsHeld: guests.Count > 0 && guests.TrueForAll(guest => guest.WaitsUntil is not null),
            organizer,
            [.. hosts, .. guests.SelectMany(BookingParticipants.Of)]
        )
        {
            IsFree = session.Page!.Offer?.LeavesFree ?? false,
        };
    }
}
