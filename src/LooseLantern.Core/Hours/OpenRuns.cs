using System.Runtime.InteropServices;
using LooseLantern.Core.Days;
using NodaTime;

namespace LooseLantern.Core.Hours;

/// <summary>Is told the longest runs of open time, in ticks, [start, end), by start.</summary>
internal interface ITakesRuns
{
    void Take(long start, long end);
}

/// <summary>
/// The union of the open instants of an hours set. It is asked for every host of a page, so it counts in ticks and days
/// since the Unix epoch, walks the dates once, in order, and writes on what it wrote on before.
/// </summary>
internal sealed class OpenRuns
{
    // Open times one after another, in ticks after midnight, each day's in order.
    private readonly List<(long From, long To)> _times = [];
    private readonly DayTimes[] _byWeekday = new DayTimes[8];
    private readonly List<(long FirstDay, long LastDay, DayTimes Times)> _changes = [];
    private DateTimeZone _zone = DateTimeZone.Utc;
    private long _firstChange;
    private long _lastChange;

    private readonly record struct DayTimes(int First, int After);

    /// <summary>Tells the runs within <paramref name="range"/> of the hours read last, cut at its bounds.</summary>
    public void Tell<TTaker>(Span range, TTaker taker)
        where TTaker : ITakesRuns, allows ref struct
    {
        var times = CollectionsMarshal.AsSpan(_times);
        var (runStart, runEnd) = (long.MinValue, long.MinValue);
        foreach (var part in new ZoneParts(_zone, range))
        {
            var day = Day.At(part.Start + part.Offset);
            var weekday = Day.Weekday(day);
            for (
                var midnight = day * NodaConstants.TicksPerDay - part.Offset;
                midnight < part.End;
                midnight += NodaConstants.TicksPerDay
            )
            {
                var open = day >= _firstChange && day <= _lastChange ? OpenOn(day, weekday) : _byWeekday[weekday];
                for (var i = open.First; i < open.After; i++)
                {
                    var from = Math.Max(part.Start, midnight + times[i].From);
                    var to = Math.Min(part.End, midnight + times[i].To);
                    if (to <= from)
                        continue;
                    // What touches the run before lengthens that.
                    if (from > runEnd)
                    {
                        if (runEnd > runStart)
                            taker.Take(runStart, runEnd);
                        (runStart, runEnd) = (from, to);
                    }
                    else
                        runEnd = Math.Max(runEnd, to);
                }

                day++;
                weekday = weekday == 7 ? 1 : weekday + 1;
            }
        }

        if (runEnd > runStart)
            taker.Take(runStart, runEnd);
    }

    /// <summary>
    /// Finds the stretches of <paramref name="range"/>, in order of time and in ticks, within which one week is open as
    /// the week before: no clock and no dated change lies in them.
    /// </summary>
    public void FindEvenWeeks(Span range, List<(long Start, long End)> found)
    {
        found.Clear();
        foreach (var part in new ZoneParts(_zone, range))
        {
            for (var from = part.Start; from < part.End; )
            {
                var (changeStart, changeEnd) = NextChange(from + part.Offset);
                var to = Math.Min(part.End, changeStart - part.Offset);
                if (from < to)
                    found.Add((from, to));
                from = changeEnd - part.Offset;
            }
        }
    }

    /// <summary>The first dated change that is not over, by the wall clock; one after all time where there is
    /// none.</summary>
    private (long Start, long End) NextChange(long localTicks)
    {
        var (start, end) = (long.MaxValue / 2, long.MaxValue / 2);
        foreach (var change in _changes)
        {
            var (first, after) = (
                change.FirstDay * NodaConstants.TicksPerDay,
                (change.LastDay + 1) * NodaConstants.TicksPerDay
            );
            if (after > localTicks && first < start)
                (start, end) = (first, after);
        }

        return (start, end);
    }

    /// <summary>For what is asked from then on.</summary>
    public void Read(HoursSet hours)
    {
        _zone = hours.Zone;
        _times.Clear();
        _changes.Clear();
        for (var weekday = 1; weekday < _byWeekday.Length; weekday++)
            _byWeekday[weekday] = hours.Week.TryGetValue((IsoDayOfWeek)weekday, out var open) ? Read(open) : default;
        (_firstChange, _lastChange) = (long.MaxValue, long.MinValue);
        for (var i = 0; i < hours.Changes.Count; i++)
        {
            var change = hours.Changes[i];
            var (first, last) = (Day.Of(change.From), Day.Of(change.To));
            _changes.Add((first, last, Read(change.Open)));
            (_firstChange, _lastChange) = (Math.Min(first, _firstChange), Math.Max(last, _lastChange));
        }
    }

    private DayTimes Read(IReadOnlyList<OpenTime> open)
    {
        var from = _times.Count;
        var isSorted = true;
        for (var i = 0; i < open.Count; i++)
        {
            isSorted &= i == 0 || open[i - 1].From <= open[i].From;
            _times.Add((open[i].From * NodaConstants.TicksPerMinute, open[i].To * NodaConstants.TicksPerMinute));
        }

        if (!isSorted)
            CollectionsMarshal.AsSpan(_times)[from..].Sort(static (one, other) => one.From.CompareTo(other.From));
        return new DayTimes(from, _times.Count);
    }

    /// <summary>As <see cref="HoursSet.OpenOn"/>, by day, in order of time.</summary>
    private DayTimes OpenOn(long day, int weekday)
    {
        for (var i = _changes.Count - 1; i >= 0; i--)
        {
            if (_changes[i].FirstDay <= day && day <= _changes[i].LastDay)
                return _changes[i].Times;
        }

        return _byWeekday[weekday];
    }
}
