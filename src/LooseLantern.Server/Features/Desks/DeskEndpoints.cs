using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Desks;

/// <summary>A desk for whoever edits it.</summary>
/// <param name="HostNameProof">What proves the host name; null where there is none.</param>
/// <param name="Logo">Where its logo is, from the root of the site; null for none.</param>
/// <param name="Banner">Where its picture is; null for none.</param>
public sealed record DeskView(
    Guid Id,
    string Address,
    string Name,
    string Intro,
    string Accent,
    string HostName,
    HostNameProof? HostNameProof,
    IReadOnlyList<string> Framers,
    Guid? HostId,
    string? Logo,
    string? Banner
);

public static class DeskEndpoints
{
    public static void MapDesks(this IEndpointRouteBuilder api)
    {
        var desks = api.MapGroup("/desks").WithTags("Desks");

        desks
            .MapGet("/", async (LanternDb db, Pictures pictures, CancellationToken ct) =>
            {
                var views = new List<DeskView>();
                foreach (var desk in await db.Desks.AsNoTracking().OrderBy(desk => desk.Name).ToListAsync(ct))
                    views.Add(await ViewAsync(desk, pictures, ct));
                return views;
            })
            .WithName("listDesks");

        desks
            .MapPost(
                "/",
                async Task<Created<DeskView>> (
                    NewDesk form,
                    DeskMaking opening,
                    DeskEditing editing,
                    Pictures pictures,
                    CancellationToken ct
                ) =>
                {
                    if (!Words.FitOneLine(form.Name))
                        throw Refusal.Invalid("name", "desk-name");
                    await editing.RequireHostAsync(form.HostId, ct);
                    var desk = await opening.MakeAsync(form.Address, form.Name, form.HostId, "address", ct);
                    return TypedResults.Created($"/api/desks/{desk.Id}", await ViewAsync(desk, pictures, ct));
                }
            )
            .WithName("openDesk")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem();

        desks
            .MapPut(
                "/{id:guid}",
                async (Guid id, DeskForm form, DeskEditing editing, Pictures pictures, CancellationToken ct) =>
                    await ViewAsync(await editing.ChangeAsync(id, form, ct), pictures, ct)
            )
            .WithName("changeDesk")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404);

        desks
            .MapPost(
                "/{id:guid}/host-name-proof",
                async (Guid id, HostNameProving proving, Pictures pictures, CancellationToken ct) =>
                    await ViewAsync(await proving.ProveAsync(id, ct), pictures, ct)
            )
            .WithName("proveHostName")
            .WithDescription("Looks whether the record stands at the host name; 422 where it does not.")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);

        desks
            .MapPut(
                "/{id:guid}/pictures/{kind}",
                async Task<NoContent> (
                    Guid id,
                    string kind,
                    HttpRequest request,
                    DeskEditing editing,
                    Pictures pictures,
                    CancellationToken ct
                ) =>
                {
                    var desk = await editing.GetAsync(id, ct);
                    await pictures.SetAsync(
                        desk.Id,
                        Pictures.KindOf(kind),
                        await Upload.ReadAsync(request, ct, Pictures.Choose),
                        ct
                    );
                    return TypedResults.NoContent();
                }
            )
            .WithName("setDeskPicture")
            .WithDescription("A multipart/form-data form with file, a PNG or a JPEG; kind is logo or banner.")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404);

        desks
            .MapDelete(
                "/{id:guid}/pictures/{kind}",
                async Task<NoContent> (
                    Guid id,
                    string kind,
                    DeskEditing editing,
                    Pictures pictures,
                    CancellationToken ct
                ) =>
                {
                    await pictures.RemoveAsync((await editing.GetAsync(id, ct)).Id, Pictures.KindOf(kind), ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("removeDeskPicture")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404);
    }

    private static async Task<DeskView> ViewAsync(Desk desk, Pictures pictures, CancellationToken ct)
    {
        var (logo, banner) = await pictures.PathsAsync(desk.Id, PathOf(desk.Address), ct);
        return new DeskView(
            desk.Id,
            desk.Address,
            desk.Name,
            desk.Intro,
            desk.Accent,
            desk.HostName ?? "",
            HostNameProof.Of(desk),
            desk.Framers,
            desk.HostId,
            logo,
            banner
        );
    }

    /// <summary>Where what everybody may see of a desk is, from the root of the site.</summary>
    public static string PathOf(string address) => $"/api/public/desks/{address}";
}
