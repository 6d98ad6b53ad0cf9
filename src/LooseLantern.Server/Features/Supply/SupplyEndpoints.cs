using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Supply;

/// <param name="Duration">Minutes; one of the durations, or null for the preset one.</param>
/// <param name="PageId">The page that would have these times, whose sessions count against caps and places; null for a
/// new one.</param>
/// <param name="Weeks">How many weeks from today on; 2 where it is null.</param>
public sealed record SupplyRequest(PageTimes Times, int? Duration = null, Guid? PageId = null, int? Weeks = null);

/// <param name="Date">A local date of the page's zone.</param>
/// <param name="FromMinute">Minutes after midnight.</param>
/// <param name="ToMinute">Minutes after midnight, after <paramref name="FromMinute"/>.</param>
public sealed record DarkRequest(
    PageTimes Times,
    int? Duration,
    Guid? PageId,
    LocalDate Date,
    int FromMinute,
    int ToMinute
);

/// <summary>Questions that change nothing; they are POST because the page they ask of is not saved yet.</summary>
public static class SupplyEndpoints
{
    public static void MapSupply(this IEndpointRouteBuilder api)
    {
        var supply = api.MapGroup("/pages").WithTags("Supply");

        supply
            .MapPost(
                "/supply",
                async (SupplyRequest request, PageEditing editing, SupplyReckoning reckoning, CancellationToken ct) =>
                    await reckoning.NextWeeksAsync(
                        await editing.TryOutAsync(request.Times, request.PageId, ct),
                        request.Duration,
                        WeeksOf(request.Weeks),
                        ct
                    )
            )
            .WithName("tryOutSupply")
            .ProducesValidationProblem();

        supply
            .MapPost(
                "/relaxations",
                async (
                    SupplyRequest request,
                    PageEditing editing,
                    RelaxationReckoning reckoning,
                    CancellationToken ct
                ) =>
                    await reckoning.OfAsync(
                        await editing.TryOutAsync(request.Times, request.PageId, ct),
                        request.Duration,
                        WeeksOf(request.Weeks),
                        (relaxation, now) => RelaxationPatch.Of(request.Times, relaxation, now),
                        ct
                    )
            )
            .WithName("tryOutRelaxations")
            .ProducesValidationProblem();

        supply
            .MapPost(
                "/dark",
                async (DarkRequest request, PageEditing editing, DarkReckoning reckoning, CancellationToken ct) =>
                {
                    if (request.FromMinute < 0 || request.ToMinute > 24 * 60 || request.ToMinute <= request.FromMinute)
                        throw Refusal.Invalid("toMinute", "day-stretch");
                    if (request.Date.Year is < 1990 or > 2190)
                        throw Refusal.Invalid("date", "ask-date");
                    return await reckoning.OfAsync(
                        await editing.TryOutAsync(request.Times, request.PageId, ct),
                        request,
                        ct
                    );
                }
            )
            .WithName("askWhyDark")
            .ProducesValidationProblem();

        supply
            .MapGet(
                "/{id:guid}/supply",
                async (
                    Guid id,
                    int? duration,
                    int? weeks,
                    PageEditing editing,
                    SupplyReckoning reckoning,
                    CancellationToken ct
                ) => await reckoning.NextWeeksAsync(await editing.GetAsync(id, ct), duration, WeeksOf(weeks), ct)
            )
            .WithName("getSupply")
            .WithDescription("Of the page as guests have it.")
            .ProducesValidationProblem()
            .ProducesProblem(404);
    }

    private static int WeeksOf(int? weeks) =>
        weeks is null or (>= 1 and <= 8) ? weeks ?? 2 : throw Refusal.Invalid("weeks", "weeks-counted");
}
