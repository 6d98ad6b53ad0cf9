using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Writing;

/// <summary>
/// An event of ours that somebody moved or deleted in a calendar, and which waits for somebody to say what should be.
/// </summary>
/// <param name="Start">Where it was moved to; null for one that was deleted.</param>
/// <param name="MayAnswer">Whether the person who asks may choose.</param>
public sealed record OutsideView(
    Guid Id,
    Guid HostId,
    string HostName,
    string Calendar,
    OutsideChange Change,
    Instant? Start,
    Instant? End,
    Instant NoticedAt,
    bool MayAnswer
);

/// <summary>What people choose where an event of ours was moved or deleted in a calendar.</summary>
public sealed class OutsideAnswers(
    LanternDb db,
    Allowances allowances,
    EventWishes wishes,
    SessionMoving moving,
    RecordKeeping record
)
{
    /// <summary>What waits to be answered of these sessions, by session.</summary>
    public async Task<ILookup<Guid, OutsideView>> OfAsync(IReadOnlyCollection<Guid> sessionIds, CancellationToken ct)
    {
        var rows = await db
            .WrittenEvents.AsNoTracking()
            .Where(row =>
                row.Outside != OutsideChange.None && row.SessionId != null && sessionIds.Contains(row.SessionId.Value)
            )
            .OrderBy(row => row.NoticedAt)
            .Select(row => new
            {
                row.SessionId,
                row.Id,
                row.HostId,
                HostName = row.Host!.Name,
                Calendar = row.Calendar!.Name,
                row.Outside,
                row.OutsideStart,
                row.OutsideEnd,
                row.NoticedAt,
            })
            .ToListAsync(ct);
        var mayMove = rows.Count == 0 ? [] : await allowances.HostsAsync(Allowance.Move, ct);
        return rows.ToLookup(
            row => row.SessionId!.Value,
            row => new OutsideView(
                row.Id,
                row.HostId,
                row.HostName,
                row.Calendar,
                row.Outside,
                row.OutsideStart,
                row.OutsideEnd,
                row.NoticedAt!.Value,
                mayMove.Contains(row.HostId)
            )
        );
    }

    /// <summary>The booking goes where its event was moved to.</summary>
    /// <exception cref="Refusal">409 where nothing was moved (any more), or another host of it is not free
    /// then.</exception>
    public async Task MoveAsync(Guid id, CancellationToken ct)
    {
        var row = await WaitingAsync(id, ct);
        if (
            row
            is not {
                Outside: OutsideChange.Moved,
                OutsideStart: { } start,
                OutsideEnd: { } end,
                SessionId: { } sessionId
            }
        )
            throw Settled();
        var hosts = await db
            .Sessions.Where(session => session.Id == sessionId)
            .SelectMany(session => session.Hosts)
            .Select(host => host.HostId)
            .ToListAsync(ct);
        await allowances.RequireAsync(hosts, Allowance.Move, ct);
        await moving.MoveAsync(sessionId, new Span(start, end), ct);

        // Moved: the event is where it should be, and is written once more for what else changed.
        await PutBackAsync(id, $"Moved a booking to where {row.Host!.Name} moved its event", ct);
    }

    /// <summary>The event is written again as the booking is.</summary>
    public async Task PutBackAsync(Guid id, CancellationToken ct) =>
        await PutBackAsync(id, "Put an event back as its booking is", ct);

    /// <summary>A deleted event stays away; the booking stays too.</summary>
    public async Task LeaveOffAsync(Guid id, CancellationToken ct)
    {
        var row = await WaitingAsync(id, ct);
        if (row.Outside != OutsideChange.Deleted)
            throw Settled();
        EventWishes.LeaveOff(row);
        record.Note(row.SessionId!.Value, "Left a booking off the calendar it was deleted from", row.HostId);
        await db.SaveChangesAsync(ct);
    }

    private async Task PutBackAsync(Guid id, string what, CancellationToken ct)
    {
        db.ChangeTracker.Clear();
        var row = await WaitingAsync(id, ct);
        wishes.PutBack(row);
        record.Note(row.SessionId!.Value, what, row.HostId);
        await db.SaveChangesAsync(ct);
    }

    private async Task<WrittenEvent> WaitingAsync(Guid id, CancellationToken ct)
    {
        var row = await db
            .WrittenEvents.Include(written => written.Host)
            .FirstOrDefaultAsync(written => written.Id == id && written.SessionId != null, ct)
            ?? throw Refusal.NotFound("event");
        await allowances.RequireAsync([row.HostId], Allowance.Move, ct);
        return row.Outside == OutsideChange.None ? throw Settled() : row;
    }

    private static Refusal Settled() => new(StatusCodes.Status409Conflict, "settled");
}

public static class OutsideEndpoints
{
    public static void MapOutsideChanges(this IEndpointRouteBuilder api)
    {
        var events = api.MapGroup("/written-events/{id:guid}").WithTags("Calendars");
        Map("move", "moveToOutside", (answers, id, ct) => answers.MoveAsync(id, ct));
        Map("put-back", "putEventBack", (answers, id, ct) => answers.PutBackAsync(id, ct));
        Map("leave-off", "leaveEventOff", (answers, id, ct) => answers.LeaveOffAsync(id, ct));

        void Map(string path, string name, Func<OutsideAnswers, Guid, CancellationToken, Task> answer) =>
            events
                .MapPost("/" + path, async Task<NoContent> (Guid id, OutsideAnswers answers, CancellationToken ct) =>
                {
                    await answer(answers, id, ct);
                    return TypedResults.NoContent();
                })
                .WithName(name)
                .ProducesValidationProblem()
                .ProducesProblem(403)
                .ProducesProblem(404)
                .ProducesProblem(409);
    }
}
