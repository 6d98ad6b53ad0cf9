using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>An event of a calendar that could not be read, or not all of it.</summary>
/// <param name="IsPartly">Whether what was found of it counts.</param>
public sealed record UnreadView(int Line, string Title, string Fault, bool IsPartly);

/// <param name="HostId">Whose it is; null for one of the whole team.</param>
/// <param name="HostName">Empty for one of the whole team.</param>
/// <param name="For">The hosts it counts for.</param>
/// <param name="Source">The file's name, or the server's; empty for the calendar that is kept here.</param>
/// <param name="LoadedAt">When what it says last came anew.</param>
/// <param name="LookedAt">When it was last looked at with success.</param>
/// <param name="Entries">How many occurrences are known of it, each counted once a host.</param>
/// <param name="IsWrittenTo">Whether its host's new bookings are written to it.</param>
/// <param name="RefreshSeconds">How long its publisher asks to wait between looks.</param>
/// <param name="UnreachableSince">Since when it can't be read; null while it can.</param>
/// <param name="Fault">What stands in the way, in words.</param>
/// <param name="ClosesAt">When its hosts' openings close unless it can be reached before.</param>
/// <param name="Unwritten">How many events are still to be written to it, or deleted there.</param>
/// <param name="WriteFault">What stands in the way of that.</param>
public sealed record CalendarView(
    Guid Id,
    CalendarKind Kind,
    Guid? HostId,
    string HostName,
    IReadOnlyList<Guid> For,
    string Name,
    bool IsAsked,
    bool TentativeCounts,
    string Source,
    Instant LoadedAt,
    Instant LookedAt,
    int Entries,
    bool MayWrite,
    bool IsWrittenTo,
    int? RefreshSeconds,
    Instant? UnreachableSince,
    string? Fault,
    Instant? ClosesAt,
    int Unwritten,
    string? WriteFault,
    IReadOnlyList<UnreadView> Unread
);

/// <summary>Joined calendars as they are shown.</summary>
public sealed class CalendarViews(LanternDb db, Allowances allowances)
{
    private const string Untitled = "an event";
    private const string NotRead = "It can't be read; its host sees why.";

    /// <param name="only">One of them; null for all.</param>
    public async Task<List<CalendarView>> ListAsync(Guid? only, CancellationToken ct)
    {
        // What an event is called is for those who may read it, also where it could not be read in.
        var titled = await allowances.HostsAsync(Allowance.SeeTitles, ct);
        var counts = await AskedCalendars.CountsForAsync(db, ct);
        var rows = await db
            .Calendars.AsNoTracking()
            .Where(row => (only == null || row.Id == only) && (row.Host == null || row.Host.RetiredAt == null))
            .OrderBy(row => row.HostId == null)
            .ThenBy(row => row.Host!.Name)
            .ThenBy(row => row.Kind == CalendarKind.BuiltIn)
            .ThenBy(row => row.Name)
            .ThenBy(row => row.Id)
            .Select(row => new
            {
                Calendar = row,
                row.Id,
                row.Kind,
                row.HostId,
                HostName = row.Host == null ? "" : row.Host.Name,
                For = row.For.Select(host => host.HostId).ToList(),
                row.Name,
                row.IsAsked,
                row.TentativeCounts,
                row.Source,
                row.LoadedAt,
                row.LookedAt,
                Entries = db.CalendarEntries.Count(entry => entry.CalendarId == row.Id),
                row.MayWrite,
                WrittenTo = row.Host == null ? null : row.Host.WrittenCalendarId,
                row.RefreshSeconds,
                row.UnreachableSince,
                row.Fault,
                Unwritten = db.WrittenEvents.Count(written => written.CalendarId == row.Id && written.DueAt != null),
                WriteFault = db
                    .WrittenEvents.Where(written =>
                        written.CalendarId == row.Id && written.DueAt != null && written.Fault != null
                    )
                    .Select(written => written.Fault)
                    .FirstOrDefault(),
                Unread = row
                    .Unread.OrderBy(unread => unread.Line)
                    .Select(unread => new UnreadView(unread.Line, unread.Title, unread.Fault, unread.IsPartly))
                    .ToList(),
            })
            .AsSplitQuery()
            .ToListAsync(ct);
        return rows.ConvertAll(row => new CalendarView(
            row.Id,
            row.Kind,
            row.HostId,
            row.HostName,
            row.For,
            row.Name,
            row.IsAsked,
            row.TentativeCounts,
            row.Source,
            row.LoadedAt,
            row.LookedAt,
            row.Entries,
            row.MayWrite,
            row.Kind == CalendarKind.BuiltIn ? row.WrittenTo is null : row.WrittenTo == row.Id,
            row.RefreshSeconds,
            row.UnreachableSince,
            row.Fault,
            AskedCalendars.FreshnessOf(row.Calendar)?.ClosesAt(counts),
            row.Unwritten,
            row.WriteFault,
            row.For.All(titled.Contains)
                ? row.Unread
                : [.. row.Unread.Select(unread => new UnreadView(unread.Line, Untitled, NotRead, unread.IsPartly))]
        ));
    }

    public async Task<CalendarView> OneAsync(Guid id, CancellationToken ct) => (await ListAsync(id, ct))[0];
}
