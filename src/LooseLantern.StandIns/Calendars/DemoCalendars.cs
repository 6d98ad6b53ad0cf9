using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using NodaTime;

namespace LooseLantern.StandIns.Calendars;

/// <summary>
/// The calendars that ship for the demo. Their dates are written as days from the Monday of the week it starts in.
/// </summary>
internal static partial class DemoCalendars
{
    /// <summary>Files are named USER.CALENDAR.ics; {{MON+9}} in them is the Wednesday of the week after.</summary>
    public static void Fill(CalendarStore store, LocalDate today)
    {
        var monday = today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        var assembly = typeof(DemoCalendars).Assembly;
        foreach (
            var resource in assembly
                .GetManifestResourceNames()
                .Where(name => name.EndsWith(".ics", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal)
        )
        {
            var (user, calendar) = resource.Split('.')[^3..] is [var owner, var name, _]
                ? (owner, name)
                : throw new InvalidOperationException($"{resource} is not named as a demo calendar.");
            using var reader = new StreamReader(assembly.GetManifestResourceStream(resource)!, Encoding.UTF8);
            var text = DayMark()
                .Replace(reader.ReadToEnd(), mark =>
                    monday
                        .PlusDays(int.Parse(mark.Groups[1].Value, CultureInfo.InvariantCulture))
                        .ToString("uuuuMMdd", CultureInfo.InvariantCulture)
                );
            store.AddCalendar(user, calendar);
            foreach (var (uid, events) in OfEachUid(text))
                store.Put(user, calendar, $"{uid.Split('@')[0]}.ics", events, _ => true);
        }
    }

    /// <summary>An object holds all events of one UID, and no other (RFC 4791 section 4.1).</summary>
    private static IEnumerable<(string Uid, string Text)> OfEachUid(string file) =>
        Event()
            .Matches(file)
            .Select(match => match.Value)
            .GroupBy(text => Uid().Match(text).Groups[1].Value.Trim())
            .Select(same =>
                (
                    same.Key,
                    $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Brackwater Boatworks//Demo//EN\r\n{string.Concat(same)}END:VCALENDAR\r\n"
                )
            );

    [GeneratedRegex(@"\{\{MON([+-]\d+)\}\}")]
    private static partial Regex DayMark();

    [GeneratedRegex(@"BEGIN:VEVENT\r?\n.*?END:VEVENT\r?\n", RegexOptions.Singleline)]
    private static partial Regex Event();

    [GeneratedRegex(@"^UID:(.*)$", RegexOptions.Multiline)]
    private static partial Regex Uid();
}
