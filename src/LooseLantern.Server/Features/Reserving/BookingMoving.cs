using LooseLantern.Core;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>Who moves or cancels a booking.</summary>
public enum ChangedBy
{
    Guest,

    /// <summary>A host or a coordinator.</summary>
    Team,
}

/// <summary>
/// Moves one guest's booking among the openings of its page, in one transaction that frees the one time and takes the
/// other. The booking is not in its own way. Its UID and its links stay, its SEQUENCE rises, and everybody concerned is
/// told. On a group page it leaves its session and joins, or makes, another, with all who come. What several guests of
/// a link took together moves together.
/// </summary>
public sealed class BookingMoving(
    LanternDb db,
    PageEditing pages,
    OpeningsInputs inputs,
    AssignmentReading assignments,
    EventWishes wishes,
    PostWriting post,
    RecordKeeping record,
    CalendarLooking looking,
    HostLocks hostLocks,
    IClock clock
)
{
    private const int NearestOffered = 6;
    private const int DaysLookedThrough = 28;

    /// <summary>
    /// The openings of its page that the booking could be moved to, from one local date of the page's zone to another,
    /// both included; its own time is none.
    /// </summary>
    public async Task<IReadOnlyList<Opening>> OpeningsAsync(
        Booking booking,
        LocalDate from,
        LocalDate to,
        CancellationToken ct
    )
    {
        var page = await pages.Whole().AsNoTracking().SingleAsync(row => row.Id == booking.Session!.PageId, ct);
        var (session, asked) = (booking.Session!, inputs.Rules(page, booking.Party));
        if (await inputs.InputAsync(asked, from, to, MinutesOf(session), ct) is not { } input)
            return [];
        return
        [
            .. OpeningsComputation
                .Openings(Without(input, session, page.Offer is not null || await IsAloneAsync(booking, ct)))
                .Where(opening => opening.Start != session.Time.LowerBound),
        ];
    }

    /// <exception cref="Refusal"> 404 where there is no such booking, 409 where it is cancelled, over, too late to be
    /// moved by the guest, or with the nearest openings left where the time is not open. Nothing is written then.
    /// </exception>
    public async Task MoveAsync(Guid bookingId, Instant start, ChangedBy by, CancellationToken ct)
    {
        var found = await FoundAsync(bookingId, ct);
        if (found.Session!.Time.LowerBound == start)
            return;
        var page = found.Session.Page!;
        RequireRules(found, page, by);
        var asked = inputs.Rules(page, found.Party);
        var day = start.InZone(asked.Zone).Date;
        var (first, last) = asked.Rules.Window.Within(day, day, inputs.Today(asked));
        if (first > last)
            throw await GoneAsync(found, start, null, ct);
        await looking.FreshenAsync(asked.HostIds, ct);
        await inputs.PrepareAsync(asked, day, day, MinutesOf(found.Session), ct);

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        try
        {
            if (await MoveLockedAsync(found, start, by, ct))
                await transaction.CommitAsync(ct);
            else
                throw await GoneAsync(found, start, transaction, ct);
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: CommitmentRow.NoDoubleBooking })
        {
            throw await GoneAsync(found, start, transaction, ct);
        }
    }

    private async Task<bool> MoveLockedAsync(Booking found, Instant start, ChangedBy by, CancellationToken ct)
    {
        var pageId = found.Session!.PageId;
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM pages WHERE id = {pageId} FOR UPDATE", ct);
        db.ChangeTracker.Clear();
        var page = await pages.Whole().AsNoTracking().SingleAsync(row => row.Id == pageId, ct);
        var eligible = page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId);
        var seated = await db
            .Bookings.Where(row => row.Id == found.Id)
            .SelectMany(row => row.Session!.Hosts)
            .Select(host => host.HostId)
            .ToListAsync(ct);
        await hostLocks.TakeAsync(eligible.Concat(seated), ct);

        var booking = await db
            .Bookings.Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
            .Include(row => row.Session!)
                .ThenInclude(session => session.Bookings)
            .AsSplitQuery()
            .FirstOrDefaultAsync(row => row.Id == found.Id, ct)
            ?? throw Cancelled();
        var before = booking.Session!;
        if (before.Time.LowerBound == start)
            return true;
        RequireRules(booking, page, by);
        var (was, former) = (before.Time.ToSpan(), before.Hosts.ConvertAll(host => host.HostId));
        var together = page.Offer is null ? [booking] : before.Bookings.ToList();
        var alone = before.Bookings.Count == together.Count;
        var asked = inputs.Rules(page, booking.Party);
        var day = start.InZone(asked.Zone).Date;
        var input = Without(await inputs.ReadAsync(asked, day, day, MinutesOf(before), ct), before, alone);
        if (await TakenAsync(booking, before, alone, input, page, start, ct) is not { } after)
        {
            PlacesLeft.RequireRoom(input, start);
            return false;
        }

        foreach (var one in together)
        {
            Renewing.Renew(one);
            if (one.WaitsUntil is { } until)
                one.WaitsUntil = Instant.Min(until, start);
        }

        await wishes.ForSessionAsync(after, ct);
        if (after.Id != before.Id)
            await wishes.ForSessionAsync(before, ct);
        record.Note(
            booking.Id,
            $"Moved the booking of {booking.GuestName}",
            [.. former.Concat(after.Hosts.Select(host => host.HostId)).Distinct()]
        );
        await db.SaveChangesAsync(ct);
        var stay = after.Hosts.ConvertAll(host => host.HostId);
        await post.TellAsync(
            together.ConvertAll(one => one.Id),
            new Telling(Occasion.Moved)
            {
                Was = was,
                By = by,
                FormerSessionId = alone ? null : before.Id,
                FormerHosts = former.FindAll(host => !stay.Contains(host)),
            },
            ct
        );
        await db.SaveChangesAsync(ct);
        return true;
    }

    /// <summary>
    /// The session that the booking is in from now on: one with room, its own with another time, or a new one. Null
    /// where the time is not open.
    /// </summary>
    private async Task<Session?> TakenAsync(
        Booking booking,
        Session before,
        bool alone,
        OpeningsInput input,
        Page page,
        Instant start,
        CancellationToken ct
    )
    {
        var now = clock.GetCurrentInstant();
        var committed = alone ? await db.Commitments.Where(row => row.HolderId == before.Id).ToListAsync(ct) : [];
        if (OpeningsComputation.SessionToJoin(input, start) is { } other)
        {
            var otherId = Guid.Parse(other);
            var joined = await db.Sessions.Include(row => row.Hosts).SingleAsync(row => row.Id == otherId, ct);
            booking.SessionId = joined.Id;
            joined.Sequence++;
            if (alone)
            {
                (before.CancelledAt, before.Sequence) = (now, before.Sequence + 1);
                db.Commitments.RemoveRange(committed);
            }
            else
                before.Sequence++;
            return joined;
        }

        var facts = await assignments.FactsAsync(page, start, new Meeting(booking.GuestEmail, before), now, ct);
        if (Assignment.For(input, start, facts) is not { } hosts)
            return null;
        var time = new Span(start, start + Duration.FromMinutes(MinutesOf(before))).ToRange();
        var session = before;
        if (alone)
        {
            await LeftBehind.KeepAsync(db, before, ct);
            (before.Time, before.Sequence) = (time, before.Sequence + 1);
        }
        else
        {
            var id = Guid.CreateVersion7();
            session = new Session
            {
                Id = id,
                WorkspaceId = page.WorkspaceId,
                PageId = page.Id,
                Time = time,
                Uid = id.ToString(),
            };
            db.Sessions.Add(session);
            booking.SessionId = id;
            before.Sequence++;
        }

        Seating.Seat(db, session, committed, [.. hosts.Select(Guid.Parse)], page, now);
        return session;
    }

    private void RequireRules(Booking booking, Page page, ChangedBy by)
    {
        var (now, start) = (clock.GetCurrentInstant(), booking.Session!.Time.LowerBound);
        if (start <= now)
            throw new Refusal(StatusCodes.Status409Conflict, "over", "over.moving");
        if (by != ChangedBy.Guest)
            return;
        // Nobody is shown openings of it, so nobody takes one by knowing its time either.
        if (page.State != PageState.Published)
            throw new Refusal(StatusCodes.Status409Conflict, "not-open", "not-open.moving");
        ChangesByGuests.RequireMayMove(page.Changes, start, now);
    }

    private async Task<bool> IsAloneAsync(Booking booking, CancellationToken ct) =>
        await db.Bookings.CountAsync(row => row.SessionId == booking.SessionId, ct) <= 1;

    /// <summary>Where others stay in the session, it stays too, and only a place in it becomes free.</summary>
    private static OpeningsInput Without(OpeningsInput input, Session session, bool alone) =>
        alone ? input with { Moving = OpeningsInputs.Id(session.Id) } : input;

    private static int MinutesOf(Session session) =>
        (int)(session.Time.UpperBound - session.Time.LowerBound).TotalMinutes;

    private async Task<Booking> FoundAsync(Guid id, CancellationToken ct)
    {
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
            .FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("booking");
        if (booking.CancelledAt is not null)
            throw Cancelled();
        booking.Session!.Page = await pages
            .Whole()
            .AsNoTracking()
            .SingleAsync(row => row.Id == booking.Session.PageId, ct);
        return booking;
    }

    private static Refusal Cancelled() => new(StatusCodes.Status409Conflict, "cancelled");

    private async Task<Refusal> GoneAsync(
        Booking booking,
        Instant start,
        IDbContextTransaction? transaction,
        CancellationToken ct
    )
    {
        if (transaction is not null)
            await transaction.RollbackAsync(ct);
        db.ChangeTracker.Clear();
        var page = await pages.Whole().AsNoTracking().SingleAsync(row => row.Id == booking.Session!.PageId, ct);
        var rules = inputs.Rules(page, booking.Party);
        var from = LocalDate.Max(inputs.Today(rules), start.InZone(rules.Zone).Date.PlusDays(-DaysLookedThrough / 2));
        var left = await OpeningsAsync(booking, from, from.PlusDays(DaysLookedThrough), ct);
        return new Refusal(StatusCodes.Status409Conflict, "opening-gone", "opening-gone.moving")
        {
            More = { ["nearest"] = NearestOpenings.To(start, left, NearestOffered) },
        };
    }
}
