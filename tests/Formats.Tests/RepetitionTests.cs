using static Formats.Tests.CalendarText;

namespace Formats.Tests;

public class RepetitionTests
{
    private const string Weekly =
        "UID:a\nSUMMARY:Yard meeting\nDTSTART;TZID=Europe/Copenhagen:20260316T090000\nDURATION:PT1H\n";

    [Fact]
    public void Follows_the_wall_clock_over_a_clock_change() =>
        Read(Event(Weekly + "RRULE:FREQ=WEEKLY;COUNT=3"))
            .Times()
            .ShouldBe(["03-16 08:00/09:00", "03-23 08:00/09:00", "03-30 07:00/08:00"]);

    [Fact]
    public void Leaves_out_exceptions_however_their_zone_is_written() =>
        Read(
                Event(
                    Weekly
                        + "RRULE:FREQ=WEEKLY;COUNT=5\nEXDATE;TZID=Europe/Copenhagen:20260323T090000\nEXDATE:20260330T070000Z\nEXDATE;VALUE=DATE:20260413"
                )
            )
            .Times()
            .ShouldBe(["03-16 08:00/09:00", "04-06 07:00/08:00"]);

    [Fact]
    public void Until_in_UTC_counts_as_an_instant() =>
        Read(Event(Weekly + "RRULE:FREQ=WEEKLY;UNTIL=20260323T080000Z"))
            .Times()
            .ShouldBe(["03-16 08:00/09:00", "03-23 08:00/09:00"]);

    [Fact]
    public void Adds_further_dates_and_periods() =>
        Read(
                Event(
                    Weekly
                        + "RDATE;TZID=Europe/Copenhagen:20260318T140000\nRDATE;VALUE=PERIOD:20260319T100000Z/PT3H,20260320T100000Z/20260320T103000Z"
                )
            )
            .Times()
            .ShouldBe(["03-16 08:00/09:00", "03-18 13:00/14:00", "03-19 10:00/13:00", "03-20 10:00/10:30"]);

    [Fact]
    public void A_changed_occurrence_takes_the_place_of_its_own() =>
        Read(
                Event(Weekly + "RRULE:FREQ=WEEKLY;COUNT=3"),
                Event(
                    "UID:a\nRECURRENCE-ID:20260323T080000Z\nDTSTART;TZID=Europe/Copenhagen:20260324T150000\nDURATION:PT30M"
                ),
                Event(
                    "UID:a\nRECURRENCE-ID;TZID=Europe/Copenhagen:20260330T090000\nDTSTART;TZID=Europe/Copenhagen:20260330T090000\nSTATUS:CANCELLED"
                )
            )
            .Times()
            .ShouldBe(["03-16 08:00/09:00", "03-24 14:00/14:30"]);

    [Fact]
    public void A_change_to_this_and_future_moves_all_later_ones() =>
        Read(
                Event(Weekly + "RRULE:FREQ=WEEKLY;COUNT=4"),
                Event(
                    "UID:a\nRECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/Copenhagen:20260330T090000\nDTSTART;TZID=Europe/Copenhagen:20260331T100000\nDURATION:PT2H"
                )
            )
            .Times()
            .ShouldBe(["03-16 08:00/09:00", "03-23 08:00/09:00", "03-31 08:00/10:00", "04-07 08:00/10:00"]);

    [Fact]
    public void Whole_days_repeat_as_days() =>
        Read(
                Event(
                    "UID:a\nDTSTART;VALUE=DATE:20260327\nDTEND;VALUE=DATE:20260329\nRRULE:FREQ=DAILY;INTERVAL=2;COUNT=2"
                )
            )
            .Times()
            .ShouldBe(["03-26 23:00/03-28 23:00", "03-28 23:00/03-30 22:00"]);

    [Fact]
    public void An_old_series_without_an_end_is_read_only_where_it_is_asked_for()
    {
        var file = CalendarFile.Parse(
            Calendar(Event("UID:a\nDTSTART:19990104T070000Z\nDURATION:PT1H\nRRULE:FREQ=DAILY"))
        );
        file.Read(
                new Span(Instant.FromUtc(2026, 5, 4, 0, 0), Instant.FromUtc(2026, 5, 7, 0, 0)),
                Copenhagen,
                new ReadingBudget()
            )
            .Times()
            .ShouldBe(["05-04 07:00/08:00", "05-05 07:00/08:00", "05-06 07:00/08:00"]);
    }

    [Fact]
    public void A_long_occurrence_that_began_before_the_range_is_still_read()
    {
        var file = CalendarFile.Parse(
            Calendar(Event("UID:a\nDTSTART;VALUE=DATE:20260401\nDTEND;VALUE=DATE:20260420\nRRULE:FREQ=YEARLY"))
        );
        file.Read(
                new Span(Instant.FromUtc(2027, 4, 18, 0, 0), Instant.FromUtc(2027, 4, 19, 0, 0)),
                Copenhagen,
                new ReadingBudget()
            )
            .Entries.Count.ShouldBe(1);
    }

    [Theory]
    [InlineData("FREQ=SOMETIMES")]
    [InlineData("FREQ=DAILY;INTERVAL=0")]
    [InlineData("FREQ=DAILY;FREQ=WEEKLY")]
    [InlineData("FREQ=DAILY;BYMONTH")]
    [InlineData("FREQ=DAILY;BYMONTH=13")]
    [InlineData("FREQ=DAILY;BYSETPOS=0")]
    [InlineData("FREQ=DAILY;BYDAY=XX")]
    [InlineData("FREQ=DAILY;COUNT=0")]
    [InlineData("FREQ=DAILY;UNTIL=tomorrow")]
    [InlineData("FREQ=YEARLY;RSCALE=HEBREW")]
    public void A_rule_that_cannot_be_read_lists_its_event_and_spares_the_rest(string rule)
    {
        var reading = Read(Event(Weekly + "RRULE:" + rule), Event("UID:b\nDTSTART:20260504T090000Z\nDURATION:PT1H"));
        reading.Times().ShouldBe(["05-04 09:00/10:00"]);
        reading.Unread.ShouldHaveSingleItem().Title.ShouldBe("Yard meeting");
    }

    [Fact]
    public void Of_a_rule_that_never_comes_to_a_date_the_start_of_its_event_counts() =>
        Read(Event(Weekly + "RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30")).Times().ShouldBe(["03-16 08:00/09:00"]);

    [Fact]
    public void An_until_that_is_a_bare_date_means_all_of_that_day() =>
        Read(Event(Weekly + "RRULE:FREQ=WEEKLY;UNTIL=20260323"))
            .Times()
            .ShouldBe(["03-16 08:00/09:00", "03-23 08:00/09:00"]);

    [Fact]
    public void Of_an_event_that_stands_twice_the_higher_sequence_counts() =>
        Read(
                Event("UID:a\nSEQUENCE:2\nDTSTART:20260504T090000Z\nDURATION:PT1H"),
                Event("UID:a\nSEQUENCE:1\nDTSTART:20260505T090000Z\nDURATION:PT1H")
            )
            .Times()
            .ShouldBe(["05-04 09:00/10:00"]);
}
