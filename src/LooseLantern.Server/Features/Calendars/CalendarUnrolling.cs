using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using NpgsqlTypes;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>
/// Keeps the occurrences of calendars' events as rows for the run of time that is asked for. A repeating event has no
/// end, so rows are made for a year and more ahead, and further whenever somebody asks past that: time that was not
/// read is never taken for free.
/// </summary>
public sealed class CalendarUnrolling(LanternDb db, IClock clock)
{
    /// <summary>The most events of a calendar that are listed as not read, or not wholly.</summary>
    public const int MostUnread = 200;

    private const int MostFault = 400;

    private const string Unreadable = "an event";

    private static readonly Duration Behind = Duration.FromDays(120);
    private static readonly Duration Ahead = Duration.FromDays(430);
    private static readonly Duration Spare = Duration.FromDays(120);

    public Span UsualRange() => UsualRange(clock.GetCurrentInstant());

    public static Span UsualRange(Instant now) => new(now - Behind, now + Ahead);

    /// <summary>
    /// Asks, in a round trip that the caller makes, whether all calendars of these hosts are read for all of
    /// <paramref name="range"/>.
    /// </summary>
    public static Asked<bool> AskCovered(
        RoundTrip trip,
        Guid workspace,
        IReadOnlyCollection<Guid> hostIds,
        Span range
    ) =>
        trip.Ask(
            $"""
            SELECT NOT EXISTS (
                SELECT 1 FROM calendar_hosts f JOIN calendars c ON c.id = f.calendar_id
                WHERE f.workspace_id = {workspace} AND f.host_id = ANY({hostIds.ToArray()}) AND NOT c.read_range @> {range.ToRange()})
            """,
            row => row.GetBoolean(0)
        );

    /// <summary>
    /// Sees to it that the calendars that count for these hosts are read for all of <paramref name="range"/>.
    /// </summary>
    public async Task CoverAsync(IReadOnlyCollection<Guid> hostIds, Span range, CancellationToken ct)
    {
        var asRange = range.ToRange();
        var tooShort = await db
            .Calendars.Where(row => row.For.Any(host => hostIds.Contains(host.HostId)))
            .Where(row => !row.ReadRange.Contains(asRange))
            .Select(row => row.Id)
            .ToListAsync(ct);

        foreach (var id in tooShort.Order())
        {
            await using var transaction = await db.Database.BeginTransactionAsync(ct);
            if (await LockedAsync(id, ct) is not { } calendar)
                continue;
            var read = calendar.ReadRange.ToSpan();
            if (!read.Contains(range))
            {
                // What lies long behind is left out again, or a calendar would grow for as long as it is joined.
                var start = Instant.Min(
                    Instant.Max(read.Start, clock.GetCurrentInstant() - Behind),
                    range.Start - Spare
                );
                await ExtendAsync(calendar, new Span(start, Instant.Max(read.End, range.End + Spare)), ct);
            }

            await transaction.CommitAsync(ct);
        }
    }

    /// <summary>
    /// Whole days and floating times of a host's calendars are in the host's zone: with another one they are read anew
    /// when somebody next asks.
    /// </summary>
    public Task ForgetAsync(Guid hostId, CancellationToken ct) =>
        db
            .Calendars.Where(calendar => calendar.For.Any(row => row.HostId == hostId))
            .ExecuteUpdateAsync(calendar => calendar.SetProperty(row => row.ReadRange, NpgsqlRange<Instant>.Empty), ct);

    /// <summary>
    /// The calendar with whom it counts for, locked and as it is now; null where it was taken away. The caller has a
    /// transaction open.
    /// </summary>
    public async Task<Calendar?> LockedAsync(Guid id, CancellationToken ct)
    {
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM calendars WHERE id = {id} FOR NO KEY UPDATE", ct);
        var calendar = await db
            .Calendars.Include(row => row.For)
                .ThenInclude(row => row.Host)
            .FirstOrDefaultAsync(row => row.Id == id, ct);
        if (calendar is not null)
            await db.Entry(calendar).ReloadAsync(ct);
        return calendar;
    }

    /// <summary>
    /// Makes all rows anew, for <paramref name="range"/>. The caller has a transaction open, and whom it counts for
    /// loaded.
    /// </summary>
    public async Task UnrollAsync(Calendar calendar, Span range, CancellationToken ct)
    {
        var reading = await ReadAsync(calendar, await ResourcesAsync(calendar, ct), range, 0, ct);
        await StoreAsync(calendar, null, range, reading, ct);
    }

    /// <summary>Makes the rows of some of its resources anew, which are saved already.</summary>
    /// <inheritdoc cref="UnrollAsync"/>
    public async Task UnrollSomeAsync(Calendar calendar, IReadOnlyList<CalendarResource> changed, CancellationToken ct)
    {
        var ids = changed.Select(resource => resource.Id).ToList();
        var others = await db.CalendarEntries.CountAsync(
            entry => entry.CalendarId == calendar.Id && !ids.Contains(entry.ResourceId),
            ct
        );
        var reading = await ReadAsync(calendar, changed, calendar.ReadRange.ToSpan(), others, ct);
        await StoreAsync(calendar, ids, calendar.ReadRange.ToSpan(), reading, ct);
    }

    /// <summary>
    /// Reads further, unless an event goes over what is read of one only that far out: then what was read stays, and
    /// the time past it stays unknown, which is busy.
    /// </summary>
    private async Task ExtendAsync(Calendar calendar, Span range, CancellationToken ct)
    {
        var reading = await ReadAsync(calendar, await ResourcesAsync(calendar, ct), range, 0, ct);
        var listed = await db.Set<UnreadEventRow>().CountAsync(row => row.CalendarId == calendar.Id, ct);
        if (Math.Min(reading.Unread.Count, MostUnread + 1) <= listed)
            await StoreAsync(calendar, null, range, reading, ct);
    }

    private Task<List<CalendarResource>> ResourcesAsync(Calendar calendar, CancellationToken ct) =>
        db
            .CalendarResources.AsNoTracking()
            .Where(row => row.CalendarId == calendar.Id)
            .OrderBy(row => row.Id)
            .ToListAsync(ct);

    private async Task<Reading> ReadAsync(
        Calendar calendar,
        IReadOnlyList<CalendarResource> resources,
        Span range,
        int others,
        CancellationToken ct
    )
    {
        var reading = new Reading([], []);
        var most = Math.Max(0, ReadingBudget.MostEntries - others) / Math.Max(1, calendar.For.Count);
        var budgets = calendar
            .For.Select(row => row.Host!.Zone)
            .Distinct()
            .ToDictionary(zone => zone, _ => new ReadingBudget(ct, most));
        foreach (var resource in resources)
        {
            try
            {
                var file = CalendarFile.Parse(resource.Body);
                // Whole days and times without a zone are each host's own.
                foreach (var sameZone in calendar.For.GroupBy(row => row.Host!.Zone))
                {
                    var read = file.Read(range, DateTimeZoneProviders.Tzdb[sameZone.Key], budgets[sameZone.Key]);
                    foreach (var row in sameZone)
                        reading.Entries.AddRange(read.Entries.Select(entry => (resource.Id, row.HostId, entry)));
                    if (sameZone.Key == calendar.For[0].Host!.Zone)
                        reading.Unread.AddRange(read.Unread.Select(unread => (resource.Id, unread)));
                }
            }
            catch (CalendarFileException e)
            {
                reading.Unread.Add((resource.Id, new UnreadEvent(e.Line ?? 1, Unreadable, e.Message)));
            }
        }

        var ours = await OursAsync(reading.Entries.Select(row => row.Entry.Uid).Distinct(), ct);
        reading.Entries.RemoveAll(row => ours.Contains(row.Entry.Uid));
        return reading;
    }

    /// <summary>
    /// Of these UIDs, those of events that we wrote or sent: what they stand for counts already, as it is known here.
    /// </summary>
    private async Task<HashSet<string>> OursAsync(IEnumerable<string> uids, CancellationToken ct)
    {
        var candidates = uids.Where(uid => Guid.TryParseExact(uid, "D", out _)).ToList();
        if (candidates.Count == 0)
            return [];
        return
        [
            .. await db
                .Sessions.IgnoreQueryFilters([LanternDb.NotCancelled])
                .Where(session => candidates.Contains(session.Uid))
                .Select(session => session.Uid)
                .ToListAsync(ct),
            .. await db
                .WrittenEvents.Where(written => candidates.Contains(written.Uid))
                .Select(written => written.Uid)
                .ToListAsync(ct),
        ];
    }

    /// <param name="resourceIds">The resources that were read; null for all.</param>
    private async Task StoreAsync(
        Calendar calendar,
        List<long>? resourceIds,
        Span range,
        Reading reading,
        CancellationToken ct
    )
    {
        await db
            .CalendarEntries.Where(entry =>
                entry.CalendarId == calendar.Id && (resourceIds == null || resourceIds.Contains(entry.ResourceId))
            )
            .ExecuteDeleteAsync(ct);
        await db.Set<UnreadEventRow>()
            .Where(row =>
                row.CalendarId == calendar.Id && (resourceIds == null || resourceIds.Contains(row.ResourceId))
            )
            .ExecuteDeleteAsync(ct);

        await CopyAsync(calendar, reading.Entries, ct);
        db.Set<UnreadEventRow>().AddRange(UnreadRows(calendar, reading.Unread));
        calendar.ReadRange = range.ToRange();
        await db.SaveChangesAsync(ct);
        // Nobody changes these rows; those that are watched would slow down every save that follows.
        foreach (var entry in db.ChangeTracker.Entries<UnreadEventRow>().ToList())
            entry.State = EntityState.Detached;
    }

    /// <summary>Written in one go (COPY): there can be a hundred thousand of them.</summary>
    private async Task CopyAsync(
        Calendar calendar,
        IReadOnlyCollection<(long ResourceId, Guid HostId, CalendarEntry Entry)> entries,
        CancellationToken ct
    )
    {
        if (entries.Count == 0)
            return;
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();
        await using var writer = await connection.BeginBinaryImportAsync(
            "COPY calendar_entries (workspace_id, calendar_id, resource_id, host_id, span, title, whole_day, free, tentative) FROM STDIN (FORMAT BINARY)",
            ct
        );
        foreach (var (resourceId, hostId, entry) in entries)
        {
            await writer.StartRowAsync(ct);
            await writer.WriteAsync(calendar.WorkspaceId, ct);
            await writer.WriteAsync(calendar.Id, ct);
            await writer.WriteAsync(resourceId, ct);
            await writer.WriteAsync(hostId, ct);
            await writer.WriteAsync(entry.Time.ToRange(), NpgsqlDbType.TimestampTzRange, ct);
            await writer.WriteAsync(entry.Title, ct);
            await writer.WriteAsync(entry.WholeDay, ct);
            await writer.WriteAsync(entry.Free, ct);
            await writer.WriteAsync(entry.Tentative, ct);
        }

        await writer.CompleteAsync(ct);
    }

    private static IEnumerable<UnreadEventRow> UnreadRows(
        Calendar calendar,
        IReadOnlyList<(long ResourceId, UnreadEvent Event)> unread
    )
    {
        foreach (var (resourceId, read) in unread.Take(MostUnread))
            yield return Row(resourceId, read);
        if (unread.Count > MostUnread)
        {
            var more = unread[MostUnread];
            yield return Row(
                more.ResourceId,
                more.Event with
                {
                    Title = $"{unread.Count - MostUnread} more",
                    Fault = "So many can’t be listed one by one.",
                }
            );
        }

        UnreadEventRow Row(long resourceId, UnreadEvent read) =>
            new()
            {
                WorkspaceId = calendar.WorkspaceId,
                CalendarId = calendar.Id,
                ResourceId = resourceId,
                Line = read.Line,
                Title = read.Title,
                Fault = CutText.Kept(read.Fault, MostFault),
                IsPartly = read.IsPartly,
            };
    }

    private sealed record Reading(
        List<(long ResourceId, Guid HostId, CalendarEntry Entry)> Entries,
        List<(long ResourceId, UnreadEvent Event)> Unread
    );
}
