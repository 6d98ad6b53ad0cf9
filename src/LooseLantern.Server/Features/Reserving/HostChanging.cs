using LooseLantern.Core;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>Somebody who could take a seat of a session, or come along.</summary>
/// <param name="IsOfPage">Whether the page has them in its line-up.</param>
/// <param name="OnDay">How many sessions they have on that day already, in the page's zone.</param>
/// <param name="InWeek">The same of its week, from Monday.</param>
public sealed record Taker(Guid Id, string Name, HostKind Kind, bool IsOfPage, int OnDay, int InWeek);

/// <summary>What is done to the hosts of a session.</summary>
/// <param name="From">Whose seat it is; null where one more host comes along.</param>
/// <param name="To">Who has it from now on; null where an added host goes.</param>
/// <param name="TellGuests">Whether its guests are told.</param>
public sealed record HostChange(Guid? From, Guid? To, bool TellGuests = true);

/// <summary>
/// Gives a session to another host, adds one or lets an added one go, in one transaction that frees the one's time and
/// takes the other's. Who takes it must be free then (<see cref="WhyNotFree"/>). Its time and links stay.
/// </summary>
public sealed class HostChanging(
    LanternDb db,
    WhyNotFree whyNot,
    EventWishes wishes,
    Tellings tellings,
    CalendarLooking looking,
    TimeLocks locks,
    Allowances allowances,
    RecordKeeping record,
    IClock clock
)
{
    /// <summary>Whoever is free for it and lets the person who asks book their time, least busy first.</summary>
    public async Task<IReadOnlyList<Taker>> TakersAsync(Guid sessionId, CancellationToken ct)
    {
        var session = await FoundAsync(sessionId, ct);
        var let = await allowances.HostsAsync(Allowance.Book, ct);
        var hosts = await db
            .Hosts.AsNoTracking()
            .Where(host => host.RetiredAt == null && let.Contains(host.Id))
            .OrderBy(host => host.Name)
            .ToListAsync(ct);
        hosts.RemoveAll(host => session.Hosts.Exists(seated => seated.HostId == host.Id));
        Guid[] ids = [.. hosts.Select(host => host.Id)];
        var time = session.Time.ToSpan();
        await whyNot.PrepareAsync(session, time, ids, ct);
        var why = await whyNot.ForAsync(session, time, hosts, ct);
        var ofPage = await db
            .Pages.Where(page => page.Id == session.PageId)
            .SelectMany(page => page.Seats.SelectMany(seat => seat.Hosts.Select(host => host.HostId)))
            .ToListAsync(ct);
        var load = await LoadAsync(session, ids, ct);
        return
        [
            .. hosts
                .Where((_, i) => why[i] is null)
                .Select(host =>
                {
                    var (day, week) = load.GetValueOrDefault(host.Id);
                    return new Taker(host.Id, host.Name, host.Kind, ofPage.Contains(host.Id), day, week);
                })
                .OrderByDescending(taker => taker.IsOfPage)
                .ThenBy(taker => taker.InWeek)
                .ThenBy(taker => taker.Name, StringComparer.OrdinalIgnoreCase),
        ];
    }

    /// <exception cref="Refusal">404 where there is no such session, 400 for who can't take it, 409 where it is over,
    /// they are not free, or somebody changed it meanwhile. Nothing is written then.</exception>
    public async Task ChangeAsync(Guid sessionId, HostChange change, CancellationToken ct)
    {
        var found = await FoundAsync(sessionId, ct);
        await CheckAsync(found, change, ct);
        if (change.To is { } asked)
        {
            await looking.FreshenAsync([asked], ct);
            await whyNot.PrepareAsync(found, found.Time.ToSpan(), asked, ct);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        Guid[] hosts = [.. new[] { change.From, change.To }.OfType<Guid>().Order()];
        await locks.TakeAsync(new TimeLock { Pages = [found.PageId], Hosts = hosts }, ct);
        var session = await FoundAsync(sessionId, ct, isTracked: true);
        var now = clock.GetCurrentInstant();
        if (session.Time.UpperBound <= now)
            throw new Refusal(StatusCodes.Status409Conflict, "over");
        if (
            session.Time != found.Time
            || (change.From is { } from && !session.Hosts.Exists(host => host.HostId == from))
            || (change.To is { } to && session.Hosts.Exists(host => host.HostId == to))
        )
            throw new Refusal(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.host");
        if (change.To is { } taker)
        {
            var host = await db.Hosts.SingleAsync(row => row.Id == taker, ct);
            if (await whyNot.ForAsync(session, session.Time.ToSpan(), host, ct) is { } why)
                throw NotFree(why);
        }

        await WriteAsync(session, change, now, ct);
        await NoteAsync(session, change, ct);
        // What waits for a yes is told apart from what stands.
        foreach (var group in session.Bookings.GroupBy(booking => booking.WaitsUntil is not null))
            tellings.Add(
                session.PageId,
                [.. group.Select(booking => booking.Id)],
                new Telling(Occasion.HostChanged)
                {
                    // Nobody takes part anew where one goes.
                    NewHosts = change.To is { } newcomer ? [newcomer] : [],
                    FormerHosts = change.From is { } former ? [former] : [],
                    TeamAlone = !change.TellGuests,
                }
            );
        try
        {
            await wishes.SaveAsync([session], ct);
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: CommitmentRow.NoDoubleBooking })
        {
            throw new Refusal(StatusCodes.Status409Conflict, "not-free");
        }

        await transaction.CommitAsync(ct);
    }

    private Task WriteAsync(Session session, HostChange change, Instant now, CancellationToken ct) =>
        (change.From, change.To) switch
        {
            ({ } from, { } to) => SeatGiving.GiveAsync(db, session, from, to, now, ct),
            (null, { } to) => SeatGiving.AddAsync(db, session, to, now, ct),
            ({ } from, null) => SeatGiving.RemoveAsync(db, session, from, ct),
            _ => Task.CompletedTask,
        };

    private async Task NoteAsync(Session session, HostChange change, CancellationToken ct)
    {
        var names = await db
            .Hosts.Where(host => host.Id == change.From || host.Id == change.To)
            .ToDictionaryAsync(host => host.Id, host => host.Name, ct);
        var what = (change.From, change.To) switch
        {
            ({ } from, { } to) => $"Gave the booking of {RecordWords.Guest} from {names[from]} to {names[to]}",
            (null, { } to) => $"Added {names[to]} to the booking of {RecordWords.Guest}",
            ({ } from, _) => $"Removed {names[from]} from the booking of {RecordWords.Guest}",
            _ => "",
        };
        foreach (var booking in session.Bookings)
            record.Note(booking.Id, what, new[] { change.From, change.To }.OfType<Guid>());
    }

    private async Task CheckAsync(Session session, HostChange change, CancellationToken ct)
    {
        if (change is { From: null, To: null })
            throw Refusal.Invalid("to", "host-to-take");
        if (change.From is { } from && !session.Hosts.Exists(host => host.HostId == from))
            throw Refusal.Invalid("from", "host-of-booking");
        if (change.To is { } to)
        {
            if (!await db.Hosts.AnyAsync(host => host.Id == to && host.RetiredAt == null, ct))
                throw Refusal.Invalid("to", "host-to-take");
            if (session.Hosts.Exists(host => host.HostId == to))
                throw Refusal.Invalid("to", "host-in-it");
            await allowances.RequireAsync([to], Allowance.Book, ct);
            return;
        }

        // What the page's line-up needs stays filled.
        var seats = await db
            .Pages.Where(page => page.Id == session.PageId)
            .Select(page => page.Seats.Count)
            .SingleAsync(ct);
        if (session.Hosts.Single(host => host.HostId == change.From).Seat < seats)
            throw Refusal.Invalid("from", "host-of-line-up");
    }

    private async Task<Dictionary<Guid, (int Day, int Week)>> LoadAsync(
        Session session,
        Guid[] hosts,
        CancellationToken ct
    )
    {
        var zone = DateTimeZoneProviders.Tzdb[
            await db.Pages.Where(page => page.Id == session.PageId).Select(page => page.Zone).SingleAsync(ct)
        ];
        var day = session.Time.LowerBound.InZone(zone).Date;
        var monday = day.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        var week = new Span(
            zone.AtStartOfDay(monday).ToInstant(),
            zone.AtStartOfDay(monday.PlusDays(7)).ToInstant()
        ).ToRange();
        var spans = await db
            .Commitments.AsNoTracking()
            .Where(row => hosts.Contains(row.HostId) && row.Kind == CommitmentKind.Booking && row.Span.Overlaps(week))
            .Select(row => new { row.HostId, row.Span })
            .ToListAsync(ct);
        return spans
            .GroupBy(row => row.HostId)
            .ToDictionary(
                group => group.Key,
                group => (group.Count(row => row.Span.LowerBound.InZone(zone).Date == day), group.Count())
            );
    }

    private static Refusal NotFree(Phrase why) =>
        new(StatusCodes.Status409Conflict, "not-free", Phrase.Of("not-free.taker", ("why", Phrases.Mend(why))));

    private async Task<Session> FoundAsync(Guid id, CancellationToken ct, bool isTracked = false)
    {
        var sessions = db
            .Sessions.Include(session => session.Hosts)
            .Include(session => session.Bookings)
            .AsSplitQuery();
        return await (isTracked ? sessions : sessions.AsNoTracking()).FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("session");
    }
}
