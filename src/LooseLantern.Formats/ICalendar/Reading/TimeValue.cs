using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// A DATE or DATE-TIME value (RFC 5545 sections 3.3.4 and 3.3.5) as written: a whole day, UTC, in a named zone, or
/// floating (neither).
/// </summary>
internal sealed record TimeValue(int Line, LocalDateTime Local, bool IsDate, bool IsUtc, string? ZoneId)
{
    private static readonly LocalDatePattern DatePattern = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");
    private static readonly LocalDateTimePattern TimePattern = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    public static TimeValue Read(ContentLine line) => Read(line, line.Value.Trim());

    /// <summary>Reads the comma-separated values of EXDATE and RDATE; of a PERIOD, its start.</summary>
    public static IEnumerable<TimeValue> ReadList(ContentLine line) =>
        line.Value.Split(',').Select(value => Read(line, value.Trim()));

    /// <exception cref="EventFaultException">When the value is no date and no time.</exception>
    public static TimeValue Read(ContentLine line, string value)
    {
        var zone = line.Parameters.GetValueOrDefault("TZID");
        if (value.Length == 8 && DatePattern.Parse(value) is { Success: true } date)
            return new TimeValue(line.Line, date.Value.AtMidnight(), IsDate: true, IsUtc: false, null);

        var utc = value.EndsWith('Z');
        // A leap second is read as the second before it, which is as near as wall clocks come.
        var digits =
            (utc ? value[..^1] : value) is { Length: 15 } full && full.EndsWith("60", StringComparison.Ordinal)
                ? full[..13] + "59"
            : utc ? value[..^1]
            : value;
        if (TimePattern.Parse(digits) is { Success: true } time)
            return new TimeValue(line.Line, time.Value, IsDate: false, utc, utc ? null : zone);

        throw new EventFaultException(
            line.Line,
            $"{line.Name} \"{value}\" is neither a date (20260131) nor a time (20260131T090000)."
        );
    }
}
