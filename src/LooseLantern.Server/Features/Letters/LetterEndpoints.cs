using LooseLantern.Server.Features.SignIn;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LooseLantern.Server.Features.Letters;

public sealed record ChangeLetterRequest(int Version, LetterForm Form);

public static class LetterEndpoints
{
    public static void MapLetters(this IEndpointRouteBuilder api)
    {
        var letters = api.MapGroup("/letters").WithTags("Letters").RequireAuthorization(Roles.Coordinator);
        MapSaved(letters);
        MapWriting(letters);
    }

    private static void MapSaved(RouteGroupBuilder letters)
    {
        letters
            .MapGet("/", (LetterEditing editing, CancellationToken ct) => editing.ListAsync(ct))
            .WithName("listLetters")
            .WithDescription("One’s own and the team’s, with the blanks they may have.");

        letters
            .MapPost(
                "/",
                async Task<Created<LetterView>> (LetterForm form, LetterEditing editing, CancellationToken ct) =>
                {
                    var made = await editing.AddAsync(form, ct);
                    return TypedResults.Created($"/api/letters/{made.Id}", made);
                }
            )
            .WithName("addLetter")
            .ProducesValidationProblem();

        letters
            .MapPut("/{id:guid}", (Guid id, ChangeLetterRequest request, LetterEditing editing, CancellationToken ct) =>
                editing.ChangeAsync(id, request.Version, request.Form, ct)
            )
            .WithName("changeLetter")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        letters
            .MapDelete("/{id:guid}", async Task<NoContent> (Guid id, LetterEditing editing, CancellationToken ct) =>
            {
                await editing.RemoveAsync(id, ct);
                return TypedResults.NoContent();
            })
            .WithName("removeLetter")
            .ProducesProblem(404);
    }

    private static void MapWriting(RouteGroupBuilder letters)
    {
        letters
            .MapGet("/choices", (Guid? guest, LetterWriting writing, CancellationToken ct) =>
                writing.ChoicesAsync(guest, ct)
            )
            .WithName("listLetterChoices")
            .WithDescription("What can be offered in a letter to this guest, or to any.")
            .ProducesProblem(404);

        letters
            .MapPost("/preview", (LetterRequest request, LetterWriting writing, CancellationToken ct) =>
                writing.PreviewAsync(request, ct)
            )
            .WithName("previewLetter")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        letters
            .MapPost(
                "/send",
                (
                    LetterRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string key,
                    LetterSending sending,
                    CancellationToken ct
                ) => sending.SendAsync(request, key, ct)
            )
            .WithName("sendLetter")
            .WithDescription("Makes the link that it offers, lets it out, and sends the letter by the post.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        letters
            .MapPost(
                "/draft.eml",
                async (
                    LetterRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string key,
                    LetterSending sending,
                    CancellationToken ct
                ) => TypedResults.File(await sending.DraftAsync(request, key, ct), "message/rfc822", "letter.eml")
            )
            .WithName("draftLetter")
            .WithDescription("The same as a mail to send from a program of one’s own; its link is out from then on.")
            .Produces<string>(200, "message/rfc822")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }
}
