using CsCheck;
using LooseLantern.Core.Links;
using LooseLantern.Core.Suggestions;
using static Core.Tests.Sketch;

namespace Core.Tests;

public class SuggestionTests
{
    private static readonly DateTimeZone NewYork = DateTimeZoneProviders.Tzdb["America/New_York"];

    [Fact]
    public void What_lies_next_to_other_appointments_comes_first_and_says_so()
    {
        var busy = Span("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z");
        var only = Suggest(Tuesday(Page(), Host(busy: busy)), 1).ShouldHaveSingleItem();
        only.Opening.Start.ShouldBe(At("2026-12-01T08:30:00Z"));
        var praise = only.Why.Single(why => why.For == SuggestedFor.NextToOthers);
        (praise.Host, praise.Neighbour).ShouldBe(("h1", busy));
        only.Why.Select(why => why.Points).ShouldBeInOrder(SortDirection.Descending);
    }

    [Fact]
    public void The_first_one_is_not_praised_for_being_on_another_day_and_the_next_is()
    {
        var two = Suggest(Tuesday(Page()) with { To = new LocalDate(2026, 12, 2) }, 2);
        two[0]
            .Why.ShouldNotContain(why => why.For == SuggestedFor.AnotherDay || why.For == SuggestedFor.AnotherHalfDay);
        two[1].Why.ShouldContain(why => why.For == SuggestedFor.AnotherDay);
    }

    [Fact]
    public void A_neighbour_too_far_off_is_not_named()
    {
        var far = Span("2026-12-01T20:00:00Z", "2026-12-01T20:30:00Z");
        Suggest(Tuesday(Page(), Host(hours: Open("09:00-09:30"), busy: far)), 1)
            .ShouldHaveSingleItem()
            .Why.ShouldNotContain(why => why.For == SuggestedFor.NextToOthers || why.Neighbour != null);
    }

    [Fact]
    public void The_nearer_of_two_neighbours_is_named_and_what_earns_nothing_is_not_told()
    {
        var (before, after) = (
            Span("2026-12-01T07:00:00Z", "2026-12-01T08:00:00Z"),
            Span("2026-12-01T09:30:00Z", "2026-12-01T11:00:00Z")
        );
        Span? NeighbourAt(string notBefore, string notAfter)
        {
            var page = Page() with { Step = 15, Only = new OnlyTimes.Exact([At(notBefore)]) };
            var only = Suggest(Tuesday(page, Host(busy: [before, after])), 1).ShouldHaveSingleItem();
            only.Why.ShouldAllBe(why => why.Points > 0);
            only.Opening.End.ShouldBe(At(notAfter));
            return only.Why.Single(why => why.For == SuggestedFor.NextToOthers).Neighbour;
        }

        // An hour and a half lies between them.
        NeighbourAt("2026-12-01T08:15:00Z", "2026-12-01T08:45:00Z").ShouldBe(before);
        NeighbourAt("2026-12-01T08:45:00Z", "2026-12-01T09:15:00Z").ShouldBe(after);
        NeighbourAt("2026-12-01T08:30:00Z", "2026-12-01T09:00:00Z").ShouldBe(before, "of two as near the earlier one");
    }

    [Fact]
    public void Hours_at_night_earn_nothing_and_those_of_the_day_no_more_than_the_best()
    {
        double? DecencyOf(string hours) =>
            Suggest(Tuesday(Page(), Host(hours: Open(hours))), 1)
                .ShouldHaveSingleItem()
                .Why.SingleOrDefault(why => why.For == SuggestedFor.DecentHours)
                ?.Points;
        DecencyOf("02:00-02:30").ShouldBeNull();
        DecencyOf("10:00-10:30").ShouldBe(DecencyOf("14:00-14:30"));
        // All of it is lost two hours outside, and a quarter of it half an hour outside.
        DecencyOf("07:30-08:00").ShouldBe(DecencyOf("10:00-10:30") * 0.75);
        // The minutes of the hour count as well.
        DecencyOf("07:30-08:00")!.Value.ShouldBeGreaterThan(DecencyOf("07:00-07:30")!.Value);
    }

    [Fact]
    public void Of_the_hosts_of_a_seat_the_one_for_whom_the_time_is_best_is_named()
    {
        var near = Span("2026-12-01T07:30:00Z", "2026-12-01T08:00:00Z");
        var page = Page() with
        {
            LineUp = [new Seat(["h1", "h2"])],
            Only = new OnlyTimes.Exact([At("2026-12-01T08:00:00Z")]),
        };
        foreach (var (first, second) in new[] { ("h1", "h2"), ("h2", "h1") })
        {
            var only = Suggest(Tuesday(page, Host(first, busy: near), Host(second)), 1).ShouldHaveSingleItem();
            only.Why.Single(why => why.For == SuggestedFor.NextToOthers).Host.ShouldBe(first);
        }
    }

    [Fact]
    public void Crumbs_are_avoided()
    {
        // Open 09:00 to 10:15: from 09:00 three quarters of an hour are left, from 09:15 or 09:30 crumbs, from 09:45
        // again three quarters.
        var best = Suggest(Tuesday(Page() with { Step = 15 }, Host(hours: Open("09:00-10:15"))), 1)
            .ShouldHaveSingleItem();
        best.Opening.Start.ShouldBe(At("2026-12-01T08:00:00Z"));
        best.Why.ShouldContain(why => why.For == SuggestedFor.NoCrumbs && Math.Abs(why.Points - 3) < 0.001);
        var crumbs = Suggest(
                Tuesday(Page() with { Step = 15, Notice = 12 * 60 + 15 }, Host(hours: Open("09:00-10:15"))),
                1
            )
            .ShouldHaveSingleItem();
        crumbs.Opening.Start.ShouldBe(
            At("2026-12-01T08:45:00Z"),
            "09:15 would leave a quarter of an hour before it, 09:45 leaves three"
        );
    }

    [Fact]
    public void Decent_hours_are_asked_in_every_zone_concerned()
    {
        var input = Tuesday(Page(), Host(hours: Open("08:00-20:00")));
        Suggest(input, 1).ShouldHaveSingleItem().Opening.Start.ShouldBe(At("2026-12-01T07:00:00Z"));
        // 08:00 in New York is 14:00 in Copenhagen.
        Suggest(input, 1, NewYork).ShouldHaveSingleItem().Opening.Start.ShouldBe(At("2026-12-01T13:00:00Z"));
    }

    [Fact]
    public void They_are_spread_over_days_and_halves_of_days()
    {
        var input = Tuesday(Page(), Host(hours: Open("09:00-12:00,13:00-17:00"))) with
        {
            To = new LocalDate(2026, 12, 3),
        };
        var chosen = Suggest(input, 6);
        chosen
            .Select(suggestion => suggestion.Opening.Start.InZone(Copenhagen))
            .Select(local => (local.Day, local.Hour >= 12))
            .Distinct()
            .Count()
            .ShouldBe(6);
        chosen.Select(suggestion => suggestion.Opening.Start).ShouldBeInOrder();
        chosen[^1]
            .Why.ShouldContain(why => why.For == SuggestedFor.AnotherDay || why.For == SuggestedFor.AnotherHalfDay);
    }

    [Fact]
    public void Sooner_is_better_where_all_else_is_equal()
    {
        var input = Tuesday(Page()) with { To = new LocalDate(2026, 12, 20) };
        Suggest(input, 1).ShouldHaveSingleItem().Opening.Start.InUtc().Date.ShouldBe(new LocalDate(2026, 12, 1));
        var late = SuggestionsComputation.Of(input, 1, [], new SuggestionWeights(Soon: -2)).ShouldHaveSingleItem();
        late.Opening.Start.InUtc().Date.ShouldBe(new LocalDate(2026, 12, 20));
    }

    [Fact]
    public void Suggestions_are_openings_that_do_not_overlap_and_each_has_a_why() =>
        RandomInput.Any.Sample(
            input =>
            {
                var openings = OpeningsComputation.Openings(input);
                var chosen = Suggest(input, 5, NewYork);
                chosen.ShouldAllBe(suggestion => openings.Contains(suggestion.Opening) && suggestion.Why.Count > 0);
                chosen.Zip(chosen.Skip(1)).ShouldAllBe(pair => pair.First.Opening.End <= pair.Second.Opening.Start);
                (chosen.Count == 0).ShouldBe(openings.Count == 0);
                var again = Suggest(input with { Hosts = [.. input.Hosts.Reverse()] }, 5, NewYork);
                again
                    .Select(suggestion => suggestion.Opening)
                    .ShouldBe(chosen.Select(suggestion => suggestion.Opening));
            },
            iter: Tries.Of(1_000)
        );

    private static IReadOnlyList<Suggestion> Suggest(OpeningsInput input, int count, params DateTimeZone[] zones) =>
        SuggestionsComputation.Of(input, count, zones);

    [Fact]
    public void A_link_shows_all_openings_where_there_are_no_more_than_it_may_show()
    {
        // Nine to twelve on the half hour, an hour each: five that overlap, of which suggestions take every other one.
        var input = Tuesday(Page()) with { Duration = 60 };
        var all = OpeningsComputation.Openings(input);
        all.Count.ShouldBe(5);
        ShownOpenings.Of(input, 5, [Copenhagen]).ShouldBe(all);
        ShownOpenings.Of(input, null, [Copenhagen]).ShouldBe(all);
        ShownOpenings.Of(input, 4, [Copenhagen]).Count.ShouldBe(3);
        ShownOpenings.Of(input, 2, [Copenhagen]).Count.ShouldBe(2);
    }
}
