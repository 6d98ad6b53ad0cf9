using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.Undo;

public static class UndoEndpoints
{
    public static void MapUndo(this IEndpointRouteBuilder api)
    {
        api.MapGet("/undo", (UndoLists lists, CancellationToken ct) => lists.OwnAsync(ct))
            .WithName("listUndoable")
            .WithTags("Undo")
            .WithDescription("What the person who asks did and can take back still, the latest first.");

        api.MapPost("/undo/{id:guid}", async Task<NoContent> (Guid id, Undoing undoing, CancellationToken ct) =>
            {
                await undoing.UndoAsync(id, ct);
                return TypedResults.NoContent();
            })
            .WithName("undo")
            .WithTags("Undo")
            .WithDescription("All of it or nothing. Nobody is told of it: the mail of what was done never went.")
            .ProducesProblem(404)
            .ProducesProblem(409);
    }
}
