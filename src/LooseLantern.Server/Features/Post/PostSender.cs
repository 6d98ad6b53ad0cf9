using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>Sends messages as they fall due, where a mail server is set.</summary>
public sealed class PostSender(
    PostSettings settings,
    MailServer server,
    WorkSignals signals,
    IServiceScopeFactory scopes,
    IClock clock,
    ILogger<PostSender> logger
) : BackgroundService
{
    private static readonly Duration MostWaitForARoom = Duration.FromMinutes(10);

    private static readonly Duration MostWaitForServer = Duration.FromMinutes(10);

    private static readonly DueKind Sends = new(
        TimeSpan.FromMilliseconds(500),
        Duration.FromMinutes(3),
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE messages SET sending_until = {until}
                    WHERE id IN (
                        SELECT m.id FROM messages m WHERE state = 'Due' AND due_at <= {now} AND (sending_until IS NULL OR sending_until <= {now})
                            -- Nobody hears that something is cancelled before they hear that it was booked.
                            AND NOT EXISTS (SELECT 1 FROM messages e WHERE e.booking_id = m.booking_id AND e.to_email = m.to_email AND e.state = 'Due' AND e.written_at <= m.written_at AND e.id < m.id
                                -- What waits for its hour, a reminder say, holds up nothing.
                                AND (e.due_at <= {now} OR e.attempts > 0 OR e.held_back IS NOT NULL))
                            -- A room that is being made is waited for, but not for ever.
                            AND (m.written_at <= {now
                        - MostWaitForARoom} OR NOT EXISTS (SELECT 1 FROM bookings b JOIN video_rooms r ON r.session_id = b.session_id WHERE b.id = m.booking_id AND r.link IS NULL AND r.is_wanted))
                        ORDER BY due_at, id LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING id, workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<PostSending>().SendAsync(id, ct)
    );

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        Task.WhenAll(
            DueWork.RunAsync(DailyPost.Gathers, scopes, clock, logger, stoppingToken),
            settings.Host is null
                ? Task.CompletedTask
                : DueWork.RunAsync(Sends, scopes, clock, logger, stoppingToken, signals.Messages),
            settings.Host is null ? Task.CompletedTask : LearnAsync(stoppingToken)
        );

    /// <summary>
    /// Asks the server what it can do before the first mail: what is typed until then is checked too.
    /// </summary>
    private async Task LearnAsync(CancellationToken stopping)
    {
        for (var tries = 1; !stopping.IsCancellationRequested; tries++)
        {
            try
            {
                await server.GreetAsync(stopping);
                return;
            }
            catch (Exception) when (!stopping.IsCancellationRequested)
            {
                // What is wrong with it stands with the mails that wait for it; each that goes out learns the same.
                await Task.Delay(BackOff.After(tries, MostWaitForServer).ToTimeSpan(), stopping);
            }
            catch (OperationCanceledException)
            {
                return;
            }
        }
    }
}
