using LooseLantern.Server.Data;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace LooseLantern.Server.Features.Pages.Kept;

/// <summary>Takes away notes of changes that nobody asks for any more: nothing is kept in memory for so long.</summary>
public sealed partial class OldNotes(IServiceScopeFactory scopes, ILogger<OldNotes> logger) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(10);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
                // By the database's clock, as they were written.
                await db.Database.ExecuteSqlAsync(
                    $"DELETE FROM fact_changes WHERE at < now() - interval '1 hour'",
                    stoppingToken
                );
            }
            catch (NpgsqlException e)
            {
                // The database may only be restarting.
                Failed(logger, e);
            }
        }
    }

    [LoggerMessage(
        Level = LogLevel.Warning,
        Message = "Old notes of changes could not be taken away; it is tried again."
    )]
    private static partial void Failed(ILogger logger, Exception e);
}
