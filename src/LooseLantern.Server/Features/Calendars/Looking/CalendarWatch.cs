using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Looking;

/// <summary>Looks at calendars as they fall due, but for those of hosts who have left.</summary>
public sealed class CalendarWatch(IServiceScopeFactory scopes, IClock clock, ILogger<CalendarWatch> logger)
    : BackgroundService
{
    private static readonly DueKind Looks = new(
        TimeSpan.FromSeconds(1),
        Duration.FromMinutes(5),
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE calendars SET looking_until = {until}
                    WHERE id IN (
                        SELECT c.id FROM calendars c WHERE next_look_at <= {now} AND (looking_until IS NULL OR looking_until <= {now})
                            AND EXISTS (SELECT 1 FROM calendar_hosts ch JOIN hosts h ON h.id = ch.host_id WHERE ch.calendar_id = c.id AND h.retired_at IS NULL)
                        ORDER BY next_look_at LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING id, workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<CalendarLooking>().LookAsync(id, whole: false, ct)
    )
    {
        BringForwardAsync = (db, now, ct) =>
            db.Database.ExecuteSqlAsync(
                $"UPDATE calendars SET next_look_at = {now}, looking_until = NULL WHERE next_look_at > {now} OR looking_until > {now}",
                ct
            ),
    };

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        DueWork.RunAsync(Looks, scopes, clock, logger, stoppingToken);
}
