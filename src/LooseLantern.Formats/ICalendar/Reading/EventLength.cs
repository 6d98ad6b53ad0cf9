using System.Text.RegularExpressions;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// How long each occurrence lasts: so many nominal days (by the calendar, whatever the clock does) and then an exact
/// time (RFC 5545 sections 3.3.6 and 3.8.5.3: weeks and days are nominal, the rest and a length given by DTEND are
/// exact).
/// </summary>
internal readonly partial record struct EventLength(int Days, Duration Exact)
{
    public static EventLength Read(ContentLine line)
    {
        var match = Pattern().Match(line.Value.Trim());
        if (!match.Success || line.Value.Trim() is "P" or "PT")
            throw new EventFaultException(
                line.Line,
                $"DURATION \"{line.Value}\" is no length of time (P1D, say, or PT1H30M)."
            );
        if (match.Groups["sign"].Value == "-")
            throw new EventFaultException(line.Line, "The DURATION of an event can't be negative.");

        int Number(string group) =>
            match.Groups[group] is { Success: true, Value: var digits } ? int.Parse(digits, null) : 0;
        return new EventLength(
            Number("weeks") * 7 + Number("days"),
            Duration.FromHours(Number("hours"))
                + Duration.FromMinutes(Number("minutes"))
                + Duration.FromSeconds(Number("seconds"))
        );
    }

    [GeneratedRegex(
        @"^(?<sign>[+-]?)P((?<weeks>\d{1,4})W)?((?<days>\d{1,5})D)?(T((?<hours>\d{1,6})H)?((?<minutes>\d{1,7})M)?((?<seconds>\d{1,8})S)?)?$"
    )]
    private static partial Regex Pattern();
}
