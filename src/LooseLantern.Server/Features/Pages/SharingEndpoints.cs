using System.Globalization;
using LooseLantern.Core.TimeText;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Pages;

/// <param name="Text">The next openings by day, and the page's address.</param>
public sealed record OpeningsText(string Text, int Openings);

/// <summary>A published page to hand on: as text with its next openings, and as an address for one guest.</summary>
public static class SharingEndpoints
{
    private const int DaysLookedThrough = 60;
    private const int MostDays = 10;

    public static void MapSharing(this IEndpointRouteBuilder api)
    {
        var page = api.MapGroup("/pages/{id:guid}").WithTags("Pages");

        page.MapGet(
                "/text",
                async (
                    Guid id,
                    int? days,
                    string? zone,
                    string? language,
                    int? duration,
                    PageEditing editing,
                    OpeningsInputs inputs,
                    PublicAddress site,
                    CancellationToken ct
                ) =>
                {
                    var found = Published(await editing.GetAsync(id, ct));
                    if (days is < 1 or > MostDays)
                        throw Refusal.Invalid("days", Phrase.Of("days-given", ("most", MostDays)));
                    if (zone is not null && !Zones.IsKnown(zone))
                        throw Refusal.Invalid("zone", "zone");
                    if (language is not null && !MeEndpoints.Languages.Contains(language))
                        throw Refusal.Invalid("language", "language-listed");
                    if (duration is { } minutes && !found.Durations.Contains(minutes))
                        throw Refusal.Invalid("duration", Phrase.Of("durations", ("durations", found.Durations)));
                    var rules = inputs.Rules(found);
                    var today = inputs.Today(rules);
                    var own = DateTimeZoneProviders.Tzdb[zone ?? found.Zone];
                    var openings = await inputs.OpeningsAsync(
                        rules,
                        today,
                        today.PlusDays(DaysLookedThrough),
                        duration ?? found.Durations[0],
                        ct
                    );
                    var next = openings
                        .GroupBy(opening => opening.Start.InZone(own).Date)
                        .Take(days ?? 3)
                        .SelectMany(day => day)
                        .ToList();
                    var second = own.Id == found.Zone ? null : DateTimeZoneProviders.Tzdb[found.Zone];
                    var text = TimeTextWriter.Write(
                        next,
                        new TimeTextRequest(
                            CultureInfo.GetCultureInfo(language is null or "en" ? "en-GB" : language),
                            Clock.Usual,
                            own,
                            second,
                            MergeTouching: false,
                            today
                        )
                    );
                    return new OpeningsText(
                        $"{found.Title}\n\n{text}\n\n{site.Value}{PageView.PathOf(found)}",
                        next.Count
                    );
                }
            )
            .WithName("getPageText")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        page.MapPost(
                "/personal-addresses",
                async (
                    Guid id,
                    GuestRequest guest,
                    PageEditing editing,
                    PersonalAddresses addresses,
                    CancellationToken ct
                ) => await addresses.MakeAsync(Published(await editing.HeldAsync(id, ct)), guest, ct)
            )
            .WithName("makePersonalAddress")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static Page Published(Page page) =>
        page.State == PageState.Published ? page : throw new Refusal(StatusCodes.Status409Conflict, "not-published");
}
