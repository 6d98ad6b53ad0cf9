using LooseLantern.Core.Openings;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>Says what is left where a time that somebody chose is not open (any more).</summary>
public sealed class GoneTimes(OpeningsInputs inputs)
{
    private const int NearestOffered = 6;
    private const int DaysLookedThrough = 28;

    /// <summary>409 with the nearest openings. Asked after the caller's transaction is over.</summary>
    /// <param name="detail">The code of the words for it.</param>
    /// <param name="moving">The session that would leave its time, which is not offered again; null for none.</param>
    /// <param name="isAlone">Whether nobody else stays in it: then its time is free for it.</param>
    public async Task<Refusal> RefusalAsync(
        AskedPage page,
        Instant start,
        int duration,
        string detail,
        Session? moving,
        bool isAlone,
        CancellationToken ct
    )
    {
        var from = LocalDate.Max(inputs.Today(page), start.InZone(page.Zone).Date.PlusDays(-DaysLookedThrough / 2));
        var input = await inputs.InputAsync(page, from, from.PlusDays(DaysLookedThrough), duration, ct);
        var left = input is null
            ? []
            : OpeningsComputation.Openings(
                input with
                {
                    Moving = isAlone && moving is not null ? OpeningsInputs.Id(moving.Id) : null,
                }
            );
        return new Refusal(StatusCodes.Status409Conflict, "opening-gone", detail)
        {
            More =
            {
                ["nearest"] = NearestOpenings.To(
                    start,
                    [.. left.Where(opening => opening.Start != moving?.Time.LowerBound)],
                    NearestOffered
                ),
            },
        };
    }
}
