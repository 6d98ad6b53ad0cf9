using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Moves a session with all its bookings to another time, in one transaction that frees the one and takes the other.
/// Its hosts, guests, UID and links stay; its SEQUENCE rises, and everybody is told.
/// </summary>
public sealed class SessionMoving(
    LanternDb db,
    WhyNotFree whyNot,
    EventWishes wishes,
    Tellings tellings,
    CalendarLooking looking,
    TimeLocks locks,
    RecordKeeping record,
    IClock clock
)
{
    private static readonly Duration Longest = Duration.FromHours(24);

    /// <exception cref="Refusal">404 where there is no such session, 400 for a time that is over, 409 where a host is
    /// not free then. Nothing is written then.</exception>
    public async Task MoveAsync(Guid sessionId, Span to, CancellationToken ct)
    {
        var found = await FoundAsync(sessionId, ct);
        var now = clock.GetCurrentInstant();
        if (to.Start <= now || to.IsEmpty || to.Length > Longest)
            throw Refusal.Invalid("start", "move-start");
        var hostIds = found.Hosts.Select(host => host.HostId).Order().ToArray();
        await looking.FreshenAsync(hostIds, ct);
        foreach (var hostId in hostIds)
            await whyNot.PrepareAsync(found, to, hostId, ct);

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await locks.TakeAsync(new TimeLock { Pages = [found.PageId], Hosts = hostIds }, ct);
        var session = await FoundAsync(sessionId, ct);
        if (!session.Hosts.Select(host => host.HostId).Order().SequenceEqual(hostIds))
            throw new Refusal(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.host");
        foreach (var host in session.Hosts)
        {
            if (await whyNot.ForAsync(session, to, host.Host!, ct) is { } why)
                throw new Refusal(
                    StatusCodes.Status409Conflict,
                    "not-free",
                    Phrase.Of("not-free.why", ("why", Phrases.Mend(why)))
                );
        }

        var was = session.Time.ToSpan();
        await WriteAsync(session, to, ct);
        try
        {
            tellings.Add(
                session.PageId,
                session.Bookings.ConvertAll(booking => booking.Id),
                new Telling(Occasion.Moved) { Was = was }
            );
            await wishes.SaveAsync([session], ct);
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: CommitmentRow.NoDoubleBooking })
        {
            throw new Refusal(StatusCodes.Status409Conflict, "not-free");
        }

        await transaction.CommitAsync(ct);
    }

    private async Task WriteAsync(Session session, Span to, CancellationToken ct)
    {
        await LeftBehind.KeepAsync(db, session, ct);
        var (was, now) = (session.Time.LowerBound, clock.GetCurrentInstant());
        session.Time = to.ToRange();
        session.Sequence++;
        foreach (var commitment in await db.Commitments.Where(row => row.HolderId == session.Id).ToListAsync(ct))
            commitment.Span = to.ToRange();
        foreach (var booking in session.Bookings)
        {
            db.BookingMoves.Add(
                new BookingMove
                {
                    WorkspaceId = booking.WorkspaceId,
                    BookingId = booking.Id,
                    At = now,
                    Was = was,
                    Now = to.Start,
                    ByGuest = false,
                }
            );
            Renewing.Renew(booking);
            record.Note(
                booking.Id,
                $"Moved the booking of {RecordWords.Guest}",
                session.Hosts.Select(host => host.HostId)
            );
        }
    }

    private async Task<Session> FoundAsync(Guid id, CancellationToken ct) =>
        await db
            .Sessions.Include(session => session.Hosts)
                .ThenInclude(host => host.Host)
            .Include(session => session.Bookings)
            .AsSplitQuery()
            .FirstOrDefaultAsync(session => session.Id == id, ct)
        ?? throw Refusal.NotFound("booking");
}
