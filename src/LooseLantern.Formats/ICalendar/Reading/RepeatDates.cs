using NodaTime;
using NodaTime.Calendars;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// Which dates a rule names (the table of RFC 5545 section 3.3.10): those of its period that every one of its lists
/// lets through. What a rule does not say, the start of its event says.
/// </summary>
internal sealed class RepeatDates
{
    private readonly RepeatRule _rule;
    private readonly IReadOnlyList<int> _months;
    private readonly IReadOnlyList<int> _monthDays;
    private readonly IReadOnlyList<RepeatDay> _days;
    private readonly IWeekYearRule _weeks;

    public RepeatDates(RepeatRule rule, LocalDate first)
    {
        _rule = rule;
        _weeks = WeekYearRules.ForMinDaysInFirstWeek(4, rule.WeekStart);
        (_months, _monthDays, _days) = (rule.Months, rule.MonthDays, rule.Days);
        // A date is given by its day of the year, its week, its day of the month or its weekday; else it is the first
        // one's.
        if (rule.Days.Count + rule.MonthDays.Count + rule.YearDays.Count > 0)
            return;
        if (rule.Every == RepeatEvery.Week || (rule.Every == RepeatEvery.Year && rule.Weeks.Count > 0))
            _days = [new RepeatDay(0, first.DayOfWeek)];
        else if (rule.Every is RepeatEvery.Year or RepeatEvery.Month)
            _monthDays = [first.Day];
        if (rule.Every == RepeatEvery.Year && rule.Months.Count == 0 && rule.Weeks.Count == 0)
            _months = [first.Month];
    }

    /// <summary>
    /// The dates of a period of days that are named, in order, as far as the budget goes; each that is looked at is a
    /// step.
    /// </summary>
    public List<LocalDate> Of(LocalDate from, LocalDate until, EventBudget budget)
    {
        var dates = new List<LocalDate>();
        for (var date = from; date < until; )
        {
            if (!budget.Step())
                return dates;
            if (_months.Count > 0 && !_months.Contains(date.Month))
            {
                date = new LocalDate(date.Year, date.Month, 1).PlusMonths(1);
                continue;
            }

            if (Has(date))
                dates.Add(date);
            date = date.PlusDays(1);
        }

        return dates;
    }

    public bool Has(LocalDate date) =>
        (_months.Count == 0 || _months.Contains(date.Month))
        && (_monthDays.Count == 0 || IsIn(_monthDays, date.Day, DaysInMonth(date)))
        && (_rule.YearDays.Count == 0 || IsIn(_rule.YearDays, date.DayOfYear, DaysInYear(date)))
        && (_rule.Weeks.Count == 0 || _rule.Every != RepeatEvery.Year || IsInWeeks(date))
        && (_days.Count == 0 || IsOneOfDays(date));

    private static int DaysInMonth(LocalDate date) => CalendarSystem.Iso.GetDaysInMonth(date.Year, date.Month);

    private static int DaysInYear(LocalDate date) => CalendarSystem.Iso.GetDaysInYear(date.Year);

    /// <summary>Whether a number is listed, counted from the start or from the end.</summary>
    private static bool IsIn(IReadOnlyList<int> numbers, int number, int last) =>
        numbers.Contains(number) || numbers.Contains(number - last - 1);

    private bool IsInWeeks(LocalDate date) =>
        IsIn(
            _rule.Weeks,
            _weeks.GetWeekOfWeekYear(date),
            _weeks.GetWeeksInWeekYear(_weeks.GetWeekYear(date), CalendarSystem.Iso)
        );

    private bool IsOneOfDays(LocalDate date)
    {
        foreach (var (nth, day) in _days)
        {
            if (day == date.DayOfWeek && (nth == 0 || IsNth(nth, date)))
                return true;
        }

        return false;
    }

    private bool IsNth(int nth, LocalDate date)
    {
        // Weeks and days have each weekday once: a number says nothing there.
        if (_rule.Every is not (RepeatEvery.Year or RepeatEvery.Month) || _rule.Weeks.Count > 0)
            return true;
        var isInMonth = _rule.Every == RepeatEvery.Month || _rule.Months.Count > 0;
        var (place, last) = isInMonth ? (date.Day, DaysInMonth(date)) : (date.DayOfYear, DaysInYear(date));
        return nth == (nth > 0 ? (place - 1) / 7 + 1 : -((last - place) / 7 + 1));
    }
}
