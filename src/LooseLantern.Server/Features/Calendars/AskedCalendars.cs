using System.Linq.Expressions;
using LooseLantern.Core.Calendars;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>Which entries of calendars are in the way of openings; one rule for all who ask.</summary>
public static class AskedCalendars
{
    /// <summary>
    /// Not marked free, and not tentative where that does not count: in the way where its calendar is asked.
    /// </summary>
    public static readonly Expression<Func<CalendarEntryRow, bool>> Counts = entry =>
        !entry.Free && (entry.Calendar!.TentativeCounts || !entry.Tentative);

    /// <summary>Of a calendar that is usually asked.</summary>
    public static readonly Expression<Func<CalendarEntryRow, bool>> IsUsuallyAsked = entry => entry.Calendar!.IsAsked;

    private static readonly Func<CalendarEntryRow, bool> CountsHere = Counts.Compile();

    /// <summary>Whether an entry at hand, with its calendar loaded, is usually in the way.</summary>
    public static bool IsInTheWay(CalendarEntryRow entry) => entry.Calendar!.IsAsked && CountsHere(entry);

    /// <summary>Whether a page asks a calendar for a host: as it chose for them, else as usual.</summary>
    public static bool IsAsked(IReadOnlyList<CalendarChoice> choices, Guid hostId, Guid calendarId, bool usually) =>
        choices.FirstOrDefault(choice => choice.HostId == hostId)?.Asked is { } asked
            ? asked.Contains(calendarId)
            : usually;

    /// <summary>
    /// How fresh is what is known of a calendar; null for files and what is kept here, which are never out of reach.
    /// </summary>
    public static Freshness? FreshnessOf(Calendar calendar) =>
        FreshnessOf(calendar.Kind, calendar.LookedAt, calendar.UnreachableSince, calendar.RefreshSeconds);

    /// <inheritdoc cref="FreshnessOf(Calendar)"/>
    public static Freshness? FreshnessOf(
        CalendarKind kind,
        Instant lookedAt,
        Instant? unreachableSince,
        int? refreshSeconds
    ) =>
        kind is CalendarKind.Account or CalendarKind.Address
            ? new Freshness(lookedAt, unreachableSince, Duration.FromSeconds(refreshSeconds ?? 0))
            : null;

    /// <summary>For how long the last known state of a calendar counts, as the workspace chose.</summary>
    public static async Task<Duration> CountsForAsync(LanternDb db, CancellationToken ct) =>
        Duration.FromHours(await db.Workspaces.Select(workspace => workspace.ClosesAfterHours).SingleAsync(ct));

    /// <summary>
    /// The calendars that are usually asked for these hosts and of which too little is known to go by: all of their
    /// time is closed.
    /// </summary>
    public static async Task<List<(Guid HostId, string Calendar)>> TooOldAsync(
        LanternDb db,
        IReadOnlyCollection<Guid> hostIds,
        Instant now,
        CancellationToken ct
    )
    {
        var counts = await CountsForAsync(db, ct);
        var rows = await db
            .CalendarHosts.AsNoTracking()
            .Where(row => hostIds.Contains(row.HostId))
            .Join(
                db.Calendars.Where(calendar => calendar.IsAsked),
                row => row.CalendarId,
                calendar => calendar.Id,
                (row, calendar) => new { row.HostId, Calendar = calendar }
            )
            .ToListAsync(ct);
        return
        [
            .. rows.Where(row => FreshnessOf(row.Calendar)?.IsTooOld(counts, now) == true)
                .Select(row => (row.HostId, row.Calendar.Name)),
        ];
    }
}
