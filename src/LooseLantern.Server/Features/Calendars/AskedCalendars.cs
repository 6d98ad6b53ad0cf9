using System.Linq.Expressions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>Which entries of calendars are in the way of openings; one rule for all who ask.</summary>
public static class AskedCalendars
{
    /// <summary>Not marked free, of a calendar that is usually asked, and not tentative where that does not count.</summary>
    public static readonly Expression<Func<CalendarEntryRow, bool>> TakesTime =
        entry => !entry.Free && entry.Calendar!.IsAsked && (entry.Calendar.TentativeCounts || !entry.Tentative);

    private static readonly Func<CalendarEntryRow, bool> TakesTimeHere = TakesTime.Compile();

    /// <summary>The same of an entry at hand, with its calendar loaded.</summary>
    public static bool IsInTheWay(CalendarEntryRow entry) => TakesTimeHere(entry);

    /// <summary>Whether a page asks a calendar for a host: as it chose for them, else as usual.</summary>
    public static bool IsAsked(IReadOnlyList<CalendarChoice> choices, Guid hostId, Guid calendarId, bool usually) =>
        choices.FirstOrDefault(choice => choice.HostId == hostId)?.Asked is { } asked ? asked.Contains(calendarId) : usually;

    /// <summary>The calendars that are usually asked for these hosts and of which too little is known to go by: all of their time is closed.</summary>
    public static async Task<List<(Guid HostId, string Calendar)>> TooOldAsync(LanternDb db, IReadOnlyCollection<Guid> hostIds, Instant now, CancellationToken ct)
    {
        var closesAfter = await db.Workspaces.Select(workspace => workspace.ClosesAfterHours).SingleAsync(ct);
        var rows = await db.CalendarHosts.AsNoTracking().Where(row => hostIds.Contains(row.HostId))
            .Join(db.Calendars.Where(calendar => calendar.IsAsked), row => row.CalendarId, calendar => calendar.Id, (row, calendar) =>
                new { row.HostId, calendar.Name, Freshness = new Freshness(calendar.Kind, calendar.UnreachableSince, calendar.LookedAt, calendar.RefreshSeconds) })
            .ToListAsync(ct);
        return [.. rows.Where(row => row.Freshness.IsTooOld(closesAfter, now)).Select(row => (row.HostId, row.Name))];
    }
}

/// <summary>How fresh is what is known of a calendar. Files and what is kept here are never out of reach.</summary>
/// <param name="LookedAt">When it was last looked at with success.</param>
/// <param name="RefreshSeconds">How long its publisher asks to wait between looks.</param>
public readonly record struct Freshness(CalendarKind Kind, Instant? UnreachableSince, Instant LookedAt, int? RefreshSeconds)
{
    private bool IsOutside => Kind is CalendarKind.Account or CalendarKind.Address;

    /// <summary>From when the openings of its hosts are closed, unless it can be reached before; null for one that can be.</summary>
    public Instant? ClosesAt(int closesAfterHours) => IsOutside && UnreachableSince is not null ? LookedAt + Duration.FromHours(closesAfterHours) : null;

    /// <summary>Whether its last known state no longer counts: it could not be reached for so long, or nobody tried that long after they should have.</summary>
    public bool IsTooOld(int closesAfterHours, Instant now) =>
        IsOutside && LookedAt + Duration.FromHours(closesAfterHours) + Duration.FromSeconds(UnreachableSince is null ? RefreshSeconds ?? 0 : 0) <= now;
}
