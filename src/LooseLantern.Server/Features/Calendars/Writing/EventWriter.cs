using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Writing;

/// <summary>Carries out, as they fall due, what should stand in hosts' calendars.</summary>
public sealed class EventWriter(IServiceScopeFactory scopes, IClock clock, ILogger<EventWriter> logger)
    : BackgroundService
{
    private static readonly DueKind Writes = new(
        TimeSpan.FromMilliseconds(500),
        Duration.FromMinutes(3),
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE written_events SET writing_until = {until}
                    WHERE id IN (
                        SELECT id FROM written_events WHERE due_at <= {now} AND (writing_until IS NULL OR writing_until <= {now})
                        ORDER BY due_at LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING id, workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<EventWriting>().WriteAsync(id, ct)
    )
    {
        BringForwardAsync = (db, now, ct) =>
            db.Database.ExecuteSqlAsync($"UPDATE written_events SET due_at = {now} WHERE due_at > {now}", ct),
    };

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        DueWork.RunAsync(Writes, scopes, clock, logger, stoppingToken);
}
