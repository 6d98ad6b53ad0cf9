using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Pages.Kept;
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
    PageQueue queue,
    LinkTaking taking,
    TimeLocks locks,
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
        var page = await pages.PrepareAsync(wish, ct);
        if (await BookInTurnAsync(wish, page, idempotencyKey, ct) is { } booked)
            return booked;
        throw await pages.GoneAsync(wish, ct);
    }

    /// <summary>Null where the time is not open. What is booked is committed with what is written last.</summary>
    private async Task<Booked?> BookInTurnAsync(BookingWish wish, KeptPage page, string? key, CancellationToken ct)
    {
        // Whoever waits here holds no connection; those of other servers wait for the lock of the page.
        using var turn = await queue.TakeTurnAsync(wish.PageId, ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        try
        {
            return await BookLockedAsync(wish, page, key, ct);
        }
        catch (PostgresException e) when (e.ConstraintName == CommitmentRow.NoDoubleBooking)
        {
            // Told as any time that has gone.
            return null;
        }
    }

    private async Task<Booked?> BookLockedAsync(BookingWish wish, KeptPage kept, string? key, CancellationToken ct)
    {
        UnderLocks asked = null!;
        await locks.TakeAsync(
            new TimeLock
            {
                Pages = [wish.PageId],
                Guest = BookingWriting.GuestKey(wish),
                LineUps = true,
                OnlyAdds = true,
            },
            ct,
            trip => asked = Ask(trip, wish, kept, key)
        );
        if (!asked.IsUnchanged.Row)
        {
            // Changed since it was read, before it was locked: now it stays so.
            kept = await pages.ReadAsync(wish, ct);
            var again = new RoundTrip(db);
            asked = Ask(again, wish, kept, key);
            await again.RunAsync(ct);
        }

        if (key is not null && asked.Guest.IsKeyUsed!.Row)
            return await writing.MadeBeforeAsync(wish, key, ct);
        var page = kept.Page;
        var link = await taking.RequireAsync(page, ct);
        if (!page.Durations.Contains(wish.Duration))
            throw Refusal.Invalid("duration", Phrase.Of("durations", ("durations", page.Durations)));
        BookingWriting.RequireBelowMostOpen(page, kept.Workspace.MostOpen, asked.Guest);
        if (link is not null)
            await taking.RequireOwnTurnAsync(link, wish, ct);
        if (await finding.FindAsync(wish, page, asked.Session, ct) is not { } found)
            return null;
        if (!wish.OneMore)
            BookingWriting.RequireFirst(found.Session, asked.Guest);
        // All that is written goes in one round trip, with the commit, but for what changed of a link.
        var trip = new RoundTrip(db);
        if (link is not null)
        {
            taking.Taken(trip, link, page, found.Session, asked.Link!);
            await db.SaveChangesAsync(ct);
        }

        var booked = writing.Write(trip, wish, found, kept, key);
        trip.Commit();
        await trip.RunAsync(ct);
        return booked;
    }

    private sealed record UnderLocks(Asked<bool> IsUnchanged, GuestAsked Guest, SessionAsked Session, LinkAsked? Link);

    /// <summary>All that is to be known under the locks.</summary>
    private UnderLocks Ask(RoundTrip trip, BookingWish wish, KeptPage kept, string? key)
    {
        var page = kept.Page;
        return new UnderLocks(
            PageReading.AskUnchanged(trip, kept),
            writing.Ask(trip, wish, page, key),
            finding.Ask(trip, wish, page),
            page.Offer is null ? null : LinkTaking.Ask(trip, page.WorkspaceId, page.Id)
        );
    }
}
