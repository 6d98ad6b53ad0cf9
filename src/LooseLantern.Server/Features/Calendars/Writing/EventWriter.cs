using LooseLantern.Server.Data;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Writing;

/// <summary>Carries out, as they fall due, what should stand in hosts' calendars. Several servers share the work.</summary>
public sealed class EventWriter(IServiceScopeFactory scopes, IClock clock, ILogger<EventWriter> logger) : BackgroundService
{
    private const int AtOnce = 4;

    private static readonly Duration Lease = Duration.FromMinutes(3);
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(500);

    protected override Task ExecuteAsync(CancellationToken stoppingToken) => DueWork.RunAsync(RoundAsync, Pause, logger, stoppingToken);

    private async Task<bool> RoundAsync(CancellationToken ct)
    {
        var due = await ClaimAsync(ct);
        await Task.WhenAll(due.Select(written => WriteAsync(written, ct)));
        return due.Count > 0;
    }

    private async Task<List<DueRow>> ClaimAsync(CancellationToken ct)
    {
        await using var scope = scopes.CreateAsyncScope();
        var now = clock.GetCurrentInstant();
        var until = now + Lease;
        return await scope.ServiceProvider.GetRequiredService<LanternDb>().Database.SqlQuery<DueRow>($"""
            UPDATE written_events SET writing_until = {until}
            WHERE id IN (
                SELECT id FROM written_events WHERE due_at <= {now} AND (writing_until IS NULL OR writing_until <= {now})
                ORDER BY due_at LIMIT {AtOnce} FOR UPDATE SKIP LOCKED)
            RETURNING id, workspace_id
            """).ToListAsync(ct);
    }

    private async Task WriteAsync(DueRow written, CancellationToken ct)
    {
        await using var scope = scopes.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<Tenant>().Enter(written.WorkspaceId);
        await scope.ServiceProvider.GetRequiredService<EventWriting>().WriteAsync(written.Id, ct);
    }
}
