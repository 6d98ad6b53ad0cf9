using System.Text;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Formats.Tables;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.Views;
using Microsoft.AspNetCore.Http.HttpResults;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>Bookings as lists, as views that are saved of them, and as files.</summary>
public static class BookingListEndpoints
{
    public static void MapBookingLists(this IEndpointRouteBuilder api)
    {
        var bookings = api.MapGroup("/bookings").WithTags("Bookings");
        bookings
            .MapGet(
                "/",
                async (
                    [AsParameters] BookingQuery query,
                    string? after,
                    string? before,
                    int? take,
                    BookingLists lists,
                    CancellationToken ct
                ) => await lists.ReadAsync(query.Read(), ListPlace.Of(after, before, take), ct)
            )
            .WithName("listBookings")
            .WithDescription(
                "In the usual order those that wait for an answer come first, then upcoming ones soonest first; past and cancelled ones latest first."
            )
            .ProducesValidationProblem();

        bookings
            .MapGet(
                "/export.csv",
                async ([AsParameters] BookingQuery query, BookingExport export, CancellationToken ct) =>
                    TypedResults.File(
                        Encoding.UTF8.GetBytes("\uFEFF" + await export.TableAsync(query.Read(), ct)),
                        TableWriting.MediaType,
                        "bookings.csv"
                    )
            )
            .RequireAuthorization(Roles.Coordinator)
            .WithName("exportBookings")
            .WithDescription("Those of the list as it is chosen, in its order.")
            .Produces<string>(200, TableWriting.MediaType)
            .ProducesValidationProblem();

        bookings
            .MapGet(
                "/export.ics",
                async ([AsParameters] BookingQuery query, BookingExport export, CancellationToken ct) =>
                    TypedResults.File(
                        Encoding.UTF8.GetBytes(await export.CalendarAsync(query.Read(), ct)),
                        BookingFile.MediaType,
                        "bookings.ics"
                    )
            )
            .RequireAuthorization(Roles.Coordinator)
            .WithName("exportBookingsAsCalendar")
            .WithDescription(
                "Sessions of the list as it is chosen, one event each; of cancelled bookings there are none."
            )
            .Produces<string>(200, BookingFile.MediaType)
            .ProducesValidationProblem();

        bookings
            .MapGet("/views", (BookingSavedViews views, CancellationToken ct) => views.ListAsync(ct))
            .WithName("listBookingViews");

        bookings
            .MapPut("/views", async (BookingViewForm form, BookingSavedViews views, CancellationToken ct) =>
                new MadeId(await views.SaveAsync(form, ct))
            )
            .WithName("saveBookingView")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem();

        bookings
            .MapDelete(
                "/views/{id:guid}",
                async Task<NoContent> (Guid id, BookingSavedViews views, CancellationToken ct) =>
                {
                    await views.RemoveAsync(id, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("removeBookingView")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404);
    }
}
