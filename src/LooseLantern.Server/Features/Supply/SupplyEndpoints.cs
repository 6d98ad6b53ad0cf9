using LooseLantern.Server.Features.Pages;

namespace LooseLantern.Server.Features.Supply;

/// <param name="Duration">Minutes; one of the durations, or null for the preset one.</param>
/// <param name="PageId">The page that would have these times, whose sessions count against caps and places; null for a new one.</param>
public sealed record SupplyRequest(PageTimes Times, int? Duration = null, Guid? PageId = null);

public static class SupplyEndpoints
{
    public static void MapSupply(this IEndpointRouteBuilder api)
    {
        // A question that changes nothing; it is a POST because the page it asks of is not saved yet.
        api.MapPost("/pages/supply", async (SupplyRequest request, PageEditing editing, SupplyReckoning supply, CancellationToken ct) =>
                await supply.NextTwoWeeksAsync(await editing.TryOutAsync(request.Times, request.PageId, ct), request.Duration, ct))
            .WithName("tryOutSupply").WithTags("Supply").ProducesValidationProblem();

        api.MapGet("/pages/{id:guid}/supply", async (Guid id, int? duration, PageEditing editing, SupplyReckoning supply, CancellationToken ct) =>
                await supply.NextTwoWeeksAsync(await editing.GetAsync(id, ct), duration, ct))
            .WithName("getSupply").WithTags("Supply").ProducesProblem(404);
    }
}
