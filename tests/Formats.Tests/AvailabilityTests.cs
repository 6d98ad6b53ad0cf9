using System.Text;
using CsCheck;
using LooseLantern.Formats.ICalendar.Availability;

namespace Formats.Tests;

/// <summary>Hours as VAVAILABILITY (RFC 7953), out and in.</summary>
public class AvailabilityTests
{
    private static readonly DateTimeZone Copenhagen = DateTimeZoneProviders.Tzdb["Europe/Copenhagen"];
    private static readonly LocalDate Today = new(2026, 12, 7);

    [Fact]
    public void Hours_are_written_as_a_week_of_lowest_priority_and_changes_above_it()
    {
        var text = Write(
            Hours(
                new DatedChange(new(2026, 12, 24), new(2026, 12, 26), []),
                new DatedChange(new(2026, 12, 31), new(2026, 12, 31), [Open(9, 11)])
            )
        );

        text.ShouldContain("BEGIN:VTIMEZONE");
        text.ShouldContain("RRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR");
        text.ShouldContain("PRIORITY:9");
        var christmas = Component(text, "VAVAILABILITY", 1);
        christmas.ShouldContain("PRIORITY:1");
        christmas.ShouldContain("DTSTART;TZID=Europe/Copenhagen:20261224T000000");
        christmas.ShouldContain("DTEND;TZID=Europe/Copenhagen:20261227T000000");
        christmas.ShouldContain("SUMMARY:Yule");
        christmas.ShouldNotContain("BEGIN:AVAILABLE");
        Component(text, "VAVAILABILITY", 2).ShouldContain("DTSTART;TZID=Europe/Copenhagen:20261231T090000");
    }

    [Fact]
    public void What_was_written_reads_as_the_same_hours()
    {
        var hours = Hours(
            new DatedChange(new(2026, 12, 24), new(2026, 12, 26), []),
            new DatedChange(new(2026, 12, 31), new(2026, 12, 31), [Open(9, 11), Open(20, 24)])
        );
        var read = Read(Write(hours));

        read.Zone.Id.ShouldBe("Europe/Copenhagen");
        read.Week[IsoDayOfWeek.Monday].ShouldBe([Open(9, 12), Open(13, 17)]);
        read.Week[IsoDayOfWeek.Sunday].ShouldBeEmpty();
        // The 26th is a Saturday, closed as always: only what differs is a change.
        read.Changes.Select(change => (change.From, change.To, change.Name))
            .ShouldBe([(new(2026, 12, 24), new(2026, 12, 25), "Yule"), (new(2026, 12, 31), new(2026, 12, 31), null)]);
        read.Changes[1].Open.ShouldBe([Open(9, 11), Open(20, 24)]);
    }

    [Fact]
    public void Any_hours_come_back_the_same_on_every_date()
    {
        string[] ids = ["Europe/Copenhagen", "Australia/Lord_Howe", "America/St_Johns", "Asia/Kathmandu"];
        var zones = Gen.Int[0, ids.Length - 1].Select(index => DateTimeZoneProviders.Tzdb[ids[index]]);
        // From 05:00, past every change of these clocks: in the hours they skip or repeat a wall-clock time is no one
        // span.
        var day = Gen.Int[20, 95]
            .Array[0, 6]
            .Select(marks =>
                marks
                    .Distinct()
                    .Order()
                    .Chunk(2)
                    .Where(pair => pair.Length == 2)
                    .Select(pair => new OpenTime(pair[0] * 15, pair[1] * 15))
                    .ToList()
            );
        var change = Gen.Select(Gen.Int[0, 300], Gen.Int[0, 12], day, (start, length, open) =>
            new DatedChange(Today.PlusDays(start), Today.PlusDays(start + length), open)
        );
        Gen.Select(zones, day.Array[7], change.Array[0, 5], (zone, week, changes) =>
                new HoursSet(
                    zone,
                    Enumerable
                        .Range(0, 7)
                        .ToDictionary(
                            index => (IsoDayOfWeek)(index + 1),
                            index => (IReadOnlyList<OpenTime>)week[index]
                        ),
                    changes
                )
            )
            .Sample(
                hours =>
                {
                    var read = Read(Write(hours));
                    var again = new HoursSet(
                        read.Zone,
                        read.Week,
                        [.. read.Changes.Select(row => new DatedChange(row.From, row.To, row.Open))]
                    );
                    return Enumerable
                        .Range(0, 700)
                        .Select(Today.PlusDays)
                        .All(date => again.OpenOn(date).SequenceEqual(hours.OpenOn(date)));
                },
                iter: 60
            );
    }

    [Fact]
    public void Where_two_cover_a_day_the_one_of_higher_priority_decides()
    {
        var read = Read(
            CalendarText.Calendar(
                """
                BEGIN:VAVAILABILITY
                UID:a
                DTSTART;TZID=Europe/Copenhagen:20261214T000000
                DTEND;TZID=Europe/Copenhagen:20261217T000000
                PRIORITY:2
                BEGIN:AVAILABLE
                UID:a1
                DTSTART;TZID=Europe/Copenhagen:20261215T180000
                DURATION:PT2H
                END:AVAILABLE
                END:VAVAILABILITY
                BEGIN:VAVAILABILITY
                UID:b
                BEGIN:AVAILABLE
                UID:b1
                DTSTART;TZID=Europe/Copenhagen:20260105T080000
                DTEND;TZID=Europe/Copenhagen:20260105T100000
                RRULE:FREQ=DAILY
                EXDATE;TZID=Europe/Copenhagen:20261222T080000
                END:AVAILABLE
                END:VAVAILABILITY
                """
            )
        );

        read.Week.Values.ShouldAllBe(open => open.SequenceEqual(new[] { Open(8, 10) }));
        read.Changes.Select(change => (change.From.Day, change.To.Day, change.Open.Count))
            .ShouldBe([(14, 14, 0), (15, 15, 1), (16, 16, 0), (22, 22, 0)]);
        read.Changes[1].Open.ShouldBe([Open(18, 20)]);
    }

    [Fact]
    public void Floating_times_are_in_the_zone_of_their_owner()
    {
        var read = Read(
            CalendarText.Calendar(
                "BEGIN:VAVAILABILITY\nUID:a\nBEGIN:AVAILABLE\nUID:a1\nDTSTART:20260105T080000\nDTEND:20260105T100000\nRRULE:FREQ=WEEKLY\nEND:AVAILABLE\nEND:VAVAILABILITY"
            )
        );
        read.Zone.ShouldBe(Copenhagen);
        read.Week[IsoDayOfWeek.Monday].ShouldBe([Open(8, 10)]);
        read.Changes.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("BEGIN:VEVENT\nUID:x\nDTSTART:20261208T090000Z\nEND:VEVENT", "There is no VAVAILABILITY")]
    [InlineData(
        "BEGIN:VAVAILABILITY\nUID:a\nBEGIN:AVAILABLE\nUID:b\nDTSTART:20261208T0900\nEND:AVAILABLE\nEND:VAVAILABILITY",
        "DTSTART \"20261208T0900\""
    )]
    [InlineData(
        "BEGIN:VAVAILABILITY\nUID:a\nBEGIN:AVAILABLE\nUID:b\nDTSTART:20261208T100000\nDTEND:20261208T090000\nEND:AVAILABLE\nEND:VAVAILABILITY",
        "ends before it starts"
    )]
    [InlineData(
        "BEGIN:VAVAILABILITY\nUID:a\nDTSTART;TZID=Yard Time:20261208T000000\nEND:VAVAILABILITY",
        "The time zone \"Yard Time\" is not known"
    )]
    public void What_cannot_be_read_is_said_with_its_line(string inner, string fault) =>
        Should.Throw<CalendarFileException>(() => Read(CalendarText.Calendar(inner))).Message.ShouldContain(fault);

    [Fact]
    public void A_file_with_more_times_than_hours_are_made_of_is_refused()
    {
        var many = string.Concat(
            Enumerable
                .Range(0, 60)
                .Select(number =>
                    $"BEGIN:AVAILABLE\nUID:{number}\nDTSTART:20261208T{number % 24:00}0000\nDURATION:PT5M\nRRULE:FREQ=DAILY\nEND:AVAILABLE\n"
                )
        );
        Should
            .Throw<CalendarFileException>(() =>
                Read(CalendarText.Calendar($"BEGIN:VAVAILABILITY\nUID:a\n{many}END:VAVAILABILITY"))
            )
            .Message.ShouldContain("50000");
    }

    private static OpenTime Open(int from, int to) => new(from * 60, to * 60);

    private static HoursSet Hours(params DatedChange[] changes)
    {
        IReadOnlyList<OpenTime> day = [Open(9, 12), Open(13, 17)];
        return new HoursSet(
            Copenhagen,
            Enumerable.Range(1, 5).ToDictionary(number => (IsoDayOfWeek)number, _ => day),
            changes
        );
    }

    private static string Write(HoursSet hours) =>
        AvailabilityWriter.Write(hours, "hours-1", "Usual", Instant.FromUtc(2026, 12, 7, 7, 0), date =>
            date.Month == 12 && date.Day is >= 24 and <= 26 ? "Yule" : null
        );

    private static ReadHours Read(string text) =>
        AvailabilityReader.Read(Encoding.UTF8.GetBytes(text), Today, Copenhagen);

    private static string Component(string text, string name, int index) =>
        text.Split($"BEGIN:{name}")[index + 1].Split($"END:{name}")[0];
}
