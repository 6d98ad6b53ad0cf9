using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>What the team does around a booking that stays where it is.</summary>
public static class BookingWorkEndpoints
{
    public static void MapBookingWork(this IEndpointRouteBuilder api)
    {
        var booking = api.MapGroup("/bookings/{id:guid}").WithTags("Bookings");
        MapNotes(booking);
        MapHosts(api.MapGroup("/sessions/{id:guid}/hosts").WithTags("Bookings"));

        booking
            .MapPut(
                "/outcome",
                async Task<NoContent> (
                    Guid id,
                    OutcomeForm form,
                    BookingsToChange bookings,
                    OutcomeNoting noting,
                    CancellationToken ct
                ) =>
                {
                    await bookings.FindAsync(id, ct);
                    await noting.NoteAsync(id, form, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("noteBookingOutcome")
            .CanBeUndone()
            .WithDescription("Whether the guest came, once the appointment has begun; the guest hears nothing of it.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        booking
            .MapPost(
                "/words",
                async (
                    Guid id,
                    SessionWordsForm form,
                    [FromHeader(Name = "Idempotency-Key")] string? idempotencyKey,
                    BookingsToChange bookings,
                    SessionWords words,
                    CancellationToken ct
                ) =>
                {
                    IdempotencyKeys.Require(idempotencyKey);
                    var found = await bookings.FindAsync(id, ct);
                    return new SessionWordsSent(
                        await words.SendAsync(found.SessionId, form.Word, idempotencyKey, ct, only: id)
                    );
                }
            )
            .WithName("writeToBooking")
            .WithDescription("A mail to the guest; the answer comes back to the booking.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        booking
            .MapPut(
                "/companions",
                async Task<NoContent> (
                    Guid id,
                    CompanionsForm form,
                    BookingsToChange bookings,
                    BringingAlong along,
                    CancellationToken ct
                ) =>
                {
                    await bookings.FindAsync(id, ct);
                    await along.BringAsync(id, form, ct, byTeam: true);
                    return TypedResults.NoContent();
                }
            )
            .WithName("changeBookingCompanions")
            .CanBeUndone()
            .WithDescription("Whom the guest brings along. Who is new is invited, who is left out is told.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static void MapNotes(RouteGroupBuilder booking)
    {
        booking
            .MapPost(
                "/notes",
                async Task<NoContent> (Guid id, NoteForm form, BookingNotes notes, CancellationToken ct) =>
                {
                    await notes.AddAsync(id, form, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("addBookingNote")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        booking
            .MapPut(
                "/notes/{note:guid}",
                async Task<NoContent> (Guid id, Guid note, NoteForm form, BookingNotes notes, CancellationToken ct) =>
                {
                    await notes.ChangeAsync(id, note, form, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("changeBookingNote")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);

        booking
            .MapDelete(
                "/notes/{note:guid}",
                async Task<NoContent> (Guid id, Guid note, BookingNotes notes, CancellationToken ct) =>
                {
                    await notes.RemoveAsync(id, note, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("removeBookingNote")
            .ProducesProblem(403)
            .ProducesProblem(404);
    }

    private static void MapHosts(RouteGroupBuilder hosts)
    {
        hosts
            .MapGet("/", async (Guid id, SessionsToChange sessions, HostChanging changing, CancellationToken ct) =>
            {
                await sessions.FindAsync(id, ct);
                return await changing.TakersAsync(id, ct);
            })
            .WithName("listTakers")
            .WithDescription("Who is free for it and lets whoever asks book their time, with how much they have.")
            .ProducesProblem(403)
            .ProducesProblem(404);

        hosts
            .MapPost(
                "/",
                async Task<NoContent> (
                    Guid id,
                    HostChange change,
                    SessionsToChange sessions,
                    HostChanging changing,
                    CancellationToken ct
                ) =>
                {
                    await sessions.FindAsync(id, ct);
                    await changing.ChangeAsync(id, change, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("changeSessionHosts")
            .CanBeUndone()
            .WithDescription(
                "From one host to another, one more, or an added one less; with all bookings of the session."
            )
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }
}
