using LooseLantern.Core.Openings;

namespace LooseLantern.Core.Suggestions;

/// <summary>What speaks for an opening.</summary>
public enum SuggestedFor
{
    /// <summary>It lies next to what the hosts already have.</summary>
    NextToOthers,

    /// <summary>It leaves no time too short to use between itself and what is before and after.</summary>
    NoCrumbs,

    /// <summary>It lies within decent hours in every zone concerned.</summary>
    DecentHours,

    /// <summary>It is among the first.</summary>
    Soon,

    /// <summary>Nothing else is suggested for its day.</summary>
    AnotherDay,

    /// <summary>Nothing else is suggested for its half of the day.</summary>
    AnotherHalfDay,
}

/// <summary>
/// How much each of it counts, in points for an opening that has all of it. Weights are relative to one another.
/// </summary>
/// <param name="NextToOthers">Falls from all at no gap to nothing at <see cref="SuggestionsComputation.NearWithin"/>,
/// over the mean of the seats.</param>
/// <param name="NoCrumbs">Half for each side without a crumb, over the mean of the seats.</param>
/// <param name="DecentHours">Falls from all within 8:00 to 18:00 to nothing two hours outside, by the worst
/// zone.</param>
/// <param name="Soon">Falls from all today by half every <see cref="SuggestionsComputation.HalvesEvery"/>.</param>
/// <param name="AnotherDay">All for the first of a day.</param>
/// <param name="AnotherHalfDay">All for the first of a half of a day, divided at 12:00 in the page's zone.</param>
public sealed record SuggestionWeights(
    double NextToOthers = 3,
    double NoCrumbs = 3,
    double DecentHours = 6,
    double Soon = 2,
    double AnotherDay = 3,
    double AnotherHalfDay = 2
);

/// <summary>A good opening.</summary>
/// <param name="Why">What speaks for it, the weightiest first. Never empty.</param>
/// <param name="Score">Points by the weights, for comparing within one answer.</param>
public sealed record Suggestion(Opening Opening, IReadOnlyList<Praise> Why, double Score);

/// <summary>One thing that speaks for a suggestion.</summary>
/// <param name="Points">What it counted.</param>
public sealed record Praise(SuggestedFor For, double Points)
{
    /// <summary>The host next to whose time it lies.</summary>
    public string? Host { get; init; }

    /// <summary>That host's nearest time that is taken.</summary>
    public Span? Neighbour { get; init; }
}
