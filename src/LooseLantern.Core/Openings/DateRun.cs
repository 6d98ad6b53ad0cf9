using LooseLantern.Core.Days;
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
    public static IEnumerable<DateRun> Of(StartAxis axis, DateTimeZone zone)
    {
        if (axis.Count == 0)
            yield break;
        var last = Instant.FromUnixTimeTicks(axis[axis.Count - 1]);
        foreach (
            var part in new ZoneParts(zone, new Span(Instant.FromUnixTimeTicks(axis[0]), last + Duration.FromTicks(1)))
        )
        {
            var end = axis.FirstAtOrAfter(part.End);
            for (var from = axis.FirstAtOrAfter(part.Start); from < end; )
            {
                var day = Day.At(axis[from] + part.Offset);
                var to = Math.Min(end, axis.FirstAtOrAfter((day + 1) * NodaConstants.TicksPerDay - part.Offset));
                yield return new DateRun(Day.Date(day), from, to);
                from = to;
            }
        }
    }
}
