using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>Rule 1: the starts that the grid allows.</summary>
internal static class StartGrid
{
    /// <summary>Whether a start lies on the wall clock's grid in the page's zone.</summary>
    public static bool IsOnClock(PageRules page, Instant start, int stepOffset)
    {
        var local = start.InZone(page.Zone).TimeOfDay;
        return local.NanosecondOfDay % NodaConstants.NanosecondsPerMinute == 0
            && (local.Hour * 60 + local.Minute - stepOffset) % page.Step == 0;
    }

    /// <summary>Whether a start lies a whole number of steps (elapsed time) after the start of its stretch.</summary>
    public static bool IsOnGridOf(Instant stretchStart, Instant start, int step) =>
        (start - stretchStart).BclCompatibleTicks % Duration.FromMinutes(step).BclCompatibleTicks == 0;

    /// <summary>
    /// Takes out the starts that lie in a stretch with a start, and no whole number of steps after that.
    /// </summary>
    /// <param name="step">In minutes.</param>
    public static void KeepOnGridOf(StartSet starts, StartAxis axis, StretchIndex stretches, int step)
    {
        var grid = Duration.FromMinutes(step).BclCompatibleTicks;
        foreach (var stretch in stretches.All.Where(stretch => stretch.HasStart))
        {
            var start = stretch.Time.Start.ToUnixTimeTicks();
            var to = axis.FirstAtOrAfter(stretch.Time.End.ToUnixTimeTicks());
            for (var position = axis.FirstAtOrAfter(start); position < to; position++)
            {
                if ((axis[position] - start) % grid != 0)
                    starts.Remove(position, position + 1);
            }
        }
    }

    /// <summary>
    /// Every start on the wall clock of the page's zone, in ticks, whose local date lies from <paramref name="from"/>
    /// to <paramref name="to"/>, in order of time. The grid starts anew at each local midnight; both passes of a
    /// repeated time count and skipped time has none.
    /// </summary>
    public static List<long> ByClock(PageRules page, LocalDate from, LocalDate to, int stepOffset)
    {
        var starts = new List<long>();
        var step = Duration.FromMinutes(page.Step).BclCompatibleTicks;
        var range = DateRange.Around(page.Zone, from, to);
        foreach (var interval in page.Zone.GetZoneIntervals(range.Start, range.End))
        {
            var offset = interval.WallOffset;
            var start = interval.HasStart ? Instant.Max(interval.Start, range.Start) : range.Start;
            var end = interval.HasEnd ? Instant.Min(interval.End, range.End) : range.End;
            var (firstTick, endTick) = (start.ToUnixTimeTicks(), end.ToUnixTimeTicks());
            var firstDate = LocalDate.Max(from, start.WithOffset(offset).Date);
            var lastDate = LocalDate.Min(to, end.WithOffset(offset).Date);
            for (var date = firstDate; date <= lastDate; date = date.PlusDays(1))
            {
                var midnight = date.AtMidnight().WithOffset(offset).ToInstant().ToUnixTimeTicks();
                var nextMidnight = Math.Min(endTick, midnight + NodaConstants.TicksPerDay);
                for (var tick = midnight + stepOffset * NodaConstants.TicksPerMinute; tick < nextMidnight; tick += step)
                {
                    if (tick >= firstTick)
                        starts.Add(tick);
                }
            }
        }

        return starts;
    }

    /// <summary>
    /// Every start, in ticks, a whole number of steps (elapsed time) after the start of some stretch that contains it,
    /// and the starts by the clock that lie in no stretch with a start; in order of time, each once. Which host may use
    /// which is asked of each host again.
    /// </summary>
    public static long[] FromOpenStretches(
        PageRules page,
        LocalDate from,
        LocalDate to,
        IReadOnlyCollection<StretchIndex> stretchesOfHosts
    )
    {
        var step = Duration.FromMinutes(page.Step).BclCompatibleTicks;
        var range = DateRange.Around(page.Zone, from, to);
        var (rangeStart, rangeEnd) = (range.Start.ToUnixTimeTicks(), range.End.ToUnixTimeTicks());
        var starts = new List<long>();
        foreach (
            var stretch in stretchesOfHosts.SelectMany(index => index.All).Where(stretch => stretch.HasStart).Distinct()
        )
        {
            var (start, end) = (
                stretch.Time.Start.ToUnixTimeTicks(),
                Math.Min(stretch.Time.End.ToUnixTimeTicks(), rangeEnd)
            );
            if (start < rangeStart)
                start += (rangeStart - start) / step * step;
            for (; start < end; start += step)
                starts.Add(start);
        }

        foreach (var start in ByClock(page, from, to, stepOffset: 0))
        {
            var instant = Instant.FromUnixTimeTicks(start);
            if (!stretchesOfHosts.Any(index => index.Containing(instant) is { HasStart: true }))
                starts.Add(start);
        }

        return [.. starts.Order().Distinct()];
    }
}
