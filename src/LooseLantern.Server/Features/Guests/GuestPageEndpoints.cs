using LooseLantern.Core.Openings;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Committing;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <param name="Seats">Who is met: of each seat one of the hosts named.</param>
/// <param name="Places">How many guests one session takes.</param>
/// <param name="Zone">IANA id of the page's zone.</param>
/// <param name="Durations">Minutes, the first one preset.</param>
/// <param name="Now">The server's time, which is what "today" and "passed" are by.</param>
/// <param name="ApprovalHours">For how many hours at the most what a guest asks for waits for a yes; null where it is booked at once.</param>
/// <param name="FirstDate">First local date in the page's zone that may have openings.</param>
/// <param name="LastDate">Last local date in the page's zone that may have openings.</param>
public sealed record GuestPage(
    string Workspace,
    string Desk,
    string Title,
    string Description,
    PlaceKind PlaceKind,
    string Place,
    IReadOnlyList<IReadOnlyList<string>> Seats,
    int Places,
    string Zone,
    IReadOnlyList<int> Durations,
    Instant Now,
    LocalDate FirstDate,
    LocalDate LastDate,
    int? ApprovalHours,
    IReadOnlyList<Question> Questions);

/// <summary>The openings of a page, by start.</summary>
public sealed record OpeningsAnswer(string Zone, IReadOnlyList<Opening> Openings);

/// <summary>What a guest sends to reserve an opening.</summary>
/// <param name="Duration">Minutes; one that the page offers.</param>
/// <param name="Zone">IANA id of the zone the guest reads times in.</param>
/// <param name="Answers">Answers to the page's questions by their key.</param>
public sealed record BookRequest(Instant Start, int Duration, string Zone, GuestRequest Guest, IReadOnlyDictionary<string, string>? Answers = null);

public sealed record GuestRequest(string Name, string Email);

/// <param name="Link">The guest's private link, whole; it is the only key to the booking, so it is shown to nobody else.</param>
/// <param name="Path">The same from the root of the site.</param>
public sealed record BookAnswer(string Link, string Path, Instant Start, Instant End);

public static class GuestPageEndpoints
{
    public static void MapGuestPages(this IEndpointRouteBuilder open)
    {
        var page = open.MapGroup("/desks/{desk}/pages/{page}").WithTags("Guests");

        page.MapGet("/", async (string desk, string page, GuestPageFinding finding, IClock clock, CancellationToken ct) =>
            {
                var found = await finding.FindAsync(desk, page, ct);
                var now = clock.GetCurrentInstant();
                var today = now.InZone(DateTimeZoneProviders.Tzdb[found.Page.Zone]).Date;
                return new GuestPage(
                    found.Workspace, found.Page.Desk!.Name, found.Page.Title, found.Page.Description, found.Page.PlaceKind, found.Page.Place,
                    PageView.SeatNames(found.Page), found.Page.Places, found.Page.Zone, found.Page.Durations, now, today, today.PlusDays(found.Page.AheadDays), found.Page.ApprovalHours, found.Page.Questions);
            })
            .WithName("getGuestPage").ProducesProblem(404);

        page.MapGet("/openings", async (string desk, string page, string? from, string? to, string? duration,
                GuestPageFinding finding, OpeningsLoader loader, CancellationToken ct) =>
            {
                var found = await finding.FindAsync(desk, page, ct);
                var asked = OpeningsQuery.Read(from, to, duration, found.Page);
                var rules = loader.Rules(found.Page);
                return new OpeningsAnswer(found.Page.Zone, await loader.OpeningsAsync(rules, asked.From, asked.To, asked.Duration, ct));
            })
            .WithName("getOpenings").ProducesValidationProblem().ProducesProblem(404);

        page.MapPost("/bookings", async Task<Created<BookAnswer>> (string desk, string page, BookRequest request,
                [FromHeader(Name = "Idempotency-Key")] string? idempotencyKey, HttpContext context,
                GuestPageFinding finding, TimeCommitting committing, CancellationToken ct) =>
            {
                var found = await finding.FindAsync(desk, page, ct);
                new BookRequestRules(found.Page.Questions).Check(request);
                if (idempotencyKey is { Length: 0 or > 200 })
                    throw Refusal.Invalid("Idempotency-Key", "Send a key of 1 to 200 characters, or none.");

                var booked = await committing.BookAsync(
                    new BookingWish(found.Page.Id, request.Start, request.Duration, request.Guest.Name.Trim(), request.Guest.Email.Trim(), request.Zone, LanguageOf(context.Request)) { Answers = QuestionAnswers.Check(found.Page.Questions, request.Answers) },
                    idempotencyKey, ct);
                var path = PrivateLinks.Path(booked.Secret);
                return TypedResults.Created(
                    $"/api/public/bookings/{booked.Secret}",
                    new BookAnswer(PublicAddress.Of(context.Request) + path, path, booked.Time.Start, booked.Time.End));
            })
            .WithName("book").WithDescription("Accept-Language chooses the language of what is written to the guest.").ProducesValidationProblem().ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);
    }

    /// <summary>Of the languages we write in, the one the reader likes best (RFC 9110 section 12.5.4).</summary>
    private static string LanguageOf(HttpRequest request) => request.GetTypedHeaders().AcceptLanguage
        .OrderByDescending(language => language.Quality ?? 1).Select(language => language.Value.ToString().Split('-')[0].ToLowerInvariant())
        .FirstOrDefault(MeEndpoints.Languages.Contains) ?? "en";
}

/// <summary>Finds a published page by its address, and with it the workspace of the request.</summary>
public sealed class GuestPageFinding(LanternDb db, Tenant tenant, PageEditing pages)
{
    public async Task<(Page Page, string Workspace)> FindAsync(string deskAddress, string pageAddress, CancellationToken ct)
    {
        var desk = await db.Desks.IgnoreQueryFilters().AsNoTracking().FirstOrDefaultAsync(row => row.Address == deskAddress, ct)
            ?? throw Refusal.NotFound("page");
        tenant.Enter(desk.WorkspaceId);
        var page = await pages.Whole().AsNoTracking().FirstOrDefaultAsync(
                row => row.DeskId == desk.Id && row.Address == pageAddress && row.State == PageState.Published, ct)
            ?? throw Refusal.NotFound("page");
        return (page, await db.Workspaces.Select(workspace => workspace.Name).SingleAsync(ct));
    }
}
