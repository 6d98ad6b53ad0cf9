using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.FreeTimes;
using LooseLantern.Core.Links;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Board;

/// <summary>
/// The board: days down, a lane for each host, with hours, leave, blocks, calendar events, holds and bookings as bars.
/// </summary>
public sealed class BoardDrawing(
    LanternDb db,
    Tenant tenant,
    CalendarUnrolling unrolling,
    BoardBlocks blocks,
    Allowances allowances,
    OutsideAnswers answers,
    IClock clock
)
{
    public const int MostDays = 56;
    public const int YearsBehind = 2;
    public const int YearsAhead = 5;

    private const string Untitled = "busy";

    /// <param name="from">First date in the board's zone; null for today.</param>
    /// <param name="hostIds">Whose lanes; empty for all hosts.</param>
    /// <param name="zoneId">IANA id of the zone days and minutes are in; null for the workspace's.</param>
    public async Task<BoardAnswer> DrawAsync(
        LocalDate? from,
        int days,
        IReadOnlyCollection<Guid> hostIds,
        string? zoneId,
        CancellationToken ct
    )
    {
        zoneId ??= await db.Workspaces.Select(workspace => workspace.Zone).SingleAsync(ct);
        var zone = DateTimeZoneProviders.Tzdb[zoneId];
        var now = clock.GetCurrentInstant();
        var first = from ?? now.InZone(zone).Date;
        if (
            first < now.InZone(zone).Date.PlusYears(-YearsBehind)
            || first > now.InZone(zone).Date.PlusYears(YearsAhead)
        )
            throw Refusal.Invalid("from", Phrase.Of("board-date", ("behind", YearsBehind), ("ahead", YearsAhead)));
        var dates = Enumerable.Range(0, Math.Clamp(days, 1, MostDays)).Select(first.PlusDays).ToList();
        var range = new Span(LocalDays.Start(zone, first), LocalDays.Start(zone, dates[^1].PlusDays(1)));

        var hosts = await db
            .Hosts.AsNoTracking()
            .Include(host => host.Hours)
            .Where(host => host.RetiredAt == null && (hostIds.Count == 0 || hostIds.Contains(host.Id)))
            .OrderBy(host => host.Kind != HostKind.Person)
            .ThenBy(host => host.Name)
            .ToListAsync(ct);
        var ids = hosts.ConvertAll(host => host.Id);
        await unrolling.CoverAsync(ids, range, ct);

        var titled = await allowances.HostsAsync(Allowance.SeeTitles, ct);
        var offered = await allowances.HostsAsync(Allowance.Offer, ct);
        var lanes = hosts.ConvertAll(host => new LaneDrawing(host, range, zone));
        await AddEventsAsync(lanes, ids, range, titled, ct);
        await AddUnknownAsync(lanes, ids, range, now, ct);
        await AddCommittedAsync(lanes, ids, range, now, ct);
        await blocks.AddAsync(lanes, range, zone, offered, ct);

        var joined = await db
            .CalendarHosts.Where(row =>
                ids.Contains(row.HostId)
                && db.Calendars.Any(calendar => calendar.Id == row.CalendarId && calendar.Kind != CalendarKind.BuiltIn)
            )
            .GroupBy(row => row.HostId)
            .ToDictionaryAsync(group => group.Key, group => group.Count(), ct);
        var free = lanes.ConvertAll(lane => lane.Free());
        var (all, any) = (Runs(FreeTime.All(free), zone), Runs(FreeTime.Any(free), zone));
        return new BoardAnswer(
            now,
            zoneId,
            hosts.ConvertAll(host => new BoardHost(
                host.Id,
                host.Kind,
                host.Name,
                host.Zone,
                joined.GetValueOrDefault(host.Id),
                offered.Contains(host.Id)
            )),
            dates.ConvertAll(date => new BoardDay(
                date,
                lanes.ConvertAll(lane => new BoardLane(lane.Host.Id, lane.On(date))),
                [.. all[date]],
                [.. any[date]]
            ))
        );
    }

    private async Task AddEventsAsync(
        List<LaneDrawing> lanes,
        List<Guid> ids,
        Span range,
        HashSet<Guid> titled,
        CancellationToken ct
    )
    {
        var asRange = range.ToRange();
        var entries = (
            await db
                .CalendarEntries.AsNoTracking()
                .Include(entry => entry.Calendar)
                .Where(entry => ids.Contains(entry.HostId) && entry.Span.Overlaps(asRange))
                .ToListAsync(ct)
        ).ToLookup(entry => entry.HostId);
        foreach (var lane in lanes)
        {
            // A host who lets nobody read titles is only busy.
            var isTitled = titled.Contains(lane.Host.Id);
            foreach (var entry in entries[lane.Host.Id])
            {
                var source = entry.Calendar!.IsAsked
                    ? entry.Calendar.Name
                    : $"{entry.Calendar.Name}, which is not asked";
                lane.Add(
                    AskedCalendars.IsInTheWay(entry) ? BarKind.Busy : BarKind.Free,
                    entry.Span.ToSpan(),
                    isTitled ? entry.Title : Untitled,
                    source,
                    entry.WholeDay,
                    entry.Tentative
                );
            }
        }
    }

    /// <summary>Where a calendar was out of reach for too long, all of its hosts' time is closed.</summary>
    private async Task AddUnknownAsync(
        List<LaneDrawing> lanes,
        List<Guid> ids,
        Span range,
        Instant now,
        CancellationToken ct
    )
    {
        foreach (var (hostId, calendar) in await AskedCalendars.TooOldAsync(db, ids, now, ct))
            lanes
                .Find(lane => lane.Host.Id == hostId)
                ?.Add(BarKind.Busy, range, "out of reach for too long", calendar, wholeDay: true);
    }

    private async Task AddCommittedAsync(
        List<LaneDrawing> lanes,
        List<Guid> ids,
        Span range,
        Instant now,
        CancellationToken ct
    )
    {
        var asRange = range.ToRange();
        var holds = (
            await db
                .Commitments.AsNoTracking()
                .Where(row =>
                    ids.Contains(row.HostId)
                    && row.Kind == CommitmentKind.Hold
                    && row.Span.Overlaps(asRange)
                    && (row.HeldUntil == null || row.HeldUntil > now)
                )
                .ToListAsync(ct)
        ).ToLookup(row => row.HostId);
        var heldFor = await HeldForAsync(
            [.. holds.SelectMany(group => group).Select(row => row.HolderId).Distinct()],
            ct
        );
        await AddOfferedAsync(
            lanes,
            [.. holds.SelectMany(group => group).Select(row => (row.HolderId, row.Span.LowerBound))],
            range,
            now,
            ct
        );
        // By what the hosts' time is committed to, which is found by host and time.
        var booked = await db
            .Commitments.Where(row =>
                ids.Contains(row.HostId) && row.Kind == CommitmentKind.Booking && row.Span.Overlaps(asRange)
            )
            .Select(row => new { row.HostId, row.HolderId })
            .ToListAsync(ct);
        var sessionIds = booked.ConvertAll(row => row.HolderId);
        var sessions = await db
            .Sessions.AsNoTracking()
            .Where(session => sessionIds.Contains(session.Id))
            .Select(session => new
            {
                session.Id,
                session.Time,
                session.Page!.Title,
                session.Page.Mark,
                session.Page.Places,
                Bookings = session
                    .Bookings.OrderBy(booking => booking.BookedAt)
                    .ThenBy(booking => booking.Id)
                    .Select(booking => new { booking.Id, booking.GuestName })
                    .ToList(),
            })
            .AsSplitQuery()
            .ToDictionaryAsync(session => session.Id, ct);
        var outside = await answers.OfAsync([.. sessions.Keys], ct);
        var ofHost = booked
            .Where(row => sessions.ContainsKey(row.HolderId))
            .ToLookup(row => row.HostId, row => sessions[row.HolderId]);
        foreach (var lane in lanes)
        {
            foreach (var hold in holds[lane.Host.Id])
                lane.Add(
                    BarKind.Held,
                    hold.Span.ToSpan(),
                    heldFor.GetValueOrDefault(hold.HolderId, "held"),
                    heldFor.ContainsKey(hold.HolderId) ? "held for a link" : "a link or poll",
                    link: heldFor.ContainsKey(hold.HolderId) ? hold.HolderId : null
                );
            foreach (var session in ofHost[lane.Host.Id])
            {
                var isShared = session.Places > 1 || session.Bookings.Count > 1;
                lane.Add(
                    BarKind.Booked,
                    session.Time.ToSpan(),
                    string.Join(", ", session.Bookings.Select(booking => booking.GuestName)),
                    session.Title,
                    mark: session.Mark,
                    outside: outside[session.Id].FirstOrDefault(change => change.HostId == lane.Host.Id),
                    path: isShared
                        ? $"/work/bookings/session/{session.Id:D}"
                        : session.Bookings.Select(booking => $"/work/bookings/{booking.Id:D}").FirstOrDefault()
                );
            }
        }
    }

    /// <summary>Times that links offer and don't hold: somebody may take them at any moment.</summary>
    /// <param name="held">By link and start.</param>
    private async Task AddOfferedAsync(
        List<LaneDrawing> lanes,
        HashSet<(Guid Link, Instant Start)> held,
        Span range,
        Instant now,
        CancellationToken ct
    )
    {
        var hostIds = lanes.ConvertAll(lane => lane.Host.Id);
        // Of all that are out only those that offer a time of the range.
        var trip = new RoundTrip(db);
        var offering = trip.Ask(
            $"""
            SELECT l.id FROM links l JOIN pages p ON p.id = l.id
            WHERE l.workspace_id = {tenant.WorkspaceId!.Value} AND l.ends_at > {now} AND p.offer->'times'->>'by' = 'picked' AND EXISTS (
                SELECT 1 FROM jsonb_array_elements_text(p.offer->'times'->'picked') AS start
                WHERE CAST(start AS timestamptz) > {range.Start
                - Duration.FromDays(1)} AND CAST(start AS timestamptz) < {range.End})
            """,
            row => row.GetGuid(0)
        );
        await trip.RunAsync(ct);
        var links = await db
            .Links.Where(link => offering.Rows.Contains(link.Id))
            .AsNoTracking()
            .Include(link => link.Page!)
                .ThenInclude(page => page.Seats)
                    .ThenInclude(seat => seat.Hosts)
            .AsSplitQuery()
            .Where(link =>
                (
                    link.State == LinkState.Out
                    || link.State == LinkState.Opened
                    // Given out as text: whoever has them may answer at any moment.
                    || (link.State == LinkState.Draft && link.GivenAt != null)
                ) && link.Page!.Seats.Any(seat => seat.Hosts.Any(host => hostIds.Contains(host.HostId)))
            )
            .ToListAsync(ct);
        foreach (var link in links)
        {
            var page = link.Page!;
            var hosts = page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).ToHashSet();
            foreach (
                var start in page.Offer!.Times.Picked.Where(start => start > now && !held.Contains((link.Id, start)))
            )
            {
                var span = new Span(start, start + Duration.FromMinutes(page.Durations.Max()));
                if (!span.Meets(range))
                    continue;
                foreach (var lane in lanes.Where(lane => hosts.Contains(lane.Host.Id)))
                    lane.Add(BarKind.Offered, span, Holding.NameOf(page, link), "offered by a link", link: link.Id);
            }
        }
    }

    /// <summary>What is arranged by those who hold time.</summary>
    private async Task<Dictionary<Guid, string>> HeldForAsync(List<Guid> holders, CancellationToken ct) =>
        (
            await db
                .Links.AsNoTracking()
                .Include(link => link.Page)
                .Where(link => holders.Contains(link.Id))
                .ToListAsync(ct)
        ).ToDictionary(link => link.Id, link => Holding.NameOf(link.Page!, link));

    private static ILookup<LocalDate, FreeRun> Runs(IReadOnlyList<Span> spans, DateTimeZone zone) =>
        spans
            .SelectMany(
                span => DaySlices.Of(span, zone),
                (span, slice) => (slice.Date, Run: new FreeRun(slice.FromMinute, slice.ToMinute, span.Start, span.End))
            )
            .ToLookup(pair => pair.Date, pair => pair.Run);
}
