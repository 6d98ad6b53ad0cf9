using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What was asked, for whoever has the link to answer it.</summary>
/// <param name="WaitsUntil">Until when; null where it was answered.</param>
public sealed record AskedBooking(
    string Workspace,
    string Desk,
    string Title,
    string Place,
    IReadOnlyList<string> Hosts,
    Instant Start,
    Instant End,
    string Zone,
    string GuestName,
    string GuestEmail,
    IReadOnlyList<GivenAnswer> Answers,
    Instant? WaitsUntil,
    Instant Now,
    LocalDate FirstDate,
    LocalDate LastDate,
    Instant? CancelledAt,
    CancelledBy? CancelledBy
);

/// <summary>Answers by the link in a mail. Looking at it changes nothing: machines follow links too.</summary>
public static class AnswerEndpoints
{
    public static void MapAnswers(this IEndpointRouteBuilder open)
    {
        var answers = open.MapGroup("/answers/{secret}").WithTags("Answers");

        answers
            .MapGet("/", async (string secret, AnswerFinding finding, IClock clock, CancellationToken ct) =>
            {
                var (booking, workspace) = await finding.FindAsync(secret, ct);
                var (session, page, now) = (booking.Session!, booking.Session!.Page!, clock.GetCurrentInstant());
                var (first, last) = PageRulesOf.DatesToAsk(
                    page,
                    now.InZone(DateTimeZoneProviders.Tzdb[page.Zone]).Date
                );
                return new AskedBooking(
                    workspace,
                    page.Desk!.Name,
                    page.Title,
                    page.Place,
                    [.. session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!.Name)],
                    session.Time.LowerBound,
                    session.Time.UpperBound,
                    page.Zone,
                    booking.GuestName,
                    booking.GuestEmail,
                    booking.Answers,
                    booking.WaitsUntil,
                    now,
                    first,
                    last,
                    booking.CancelledAt,
                    booking.CancelledBy
                );
            })
            .WithName("getAsked")
            .ProducesProblem(404);

        answers
            .MapGet(
                "/openings",
                async (
                    string secret,
                    string? from,
                    string? to,
                    AnswerFinding finding,
                    BookingMoving moving,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    var page = booking.Session!.Page!;
                    var asked = OpeningsQuery.Read(from, to, null, page);
                    return new OpeningsAnswer(
                        page.Zone,
                        booking.CancelledAt is null ? await moving.OpeningsAsync(booking, asked.From, asked.To, ct) : []
                    );
                }
            )
            .WithName("getAskedOpenings")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        answers
            .MapPost(
                "/accept",
                async Task<NoContent> (
                    string secret,
                    AnswerFinding finding,
                    Answering answering,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    await answering.AcceptAsync(booking.Id, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("acceptAsked")
            .ProducesProblem(404)
            .ProducesProblem(409);

        answers
            .MapPost(
                "/decline",
                async Task<NoContent> (
                    string secret,
                    DeclineForm form,
                    AnswerFinding finding,
                    Answering answering,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    await answering.DeclineAsync(booking.Id, form, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("declineAsked")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);
    }
}

/// <summary>
/// Finds a booking by the secret of the link by which it is answered, and with it the workspace of the request.
/// </summary>
public sealed class AnswerFinding(LanternDb db, Tenant tenant)
{
    public async Task<(Booking Booking, string Workspace)> FindAsync(string secret, CancellationToken ct)
    {
        var hash = PrivateLinks.Hash(secret);
        var workspaceId = await db
            .Bookings.IgnoreQueryFilters()
            .Where(row => row.AnswerSecretHash == hash)
            .Select(row => (Guid?)row.WorkspaceId)
            .FirstOrDefaultAsync(ct)
            ?? throw Refusal.NotFound("booking");
        tenant.Enter(workspaceId);
        var booking = await BookingRows
            .Whole(db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled]).AsNoTracking())
            .Include(row => row.Session!)
                .ThenInclude(session => session.Page!)
                    .ThenInclude(page => page.Desk)
            .SingleAsync(row => row.AnswerSecretHash == hash, ct);
        return (booking, await db.Workspaces.Select(workspace => workspace.Name).SingleAsync(ct));
    }
}
