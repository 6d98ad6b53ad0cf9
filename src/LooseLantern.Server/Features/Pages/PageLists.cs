using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Pages;

/// <summary>A page in a list, as its editor has it: with what is not published yet.</summary>
/// <param name="Path">Where guests find it, from the root of the site.</param>
/// <param name="Name">What the team calls it; empty where it goes by its title.</param>
/// <param name="Kind">Which of the workspace's sorts of appointments it is; empty for none.</param>
/// <param name="Seats">The names of each seat's hosts.</param>
/// <param name="Durations">In minutes.</param>
/// <param name="HasDraft">Whether something of it waits to be published.</param>
public sealed record PageRow(
    Guid Id,
    PageState State,
    string Path,
    string Title,
    string Name,
    string Kind,
    Guid DeskId,
    IReadOnlyList<IReadOnlyList<string>> Seats,
    IReadOnlyList<int> Durations,
    bool HasDraft
);

/// <param name="Total">How many there are in all, of which Rows is one run; 10,001 stands for more.</param>
/// <param name="Kinds">The sorts that any page is of.</param>
/// <param name="Archived">How many are archived.</param>
/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record PageList(
    int Total,
    IReadOnlyList<PageRow> Rows,
    IReadOnlyList<string> Kinds,
    int Archived,
    string? Before,
    string? After
);

/// <summary>What a page is called, to choose among many.</summary>
public sealed record PageName(Guid Id, PageState State, string Path, string Title);

/// <summary>On which pages with office hours a host has a seat.</summary>
/// <param name="DeskId">The desk of a page that the host has a seat on; null where there is none.</param>
public sealed record HostPages(Guid? DeskId, IReadOnlyList<PageName> WithBlocks);

/// <summary>Lists of pages, by desk and title.</summary>
public sealed class PageLists(LanternDb db, Tenant tenant, PageEditing pages)
{
    private const string KindOf = "coalesce(p.draft->'details', p.details)->'naming'->>'kind'";

    /// <param name="kind">Of this sort; null or empty for all.</param>
    /// <param name="search">In titles, and in what the team calls them; null or blank for all.</param>
    /// <exception cref="Refusal">400 for a place that was never told of.</exception>
    public async Task<PageList> ReadAsync(
        bool archived,
        string? kind,
        string? search,
        ListPlace place,
        CancellationToken ct
    )
    {
        var all =
            $"pages p JOIN desks d ON d.id = p.desk_id WHERE p.workspace_id = @workspace AND p.offer IS NULL AND p.state {(archived ? "=" : "<>")} 'Archived'";
        if (!string.IsNullOrEmpty(kind))
            all += $" AND {KindOf} = @kind";
        if (!string.IsNullOrWhiteSpace(search))
            all +=
                " AND (p.title ILIKE @like OR p.draft->>'title' ILIKE @like OR coalesce(p.draft->'details', p.details)->'naming'->>'name' ILIKE @like)";
        var run = await ListRuns.ReadAsync(
            db,
            // A desk's pages stand together: nothing that is typed comes before the sign between.
            [new(all, @"(d.name || E'\x01' || p.title)", "p.id", Kind: ListKeyKind.Text)],
            all,
            new Dictionary<string, object>
            {
                ["workspace"] = tenant.WorkspaceId!.Value,
                ["kind"] = kind ?? "",
                ["like"] = Words.Containing(search ?? ""),
            },
            place,
            ct
        );
        var rows = await RowsAsync(run.Ids, ct);
        var workspace = tenant.WorkspaceId!.Value;
        var trip = new RoundTrip(db);
        var kinds = trip.Ask(
            "SELECT DISTINCT "
                + KindOf
                + " AS kind FROM pages p WHERE p.workspace_id = @workspace AND p.offer IS NULL AND p.state <> 'Archived' ORDER BY kind",
            new Dictionary<string, object> { ["workspace"] = workspace },
            row => row.IsDBNull(0) ? "" : row.GetString(0)
        );
        var ended = trip.Ask(
            $"SELECT count(*)::int FROM pages WHERE workspace_id = {workspace} AND offer IS NULL AND state = 'Archived'",
            row => row.GetInt32(0)
        );
        await trip.RunAsync(ct);
        return new PageList(
            run.Total,
            [.. run.Ids.Where(rows.ContainsKey).Select(id => rows[id])],
            [.. kinds.Rows.Where(one => one.Length > 0)],
            ended.Row,
            run.Before,
            run.After
        );
    }

    /// <summary>What all are called, but for the archived ones.</summary>
    public Task<List<PageName>> NamesAsync(CancellationToken ct) => NamesOf(db.DeskPages).ToListAsync(ct);

    public async Task<HostPages> OfHostAsync(Guid hostId, CancellationToken ct)
    {
        var own = db.DeskPages.Where(page =>
            page.State != PageState.Archived && page.Seats.Any(seat => seat.Hosts.Any(host => host.HostId == hostId))
        );
        return new HostPages(
            await own.OrderBy(page => page.Title).Select(page => (Guid?)page.DeskId).FirstOrDefaultAsync(ct),
            await NamesOf(own.Where(page => page.Blocks.Count > 0)).ToListAsync(ct)
        );
    }

    private static IQueryable<PageName> NamesOf(IQueryable<Page> of) =>
        of.Where(page => page.State != PageState.Archived)
            .OrderBy(page => page.Title)
            .ThenBy(page => page.Id)
            .Select(page => new PageName(
                page.Id,
                page.State,
                "/" + page.Desk!.Address + "/" + page.Address,
                page.Title
            ));

    private async Task<Dictionary<Guid, PageRow>> RowsAsync(IReadOnlyList<Guid> ids, CancellationToken ct)
    {
        var whole = await pages.OfDesks().AsNoTracking().Where(page => ids.Contains(page.Id)).ToListAsync(ct);
        return whole
            .Select(PageView.Of)
            .ToDictionary(
                view => view.Id,
                view => new PageRow(
                    view.Id,
                    view.State,
                    view.Path,
                    view.Form.Title,
                    view.Form.Details?.Naming.Name ?? "",
                    view.Form.Details?.Naming.Kind ?? "",
                    view.Form.DeskId,
                    view.Seats,
                    view.Form.Times.Durations,
                    view.HasDraft
                )
            );
    }
}
