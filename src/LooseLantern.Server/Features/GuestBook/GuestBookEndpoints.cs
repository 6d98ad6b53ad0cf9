using LooseLantern.Server.Data;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.Views;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LooseLantern.Server.Features.GuestBook;

public sealed record ChangeGuestRequest(int Version, GuestForm Form);

public sealed record KeepApartRequest(Guid Other);

public static class GuestBookEndpoints
{
    public static void MapGuestBook(this IEndpointRouteBuilder api)
    {
        var guests = api.MapGroup("/guests").WithTags("Guests");
        MapLists(guests);
        MapOne(guests);
        MapNotes(guests);
        MapMerging(guests);
        MapFields(guests);
    }

    private static void MapLists(RouteGroupBuilder guests)
    {
        guests
            .MapPost(
                "/list",
                async (
                    GuestFilter filter,
                    string? after,
                    string? before,
                    int? take,
                    GuestLists lists,
                    CancellationToken ct
                ) => await lists.ReadAsync(filter, ListPlace.Of(after, before, take), ct)
            )
            .WithName("listGuests")
            .WithDescription("A question that changes nothing; it is a POST because a filter has many parts.")
            .ProducesValidationProblem();

        guests
            .MapGet("/views", (GuestSavedViews views, CancellationToken ct) => views.ListAsync(ct))
            .WithName("listGuestViews");

        guests
            .MapPut("/views", async (GuestViewForm form, GuestSavedViews views, CancellationToken ct) =>
                new MadeId(await views.SaveAsync(form, ct))
            )
            .WithName("saveGuestView")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem();

        guests
            .MapDelete(
                "/views/{id:guid}",
                async Task<NoContent> (Guid id, GuestSavedViews views, CancellationToken ct) =>
                {
                    await views.RemoveAsync(id, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("removeGuestView")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404);
    }

    private static void MapOne(RouteGroupBuilder guests)
    {
        guests
            .MapGet("/{id:guid}", (Guid id, GuestDetails details, CancellationToken ct) => details.OfAsync(id, ct))
            .WithName("getGuest")
            .ProducesProblem(404);

        guests
            .MapGet("/{id:guid}/history", (Guid id, string? before, GuestHistory history, CancellationToken ct) =>
                history.ReadAsync(id, before, ct)
            )
            .WithName("getGuestHistory")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        guests
            .MapPost(
                "/",
                async Task<Created<GuestDetail>> (
                    GuestForm form,
                    GuestEditing editing,
                    GuestDetails details,
                    CancellationToken ct
                ) =>
                {
                    var id = await editing.AddAsync(form, ct);
                    return TypedResults.Created($"/api/guests/{id}", await details.OfAsync(id, ct));
                }
            )
            .WithName("addGuest")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(409);

        guests
            .MapPut(
                "/{id:guid}",
                async (
                    Guid id,
                    ChangeGuestRequest request,
                    GuestEditing editing,
                    GuestDetails details,
                    CancellationToken ct
                ) =>
                {
                    await editing.ChangeAsync(id, request.Version, request.Form, ct);
                    return await details.OfAsync(id, ct);
                }
            )
            .WithName("changeGuest")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static void MapNotes(RouteGroupBuilder guests)
    {
        guests
            .MapPost("/{id:guid}/notes", async (Guid id, NoteForm form, GuestNotes notes, CancellationToken ct) =>
                new MadeId(await notes.AddAsync(id, form, ct))
            )
            .WithName("addGuestNote")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        guests
            .MapPut(
                "/{id:guid}/notes/{note:guid}",
                async Task<NoContent> (Guid id, Guid note, NoteForm form, GuestNotes notes, CancellationToken ct) =>
                {
                    await notes.ChangeAsync(id, note, form, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("changeGuestNote")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);

        guests
            .MapDelete(
                "/{id:guid}/notes/{note:guid}",
                async Task<NoContent> (Guid id, Guid note, GuestNotes notes, CancellationToken ct) =>
                {
                    await notes.RemoveAsync(id, note, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("removeGuestNote")
            .ProducesProblem(403)
            .ProducesProblem(404);
    }

    private static void MapMerging(RouteGroupBuilder guests)
    {
        guests
            .MapPost(
                "/{id:guid}/merge",
                async (Guid id, MergeForm form, GuestMerging merging, GuestDetails details, CancellationToken ct) =>
                {
                    await merging.MergeAsync(id, form, ct);
                    return await details.OfAsync(id, ct);
                }
            )
            .WithName("mergeGuests")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        guests
            .MapPost("/merges/{id:guid}/undo", async (Guid id, GuestMerging merging, CancellationToken ct) =>
                new MadeId(await merging.UndoAsync(id, ct))
            )
            .WithName("undoMerge")
            .WithDescription("Answers with the guest who is one of their own again.")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409);

        guests
            .MapPost(
                "/{id:guid}/keep-apart",
                async Task<NoContent> (Guid id, KeepApartRequest request, GuestEditing editing, CancellationToken ct) =>
                {
                    await editing.KeepApartAsync(id, request.Other, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("keepGuestsApart")
            .WithDescription("Says that two who look alike are two.")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static void MapFields(RouteGroupBuilder guests)
    {
        guests
            .MapGet("/fields", (GuestFieldEditing fields, CancellationToken ct) => fields.ListAsync(ct))
            .WithName("listGuestFields");

        guests
            .MapPut(
                "/fields",
                async (
                    [FromBody] IReadOnlyList<GuestFieldForm> forms,
                    GuestFieldEditing fields,
                    CancellationToken ct
                ) =>
                {
                    await fields.ReplaceAsync(forms, ct);
                    return await fields.ListAsync(ct);
                }
            )
            .WithName("changeGuestFields")
            .WithDescription("What is left out is taken away, with what guests have in it.")
            .RequireAuthorization(Roles.Owner)
            .ProducesValidationProblem();
    }
}
