using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <param name="Word">Why, for the guest; may be empty.</param>
public sealed record CancelForm(string Word = "");

/// <param name="Total">How many appointments there are in all, of which Rows is one run; of the cancelled, how many
/// bookings.</param>
/// <param name="Rows">All bookings of a group session stand together.</param>
public sealed record BookingList(Instant Now, int Total, IReadOnlyList<BookingRow> Rows);

public static class BookingEndpoints
{
    private const int MostRows = 100;

    public static void MapBookings(this IEndpointRouteBuilder api)
    {
        // Those that wait for an answer come first, then upcoming ones soonest first, past ones latest first; a session
        // that is under way is still to come. A group session is one appointment, however many come to it.
        api.MapGet(
                "/bookings",
                async (
                    bool? past,
                    bool? cancelled,
                    string? search,
                    int? skip,
                    int? take,
                    LanternDb db,
                    BookingRows whole,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    var now = clock.GetCurrentInstant();
                    var (from, most) = (Math.Max(skip ?? 0, 0), Math.Clamp(take ?? 50, 1, MostRows));
                    var bookings =
                        cancelled == true
                            ? db
                                .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
                                .AsNoTracking()
                                .Where(row => row.CancelledAt != null)
                            : db.Bookings.AsNoTracking();
                    if (!string.IsNullOrWhiteSpace(search))
                    {
                        var like = Words.Containing(search);
                        bookings = bookings.Where(row =>
                            EF.Functions.ILike(row.GuestName, like, "\\")
                            || EF.Functions.ILike(row.GuestEmail, like, "\\")
                            || EF.Functions.ILike(row.BookerName, like, "\\")
                            || EF.Functions.ILike(row.BookerEmail, like, "\\")
                            || EF.Functions.ILike(row.Session!.Page!.Title, like, "\\")
                        );
                    }

                    if (cancelled == true)
                    {
                        var ended = await BookingRows
                            .Whole(
                                bookings
                                    .OrderByDescending(row => row.CancelledAt)
                                    .ThenBy(row => row.Id)
                                    .Skip(from)
                                    .Take(most)
                            )
                            .ToListAsync(ct);
                        return new BookingList(
                            now,
                            await bookings.CountAsync(ct),
                            await whole.OfAsync(ended, false, now, ct)
                        );
                    }

                    var sessions = db
                        .Sessions.AsNoTracking()
                        .Where(session => bookings.Any(row => row.SessionId == session.Id))
                        .Where(session =>
                            past == true ? session.Time.UpperBound <= now : session.Time.UpperBound > now
                        );
                    var ordered =
                        past == true
                            ? sessions.OrderByDescending(session => session.Time.LowerBound)
                            : sessions
                                .OrderByDescending(session =>
                                    session.Bookings.Any(row =>
                                        row.WaitsUntil != null
                                        || row.WishStart != null
                                        || row.Reply == GuestReply.Declined
                                    )
                                    || db.WrittenEvents.Any(written =>
                                        written.SessionId == session.Id && written.Outside != OutsideChange.None
                                    )
                                )
                                .ThenBy(session => session.Time.LowerBound);
                    var ids = await ordered
                        .ThenBy(session => session.Id)
                        .Skip(from)
                        .Take(most)
                        .Select(session => session.Id)
                        .ToListAsync(ct);
                    var rows = await BookingRows
                        .Whole(bookings.Where(row => ids.Contains(row.SessionId)))
                        .ToListAsync(ct);
                    var places = ids.Select((id, place) => (id, place))
                        .ToDictionary(pair => pair.id, pair => pair.place);
                    return new BookingList(
                        now,
                        await sessions.CountAsync(ct),
                        await whole.OfAsync(
                            [
                                .. rows.OrderBy(row => places[row.SessionId])
                                    .ThenBy(row => row.BookedAt)
                                    .ThenBy(row => row.Id),
                            ],
                            past != true,
                            now,
                            ct
                        )
                    );
                }
            )
            .WithName("listBookings")
            .WithTags("Bookings");

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
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }
}

/// <summary>Finds bookings that somebody of the team wants to change, if they may.</summary>
public sealed class BookingsToChange(LanternDb db, Allowances allowances)
{
    /// <exception cref="Refusal">404 where there is none that stands, 403 where its hosts don't let the person who
    /// asks.</exception>
    public async Task<Booking> FindAsync(Guid id, CancellationToken ct)
    {
        var booking = await BookingRows
            .Whole(db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled]).AsNoTracking())
            .FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("booking");
        await allowances.RequireAsync(booking.Session!.Hosts.ConvertAll(host => host.HostId), Allowance.Move, ct);
        return booking;
    }
}
