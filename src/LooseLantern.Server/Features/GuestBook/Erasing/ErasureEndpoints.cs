using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.SignIn;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <param name="Version">Of the guest, as it was looked at.</param>
public sealed record EraseRequest(int Version);

public static class ErasureEndpoints
{
    public static void MapErasing(this IEndpointRouteBuilder api)
    {
        var guests = api.MapGroup("/guests").WithTags("Guests").RequireAuthorization(Roles.Owner);

        guests
            .MapGet("/{id:guid}/erasing", (Guid id, GuestErasing erasing, CancellationToken ct) =>
                erasing.LookAsync(id, ct)
            )
            .WithName("lookAtErasing")
            .WithDescription("What erasing the guest would take away, and what it waits for.")
            .ProducesProblem(404);

        guests
            .MapPost(
                "/{id:guid}/erase",
                async Task<NoContent> (Guid id, EraseRequest request, GuestErasing erasing, CancellationToken ct) =>
                {
                    await erasing.EraseAsync(id, request.Version, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("eraseGuest")
            .WithDescription("It can’t be undone. Bookings and links stay, of nobody.")
            .ProducesProblem(404)
            .ProducesProblem(409);

        guests
            .MapGet("/retention", (RetentionEditing retention, CancellationToken ct) => retention.ReadAsync(ct))
            .WithName("getGuestRetention");

        guests
            .MapPost("/retention/preview", (GuestRetention rules, RetentionEditing retention, CancellationToken ct) =>
                retention.PreviewAsync(rules, ct)
            )
            .WithName("previewGuestRetention")
            .ProducesValidationProblem();

        guests
            .MapPut("/retention", (GuestRetention rules, RetentionEditing retention, CancellationToken ct) =>
                retention.ChangeAsync(rules, ct)
            )
            .WithName("changeGuestRetention")
            .ProducesValidationProblem();
    }
}
