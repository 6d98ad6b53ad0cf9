namespace Formats.Tests;

/// <summary>Shorthand for iCalendar texts and what is read of them.</summary>
internal static class CalendarText
{
    public static readonly DateTimeZone Copenhagen = DateTimeZoneProviders.Tzdb["Europe/Copenhagen"];

    public static string Calendar(params string[] components) =>
        "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//Tests//EN\n" + string.Join('\n', components) + "\nEND:VCALENDAR\n";

    public static string Event(string lines) => $"BEGIN:VEVENT\n{lines}\nEND:VEVENT";

    /// <summary>Reads 2026 as a whole.</summary>
    public static CalendarReading Read(params string[] components) =>
        CalendarFile.Parse(Calendar(components)).Read(Year(2026), Copenhagen, new ReadingBudget());

    public static Span Year(int year) => new(Instant.FromUtc(year, 1, 1, 0, 0), Instant.FromUtc(year + 1, 1, 1, 0, 0));

    /// <summary>
    /// The times of the entries as "05-04 07:00/08:00" in UTC, the end with its date where that differs.
    /// </summary>
    public static string[] Times(this CalendarReading reading) =>
        [
            .. reading.Entries.Select(entry =>
            {
                var (start, end) = (entry.Time.Start.InUtc(), entry.Time.End.InUtc());
                return start.ToString("MM-dd HH:mm", null)
                    + "/"
                    + end.ToString(start.Date == end.Date ? "HH:mm" : "MM-dd HH:mm", null);
            }),
        ];
}
