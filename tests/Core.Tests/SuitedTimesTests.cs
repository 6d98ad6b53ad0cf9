using CsCheck;
using LooseLantern.Core.Suggestions;
using static Core.Tests.Sketch;

namespace Core.Tests;

public class SuitedTimesTests
{
    private static readonly Span Offered = Span("2026-11-30T23:00:00Z", "2026-12-04T23:00:00Z");

    // 09:00 to 12:00 in Copenhagen, starts each half hour, half an hour each.
    private static OpeningsInput Morning => Tuesday(Page(), Host(hours: Open("09:00-12:00")));

    [Fact]
    public void Only_what_lies_whole_in_what_suits_fits()
    {
        var suits = SuitedTimes.Joined([Span("2026-12-01T08:15:00Z", "2026-12-01T09:15:00Z")]);
        SuitedTimes
            .Within(OpeningsComputation.Openings(Morning), suits)
            .Select(opening => opening.Start)
            .ShouldBe([At("2026-12-01T08:30:00Z")], "08:00 begins before it and 09:00 ends after it");
    }

    [Fact]
    public void Over_the_seam_of_two_stretches_that_touch_an_opening_fits_and_counts_where_it_begins()
    {
        Span[] stretches =
        [
            Span("2026-12-01T08:15:00Z", "2026-12-01T08:45:00Z"),
            Span("2026-12-01T08:45:00Z", "2026-12-01T09:30:00Z"),
            Span("2026-12-01T14:00:00Z", "2026-12-01T16:00:00Z"),
        ];
        SuitedTimes.CountOfEach(OpeningsComputation.Openings(Morning), stretches).ShouldBe([1, 1, 0]);
    }

    [Fact]
    public void What_fits_is_ranked_with_the_best_first()
    {
        // Next to what the host has at 10:30 is better than early.
        var input = Tuesday(
            Page(),
            Host(hours: Open("07:00-12:00"), busy: Span("2026-12-01T09:30:00Z", "2026-12-01T10:00:00Z"))
        );
        var suits = SuitedTimes.Joined([
            Span("2026-12-01T06:00:00Z", "2026-12-01T06:30:00Z"),
            Span("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z"),
        ]);
        var ranked = SuggestionsComputation.Ranked(input, suits, 5, []);
        ranked.Select(fit => fit.Opening.Start).ShouldBe([At("2026-12-01T09:00:00Z"), At("2026-12-01T06:00:00Z")]);
        ranked[0].Why.ShouldContain(why => why.For == SuggestedFor.NextToOthers);
        SuggestionsComputation.Ranked(input, suits, 1, []).ShouldHaveSingleItem().ShouldBeEquivalentTo(ranked[0]);
    }

    [Fact]
    public void The_zone_of_the_guest_counts_for_the_rank()
    {
        var input = Tuesday(Page(), Host(hours: Open("08:00-16:00")));
        var suits = SuitedTimes.Joined([Span("2026-12-01T07:00:00Z", "2026-12-01T15:00:00Z")]);
        var inNewYork = SuggestionsComputation.Ranked(
            input,
            suits,
            1,
            [DateTimeZoneProviders.Tzdb["America/New_York"]]
        );
        inNewYork[0].Opening.Start.ShouldBe(At("2026-12-01T13:00:00Z"), "8:00 there");
    }

    [Theory]
    [InlineData("2026-12-01T08:00:00Z", "2026-12-01T08:00:00Z", SuitedFault.EndsBeforeItStarts)]
    [InlineData("2026-12-01T08:00:00Z", "2026-12-02T09:00:01Z", SuitedFault.TooLong)]
    [InlineData("2026-12-01T08:00:00Z", "2026-12-02T09:00:00Z", SuitedFault.None)]
    [InlineData("2026-12-04T23:00:00Z", "2026-12-04T23:30:00Z", SuitedFault.OutsideOffered)]
    [InlineData("2026-12-04T22:45:00Z", "2026-12-04T23:30:00Z", SuitedFault.None)]
    [InlineData("2026-11-30T22:00:00Z", "2026-11-30T23:00:00Z", SuitedFault.OutsideOffered)]
    public void A_stretch_that_can_not_be_kept_is_told(string from, string to, SuitedFault fault) =>
        SuitedTimes.FaultOf([Span(from, to)], Offered).ShouldBe(fault);

    [Fact]
    public void Forty_stretches_are_kept_and_not_one_more()
    {
        var many = Enumerable.Repeat(Span("2026-12-01T08:00:00Z", "2026-12-01T09:00:00Z"), 41).ToList();
        SuitedTimes.FaultOf(many[..40], Offered).ShouldBe(SuitedFault.None);
        SuitedTimes.FaultOf(many, Offered).ShouldBe(SuitedFault.TooMany);
    }

    [Fact]
    public void What_is_ranked_is_open_lies_in_what_suits_and_does_not_overlap() =>
        RandomInput.Any.Sample(
            input =>
            {
                var open = OpeningsComputation.Openings(input).Select(opening => opening.Start).ToHashSet();
                var middle = input.Now + NodaTime.Duration.FromDays(2);
                var suits = SuitedTimes.Joined([new Span(input.Now, middle)]);
                var ranked = SuggestionsComputation.Ranked(input, suits, 8, []);
                return ranked.All(fit => open.Contains(fit.Opening.Start) && fit.Opening.End <= middle)
                    && ranked.All(one =>
                        ranked.All(other =>
                            ReferenceEquals(one, other)
                            || one.Opening.End <= other.Opening.Start
                            || other.Opening.End <= one.Opening.Start
                        )
                    );
            },
            iter: Tries.Of(1_000)
        );
}
