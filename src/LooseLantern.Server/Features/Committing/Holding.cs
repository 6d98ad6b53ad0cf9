using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Links;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Committing;

/// <summary>Holds the marked times of a link on its hosts' calendars, and lets go of what it should not hold any more.</summary>
public sealed class Holding(LanternDb db, OpeningsLoader loader, AssignmentLoading assignments, EventWishes wishes, CalendarLooking looking, IClock clock)
{
    public static readonly DueKind RunsOut = new(
        TimeSpan.FromSeconds(5),
        Duration.FromMinutes(1),
        (db, now, _, most, ct) => db.Database.SqlQuery<DueRow>($"SELECT DISTINCT host_id AS id, workspace_id FROM commitments WHERE held_until <= {now} LIMIT {most}").ToListAsync(ct),
        async (services, hostId, ct) =>
        {
            var db = services.GetRequiredService<LanternDb>();
            await using var transaction = await db.Database.BeginTransactionAsync(ct);
            await services.GetRequiredService<HostLocks>().TakeAsync([hostId], ct);
            await db.SaveChangesAsync(ct);
            await transaction.CommitAsync(ct);
        });

    /// <summary>Reads the hosts' calendars as far as the marks reach; never while locks are held.</summary>
    /// <param name="page">The link's, with its offer.</param>
    public async Task PrepareAsync(Page page, CancellationToken ct)
    {
        var asked = loader.Rules(page);
        if (Reach(asked, page.Offer!.Times.Marked) is not var (from, to)) return;
        await looking.FreshenAsync(asked.HostIds, ct);
        await loader.PrepareAsync(asked, from, to, page.Durations.Max(), ct);
    }

    /// <summary>
    /// Brings what is held in line with what the link wishes, within the caller's transaction that has locked its page and hosts. Each time is held
    /// on one host a seat, for its longest duration; who holds it already goes on holding it.
    /// </summary>
    /// <exception cref="Refusal">409 with the starts that can't be held, since something else is there.</exception>
    public async Task KeepAsync(Page page, AvailabilityLink link, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var held = await db.Commitments.Where(row => row.HolderId == link.Id).ToListAsync(ct);
        var (wanted, until) = Wanted(page, link, now);
        var keep = new HashSet<CommitmentRow>();
        var (added, refused) = (new List<CommitmentRow>(), new List<Instant>());
        if (wanted.Count > 0)
        {
            var asked = loader.Rules(page);
            var (from, to) = Reach(asked, wanted)!.Value;
            var minutes = page.Durations.Max();
            var input = await loader.LoadAsync(asked, from, to, minutes, ct);
            foreach (var start in wanted)
            {
                var span = new Span(start, start + Duration.FromMinutes(minutes));
                var here = held.FindAll(row => row.Span.LowerBound == start);
                var facts = (await assignments.FactsAsync(page, start, new Meeting(""), now, ct)) with { Keep = here.Select(row => OpeningsLoader.Id(row.HostId)).ToHashSet() };
                if (Assignment.For(input, start, facts) is not { } hosts)
                {
                    refused.Add(start);
                    continue;
                }

                foreach (var host in hosts.Select(Guid.Parse))
                {
                    if (here.Find(row => row.HostId == host && row.Span.UpperBound == span.End) is { } known)
                    {
                        (known.HeldUntil, known.BufferBefore, known.BufferAfter) = (until, page.BufferBefore, page.BufferAfter);
                        keep.Add(known);
                    }
                    else
                    {
                        added.Add(new CommitmentRow
                        {
                            WorkspaceId = page.WorkspaceId, HostId = host, HolderId = link.Id, Kind = CommitmentKind.Hold, Span = span.ToRange(), BufferBefore = page.BufferBefore, BufferAfter = page.BufferAfter, HeldUntil = until,
                        });
                    }
                }
            }
        }

        if (refused.Count > 0) throw CantHold(refused);
        var gone = held.FindAll(row => !keep.Contains(row));
        db.Commitments.RemoveRange(gone);
        db.Commitments.AddRange(added);
        await wishes.ReleasedAsync(gone.ConvertAll(row => row.Id), ct);
        await wishes.ForHoldsAsync(added, NameOf(page, link), page.CalendarChoices, ct);
    }

    /// <summary>What hosts read a time is held for.</summary>
    public static string NameOf(Page page, AvailabilityLink link) => link.Guests.Count == 0 ? page.Title : $"{page.Title}, {string.Join(", ", link.Guests.Select(guest => guest.Name))}";

    public static Refusal CantHold(IReadOnlyList<Instant> starts) => new(
        StatusCodes.Status409Conflict, "cant-hold", starts.Count == 1 ? "One of the times can’t be held: something else is there now." : $"{starts.Count} of the times can’t be held: something else is there now.",
        "Erase them, or choose others. Nothing was changed.") { More = { ["starts"] = starts } };

    private static (IReadOnlyList<Instant> Starts, Instant Until) Wanted(Page page, AvailabilityLink link, Instant now)
    {
        if (link.HoldUntil is not { } until || link.RevokedAt is not null || page.Offer!.Times.By != OfferBy.Marked) return ([], now);
        // It never outlives the link.
        var end = LocalDays.Start(DateTimeZoneProviders.Tzdb[page.Zone], link.EndsOn.PlusDays(1));
        until = Instant.Min(until, end);
        return until <= now ? ([], now) : ([.. page.Offer.Times.Marked.Where(start => start > now)], until);
    }

    private static (LocalDate From, LocalDate To)? Reach(AskedPage asked, IReadOnlyList<Instant> starts)
    {
        if (starts.Count == 0) return null;
        var dates = starts.Select(start => start.InZone(asked.Zone).Date).ToList();
        return (dates.Min(), dates.Max());
    }
}

/// <summary>Takes away what was held too long.</summary>
public sealed class HoldWorker(IServiceScopeFactory scopes, IClock clock, ILogger<HoldWorker> logger) : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) => DueWork.RunAsync(Holding.RunsOut, scopes, clock, logger, stoppingToken);
}
