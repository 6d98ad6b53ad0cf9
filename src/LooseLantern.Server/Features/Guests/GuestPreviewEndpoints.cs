using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What a guest who reserved would have got.</summary>
/// <param name="Words">HTML that is safe to show.</param>
/// <param name="GoTo">Where they would be sent on to; null where the private link would be shown.</param>
/// <param name="Flags">What the team would be told.</param>
public sealed record TriedBooking(Instant Start, Instant End, string Words, string? GoTo, IReadOnlyList<string> Flags);

/// <summary>The guest's page as it would be once all of it is published. Nothing is reserved by it.</summary>
public static class GuestPreviewEndpoints
{
    private const int NearestOffered = 6;

    public static void MapGuestPreviews(this IEndpointRouteBuilder api)
    {
        var preview = api.MapGroup("/pages/{id:guid}/as-guest").WithTags("Pages");

        preview
            .MapGet(
                "/",
                async (Guid id, PageEditing editing, GuestPageViews views, LanternDb db, CancellationToken ct) =>
                    await views.OfAsync(
                        await editing.AsPublishedAsync(id, ct),
                        await db.Workspaces.Select(row => row.Name).SingleAsync(ct),
                        ct
                    )
            )
            .WithName("seePageAsGuest")
            .ProducesProblem(404);

        preview
            .MapGet(
                "/openings",
                async (
                    Guid id,
                    string? from,
                    string? to,
                    string? duration,
                    string? zone,
                    string? party,
                    PageEditing editing,
                    OpeningsInputs inputs,
                    CancellationToken ct
                ) =>
                {
                    var page = await editing.AsPublishedAsync(id, ct);
                    var asked = OpeningsQuery.Read(from, to, duration, page, party);
                    return OpeningsAnswer.Of(
                        page,
                        asked,
                        await inputs.OpeningsAsync(
                            inputs.Rules(page, asked.Party),
                            asked.From,
                            asked.To,
                            asked.Duration,
                            ct
                        ),
                        zone
                    );
                }
            )
            .WithName("seeOpeningsAsGuest")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        preview
            .MapPost(
                "/bookings",
                async (
                    Guid id,
                    BookRequest request,
                    PageEditing editing,
                    MailReach reach,
                    OpeningsInputs inputs,
                    CancellationToken ct
                ) =>
                {
                    var page = await editing.AsPublishedAsync(id, ct);
                    var questions = GuestQuestions.Of(page);
                    new BookRequestRules(questions, page).Check(request);
                    if (!page.Durations.Contains(request.Duration))
                        throw Refusal.Invalid("duration", Phrase.Of("durations", ("durations", page.Durations)));
                    var answers = QuestionAnswers.Check(questions, request.Answers);
                    var flags = ScreenedOut.Check(page, questions, answers);
                    var others = OthersComing.Of(page, answers, request.Guest.Email, reach);
                    var rules = inputs.Rules(page, PartySize.Of(request.Party, others.Count, page));
                    var day = request.Start.InZone(rules.Zone).Date;
                    var openings = await inputs.OpeningsAsync(rules, day, day.PlusDays(14), request.Duration, ct);
                    if (openings.FirstOrDefault(opening => opening.Start == request.Start) is not { } found)
                    {
                        throw new Refusal(StatusCodes.Status409Conflict, "opening-gone", "opening-gone.trying")
                        {
                            More = { ["nearest"] = NearestOpenings.To(request.Start, openings, NearestOffered) },
                        };
                    }

                    return new TriedBooking(
                        found.Start,
                        found.End,
                        Markdown.ToHtml(page.Details.After.Words),
                        GuestPageEndpoints.GoToOf(page),
                        flags
                    );
                }
            )
            .WithName("bookAsGuestInVain")
            .WithDescription("Checks a booking as it would be checked, and reserves nothing.")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
    }
}
