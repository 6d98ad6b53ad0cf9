using NodaTime;

namespace LooseLantern.Core.Reminders;

/// <summary>When reminders of an appointment are due.</summary>
public static class ReminderTimes
{
    private const int MinutesOfADay = 24 * 60;

    /// <summary>
    /// So many minutes before the start. Whole days are days on the clock of <paramref name="zone"/>: a day before 9:00
    /// is 9:00, also where the clock changes in between; anything else is time that passes.
    /// </summary>
    public static Instant DueAt(Instant start, int minutesBefore, DateTimeZone zone) =>
        minutesBefore > 0 && minutesBefore % MinutesOfADay == 0
            ? start
                .InZone(zone)
                .LocalDateTime.PlusDays(-minutesBefore / MinutesOfADay)
                .InZoneLeniently(zone)
                .ToInstant()
            : start - Duration.FromMinutes(minutesBefore);
}
