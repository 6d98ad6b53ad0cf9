using LooseLantern.Core.Hours;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Hours;

/// <summary>What a change does to the openings of one page.</summary>
/// <param name="Before">Openings of the preset duration in the next four weeks, as things are.</param>
/// <param name="Gained">Starts that become openings.</param>
/// <param name="Lost">Starts that are openings no longer.</param>
public sealed record PageEffect(
    Guid PageId,
    string Title,
    PageState State,
    int Before,
    int After,
    int Gained,
    int Lost
);

/// <summary>What other hours would do to the pages of those who have them, reckoned by computing both.</summary>
public sealed class HoursEffects(LanternDb db, Tenant tenant, PageEditing pages, OpeningsInputs inputs)
{
    public const int Days = 28;

    /// <summary>
    /// The titles of the pages on which the hours of each of these named sets count, by the set's id.
    /// </summary>
    public async Task<ILookup<Guid, string>> TitlesOfAsync(IReadOnlyCollection<Guid> hoursIds, CancellationToken ct)
    {
        // No more of pages is read: a set may count on hundreds. As PagesOf has it, for all sets at once.
        var trip = new RoundTrip(db);
        var rows = trip.Ask(
            """
            WITH own AS MATERIALIZED (
                SELECT id, title, hours_id, hours_mode FROM pages WHERE workspace_id = @workspace AND offer IS NULL)
            SELECT seated.hours_id, p.title, p.id FROM own p CROSS JOIN LATERAL (
                -- Page by page: hosts have far more seats on links.
                SELECT DISTINCT h.hours_id FROM seats s JOIN seat_hosts sh ON sh.seat_id = s.id JOIN hosts h ON h.id = sh.host_id
                WHERE s.page_id = p.id AND h.hours_id = ANY(@hours)) AS seated
            WHERE p.hours_mode <> 'Page'
            UNION SELECT hours_id, title, id FROM own WHERE hours_id = ANY(@hours) AND hours_mode <> 'Hosts'
            ORDER BY title, id
            """,
            new Dictionary<string, object>
            {
                ["workspace"] = tenant.WorkspaceId!.Value,
                ["hours"] = hoursIds.ToArray(),
            },
            row => (Hours: row.GetGuid(0), Title: row.GetString(1))
        );
        await trip.RunAsync(ct);
        return rows.Rows.ToLookup(row => row.Hours, row => row.Title);
    }

    /// <summary>The pages on which the hours of a named set count, by title.</summary>
    private IQueryable<Page> PagesOf(Guid hoursId) =>
        pages
            .OfDesks()
            .AsNoTracking()
            .Where(page =>
                (
                    page.HoursMode != HoursMode.Page
                    && page.Seats.Any(seat => seat.Hosts.Any(host => host.Host!.HoursId == hoursId))
                ) || (page.HoursMode != HoursMode.Hosts && page.HoursId == hoursId)
            )
            .OrderBy(page => page.Title);

    /// <summary>What each page of these hours would gain and lose by <paramref name="changed"/>.</summary>
    public async Task<List<PageEffect>> OfAsync(Guid hoursId, HoursDocument changed, CancellationToken ct)
    {
        var hosts = (
            await db
                .Hosts.Where(host => host.HoursId == hoursId && host.RetiredAt == null)
                .Select(host => host.Id)
                .ToListAsync(ct)
        )
            .Select(OpeningsInputs.Id)
            .ToHashSet();
        return await CompareAsync(await PagesOf(hoursId).ToListAsync(ct), hosts, changed.ToCore(), ct, hoursId);
    }

    /// <summary>What each page of a host would gain and lose if they had other hours; null for always open.</summary>
    public async Task<List<PageEffect>> OfHostAsync(Guid hostId, HoursDocument? other, CancellationToken ct)
    {
        var onPages = await pages
            .OfDesks()
            .AsNoTracking()
            .Where(page =>
                page.HoursMode != HoursMode.Page
                && page.Seats.Any(seat => seat.Hosts.Any(host => host.HostId == hostId))
            )
            .OrderBy(page => page.Title)
            .ToListAsync(ct);
        return await CompareAsync(onPages, [OpeningsInputs.Id(hostId)], other?.ToCore(), ct);
    }

    private async Task<List<PageEffect>> CompareAsync(
        List<Page> changing,
        HashSet<string> hosts,
        HoursSet? hours,
        CancellationToken ct,
        Guid? followed = null
    )
    {
        var effects = new List<PageEffect>();
        foreach (var page in changing)
        {
            var rules = inputs.Rules(page);
            var today = inputs.Today(rules);
            var input = await inputs.InputAsync(rules, today, today.PlusDays(Days - 1), page.Durations[0], ct);
            var before = Starts(input);
            var after = Starts(
                input is null
                    ? null
                    : input with
                    {
                        Page =
                            followed is not null && page.HoursId == followed
                                ? input.Page with
                                {
                                    Hours = hours,
                                }
                                : input.Page,
                        Hosts =
                        [
                            .. input.Hosts.Select(host => hosts.Contains(host.Id) ? host with { Hours = hours } : host),
                        ],
                    }
            );
            effects.Add(
                new PageEffect(
                    page.Id,
                    page.Title,
                    page.State,
                    before.Count,
                    after.Count,
                    after.Count(start => !before.Contains(start)),
                    before.Count(start => !after.Contains(start))
                )
            );
        }

        return effects;
    }

    private static HashSet<Instant> Starts(OpeningsInput? input) =>
        input is null ? [] : [.. OpeningsComputation.Openings(input).Select(opening => opening.Start)];
}
