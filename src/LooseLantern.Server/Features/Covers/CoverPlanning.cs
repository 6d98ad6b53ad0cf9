using LooseLantern.Core.Covers;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Covers;

/// <summary>
/// Works out who takes the sessions of hosts who can't come. Who is eligible for a seat is free then, within their
/// hours, and lets whoever asks book their time; a seat that was added to the page's line-up is given up.
/// </summary>
public sealed class CoverPlanning(
    LanternDb db,
    CoverFacts facts,
    CalendarLooking looking,
    Allowances allowances,
    Actor actor,
    IClock clock
)
{
    private const int MostDays = 62;

    /// <exception cref="Refusal">400 naming what of the request is wrong, or how to split what is too much at once; 403
    /// where a host does not let the person who asks move their bookings.</exception>
    public async Task<CoverView> PlanAsync(CoverRequest request, CancellationToken ct)
    {
        var sessions = await SessionsAsync(request, ct);
        if (sessions.Count == 0)
            return new CoverView(true, [], []);
        await allowances.RequireAsync(
            [.. sessions.SelectMany(session => session.Hosts).Select(host => host.HostId).Distinct()],
            Allowance.Move,
            ct
        );
        var names = await NamesAsync(sessions, request, ct);
        var hosts = names.Keys.ToList();
        await looking.FreshenAsync(hosts, ct);
        await facts.PrepareAsync(sessions, hosts, ct);
        var obstacles = await facts.ObstaclesAsync(sessions, hosts, ct);
        var loads = await facts.LoadsAsync(sessions, hosts, ct);
        var weights = await db
            .Hosts.Where(host => hosts.Contains(host.Id))
            .ToDictionaryAsync(host => host.Id, host => host.Weight, ct);
        var decided = Decided(request, sessions, names);
        var input = new CoverInput(
            [.. sessions.Select(session => SketchOf(session, request.Away, obstacles, names, decided))],
            hosts.ToDictionary(Id, host => new CoverLoad(
                loads.GetValueOrDefault(host),
                weights.GetValueOrDefault(host, 1)
            ))
        );
        if (CoverComputation.CollidingByHand(input) is { } twice)
            throw Refusal.Invalid(
                "decided",
                Phrase.Of("cover-twice", ("name", names.GetValueOrDefault(Guid.Parse(twice.Host), "?")))
            );
        var plan = CoverComputation.Of(input);
        return View(request, sessions, names, plan, obstacles, loads, decided);
    }

    private static CoveredSession SketchOf(
        Session session,
        IReadOnlyList<Guid> away,
        Dictionary<(Guid Session, Guid Host), CoverObstacle?> obstacles,
        Dictionary<Guid, string> names,
        Dictionary<Guid, CoverDecision> decided
    )
    {
        var page = session.Page!;
        var decision = decided.GetValueOrDefault(session.Id);
        return new CoveredSession(
            Id(session.Id),
            session.Time.ToSpan(),
            page.BufferBefore,
            page.BufferAfter,
            [
                .. SeatsOf(session, away)
                    .Select(seat => new CoveredSeat(
                        Id(seat.HostId),
                        away.Contains(seat.HostId),
                        [
                            .. EligibleOf(page, seat.Seat)
                                .Where(host =>
                                    host != seat.HostId
                                    && !away.Contains(host)
                                    && names.ContainsKey(host)
                                    && obstacles[(session.Id, host)] is null
                                )
                                .Select(Id),
                        ]
                    )),
            ]
        )
        {
            Decided = decision?.Seats is { } seats
                ? [.. seats.OrderBy(seat => seat.Seat).Select(seat => Id(seat.Host))]
                : null,
            IsLeftByHand = decision is { Seats: null },
        };
    }

    /// <summary>The seats that must be filled: one that was added, and lost its host, need not be.</summary>
    internal static List<SessionHost> SeatsOf(Session session, IReadOnlyList<Guid> away)
    {
        var ofPage = session.Page!.Seats.Count;
        return
        [
            .. session
                .Hosts.Where(host => host.Seat < ofPage || !away.Contains(host.HostId))
                .OrderBy(host => host.Seat),
        ];
    }

    /// <summary>In the order of the seat; anybody of the page where its line-up changed since.</summary>
    internal static IEnumerable<Guid> EligibleOf(Page page, int seat)
    {
        var seats = page.Seats.OrderBy(row => row.Position).ToList();
        var hosts = seat < seats.Count ? seats[seat].Hosts : [.. seats.SelectMany(row => row.Hosts)];
        return hosts.OrderBy(host => host.Position).Select(host => host.HostId).Distinct();
    }

    private Dictionary<Guid, CoverDecision> Decided(
        CoverRequest request,
        List<Session> sessions,
        Dictionary<Guid, string> names
    )
    {
        var decided = new Dictionary<Guid, CoverDecision>();
        foreach (var decision in request.Decided ?? [])
        {
            if (sessions.Find(session => session.Id == decision.Session) is not { } session)
                continue;
            var seats = SeatsOf(session, request.Away).ConvertAll(seat => seat.Seat);
            if (
                decision.Seats is { } chosen
                && (
                    !chosen.Select(seat => seat.Seat).Order().SequenceEqual(seats.Order())
                    || chosen.Any(seat => !names.ContainsKey(seat.Host) || request.Away.Contains(seat.Host))
                )
            )
                throw Refusal.Invalid("decided", "cover-seats");
            decided[decision.Session] = decision;
        }

        return decided;
    }

    /// <summary>Whoever has one of these seats, or could.</summary>
    private async Task<Dictionary<Guid, string>> NamesAsync(
        List<Session> sessions,
        CoverRequest request,
        CancellationToken ct
    )
    {
        var let = await allowances.HostsAsync(Allowance.Book, ct);
        var seated = sessions.SelectMany(session => session.Hosts).Select(host => host.HostId).ToHashSet();
        var could = sessions
            .SelectMany(session => session.Page!.Seats.SelectMany(seat => seat.Hosts))
            .Select(host => host.HostId)
            .Concat((request.Decided ?? []).SelectMany(one => one.Seats ?? []).Select(seat => seat.Host))
            .Where(let.Contains)
            .Concat(seated)
            .Distinct()
            .ToList();
        return await db
            .Hosts.Where(host => could.Contains(host.Id) && (host.RetiredAt == null || seated.Contains(host.Id)))
            .OrderBy(host => host.Name)
            .ToDictionaryAsync(host => host.Id, host => host.Name, ct);
    }

    private async Task<List<Session>> SessionsAsync(CoverRequest request, CancellationToken ct)
    {
        if (request.Away is not { Count: > 0 })
            throw Refusal.Invalid("away", "cover-away");
        var now = clock.GetCurrentInstant();
        var sessions = db
            .Sessions.AsNoTracking()
            .Where(session =>
                session.Time.LowerBound > now && session.Hosts.Any(host => request.Away.Contains(host.HostId))
            );
        if (request.Sessions is { } chosen)
            sessions = sessions.Where(session => chosen.Contains(session.Id));
        else
        {
            var zone = await ReadersZone.OfAsync(db, actor, ct);
            var from = IsoDates.Read("from", request.From) ?? now.InZone(zone).Date;
            var to = IsoDates.Read("to", request.To) ?? from;
            if (to < from)
                throw Refusal.Invalid("to", "dates-swapped");
            if (Period.DaysBetween(from, to) >= MostDays)
                throw Refusal.Invalid("to", Phrase.Of("cover-days", ("most", MostDays)));
            var (first, end) = (
                from.AtStartOfDayInZone(zone).ToInstant(),
                to.PlusDays(1).AtStartOfDayInZone(zone).ToInstant()
            );
            sessions = sessions.Where(session => session.Time.LowerBound >= first && session.Time.LowerBound < end);
        }

        var starts = await sessions
            .OrderBy(session => session.Time)
            .Select(session => session.Time.LowerBound)
            .ToListAsync(ct);
        if (starts.Count > CoverComputation.MostSessions)
            throw await TooManyAsync(request, starts, ct);
        return await CoverFacts
            .Whole(sessions)
            .OrderBy(session => session.Time)
            .ThenBy(session => session.Id)
            .ToListAsync(ct);
    }

    /// <summary>How to split it: by the last day until which there are few enough.</summary>
    private async Task<Refusal> TooManyAsync(CoverRequest request, List<Instant> starts, CancellationToken ct)
    {
        var most = CoverComputation.MostSessions;
        var zone = await ReadersZone.OfAsync(db, actor, ct);
        var days = starts.ConvertAll(start => start.InZone(zone).Date);
        // The first day that has one too many is not taken along.
        var until = days.TakeWhile(day => day < days[most]).LastOrDefault(days[0]);
        var fits = days.Count(day => day <= until) <= most;
        return Refusal.Invalid(
            request.Sessions is null ? "to" : "sessions",
            request.Sessions is null && fits
                ? Phrase.Of("cover-too-many", ("count", starts.Count), ("most", most), ("until", until))
                : Phrase.Of("cover-too-many.chosen", ("count", starts.Count), ("most", most))
        );
    }

    private static CoverView View(
        CoverRequest request,
        List<Session> sessions,
        Dictionary<Guid, string> names,
        CoverPlan plan,
        Dictionary<(Guid Session, Guid Host), CoverObstacle?> obstacles,
        Dictionary<Guid, int> loads,
        Dictionary<Guid, CoverDecision> decided
    )
    {
        var before = new Dictionary<Guid, int>();
        var after = new Dictionary<Guid, int>();
        var lines = new List<CoverLineView>();
        foreach (var (session, line) in sessions.Zip(plan.Lines))
        {
            var seats = SeatsOf(session, request.Away);
            var had = session.Hosts.OrderBy(host => host.Seat).Select(host => (host.Seat, host.HostId)).ToList();
            var has = line.Hosts?.Select((host, at) => (seats[at].Seat, HostId: Guid.Parse(host))).ToList();
            foreach (var (_, host) in had)
                before[host] = before.GetValueOrDefault(host) + 1;
            foreach (var (_, host) in has ?? [])
                after[host] = after.GetValueOrDefault(host) + 1;
            List<CoverSeatView> Seats(IEnumerable<(int Seat, Guid HostId)> of) =>
                [
                    .. of.Select(one => new CoverSeatView(
                        one.Seat,
                        one.HostId,
                        names[one.HostId],
                        request.Away.Contains(one.HostId)
                    )),
                ];
            var bookings = session.Bookings.OrderBy(booking => booking.Id).ToList();
            lines.Add(
                new CoverLineView(
                    session.Id,
                    bookings[0].Id,
                    session.Page!.Title,
                    session.Time.LowerBound,
                    session.Time.UpperBound,
                    bookings.ConvertAll(booking => booking.GuestName),
                    Seats(had),
                    has is null ? null : Seats(has),
                    decided.ContainsKey(session.Id),
                    line.Hosts is null && !decided.ContainsKey(session.Id)
                        ? CoverWhy.Of(session, seats, line, request.Away, names, obstacles)
                        : [],
                    bookings.Exists(booking => booking.WaitsUntil is not null),
                    [
                        .. bookings
                            .Where(booking => Reader.AllOf(booking).Count == 0)
                            .Select(booking => booking.GuestName),
                    ]
                )
            );
        }

        return new CoverView(
            plan.IsBest,
            lines,
            [
                .. names
                    .Where(host => before.ContainsKey(host.Key) || after.ContainsKey(host.Key))
                    .Select(host => new CoverLoadView(
                        host.Key,
                        host.Value,
                        request.Away.Contains(host.Key),
                        loads.GetValueOrDefault(host.Key) + before.GetValueOrDefault(host.Key),
                        loads.GetValueOrDefault(host.Key) + after.GetValueOrDefault(host.Key)
                    )),
            ]
        );
    }

    internal static string Id(Guid id) => id.ToString("D");
}
