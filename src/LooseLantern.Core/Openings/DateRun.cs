using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// The positions [From, To) of an axis whose starts share a local date without a change of the clock between them.
/// </summary>
internal readonly record struct DateRun(LocalDate Date, int From, int To)
{
    /// <summary>
    /// The runs of an axis in a zone, by time. A date comes more than once where a clock change falls within it (or,
    /// where the clock goes back over midnight, with another date between).
    /// </summary>
    public static List<DateRun> Of(StartAxis axis, DateTimeZone zone)
    {
        var runs = new List<DateRun>();
        if (axis.Count == 0)
            return runs;
        var (first, last) = (Instant.FromUnixTimeTicks(axis[0]), Instant.FromUnixTimeTicks(axis[axis.Count - 1]));
        foreach (var interval in zone.GetZoneIntervals(first, last + Duration.FromTicks(1)))
        {
            var offset = interval.WallOffset.Ticks;
            var from = interval.HasStart ? axis.FirstAtOrAfter(interval.Start.ToUnixTimeTicks()) : 0;
            var end = interval.HasEnd ? axis.FirstAtOrAfter(interval.End.ToUnixTimeTicks()) : axis.Count;
            while (from < end)
            {
                var day = FloorDiv(axis[from] + offset, NodaConstants.TicksPerDay);
                var to = Math.Min(end, axis.FirstAtOrAfter((day + 1) * NodaConstants.TicksPerDay - offset));
                runs.Add(new DateRun(Epoch.PlusDays((int)day), from, to));
                from = to;
            }
        }

        return runs;
    }

    private static readonly LocalDate Epoch = new(1970, 1, 1);

    private static long FloorDiv(long value, long divisor) => value / divisor - (value % divisor < 0 ? 1 : 0);
}
