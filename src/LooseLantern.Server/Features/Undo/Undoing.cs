using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Undo;

/// <summary>
/// Takes back what one press did, in one transaction and under the locks of all pages and hosts it touched: rows are as
/// they were before, its mail never goes, and hosts' calendars are written anew. What anybody changed since can't be
/// taken back, nor time that somebody else has by now.
/// </summary>
public sealed partial class Undoing(
    LanternDb db,
    Tenant tenant,
    Actor actor,
    TimeLocks locks,
    EventWishes wishes,
    Tellings tellings,
    RecordKeeping record,
    IClock clock,
    ILogger<Undoing> logger
)
{
    private sealed record Touched(Guid[] Pages, Guid[] Hosts, Guid[] Sessions, Guid[] Bookings, Guid[] Holds);

    /// <exception cref="Refusal">404 where the person who asks did no such thing; 409 where it is too late, or
    /// something of it was changed since. Nothing is written then.</exception>
    public async Task UndoAsync(Guid id, CancellationToken ct)
    {
        var person = actor.Required.Id;
        var found = await db
            .UndoActs.AsNoTracking()
            .FirstOrDefaultAsync(act => act.Id == id && act.PersonId == person, ct)
            ?? throw Refusal.NotFound("undo");
        if (found.UndoneAt is not null)
            return;
        var touched = await TouchedAsync(id, ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await locks.TakeAsync(new TimeLock { Pages = touched.Pages, Hosts = touched.Hosts }, ct);
        var act = await db
            .UndoActs.FromSql($"SELECT * FROM undo_acts WHERE id = {id} FOR UPDATE")
            .AsTracking()
            .SingleAsync(ct);
        if (act.UndoneAt is not null)
            return;
        var now = clock.GetCurrentInstant();
        if (act.Until <= now)
            throw new Refusal(StatusCodes.Status409Conflict, "undo-over");
        await TakeMailBackAsync(id, ct);
        await TakeRowsBackAsync(id, now, ct);
        act.UndoneAt = now;
        await NoteAsync(id, ct);
        await TellAsync(touched, ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>Mail of it that was written by now; what was not is never written.</summary>
    private async Task TakeMailBackAsync(Guid act, CancellationToken ct)
    {
        var waiting = await db
            .Messages.FromSql($"SELECT * FROM messages WHERE act_id = {act} FOR UPDATE")
            .AsNoTracking()
            .Select(message => new { message.State, message.SendingUntil })
            .ToListAsync(ct);
        if (
            waiting.Exists(message =>
                message.SendingUntil is not null || message.State is not (MessageState.Due or MessageState.Gathered)
            )
        )
            throw new Refusal(StatusCodes.Status409Conflict, "undo-mailed");
        await db.Messages.Where(message => message.ActId == act).ExecuteDeleteAsync(ct);
    }

    private async Task TakeRowsBackAsync(Guid act, Instant now, CancellationToken ct)
    {
        try
        {
            var changed = await db
                .Database.SqlQuery<string?>($"SELECT take_back({act}, {now}) AS \"Value\"")
                .SingleAsync(ct);
            // Time that is back only where nobody else has it.
            if (changed is not null)
            {
                Log.Changed(logger, act, changed);
                throw new Refusal(
                    StatusCodes.Status409Conflict,
                    changed == "commitments" ? "undo-taken" : "undo-changed"
                );
            }
        }
        catch (PostgresException e) when (e.ConstraintName == CommitmentRow.NoDoubleBooking)
        {
            throw new Refusal(StatusCodes.Status409Conflict, "undo-taken");
        }
        catch (PostgresException e)
            when (e.SqlState is PostgresErrorCodes.UniqueViolation or PostgresErrorCodes.ForeignKeyViolation)
        {
            throw new Refusal(StatusCodes.Status409Conflict, "undo-changed");
        }
    }

    private async Task NoteAsync(Guid act, CancellationToken ct)
    {
        var lines = await db
            .Record.AsNoTracking()
            .Where(line => line.ActId == act)
            .OrderBy(line => line.Id)
            .ToListAsync(ct);
        foreach (var line in lines)
            record.Note(line.SubjectId, $"Took back: {line.What}", line.ForHosts);
        await db.SaveChangesAsync(ct);
    }

    /// <summary>Calendars and reminders are as what is there again has it.</summary>
    private async Task TellAsync(Touched touched, CancellationToken ct)
    {
        var sessions = await db
            .Sessions.IgnoreQueryFilters([LanternDb.NotCancelled])
            .Include(session => session.Hosts)
            .Include(session => session.Bookings)
            .AsSplitQuery()
            .Where(session => touched.Sessions.Contains(session.Id))
            .OrderBy(session => session.Id)
            .ToListAsync(ct);
        foreach (var page in sessions.Where(session => session.CancelledAt is null).GroupBy(session => session.PageId))
            tellings.Add(
                page.Key,
                [
                    .. page.SelectMany(session => session.Bookings)
                        .Where(booking => booking.CancelledAt is null)
                        .Select(booking => booking.Id),
                ],
                new Telling(Occasion.TakenBack) { TeamAlone = true }
            );
        await wishes.SaveAsync(sessions, ct);
        var held = await db
            .Commitments.AsNoTracking()
            .Where(row => touched.Holds.Contains(row.Id))
            .Where(row => !db.WrittenEvents.Any(written => written.HoldId == row.Id && written.IsWanted))
            .ToListAsync(ct);
        var gone = touched.Holds.Except(
            await db.Commitments.Where(row => touched.Holds.Contains(row.Id)).Select(row => row.Id).ToListAsync(ct)
        );
        var trip = new RoundTrip(db);
        wishes.Released(trip, [.. gone]);
        foreach (var holder in held.GroupBy(row => row.HolderId))
        {
            var link = await db
                .Links.AsNoTracking()
                .Include(row => row.Page)
                .SingleAsync(row => row.Id == holder.Key, ct);
            wishes.ForHolds(trip, link.Id, [.. holder], Holding.NameOf(link.Page!, link));
        }

        await trip.RunAsync(ct);
    }

    private async Task<Touched> TouchedAsync(Guid act, CancellationToken ct)
    {
        var (trip, workspace) = (new RoundTrip(db), tenant.WorkspaceId!.Value);
        Asked<Guid> Ids(string sql) =>
            trip.Ask(
                $"SELECT DISTINCT x::uuid FROM ({sql}) found (x) WHERE x IS NOT NULL ORDER BY 1",
                new Dictionary<string, object> { ["act"] = act, ["workspace"] = workspace },
                row => row.GetGuid(0)
            );
        const string Rows = "FROM undo_rows r WHERE r.workspace_id = @workspace AND r.act_id = @act";
        const string Sessions = $"""
            SELECT coalesce(r.after, r.before) ->> 'id' {Rows} AND r.of = 'sessions'
            UNION ALL SELECT unnest(ARRAY[r.before ->> 'session_id', r.after ->> 'session_id']) {Rows} AND r.of IN ('bookings', 'session_hosts')
            """;
        var sessions = Ids(Sessions);
        var pages = Ids(
            $"""
            SELECT s.page_id::text FROM sessions s WHERE s.id::text IN ({Sessions})
            UNION ALL SELECT coalesce(r.after, r.before) ->> 'page_id' {Rows} AND r.of IN ('seats', 'commitments')
            UNION ALL SELECT coalesce(r.after, r.before) ->> 'id' {Rows} AND r.of IN ('pages', 'links')
            """
        );
        var hosts = Ids(
            $"SELECT unnest(ARRAY[r.before ->> 'host_id', r.after ->> 'host_id']) {Rows} AND r.of IN ('session_hosts', 'commitments', 'seat_hosts')"
        );
        var bookings = Ids($"SELECT coalesce(r.after, r.before) ->> 'id' {Rows} AND r.of = 'bookings'");
        var holds = Ids(
            $"SELECT coalesce(r.after, r.before) ->> 'id' {Rows} AND r.of = 'commitments' AND coalesce(r.after, r.before) ->> 'kind' = 'Hold'"
        );
        await trip.RunAsync(ct);
        return new Touched([.. pages.Rows], [.. hosts.Rows], [.. sessions.Rows], [.. bookings.Rows], [.. holds.Rows]);
    }

    private static partial class Log
    {
        [LoggerMessage(LogLevel.Warning, "Act {Act} is not taken back: a row of {Table} was changed since")]
        public static partial void Changed(ILogger logger, Guid act, string table);
    }
}
