using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

public sealed record ChangeLinkRequest(int Version, LinkForm Form);

/// <param name="Until">Until when all picked times are held; null to let them go.</param>
public sealed record HoldRequest(Instant? Until);

/// <param name="Starts">Of picked times, which are offered no more.</param>
public sealed record ReleaseRequest(IReadOnlyList<Instant> Starts);

/// <param name="Word">For the guest, in place of ours; may be empty.</param>
public sealed record SendLinkRequest(string Word = "");

/// <param name="Guests">Whom it is booked for, all at this time; null for the link's own guests. Who has no email is
/// mailed nothing.</param>
public sealed record BookForGuestRequest(Instant Start, int Duration, IReadOnlyList<LinkGuest>? Guests = null)
    : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() =>
        IMailsTo.Of("guests", Guests, guest => guest.Email);
}

public sealed record BookedForGuest(Guid BookingId, Instant Start, Instant End);

public static class LinkEndpoints
{
    private const int MostRows = 200;

    public static void MapLinks(this IEndpointRouteBuilder api)
    {
        var links = api.MapGroup("/links").WithTags("Links").RequireAuthorization(Roles.Coordinator);
        links.MapLinkDraftMail();

        links
            .MapGet(
                "/",
                async (
                    string? state,
                    string? search,
                    string? after,
                    string? before,
                    int? take,
                    LinkViews views,
                    CancellationToken ct
                ) => await views.ListAsync(StateOf(state), search, ListPlace.Of(after, before, take, MostRows), ct)
            )
            .WithName("listLinks")
            .WithDescription(
                "What waits longest comes first. Those of a mailing are told of by its row, and listed where words are searched."
            )
            .ProducesValidationProblem();

        links
            .MapGet("/{id:guid}", async (Guid id, LinkEditing editing, LinkViews views, CancellationToken ct) =>
                await views.OfAsync(await editing.GetAsync(id, ct), ct)
            )
            .WithName("getLink")
            .ProducesProblem(404);

        links
            .MapPost(
                "/",
                async Task<Created<LinkView>> (
                    LinkForm form,
                    [FromQuery(Name = "out")] bool? isOut,
                    [FromQuery(Name = "asText")] bool? asText,
                    LinkMaking making,
                    LinkViews views,
                    CancellationToken ct
                ) =>
                {
                    var link = await making.CreateAsync(form, ct, GoesOf(isOut, asText));
                    return TypedResults.Created($"/api/links/{link.Id}", await views.OfAsync(link, ct));
                }
            )
            .WithName("createLink")
            .WithDescription(
                "A draft, which no guest can open; with out=true its guest can at once, with asText=true its times are given out as text, or nothing is saved."
            )
            .ProducesValidationProblem()
            .ProducesProblem(403);

        links
            .MapPut(
                "/{id:guid}",
                async (
                    Guid id,
                    ChangeLinkRequest request,
                    [FromQuery(Name = "out")] bool? isOut,
                    [FromQuery(Name = "asText")] bool? asText,
                    LinkEditing editing,
                    LinkViews views,
                    CancellationToken ct
                ) =>
                    await views.OfAsync(
                        await editing.ChangeAsync(id, request.Version, request.Form, ct, GoesOf(isOut, asText)),
                        ct
                    )
            )
            .WithName("changeLink")
            .CanBeUndone()
            .WithDescription(
                "Also one that is out: its guest sees it as it is now. With out=true its guest can open it from then on, with asText=true its times are given out as text, or nothing is saved."
            )
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        links
            .MapDelete("/{id:guid}", async Task<NoContent> (Guid id, LinkEditing editing, CancellationToken ct) =>
            {
                await editing.DeleteAsync(id, ct);
                return TypedResults.NoContent();
            })
            .WithName("deleteLinkDraft")
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        links
            .MapPost("/{id:guid}/out", async (Guid id, LinkEditing editing, LinkViews views, CancellationToken ct) =>
                await views.OfAsync(await editing.SendOutAsync(id, ct), ct)
            )
            .WithName("sendOutLink")
            .CanBeUndone()
            .WithDescription("Its guest can open it from then on.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        links
            .MapPost("/{id:guid}/revoke", async (Guid id, LinkEditing editing, LinkViews views, CancellationToken ct) =>
                await views.OfAsync(await editing.RevokeAsync(id, ct), ct)
            )
            .WithName("revokeLink")
            .CanBeUndone()
            .ProducesProblem(403)
            .ProducesProblem(404);

        links
            .MapPut(
                "/{id:guid}/hold",
                async (Guid id, HoldRequest request, LinkEditing editing, LinkViews views, CancellationToken ct) =>
                    await views.OfAsync(await editing.HoldAsync(id, request.Until, ct), ct)
            )
            .WithName("holdLinkTimes")
            .CanBeUndone()
            .WithDescription("All picked times on all hosts' calendars, or none.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        links
            .MapPost(
                "/{id:guid}/release",
                async (Guid id, ReleaseRequest request, LinkEditing editing, LinkViews views, CancellationToken ct) =>
                    await views.OfAsync(await editing.ReleaseAsync(id, request.Starts, ct), ct)
            )
            .WithName("releaseLinkTimes")
            .CanBeUndone()
            .WithDescription("Takes some times back; the link goes on offering the rest.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        MapSending(links);
        MapTrying(links);

        links
            .MapPost(
                "/{id:guid}/bookings",
                async Task<Created<BookedForGuest>> (
                    Guid id,
                    BookForGuestRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string? key,
                    LinkBooking booking,
                    CancellationToken ct
                ) =>
                {
                    var booked = await booking.BookAsync(id, request, key, ct);
                    return TypedResults.Created($"/api/bookings/{booked.BookingId}", booked);
                }
            )
            .WithName("bookForGuest")
            .WithDescription("For a guest who rang, or stays silent.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(410)
            .ProducesProblem(422);

        links
            .MapDelete(
                "/{id:guid}/wishes/{wish:guid}",
                async Task<NoContent> (Guid id, Guid wish, LanternDb db, CancellationToken ct) =>
                {
                    if (await db.Wishes.Where(row => row.LinkId == id && row.Id == wish).ExecuteDeleteAsync(ct) == 0)
                        throw Refusal.NotFound("wish");
                    return TypedResults.NoContent();
                }
            )
            .WithName("dropWish")
            .ProducesProblem(404);
    }

    private static LinkState? StateOf(string? asked) =>
        asked is null ? null
        : Enum.TryParse<LinkState>(asked, ignoreCase: true, out var state) && Enum.IsDefined(state) ? state
        : throw Refusal.Invalid("state", "link-state");

    private static void MapSending(RouteGroupBuilder links)
    {
        links
            .MapPost(
                "/{id:guid}/mail",
                async (
                    Guid id,
                    SendLinkRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string? key,
                    LinkSending sending,
                    LinkViews views,
                    LinkEditing editing,
                    CancellationToken ct
                ) =>
                {
                    await sending.SendAsync(id, MessageKind.LinkForGuest, request.Word, key, ct);
                    return await views.OfAsync(await editing.GetAsync(id, ct), ct);
                }
            )
            .WithName("mailLink")
            .CanBeUndone()
            .WithDescription("Sends it out, and its guests the times by mail.")
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);

        links
            .MapPost(
                "/{id:guid}/ask-again",
                async (
                    Guid id,
                    SendLinkRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string? key,
                    LinkSending sending,
                    LinkViews views,
                    LinkEditing editing,
                    CancellationToken ct
                ) =>
                {
                    await sending.SendAsync(id, MessageKind.LinkAgainForGuest, request.Word, key, ct);
                    return await views.OfAsync(await editing.GetAsync(id, ct), ct);
                }
            )
            .WithName("askAgain")
            .CanBeUndone()
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static void MapTrying(RouteGroupBuilder links)
    {
        // Questions that change nothing; they are POST because the link they ask of is not saved yet.
        links
            .MapPost("/reckoning", (LinkTextRequest request, LinkReckoning reckoning, CancellationToken ct) =>
                reckoning.ReckonAsync(request, ct)
            )
            .WithName("reckonLink")
            .WithDescription("What supply, text and relaxations answer, of one form at one moment.")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        links
            .MapPost("/supply", (LinkSupplyRequest request, LinkReckoning reckoning, CancellationToken ct) =>
                reckoning.SupplyAsync(request, ct)
            )
            .WithName("tryOutLink")
            .ProducesValidationProblem();

        links
            .MapPost("/relaxations", (LinkSupplyRequest request, LinkReckoning reckoning, CancellationToken ct) =>
                reckoning.RelaxationsAsync(request, ct)
            )
            .WithName("tryOutLinkRelaxations")
            .ProducesValidationProblem();

        links
            .MapPost("/dark", (LinkDarkRequest request, LinkReckoning reckoning, CancellationToken ct) =>
            {
                if (request.FromMinute < 0 || request.ToMinute > 24 * 60 || request.ToMinute <= request.FromMinute)
                    throw Refusal.Invalid("toMinute", "day-stretch");
                if (request.Date.Year is < 1990 or > 2190)
                    throw Refusal.Invalid("date", "ask-date");
                return reckoning.WhyDarkAsync(request, ct);
            })
            .WithName("askWhyLinkDark")
            .ProducesValidationProblem();

        links
            .MapPost("/text", (LinkTextRequest request, LinkReckoning reckoning, CancellationToken ct) =>
                reckoning.TextAsync(request, ct)
            )
            .WithName("writeLinkText")
            .WithDescription("Its times as they are sent, plain and as HTML.")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        links
            .MapGet("/beginnings", (string? search, LinkBeginnings beginnings, CancellationToken ct) =>
                beginnings.FindAsync(search, ct)
            )
            .WithName("findBeginnings");

        links
            .MapGet("/beginnings/events/{entry:long}", (long entry, EventPeopleFinding people, CancellationToken ct) =>
                people.OfAsync(entry, ct)
            )
            .WithName("findPeopleOfEvent")
            .ProducesProblem(404);

        links
            .MapPost("/patterns", (PatternForm form, LinkBeginnings beginnings, CancellationToken ct) =>
                beginnings.SaveAsync(form, ct)
            )
            .WithName("saveLinkPattern")
            .ProducesValidationProblem();

        links
            .MapDelete(
                "/patterns/{id:guid}",
                async Task<NoContent> (Guid id, LinkBeginnings beginnings, CancellationToken ct) =>
                {
                    await beginnings.RemoveAsync(id, ct);
                    return TypedResults.NoContent();
                }
            )
            .WithName("removeLinkPattern")
            .ProducesProblem(404);
    }

    private static LinkGoes GoesOf(bool? isOut, bool? asText) =>
        isOut == true ? LinkGoes.Out
        : asText == true ? LinkGoes.AsText
        : LinkGoes.Nowhere;
}
