using LooseLantern.Core.Days;
using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>Where values of Core begin and end.</summary>
public class BoundTests
{
    [Theory]
    [InlineData("https://wren.example", "https://wren.example")]
    [InlineData(" wren.example/boats?x=1 ", "https://wren.example/boats?x=1")]
    [InlineData("www.wren.example:8080", "https://www.wren.example:8080")]
    [InlineData("http://yard.example", "http://yard.example")]
    [InlineData("blåvand.example", "https://blåvand.example")]
    [InlineData("javascript:alert(1)", null)]
    [InlineData("mailto:a@b.example", null)]
    [InlineData("ftp://yard.example", null)]
    [InlineData("two words.example", null)]
    [InlineData("yard", null)]
    [InlineData("", null)]
    [InlineData(null, null)]
    public void A_web_address_needs_no_scheme(string? typed, string? whole) => WebAddress.Whole(typed).ShouldBe(whole);

    [Fact]
    public void A_web_address_is_not_longer_than_one_can_be()
    {
        var longest = $"https://wren.example/{new string('a', WebAddress.MostLength - 21)}";
        WebAddress.Whole(longest).ShouldBe(longest);
        WebAddress.Whole(longest + "a").ShouldBeNull();
    }

    [Fact]
    public void A_span_has_its_start_and_all_within_it_up_to_its_end()
    {
        var span = Span("2026-12-01T08:00:00Z", "2026-12-01T09:00:00Z");
        span.Contains(span.Start).ShouldBeTrue();
        span.Contains(span.End).ShouldBeFalse();
        span.Contains(span).ShouldBeTrue();
        span.Contains(Span("2026-12-01T08:00:00Z", "2026-12-01T09:00:01Z")).ShouldBeFalse();
        span.Contains(Span("2026-12-01T07:59:59Z", "2026-12-01T09:00:00Z")).ShouldBeFalse();
    }

    [Fact]
    public void Open_time_lies_within_a_day()
    {
        new OpenTime(0, OpenTime.MinutesOfDay).ToString().ShouldBe("00:00-24:00");
        Should
            .Throw<ArgumentOutOfRangeException>(() => new OpenTime(OpenTime.MinutesOfDay, OpenTime.MinutesOfDay + 1))
            .ParamName.ShouldBe("from");
        Should.Throw<ArgumentOutOfRangeException>(() => new OpenTime(600, 600)).ParamName.ShouldBe("to");
        Should
            .Throw<ArgumentOutOfRangeException>(() => new OpenTime(600, OpenTime.MinutesOfDay + 1))
            .ParamName.ShouldBe("to");
    }

    [Theory]
    [InlineData(5, "5 min")]
    [InlineData(59, "59 min")]
    [InlineData(60, "1 h")]
    [InlineData(65, "1 h 05")]
    [InlineData(90, "1 h 30")]
    [InlineData(1440, "24 h")]
    public void A_length_is_told_in_one_way(int minutes, string text) =>
        LooseLantern.Core.TimeText.LengthText.Of(minutes).ShouldBe(text);

    [Fact]
    public void A_dated_change_tells_what_it_closed()
    {
        var closed = new LocalDate(2026, 12, 24);
        var hours = Open("09:00-12:00", null, new DatedChange(closed, closed, []));
        hours.ClosedByChange(closed).ShouldHaveSingleItem().ToString().ShouldBe("09:00-12:00");
        hours.ClosedByChange(closed.PlusDays(1)).ShouldBeEmpty();
    }

    [Fact]
    public void A_promised_time_stands_at_the_very_first_start_however_full_the_day_is()
    {
        var promised = new Commitment(
            CommitmentKind.Hold,
            "link",
            null,
            At("2026-11-30T23:00:00Z"),
            At("2026-11-30T23:30:00Z"),
            0,
            0
        );
        var host = Host(hours: Open("00:00-12:00")) with { DailyCap = 0, Commitments = [promised] };
        Starts(Tuesday(Page(), host) with { AsHolder = "link" }).ShouldBe("23:00");
    }

    [Theory]
    [InlineData(40)]
    [InlineData(41)]
    [InlineData(42)]
    [InlineData(43)]
    public void Months_ahead_nothing_reaches_into_a_day_off_or_begins_before_its_end(int day)
    {
        var from = new LocalDate(2026, 11, 2);
        var off = from.PlusDays(day);
        var always = Open("00:00-24:00", null, new DatedChange(off, off, []));
        var input = On(from, Page() with { Step = 15 }, Host("h1", always)) with
        {
            To = from.PlusDays(80),
            Duration = 90,
        };
        var starts = OpeningsComputation.Openings(input).Select(opening => opening.Start).ToList();
        var midnight = LocalDays.Start(Copenhagen, off);
        starts.Last(start => start < midnight).ShouldBe(midnight - Duration.FromMinutes(90));
        starts.First(start => start > midnight).ShouldBe(midnight + Duration.FromDays(1));
        starts.Count.ShouldBe(80 * 96 - 5);
    }
}
