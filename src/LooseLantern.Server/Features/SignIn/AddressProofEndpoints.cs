using LooseLantern.Server.Features.ActingFor;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.SignIn;

public static class AddressProofEndpoints
{
    public static void MapAddressProofs(this IEndpointRouteBuilder api)
    {
        api.MapPost(
                "/me/address-proof",
                async Task<NoContent> (Actor actor, AddressProving proving, CancellationToken ct) =>
                {
                    await proving.AskAsync(actor.Required.Id, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithTags("You")
            .WithName("askAddressProof")
            .WithDescription("Mails a link by which whoever asks proves their address.")
            .ProducesProblem(429);

        api.MapPost("/address-proofs/{secret}", async (string secret, AddressProving proving, CancellationToken ct) =>
                await proving.ProveAsync(secret, ct)
            )
            .AllowAnonymous()
            .WithTags("Sign-in")
            .WithName("proveAddress")
            .ProducesProblem(404)
            .ProducesProblem(410);
    }
}
