using LooseLantern.Core.Openings;
using LooseLantern.Core.Suggestions;
using NodaTime;

namespace LooseLantern.Core.Links;

/// <summary>The openings of a link that its guest is shown.</summary>
public static class ShownOpenings
{
    /// <summary>All of them, or the best ones where no more than so many are to be shown; by start.</summary>
    /// <param name="zones">The zones of everybody concerned.</param>
    public static IReadOnlyList<Opening> Of(OpeningsInput input, int? most, IEnumerable<DateTimeZone> zones)
    {
        var openings = OpeningsComputation.Openings(input);
        return most is { } count && openings.Count > count
            ? [.. SuggestionsComputation.Of(input, count, zones).Select(suggestion => suggestion.Opening)]
            : openings;
    }
}
