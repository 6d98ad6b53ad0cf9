using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Guests;

/// <summary>A page as its desk lists it.</summary>
/// <param name="Path">From the root of the site.</param>
/// <param name="Durations">Minutes, shortest first.</param>
/// <param name="Names">Who is met; empty where the page doesn't tell.</param>
/// <param name="Intro">The first lines of what it says, as plain words.</param>
public sealed record ListedPage(
    string Title,
    string Path,
    IReadOnlyList<int> Durations,
    PlaceKind PlaceKind,
    string Place,
    IReadOnlyList<IReadOnlyList<string>> Names,
    int Places,
    string Intro
);

/// <param name="Intro">HTML that is safe to show.</param>
/// <param name="Accent">#rrggbb, or empty.</param>
/// <param name="Pages">One run of them, by title.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record GuestDesk(
    string Workspace,
    string Name,
    string Address,
    string Intro,
    string Accent,
    string? Logo,
    string? Banner,
    IReadOnlyList<ListedPage> Pages,
    string? After
);

/// <summary>A desk as guests see it: the pages that are meant to be seen, and no others.</summary>
public static class GuestDeskEndpoints
{
    public static void MapGuestDesks(this IEndpointRouteBuilder open)
    {
        var desks = open.MapGroup("/desks/{desk}").WithTags("Guests");

        desks
            .MapGet("/", (string desk, string? after, GuestDeskViews views, CancellationToken ct) =>
                views.OfAsync(desk, after, ct)
            )
            .WithName("getGuestDesk")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        desks
            .MapGet(
                "/pictures/{kind}",
                async Task<FileContentHttpResult> (
                    string desk,
                    string kind,
                    GuestDeskFinding finding,
                    Pictures pictures,
                    HttpContext context,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(desk, ct);
                    return Send(await pictures.FindAsync(found.Id, Pictures.KindOf(kind), ct), context);
                }
            )
            .WithName("getDeskPicture")
            .ProducesProblem(404);

        desks
            .MapGet(
                "/pages/{page}/pictures/{kind}",
                async Task<FileContentHttpResult> (
                    string desk,
                    string page,
                    string kind,
                    GuestPageFinding finding,
                    Pictures pictures,
                    HttpContext context,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(desk, page, ct);
                    return Send(await pictures.FindAsync(found.Page.Id, Pictures.KindOf(kind), ct), context);
                }
            )
            .WithName("getPagePicture")
            .ProducesProblem(404);
    }

    private static FileContentHttpResult Send(Picture? picture, HttpContext context)
    {
        if (picture is null)
            throw Refusal.NotFound("picture");
        // Its address changes with it.
        context.Response.Headers.CacheControl = "public, max-age=86400";
        return TypedResults.Bytes(picture.Bytes, picture.MediaType);
    }
}

/// <summary>Finds a desk by its address, and with it the workspace of the request.</summary>
public sealed class GuestDeskFinding(LanternDb db, Tenant tenant)
{
    public async Task<Desk> FindAsync(string address, CancellationToken ct)
    {
        var desk = await db
            .Desks.IgnoreQueryFilters()
            .AsNoTracking()
            .FirstOrDefaultAsync(row => row.Address == address, ct)
            ?? throw Refusal.NotFound("desk");
        tenant.Enter(desk.WorkspaceId);
        return desk;
    }
}

/// <summary>A desk as its guests see it.</summary>
public sealed class GuestDeskViews(
    GuestDeskFinding finding,
    PageEditing editing,
    Pictures pictures,
    LanternDb db,
    Tenant tenant
)
{
    /// <summary>As many as somebody looks through before they look for something.</summary>
    private const int AtOnce = 30;

    /// <param name="after">What a run told to ask the next one by; null for the first.</param>
    /// <exception cref="Refusal">404 where no desk has the address, 400 for a place that was never told of.</exception>
    public async Task<GuestDesk> OfAsync(string desk, string? after, CancellationToken ct)
    {
        var found = await finding.FindAsync(desk, ct);
        var own = found.HostId is null
            ? "p.desk_id = @desk"
            : "p.id IN (SELECT s.page_id FROM seat_hosts h JOIN seats s ON s.id = h.seat_id WHERE h.host_id = @host)";
        var all =
            $"pages p WHERE p.workspace_id = @workspace AND p.offer IS NULL AND p.state = 'Published' AND p.details->'face'->>'isListed' = 'true' AND {own}";
        var run = await ListRuns.ReadAsync(
            db,
            [new(all, "p.title", "p.id", Kind: ListKeyKind.Text)],
            all,
            new Dictionary<string, object>
            {
                ["workspace"] = tenant.WorkspaceId!.Value,
                ["desk"] = found.Id,
                ["host"] = found.HostId ?? Guid.Empty,
            },
            new ListPlace(after, null, AtOnce),
            ct
        );
        var pages = await editing
            .OfDesks()
            .AsNoTracking()
            .Where(page => run.Ids.Contains(page.Id))
            .ToDictionaryAsync(page => page.Id, ct);
        var (logo, banner) = await pictures.PathsAsync(found.Id, DeskEndpoints.PathOf(found.Address), ct);
        return new GuestDesk(
            await db.Workspaces.Select(row => row.Name).SingleAsync(ct),
            found.Name,
            found.Address,
            Markdown.ToHtml(found.Intro),
            found.Accent,
            logo,
            banner,
            [.. run.Ids.Where(pages.ContainsKey).Select(id => Listed(pages[id]))],
            run.After
        );
    }

    private static ListedPage Listed(Page page) =>
        new(
            page.Title,
            PageView.PathOf(page),
            [.. page.Durations.Order()],
            page.PlaceKind,
            page.Place,
            page.Details.Face.ShowsHosts ? PageView.SeatNames(page) : [],
            page.Places,
            Markdown.FirstWords(page.Description)
        );
}
