using LooseLantern.Server.Data;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Looking;

/// <summary>Looks at calendars as they fall due. Several servers share the work: each takes what no other is looking at.</summary>
public sealed class CalendarWatch(IServiceScopeFactory scopes, IClock clock, ILogger<CalendarWatch> logger) : BackgroundService
{
    private const int AtOnce = 4;

    // Longer than any look may take; one that a server took and never ended is taken by another then.
    private static readonly Duration Lease = Duration.FromMinutes(5);
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(1);

    protected override Task ExecuteAsync(CancellationToken stoppingToken) => DueWork.RunAsync(RoundAsync, Pause, logger, stoppingToken);

    /// <returns>Whether there was something to do.</returns>
    private async Task<bool> RoundAsync(CancellationToken ct)
    {
        var due = await ClaimAsync(ct);
        await Task.WhenAll(due.Select(calendar => LookAsync(calendar, ct)));
        return due.Count > 0;
    }

    private async Task<List<DueRow>> ClaimAsync(CancellationToken ct)
    {
        await using var scope = scopes.CreateAsyncScope();
        var now = clock.GetCurrentInstant();
        var until = now + Lease;
        return await scope.ServiceProvider.GetRequiredService<LanternDb>().Database.SqlQuery<DueRow>($"""
            UPDATE calendars SET looking_until = {until}
            WHERE id IN (
                SELECT c.id FROM calendars c WHERE next_look_at <= {now} AND (looking_until IS NULL OR looking_until <= {now})
                    AND EXISTS (SELECT 1 FROM calendar_hosts ch JOIN hosts h ON h.id = ch.host_id WHERE ch.calendar_id = c.id AND h.retired_at IS NULL)
                ORDER BY next_look_at LIMIT {AtOnce} FOR UPDATE SKIP LOCKED)
            RETURNING id, workspace_id
            """).ToListAsync(ct);
    }

    private async Task LookAsync(DueRow calendar, CancellationToken ct)
    {
        await using var scope = scopes.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<Tenant>().Enter(calendar.WorkspaceId);
        await scope.ServiceProvider.GetRequiredService<CalendarLooking>().LookAsync(calendar.Id, whole: false, ct);
    }
}
