using LooseLantern.Core.Links;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Mvc;
using NodaTime;

namespace LooseLantern.Server.Features.AskingFirst;

/// <param name="Stretches">What suits, within the dates that are offered; at most 40.</param>
/// <param name="Duration">Minutes; null for the link's first.</param>
public sealed record FitsRequest(IReadOnlyList<SuitedStretch> Stretches, int? Duration = null);

/// <param name="Counts">How many of ours fit that begin in each stretch, in the order they were asked.</param>
public sealed record FitsAnswer(IReadOnlyList<int> Counts);

/// <param name="Stretches">What suits, within the dates that are offered; at most 40.</param>
/// <param name="Zone">IANA id of the zone they were named in.</param>
/// <param name="Duration">Minutes; null for the link's first.</param>
/// <param name="Guest">By number, from 0, where the link is for several.</param>
/// <param name="NotMe">Whether it is somebody else than the one it names.</param>
/// <param name="Words">For whoever sent the link; may be empty.</param>
/// <param name="Answers">To what the link asks, where the best that fits is booked by itself; else it is not
/// asked.</param>
public sealed record SuitedTimesRequest(
    IReadOnlyList<SuitedStretch> Stretches,
    string Zone,
    string? Name = null,
    string? Email = null,
    int? Guest = null,
    bool NotMe = false,
    ClockForm? Clock = null,
    string Words = "",
    int? Duration = null,
    IReadOnlyDictionary<string, string>? Answers = null
) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() => [("email", Email)];
}

/// <param name="Path">Of the guest's private link.</param>
public sealed record BookedBySuiting(string Path, Instant Start, Instant End);

/// <param name="Booked">What was booked by itself; null where whoever sent the link chooses.</param>
public sealed record SuitedTimesAnswer(BookedBySuiting? Booked);

/// <summary>An opening that suits a guest.</summary>
/// <param name="Why">What speaks for it, the weightiest first.</param>
/// <param name="Host">Next to whose time it lies.</param>
public sealed record FitView(Instant Start, Instant End, IReadOnlyList<Core.Suggestions.SuggestedFor> Why, Guid? Host);

/// <summary>What suits a guest of a link, and what of it fits.</summary>
/// <param name="Fits">The best first.</param>
public sealed record GuestTimesView(GuestTimes Guest, IReadOnlyList<FitView> Fits);

public static class SuitedTimesEndpoints
{
    private const int MostRanked = 8;

    /// <summary>For guests who are asked first.</summary>
    public static void MapSuitedTimesOfGuests(this IEndpointRouteBuilder open)
    {
        var link = open.MapGroup("/links/{address}/suited-times").WithTags("Guests");

        // A question that changes nothing; it is POST because of how much is asked.
        link.MapPost(
                "/fits",
                async (
                    string address,
                    FitsRequest request,
                    GuestLinkFinding finding,
                    SuitedTimesCrossing crossing,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    var found = await FindAsync(address, finding, ct);
                    SuitedTimesRules.CheckStretches(found, request.Stretches, clock.GetCurrentInstant());
                    var duration = SuitedTimesRules.DurationOf(found, request.Duration);
                    return new FitsAnswer(
                        found.Course.MayBeTakenAt(clock.GetCurrentInstant())
                            ? await crossing.CountsAsync(found, request.Stretches, duration, ct)
                            : [.. request.Stretches.Select(_ => 0)]
                    );
                }
            )
            .WithName("countFits")
            .WithDescription("How many of our times fit what suits a guest.")
            .ProducesValidationProblem()
            .ProducesProblem(404);

        link.MapPost(
                "/",
                async (
                    string address,
                    SuitedTimesRequest request,
                    [FromHeader(Name = "Idempotency-Key")] string? idempotencyKey,
                    GuestLinkFinding finding,
                    SuitedTimesSending sending,
                    CancellationToken ct
                ) =>
                {
                    IdempotencyKeys.Require(idempotencyKey);
                    var found = await FindAsync(address, finding, ct);
                    return new SuitedTimesAnswer(await sending.SendAsync(found, request, idempotencyKey, ct));
                }
            )
            .WithName("sendSuitedTimes")
            .WithDescription("Which times suit a guest who is asked first.")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(410)
            .ProducesProblem(422);
    }

    /// <summary>For whoever sent the link.</summary>
    public static void MapSuitedTimes(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/links/{id:guid}/suited-times",
                async Task<IReadOnlyList<GuestTimesView>> (
                    Guid id,
                    LinkEditing editing,
                    SuitedTimesCrossing crossing,
                    CancellationToken ct
                ) =>
                {
                    var link = await editing.GetAsync(id, ct);
                    var seen = new List<GuestTimesView>();
                    foreach (var guest in link.Suits.OrderByDescending(one => one.At))
                    {
                        // Of lengths that are offered no more the link's first takes the place.
                        var duration = link.Page!.Durations.Contains(guest.Duration)
                            ? guest.Duration
                            : link.Page.Durations[0];
                        var ranked = await crossing.RankedAsync(
                            link,
                            guest.Stretches,
                            duration,
                            guest.Zone,
                            MostRanked,
                            ct
                        );
                        seen.Add(
                            new GuestTimesView(
                                guest,
                                [
                                    .. ranked.Select(fit => new FitView(
                                        fit.Opening.Start,
                                        fit.Opening.End,
                                        [.. fit.Why.Select(praise => praise.For)],
                                        fit
                                            .Why.FirstOrDefault(praise =>
                                                praise.For == Core.Suggestions.SuggestedFor.NextToOthers
                                            )
                                            ?.Host
                                            is { } host
                                            ? Guid.Parse(host)
                                            : null
                                    )),
                                ]
                            )
                        );
                    }

                    return seen;
                }
            )
            .WithName("listSuitedTimes")
            .WithTags("Links")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404);

    private static async Task<AvailabilityLink> FindAsync(
        string address,
        GuestLinkFinding finding,
        CancellationToken ct
    )
    {
        var found = await finding.FindAsync(address, ct);
        return found.Page!.Offer!.Times.By == OfferBy.Asked ? found : throw Refusal.NotFound("link");
    }
}

/// <summary>What asking guests first needs.</summary>
public static class AskingFirstFeature
{
    public static IServiceCollection AddAskingFirst(this IServiceCollection services) =>
        services.AddScoped<SuitedTimesCrossing>().AddScoped<SuitedTimesSending>();
}
