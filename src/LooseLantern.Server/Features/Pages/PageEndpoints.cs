using System.Text.Json;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.Pages;

public sealed record ChangePageRequest(int Version, PageForm Form);

public sealed record PageVersion(int Version);

/// <param name="Blocks">All office hours of the page, as they are from now on.</param>
public sealed record ChangeBlocksRequest(int Version, BlocksForm Blocks);

/// <param name="Free">Whether a page of that desk could have the address.</param>
/// <param name="Mend">What to do where it could not.</param>
public sealed record AddressAnswer(bool Free, string? Mend);

public static class PageEndpoints
{
    public static void MapPages(this IEndpointRouteBuilder api)
    {
        var pages = api.MapGroup("/pages").WithTags("Pages");

        pages
            .MapGet(
                "/",
                async (
                    bool? archived,
                    string? kind,
                    string? search,
                    string? after,
                    string? before,
                    int? take,
                    PageLists lists,
                    CancellationToken ct
                ) => await lists.ReadAsync(archived == true, kind, search, ListPlace.Of(after, before, take), ct)
            )
            .WithName("listPages")
            .WithDescription("By desk and title; those that are archived only where they are asked for.")
            .ProducesValidationProblem();

        pages
            .MapGet("/names", async (PageLists lists, CancellationToken ct) => await lists.NamesAsync(ct))
            .WithName("listPageNames")
            .WithDescription("What all pages are called that are not archived, to choose among them.");

        pages
            .MapGet("/of-host/{id:guid}", async (Guid id, PageLists lists, CancellationToken ct) =>
                await lists.OfHostAsync(id, ct)
            )
            .WithName("getHostPages")
            .WithDescription("The pages with office hours on which a host has a seat.");

        pages
            .MapGet("/{id:guid}", async (Guid id, PageEditing editing, CancellationToken ct) =>
                PageView.Of(await editing.GetAsync(id, ct))
            )
            .WithName("getPage")
            .ProducesProblem(404);

        pages
            .MapPost("/", async Task<Created<PageView>> (PageForm form, PageEditing editing, CancellationToken ct) =>
                Made(await editing.CreateAsync(form, ct))
            )
            .WithName("createPage")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem();

        pages
            .MapPut(
                "/{id:guid}",
                async (Guid id, ChangePageRequest request, PageEditing editing, CancellationToken ct) =>
                    PageView.Of(await editing.ChangeAsync(id, request.Version, request.Form, ct))
            )
            .WithName("changePage")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        pages
            .MapPost(
                "/{id:guid}/publish",
                async (Guid id, PageVersion request, PageEditing editing, CancellationToken ct) =>
                    PageView.Of(await editing.PublishAsync(id, request.Version, ct))
            )
            .WithName("publishPage")
            .CanBeUndone()
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        pages
            .MapPost(
                "/{id:guid}/discard",
                async (Guid id, PageVersion request, PageEditing editing, CancellationToken ct) =>
                    PageView.Of(await editing.DiscardAsync(id, request.Version, ct))
            )
            .WithName("discardPageChanges")
            .CanBeUndone()
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409);

        pages
            .MapPut(
                "/{id:guid}/blocks",
                async (Guid id, ChangeBlocksRequest request, PageEditing editing, CancellationToken ct) =>
                    PageView.Of(await editing.ChangeBlocksAsync(id, request.Version, request.Blocks, ct))
            )
            .WithName("changePageBlocks")
            .CanBeUndone()
            .WithDescription("At once, where the page is published.")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        pages
            .MapGet(
                "/{id:guid}/editions",
                async (Guid id, PageEditing editing, PageEditions editions, CancellationToken ct) =>
                    await editions.OfAsync((await editing.GetAsync(id, ct)).Id, ct)
            )
            .WithName("listPageEditions")
            .ProducesProblem(404);

        pages
            .MapPost(
                "/{id:guid}/unpublish",
                async (Guid id, PageVersion request, PageEditing editing, CancellationToken ct) =>
                    PageView.Of(await editing.UnpublishAsync(id, request.Version, ct))
            )
            .WithName("unpublishPage")
            .CanBeUndone()
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409);

        pages
            .MapPost(
                "/{id:guid}/archive",
                async (Guid id, PageVersion request, PageEditing editing, CancellationToken ct) =>
                    PageView.Of(await editing.ArchiveAsync(id, request.Version, ct))
            )
            .WithName("archivePage")
            .CanBeUndone()
            .WithDescription("Closes the page to guests and takes it off lists; what is booked stands.")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409);

        pages
            .MapPost(
                "/{id:guid}/restore",
                async (Guid id, PageVersion request, PageEditing editing, CancellationToken ct) =>
                    PageView.Of(await editing.UnpublishAsync(id, request.Version, ct))
            )
            .WithName("restorePage")
            .CanBeUndone()
            .WithDescription("Makes an archived page a draft again.")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409);

        pages
            .MapPost(
                "/{id:guid}/copy",
                async Task<Created<PageView>> (Guid id, PageCopies copies, CancellationToken ct) =>
                    Made(await copies.CopyAsync(id, ct))
            )
            .WithName("copyPage")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404);

        pages
            .MapGet("/{id:guid}/export", async (Guid id, PageCopies copies, CancellationToken ct) =>
            {
                var json = await copies.ExportAsync(id, ct);
                return Results.File(
                    JsonSerializer.SerializeToUtf8Bytes(
                        json,
                        new JsonSerializerOptions(Json.Options) { WriteIndented = true }
                    ),
                    "application/json",
                    $"{json["page"]!["address"]}.page.json"
                );
            })
            .WithName("exportPage")
            .RequireAuthorization(Roles.Coordinator)
            .Produces(200, contentType: "application/json")
            .ProducesProblem(404);

        pages
            .MapPost(
                "/import",
                async Task<Created<PageView>> (HttpRequest request, PageCopies copies, CancellationToken ct) =>
                    Made(await copies.ImportAsync((await Upload.ReadAsync(request, ct, "page-file")).Bytes, ct))
            )
            .WithName("importPage")
            .WithDescription(
                "A multipart/form-data form with file, as exportPage gives it; every fault of it is named."
            )
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem();

        pages
            .MapPut(
                "/{id:guid}/picture",
                async Task<NoContent> (
                    Guid id,
                    HttpRequest request,
                    PageEditing editing,
                    Pictures pictures,
                    CancellationToken ct
                ) =>
                {
                    await pictures.SetAsync(
                        (await editing.HeldAsync(id, ct)).Id,
                        PictureKind.Banner,
                        await Upload.ReadAsync(request, ct, Pictures.Choose),
                        ct
                    );
                    return TypedResults.NoContent();
                }
            )
            .WithName("setPagePicture")
            .WithDescription("A multipart/form-data form with file, a PNG or a JPEG. Guests see it at once.")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404);

        pages
            .MapDelete(
                "/{id:guid}/picture",
                async Task<NoContent> (Guid id, PageEditing editing, Pictures pictures, CancellationToken ct) =>
                {
                    await pictures.RemoveAsync((await editing.HeldAsync(id, ct)).Id, PictureKind.Banner, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("removePagePicture")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404);

        pages
            .MapGet(
                "/{id:guid}/picture",
                async Task<FileContentHttpResult> (
                    Guid id,
                    PageEditing editing,
                    Pictures pictures,
                    CancellationToken ct
                ) =>
                {
                    var picture = await pictures.FindAsync((await editing.GetAsync(id, ct)).Id, PictureKind.Banner, ct)
                        ?? throw Refusal.NotFound("picture");
                    return TypedResults.Bytes(picture.Bytes, picture.MediaType);
                }
            )
            .WithName("getOwnPagePicture")
            .ProducesProblem(404);

        // A question that changes nothing; it is a POST because the words are not saved yet.
        pages
            .MapPost("/guest-names", async (PublicWords words, GuestNames names, CancellationToken ct) =>
                await names.InAsync(words, ct)
            )
            .WithName("findGuestNames")
            .ProducesValidationProblem();

        pages
            .MapGet(
                "/address",
                async (Guid deskId, string address, Guid? exceptPage, PageEditing editing, CancellationToken ct) =>
                {
                    if (!Address.IsWellFormed(address))
                        return new AddressAnswer(false, Phrases.Mend(Address.Mend));
                    return await editing.IsAddressFreeAsync(deskId, address, exceptPage, ct)
                        ? new AddressAnswer(true, null)
                        : new AddressAnswer(false, Phrases.Mend(Phrase.Of("page-address-taken", ("address", address))));
                }
            )
            .WithName("checkPageAddress");
    }

    private static Created<PageView> Made(Page page) =>
        TypedResults.Created($"/api/pages/{page.Id}", PageView.Of(page));
}
