using NodaTime;

namespace LooseLantern.Core.Hours;

/// <summary>
/// The union of the open instants of an hours set. It is asked for every host of a page, so it counts in ticks and days
/// since the Unix epoch and walks the dates once, in order.
/// </summary>
internal sealed class OpenRuns
{
    private static readonly LocalDate Epoch = new(1970, 1, 1);

    private readonly HoursSet _hours;
    private readonly OpenTime[][] _byWeekday;
    private readonly (long From, long To, OpenTime[] Open)[] _changes;

    public OpenRuns(HoursSet hours)
    {
        _hours = hours;
        _byWeekday = new OpenTime[8][];
        for (var day = 1; day < _byWeekday.Length; day++)
            _byWeekday[day] = hours.Week.TryGetValue((IsoDayOfWeek)day, out var open) ? Sorted(open) : [];
        _changes =
            hours.Changes.Count == 0
                ? []
                : [.. hours.Changes.Select(change => (DayOf(change.From), DayOf(change.To), Sorted(change.Open)))];
    }

    /// <summary>
    /// The longest runs of open time within <paramref name="range"/>, by start, cut at its bounds; of them those that
    /// meet <paramref name="wanted"/>.
    /// </summary>
    public List<OpenStretch> Of(Span range, Span wanted)
    {
        var runs = new List<OpenStretch>((int)range.Length.TotalDays + 2);
        long runStart = 0,
            runEnd = long.MinValue;
        foreach (var interval in _hours.Zone.GetZoneIntervals(range.Start, range.End))
        {
            // Within one zone interval wall clock and instants differ by one offset.
            var offset = interval.WallOffset.Ticks;
            var start = (interval.HasStart ? Instant.Max(interval.Start, range.Start) : range.Start).ToUnixTimeTicks();
            var end = (interval.HasEnd ? Instant.Min(interval.End, range.End) : range.End).ToUnixTimeTicks();
            var lastDay = FloorDays(end + offset);
            for (var day = FloorDays(start + offset); day <= lastDay; day++)
            {
                var midnight = day * NodaConstants.TicksPerDay - offset;
                foreach (var open in OpenOn(day))
                {
                    var from = Math.Max(start, midnight + open.From * NodaConstants.TicksPerMinute);
                    var to = Math.Min(end, midnight + open.To * NodaConstants.TicksPerMinute);
                    if (to <= from)
                        continue;
                    if (from <= runEnd)
                    {
                        runEnd = Math.Max(runEnd, to);
                        continue;
                    }

                    Close(runs, runStart, runEnd, wanted);
                    (runStart, runEnd) = (from, to);
                }
            }
        }

        Close(runs, runStart, runEnd, wanted);
        return runs;
    }

    private static void Close(List<OpenStretch> runs, long start, long end, Span wanted)
    {
        if (end <= start)
            return;
        var run = new Span(Instant.FromUnixTimeTicks(start), Instant.FromUnixTimeTicks(end));
        if (run.Meets(wanted))
            runs.Add(new OpenStretch(run, HasStart: true));
    }

    /// <summary>As <see cref="HoursSet.OpenOn"/>, by day, in order of time.</summary>
    private OpenTime[] OpenOn(long day)
    {
        for (var i = _changes.Length - 1; i >= 0; i--)
        {
            if (_changes[i].From <= day && day <= _changes[i].To)
                return _changes[i].Open;
        }

        // The first of January 1970 was a Thursday.
        return _byWeekday[((day + 3) % 7 + 7) % 7 + 1];
    }

    private static OpenTime[] Sorted(IReadOnlyList<OpenTime> open)
    {
        var sorted = open.ToArray();
        if (sorted.Length > 1)
            Array.Sort(sorted, (a, b) => a.From - b.From);
        return sorted;
    }

    private static long DayOf(LocalDate date) => Period.DaysBetween(Epoch, date);

    private static long FloorDays(long ticks) =>
        ticks / NodaConstants.TicksPerDay - (ticks % NodaConstants.TicksPerDay < 0 ? 1 : 0);
}
