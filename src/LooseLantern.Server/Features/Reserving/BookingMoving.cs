using LooseLantern.Core;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
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
    PageReading reading,
    OpeningsInputs inputs,
    EventWishes wishes,
    Tellings tellings,
    RecordKeeping record,
    HostReadiness readiness,
    TimeLocks locks,
    PageQueue queue,
    GoneTimes gone,
    IClock clock
)
{
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
        var page = (await reading.OfAsync(booking.Session!.PageId, ct))!.Page;
        var (session, asked) = (booking.Session!, inputs.Rules(page, booking.Party, KnownOf(booking)));
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
        var kept = (await reading.OfAsync(found.Session.PageId, ct))!;
        RequireRules(found, kept.Page, by);
        var asked = inputs.Rules(kept.Page, found.Party, KnownOf(found));
        var day = start.InZone(asked.Zone).Date;
        var (first, last) = asked.Rules.Window.Within(day, day, inputs.Today(asked));
        if (first > last)
            throw await GoneAsync(found, start, ct);
        await readiness.PrepareAsync(
            asked.HostIds,
            new FactsWanted(asked, day, day, MinutesOf(found.Session)).Range,
            ct
        );
        if (!await MoveInTurnAsync(found, kept, start, by, ct))
            throw await GoneAsync(found, start, ct);
    }

    private async Task<bool> MoveInTurnAsync(
        Booking found,
        KeptPage kept,
        Instant start,
        ChangedBy by,
        CancellationToken ct
    )
    {
        using var turn = await queue.TakeTurnAsync(kept.Page.Id, ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        try
        {
            var isMoved = await MoveLockedAsync(found, kept, start, by, ct);
            if (isMoved)
                await transaction.CommitAsync(ct);
            return isMoved;
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: CommitmentRow.NoDoubleBooking })
        {
            return false;
        }
    }

    private async Task<bool> MoveLockedAsync(
        Booking found,
        KeptPage kept,
        Instant start,
        ChangedBy by,
        CancellationToken ct
    )
    {
        await locks.TakeAsync(
            new TimeLock
            {
                Pages = [kept.Page.Id],
                LineUps = true,
                HostsOfBooking = found.Id,
            },
            ct
        );
        var booking = await LockedAsync(found.Id, kept.Page, ct);
        var before = booking.Session!;
        if (before.Time.LowerBound == start)
            return true;
        var (asked, isUnchanged) = await AskAsync(booking, kept, start, ct);
        if (!isUnchanged)
        {
            // Changed since it was read, before it was locked: now it stays so.
            kept = (await reading.ReadAsync(kept.Page.Id, ct))!;
            (asked, _) = await AskAsync(booking, kept, start, ct);
        }

        var page = kept.Page;
        RequireRules(booking, page, by);
        var (was, former) = (before.Time.ToSpan(), before.Hosts.ConvertAll(host => host.HostId));
        var together = page.Offer is null ? [booking] : before.Bookings.ToList();
        var alone = before.Bookings.Count == together.Count;
        var input = Without(await asked.Facts.InputAsync(db, ct), before, alone);
        if (await TakenAsync(booking, before, alone, input, asked.Assignment, page, start, ct) is not { } after)
        {
            PlacesLeft.RequireRoom(input, start);
            return false;
        }

        foreach (var one in together)
        {
            db.BookingMoves.Add(
                new BookingMove
                {
                    WorkspaceId = one.WorkspaceId,
                    BookingId = one.Id,
                    At = clock.GetCurrentInstant(),
                    Was = was.Start,
                    Now = start,
                    ByGuest = by == ChangedBy.Guest,
                }
            );
            Renewing.Renew(one);
            if (one.WaitsUntil is { } until)
                one.WaitsUntil = Instant.Min(until, start);
        }

        record.Note(
            booking.Id,
            $"Moved the booking of {RecordWords.Guest}",
            [.. former.Concat(after.Hosts.Select(host => host.HostId)).Distinct()]
        );
        var stay = after.Hosts.ConvertAll(host => host.HostId);
        tellings.Add(
            page.Id,
            together.ConvertAll(one => one.Id),
            new Telling(Occasion.Moved)
            {
                Was = was,
                By = by,
                FormerSessionId = alone ? null : before.Id,
                FormerHosts = former.FindAll(host => !stay.Contains(host)),
            }
        );
        await wishes.SaveAsync(after.Id == before.Id ? [after] : [after, before], ct);
        return true;
    }

    private async Task<(SessionAsked Asked, bool IsUnchanged)> AskAsync(
        Booking booking,
        KeptPage kept,
        Instant start,
        CancellationToken ct
    )
    {
        var (page, trip) = (kept.Page, new RoundTrip(db));
        var isUnchanged = PageReading.AskUnchanged(trip, kept);
        var rules = inputs.Rules(page, booking.Party, KnownOf(booking));
        var day = start.InZone(rules.Zone).Date;
        var asked = new SessionAsked(
            inputs.Ask(trip, new FactsWanted(rules, day, day, MinutesOf(booking.Session!))),
            new AssignmentAsked(trip, page, [start], new Meeting(booking.GuestEmail, booking.Session))
        );
        await trip.RunAsync(ct);
        return (asked, isUnchanged.Row);
    }

    private static KnownGuests? KnownOf(Booking booking) =>
        booking is { CountsKeeper: true, GuestId: { } guest } ? new KnownGuests(Guest: guest) : null;

    /// <summary>With its session, that one's hosts and all its bookings.</summary>
    private async Task<Booking> LockedAsync(Guid id, Page page, CancellationToken ct)
    {
        var whole = db
            .Bookings.Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
            .Include(row => row.Session!)
                .ThenInclude(session => session.Bookings);
        // Of a few rows all come at once; of a group each would come once for each of its hosts.
        return await (page.Places == 1 ? whole.AsSingleQuery() : whole.AsSplitQuery()).FirstOrDefaultAsync(
            row => row.Id == id,
            ct
        ) ?? throw Cancelled();
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
        AssignmentAsked assignment,
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

        if (Assignment.For(input, start, assignment.Facts(start, now)) is not { } hosts)
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
        return booking;
    }

    private static Refusal Cancelled() => new(StatusCodes.Status409Conflict, "cancelled");

    private async Task<Refusal> GoneAsync(Booking booking, Instant start, CancellationToken ct)
    {
        db.ChangeTracker.Clear();
        var session = booking.Session!;
        var page = (await reading.OfAsync(session.PageId, ct))!.Page;
        var isAlone = page.Offer is not null || await IsAloneAsync(booking, ct);
        return await gone.RefusalAsync(
            inputs.Rules(page, booking.Party, KnownOf(booking)),
            start,
            MinutesOf(session),
            "opening-gone.moving",
            session,
            isAlone,
            ct
        );
    }
}
