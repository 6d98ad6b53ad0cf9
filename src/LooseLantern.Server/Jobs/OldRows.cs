using LooseLantern.Server.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Jobs;

/// <summary>
/// Takes away what is over for an hour: notes of changes that nobody asks for any more, since nothing is kept in memory
/// for so long; and rows as they were before what could be taken back.
/// </summary>
public sealed partial class OldRows(IServiceScopeFactory scopes, IClock clock, ILogger<OldRows> logger)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(10);
    private static readonly Duration KeptAfter = Duration.FromHours(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
                await SweepAsync(db, clock.GetCurrentInstant(), stoppingToken);
            }
            catch (NpgsqlException e)
            {
                // The database may only be restarting.
                Failed(logger, e);
            }
        }
    }

    /// <summary>Of all workspaces.</summary>
    public static async Task SweepAsync(LanternDb db, Instant now, CancellationToken ct)
    {
        // By the database's clock, as they were written.
        await db.Database.ExecuteSqlAsync($"DELETE FROM fact_changes WHERE at < now() - interval '1 hour'", ct);
        await db.Database.ExecuteSqlAsync($"DELETE FROM undo_acts WHERE until < {now - KeptAfter}", ct);
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Old rows could not be taken away; it is tried again.")]
    private static partial void Failed(ILogger logger, Exception e);
}
