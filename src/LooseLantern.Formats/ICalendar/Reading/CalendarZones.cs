using LooseLantern.Core;
using LooseLantern.Core.Days;
using NodaTime;
using NodaTime.TimeZones;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// Finds the zone of a TZID: by IANA name, by Windows name (CLDR's mapping), else as the file's VTIMEZONE explains it.
/// Whole days and floating times are in the zone of the calendar's owner.
/// </summary>
internal sealed class CalendarZones(
    DateTimeZone owner,
    IReadOnlyDictionary<string, Component> explained,
    ReadingBudget budget
)
{
    private const int MostName = 120;

    private readonly Dictionary<string, DateTimeZone> _found = [];
    private readonly Dictionary<string, EventFaultException> _faulty = [];

    public DateTimeZone Of(TimeValue value)
    {
        if (value.IsUtc)
            return DateTimeZone.Utc;
        if (value.ZoneId is not { } id)
            return owner;
        if (_found.TryGetValue(id, out var known))
            return known;

        // Worked out once, also where it comes to nothing: thousands of events may name it.
        if (_faulty.TryGetValue(id, out var fault))
            throw fault;
        try
        {
            var zone = ByName(id);
            if (zone is null && explained.TryGetValue(id, out var component))
                zone = FileZone.Read(id, component, budget.ForZone());
            return _found[id] = zone
                ?? throw new EventFaultException(
                    value.Line,
                    $"The time zone \"{CutText.At(id, MostName)}\" is not known, and the file has no VTIMEZONE that explains it."
                );
        }
        catch (EventFaultException e)
        {
            _faulty[id] = e;
            throw;
        }
    }

    /// <summary>
    /// The instant of a wall-clock time. One that comes twice is the first pass; one that a clock skips is read with
    /// the offset before the gap (RFC 5545 section 3.3.5).
    /// </summary>
    public Instant At(TimeValue value) => At(value.Local, value, value.IsDate);

    public Instant At(LocalDateTime local, TimeValue like, bool wholeDay)
    {
        var zone = Of(like);
        if (zone == DateTimeZone.Utc && !wholeDay)
            return local.InUtc().ToInstant();
        return wholeDay ? LocalDays.Start(zone, local.Date) : local.InZoneLeniently(zone).ToInstant();
    }

    private static DateTimeZone? ByName(string id)
    {
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(id) is { } iana)
            return iana;
        return TzdbDateTimeZoneSource.Default.WindowsMapping.PrimaryMapping.TryGetValue(id, out var mapped)
            ? DateTimeZoneProviders.Tzdb[mapped]
            : null;
    }
}
