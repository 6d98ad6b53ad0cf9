using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.Bookings;

/// <param name="Word">Why, for the guest; may be empty.</param>
public sealed record CancelForm(string Word = "");

public static class BookingEndpoints
{
    public static void MapBookings(this IEndpointRouteBuilder api)
    {
        api.MapGet("/bookings/{id:guid}", (Guid id, BookingDetails details, CancellationToken ct) =>
                details.OfAsync(id, ct)
            )
            .WithName("getBooking")
            .WithTags("Bookings")
            .ProducesProblem(404);

        api.MapGet(
                "/bookings/{id:guid}/openings",
                async (
                    Guid id,
                    string? from,
                    string? to,
                    BookingsToChange bookings,
                    BookingMoving moving,
                    CancellationToken ct
                ) =>
                {
                    var booking = await bookings.FindAsync(id, ct);
                    var page = booking.Session!.Page!;
                    var asked = OpeningsQuery.Read(from, to, null, page);
                    return new OpeningsAnswer(page.Zone, await moving.OpeningsAsync(booking, asked.From, asked.To, ct));
                }
            )
            .WithName("getBookingOpenings")
            .WithTags("Bookings")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);

        api.MapPost(
                "/bookings/{id:guid}/move",
                async Task<NoContent> (
                    Guid id,
                    MoveRequest request,
                    BookingsToChange bookings,
                    BookingMoving moving,
                    CancellationToken ct
                ) =>
                {
                    await bookings.FindAsync(id, ct);
                    MoveRequest.Check(request);
                    await moving.MoveAsync(id, request.Start, ChangedBy.Team, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("moveBooking")
            .WithTags("Bookings")
            .CanBeUndone()
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        api.MapPost(
                "/bookings/{id:guid}/accept",
                async Task<NoContent> (Guid id, BookingsToChange bookings, Answering answering, CancellationToken ct) =>
                {
                    await bookings.FindAsync(id, ct);
                    await answering.AcceptAsync(id, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("acceptBooking")
            .WithTags("Bookings")
            .CanBeUndone()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        api.MapPost(
                "/bookings/{id:guid}/decline",
                async Task<NoContent> (
                    Guid id,
                    DeclineForm form,
                    BookingsToChange bookings,
                    Answering answering,
                    CancellationToken ct
                ) =>
                {
                    await bookings.FindAsync(id, ct);
                    await answering.DeclineAsync(id, form, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("declineBooking")
            .WithTags("Bookings")
            .CanBeUndone()
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        api.MapPost(
                "/bookings/{id:guid}/cancel",
                async Task<NoContent> (
                    Guid id,
                    CancelForm form,
                    BookingsToChange bookings,
                    Cancelling cancelling,
                    CancellationToken ct
                ) =>
                {
                    if ((await bookings.FindAsync(id, ct)).CancelledAt is not null)
                        throw new Refusal(StatusCodes.Status409Conflict, "cancelled", "cancelled.already");
                    await cancelling.CancelAsync(id, CancelledBy.Team, form.Word, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("cancelBooking")
            .WithTags("Bookings")
            .CanBeUndone()
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }
}
