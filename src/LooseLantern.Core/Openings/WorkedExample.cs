using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>What the grid and the buffers of a page come to, worked from one of its openings.</summary>
/// <param name="Starts">The opening's start and the next two of the grid, whether they are open or not.</param>
/// <param name="FreeFrom">When whoever takes the opening is free for the same page again.</param>
/// <param name="Next">The first start of the grid from then on.</param>
public sealed record WorkedExample(IReadOnlyList<Instant> Starts, Instant FreeFrom, Instant Next)
{
    private const int StartsTold = 3;

    /// <param name="opening">One of the page's.</param>
    public static WorkedExample Of(PageRules page, Opening opening)
    {
        // Each of two sessions is kept free of the other's buffers, so between them lies the larger one.
        var freeFrom = opening.End + Duration.FromMinutes(Math.Max(page.BufferBefore, page.BufferAfter));
        return new WorkedExample(
            [.. Grid(page, opening.Start, freeFrom).Take(StartsTold)],
            freeFrom,
            Grid(page, opening.Start, freeFrom).First(start => start >= freeFrom)
        );
    }

    /// <summary>
    /// Starts from one on, at the least to the third day after an instant; those of a stretch are counted from that
    /// one.
    /// </summary>
    private static IEnumerable<Instant> Grid(PageRules page, Instant first, Instant until)
    {
        if (page.StepFrom == StepFrom.Open)
            return Enumerable
                .Range(0, int.MaxValue)
                .Select(step => first + Duration.FromMinutes((long)step * page.Step));
        // Every day has a start at the least.
        return StartGrid
            .ByClock(
                page,
                first.InZone(page.Zone).Date,
                until.InZone(page.Zone).Date.PlusDays(StartsTold),
                page.StepOffset
            )
            .SelectMany(run => run.Instants())
            .Where(start => start >= first);
    }
}
