using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Who cancelled reads the time that was theirs, wherever the others of the session go from there.
/// </summary>
internal static class LeftBehind
{
    /// <summary>
    /// Gives the cancelled bookings of a session that is about to be moved a cancelled one of their own, as it was.
    /// </summary>
    /// <param name="session">With its hosts, not changed yet.</param>
    public static async Task KeepAsync(LanternDb db, Session session, CancellationToken ct)
    {
        var cancelled = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .Where(row => row.SessionId == session.Id && row.CancelledAt != null)
            .ToListAsync(ct);
        if (cancelled.Count == 0)
            return;
        var id = Guid.CreateVersion7();
        var left = new Session
        {
            Id = id,
            WorkspaceId = session.WorkspaceId,
            PageId = session.PageId,
            Time = session.Time,
            Uid = id.ToString(),
            CancelledAt = cancelled.Max(row => row.CancelledAt),
        };
        left.Hosts.AddRange(
            session.Hosts.Select(host => new SessionHost
            {
                WorkspaceId = host.WorkspaceId,
                SessionId = id,
                HostId = host.HostId,
                Seat = host.Seat,
                AssignedAt = host.AssignedAt,
            })
        );
        db.Sessions.Add(left);
        foreach (var booking in cancelled)
            booking.SessionId = id;
    }
}
