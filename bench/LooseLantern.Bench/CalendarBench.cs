using System.Diagnostics;
using System.Globalization;
using System.Text;
using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Reading;
using NodaTime;

namespace LooseLantern.Bench;

/// <summary>
/// How long the worst calendars of 5 MB take to read, and how much memory: each in a process of its own, so that its
/// peak is its own.
/// </summary>
internal static class CalendarBench
{
    private const int Size = 5 * 1024 * 1024;

    private static readonly Span Range = new(Instant.FromUtc(2026, 8, 1, 0, 0), Instant.FromUtc(2028, 2, 1, 0, 0));

    private static readonly Dictionary<string, Func<int, string>> Parts = new()
    {
        ["single events"] = n => $"BEGIN:VEVENT\nUID:{n}\nDTSTART:20270301T090000Z\nDURATION:PT1H\nEND:VEVENT\n",
        ["weekly events"] = n =>
            $"BEGIN:VEVENT\nUID:{n}\nDTSTART;TZID=Europe/Copenhagen:20200301T090000\nDURATION:PT1H\nRRULE:FREQ=WEEKLY\nEND:VEVENT\n",
        ["events each second"] = n =>
            $"BEGIN:VEVENT\nUID:{n}\nDTSTART:19700301T090000Z\nDURATION:PT1H\nRRULE:FREQ=SECONDLY\nEND:VEVENT\n",
        ["events at all seconds of a year, the last"] = n =>
            $"BEGIN:VEVENT\nUID:{n}\nDTSTART:19700301T090000Z\nRRULE:FREQ=YEARLY;BYDAY=MO,TU,WE,TH,FR,SA,SU;BYSECOND={List(60)};BYMINUTE={List(60)};BYHOUR={List(24)};BYSETPOS=-1\nEND:VEVENT\n",
        ["rules that never come"] = n =>
            $"BEGIN:VEVENT\nUID:{n}\nDTSTART:19700301T090000Z\nRRULE:FREQ=MINUTELY;BYMONTH=2;BYMONTHDAY=30\nEND:VEVENT\n",
        ["events without a start"] = _ => "BEGIN:VEVENT\nEND:VEVENT\n",
        ["events in unknown zones"] = n => $"BEGIN:VEVENT\nDTSTART;TZID=Z{n}:20270301T090000\nEND:VEVENT\n",
        ["zones that change each day"] = n =>
            $"BEGIN:VTIMEZONE\nTZID:Z{n}\nBEGIN:STANDARD\nDTSTART:20200101T000000\nTZOFFSETFROM:+0100\nTZOFFSETTO:+0200\nRRULE:FREQ=DAILY\nEND:STANDARD\nEND:VTIMEZONE\nBEGIN:VEVENT\nDTSTART;TZID=Z{n}:20270301T090000\nEND:VEVENT\n",
        ["lines of EXDATE"] = n =>
            n == 0 ? "BEGIN:VEVENT\nUID:a\nDTSTART:20270301T090000Z\nRRULE:FREQ=DAILY\n" : "EXDATE:20270301T090000Z\n",
        ["dates of one EXDATE"] = n =>
            n == 0
                ? "BEGIN:VEVENT\nUID:a\nDTSTART:20270301T090000Z\nRRULE:FREQ=MINUTELY\nEXDATE:20270301T090000Z"
                : ",20270301T090000Z",
        ["versions of one event"] = n =>
            $"BEGIN:VEVENT\nUID:a\nRECURRENCE-ID:{Instant.FromUtc(2026, 9, 1, 0, 0).Plus(Duration.FromMinutes(n)).ToString("uuuuMMdd'T'HHmmss'Z'", CultureInfo.InvariantCulture)}\nDTSTART:20270301T090000Z\nEND:VEVENT\n",
        ["lines of one letter"] = n => n == 0 ? "BEGIN:VEVENT\nUID:a\nDTSTART:20270301T090000Z\n" : "UID:\n",
        ["folded lines"] = n => n == 0 ? "BEGIN:VEVENT\nUID:a\nDTSTART:20270301T090000Z\nSUMMARY:\n" : " x\n",
        ["people"] = n =>
            n == 0
                ? "BEGIN:VEVENT\nUID:a\nDTSTART:20270301T090000Z\nRRULE:FREQ=DAILY\n"
                : $"ATTENDEE:mailto:{n}@x.example\n",
    };

    /// <summary>Reads one of them, or all where none is named.</summary>
    public static void Run(string? name)
    {
        if (name is null)
            All();
        else
            One(name);
    }

    private static void All()
    {
        Console.WriteLine($"{"5 MB of", -45} {"seconds", 8} {"MB", 6} {"steps", 10} {"entries", 8} {"listed", 8}");
        foreach (var name in Parts.Keys)
        {
            var one = new ProcessStartInfo("dotnet", [typeof(CalendarBench).Assembly.Location, "calendars", name]);
            // As the server collects.
            one.Environment["DOTNET_gcConcurrent"] = "1";
            using var process = Process.Start(one)!;
            process.WaitForExit();
        }
    }

    private static void One(string name)
    {
        var file = FileOf(Parts[name]);
        // The programs' own code is made ready on a small file first, as it is in a server.
        Read(FileOf(Parts[name], 20_000), new ReadingBudget());
        var budget = new ReadingBudget();
        var began = Stopwatch.GetTimestamp();
        var reading = Read(file, budget);
        var seconds = Stopwatch.GetElapsedTime(began).TotalSeconds;
        Console.WriteLine(
            $"{name, -45} {seconds, 8:0.00} {PeakMegabytes(), 6} {budget.Steps, 10} {reading.Entries.Count, 8} {reading.Unread.Count, 8}"
        );
    }

    private static CalendarReading Read(byte[] file, ReadingBudget budget) =>
        CalendarFile.Parse(file).Read(Range, DateTimeZoneProviders.Tzdb["Europe/Copenhagen"], budget);

    private static byte[] FileOf(Func<int, string> part, int size = Size)
    {
        var text = new StringBuilder("BEGIN:VCALENDAR\n");
        for (var n = 0; text.Length < size - 1000; n++)
            text.Append(part(n));
        if (!part(1).Contains("BEGIN:VEVENT", StringComparison.Ordinal))
            text.Append("\nEND:VEVENT\n");
        return Encoding.UTF8.GetBytes(text.Append("END:VCALENDAR\n").ToString());
    }

    private static string List(int count) => string.Join(',', Enumerable.Range(0, count));

    /// <summary>The most memory this process ever had (VmHWM), with the runtime's own and the file itself.</summary>
    private static int PeakMegabytes() =>
        int.Parse(
            File.ReadLines("/proc/self/status")
                .First(line => line.StartsWith("VmHWM:", StringComparison.Ordinal))
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)[1],
            CultureInfo.InvariantCulture
        ) / 1024;
}
