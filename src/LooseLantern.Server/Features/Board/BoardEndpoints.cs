using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.Hours;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Server.Features.Board;

public enum BarKind
{
    /// <summary>The host's hours.</summary>
    Hours,

    /// <summary>An event of a calendar that takes the time.</summary>
    Busy,

    /// <summary>An event marked as free.</summary>
    Free,

    /// <summary>A booking.</summary>
    Booked,
}

/// <summary>A bar in a lane: wall-clock minutes of the day in the board's zone, and the whole span it is a part of.</summary>
/// <param name="Source">The calendar, or the page, that says so.</param>
public sealed record BoardBar(
    BarKind Kind, int FromMinute, int ToMinute, Instant Start, Instant End, string Title, string Source, bool WholeDay, bool Tentative);

public sealed record BoardLane(Guid HostId, IReadOnlyList<BoardBar> Bars);

public sealed record BoardDay(LocalDate Date, IReadOnlyList<BoardLane> Lanes);

/// <param name="Calendars">How many calendars are joined; with none, all of the host's hours look free.</param>
public sealed record BoardHost(Guid Id, string Name, string Zone, int Calendars);

/// <param name="Zone">IANA id of the zone that days and minutes are in.</param>
public sealed record BoardAnswer(Instant Now, string Zone, IReadOnlyList<BoardHost> Hosts, IReadOnlyList<BoardDay> Days);

/// <summary>The board: days down, a lane for each host, with hours, calendar events and bookings as bars.</summary>
public sealed class BoardDrawing(LanternDb db, CalendarUnrolling unrolling, IClock clock)
{
    public const int MostDays = 56;
    public const int YearsBehind = 2;
    public const int YearsAhead = 5;

    /// <param name="from">First date in the workspace's zone; null for today.</param>
    /// <param name="hostIds">Whose lanes; empty for all hosts.</param>
    public async Task<BoardAnswer> DrawAsync(LocalDate? from, int days, IReadOnlyCollection<Guid> hostIds, CancellationToken ct)
    {
        var zoneId = await db.Workspaces.Select(workspace => workspace.Zone).SingleAsync(ct);
        var zone = DateTimeZoneProviders.Tzdb[zoneId];
        var now = clock.GetCurrentInstant();
        var today = now.InZone(zone).Date;
        var first = from ?? today;
        if (first < today.PlusYears(-YearsBehind) || first > today.PlusYears(YearsAhead))
            throw Refusal.Invalid("from", $"The board reaches {YearsBehind} years back and {YearsAhead} ahead; choose a date in between.");
        var dates = Enumerable.Range(0, Math.Clamp(days, 1, MostDays)).Select(first.PlusDays).ToList();
        var range = new Span(LocalDays.Start(zone, first), LocalDays.Start(zone, dates[^1].PlusDays(1)));
        var asRange = range.ToRange();

        var hosts = await db.Hosts.AsNoTracking().Include(host => host.Hours)
            .Where(host => hostIds.Count == 0 || hostIds.Contains(host.Id)).OrderBy(host => host.Name).ToListAsync(ct);
        var ids = hosts.ConvertAll(host => host.Id);
        await unrolling.CoverAsync(ids, range, ct);

        var joined = await db.Calendars.Where(calendar => ids.Contains(calendar.HostId))
            .GroupBy(calendar => calendar.HostId).ToDictionaryAsync(group => group.Key, group => group.Count(), ct);
        var entries = await db.CalendarEntries.AsNoTracking().Include(entry => entry.Calendar)
            .Where(entry => ids.Contains(entry.HostId) && entry.Span.Overlaps(asRange)).ToListAsync(ct);
        var bookings = await db.Sessions.AsNoTracking().Include(session => session.Page).Include(session => session.Bookings)
            .Include(session => session.Hosts).AsSplitQuery().Where(session => session.Time.Overlaps(asRange)).ToListAsync(ct);

        var bars = new List<(Guid Host, LocalDate Date, BoardBar Bar)>();
        foreach (var host in hosts)
        {
            var open = host.Hours is { } hours ? OpenStretches.Of(hours.Document.ToCore(), range).Select(stretch => stretch.Time) : [range];
            foreach (var stretch in open) Cut(host.Id, BarKind.Hours, stretch, "", host.Hours?.Name ?? "always open", false, false);
        }

        foreach (var entry in entries)
        {
            Cut(entry.HostId, entry.Free ? BarKind.Free : BarKind.Busy, entry.Span.ToSpan(),
                entry.Title, entry.Calendar!.Name, entry.WholeDay, entry.Tentative);
        }

        foreach (var session in bookings)
        {
            var guests = string.Join(", ", session.Bookings.OrderBy(booking => booking.BookedAt).ThenBy(booking => booking.Id).Select(booking => booking.GuestName));
            foreach (var host in session.Hosts)
                Cut(host.HostId, BarKind.Booked, session.Time.ToSpan(), guests, session.Page!.Title, false, false);
        }

        var byPlace = bars.ToLookup(bar => (bar.Date, bar.Host), bar => bar.Bar);
        return new BoardAnswer(
            now, zoneId,
            hosts.ConvertAll(host => new BoardHost(host.Id, host.Name, host.Zone, joined.GetValueOrDefault(host.Id))),
            dates.ConvertAll(date => new BoardDay(date,
                hosts.ConvertAll(host => new BoardLane(host.Id, [.. byPlace[(date, host.Id)].OrderBy(bar => bar.Kind).ThenBy(bar => bar.FromMinute)])))));

        void Cut(Guid host, BarKind kind, Span span, string title, string source, bool wholeDay, bool tentative)
        {
            var shown = new Span(Instant.Max(span.Start, range.Start), Instant.Min(span.End, range.End));
            foreach (var slice in DaySlices.Of(shown, zone))
            {
                bars.Add((host, slice.Date, new BoardBar(
                    kind, slice.FromMinute, slice.ToMinute, span.Start, span.End, title, source, wholeDay, tentative)));
            }
        }
    }
}

public static class BoardEndpoints
{
    public static void MapBoard(this IEndpointRouteBuilder api) =>
        api.MapGet("/board", async (string? from, int? days, Guid[]? host, BoardDrawing board, CancellationToken ct) =>
            {
                var first = from is null ? null : LocalDatePattern.Iso.Parse(from);
                if (first is { Success: false })
                    throw Refusal.Invalid("from", "Give a date such as 2026-01-31.");
                return await board.DrawAsync(first?.Value, days ?? 14, host ?? [], ct);
            })
            .WithName("getBoard").WithTags("Board").ProducesValidationProblem();
}
