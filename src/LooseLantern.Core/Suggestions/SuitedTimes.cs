using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.Suggestions;

/// <summary>What is wrong with the times that a guest says suit them.</summary>
public enum SuitedFault
{
    None,
    TooMany,
    EndsBeforeItStarts,
    TooLong,
    OutsideOffered,
}

/// <summary>Stretches of time that suit a guest, crossed with what is open.</summary>
public static class SuitedTimes
{
    /// <summary>How many stretches a guest gives at the most.</summary>
    public const int Most = 40;

    /// <summary>A stretch is within a day, which has 25 hours where a clock is set back.</summary>
    private static readonly Duration Longest = Duration.FromHours(25);

    /// <summary>
    /// Whether stretches can be kept. One that has begun already still counts for what is left of it.
    /// </summary>
    /// <param name="offered">From the beginning of the first date that is offered to the end of the last one, in any
    /// zone.</param>
    public static SuitedFault FaultOf(IReadOnlyList<Span> stretches, Span offered) =>
        stretches.Count > Most ? SuitedFault.TooMany
        : stretches.Any(stretch => stretch.Start >= stretch.End) ? SuitedFault.EndsBeforeItStarts
        : stretches.Any(stretch => stretch.Length > Longest) ? SuitedFault.TooLong
        : stretches.Any(stretch => !stretch.Meets(offered)) ? SuitedFault.OutsideOffered
        : SuitedFault.None;

    /// <summary>
    /// Stretches by start, with those that meet or touch as one: an appointment may lie over the seam.
    /// </summary>
    public static IReadOnlyList<Span> Joined(IEnumerable<Span> stretches) => SpanUnion.Of(stretches);

    /// <summary>The openings of which all lies in what suits.</summary>
    /// <param name="suits">Joined.</param>
    public static IEnumerable<Opening> Within(IEnumerable<Opening> openings, IReadOnlyList<Span> suits) =>
        openings.Where(opening => suits.Any(suit => suit.Contains(new Span(opening.Start, opening.End))));

    /// <summary>How many of the openings begin in each stretch and lie in what suits altogether.</summary>
    /// <param name="stretches">As they were given; those that touch count as one for what fits.</param>
    public static IReadOnlyList<int> CountOfEach(IReadOnlyList<Opening> openings, IReadOnlyList<Span> stretches)
    {
        var fit = Within(openings, Joined(stretches)).ToList();
        return [.. stretches.Select(stretch => fit.Count(opening => stretch.Contains(opening.Start)))];
    }
}
