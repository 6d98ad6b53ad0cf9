using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// The one way to commit hosts' time. In one transaction it locks the page and then all eligible hosts in order of id,
/// computes anew, chooses hosts, writes the session (or joins one with room), its bookings and commitments, and leaves
/// the messages to send. A party takes a place for each of its people. Locks come first because inserts that only run
/// into the exclusion constraint end in deadlocks when many guests want one time; the constraint beneath is what holds
/// if this is ever wrong.
/// </summary>
public sealed class TimeReserving(
    LanternDb db,
    WishedPages pages,
    LinkTaking taking,
    HostLocks hostLocks,
    SessionFinding finding,
    BookingWriting writing
)
{
    /// <param name="idempotencyKey">The same key with the same wish answers with the same booking; null for
    /// none.</param>
    /// <exception cref="Refusal"> 404 when no such page is published, 400 for a duration it does not offer, 422 for a
    /// key used for another wish, 409 with the nearest openings left when the time is not open (any more). Nothing is
    /// written then.
    /// </exception>
    public async Task<Booked> BookAsync(BookingWish wish, string? idempotencyKey, CancellationToken ct)
    {
        await pages.PrepareAsync(wish, ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        try
        {
            if (await BookLockedAsync(wish, idempotencyKey, ct) is { } booked)
            {
                await transaction.CommitAsync(ct);
                return booked;
            }
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: CommitmentRow.NoDoubleBooking })
        {
            // Told as any time that has gone.
        }

        await transaction.RollbackAsync(ct);
        throw await pages.GoneAsync(wish, ct);
    }

    private async Task<Booked?> BookLockedAsync(BookingWish wish, string? key, CancellationToken ct)
    {
        // In one round trip: the page, and after it the guest's address, whose bookings on other pages count too.
        await db.Database.ExecuteSqlAsync(
            $"SELECT 1 FROM pages WHERE id = {wish.PageId} FOR UPDATE; SELECT pg_advisory_xact_lock(hashtextextended({BookingWriting.GuestKey(wish)}, 0))",
            ct
        );
        db.ChangeTracker.Clear();
        if (key is not null && await writing.MadeBeforeAsync(wish, key, ct) is { } before)
            return before;

        var page = await pages.GetAsync(wish, ct);
        var link = await taking.RequireAsync(page, ct);
        if (!page.Durations.Contains(wish.Duration))
            throw Refusal.Invalid("duration", Phrase.Of("durations", ("durations", page.Durations)));
        await writing.RequireBelowMostOpenAsync(page, wish, ct);
        if (link is not null)
            await taking.RequireOwnTurnAsync(link, wish, ct);

        await hostLocks.TakeAsync(page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId), ct);
        if (await finding.FindAsync(wish, page, ct) is not { } session)
            return null;
        if (!wish.OneMore)
            await writing.RequireFirstAsync(session, wish, ct);
        if (link is not null)
            await taking.TakenAsync(link, page, session, ct);
        return await writing.WriteAsync(wish, session, page, key, ct);
    }
}
