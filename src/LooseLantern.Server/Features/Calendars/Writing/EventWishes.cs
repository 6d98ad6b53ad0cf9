using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Video;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Writing;

/// <summary>
/// Says what should stand in hosts' calendars, in the transaction of what it speaks of and after that was saved there.
/// Carrying it out is for <see cref="EventWriting"/>, so no booking waits for a calendar server, and none is lost on
/// its way there. What it says is asked in a round trip of the caller's, whatever the number of hosts.
/// </summary>
public sealed class EventWishes(LanternDb db, Tenant tenant, RoomWishes rooms, IClock clock)
{
    /// <summary>Where a host's time is written: as the page chose, else as usual; only where we may write.</summary>
    private const string Targets = """
        FROM hosts h
        LEFT JOIN pages p ON p.id = @page
        JOIN calendars c ON c.kind = 'Account' AND c.may_write AND c.id = coalesce(
            (SELECT (x ->> 'writtenTo')::uuid FROM jsonb_array_elements(p.calendar_choices) x WHERE x ->> 'hostId' = h.id::text LIMIT 1),
            h.written_calendar_id)
        """;

    private const string NewEvent = """
        INSERT INTO written_events (id, workspace_id, host_id, calendar_id, uid, session_id, hold_id, hold_title, is_wanted, is_left_off, wish, due_at, attempts, outside)
        """;

    // Nobody in one that is cancelled.
    private const string WhoSits =
        "(SELECT i.host_id FROM session_hosts i JOIN sessions s ON s.id = i.session_id WHERE s.id = @session AND s.cancelled_at IS NULL)";

    private const string Again = "wish = wish + 1, due_at = @now, attempts = 0";

    /// <summary>
    /// Saves what was changed, these sessions among it: their events, and their video rooms, should be as they are now.
    /// </summary>
    public async Task SaveAsync(IReadOnlyCollection<Session> sessions, CancellationToken ct)
    {
        await db.SaveChangesAsync(ct);
        var trip = new RoundTrip(db);
        foreach (var session in sessions)
            ForSession(trip, session);
        await trip.RunAsync(ct);
    }

    /// <summary>A session was saved: its events, and its video room, should be as it is now.</summary>
    public void ForSession(RoundTrip trip, Session session)
    {
        rooms.ForSession(trip, session);
        ForEvents(trip, session);
    }

    /// <summary>Its event should be as it is now in the calendar of each of its hosts, and in no other's.</summary>
    public void ForEvents(RoundTrip trip, Session session)
    {
        var now = clock.GetCurrentInstant();
        if (session.Time.UpperBound <= now)
            return;
        var values = new Dictionary<string, object>
        {
            ["workspace"] = session.WorkspaceId,
            ["page"] = session.PageId,
            ["session"] = session.Id,
            ["uid"] = session.Uid,
            ["now"] = now,
        };
        // What somebody did to it outside waits for an answer; until then it is left as it is there, but for one that
        // should go.
        trip.Do(
            $"""
            UPDATE written_events w SET is_wanted = true, {Again}
            WHERE w.workspace_id = @workspace AND w.uid = @uid AND w.outside = 'None' AND NOT w.is_left_off
                AND w.host_id IN (SELECT h.id {Targets} WHERE h.id IN {WhoSits})
            """,
            values
        );
        trip.Do(
            $"""
            UPDATE written_events w SET is_wanted = false, {Again}
            WHERE w.workspace_id = @workspace AND w.uid = @uid AND w.is_wanted AND w.host_id NOT IN {WhoSits}
            """,
            values
        );
        trip.Do(
            $"""
            {NewEvent}
            SELECT gen_random_uuid(), @workspace, h.id, c.id, @uid, @session, NULL::uuid, '', true, false, 1, @now, 0, 'None' {Targets}
            WHERE h.workspace_id = @workspace AND h.id IN {WhoSits}
                AND NOT EXISTS (SELECT 1 FROM written_events w WHERE w.workspace_id = @workspace AND w.uid = @uid AND w.host_id = h.id)
            """,
            values
        );
    }

    /// <summary>Time was held: a tentative event for each of these commitments.</summary>
    /// <param name="pageId">Whose hosts' time may be written to another calendar than usual.</param>
    /// <param name="title">What hosts read it is held for.</param>
    public void ForHolds(RoundTrip trip, Guid pageId, IReadOnlyList<CommitmentRow> holds, string title)
    {
        if (holds.Count == 0)
            return;
        trip.Do(
            $"""
            {NewEvent}
            SELECT gen_random_uuid(), @workspace, h.id, c.id, hold.id::text, NULL::uuid, hold.id, @title, true, false, 1, @now, 0, 'None' {Targets}
            JOIN unnest(@holds, @hosts) AS hold (id, host_id) ON hold.host_id = h.id
            WHERE h.workspace_id = @workspace
            """,
            new Dictionary<string, object>
            {
                ["workspace"] = tenant.WorkspaceId!.Value,
                ["page"] = pageId,
                ["title"] = title,
                ["holds"] = holds.Select(hold => hold.Id).ToArray(),
                ["hosts"] = holds.Select(hold => hold.HostId).ToArray(),
                ["now"] = clock.GetCurrentInstant(),
            }
        );
    }

    /// <summary>Held time was released or taken.</summary>
    public void Released(RoundTrip trip, IReadOnlyCollection<Guid> holdIds)
    {
        if (holdIds.Count == 0)
            return;
        trip.Do(
            $"UPDATE written_events SET is_wanted = false, {Again} WHERE workspace_id = @workspace AND is_wanted AND hold_id = ANY(@holds)",
            new Dictionary<string, object>
            {
                ["workspace"] = tenant.WorkspaceId!.Value,
                ["holds"] = holdIds.ToArray(),
                ["now"] = clock.GetCurrentInstant(),
            }
        );
    }

    /// <summary>What was done to it outside is answered: it is written as it is here.</summary>
    public void PutBack(WrittenEvent row)
    {
        (row.Outside, row.OutsideStart, row.OutsideEnd, row.NoticedAt) = (OutsideChange.None, null, null, null);
        // A new event where it was deleted; else over what it was made into.
        if (row.EntityTag is null)
            (row.WrittenStart, row.WrittenEnd) = (null, null);
        if (row.IsLeftOff)
            return;
        (row.IsWanted, row.DueAt, row.Attempts) = (true, clock.GetCurrentInstant(), 0);
        row.Wish++;
    }

    /// <summary>It was deleted, and that is well so; the booking stays.</summary>
    public static void LeaveOff(WrittenEvent row)
    {
        (row.Outside, row.NoticedAt, row.IsLeftOff, row.DueAt) = (OutsideChange.None, null, true, null);
        row.Wish++;
    }
}
