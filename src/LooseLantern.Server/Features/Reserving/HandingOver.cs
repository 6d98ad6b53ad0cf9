using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>A booking that the one who should take it over is not free for.</summary>
public sealed record HandOverClash(
    Guid SessionId,
    Instant Start,
    Instant End,
    string Page,
    IReadOnlyList<string> Guests,
    Guid HostId,
    string Host,
    string Why
);

/// <summary>
/// Gives one host's bookings to come to others, all or none. Who takes one over must be free then
/// (<see cref="WhyNotFree"/>).
/// </summary>
public sealed class HandingOver(
    LanternDb db,
    WhyNotFree whyNot,
    EventWishes wishes,
    Tellings tellings,
    TimeLocks locks,
    IClock clock
)
{
    /// <summary>
    /// Reads the calendars of everybody who takes something over, as it must be done before any lock is held.
    /// </summary>
    public async Task PrepareAsync(Host from, IReadOnlyDictionary<Guid, Guid> heirs, Guid heir, CancellationToken ct)
    {
        foreach (var session in await AheadAsync(from.Id, ct))
        {
            await whyNot.PrepareAsync(session, session.Time.ToSpan(), heirs.GetValueOrDefault(session.Id, heir), ct);
        }
    }

    /// <summary>
    /// Locks, within the caller's transaction, the pages on which the host sits or is booked, and then the hosts, as
    /// bookings do.
    /// </summary>
    public async Task LockAsync(Host from, IReadOnlyDictionary<Guid, Guid> heirs, Guid? heir, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var pageIds = await db
            .Pages.Where(page =>
                page.Seats.Any(seat => seat.Hosts.Any(host => host.HostId == from.Id))
                || db.Sessions.Any(session =>
                    session.PageId == page.Id
                    && session.Time.UpperBound > now
                    && session.Hosts.Any(host => host.HostId == from.Id)
                )
            )
            .Select(page => page.Id)
            .Order()
            .ToArrayAsync(ct);
        await locks.TakeAsync(
            new TimeLock { Pages = pageIds, Hosts = [.. heirs.Values, heir ?? from.Id, from.Id] },
            ct
        );
    }

    /// <summary>
    /// After <see cref="LockAsync"/>. Saves what goes over; where somebody is not free the caller rolls all of it back.
    /// </summary>
    /// <param name="heirs">Who takes over which session, where it is not <paramref name="heir"/>.</param>
    /// <returns>How many sessions went over, and what stood in the way.</returns>
    public async Task<(int Sessions, IReadOnlyList<HandOverClash> Clashes)> HandOverAsync(
        Host from,
        IReadOnlyDictionary<Guid, Guid> heirs,
        Guid heir,
        CancellationToken ct
    )
    {
        var hostIds = heirs.Values.Append(heir).Append(from.Id).Distinct().Order().ToArray();
        var hosts = await db.Hosts.Where(host => hostIds.Contains(host.Id)).ToDictionaryAsync(host => host.Id, ct);
        var clashes = new List<HandOverClash>();
        var sessions = await AheadAsync(from.Id, ct);
        var trip = new RoundTrip(db);
        foreach (var session in sessions)
        {
            var to = hosts[heirs.GetValueOrDefault(session.Id, heir)];
            if (await WhyNotAsync(session, to, ct) is { } why)
            {
                clashes.Add(
                    new HandOverClash(
                        session.Id,
                        session.Time.LowerBound,
                        session.Time.UpperBound,
                        session.Page!.Title,
                        [.. session.Bookings.Select(booking => booking.GuestName).Order()],
                        to.Id,
                        to.Name,
                        Phrases.Mend(why)
                    )
                );
                continue;
            }

            await SeatGiving.GiveAsync(db, session, from.Id, to.Id, clock.GetCurrentInstant(), ct);
            // Saved one by one, so that the next is checked against it too; the caller's transaction holds all
            // together.
            tellings.Add(
                session.PageId,
                session.Bookings.ConvertAll(booking => booking.Id),
                new Telling(Occasion.HostChanged) { NewHosts = [to.Id] }
            );
            await db.SaveChangesAsync(ct);
            wishes.ForSession(trip, session);
        }

        await trip.RunAsync(ct);
        return (sessions.Count - clashes.Count, clashes);
    }

    private Task<List<Session>> AheadAsync(Guid hostId, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        return db
            .Sessions.Include(session => session.Page)
            .Include(session => session.Hosts)
            .Include(session => session.Bookings)
            .AsSplitQuery()
            .Where(session => session.Time.UpperBound > now && session.Hosts.Any(host => host.HostId == hostId))
            .OrderBy(session => session.Time.LowerBound)
            .ThenBy(session => session.Id)
            .ToListAsync(ct);
    }

    private async Task<Phrase?> WhyNotAsync(Session session, Host to, CancellationToken ct) =>
        session.Hosts.Exists(host => host.HostId == to.Id)
            ? Phrase.Of("host-seated", ("name", to.Name))
            : await whyNot.ForAsync(session, session.Time.ToSpan(), to, ct);
}
