using System.Text;
using static Formats.Tests.CalendarText;

namespace Formats.Tests;

/// <summary>Calendars that somebody wrote to cost us more than they cost them.</summary>
internal static class HostileCalendars
{
    /// <summary>The one that is no more hostile than a calendar of so many events must be.</summary>
    public const string ThousandsEachDay = "2,000 events each day";

    private const string At = "DTSTART:20260105T090000Z\nDURATION:PT30M";

    private static readonly string AllSeconds = List(0, 59);
    private static readonly string AllHours = List(0, 23);

    /// <summary>By name: what stands in the calendar.</summary>
    public static IReadOnlyDictionary<string, string> All { get; } =
        Rules()
            .Select(rule => (Name: $"{rule.Start}: {Short(rule.Rule)}", Text: Event(Repeating(rule.Start, rule.Rule))))
            .Concat(Files())
            .ToDictionary(pair => pair.Name, pair => pair.Text);

    public static string Repeating(string start, string rule) =>
        $"UID:hostile\nSUMMARY:Free lunch\nDTSTART:{start}\nDURATION:{(start.Contains('T') ? "PT30M" : "P1D")}\nRRULE:{rule}";

    private static IEnumerable<(string Start, string Rule)> Rules()
    {
        foreach (var start in (string[])["19700101T000000Z", "00010101T000000Z", "20260101T000000Z"])
        {
            yield return (start, "FREQ=SECONDLY");
            yield return (start, "FREQ=MINUTELY");
            yield return (start, "FREQ=SECONDLY;COUNT=99999999");
            yield return (start, "FREQ=MINUTELY;BYDAY=MO,TU,WE,TH,FR,SA,SU;COUNT=99999999");
            yield return (start, $"FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30");
            yield return (start, $"FREQ=SECONDLY;INTERVAL=7;BYSECOND=1;BYMINUTE=59;BYHOUR=23");
            yield return (start, "FREQ=SECONDLY;INTERVAL=86400;BYHOUR=13");
            yield return (start, "FREQ=MINUTELY;INTERVAL=2;BYMINUTE=1");
            yield return (start, "FREQ=HOURLY;BYYEARDAY=366;BYMONTH=1");
            yield return (
                start,
                $"FREQ=YEARLY;BYSECOND={AllSeconds};BYMINUTE={AllSeconds};BYHOUR={AllHours};BYSETPOS=-1"
            );
            yield return (
                start,
                $"FREQ=YEARLY;BYYEARDAY={List(1, 366)};BYSECOND={AllSeconds};BYMINUTE={AllSeconds};BYHOUR={AllHours};BYSETPOS=-1"
            );
            yield return (
                start,
                $"FREQ=YEARLY;BYDAY=MO,TU,WE,TH,FR,SA,SU;BYSECOND={AllSeconds};BYMINUTE={AllSeconds};BYHOUR={AllHours}"
            );
            yield return (
                start,
                $"FREQ=MONTHLY;BYDAY=MO,TU;BYSECOND={AllSeconds};BYMINUTE={AllSeconds};BYSETPOS=1,-1,366"
            );
            yield return (
                start,
                $"FREQ=DAILY;BYSECOND={AllSeconds};BYMINUTE={AllSeconds};BYHOUR={AllHours};COUNT=2000000000"
            );
            yield return (start, "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30");
            yield return (start, "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29;BYDAY=5FR");
            yield return (start, "FREQ=YEARLY;INTERVAL=1000000");
            yield return (start, "FREQ=DAILY;UNTIL=99991231T235959Z;INTERVAL=1");
            yield return (start, $"FREQ=WEEKLY;BYDAY={string.Join(',', Enumerable.Repeat("MO", 5000))}");
        }
    }

    private static IEnumerable<(string Name, string Text)> Files()
    {
        yield return (
            "36,500 days, each day",
            Event("UID:a\nSUMMARY:Long\nDTSTART;VALUE=DATE:20250101\nDURATION:P36500D\nRRULE:FREQ=DAILY")
        );
        yield return (
            "99,999 days from the year 1",
            Event("UID:a\nDTSTART;VALUE=DATE:00010101\nDURATION:P99999D\nRRULE:FREQ=DAILY")
        );
        yield return (
            "an event that ends in the year 9999",
            Event("UID:a\nDTSTART:20260101T000000Z\nDTEND:99991231T235959Z\nRRULE:FREQ=DAILY")
        );
        yield return (
            "40,000 EXDATE",
            Event($"UID:a\n{At}\nRRULE:FREQ=MINUTELY\nEXDATE:{Many(40_000, n => Time(n * 60), ",")}")
        );
        yield return (
            "40,000 lines of EXDATE",
            Event($"UID:a\n{At}\nRRULE:FREQ=MINUTELY\n{Many(40_000, n => "EXDATE:" + Time(n * 60), "\n")}")
        );
        yield return (
            "60,000 lines of EXDATE",
            Event($"UID:a\n{At}\nRRULE:FREQ=DAILY\n{Many(60_000, n => "EXDATE:" + Time(n * 60), "\n")}")
        );
        yield return ("200,000 RDATE", Event($"UID:a\n{At}\nRDATE:{Many(200_000, n => Time(n * 60), ",")}"));
        yield return (
            "50,000 periods",
            Event($"UID:a\n{At}\nRDATE;VALUE=PERIOD:{Many(50_000, n => Time(n * 60) + "/PT5M", ",")}")
        );
        yield return (
            "5,000 other versions",
            string.Join(
                '\n',
                [
                    Event($"UID:a\n{At}\nRRULE:FREQ=MINUTELY"),
                    .. Enumerable.Range(0, 5000).Select(n => Event($"UID:a\nRECURRENCE-ID:{Time(n * 60)}\n{At}")),
                ]
            )
        );
        yield return (
            "5,000 versions of all that follow",
            string.Join(
                '\n',
                [
                    Event($"UID:a\n{At}\nRRULE:FREQ=MINUTELY"),
                    .. Enumerable
                        .Range(0, 5000)
                        .Select(n => Event($"UID:a\nRECURRENCE-ID;RANGE=THISANDFUTURE:{Time(n * 60)}\n{At}")),
                ]
            )
        );
        yield return ("2,000 events each second", Many(2000, n => Event($"UID:{n}\n{At}\nRRULE:FREQ=SECONDLY"), "\n"));
        yield return (ThousandsEachDay, Many(2000, n => Event($"UID:{n}\n{At}\nRRULE:FREQ=DAILY"), "\n"));
        yield return ("20,000 events without a start", Many(20_000, _ => "BEGIN:VEVENT\nEND:VEVENT", "\n"));
        yield return (
            "20,000 events in an unknown zone",
            Many(20_000, n => Event($"UID:{n}\nDTSTART;TZID=Nowhere:20260101T000000"), "\n")
        );
        yield return (
            "a zone that changes each second",
            Zone("Odd", "RRULE:FREQ=SECONDLY")
                + "\n"
                + Many(500, n => Event($"UID:{n}\nDTSTART;TZID=Odd:20260101T000000\nDURATION:PT1H"), "\n")
        );
        yield return (
            "500 zones that change each day",
            Many(
                500,
                n =>
                    Zone($"Odd{n}", "RRULE:FREQ=DAILY")
                    + "\n"
                    + Event($"UID:{n}\nDTSTART;TZID=Odd{n}:20260101T000000\nDURATION:PT1H"),
                "\n"
            )
        );
        yield return (
            "a title of a million letters",
            Event($"UID:a\n{At}\nSUMMARY:{new string('x', 1_000_000)}\nRRULE:FREQ=HOURLY")
        );
        yield return ("a letter with 5,000 marks on it", Event($"UID:a\n{At}\nSUMMARY:Z{new string('\u0301', 5_000)}"));
        yield return ("200,000 lines that are nothing", Event($"UID:a\n{At}\n{Many(200_000, n => "X:" + n, "\n")}"));
        yield return (
            "a line folded 100,000 times",
            Event($"UID:a\n{At}\nSUMMARY:x\n{Many(100_000, _ => " y", "\n")}")
        );
        yield return (
            "a line of 100,000 parameters",
            Event($"UID:a\n{At}\nSUMMARY{Many(100_000, n => $";P{n}=1", "")}:x")
        );
        yield return (
            "10,000 components in each other",
            Many(10_000, _ => "BEGIN:X", "\n") + "\n" + Many(10_000, _ => "END:X", "\n")
        );
        yield return (
            "30,000 people",
            Event($"UID:a\n{At}\nRRULE:FREQ=DAILY\n{Many(30_000, n => $"ATTENDEE:mailto:p{n}@guests.example", "\n")}")
        );
        yield return (
            "a rule of a million letters",
            Event($"UID:a\n{At}\nRRULE:FREQ=DAILY;BYHOUR={string.Join(',', Enumerable.Repeat("1", 500_000))}")
        );
        yield return (
            "10,000 rules in one event",
            Event($"UID:a\n{At}\n{Many(10_000, _ => "RRULE:FREQ=SECONDLY", "\n")}")
        );
    }

    private static string Zone(string id, string rule) =>
        $"BEGIN:VTIMEZONE\nTZID:{id}\nBEGIN:STANDARD\nDTSTART:19700101T000000\nTZOFFSETFROM:+0100\nTZOFFSETTO:+0200\n{rule}\nEND:STANDARD\nBEGIN:DAYLIGHT\nDTSTART:19700101T000001\nTZOFFSETFROM:+0200\nTZOFFSETTO:+0100\n{rule}\nEND:DAYLIGHT\nEND:VTIMEZONE";

    private static string Time(int seconds) =>
        Instant.FromUtc(2026, 1, 5, 9, 0).Plus(Duration.FromSeconds(seconds)).ToString("uuuuMMdd'T'HHmmss'Z'", null);

    private static string Many(int count, Func<int, string> each, string between)
    {
        var text = new StringBuilder();
        for (var n = 0; n < count; n++)
            text.Append(n == 0 ? "" : between).Append(each(n));
        return text.ToString();
    }

    private static string List(int from, int to) => string.Join(',', Enumerable.Range(from, to - from + 1));

    private static string Short(string rule) => rule.Length <= 60 ? rule : rule[..60];
}
