using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// The times of one period of a rule, in order: each of its hours, minutes and seconds on each of its dates. They are
/// worked out one by one when they are asked for, since a year has 31 million seconds and a rule may list them all.
/// </summary>
internal readonly struct RepeatTimes
{
    private readonly IReadOnlyList<LocalDate> _dates;
    private readonly IReadOnlyList<int> _hours;
    private readonly IReadOnlyList<int> _minutes;
    private readonly IReadOnlyList<int> _seconds;
    private readonly IReadOnlyList<int>? _chosen;

    public RepeatTimes(
        IReadOnlyList<LocalDate> dates,
        IReadOnlyList<int> hours,
        IReadOnlyList<int> minutes,
        IReadOnlyList<int> seconds
    )
        : this(dates, hours, minutes, seconds, null) { }

    private RepeatTimes(
        IReadOnlyList<LocalDate> dates,
        IReadOnlyList<int> hours,
        IReadOnlyList<int> minutes,
        IReadOnlyList<int> seconds,
        IReadOnlyList<int>? chosen
    ) => (_dates, _hours, _minutes, _seconds, _chosen) = (dates, hours, minutes, seconds, chosen);

    public static RepeatTimes None => new([], [0], [0], [0]);

    public int Count => _chosen?.Count ?? _dates.Count * PerDate;

    private int PerDate => _hours.Count * _minutes.Count * _seconds.Count;

    public LocalDateTime this[int place]
    {
        get
        {
            var index = _chosen?[place] ?? place;
            var (date, time) = (_dates[index / PerDate], index % PerDate);
            var second = _seconds[time % _seconds.Count];
            var minute = _minutes[time / _seconds.Count % _minutes.Count];
            var hour = _hours[time / _seconds.Count / _minutes.Count];
            return date.At(new LocalTime(hour, minute, second));
        }
    }

    /// <summary>
    /// Those that BYSETPOS names: counted from 1, or from the end where negative.
    /// </summary>
    public RepeatTimes AtPositions(IEnumerable<int> positions)
    {
        var count = Count;
        return new RepeatTimes(
            _dates,
            _hours,
            _minutes,
            _seconds,
            [
                .. positions
                    .Select(position => position > 0 ? position - 1 : count + position)
                    .Where(index => index >= 0 && index < count)
                    .Distinct()
                    .Order(),
            ]
        );
    }

    /// <summary>The place of the first that is not before a time; the count where all are.</summary>
    public int FirstFrom(LocalDateTime time)
    {
        var (low, high) = (0, Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (this[middle] < time)
                low = middle + 1;
            else
                high = middle;
        }

        return low;
    }
}
