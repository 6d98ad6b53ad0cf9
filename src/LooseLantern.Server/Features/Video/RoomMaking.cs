using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Video;

/// <summary>
/// Makes, moves and ends video rooms at their provider, until it has succeeded. What tells of a room waits for it a
/// while (<c>PostSender</c>).
/// </summary>
public sealed class RoomMaking(LanternDb db, IVideoRooms rooms, EventWishes events, PostWriting post, IClock clock)
{
    private static readonly Duration MostBackOff = Duration.FromMinutes(30);

    public static readonly DueKind Makes = new(
        TimeSpan.FromMilliseconds(500),
        Duration.FromMinutes(2),
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE video_rooms SET working_until = {until}
                    WHERE session_id IN (
                        SELECT session_id FROM video_rooms WHERE due_at <= {now} AND (working_until IS NULL OR working_until <= {now})
                        ORDER BY due_at LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING session_id AS id, workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<RoomMaking>().CarryOutAsync(id, ct)
    );

    private async Task CarryOutAsync(Guid sessionId, CancellationToken ct)
    {
        var room = await db.VideoRooms.FirstOrDefaultAsync(row => row.SessionId == sessionId && row.DueAt != null, ct);
        if (room is null)
            return;
        var wish = room.Wish;
        room.Attempts++;
        var isDone = false;
        try
        {
            var session = await db
                .Sessions.IgnoreQueryFilters([LanternDb.NotCancelled])
                .Include(row => row.Page)
                .Include(row => row.Hosts)
                .SingleAsync(row => row.Id == sessionId, ct);
            if (room.IsWanted)
            {
                var made = await rooms.PutAsync(
                    sessionId,
                    session.Page!.Title,
                    new Span(session.Time.LowerBound, session.Time.UpperBound),
                    ct
                );
                var (isNew, isFirst) = (room.Link != made.Link, room.Link is null);
                (room.Link, room.Code) = (made.Link, made.Code);
                // Hosts' calendars say where it is.
                if (isNew)
                {
                    var trip = new RoundTrip(db);
                    events.ForEvents(trip, session);
                    await trip.RunAsync(ct);
                }

                if (isFirst)
                    await TellLateAsync(sessionId, ct);
            }
            else
                await rooms.EndAsync(sessionId, ct);

            (room.Fault, isDone) = (null, true);
        }
        catch (Exception e)
            when (e is HttpRequestException or System.Text.Json.JsonException or TaskCanceledException
                && !ct.IsCancellationRequested
            )
        {
            room.Fault = CutText.Kept(e.Message, 400);
            room.DueAt = clock.GetCurrentInstant() + BackOff.After(room.Attempts, MostBackOff);
        }

        room.WorkingUntil = null;
        await db.SaveChangesAsync(ct);
        // Something else may be wished for by now; then it stays due.
        if (isDone)
            await db
                .VideoRooms.Where(row => row.SessionId == sessionId && row.Wish == wish)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.DueAt, (Instant?)null), ct);
    }

    /// <summary>Guests whose mail could wait no longer are told where it is; the others' mail waits still.</summary>
    private async Task TellLateAsync(Guid sessionId, CancellationToken ct)
    {
        var late = await db
            .Messages.Where(message =>
                message.State == MessageState.Sent
                && message.PersonId == null
                && message.Booking!.SessionId == sessionId
                && message.Booking.CancelledAt == null
                && message.Text.Contains(PostInserts.Room)
            )
            .Select(message => message.BookingId!.Value)
            .Distinct()
            .ToListAsync(ct);
        await post.TellAsync(late, new Telling(Occasion.RoomMade), ct);
    }
}

/// <summary>Carries out what is wished of video rooms.</summary>
public sealed class RoomWorker(IVideoRooms rooms, IServiceScopeFactory scopes, IClock clock, ILogger<RoomWorker> logger)
    : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        rooms.IsSet ? DueWork.RunAsync(RoomMaking.Makes, scopes, clock, logger, stoppingToken) : Task.CompletedTask;
}
