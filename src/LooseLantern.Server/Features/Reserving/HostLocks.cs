using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Links;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Locks hosts within the caller's transaction, in order of id, after the page or link that hangs on them. What was
/// held too long is taken away first: it counts as gone already, and must not be in the way of what is written.
/// </summary>
public sealed class HostLocks(LanternDb db, EventWishes wishes, IClock clock)
{
    public async Task TakeAsync(IEnumerable<Guid> hosts, CancellationToken ct)
    {
        var ids = hosts.Distinct().Order().ToArray();
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM hosts WHERE id = ANY({ids}) ORDER BY id FOR UPDATE", ct);
        var now = clock.GetCurrentInstant();
        await LinkWatching.LookSoonAsync(db, ids, now, ct);
        var runOut = await db
            .Commitments.Where(row => ids.Contains(row.HostId) && row.HeldUntil <= now)
            .Select(row => row.Id)
            .ToListAsync(ct);
        if (runOut.Count == 0)
            return;
        await wishes.ReleasedAsync(runOut, ct);
        // Now, whatever of what is tracked the caller drops afterwards.
        await db.SaveChangesAsync(ct);
        await db.Commitments.Where(row => runOut.Contains(row.Id)).ExecuteDeleteAsync(ct);
    }
}
