using static Formats.Tests.CalendarText;

namespace Formats.Tests;

public class EventTimeTests
{
    [Theory]
    [InlineData("DTSTART:20260504T090000Z\nDTEND:20260504T100000Z", "05-04 09:00/10:00")]
    [InlineData(
        "DTSTART;TZID=America/Halifax:20260504T090000\nDTEND;TZID=America/Halifax:20260504T100000",
        "05-04 12:00/13:00"
    )]
    [InlineData("DTSTART;TZID=\"Europe/Dublin\":20260504T090000\nDURATION:PT90M", "05-04 08:00/09:30")]
    [InlineData("DTSTART;TZID=Tokyo Standard Time:20260504T090000\nDURATION:PT1H", "05-04 00:00/01:00")]
    [InlineData("DTSTART:20260504T090000\nDTEND:20260504T100000", "05-04 07:00/08:00")]
    [InlineData("DTSTART;VALUE=DATE:20260504\nDTEND;VALUE=DATE:20260506", "05-03 22:00/05-05 22:00")]
    [InlineData("DTSTART;VALUE=DATE:20260504", "05-03 22:00/05-04 22:00")]
    [InlineData("DTSTART;VALUE=DATE:20260504\nDTEND;VALUE=DATE:20260504", "05-03 22:00/05-04 22:00")]
    [InlineData(
        "DTSTART;TZID=Europe/Copenhagen:20260504T230000\nDTEND;TZID=Europe/Copenhagen:20260505T013000",
        "05-04 21:00/23:30"
    )]
    [InlineData(
        "DTSTART;TZID=Europe/Copenhagen:20260505T013000\nDTEND;TZID=Europe/Copenhagen:20260505T030000",
        "05-04 23:30/05-05 01:00"
    )]
    public void Reads_each_way_of_giving_a_time(string lines, string expected)
    {
        var reading = Read(Event($"UID:a\n{lines}"));
        reading.Unread.ShouldBeEmpty();
        reading.Times().ShouldBe([expected]);
    }

    [Theory]
    // Spring: 29 March 02:00 becomes 03:00. Autumn: 25 October 03:00 becomes 02:00.
    [InlineData(
        "DTSTART;TZID=Europe/Copenhagen:20260329T013000\nDTEND;TZID=Europe/Copenhagen:20260329T033000",
        "03-29 00:30/01:30"
    )]
    [InlineData(
        "DTSTART;TZID=Europe/Copenhagen:20261025T013000\nDTEND;TZID=Europe/Copenhagen:20261025T033000",
        "10-24 23:30/10-25 02:30"
    )]
    [InlineData("DTSTART;TZID=Europe/Copenhagen:20260329T023000\nDURATION:PT1H", "03-29 01:30/02:30")]
    [InlineData("DTSTART;TZID=Europe/Copenhagen:20261025T023000\nDURATION:PT1H", "10-25 00:30/01:30")]
    [InlineData("DTSTART;VALUE=DATE:20260329", "03-28 23:00/03-29 22:00")]
    [InlineData("DTSTART;TZID=Europe/Copenhagen:20260328T120000\nDURATION:P1D", "03-28 11:00/03-29 10:00")]
    [InlineData("DTSTART;TZID=Europe/Copenhagen:20260328T120000\nDURATION:PT24H", "03-28 11:00/03-29 11:00")]
    public void Is_right_across_a_clock_change(string lines, string expected) =>
        Read(Event($"UID:a\n{lines}")).Times().ShouldBe([expected]);

    [Fact]
    public void An_event_of_no_length_takes_no_time() =>
        Read(Event("UID:a\nDTSTART:20260504T090000Z")).Entries.ShouldBeEmpty();

    [Fact]
    public void Says_what_an_entry_is()
    {
        var reading = Read(
            Event("UID:a\nDTSTART:20260504T090000Z\nDURATION:PT1H\nSUMMARY:Tea\\, cake\\nand more\nTRANSP:TRANSPARENT"),
            Event("UID:b\nDTSTART;VALUE=DATE:20260505\nSTATUS:TENTATIVE\nSUMMARY:A long titl\n e over two lines"),
            Event("UID:c\nDTSTART:20260506T090000Z\nDURATION:PT1H\nSTATUS:CANCELLED")
        );

        reading
            .Entries.Select(entry => (entry.Uid, entry.Title, entry.Free, entry.Tentative, entry.WholeDay))
            .ShouldBe([
                ("a", "Tea, cake and more", true, false, false),
                ("b", "A long title over two lines", false, true, true),
            ]);
    }

    [Fact]
    public void A_zone_that_only_the_file_explains_is_read_by_its_rules()
    {
        const string zone = """
            BEGIN:VTIMEZONE
            TZID:Yard time
            BEGIN:STANDARD
            DTSTART:20001029T040000
            RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU
            TZOFFSETFROM:+0500
            TZOFFSETTO:+0330
            END:STANDARD
            BEGIN:DAYLIGHT
            DTSTART:20000326T020000
            RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU
            TZOFFSETFROM:+0330
            TZOFFSETTO:+0500
            END:DAYLIGHT
            END:VTIMEZONE
            """;
        Read(
                zone,
                Event("UID:winter\nDTSTART;TZID=Yard time:20260202T120000\nDURATION:PT1H"),
                Event("UID:summer\nDTSTART;TZID=Yard time:20260706T120000\nDURATION:PT1H"),
                Event("UID:again\nDTSTART;TZID=Yard time:20260326T120000\nDURATION:PT1H\nRRULE:FREQ=WEEKLY;COUNT=2")
            )
            .Times()
            .ShouldBe(["02-02 08:30/09:30", "03-26 08:30/09:30", "04-02 07:00/08:00", "07-06 07:00/08:00"]);
    }

    [Fact]
    public void A_zone_that_nothing_explains_is_listed_and_not_read_as_UTC()
    {
        var reading = Read(
            Event("UID:a\nSUMMARY:Moon rise\nDTSTART;TZID=Moon/Far Side:20260504T090000\nDURATION:PT1H"),
            Event("UID:b\nDTSTART:20260504T090000Z\nDURATION:PT1H")
        );

        reading.Times().ShouldBe(["05-04 09:00/10:00"]);
        var unread = reading.Unread.ShouldHaveSingleItem();
        unread.Title.ShouldBe("Moon rise");
        unread.Line.ShouldBe(7);
        unread.Fault.ShouldContain("Moon/Far Side");
    }
}
