using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// Which of a page's openings guests are shown where starts that stand a few minutes apart would only confuse them: of
/// each local date the first, then each next that starts a step or more later. It takes nothing from what may be
/// booked.
/// </summary>
public static class ShownApart
{
    /// <param name="openings">By start.</param>
    /// <param name="step">Whole minutes of elapsed time, from 1.</param>
    /// <param name="zone">The page's.</param>
    public static IReadOnlyList<Opening> Of(IReadOnlyList<Opening> openings, int step, DateTimeZone zone)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(step, 1);
        var shown = new List<Opening>();
        foreach (var opening in openings)
        {
            var isNext =
                shown.Count == 0
                || opening.Start.InZone(zone).Date != shown[^1].Start.InZone(zone).Date
                || opening.Start - shown[^1].Start >= Duration.FromMinutes(step);
            if (isNext)
                shown.Add(opening);
        }

        return shown;
    }
}
