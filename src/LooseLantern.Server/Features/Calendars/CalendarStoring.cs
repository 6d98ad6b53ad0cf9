using LooseLantern.Server.CalDav;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>
/// Puts what was read of a calendar in the place of what was known, and sees what was done to events of ours. Within
/// the caller's transaction.
/// </summary>
public sealed class CalendarStoring(LanternDb db, CalendarUnrolling unrolling, OutsideNoticing noticing, IClock clock)
{
    /// <param name="calendar">Locked, as <see cref="CalendarUnrolling.LockedAsync"/> gives it.</param>
    /// <param name="objects">Those that are new or may have changed.</param>
    /// <param name="gone">Paths of those that are there no more.</param>
    /// <returns>Whether anything came out different.</returns>
    public async Task<bool> StoreAsync(
        Calendar calendar,
        IReadOnlyList<DavObject> objects,
        IReadOnlyList<string> gone,
        CancellationToken ct
    )
    {
        var paths = objects.Select(each => each.Path).ToList();
        var known = await db
            .CalendarResources.Where(row => row.CalendarId == calendar.Id && paths.Contains(row.Path))
            .ToDictionaryAsync(row => row.Path, ct);
        var changed = new List<CalendarResource>();
        foreach (var each in objects)
        {
            if (!known.TryGetValue(each.Path, out var resource))
            {
                resource = new CalendarResource
                {
                    WorkspaceId = calendar.WorkspaceId,
                    CalendarId = calendar.Id,
                    Path = each.Path,
                    Body = each.Body,
                    EntityTag = each.EntityTag,
                };
                db.CalendarResources.Add(resource);
                changed.Add(resource);
                continue;
            }

            resource.EntityTag = each.EntityTag;
            if (resource.Body.AsSpan().SequenceEqual(each.Body))
                continue;
            resource.Body = each.Body;
            changed.Add(resource);
        }

        await db.SaveChangesAsync(ct);
        await noticing.NoticeAsync(calendar, changed, gone, ct);
        if (gone.Count > 0)
            await db
                .CalendarResources.Where(row => row.CalendarId == calendar.Id && gone.Contains(row.Path))
                .ExecuteDeleteAsync(ct);
        if (changed.Count > 0)
            await unrolling.UnrollSomeAsync(calendar, changed, ct);
        // Texts can be large; they are not watched any longer than they are needed.
        foreach (var entry in db.ChangeTracker.Entries<CalendarResource>().ToList())
            entry.State = EntityState.Detached;

        var isDifferent = changed.Count > 0 || gone.Count > 0;
        if (isDifferent)
            calendar.LoadedAt = clock.GetCurrentInstant();
        return isDifferent;
    }
}
