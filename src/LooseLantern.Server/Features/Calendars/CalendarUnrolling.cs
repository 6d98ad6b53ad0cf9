using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

public sealed class CalendarTooLargeException(string message) : Exception(message);

/// <summary>
/// Keeps the occurrences of calendars' events as rows for the run of time that is asked for. A repeating event has no end, so rows are
/// made for a year and more ahead, and further whenever somebody asks past that: time that was not read is never taken for free.
/// </summary>
public sealed class CalendarUnrolling(LanternDb db, IClock clock)
{
    public const int MostEntries = 100_000;

    private static readonly Duration Behind = Duration.FromDays(120);
    private static readonly Duration Ahead = Duration.FromDays(430);
    private static readonly Duration Spare = Duration.FromDays(120);

    public Span UsualRange()
    {
        var now = clock.GetCurrentInstant();
        return new Span(now - Behind, now + Ahead);
    }

    /// <summary>Sees to it that the calendars of these hosts are read for all of <paramref name="range"/>.</summary>
    public async Task CoverAsync(IReadOnlyCollection<Guid> hostIds, Span range, CancellationToken ct)
    {
        var asRange = range.ToRange();
        var tooShort = await db.Calendars
            .Where(row => hostIds.Contains(row.HostId))
            .Where(row => !row.ReadRange.Contains(asRange))
            .Select(row => row.Id)
            .ToListAsync(ct);

        foreach (var id in tooShort.Order())
        {
            await using var transaction = await db.Database.BeginTransactionAsync(ct);
            await db.Database.ExecuteSqlAsync($"SELECT 1 FROM calendars WHERE id = {id} FOR UPDATE", ct);
            var calendar = await db.Calendars.FirstOrDefaultAsync(row => row.Id == id, ct);
            if (calendar is null) continue;
            await db.Entry(calendar).ReloadAsync(ct);

            var read = calendar.ReadRange.ToSpan();
            if (!read.Contains(range))
            {
                // What lies long behind is left out again, or a calendar would grow for as long as it is joined.
                var start = Instant.Min(Instant.Max(read.Start, clock.GetCurrentInstant() - Behind), range.Start - Spare);
                await ExtendAsync(calendar, new Span(start, Instant.Max(read.End, range.End + Spare)), ct);
            }

            await transaction.CommitAsync(ct);
        }
    }

    /// <summary>
    /// Reads further, unless that comes to more than is kept: then what was read stays, and the time past it stays unknown, which is busy.
    /// </summary>
    private async Task ExtendAsync(Calendar calendar, Span range, CancellationToken ct)
    {
        var reading = await ReadAsync(calendar, range, ct);
        var unreadBefore = await db.Set<UnreadEventRow>().CountAsync(row => row.CalendarId == calendar.Id, ct);
        if (reading.Entries.Count <= MostEntries && reading.Unread.Count <= unreadBefore) await StoreAsync(calendar, range, reading, ct);
    }

    private async Task<CalendarReading> ReadAsync(Calendar calendar, Span range, CancellationToken ct)
    {
        var zone = await db.Hosts.Where(host => host.Id == calendar.HostId).Select(host => host.Zone).SingleAsync(ct);
        return CalendarFile.Parse(calendar.Source).Read(range, DateTimeZoneProviders.Tzdb[zone]);
    }

    /// <summary>Makes the rows of <paramref name="range"/> anew. The caller has a transaction open.</summary>
    /// <exception cref="CalendarTooLargeException">When there are more occurrences than are kept of one calendar.</exception>
    public async Task UnrollAsync(Calendar calendar, Span range, CancellationToken ct)
    {
        var reading = await ReadAsync(calendar, range, ct);
        if (reading.Entries.Count > MostEntries)
        {
            throw new CalendarTooLargeException(
                $"The file has {reading.Entries.Count} occurrences within two years; up to {MostEntries} are kept. Leave out what repeats so often.");
        }

        await StoreAsync(calendar, range, reading, ct);
    }

    private async Task StoreAsync(Calendar calendar, Span range, CalendarReading reading, CancellationToken ct)
    {
        await db.CalendarEntries.Where(entry => entry.CalendarId == calendar.Id).ExecuteDeleteAsync(ct);
        await db.Set<UnreadEventRow>().Where(row => row.CalendarId == calendar.Id).ExecuteDeleteAsync(ct);

        db.CalendarEntries.AddRange(reading.Entries.Select(entry => new CalendarEntryRow
        {
            WorkspaceId = calendar.WorkspaceId,
            CalendarId = calendar.Id,
            HostId = calendar.HostId,
            Span = entry.Time.ToRange(),
            Title = Shorten(entry.Title, 200),
            WholeDay = entry.WholeDay,
            Free = entry.Free,
            Tentative = entry.Tentative,
        }));
        db.Set<UnreadEventRow>().AddRange(reading.Unread.Select(unread => new UnreadEventRow
        {
            WorkspaceId = calendar.WorkspaceId,
            CalendarId = calendar.Id,
            Line = unread.Line,
            Title = Shorten(unread.Title, 200),
            Fault = Shorten(unread.Fault, 400),
        }));
        calendar.ReadRange = range.ToRange();
        await db.SaveChangesAsync(ct);
        // Nobody changes these rows; thousands of them that are watched would slow down every save that follows.
        foreach (var entry in db.ChangeTracker.Entries<CalendarEntryRow>().ToList()) entry.State = EntityState.Detached;
    }

    private static string Shorten(string text, int most) => text.Length <= most ? text : text[..(most - 1)] + "…";
}
