using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace LooseLantern.Core.TimeText;

/// <summary>A language's forms of dates and times, taken from its culture data.</summary>
internal sealed partial class DateForms(CultureInfo culture, Clock clock)
{
    private readonly string _timePattern = TimePattern(culture.DateTimeFormat, clock);
    private readonly string _dayPattern = WithoutYear()
        .Replace(culture.DateTimeFormat.LongDatePattern, "")
        .Trim(' ', ',');

    /// <summary>
    /// Weekday, day and month, with the year where it is not <paramref name="thisYear"/>; capital first, since it heads
    /// a line.
    /// </summary>
    public string Day(LocalDate date, int thisYear)
    {
        var text = date.ToDateTimeUnspecified()
            .ToString(date.Year == thisYear ? _dayPattern : culture.DateTimeFormat.LongDatePattern, culture);
        return culture.TextInfo.ToUpper(text[..1]) + text[1..];
    }

    public string ShortWeekday(LocalDate date) =>
        culture.DateTimeFormat.GetAbbreviatedDayName(date.ToDateTimeUnspecified().DayOfWeek);

    public string Time(LocalDateTime local) => Plain(local.ToDateTimeUnspecified().ToString(_timePattern, culture));

    private static string TimePattern(DateTimeFormatInfo format, Clock clock)
    {
        var usual = format.ShortTimePattern;
        var usualIs24 = usual.Contains('H', StringComparison.Ordinal);
        if (clock == Clock.Usual || (clock == Clock.Hours24) == usualIs24)
            return usual;
        // The language's own mark between hours and minutes is kept, whichever clock is wanted.
        return clock == Clock.Hours24 ? $"HH'{format.TimeSeparator}'mm" : $"h'{format.TimeSeparator}'mm tt";
    }

    /// <summary>Some culture data sets am and pm off by narrow spaces that many mail programs show as boxes.</summary>
    private static string Plain(string text) => text.Replace('\u202f', ' ').Replace('\u00a0', ' ');

    [GeneratedRegex(@"[\s,]*('[^']*'[\s]*)?y+\.?('[^']*')?")]
    private static partial Regex WithoutYear();
}
