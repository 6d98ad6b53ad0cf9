using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>The calendar files that ship with the demo. Their dates are written as days from the Monday of the week it starts in.</summary>
internal static partial class DemoCalendars
{
    /// <summary>The file of a host, with its dates filled in; {{MON+9}} is the Wednesday of the week after.</summary>
    public static byte[] File(string host, LocalDate today)
    {
        var monday = today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        var name = $"{typeof(DemoCalendars).Namespace}.Calendars.{host}.ics";
        using var stream = typeof(DemoCalendars).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"The demo has no calendar {name}.");
        using var reader = new StreamReader(stream, Encoding.UTF8);
        return Encoding.UTF8.GetBytes(DayMark().Replace(reader.ReadToEnd(), mark =>
            monday.PlusDays(int.Parse(mark.Groups[1].Value, CultureInfo.InvariantCulture)).ToString("uuuuMMdd", CultureInfo.InvariantCulture)));
    }

    [GeneratedRegex(@"\{\{MON([+-]\d+)\}\}")]
    private static partial Regex DayMark();
}
