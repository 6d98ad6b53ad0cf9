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
public sealed record GuestDesk(
    string Workspace,
    string Name,
    string Address,
    string Intro,
    string Accent,
    string? Logo,
    string? Banner,
    IReadOnlyList<ListedPage> Pages
);

/// <summary>A desk as guests see it: the pages that are meant to be seen, and no others.</summary>
public static class GuestDeskEndpoints
{
    public static void MapGuestDesks(this IEndpointRouteBuilder open)
    {
        var desks = open.MapGroup("/desks/{desk}").WithTags("Guests");

        desks
            .MapGet("/", (string desk, GuestDeskViews views, CancellationToken ct) => views.OfAsync(desk, ct))
            .WithName("getGuestDesk")
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
public sealed class GuestDeskViews(GuestDeskFinding finding, PageEditing editing, Pictures pictures, LanternDb db)
{
    /// <exception cref="Refusal">404 where no desk has the address.</exception>
    public async Task<GuestDesk> OfAsync(string desk, CancellationToken ct)
    {
        var found = await finding.FindAsync(desk, ct);
        var pages = await editing
            .OfDesks()
            .AsNoTracking()
            .Where(page => page.State == PageState.Published)
            .Where(page =>
                found.HostId == null
                    ? page.DeskId == found.Id
                    : page.Seats.Any(seat => seat.Hosts.Any(host => host.HostId == found.HostId))
            )
            .OrderBy(page => page.Title)
            .ToListAsync(ct);
        var (logo, banner) = await pictures.PathsAsync(found.Id, DeskEndpoints.PathOf(found.Address), ct);
        return new GuestDesk(
            await db.Workspaces.Select(row => row.Name).SingleAsync(ct),
            found.Name,
            found.Address,
            Markdown.ToHtml(found.Intro),
            found.Accent,
            logo,
            banner,
            [.. pages.Where(page => page.Details.Face.IsListed).Select(Listed)]
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
