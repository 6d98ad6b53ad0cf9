using NodaTime;

namespace LooseLantern.Core.Hours;

/// <summary>Other open times, or none, for a run of local dates, both included.</summary>
public sealed record DatedChange(LocalDate From, LocalDate To, IReadOnlyList<OpenTime> Open)
{
    public bool Covers(LocalDate date) => From <= date && date <= To;
}

/// <summary>Weekly open times in one time zone, with dated changes. A weekday that is not listed is closed.</summary>
public sealed record HoursSet(
    DateTimeZone Zone,
    IReadOnlyDictionary<IsoDayOfWeek, IReadOnlyList<OpenTime>> Week,
    IReadOnlyList<DatedChange> Changes
)
{
    /// <summary>
    /// The open times of a local date: those of the last listed change that covers it, else of its weekday.
    /// </summary>
    public IReadOnlyList<OpenTime> OpenOn(LocalDate date)
    {
        for (var i = Changes.Count - 1; i >= 0; i--)
        {
            if (Changes[i].Covers(date))
                return Changes[i].Open;
        }

        return Week.TryGetValue(date.DayOfWeek, out var open) ? open : [];
    }

    /// <summary>
    /// The open times of the date's weekday, where a dated change has closed the date instead; else none.
    /// </summary>
    public IReadOnlyList<OpenTime> ClosedByChange(LocalDate date) =>
        OpenOn(date).Count == 0 && Week.TryGetValue(date.DayOfWeek, out var usual) ? usual : [];
}
