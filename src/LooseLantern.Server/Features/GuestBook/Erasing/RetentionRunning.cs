using LooseLantern.Server.Data;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <summary>Erases, once a night, the guests whose time is over.</summary>
public sealed class RetentionRunning(LanternDb db, RetentionLooking looking, GuestErasing erasing, IClock clock)
{
    /// <summary>How many are erased in one transaction.</summary>
    private const int AtOnce = 25;

    private static readonly LocalTime At = new(3, 0);

    public static readonly DueKind Runs = new(
        TimeSpan.FromSeconds(20),
        Duration.FromMinutes(30),
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE workspaces SET retention_due_at = {until} WHERE id IN (
                        SELECT id FROM workspaces WHERE retention_due_at <= {now} ORDER BY retention_due_at LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING id, id AS workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, _, ct) => services.GetRequiredService<RetentionRunning>().RunAsync(ct)
    );

    /// <summary>The next time that it is three o'clock in the morning there.</summary>
    public static Instant NextNight(string zone, Instant now) =>
        Post.DailyPost.Next(At, DateTimeZoneProviders.Tzdb[zone], now);

    public async Task RunAsync(CancellationToken ct)
    {
        var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
        // Who booked, or was changed, just now is left for the next night.
        var left = new HashSet<Guid>();
        while (true)
        {
            var now = clock.GetCurrentInstant();
            var (due, _) = await looking.DueAsync(workspace.GuestRetention, now, now, AtOnce + left.Count, null, ct);
            var ids = due.Select(guest => guest.Id).Where(id => !left.Contains(id)).ToList();
            if (ids.Count == 0)
                break;
            if (await TryAsync(ids, ct))
                continue;
            foreach (var id in ids)
            {
                if (!await TryAsync([id], ct))
                    left.Add(id);
            }
        }

        var next = NextNight(workspace.Zone, clock.GetCurrentInstant());
        await db
            .Workspaces.Where(row => row.RetentionDueAt != null)
            .ExecuteUpdateAsync(set => set.SetProperty(row => row.RetentionDueAt, next), ct);
    }

    private async Task<bool> TryAsync(IReadOnlyCollection<Guid> ids, CancellationToken ct)
    {
        try
        {
            await erasing.EraseAsync(ids, isAsked: true, ct);
            return true;
        }
        catch (Refusal)
        {
            return false;
        }
        finally
        {
            db.ChangeTracker.Clear();
        }
    }
}

/// <summary>Runs it in the background.</summary>
public sealed class RetentionWatch(IServiceScopeFactory scopes, IClock clock, ILogger<RetentionWatch> logger)
    : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        DueWork.RunAsync(RetentionRunning.Runs, scopes, clock, logger, stoppingToken);
}
