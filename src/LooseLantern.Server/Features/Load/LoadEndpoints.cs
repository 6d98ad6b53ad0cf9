using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Server.Features.Load;

/// <param name="Monday">First date of the week.</param>
/// <param name="Sessions">How many start in it, by the host's own zone.</param>
/// <param name="Minutes">How long they are together.</param>
/// <param name="Away">Dates of the week on which the host is away: a day of the week's open ones that a dated change
/// closes, or a whole day that a calendar takes.</param>
public sealed record LoadWeek(LocalDate Monday, int Sessions, int Minutes, int Away);

/// <param name="Share">The part of all weights that is this host's, 0 to 1.</param>
public sealed record HostLoadView(
    Guid HostId,
    HostKind Kind,
    string Name,
    int Weight,
    double Share,
    int? DailyCap,
    int? WeeklyCap,
    int Sessions,
    int Minutes,
    int Away,
    IReadOnlyList<LoadWeek> Weeks
);

/// <param name="Total">How many hosts there are, of whom Hosts is one run, by name.</param>
/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record LoadAnswer(
    LocalDate From,
    LocalDate To,
    int Total,
    IReadOnlyList<HostLoadView> Hosts,
    string? Before,
    string? After
);

/// <summary>How much each host is booked, week by week.</summary>
public sealed class LoadReckoning(LanternDb db, Tenant tenant, IClock clock)
{
    public const int MostWeeks = 26;

    /// <param name="from">Any date of the first week; null for the week before this one.</param>
    public async Task<LoadAnswer> ReckonAsync(LocalDate? from, int weeks, ListPlace place, CancellationToken ct)
    {
        if (weeks is < 1 or > MostWeeks)
            throw Refusal.Invalid("weeks", Phrase.Of("weeks-asked", ("most", MostWeeks)));
        var zone = DateTimeZoneProviders.Tzdb[await db.Workspaces.Select(workspace => workspace.Zone).SingleAsync(ct)];
        var today = clock.GetCurrentInstant().InZone(zone).Date;
        var first = (from ?? today.PlusWeeks(-1)).With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        if (first < today.PlusYears(-5) || first > today.PlusYears(5))
            throw Refusal.Invalid("from", "date-in-five-years");
        var last = first.PlusDays(weeks * 7 - 1);
        var range = new Span(
            LocalDays.Start(zone, first) - Duration.FromDays(1),
            LocalDays.Start(zone, last.PlusDays(1)) + Duration.FromDays(1)
        ).ToRange();

        const string all = "hosts h WHERE h.workspace_id = @workspace AND h.retired_at IS NULL";
        var run = await ListRuns.ReadAsync(
            db,
            [new(all, "h.name", "h.id", Kind: ListKeyKind.Text)],
            all,
            new Dictionary<string, object> { ["workspace"] = tenant.WorkspaceId!.Value },
            place,
            ct
        );
        var found = await db
            .Hosts.AsNoTracking()
            .Include(host => host.Hours)
            .Where(host => run.Ids.Contains(host.Id))
            .ToDictionaryAsync(host => host.Id, ct);
        var hosts = run.Ids.Where(found.ContainsKey).Select(id => found[id]).ToList();
        // By what each host's time is committed to, which is found by host and time.
        var sessions = (
            await db
                .Commitments.AsNoTracking()
                .Where(row =>
                    row.Kind == CommitmentKind.Booking && run.Ids.Contains(row.HostId) && row.Span.Overlaps(range)
                )
                .Select(row => new { row.HostId, row.Span })
                .ToListAsync(ct)
        ).ToLookup(row => row.HostId, row => row.Span.ToSpan());
        var wholeDays = (
            await db
                .CalendarEntries.AsNoTracking()
                .Where(entry => entry.WholeDay && run.Ids.Contains(entry.HostId) && entry.Span.Overlaps(range))
                .Where(AskedCalendars.IsUsuallyAsked)
                .Where(AskedCalendars.Counts)
                .Select(entry => new { entry.HostId, entry.Span })
                .ToListAsync(ct)
        ).ToLookup(row => row.HostId, row => row.Span.ToSpan());
        var weights = await db
            .Hosts.Where(host => host.RetiredAt == null && host.Kind == HostKind.Person)
            .SumAsync(host => host.Weight, ct);

        return new LoadAnswer(
            first,
            last,
            run.Total,
            hosts.ConvertAll(host =>
            {
                var own = DateTimeZoneProviders.Tzdb[host.Zone];
                var starts = sessions[host.Id]
                    .Select(time => (Date: time.Start.InZone(own).Date, Minutes: (int)time.Length.TotalMinutes))
                    .ToList();
                var away = AwayDates(host, own, [.. wholeDays[host.Id]], first, last);
                var perWeek = Enumerable
                    .Range(0, weeks)
                    .Select(week => first.PlusWeeks(week))
                    .Select(monday =>
                    {
                        var within = starts.Where(row => row.Date >= monday && row.Date < monday.PlusWeeks(1)).ToList();
                        return new LoadWeek(
                            monday,
                            within.Count,
                            within.Sum(row => row.Minutes),
                            away.Count(date => date >= monday && date < monday.PlusWeeks(1))
                        );
                    })
                    .ToList();
                return new HostLoadView(
                    host.Id,
                    host.Kind,
                    host.Name,
                    host.Weight,
                    host.Kind == HostKind.Person ? (double)host.Weight / weights : 0,
                    host.DailyCap,
                    host.WeeklyCap,
                    perWeek.Sum(week => week.Sessions),
                    perWeek.Sum(week => week.Minutes),
                    perWeek.Sum(week => week.Away),
                    perWeek
                );
            }),
            run.Before,
            run.After
        );
    }

    private static List<LocalDate> AwayDates(
        Host host,
        DateTimeZone zone,
        IReadOnlyList<Span> wholeDays,
        LocalDate first,
        LocalDate last
    )
    {
        var hours = host.Hours?.Document.ToCore();
        var away = new List<LocalDate>();
        for (var date = first; date <= last; date = date.PlusDays(1))
        {
            var noon = date.At(LocalTime.Noon).InZoneLeniently(zone).ToInstant();
            var isUsuallyOpen = hours is null || hours.OpenOn(date).Count > 0;
            if (hours?.ClosedByChange(date).Count > 0 || (isUsuallyOpen && wholeDays.Any(day => day.Contains(noon))))
                away.Add(date);
        }

        return away;
    }
}

public static class LoadEndpoints
{
    public static void MapLoad(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/load",
                async (
                    string? from,
                    int? weeks,
                    string? after,
                    string? before,
                    int? take,
                    LoadReckoning load,
                    CancellationToken ct
                ) =>
                {
                    var first = from is null ? null : LocalDatePattern.Iso.Parse(from);
                    if (first is { Success: false })
                        throw Refusal.Invalid("from", "iso-date");
                    return await load.ReckonAsync(first?.Value, weeks ?? 6, ListPlace.Of(after, before, take), ct);
                }
            )
            .WithName("getLoad")
            .WithTags("Team")
            .ProducesValidationProblem();
}
