using System.Linq.Expressions;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.TimeZones;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Microsoft.Net.Http.Headers;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>A host as guests see one.</summary>
/// <param name="Line">What the host says of themselves; may be empty.</param>
/// <param name="Portrait">Where the picture is, from the root of the site; null where there is none.</param>
public sealed record GuestHost(string Name, string Line, string? Portrait);

/// <param name="Path">Where the page is now, from the root of the site; another than was asked for where it has
/// moved.</param>
/// <param name="Description">HTML that is safe to show.</param>
/// <param name="Directions">HTML that is safe to show.</param>
/// <param name="HostsRing">By phone: whether the hosts ring the guest.</param>
/// <param name="Seats">Who is met: of each seat one of the hosts named; empty where the page doesn't tell.</param>
/// <param name="Hosts">Everybody who may be met, each once; empty where the page doesn't tell.</param>
/// <param name="Places">How many guests one session takes.</param>
/// <param name="Zone">IANA id of the page's zone.</param>
/// <param name="IsPlaceZoneOnly">Whether times are to be read in that zone alone.</param>
/// <param name="Durations">Minutes, the first one preset.</param>
/// <param name="Now">The server's time, which is what "today" and "passed" are by.</param>
/// <param name="ApprovalHours">For how many hours at the most what a guest asks for waits for a yes; null where it is
/// booked at once.</param>
/// <param name="FirstDate">First local date in the page's zone that may have openings.</param>
/// <param name="LastDate">Last local date in the page's zone that may have openings.</param>
/// <param name="Language">Tag of the language its own words are in; empty for that of whoever reads.</param>
/// <param name="Accent">#rrggbb, or empty.</param>
/// <param name="MoveUntil">Minutes before the start until which a guest may move a booking; null where they may
/// not.</param>
/// <param name="Logo">Where the desk's logo is, from the root of the site; null for none.</param>
/// <param name="Banner">Where the picture of the page, or of its desk, is; null for none.</param>
/// <param name="Guest">Whom the address is for, where it is a personal one.</param>
/// <param name="CancelUntil">Minutes before the start until which a guest may cancel a booking; null where they may
/// not.</param>
public sealed record GuestPage(
    string Workspace,
    string Desk,
    string DeskPath,
    string Path,
    string Title,
    string Description,
    PlaceKind PlaceKind,
    string Place,
    string Directions,
    bool HostsRing,
    IReadOnlyList<IReadOnlyList<string>> Seats,
    IReadOnlyList<GuestHost> Hosts,
    int Places,
    string Zone,
    bool IsPlaceZoneOnly,
    IReadOnlyList<int> Durations,
    Instant Now,
    LocalDate FirstDate,
    LocalDate LastDate,
    int? ApprovalHours,
    string Language,
    string Accent,
    string? Logo,
    string? Banner,
    int? MoveUntil,
    int? CancelUntil,
    IReadOnlyList<Question> Questions,
    GuestRequest? Guest
)
{
    /// <summary>IANA id of the zone that the one it is for is known to be in; empty where that is not known.</summary>
    public string GuestZone { get; init; } = "";

    /// <summary>How many people may come with one booking, the guest too; 1 where each books alone.</summary>
    public required int MostParty { get; init; }

    /// <summary>Whether one may book for somebody else.</summary>
    public required bool ForOthers { get; init; }

    /// <summary>What the page says on cancelling; may be empty.</summary>
    public string CancelWords { get; init; } = "";

    /// <summary>By which clock its times are to be read; null for that of whoever reads.</summary>
    public ClockForm? Clock { get; init; }
}

/// <summary>The openings of a page, by start.</summary>
public sealed record OpeningsAnswer(string Zone, IReadOnlyList<Opening> Openings)
{
    /// <summary>
    /// The starts that guests are shown, where the page shows only some; all may be booked. Null where it shows all.
    /// </summary>
    public IReadOnlyList<Instant>? Shown { get; init; }

    /// <summary>Of the page's zone and of that of whoever reads, as far as the days that were asked for.</summary>
    public IReadOnlyList<ZoneOffsets> Offsets { get; init; } = [];

    /// <param name="readersZone">IANA id; null, or one that is not known, for none.</param>
    public static OpeningsAnswer Of(
        Page page,
        OpeningsQuery asked,
        IReadOnlyList<Opening> openings,
        string? readersZone
    ) =>
        new(page.Zone, openings)
        {
            Shown = page.StartsApart
                ?
                [
                    .. ShownApart
                        .Of(openings, page.Step, DateTimeZoneProviders.Tzdb[page.Zone])
                        .Select(opening => opening.Start),
                ]
                : null,
            Offsets = ZoneOffsets.Of(
                asked.From.AtStartOfDayInZone(DateTimeZone.Utc).ToInstant(),
                asked.To.AtStartOfDayInZone(DateTimeZone.Utc).ToInstant(),
                page.Zone,
                readersZone
            ),
        };
}

/// <summary>What a guest sends to reserve an opening.</summary>
/// <param name="Duration">Minutes; one that the page offers.</param>
/// <param name="Zone">IANA id of the zone the guest reads times in.</param>
/// <param name="Clock">By which clock the guest reads them; null where that is not known.</param>
/// <param name="Answers">Answers to the page's questions by their key.</param>
/// <param name="Code">What was mailed to prove the address, where the page wants that.</param>
/// <param name="Guest">Who books.</param>
/// <param name="For">Whom it is booked for, where that is somebody else and the page lets one; null for who
/// books.</param>
/// <param name="Party">How many people come, the guest too; null for the guest and those who are named.</param>
/// <param name="OneMore">Whether who is in the session already wants one more place in it.</param>
/// <param name="Address">The secret of the page's address for this one guest, where they came by that.</param>
public sealed record BookRequest(
    Instant Start,
    int Duration,
    string Zone,
    GuestRequest Guest,
    IReadOnlyDictionary<string, string>? Answers = null,
    string? Code = null,
    ClockForm? Clock = null,
    ForRequest? For = null,
    int? Party = null,
    bool OneMore = false,
    string? Address = null
) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() =>
        [("guest.email", Guest?.Email), ("for.email", For?.Email)];
}

public sealed record GuestRequest(string Name, string Email) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() => [("email", Email)];
}

/// <summary>Whom somebody else books for.</summary>
/// <param name="Email">Empty where there is none.</param>
/// <param name="MailTo">Who gets the mails.</param>
public sealed record ForRequest(string Name, string Email = "", MailGoesTo MailTo = MailGoesTo.Booker);

/// <param name="Link">The guest's private link, whole; it is the only key to the booking, so it is shown to nobody
/// else.</param>
/// <param name="Path">The same from the root of the site.</param>
/// <param name="GoTo">Where the page sends its guests on to; null where the private link is to be shown.</param>
public sealed record BookAnswer(string Link, string Path, Instant Start, Instant End, string? GoTo);

public static class GuestPageEndpoints
{
    public static void MapGuestPages(this IEndpointRouteBuilder open)
    {
        var page = open.MapGroup("/desks/{desk}/pages/{page}").WithTags("Guests");

        page.MapGet(
                "/",
                async (
                    string desk,
                    string page,
                    [FromQuery(Name = "for")] string? secret,
                    GuestPageFinding finding,
                    GuestPageViews views,
                    PersonalAddresses addresses,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(desk, page, ct);
                    return (await views.OfAsync(found.Page, found.Workspace, ct)) with
                    {
                        Guest = await addresses.GuestOfAsync(found.Page.Id, secret, ct),
                    };
                }
            )
            .WithName("getGuestPage")
            .ProducesProblem(404);

        page.MapGet(
                "/openings",
                async Task<IResult> (
                    string desk,
                    string page,
                    string? from,
                    string? to,
                    string? duration,
                    string? zone,
                    string? party,
                    [FromQuery(Name = "for")] string? secret,
                    KeptOpenings kept,
                    HttpContext context,
                    CancellationToken ct
                ) =>
                {
                    var asked = new OpeningsAsked(desk, page, from, to, duration, zone, party, secret);
                    // What works them out is only made where they are not known.
                    var answer = await kept.FindAsync(asked, ct)
                        ?? await context.RequestServices.GetRequiredService<GuestOpenings>().AnswerAsync(asked, ct);
                    context.Response.Headers.CacheControl = "no-cache";
                    return Results.Bytes(
                        answer.Body,
                        "application/json; charset=utf-8",
                        entityTag: EntityTagHeaderValue.Parse(answer.Tag)
                    );
                }
            )
            .WithName("getOpenings")
            .Produces<OpeningsAnswer>()
            .Produces(304)
            .ProducesValidationProblem()
            .ProducesProblem(404);

        page.MapGet(
                "/hosts/{host:guid}/portrait",
                async Task<FileContentHttpResult> (
                    string desk,
                    string page,
                    Guid host,
                    GuestPageFinding finding,
                    GuestPageViews views,
                    HttpContext context,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(desk, page, ct);
                    var portrait = await views.PortraitAsync(found.Page, host, ct)
                        ?? throw Refusal.NotFound("portrait");
                    context.Response.Headers.CacheControl = "public, max-age=300";
                    return TypedResults.Bytes(portrait.Bytes, portrait.MediaType);
                }
            )
            .WithName("getHostPortrait")
            .ProducesProblem(404);

        page.MapPost(
                "/bookings",
                async Task<Created<BookAnswer>> (
                    string desk,
                    string page,
                    BookRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string? idempotencyKey,
                    PublicAddress site,
                    HttpContext context,
                    GuestPageFinding finding,
                    EmailProof proof,
                    BusyNetworks networks,
                    MailReach reach,
                    WishedPages wished,
                    TimeReserving reserving,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(desk, page, ct, (trip, kept) =>
                        wished.AskAhead(trip, kept, request.Start, request.Duration)
                    );
                    var questions = GuestQuestions.Of(found.Page);
                    new BookRequestRules(questions, found.Page).Check(request);
                    IdempotencyKeys.Require(idempotencyKey);

                    var answers = QuestionAnswers.Check(questions, request.Answers);
                    var language = found.Page.Details.Face.Language is { Length: > 0 } own
                        ? own
                        : GuestLanguage.Of(context.Request);
                    var flags = ScreenedOut.Check(found.Page, questions, answers);
                    var others = OthersComing.Of(found.Page, answers, request.Guest.Email, reach);
                    var party = PartySize.Of(request.Party, others.Count, found.Page);
                    await proof.RequireAsync(
                        found.Page,
                        request.Guest.Email,
                        language,
                        request.Code,
                        networks.Asks(context),
                        ct
                    );
                    var booked = await reserving.BookAsync(
                        new BookingWish(
                            found.Page.Id,
                            request.Start,
                            request.Duration,
                            (request.For?.Name ?? request.Guest.Name).Trim(),
                            (request.For?.Email ?? request.Guest.Email).Trim(),
                            request.Zone,
                            language
                        )
                        {
                            Booker = BookerOf(request),
                            Party = party,
                            OneMore = request.OneMore,
                            Answers = [.. answers.Where(answer => answer.Kind != QuestionKind.Others)],
                            Flags = flags,
                            Companions = others,
                            GuestClock = request.Clock,
                            Known = PersonalAddresses.Known(request.Address),
                        },
                        idempotencyKey,
                        ct
                    );
                    if (booked.IsNew)
                        networks.Note(context);
                    var path = PrivateLinks.Path(booked.Secret);
                    return TypedResults.Created(
                        $"/api/public/bookings/{booked.Secret}",
                        new BookAnswer(site.Value + path, path, booked.Time.Start, booked.Time.End, GoToOf(found.Page))
                    );
                }
            )
            .WithName("book")
            .WithDescription("Accept-Language chooses the language of what is written to the guest.")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
    }

    /// <summary>Without an address of their own, mail can only go to who booked.</summary>
    private static Booker? BookerOf(BookRequest request) =>
        request.For is { } other
            ? new Booker(
                request.Guest.Name.Trim(),
                request.Guest.Email.Trim(),
                other.Email.Trim().Length == 0 ? MailGoesTo.Booker : other.MailTo
            )
            : null;

    /// <summary>Nobody is sent on who would never see the private link: it comes by no mail there.</summary>
    internal static string? GoToOf(Page page) =>
        page.Details.After.GoTo is { Length: > 0 } address && page.Post.ToGuests != GuestMail.None ? address : null;
}

/// <summary>Finds a published page by its address, and with it the workspace of the request.</summary>
public sealed class GuestPageFinding(LanternDb db, Tenant tenant, PageReading reading)
{
    public async Task<(Page Page, string Workspace)> FindAsync(
        string deskAddress,
        string pageAddress,
        CancellationToken ct,
        Action<RoundTrip, Page>? alongside = null
    )
    {
        if (await reading.LatelyAtAsync(deskAddress, pageAddress, ct, alongside) is { } lately)
            return (lately.Page, lately.Workspace.Name);
        var desk = await db
            .Desks.IgnoreQueryFilters()
            .AsNoTracking()
            .FirstOrDefaultAsync(row => row.Address == deskAddress, ct)
            ?? throw Refusal.NotFound("page");
        tenant.Enter(desk.WorkspaceId);
        var id = await PublishedAsync(row => row.DeskId == desk.Id && row.Address == pageAddress, ct)
            ?? (
                await db
                    .FormerAddresses.AsNoTracking()
                    .FirstOrDefaultAsync(row => row.DeskId == desk.Id && row.Address == pageAddress, ct)
                    is { } former
                    ? await PublishedAsync(row => row.Id == former.PageId, ct)
                    : null
            )
            ?? throw Refusal.NotFound("page");
        var found = await reading.OfAsync(id, ct) ?? throw Refusal.NotFound("page");
        return (found.Page, found.Workspace.Name);
    }

    private Task<Guid?> PublishedAsync(Expression<Func<Page, bool>> which, CancellationToken ct) =>
        db
            .DeskPages.Where(row => row.State == PageState.Published)
            .Where(which)
            .Select(row => (Guid?)row.Id)
            .FirstOrDefaultAsync(ct);
}
