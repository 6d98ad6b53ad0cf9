using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>What to offer somebody whose opening has gone.</summary>
public static class NearestOpenings
{
    /// <summary>
    /// The <paramref name="count"/> openings whose starts are nearest to <paramref name="wanted"/>, by start; of two
    /// equally near the earlier.
    /// </summary>
    public static IReadOnlyList<Opening> To(Instant wanted, IEnumerable<Opening> openings, int count) =>
        [
            .. openings
                .OrderBy(opening => opening.Start < wanted ? wanted - opening.Start : opening.Start - wanted)
                .ThenBy(opening => opening.Start)
                .Take(count)
                .OrderBy(opening => opening.Start),
        ];
}
