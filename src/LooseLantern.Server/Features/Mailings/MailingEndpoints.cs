using LooseLantern.Server.Data;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.SignIn;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LooseLantern.Server.Features.Mailings;

public static class MailingEndpoints
{
    // For each that somebody is silent of, what is left of it is worked out anew.
    private const int InOneRun = 10;

    public static void MapMailings(this IEndpointRouteBuilder api)
    {
        var mailings = api.MapGroup("/mailings").WithTags("Mailings").RequireAuthorization(Roles.Coordinator);
        MapWriting(mailings);

        mailings
            .MapGet("/", (string? before, string? after, int? take, MailingViews views, CancellationToken ct) =>
                views.ListAsync(ListPlace.Of(after, before, take ?? InOneRun), ct)
            )
            .WithName("listMailings")
            .ProducesValidationProblem();

        mailings
            .MapGet("/{id:guid}", (Guid id, MailingViews views, CancellationToken ct) => views.OfAsync(id, ct))
            .WithName("getMailing")
            .ProducesProblem(404);

        mailings
            .MapPost(
                "/{id:guid}/ask-again",
                async (
                    Guid id,
                    AskAgainRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string key,
                    MailingAskingAgain asking,
                    MailingViews views,
                    CancellationToken ct
                ) =>
                {
                    await asking.AskAsync(id, request.Word, key, ct);
                    return await views.OfAsync(id, ct);
                }
            )
            .WithName("askMailingAgain")
            .WithDescription("Asks those who are silent; nobody who booked or answered.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static void MapWriting(RouteGroupBuilder mailings)
    {
        mailings
            .MapPost("/guests", (GuestFilter filter, MailingGuestFinding finding, CancellationToken ct) =>
                finding.OfAsync(filter, ct)
            )
            .WithName("findMailingGuests")
            .WithDescription("Those of a choice of guests who can be written to.")
            .ProducesValidationProblem();

        mailings
            .MapPost("/pasted", (PastedGuests pasted, MailingGuestFinding finding, CancellationToken ct) =>
                finding.PastedAsync(pasted.Text, ct)
            )
            .WithName("readPastedGuests")
            .WithDescription("Those of a pasted list, with what is wrong with which row.")
            .ProducesValidationProblem();

        mailings
            .MapPost("/preview", (MailingPreviewRequest request, MailingWriting writing, CancellationToken ct) =>
                writing.PreviewAsync(request, ct)
            )
            .WithName("previewMailing")
            .ProducesValidationProblem()
            .ProducesProblem(409);

        mailings
            .MapPost(
                "/",
                async Task<Created<MailingSent>> (
                    MailingRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string key,
                    MailingSending sending,
                    CancellationToken ct
                ) =>
                {
                    var sent = await sending.SendAsync(request, key, ct);
                    return TypedResults.Created($"/api/mailings/{sent.Id}", sent);
                }
            )
            .WithName("sendMailing")
            .WithDescription("Makes each guest’s link, and sends each their letter.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(409);
    }
}
