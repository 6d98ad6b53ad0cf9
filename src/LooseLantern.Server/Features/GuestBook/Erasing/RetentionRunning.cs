using LooseLantern.Server.Data;
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
        while (true)
        {
            var now = clock.GetCurrentInstant();
            var (due, _) = await looking.DueAsync(workspace.GuestRetention, now, now, AtOnce, null, ct);
            if (due.Count == 0)
                break;
            await erasing.EraseAsync([.. due.Select(guest => guest.Id)], isAsked: true, ct);
            db.ChangeTracker.Clear();
        }

        var next = NextNight(workspace.Zone, clock.GetCurrentInstant());
        await db
            .Workspaces.Where(row => row.RetentionDueAt != null)
            .ExecuteUpdateAsync(set => set.SetProperty(row => row.RetentionDueAt, next), ct);
    }
}

/// <summary>Runs it in the background.</summary>
public sealed class RetentionWatch(IServiceScopeFactory scopes, IClock clock, ILogger<RetentionWatch> logger)
    : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        DueWork.RunAsync(RetentionRunning.Runs, scopes, clock, logger, stoppingToken);
}
