using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Flagged;

public static class FlaggedEndpoints
{
    public static void MapFlagged(this IEndpointRouteBuilder api)
    {
        var flagged = api.MapGroup("/bookings/flagged").WithTags("Bookings").RequireAuthorization(Roles.Coordinator);

        flagged
            .MapGet("/", (FlaggedFinding finding, CancellationToken ct) => finding.FindAsync(ct))
            .WithName("listFlaggedBookings")
            .WithDescription("Those to come of which screening noted something, the soonest first.");

        flagged
            .MapPost("/preview", (CallOffPreviewRequest request, CallOffWriting writing, CancellationToken ct) =>
                writing.PreviewAsync(request, ct)
            )
            .WithName("previewCallOff")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        flagged
            .MapPost("/call-off", async (CallOffRequest request, Cancelling cancelling, CancellationToken ct) =>
            {
                var letter = CallOffWriting.Require(request);
                if (request.Bookings is not { Count: > 0 and <= FlaggedFinding.Most })
                    throw Refusal.Invalid("bookings", Phrase.Of("bookings-to-call-off", ("most", FlaggedFinding.Most)));
                return new CalledOff(await cancelling.CallOffAsync(request.Bookings, letter, ct));
            })
            .WithName("callOffBookings")
            .CanBeUndone(UndoSpan.Several)
            .WithDescription(
                "All of them or none; each guest is told by the letter. Who is called off already is not told again."
            )
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);
    }
}
