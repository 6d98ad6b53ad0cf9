using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// One RRULE (RFC 5545 section 3.3.10), worked out on the wall clock: which local times it names. Zones are for the
/// caller to apply, since a repetition follows the wall clock and not elapsed time. Periods that end before what is
/// asked for are passed over and not walked through; every date and time that is looked at is a step of the budget, so
/// that no rule, however it is written, takes longer than that.
/// </summary>
internal sealed class Repetition
{
    private const int SecondsOfADay = 24 * 60 * 60;

    // Each number by itself, made once: there can be a million periods.
    private static readonly int[][] Alone = [.. Enumerable.Range(0, 60).Select(number => new[] { number })];

    private readonly RepeatRule _rule;
    private readonly RepeatDates _dates;
    private readonly LocalDateTime _first;
    private readonly LocalDateTime? _last;
    private readonly IReadOnlyList<int> _hours;
    private readonly IReadOnlyList<int> _minutes;
    private readonly IReadOnlyList<int> _seconds;
    private LocalDate[] _day;

    private Repetition(RepeatRule rule, LocalDateTime first, LocalDateTime? last, bool isOfDays)
    {
        (_rule, _first, _last) = (rule, first, last);
        _dates = new RepeatDates(rule, first.Date);
        _day = [first.Date];
        _hours = TimesOf(rule.Hours, first.Hour);
        _minutes = TimesOf(rule.Minutes, first.Minute);
        _seconds = TimesOf(rule.Seconds, first.Second);

        // Whole days have no time that could be listed.
        IReadOnlyList<int> TimesOf(IReadOnlyList<int> listed, int own) =>
            listed.Count == 0 || isOfDays ? [own] : listed;
    }

    /// <summary>How often it repeats.</summary>
    public RepeatEvery Every => _rule.Every;

    /// <param name="first">The DTSTART that the rule belongs to.</param>
    /// <param name="toLocal">The wall clock at an instant, for an UNTIL given in UTC.</param>
    /// <exception cref="EventFaultException">When the rule can't be read.</exception>
    public static Repetition Read(ContentLine line, TimeValue first, Func<Instant, LocalDateTime> toLocal)
    {
        var rule = RepeatRule.Read(line);
        if (first.IsDate && rule.Every >= RepeatEvery.Hour)
            throw new EventFaultException(line.Line, "Whole days can't repeat within a day.");
        LocalDateTime? last = rule.Until switch
        {
            null => null,
            // A bare date means all of that day.
            { IsDate: true } day => day.Local.Date.At(LocalTime.MaxValue),
            { IsUtc: true } until when !first.IsUtc => toLocal(until.Local.InUtc().ToInstant()),
            var until => until.Local,
        };
        if (first.IsDate && last is { } time)
            last = time.Date.At(LocalTime.MaxValue);
        return new Repetition(rule, first.Local, last, first.IsDate);
    }

    /// <summary>
    /// The local starts from <paramref name="from"/> until before <paramref name="until"/>, in order, as far as the
    /// budget goes.
    /// </summary>
    public IEnumerable<LocalDateTime> Starts(LocalDateTime from, LocalDateTime until, EventBudget budget)
    {
        var left = _rule.Count;
        var days = Days(until.Date) - Days(_first.Date);
        for (var period = FirstPeriod(from, ref left); ; period++)
        {
            if (left <= 0 || IsBeyond(period, days) || !budget.Step())
                yield break;
            var start = StartOf(period);
            if (start >= until || start > _last)
                yield break;
            var times = TimesOf(period, start, until, budget, out var next);
            if (budget.IsOver)
                yield break;
            var end = times.Count;
            // Those of a period that lies before what is asked for only count.
            var at = times.FirstFrom(LocalDateTime.Max(_first, left is null ? from : _first));
            if (left is { } count && end > 0 && times[end - 1] < from && times[end - 1] <= (_last ?? until))
            {
                left = count - (end - at);
                at = end;
            }

            for (; at < end; at++)
            {
                if (left <= 0 || !budget.Step())
                    yield break;
                var time = times[at];
                if (time >= until || time > _last)
                    yield break;
                left--;
                if (time >= from)
                    yield return time;
            }

            period = next;
        }
    }

    /// <summary>
    /// The first period in which there may be something, counted in intervals from the event's start.
    /// </summary>
    /// <param name="left">How many are left to come; those of periods that are passed over are taken off.</param>
    private long FirstPeriod(LocalDateTime from, ref long? left)
    {
        if (from <= _first)
            return 0;
        var between = _rule.Every switch
        {
            RepeatEvery.Year => from.Year - _first.Year,
            RepeatEvery.Month => (from.Year - _first.Year) * 12 + from.Month - _first.Month,
            RepeatEvery.Week => (Days(from.Date) - Days(_first.Date)) / 7,
            RepeatEvery.Day => Days(from.Date) - Days(_first.Date),
            _ => (Seconds(from) - Seconds(_first)) / LengthOf(_rule.Every),
        };
        var passed = Math.Max(0, between / _rule.Interval - 1);
        if (left is null)
            return passed;
        // One in each period, unless a rule says more than how often.
        if (!_rule.IsPlain || _rule.Every < RepeatEvery.Week)
            return 0;
        passed = Math.Min(passed, left.Value);
        left -= passed;
        return passed;
    }

    /// <summary>
    /// Whether a period lies behind what is asked for even if the event began at the end of its first one and all years
    /// and months were short ones: asked before its start is worked out, which may be a date that can't be written.
    /// </summary>
    /// <param name="days">From the event's start to the end of what is asked for.</param>
    private bool IsBeyond(long period, long days)
    {
        var by = period * _rule.Interval;
        var least = _rule.Every switch
        {
            RepeatEvery.Year => (by - 1) * 365,
            RepeatEvery.Month => (by - 1) * 28,
            RepeatEvery.Week => (by - 1) * 7,
            RepeatEvery.Day => by,
            _ => by * LengthOf(_rule.Every) / SecondsOfADay,
        };
        return least - 1 > days;
    }

    /// <summary>When a period begins: a year, month, week, day, hour, minute or second.</summary>
    private LocalDateTime StartOf(long period)
    {
        var by = period * _rule.Interval;
        return _rule.Every switch
        {
            RepeatEvery.Year => new LocalDate(checked((int)(_first.Year + by)), 1, 1).AtMidnight(),
            RepeatEvery.Month => new LocalDate(_first.Year, _first.Month, 1).PlusMonths(checked((int)by)).AtMidnight(),
            RepeatEvery.Week => WeekOf(_first.Date).PlusWeeks(checked((int)by)).AtMidnight(),
            RepeatEvery.Day => _first.Date.PlusDays(checked((int)by)).AtMidnight(),
            _ => At(Seconds(_first) / LengthOf(_rule.Every) * LengthOf(_rule.Every) + by * LengthOf(_rule.Every)),
        };
    }

    private LocalDate WeekOf(LocalDate date) =>
        date.DayOfWeek == _rule.WeekStart ? date : date.Previous(_rule.WeekStart);

    /// <summary>All times of a period, in order.</summary>
    /// <param name="next">The last period before the next in which there may be something.</param>
    private RepeatTimes TimesOf(
        long period,
        LocalDateTime start,
        LocalDateTime until,
        EventBudget budget,
        out long next
    )
    {
        next = period;
        if (_rule.Every <= RepeatEvery.Day)
        {
            var after = _rule.Every switch
            {
                RepeatEvery.Year => start.Date.PlusYears(1),
                RepeatEvery.Month => start.Date.PlusMonths(1),
                RepeatEvery.Week => start.Date.PlusDays(7),
                _ => start.Date.PlusDays(1),
            };
            return Placed(new RepeatTimes(_dates.Of(start.Date, after, budget), _hours, _minutes, _seconds));
        }

        // Within a day the lists only let through; where one does not, all up to the next that it might is passed over.
        var skipTo =
            !_dates.Has(start.Date) ? start.Date.PlusDays(1).AtMidnight()
            : _rule.Hours.Count > 0 && !_rule.Hours.Contains(start.Hour) ? Whole(start, RepeatEvery.Hour).PlusHours(1)
            : _rule.Every >= RepeatEvery.Minute && _rule.Minutes.Count > 0 && !_rule.Minutes.Contains(start.Minute)
                ? Whole(start, RepeatEvery.Minute).PlusMinutes(1)
            : _rule.Every == RepeatEvery.Second && _rule.Seconds.Count > 0 && !_rule.Seconds.Contains(start.Second)
                ? start.PlusSeconds(1)
            : (LocalDateTime?)null;
        if (skipTo is { } to)
        {
            var length = LengthOf(_rule.Every) * _rule.Interval;
            next = period + Math.Max(1, (Seconds(to) - Seconds(start) + length - 1) / length) - 1;
            return RepeatTimes.None;
        }

        if (_day[0] != start.Date)
            _day = [start.Date];
        return Placed(
            new RepeatTimes(
                _day,
                Alone[start.Hour],
                _rule.Every == RepeatEvery.Hour ? _minutes : Alone[start.Minute],
                _rule.Every == RepeatEvery.Second ? Alone[start.Second] : _seconds
            )
        );
    }

    private RepeatTimes Placed(RepeatTimes times) =>
        _rule.Positions.Count == 0 ? times : times.AtPositions(_rule.Positions);

    private static LocalDateTime Whole(LocalDateTime time, RepeatEvery unit) =>
        At(Seconds(time) / LengthOf(unit) * LengthOf(unit));

    private static int LengthOf(RepeatEvery unit) =>
        unit switch
        {
            RepeatEvery.Hour => 3600,
            RepeatEvery.Minute => 60,
            RepeatEvery.Second => 1,
            _ => throw new ArgumentOutOfRangeException(nameof(unit)),
        };

    private static long Days(LocalDate date) => (date.AtMidnight().InUtc().ToInstant() - Instant.MinValue).Days;

    // Counted from a midnight long before all dates, so that whole hours and minutes come out of a division.
    private static long Seconds(LocalDateTime time) =>
        Days(time.Date) * SecondsOfADay + time.TimeOfDay.TickOfDay / NodaConstants.TicksPerSecond;

    private static LocalDateTime At(long seconds) =>
        (
            Instant.MinValue
            + Duration.FromDays(checked((int)(seconds / SecondsOfADay)))
            + Duration.FromSeconds(seconds % SecondsOfADay)
        )
            .InUtc()
            .LocalDateTime;
}
