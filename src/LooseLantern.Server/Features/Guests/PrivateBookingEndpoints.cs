using System.Text;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.TimeZones;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

public static class PrivateBookingEndpoints
{
    public static void MapPrivateBookings(this IEndpointRouteBuilder open)
    {
        var bookings = open.MapGroup("/bookings/{secret}").WithTags("Guests");

        bookings
            .MapGet(
                "/",
                async (
                    string secret,
                    PrivateBookingFinding finding,
                    LanternDb db,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    var (booking, workspace) = await finding.FindAsync(secret, ct);
                    var session = booking.Session!;
                    var page = session.Page!;
                    var (now, start) = (clock.GetCurrentInstant(), session.Time.LowerBound);
                    var (first, last) = PageRulesOf.DatesToAsk(
                        page,
                        now.InZone(DateTimeZoneProviders.Tzdb[page.Zone]).Date
                    );
                    var room = booking.CancelledAt is null
                        ? await db
                            .VideoRooms.AsNoTracking()
                            .FirstOrDefaultAsync(row => row.SessionId == session.Id && row.Link != null, ct)
                        : null;
                    var waiting = await LettingOut.WaitingAsync(db, booking.Id, ct);
                    return new PrivateBooking(
                        workspace,
                        page.Desk!.Name,
                        page.Title,
                        page.PlaceKind,
                        page.Place,
                        Hosts(session),
                        session.Time.LowerBound,
                        session.Time.UpperBound,
                        page.Zone,
                        booking.GuestZone,
                        booking.GuestName,
                        booking.GuestEmail,
                        PageView.PathOf(page),
                        now,
                        ChangesByGuests.MoveUntil(page.Changes, start),
                        ChangesByGuests.CancelUntil(page.Changes, start),
                        page.Changes.MostBrought,
                        booking.Companions,
                        GuestQuestions.Changeable(page),
                        booking.Answers,
                        page.Changes.CancelWords,
                        page.Changes.AskWhom,
                        booking.WaitsUntil,
                        room?.Link ?? "",
                        room?.Code ?? "",
                        page.Details.Face.Language,
                        page.Details.Face.Accent,
                        page.Details.Place.HostsRing,
                        Markdown.ToHtml(page.Details.Place.Directions),
                        Markdown.ToHtml(page.Details.After.Words),
                        page.Details.After.GoTo,
                        page.Details.After.OffersAnother && page.State == PageState.Published,
                        first,
                        last,
                        booking.CancelledAt,
                        booking.CancelledBy,
                        booking.CancelWord
                    )
                    {
                        Description = Markdown.ToHtml(page.Description),
                        Clock = booking.GuestClock,
                        MostMailed = PostWriting.MostCompanions,
                        MailWaits = waiting.All,
                        MailWaitsFor = waiting.For,
                        Party = booking.Party,
                        MostParty = page.Places == 1 ? 1 : Math.Min(page.Places, page.Changes.MostBrought + 1),
                        BookerName = booking.BookerName,
                        Offsets = ZoneOffsets.Of(
                            Instant.Min(start, now),
                            Instant.Max(start, last.AtStartOfDayInZone(DateTimeZone.Utc).ToInstant()),
                            page.Zone,
                            booking.GuestZone
                        ),
                    };
                }
            )
            .WithName("getPrivateBooking")
            .ProducesProblem(404);

        bookings
            .MapGet(
                "/calendar.ics",
                async (
                    string secret,
                    PublicAddress site,
                    PrivateBookingFinding finding,
                    LanternDb db,
                    PostWords words,
                    ReplyAddresses replies,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    var session = booking.Session!;
                    if (booking.CancelledAt is not null)
                        throw new Refusal(StatusCodes.Status409Conflict, "cancelled");
                    var link = site.Value + PrivateLinks.Path(secret);
                    var room = await db
                        .VideoRooms.AsNoTracking()
                        .FirstOrDefaultAsync(row => row.SessionId == session.Id && row.Link != null, ct);
                    // The same words as in the invitation that is mailed.
                    var about = (await AboutBooking.ReadAsync(db, [booking.Id], ct))[0];
                    var said = GuestMails.Appointment(
                        about,
                        words.Of(about, new Telling(Occasion.Booked), Reader.Of(booking))
                    );
                    var values = new InsertValues(
                        secret,
                        replies.Reveal(booking.ProtectedReplySecret),
                        "",
                        room?.Link ?? ScreenPhrases.Say(booking.GuestLanguage, "place.address-follows"),
                        room?.Code ?? ""
                    );
                    var place = room?.Link ?? PlaceWords.ForGuest(about.Page, booking, booking.GuestLanguage);
                    var text = BookingFile.Write(
                        new BookingEvent(
                            booking.Uid,
                            booking.Sequence,
                            booking.BookedAt,
                            session.Time.ToSpan(),
                            said.Subject,
                            place.Length > 0 ? place : null,
                            PostInserts.PutIn(said.Text, values),
                            new Uri(link)
                        )
                    );
                    return TypedResults.File(
                        Encoding.UTF8.GetBytes(text),
                        BookingFile.MediaType + "; charset=utf-8",
                        "booking.ics"
                    );
                }
            )
            .WithName("getBookingFile")
            .Produces<string>(200, BookingFile.MediaType)
            .ProducesProblem(404)
            .ProducesProblem(409);

        bookings
            .MapPost(
                "/cancel",
                async Task<NoContent> (
                    string secret,
                    CancelRequest request,
                    PrivateBookingFinding finding,
                    Cancelling cancelling,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    await cancelling.CancelAsync(booking.Id, CancelledBy.Guest, request.Word, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("cancelPrivateBooking")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        bookings
            .MapGet(
                "/openings",
                async (
                    string secret,
                    string? from,
                    string? to,
                    PrivateBookingFinding finding,
                    BookingMoving moving,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    var page = booking.Session!.Page!;
                    var asked = OpeningsQuery.Read(from, to, null, page);
                    return OpeningsAnswer.Of(
                        page,
                        asked,
                        page.State == PageState.Published && booking.CancelledAt is null
                            ? await moving.OpeningsAsync(booking, asked.From, asked.To, ct)
                            : [],
                        booking.GuestZone
                    );
                }
            )
            .WithName("getPrivateOpenings")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        bookings
            .MapPost(
                "/move",
                async Task<NoContent> (
                    string secret,
                    MoveRequest request,
                    PrivateBookingFinding finding,
                    BookingMoving moving,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    MoveRequest.Check(request);
                    await moving.MoveAsync(booking.Id, request.Start, ChangedBy.Guest, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("movePrivateBooking")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        bookings
            .MapPut(
                "/answers",
                async Task<NoContent> (
                    string secret,
                    AnswersForm form,
                    PrivateBookingFinding finding,
                    AnswerChanging changing,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    var page = booking.Session!.Page!;
                    var answers = QuestionAnswers.Check(GuestQuestions.Changeable(page), form.Answers);
                    await changing.ChangeAsync(
                        booking.Id,
                        answers,
                        ScreenedOut.FlagsOf(page, answers, booking.Companions),
                        ct
                    );
                    return TypedResults.NoContent();
                }
            )
            .WithName("changeAnswers")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        bookings
            .MapPut(
                "/companions",
                async Task<NoContent> (
                    string secret,
                    CompanionsForm form,
                    PrivateBookingFinding finding,
                    BringingAlong bringing,
                    CancellationToken ct
                ) =>
                {
                    var (booking, _) = await finding.FindAsync(secret, ct);
                    await bringing.BringAsync(booking.Id, form, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("bringAlong")
            .WithDescription("Whom the guest brings along, all of them. Each is invited by mail.")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static List<string> Hosts(Session session) =>
        session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!.Name).ToList();
}
