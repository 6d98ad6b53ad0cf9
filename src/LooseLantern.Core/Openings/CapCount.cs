using NodaTime;
using NodaTime.Calendars;

namespace LooseLantern.Core.Openings;

/// <summary>Counts sessions by local date and by ISO week (Monday to Sunday) against a daily and a weekly cap (rules 5 and 9).</summary>
internal sealed class CapCount
{
    private readonly DateTimeZone _zone;
    private readonly int? _dailyCap;
    private readonly int? _weeklyCap;
    private readonly Dictionary<LocalDate, int> _byDay;
    private readonly Dictionary<(int Year, int Week), int> _byWeek;

    /// <param name="sessions">Sessions with a start of each; the same session counts once a day and once a week, however often it is named.</param>
    public CapCount(DateTimeZone zone, int? dailyCap, int? weeklyCap, IEnumerable<(string Session, Instant Start)> sessions)
    {
        (_zone, _dailyCap, _weeklyCap) = (zone, dailyCap, weeklyCap);
        var dated = sessions.Select(session => (session.Session, Date: session.Start.InZone(zone).Date)).Distinct().ToList();
        _byDay = dated.CountBy(session => session.Date).ToDictionary();
        _byWeek = dated.Select(session => (session.Session, Week: WeekOf(session.Date))).Distinct()
            .CountBy(session => session.Week).ToDictionary();
    }

    public bool HasRoom(Instant start)
    {
        var date = start.InZone(_zone).Date;
        return (_dailyCap is not { } daily || _byDay.GetValueOrDefault(date) < daily)
            && (_weeklyCap is not { } weekly || _byWeek.GetValueOrDefault(WeekOf(date)) < weekly);
    }

    private static (int Year, int Week) WeekOf(LocalDate date) =>
        (WeekYearRules.Iso.GetWeekYear(date), WeekYearRules.Iso.GetWeekOfWeekYear(date));
}
