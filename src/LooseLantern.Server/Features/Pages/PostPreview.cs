using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Pages;

/// <summary>Which mail to guests is looked at.</summary>
public enum PreviewedMail
{
    Booked,
    Moved,
    Cancelled,
    Reminder,
}

public sealed record PreviewRequest(PagePost Post, PreviewedMail Mail);

/// <param name="EventTitle">Of the appointment in guests' calendars; null where none is sent.</param>
/// <param name="IsMadeUp">Whether no booking of the page was at hand, so that one was made up.</param>
public sealed record PreviewAnswer(
    string Subject,
    string Text,
    string? EventTitle,
    string? EventText,
    string GuestName,
    bool IsMadeUp
);

/// <summary>A token that own words may use.</summary>
public sealed record TokenView(string Name, string Meaning);

/// <summary>Our words for each mail, which a page's own can begin with.</summary>
public sealed record OurWords(OwnWords Booked, OwnWords Moved, OwnWords Cancelled, OwnWords Reminder);

/// <summary>Shows what guests would read, by the page's latest booking.</summary>
public static class PostPreviewEndpoints
{
    private static readonly PagePostRules Checks = new();

    public static void MapPostPreview(this IEndpointRouteBuilder api)
    {
        api.MapGet("/post-tokens", () =>
                PostWords.Tokens.Select(token => new TokenView(token.Key, token.Value)).ToList()
            )
            .WithName("listPostTokens")
            .WithTags("Pages");

        api.MapGet("/post-words", (string? language) =>
            {
                OwnWords Of(MessageKind kind) => OwnWordsBeginning.Of(kind, language ?? "en");
                return new OurWords(
                    Of(MessageKind.BookedForGuest),
                    Of(MessageKind.MovedForGuest),
                    Of(MessageKind.CancelledForGuest),
                    Of(MessageKind.ReminderForGuest)
                );
            })
            .WithName("getPostWords")
            .WithTags("Pages");

        api.MapPost(
                "/pages/{id:guid}/post-preview",
                async (
                    Guid id,
                    PreviewRequest request,
                    LanternDb db,
                    PageEditing pages,
                    PostWords words,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    Checks.Check(request.Post);
                    var page = await pages.OfDesks().AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct)
                        ?? throw Refusal.NotFound("page");
                    page.Post = PagePostRules.Tidy(request.Post);
                    var latest = await db
                        .Bookings.Where(row => row.Session!.PageId == id)
                        .OrderByDescending(row => row.BookedAt)
                        .Select(row => (Guid?)row.Id)
                        .FirstOrDefaultAsync(ct);
                    var found = latest is { } known
                        ? (await AboutBooking.ReadAsync(db, [known], ct))[0] with
                        {
                            Page = page,
                        }
                        : null;
                    var about = found
                        ?? MadeUp(
                            page,
                            await db.Workspaces.Select(row => row.Name).SingleAsync(ct),
                            clock.GetCurrentInstant()
                        );
                    var (kind, was) = request.Mail switch
                    {
                        PreviewedMail.Moved => (
                            MessageKind.MovedForGuest,
                            (Core.Span?)
                                new Core.Span(
                                    about.Time.Start - Duration.FromDays(1),
                                    about.Time.End - Duration.FromDays(1)
                                )
                        ),
                        PreviewedMail.Cancelled => (MessageKind.CancelledForGuest, null),
                        PreviewedMail.Reminder => (MessageKind.ReminderForGuest, null),
                        _ => (MessageKind.BookedForGuest, null),
                    };
                    var reader = Reader.Of(about.Booking);
                    var said = words.Of(about, new Telling(Occasion.Booked) { Was = was }, reader);
                    var (mail, appointment) = (
                        GuestMails.Write(page.Post, kind, reader.Language, said),
                        GuestMails.Appointment(about, said)
                    );
                    var hidden = new InsertValues("", "", "", "https://rooms.example/a-room", "").Hidden();
                    var isInvited = page.Post.ToGuests == GuestMail.Invitation;
                    return new PreviewAnswer(
                        mail.Subject,
                        PostInserts.PutIn(mail.Text, hidden),
                        isInvited ? appointment.Subject : null,
                        isInvited ? PostInserts.PutIn(appointment.Text, hidden) : null,
                        about.Booking.GuestName,
                        found is null
                    );
                }
            )
            .WithName("previewPost")
            .WithTags("Pages")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404);
    }

    private static AboutBooking MadeUp(Page page, string workspace, Instant now)
    {
        var start = now.InZone(DateTimeZoneProviders.Tzdb[page.Zone])
            .Date.PlusDays(7)
            .At(new LocalTime(10, 0))
            .InZoneLeniently(DateTimeZoneProviders.Tzdb[page.Zone])
            .ToInstant();
        var session = new Session
        {
            WorkspaceId = page.WorkspaceId,
            PageId = page.Id,
            Time = new Core.Span(start, start + Duration.FromMinutes(page.Durations[0])).ToRange(),
            Uid = "",
        };
        session.Hosts.AddRange(
            page.Seats.OrderBy(seat => seat.Position)
                .Where(seat => seat.Hosts.Count > 0)
                .Select(
                    (seat, place) =>
                        new SessionHost
                        {
                            WorkspaceId = page.WorkspaceId,
                            HostId = seat.Hosts[0].HostId,
                            Host = seat.Hosts.OrderBy(host => host.Position).First().Host,
                            Seat = place,
                            AssignedAt = now,
                        }
                )
        );
        var booking = new Booking
        {
            WorkspaceId = page.WorkspaceId,
            SessionId = session.Id,
            Session = session,
            GuestName = "Ottilie Guestling",
            GuestEmail = "ottilie@guestling.example",
            GuestZone = page.Zone,
            BookedAt = now,
            ReplySecretHash = [],
            ProtectedReplySecret = "",
            SecretHash = [],
            ProtectedSecret = "",
        };
        return new AboutBooking(booking, session, page, workspace, new Dictionary<Guid, Person>());
    }
}
