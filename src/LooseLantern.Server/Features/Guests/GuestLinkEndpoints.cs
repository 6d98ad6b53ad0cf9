using LooseLantern.Core;
using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.AskingFirst;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What was booked by a link, for whoever opens it: no more than when, where and with whom.</summary>
public sealed record TakenByLink(Instant Start, Instant End, IReadOnlyList<string> Hosts);

/// <summary>An availability link as its guest sees it.</summary>
/// <param name="State">Out or opened: times can be taken; else the others tell why not.</param>
/// <param name="Page">What is offered, in the looks of its desk. Its own guest is not in it.</param>
/// <param name="Guests">Whom it is for, by name.</param>
/// <param name="KnownEmail">The one guest's email, all but the first letters masked; empty where it has to be asked
/// for.</param>
/// <param name="IsForOne">Whether who takes it is known without asking.</param>
/// <param name="Ask">Whom to ask where nothing can be taken any more.</param>
/// <param name="Asks">What its guest is asked before any times are shown; null where times are shown.</param>
public sealed record GuestLink(
    LinkState State,
    GuestPage Page,
    IReadOnlyList<string> Guests,
    string KnownEmail,
    IReadOnlyList<TakenByLink> Taken,
    string Ask,
    int Wished,
    bool IsForOne,
    AskedOfGuest? Asks = null
);

/// <summary>What a guest sends to take a time of a link. What is known already need not be sent.</summary>
/// <param name="Guest">By number, from 0, where the link is for several.</param>
/// <param name="NotMe">Whether it is taken by somebody else than the one it names.</param>
public sealed record TakeRequest(
    Instant Start,
    int Duration,
    string Zone,
    string? Name = null,
    string? Email = null,
    int? Guest = null,
    IReadOnlyDictionary<string, string>? Answers = null,
    ClockForm? Clock = null,
    bool NotMe = false
) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() => [("email", Email)];
}

/// <param name="Starts">Times that would suit, as starts of the link's first duration.</param>
/// <param name="Words">For whoever sent the link; may be empty.</param>
/// <param name="Zone">IANA id of the zone the guest named them in; empty for the link's own.</param>
/// <param name="By">Who asks, where the link does not name one guest alone; may be empty.</param>
public sealed record WishRequest(IReadOnlyList<Instant> Starts, string Words = "", string Zone = "", string By = "");

public static class GuestLinkEndpoints
{
    private const int MostWished = 6;
    private const int MostKept = 30;

    public static void MapGuestLinks(this IEndpointRouteBuilder open)
    {
        var link = open.MapGroup("/links/{address}").WithTags("Guests");

        link.MapGet("/", async (string address, GuestLinkFinding finding, GuestLinkViews views, CancellationToken ct) =>
                await views.OfAsync(address, await finding.FindAsync(address, ct), ct)
            )
            .WithName("getGuestLink")
            .ProducesProblem(404);

        link.MapGet(
                "/hosts/{host:guid}/portrait",
                async Task<FileContentHttpResult> (
                    string address,
                    Guid host,
                    GuestLinkFinding finding,
                    GuestPageViews views,
                    HttpContext context,
                    CancellationToken ct
                ) =>
                {
                    var portrait = await views.PortraitAsync((await finding.FindAsync(address, ct)).Page!, host, ct)
                        ?? throw Refusal.NotFound("portrait");
                    context.Response.Headers.CacheControl = "private, max-age=300";
                    return TypedResults.Bytes(portrait.Bytes, portrait.MediaType);
                }
            )
            .WithName("getLinkHostPortrait")
            .ProducesProblem(404);

        // Told by the screen, once somebody looks at it: what only fetches the address, as scanners of mail do, opens
        // nothing.
        link.MapPost(
                "/opened",
                async Task<NoContent> (
                    string address,
                    GuestLinkFinding finding,
                    LinkEditing editing,
                    CancellationToken ct
                ) =>
                {
                    await editing.NoteOpenedAsync((await finding.FindAsync(address, ct)).Id, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("noteLinkOpened")
            .ProducesProblem(404);

        link.MapGet(
                "/openings",
                async (
                    string address,
                    string? from,
                    string? to,
                    string? duration,
                    string? zone,
                    GuestLinkFinding finding,
                    GuestLinkOpenings openings,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(address, ct);
                    return await openings.OfAsync(found, OpeningsQuery.Read(from, to, duration, found.Page!), zone, ct);
                }
            )
            .WithName("getLinkOpenings")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        link.MapPost(
                "/bookings",
                async Task<Created<BookAnswer>> (
                    string address,
                    TakeRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string? idempotencyKey,
                    PublicAddress site,
                    GuestLinkFinding finding,
                    TimeReserving reserving,
                    MailReach reach,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(address, ct);
                    var page = found.Page!;
                    if (page.Offer!.Times.By == OfferBy.Asked)
                        throw new Refusal(StatusCodes.Status409Conflict, "asked-first");
                    var (questions, guest) = (
                        GuestQuestions.Of(page),
                        LinkGuests.WhoAnswers(found, request.Guest, request.NotMe, request.Name, request.Email)
                    );
                    new BookRequestRules(questions, page).Check(
                        new BookRequest(request.Start, request.Duration, request.Zone, guest, request.Answers)
                    );
                    IdempotencyKeys.Require(idempotencyKey);
                    var answers = QuestionAnswers.Check(questions, request.Answers);
                    var booked = await reserving.BookAsync(
                        new BookingWish(
                            page.Id,
                            request.Start,
                            request.Duration,
                            guest.Name.Trim(),
                            guest.Email.Trim(),
                            request.Zone,
                            found.GuestLanguage
                        )
                        {
                            Answers = [.. answers.Where(answer => answer.Kind != Core.Questions.QuestionKind.Others)],
                            Companions = OthersComing.Of(page, answers, guest.Email, reach),
                            GuestClock = found.Text.Clock ?? request.Clock,
                            Others = LinkGuests.BookedWith(found, guest),
                        },
                        idempotencyKey,
                        ct
                    );
                    var path = PrivateLinks.Path(booked.Secret);
                    return TypedResults.Created(
                        $"/api/public/bookings/{booked.Secret}",
                        new BookAnswer(site.Value + path, path, booked.Time.Start, booked.Time.End, GoTo: null)
                    );
                }
            )
            .WithName("takeLinkTime")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(410)
            .ProducesProblem(422);

        link.MapPost(
                "/wishes",
                async Task<NoContent> (
                    string address,
                    WishRequest request,
                    GuestLinkFinding finding,
                    LinkPost post,
                    LanternDb db,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    var found = await finding.FindAsync(address, ct);
                    var (page, now) = (found.Page!, clock.GetCurrentInstant());
                    if (request.Starts.Count is 0 or > MostWished)
                        throw Refusal.Invalid("starts", "wished-times");
                    if (request.Starts.Any(start => start <= now || start > now + Duration.FromDays(366)))
                        throw Refusal.Invalid("starts", "wished-times-ahead");
                    if (request.Words.Length > 1000)
                        throw Refusal.Invalid("words", Phrase.Of("too-long", ("most", 1000)));
                    if (request.Zone.Length > 0 && !Hours.Zones.IsKnown(request.Zone))
                        throw Refusal.Invalid("zone", "iana-zone");
                    if (request.By.Length > 0 && !Words.FitOneLine(request.By))
                        throw Refusal.Invalid("by", "your-name");
                    var by = found.Guests.Count == 1 && request.By.Length == 0 ? found.Guests[0].Name : request.By;
                    if (!found.Course.MayBeTakenAt(now))
                        throw new Refusal(StatusCodes.Status410Gone, "ended");

                    await using var transaction = await db.Database.BeginTransactionAsync(ct);
                    await db.Database.ExecuteSqlAsync(
                        $"SELECT 1 FROM links WHERE id = {found.Id} FOR NO KEY UPDATE",
                        ct
                    );
                    if (await db.Wishes.CountAsync(row => row.LinkId == found.Id, ct) + request.Starts.Count > MostKept)
                        throw new Refusal(StatusCodes.Status422UnprocessableEntity, "enough");
                    var spans = request
                        .Starts.Distinct()
                        .Order()
                        .Select(start => new Span(start, start + Duration.FromMinutes(page.Durations[0])))
                        .ToList();
                    db.Wishes.AddRange(
                        spans.Select(span => new Wish
                        {
                            WorkspaceId = found.WorkspaceId,
                            LinkId = found.Id,
                            Start = span.Start,
                            End = span.End,
                            Words = request.Words.Trim(),
                            By = by.Trim(),
                            At = now,
                        })
                    );
                    await post.TellMakerAsync(
                        found,
                        MessageKind.WishForMaker,
                        spans.ConvertAll(span => post.InWords(span, page.Zone, request.Zone)),
                        request.Words.Trim(),
                        ct,
                        by.Trim()
                    );
                    await db.SaveChangesAsync(ct);
                    await transaction.CommitAsync(ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("wishForOthers")
            .WithDescription("None of the times suits.")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(410)
            .ProducesProblem(422);
    }
}

/// <summary>Finds a link that is, or was, out by its address, and with it the workspace of the request.</summary>
public sealed class GuestLinkFinding(LanternDb db, Tenant tenant, LinkEditing editing)
{
    public async Task<AvailabilityLink> FindAsync(string address, CancellationToken ct)
    {
        if (LinkAddresses.HashOf(address) is not { } hash)
            throw Refusal.NotFound("link");
        var found = await db
            .Links.IgnoreQueryFilters()
            .Where(row => row.SecretHash == hash && row.OutAt != null)
            .Select(row => new { row.Id, row.WorkspaceId })
            .FirstOrDefaultAsync(ct)
            ?? throw Refusal.NotFound("link");
        tenant.Enter(found.WorkspaceId);
        return await editing.GetAsync(found.Id, ct);
    }
}

/// <summary>What is open of a link, for its guest.</summary>
public sealed class GuestLinkOpenings(LinkTexts texts, IClock clock)
{
    /// <param name="zone">IANA id of the reader's zone; null where it is not known.</param>
    public async Task<OpeningsAnswer> OfAsync(
        AvailabilityLink link,
        OpeningsQuery asked,
        string? zone,
        CancellationToken ct
    ) =>
        OpeningsAnswer.Of(
            link.Page!,
            asked,
            link.Course.IsOpenAt(clock.GetCurrentInstant())
                ? await texts.ShownAsync(link.Page!, link.GuestZone, asked.From, asked.To, asked.Duration, ct)
                : [],
            zone
        );
}

/// <summary>Links as their guests see them.</summary>
public sealed class GuestLinkViews(LanternDb db, GuestPageViews pages, IClock clock)
{
    /// <param name="address">The one it was opened by.</param>
    public async Task<GuestLink> OfAsync(string address, AvailabilityLink link, CancellationToken ct)
    {
        var page = link.Page!;
        var state = link.Course.StateAt(clock.GetCurrentInstant());
        var sessions = await db
            .Sessions.AsNoTracking()
            .Include(session => session.Hosts)
                .ThenInclude(host => host.Host)
            .Where(session => session.PageId == link.Id)
            .OrderBy(session => session.Time)
            .ToListAsync(ct);
        var shown = await pages.OfAsync(
            page,
            await db.Workspaces.Select(workspace => workspace.Name).SingleAsync(ct),
            ct,
            $"/api/public/links/{address}/hosts"
        );
        var isOne = LinkGuests.IsForOne(link);
        var sender = await db
            .Users.Where(person => person.Id == link.MadeBy && person.LeftAt == null)
            .Select(person => person.Name)
            .FirstOrDefaultAsync(ct);
        return new GuestLink(
            state,
            shown with
            {
                Path = $"/{LinkAddresses.Root}/{address}",
                Guest = null,
                GuestZone = await ZoneOfAsync(link, ct),
                Clock = link.Text.Clock,
            },
            [.. link.Guests.Select(guest => guest.Name)],
            isOne ? Masked(link.Guests[0].Email) : "",
            [
                .. sessions.Select(session => new TakenByLink(
                    session.Time.LowerBound,
                    session.Time.UpperBound,
                    [.. session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!.Name)]
                )),
            ],
            sender ?? page.Desk!.Name,
            link.Wishes.Count,
            isOne,
            AskedOfGuest.Of(link, clock.GetCurrentInstant())
        );
    }

    /// <summary>As it was given, or as the one guest's latest booking tells it; empty where neither does.</summary>
    private async Task<string> ZoneOfAsync(AvailabilityLink link, CancellationToken ct)
    {
        if (link.GuestZone.Length > 0 || link.Guests.Count != 1 || link.Guests[0].Email.Length == 0)
            return link.GuestZone;
        var email = link.Guests[0].Email.ToUpperInvariant();
        return await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .Where(booking => booking.GuestEmail.ToUpper() == email)
            .OrderByDescending(booking => booking.BookedAt)
            .Select(booking => booking.GuestZone)
            .FirstOrDefaultAsync(ct)
            ?? "";
    }

    /// <summary>"ot…@harbour.example": enough for its owner to tell, and no more for anybody else.</summary>
    private static string Masked(string email)
    {
        var at = email.LastIndexOf('@');
        return at < 0 ? "" : $"{email[..Math.Min(2, at)]}…{email[at..]}";
    }
}
