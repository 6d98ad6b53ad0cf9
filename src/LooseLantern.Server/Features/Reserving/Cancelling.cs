using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Cancels bookings, in one transaction that frees what nobody needs any more. The last booking of a session takes the
/// session along, and with it the hosts' time and the events in their calendars.
/// </summary>
public sealed class Cancelling(
    LanternDb db,
    EventWishes wishes,
    TimeLocks locks,
    Tellings tellings,
    RecordKeeping record,
    LinkTaking taking,
    Allowances allowances,
    IClock clock
)
{
    public const int MostOfAWord = 1_000;

    /// <summary>Cancels a booking; one that is cancelled already stays as it is.</summary>
    /// <param name="word">Why, for whoever is told; may be empty.</param>
    /// <exception cref="Refusal">404 where there is none, 400 for a word that is too long, 409 for one that is over.
    /// Nothing is written then.</exception>
    public Task CancelAsync(Guid bookingId, CancelledBy by, string word, CancellationToken ct) =>
        EndAsync(bookingId, by, word, new Telling(Occasion.Cancelled), _ => true, ct);

    /// <summary>
    /// Cancels a session with all its bookings at once: each guest is told, and the team once. One that is cancelled
    /// already stays as it is.
    /// </summary>
    /// <param name="word">Why, for whoever is told; may be empty.</param>
    /// <exception cref="Refusal">As for one booking.</exception>
    public async Task CancelSessionAsync(Guid sessionId, string word, CancellationToken ct)
    {
        RequireShort(word);
        var found = await db
            .Sessions.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Hosts)
            .FirstOrDefaultAsync(row => row.Id == sessionId, ct)
            ?? throw Refusal.NotFound("session");
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var hostIds = await LockAsync(found, ct);
        if (
            await db
                .Sessions.Include(row => row.Hosts)
                .Include(row => row.Bookings)
                .AsSplitQuery()
                .SingleOrDefaultAsync(row => row.Id == sessionId, ct)
            is not { } session
        )
            return;
        var now = clock.GetCurrentInstant();
        if (session.Time.UpperBound <= now)
            throw new Refusal(StatusCodes.Status409Conflict, "over");
        foreach (var booking in session.Bookings)
        {
            End(booking, CancelledBy.Team, word, now);
            record.Note(booking.Id, $"Cancelled the booking of {RecordWords.Guest}", hostIds);
        }

        await EndAsync(session, now, ct);
        tellings.Add(
            session.PageId,
            session.Bookings.ConvertAll(booking => booking.Id),
            new Telling(Occasion.Cancelled)
        );
        await SaveAsync(session, ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>
    /// Calls several bookings off at once, all of them or none: each guest reads the letter, and the team is told as of
    /// any other. What is over by now, or cancelled already, stays as it is, and nobody is told of it again.
    /// </summary>
    /// <param name="letter">With its blanks (<see cref="PostWords.Tokens"/>).</param>
    /// <returns>How many were called off.</returns>
    /// <exception cref="Refusal">404 where one of them is not there; 403 where a host of one does not let the person
    /// who asks. Nothing is written then.</exception>
    public async Task<int> CallOffAsync(IReadOnlyCollection<Guid> bookingIds, OwnWords letter, CancellationToken ct)
    {
        Guid[] ids = [.. bookingIds.Distinct()];
        var found = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Session!.Hosts)
            .Where(row => ids.Contains(row.Id))
            .ToListAsync(ct);
        if (found.Count < ids.Length)
            throw Refusal.NotFound("booking");
        Guid[] hostIds =
        [
            .. found.SelectMany(row => row.Session!.Hosts).Select(host => host.HostId).Distinct().Order(),
        ];
        await allowances.RequireAsync(hostIds, Allowance.Move, ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        Guid[] pages = [.. found.Select(row => row.Session!.PageId).Distinct()];
        await locks.TakeAsync(new TimeLock { Pages = pages, Hosts = hostIds }, ct);
        var (now, count) = (clock.GetCurrentInstant(), 0);
        var sessions = await db
            .Sessions.Include(row => row.Hosts)
            .Include(row => row.Bookings)
            .AsSplitQuery()
            .Where(row => row.Bookings.Any(booking => ids.Contains(booking.Id)))
            .OrderBy(row => row.Id)
            .ToListAsync(ct);
        foreach (var session in sessions.Where(row => row.Time.UpperBound > now))
        {
            var ended = session
                .Bookings.Where(row => ids.Contains(row.Id) && row.CancelledAt is null)
                .ToLookup(row => row.WaitsUntil is not null);
            foreach (var booking in ended.SelectMany(group => group))
            {
                End(booking, booking.WaitsUntil is null ? CancelledBy.Team : CancelledBy.Declined, "", now);
                record.Note(
                    booking.Id,
                    $"Called off the booking of {RecordWords.Guest}",
                    [.. session.Hosts.Select(host => host.HostId)]
                );
                count++;
            }

            if (session.Bookings.TrueForAll(row => row.CancelledAt is not null))
                await EndAsync(session, now, ct);
            foreach (var group in ended)
                tellings.Add(
                    session.PageId,
                    [.. group.Select(row => row.Id)],
                    new Telling(group.Key ? Occasion.Declined : Occasion.Cancelled) { Letter = letter }
                );
        }

        await wishes.SaveAsync(sessions, ct);
        foreach (var page in pages.Order())
            await taking.SettleAsync(page, ct);
        await transaction.CommitAsync(ct);
        return count;
    }

    /// <summary>The same for whatever else ends a booking.</summary>
    /// <param name="isStill">Whether it is to end still, asked once nobody else can change it.</param>
    /// <returns>Whether it was ended by this.</returns>
    public async Task<bool> EndAsync(
        Guid bookingId,
        CancelledBy by,
        string word,
        Telling telling,
        Func<Booking, bool> isStill,
        CancellationToken ct
    )
    {
        RequireShort(word);
        var found = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Session)
                .ThenInclude(session => session!.Hosts)
            .FirstOrDefaultAsync(row => row.Id == bookingId, ct)
            ?? throw Refusal.NotFound("booking");

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var hostIds = await LockAsync(found.Session!, ct);
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .SingleAsync(row => row.Id == bookingId, ct);
        if (booking.CancelledAt is not null || !isStill(booking))
            return false;
        var session = await db
            .Sessions.Include(row => row.Hosts)
            .Include(row => row.Bookings)
            .AsSplitQuery()
            .SingleAsync(row => row.Id == booking.SessionId, ct);
        var now = clock.GetCurrentInstant();
        if (session.Time.UpperBound <= now && by != CancelledBy.Lapsed)
            throw new Refusal(StatusCodes.Status409Conflict, "over");
        // What only waits for a yes can be taken back as long as it does.
        if (by == CancelledBy.Guest && booking.WaitsUntil is null)
        {
            var rules = await db
                .Pages.Where(page => page.Id == session.PageId)
                .Select(page => page.Changes)
                .SingleAsync(ct);
            ChangesByGuests.RequireMayCancel(rules, session.Time.LowerBound, now);
        }

        End(booking, by, word, now);
        if (session.Bookings.TrueForAll(other => other.CancelledAt is not null))
            await EndAsync(session, now, ct);
        record.Note(
            bookingId,
            $"{(by switch { CancelledBy.Declined => "Declined what was asked by", CancelledBy.Lapsed => "Nobody answered", _ => "Cancelled the booking of" })} {RecordWords.Guest}",
            hostIds
        );
        tellings.Add(session.PageId, [bookingId], telling);
        await SaveAsync(session, ct);
        await transaction.CommitAsync(ct);
        return true;
    }

    private static void RequireShort(string word)
    {
        if (word.Length > MostOfAWord)
            throw Refusal.Invalid("word", Phrase.Of("too-long", ("most", MostOfAWord)));
    }

    private async Task<Guid[]> LockAsync(Session session, CancellationToken ct)
    {
        var hostIds = session.Hosts.Select(host => host.HostId).Order().ToArray();
        await locks.TakeAsync(new TimeLock { Pages = [session.PageId], Hosts = hostIds }, ct);
        return hostIds;
    }

    private async Task SaveAsync(Session session, CancellationToken ct)
    {
        await wishes.SaveAsync([session], ct);
        await taking.SettleAsync(session.PageId, ct);
    }

    private static void End(Booking booking, CancelledBy by, string word, Instant now)
    {
        (booking.CancelledAt, booking.CancelledBy, booking.CancelWord) = (now, by, word.Trim());
        booking.Sequence++;
    }

    /// <summary>
    /// Cancels a session with all its bookings, under its locks; saved with what the caller saves, who tells of it.
    /// </summary>
    /// <param name="session">With its bookings, tracked.</param>
    public Task EndAllAsync(Session session, Instant now, CancellationToken ct)
    {
        foreach (var booking in session.Bookings)
            End(booking, booking.WaitsUntil is null ? CancelledBy.Team : CancelledBy.Declined, "", now);
        return EndAsync(session, now, ct);
    }

    /// <summary>Nobody is left in it: its hosts' time is free again.</summary>
    private async Task EndAsync(Session session, Instant now, CancellationToken ct)
    {
        session.CancelledAt = now;
        session.Sequence++;
        db.Commitments.RemoveRange(await db.Commitments.Where(row => row.HolderId == session.Id).ToListAsync(ct));
    }
}
