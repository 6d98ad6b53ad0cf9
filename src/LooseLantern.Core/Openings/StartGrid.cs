using LooseLantern.Core.Days;
using LooseLantern.Core.Openings.HostRules;
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
    /// Every start on the wall clock of the page's zone whose local date lies from <paramref name="from"/> to
    /// <paramref name="to"/>, in order of time, in as few even runs as there are. The grid starts anew at each local
    /// midnight; both passes of a repeated time count and skipped time has none.
    /// </summary>
    public static List<EvenStarts> ByClock(PageRules page, LocalDate from, LocalDate to, int stepOffset)
    {
        var runs = new List<EvenStarts>();
        var step = StartsAsked.Ticks(page.Step);
        foreach (var part in new ZoneParts(page.Zone, DateRange.Around(page.Zone, from, to)))
        {
            var firstDay = Math.Max(Day.Of(from), Day.At(part.Start + part.Offset));
            var lastDay = Math.Min(Day.Of(to), Day.At(part.End + part.Offset));
            for (var day = firstDay; day <= lastDay; day++)
            {
                var midnight = day * NodaConstants.TicksPerDay - part.Offset;
                var first = midnight + StartsAsked.Ticks(stepOffset);
                if (first < part.Start)
                    first += CeilingOf(part.Start - first, step) * step;
                var end = Math.Min(part.End, midnight + NodaConstants.TicksPerDay);
                if (first < end)
                    Add(runs, new EvenStarts(first, step, (int)CeilingOf(end - first, step)));
            }
        }

        return runs;
    }

    private static void Add(List<EvenStarts> runs, EvenStarts next)
    {
        if (runs.Count > 0 && runs[^1].GoesOnWith(next))
            runs[^1] = runs[^1] with { Count = runs[^1].Count + next.Count };
        else
            runs.Add(next);
    }

    private static long CeilingOf(long length, long step) => (length + step - 1) / step;

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

        foreach (var start in ByClock(page, from, to, stepOffset: 0).SelectMany(run => run.Instants()))
        {
            if (!stretchesOfHosts.Any(index => index.Containing(start) is { HasStart: true }))
                starts.Add(start.ToUnixTimeTicks());
        }

        return [.. starts.Order().Distinct()];
    }
}
