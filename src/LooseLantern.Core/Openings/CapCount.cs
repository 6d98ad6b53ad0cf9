using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>A cap that is reached: so many sessions on a local date or in an ISO week already stand.</summary>
/// <param name="Cap">The most there may be.</param>
/// <param name="Counted">How many there are.</param>
public sealed record CapReached(CapPeriod Period, int Cap, int Counted);

public enum CapPeriod
{
    Day,
    Week,
}

/// <summary>
/// Counts sessions by local date and by ISO week (Monday to Sunday) against a daily and a weekly cap (rules 5 and 9).
/// </summary>
internal sealed class CapCount
{
    private readonly int? _dailyCap;
    private readonly int? _weeklyCap;
    private readonly Dictionary<LocalDate, int> _byDay;
    private readonly Dictionary<LocalDate, int> _byMonday;

    /// <param name="sessions">Sessions with a start of each; the same session counts once a day and once a week,
    /// however often it is named.</param>
    public CapCount(
        DateTimeZone zone,
        int? dailyCap,
        int? weeklyCap,
        IEnumerable<(string Session, Instant Start)> sessions
    )
    {
        (_dailyCap, _weeklyCap) = (dailyCap, weeklyCap);
        var dated = sessions
            .Select(session => (session.Session, Date: session.Start.InZone(zone).Date))
            .Distinct()
            .ToList();
        _byDay = dated.CountBy(session => session.Date).ToDictionary();
        _byMonday = dated
            .Select(session => (session.Session, Monday: MondayOf(session.Date)))
            .Distinct()
            .CountBy(session => session.Monday)
            .ToDictionary();
    }

    public bool HasRoom(LocalDate date) => !Reached(date).Any();

    /// <summary>The caps that are reached on a date, the day's first.</summary>
    public IEnumerable<CapReached> Reached(LocalDate date)
    {
        if (_dailyCap is { } daily && _byDay.GetValueOrDefault(date) is var thatDay && thatDay >= daily)
            yield return new CapReached(CapPeriod.Day, daily, thatDay);
        if (
            _weeklyCap is { } weekly
            && _byMonday.GetValueOrDefault(MondayOf(date)) is var thatWeek
            && thatWeek >= weekly
        )
            yield return new CapReached(CapPeriod.Week, weekly, thatWeek);
    }

    public static LocalDate MondayOf(LocalDate date) => date.PlusDays(1 - (int)date.DayOfWeek);
}
