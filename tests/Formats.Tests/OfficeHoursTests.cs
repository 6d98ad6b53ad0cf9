using LooseLantern.Formats.ICalendar.Blocks;

namespace Formats.Tests;

/// <summary>Blocks as the hours that Core computes with.</summary>
public class OfficeHoursTests
{
    private static readonly LocalDate Monday = new(2026, 12, 7);

    [Fact]
    public void A_block_is_a_dated_change_for_each_date_over_an_empty_week()
    {
        var hours = Of(Block(9, 0, 180), Block(22, 30, 120));
        hours.Week.ShouldBeEmpty();
        Changes(hours).ShouldBe(["07 09:00-12:00 22:30-24:00", "08 00:00-00:30"]);
    }

    [Fact]
    public void A_repeating_block_comes_by_its_rule_but_for_the_dates_left_out() =>
        Changes(Of(Block(9, 0, 60) with { Rule = "FREQ=WEEKLY;BYDAY=MO,TH;COUNT=5", Without = [new(2026, 12, 14)] }))
            .ShouldBe(["07 09:00-10:00", "10 09:00-10:00", "17 09:00-10:00", "21 09:00-10:00"]);

    [Fact]
    public void What_began_the_day_before_the_dates_asked_for_still_counts() =>
        Changes(OfficeHours.Of([Block(23, 0, 120)], CalendarText.Copenhagen, Monday.PlusDays(1), Monday.PlusDays(3)))
            .ShouldBe(["08 00:00-01:00"]);

    [Fact]
    public void A_rule_that_repeats_too_often_or_not_at_all_is_refused()
    {
        Should
            .Throw<BlockRuleException>(() => Of(Block(9, 0, 30) with { Rule = "FREQ=SOMETIMES" }))
            .Message.ShouldContain("SOMETIMES");
        Should
            .Throw<BlockRuleException>(() => Of(Block(9, 0, 30) with { Rule = "FREQ=MINUTELY" }))
            .Message.ShouldContain("neither daily nor weekly");
        Should
            .Throw<BlockRuleException>(() => Of(Block(9, 0, 30) with { Rule = "FREQ=DAILY;BYDAY=XX" }))
            .Message.ShouldContain("can't be read");
    }

    private static HoursSet Of(params Block[] blocks) =>
        OfficeHours.Of(blocks, CalendarText.Copenhagen, Monday, Monday.PlusDays(27));

    private static Block Block(int hour, int minute, int length) =>
        new(Monday.At(new LocalTime(hour, minute)), length, null, []);

    private static string[] Changes(HoursSet hours) =>
        [.. hours.Changes.Select(change => $"{change.From.Day:00} {string.Join(' ', change.Open)}")];
}
