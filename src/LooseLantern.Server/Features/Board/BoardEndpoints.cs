using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Hosting;
using NodaTime.Text;

namespace LooseLantern.Server.Features.Board;

public static class BoardEndpoints
{
    public static void MapBoard(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/board",
                async (
                    BoardDrawing board,
                    CancellationToken ct,
                    string? from = null,
                    int? days = null,
                    Guid[]? host = null,
                    string? zone = null
                ) =>
                {
                    var first = from is null ? null : LocalDatePattern.Iso.Parse(from);
                    if (first is { Success: false })
                        throw Refusal.Invalid("from", "iso-date");
                    if (zone is not null && !Zones.IsKnown(zone))
                        throw Refusal.Invalid("zone", "zone");
                    return await board.DrawAsync(first?.Value, days ?? 14, host ?? [], zone, ct);
                }
            )
            .WithName("getBoard")
            .WithTags("Board")
            .ProducesValidationProblem();
}
