using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>Rule 1: the starts that the grid allows.</summary>
internal static class StartGrid
{
    /// <summary>
    /// Every start on the wall clock of the page's zone whose local date lies from From to To, in order of time. The grid starts anew at
    /// each local midnight; both passes of a repeated time count and skipped time has none.
    /// </summary>
    public static IEnumerable<Instant> ByClock(OpeningsInput input, int stepOffset)
    {
        var page = input.Page;
        var range = DateRange.Around(page.Zone, input.From, input.To);
        foreach (var interval in page.Zone.GetZoneIntervals(range.Start, range.End))
        {
            var offset = interval.WallOffset;
            var start = interval.HasStart ? Instant.Max(interval.Start, range.Start) : range.Start;
            var end = interval.HasEnd ? Instant.Min(interval.End, range.End) : range.End;
            var firstDate = LocalDate.Max(input.From, start.WithOffset(offset).Date);
            var lastDate = LocalDate.Min(input.To, end.WithOffset(offset).Date);
            for (var date = firstDate; date <= lastDate; date = date.PlusDays(1))
            {
                var midnight = date.AtMidnight().WithOffset(offset).ToInstant();
                for (var minute = stepOffset; minute < Hours.OpenTime.MinutesOfDay; minute += page.Step)
                {
                    var candidate = midnight + Duration.FromMinutes(minute);
                    if (start <= candidate && candidate < end) yield return candidate;
                }
            }
        }
    }

    /// <summary>
    /// Every start a whole number of steps (elapsed time) after the start of some stretch that contains it, and the starts by the clock
    /// that lie in no stretch with a start. Which host may use which is asked of each host again.
    /// </summary>
    public static IEnumerable<Instant> FromOpenStretches(OpeningsInput input, IReadOnlyCollection<StretchIndex> stretchesOfHosts)
    {
        var step = Duration.FromMinutes(input.Page.Step);
        var range = DateRange.Around(input.Page.Zone, input.From, input.To);
        var starts = new SortedSet<Instant>();
        foreach (var stretch in stretchesOfHosts.SelectMany(index => index.All).Where(stretch => stretch.HasStart).Distinct())
        {
            var skipped = stretch.Time.Start < range.Start ? (long)Math.Floor((range.Start - stretch.Time.Start) / step) : 0;
            for (var start = stretch.Time.Start + step * skipped; start < stretch.Time.End && start < range.End; start += step)
                starts.Add(start);
        }

        foreach (var start in ByClock(input, stepOffset: 0))
        {
            if (!stretchesOfHosts.Any(index => index.Containing(start) is { HasStart: true })) starts.Add(start);
        }

        return starts;
    }
}
