using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Links;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Holds the picked times of a link on its hosts' calendars, and lets go of what it should not hold any more.
/// </summary>
public sealed class Holding(
    LanternDb db,
    OpeningsInputs inputs,
    EventWishes wishes,
    HostReadiness readiness,
    IClock clock
)
{
    public static readonly DueKind RunsOut = new(
        TimeSpan.FromSeconds(5),
        Duration.FromMinutes(1),
        (db, now, _, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"SELECT DISTINCT host_id AS id, workspace_id FROM commitments WHERE held_until <= {now} LIMIT {most}"
                )
                .ToListAsync(ct),
        async (services, hostId, ct) =>
        {
            var db = services.GetRequiredService<LanternDb>();
            await using var transaction = await db.Database.BeginTransactionAsync(ct);
            await services.GetRequiredService<TimeLocks>().TakeAsync(new TimeLock { Hosts = [hostId] }, ct);
            await transaction.CommitAsync(ct);
        }
    );

    /// <summary>Reads the hosts' calendars as far as the picks reach; never while locks are held.</summary>
    /// <param name="page">The link's, with its offer.</param>
    public async Task PrepareAsync(Page page, CancellationToken ct)
    {
        var asked = inputs.Rules(page);
        if (Reach(asked, page.Offer!.Times.Picked) is not var (from, to))
            return;
        await readiness.PrepareAsync(asked.HostIds, new FactsWanted(asked, from, to, page.Durations.Max()).Range, ct);
    }

    /// <summary>
    /// Brings what is held in line with what the link wishes, within the caller's transaction that has locked its page
    /// and hosts, and saves it with whatever else was changed. Each time is held on one host a seat, for the longest of
    /// its durations that is open; who holds it already goes on holding it.
    /// </summary>
    /// <exception cref="Refusal">409 with the starts that can't be held, since something else is there.</exception>
    public async Task KeepAsync(Page page, AvailabilityLink link, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var held = await db.Commitments.Where(row => row.HolderId == link.Id).ToListAsync(ct);
        var (wanted, until) = Wanted(page, link, now);
        var keep = new HashSet<CommitmentRow>();
        var news = new List<Instant>();
        foreach (var start in wanted)
        {
            var here = held.FindAll(row => row.Span.LowerBound == start);
            // What is held stays so, whatever came into a calendar since.
            if (!StillFills(page, here))
                news.Add(start);
            else
                keep.UnionWith(here);
        }

        foreach (var row in keep)
            (row.HeldUntil, row.BufferBefore, row.BufferAfter) = (until, page.BufferBefore, page.BufferAfter);
        var added = await AddedAsync(page, link, news, until, ct);
        var gone = held.FindAll(row => !keep.Contains(row));
        db.Commitments.RemoveRange(gone);
        db.Commitments.AddRange(added);
        await db.SaveChangesAsync(ct);
        var trip = new RoundTrip(db);
        wishes.Released(trip, gone.ConvertAll(row => row.Id));
        wishes.ForHolds(trip, page.Id, added, NameOf(page, link));
        await trip.RunAsync(ct);
    }

    /// <exception cref="Refusal">409 with the starts that can't be held.</exception>
    private async Task<List<CommitmentRow>> AddedAsync(
        Page page,
        AvailabilityLink link,
        List<Instant> starts,
        Instant until,
        CancellationToken ct
    )
    {
        if (starts.Count == 0)
            return [];
        var (added, refused) = (new List<CommitmentRow>(), new List<Instant>());
        var asked = inputs.Rules(page);
        var (from, to) = Reach(asked, starts)!.Value;
        var trip = new RoundTrip(db);
        var wanted = inputs.Ask(trip, new FactsWanted(asked, from, to, page.Durations.Max()));
        var assignment = new AssignmentAsked(trip, page, starts, new Meeting(""));
        await trip.RunAsync(ct);
        var input = await wanted.InputAsync(db, ct);
        foreach (var start in starts)
        {
            var facts = assignment.Facts(start, clock.GetCurrentInstant());
            // As long as it may be taken for: the longest of its durations that is open.
            var longest = page
                .Durations.OrderDescending()
                .Select(minutes =>
                    (Minutes: minutes, Hosts: Assignment.For(input with { Duration = minutes }, start, facts))
                )
                .FirstOrDefault(one => one.Hosts is not null);
            if (longest.Hosts is not { } hosts)
            {
                refused.Add(start);
                continue;
            }

            added.AddRange(
                hosts.Select(host => new CommitmentRow
                {
                    WorkspaceId = page.WorkspaceId,
                    HostId = Guid.Parse(host),
                    HolderId = link.Id,
                    Kind = CommitmentKind.Hold,
                    Span = new Span(start, start + Duration.FromMinutes(longest.Minutes)).ToRange(),
                    BufferBefore = page.BufferBefore,
                    BufferAfter = page.BufferAfter,
                    HeldUntil = until,
                })
            );
        }

        return refused.Count == 0 ? added : throw CantHold(refused);
    }

    /// <summary>Whether those who hold a time fill all seats of the line-up as it is now.</summary>
    private static bool StillFills(Page page, List<CommitmentRow> here)
    {
        if (
            here.Count != page.Seats.Count
            || !here.TrueForAll(row =>
                row.Span.Equals(here[0].Span) && page.Durations.Contains((int)row.Span.ToSpan().Length.TotalMinutes)
            )
        )
            return false;
        var seats = page.Seats.Select(seat =>
            (IReadOnlyList<int>)
                [
                    .. Enumerable
                        .Range(0, here.Count)
                        .Where(at => seat.Hosts.Exists(host => host.HostId == here[at].HostId)),
                ]
        );
        return LineUp.Fill([.. seats], _ => true) is not null;
    }

    /// <summary>What hosts read a time is held for.</summary>
    public static string NameOf(Page page, AvailabilityLink link) =>
        link.Guests.Count == 0
            ? page.Title
            : $"{page.Title}, {string.Join(", ", link.Guests.Select(guest => guest.Name))}";

    public static Refusal CantHold(IReadOnlyList<Instant> starts) =>
        new(
            StatusCodes.Status409Conflict,
            "cant-hold",
            Phrase.Of(starts.Count == 1 ? "cant-hold.one" : "cant-hold", ("count", starts.Count))
        )
        {
            More = { ["starts"] = starts },
        };

    private static (IReadOnlyList<Instant> Starts, Instant Until) Wanted(Page page, AvailabilityLink link, Instant now)
    {
        if (link.HoldUntil is not { } until || link.RevokedAt is not null || page.Offer!.Times.By != OfferBy.Picked)
            return ([], now);
        // It never outlives the link.
        var end = LocalDays.Start(DateTimeZoneProviders.Tzdb[page.Zone], link.EndsOn.PlusDays(1));
        until = Instant.Min(until, end);
        return until <= now ? ([], now) : ([.. page.Offer.Times.Picked.Where(start => start > now)], until);
    }

    private static (LocalDate From, LocalDate To)? Reach(AskedPage asked, IReadOnlyList<Instant> starts)
    {
        if (starts.Count == 0)
            return null;
        var dates = starts.Select(start => start.InZone(asked.Zone).Date).ToList();
        return (dates.Min(), dates.Max());
    }
}

/// <summary>Takes away what was held too long.</summary>
public sealed class HoldWorker(IServiceScopeFactory scopes, IClock clock, ILogger<HoldWorker> logger)
    : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        DueWork.RunAsync(Holding.RunsOut, scopes, clock, logger, stoppingToken);
}
