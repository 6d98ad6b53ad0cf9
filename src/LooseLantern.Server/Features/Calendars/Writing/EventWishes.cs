using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Video;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Writing;

/// <summary>
/// Says what should stand in hosts' calendars, in the transaction of what it speaks of. Carrying it out is for
/// <see cref="EventWriting"/>, so no booking waits for a calendar server, and none is lost on its way there.
/// </summary>
public sealed class EventWishes(LanternDb db, RoomWishes rooms, IClock clock)
{
    /// <summary>A session was made or changed: its events, and its video room, should be as it is now.</summary>
    public async Task ForSessionAsync(Session session, CancellationToken ct)
    {
        await rooms.ForSessionAsync(session, ct);
        await ForEventsAsync(session, ct);
    }

    /// <summary>Its event should be as it is now in the calendar of each of its hosts, and in no other's.</summary>
    public async Task ForEventsAsync(Session session, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        if (session.Time.UpperBound <= now)
            return;
        List<Guid> hostIds = session.CancelledAt is null ? session.Hosts.ConvertAll(host => host.HostId) : [];
        var choices = await db
            .Pages.Where(page => page.Id == session.PageId)
            .Select(page => page.CalendarChoices)
            .SingleAsync(ct);
        var targets = await TargetsAsync(hostIds, choices, ct);
        var rows = await db.WrittenEvents.Where(row => row.Uid == session.Uid).ToListAsync(ct);
        foreach (var (hostId, calendarId) in targets)
        {
            if (rows.Find(row => row.HostId == hostId) is { } known)
                Again(known, isWanted: true, now);
            else
            {
                db.WrittenEvents.Add(
                    new WrittenEvent
                    {
                        WorkspaceId = session.WorkspaceId,
                        HostId = hostId,
                        CalendarId = calendarId,
                        Uid = session.Uid,
                        SessionId = session.Id,
                        DueAt = now,
                    }
                );
            }
        }

        foreach (var row in rows.Where(row => row.IsWanted && !hostIds.Contains(row.HostId)))
            Again(row, isWanted: false, now);
    }

    /// <summary>Time was held: a tentative event for each of these commitments.</summary>
    /// <param name="title">What hosts read it is held for.</param>
    /// <param name="choices">Where hosts' time is written to another calendar than usual.</param>
    public async Task ForHoldsAsync(
        IReadOnlyList<CommitmentRow> holds,
        string title,
        IReadOnlyList<CalendarChoice> choices,
        CancellationToken ct
    )
    {
        var targets = (await TargetsAsync([.. holds.Select(hold => hold.HostId).Distinct()], choices, ct)).ToDictionary(
            pair => pair.HostId,
            pair => pair.CalendarId
        );
        var now = clock.GetCurrentInstant();
        foreach (var hold in holds)
        {
            if (!targets.TryGetValue(hold.HostId, out var calendarId))
                continue;
            db.WrittenEvents.Add(
                new WrittenEvent
                {
                    WorkspaceId = hold.WorkspaceId,
                    HostId = hold.HostId,
                    CalendarId = calendarId,
                    Uid = hold.Id.ToString("D"),
                    HoldId = hold.Id,
                    HoldTitle = title,
                    DueAt = now,
                }
            );
        }
    }

    /// <summary>Held time was released or taken.</summary>
    public async Task ReleasedAsync(IReadOnlyCollection<Guid> holdIds, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        foreach (
            var row in await db
                .WrittenEvents.Where(row => row.HoldId != null && holdIds.Contains(row.HoldId.Value) && row.IsWanted)
                .ToListAsync(ct)
        )
            Again(row, isWanted: false, now);
    }

    /// <summary>What was done to it outside is answered: it is written as it is here.</summary>
    public void PutBack(WrittenEvent row)
    {
        (row.Outside, row.OutsideStart, row.OutsideEnd, row.NoticedAt) = (OutsideChange.None, null, null, null);
        // A new event where it was deleted; else over what it was made into.
        if (row.EntityTag is null)
            (row.WrittenStart, row.WrittenEnd) = (null, null);
        Again(row, isWanted: true, clock.GetCurrentInstant());
    }

    /// <summary>It was deleted, and that is well so; the booking stays.</summary>
    public static void LeaveOff(WrittenEvent row)
    {
        (row.Outside, row.NoticedAt, row.IsLeftOff, row.DueAt) = (OutsideChange.None, null, true, null);
        row.Wish++;
    }

    private static void Again(WrittenEvent row, bool isWanted, Instant now)
    {
        // What somebody did to it outside waits for an answer; until then it is left as it is there, but for one that
        // should go.
        if (isWanted && (row.Outside != OutsideChange.None || row.IsLeftOff))
            return;
        row.IsWanted = isWanted;
        row.Wish++;
        row.DueAt = now;
        row.Attempts = 0;
    }

    /// <summary>The calendar to write to, of each host who has one.</summary>
    private async Task<List<(Guid HostId, Guid CalendarId)>> TargetsAsync(
        List<Guid> hostIds,
        IReadOnlyList<CalendarChoice> choices,
        CancellationToken ct
    )
    {
        var usual = await db
            .Hosts.Where(host => hostIds.Contains(host.Id))
            .Select(host => new { host.Id, host.WrittenCalendarId })
            .ToListAsync(ct);
        var chosen = usual
            .Select(host =>
                (
                    host.Id,
                    CalendarId: choices.FirstOrDefault(choice => choice.HostId == host.Id)?.WrittenTo
                        ?? host.WrittenCalendarId
                )
            )
            .Where(pair => pair.CalendarId is not null)
            .Select(pair => (pair.Id, pair.CalendarId!.Value))
            .ToList();
        var ids = chosen.ConvertAll(pair => pair.Value);
        var writable = await db
            .Calendars.Where(calendar =>
                ids.Contains(calendar.Id) && calendar.Kind == CalendarKind.Account && calendar.MayWrite
            )
            .Select(calendar => calendar.Id)
            .ToListAsync(ct);
        return chosen.FindAll(pair => writable.Contains(pair.Value));
    }
}
