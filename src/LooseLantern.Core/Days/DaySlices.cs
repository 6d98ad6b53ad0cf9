using NodaTime;

namespace LooseLantern.Core.Days;

/// <summary>
/// The part of a span that lies on one local date, in wall-clock minutes after midnight, [FromMinute, ToMinute).
/// </summary>
public readonly record struct DaySlice(LocalDate Date, int FromMinute, int ToMinute);

/// <summary>Cuts spans at local midnights, for showing them as bars in rows of days.</summary>
public static class DaySlices
{
    /// <summary>
    /// The slices of <paramref name="span"/>, by date. Minutes are rounded outwards. Positions are by the wall clock,
    /// so where a clock changes a slice may be longer or shorter than the time it takes; one that would end before it
    /// starts is at least a minute long.
    /// </summary>
    public static IEnumerable<DaySlice> Of(Span span, DateTimeZone zone)
    {
        if (span.IsEmpty)
            yield break;
        var start = span.Start.InZone(zone).LocalDateTime;
        var end = span.End.InZone(zone).LocalDateTime;
        var firstMinute = start.Hour * 60 + start.Minute;
        var lastMinute = end.Hour * 60 + end.Minute + (end.TimeOfDay.TickOfSecond > 0 || end.Second > 0 ? 1 : 0);

        for (var date = start.Date; date <= end.Date; date = date.PlusDays(1))
        {
            var from = date == start.Date ? firstMinute : 0;
            var to = date == end.Date ? lastMinute : Hours.OpenTime.MinutesOfDay;
            if (date == end.Date && date != start.Date && to == 0)
                yield break;
            yield return new DaySlice(date, from, Math.Max(to, from + 1));
        }
    }
}
