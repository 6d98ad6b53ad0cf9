using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>Which occurrences of a series are meant, by EXDATE or RECURRENCE-ID.</summary>
/// <param name="isOfDays">Whether the series is of whole days.</param>
internal sealed class NamedOccurrences(bool isOfDays)
{
    private readonly HashSet<LocalDate> _days = [];
    private readonly HashSet<Instant> _times = [];

    /// <summary>A bare date means any occurrence of that day.</summary>
    public void Add(TimeValue value, CalendarZones zones)
    {
        if (value.IsDate || isOfDays)
            _days.Add(value.Local.Date);
        else
            _times.Add(zones.At(value));
    }

    public bool Has(LocalDateTime local, Instant at) => _days.Contains(local.Date) || _times.Contains(at);
}
