using CsCheck;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Questions;
using LooseLantern.Core.Reasons;
using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>Seats that consider who keeps the guest.</summary>
public class KeeperTests
{
    private static readonly Instant Nine = At("2026-12-01T08:00:00Z");
    private static readonly AssignmentFacts Even = new(
        Nine,
        [new SeatFacts(SeatFill.InOrder, new Dictionary<string, Instant>())],
        new Dictionary<string, HostLoad>(),
        new HashSet<string>()
    );

    private static readonly Span AllMorning = Span("2026-12-01T07:00:00Z", "2026-12-01T11:00:00Z");

    [Fact]
    public void The_keeper_comes_first_where_they_are_free_and_else_the_usual_rule()
    {
        var input = Pool(SeatKeeper.First);
        Chosen(input, keeper: "c").ShouldBe("c");
        Chosen(input, keeper: null).ShouldBe("a");
        Chosen(Pool(SeatKeeper.First, busy: "c"), keeper: "c").ShouldBe("a");
        // Who is not eligible for the seat is not put into it.
        Chosen(input, keeper: "d").ShouldBe("a");
        Chosen(Pool(SeatKeeper.Counts), keeper: "c").ShouldBe("a");
    }

    [Fact]
    public void The_keeper_comes_before_whom_the_guest_met_last()
    {
        var met = Even with { Keep = new HashSet<string> { "b" } };
        Assignment.For(Keepers.Narrow(Pool(SeatKeeper.First), "c"), Nine, met).ShouldBe(["c"]);
        Assignment.For(Keepers.Narrow(Pool(SeatKeeper.First, busy: "c"), "c"), Nine, met).ShouldBe(["b"]);
    }

    [Fact]
    public void A_seat_for_the_keeper_only_waits_for_them_and_says_so()
    {
        var busy = Keepers.Narrow(Pool(SeatKeeper.Only, busy: "c"), "c");
        OpeningsComputation.Openings(busy).ShouldBeEmpty();
        Keepers.OnlyOf(busy).ShouldBe("c");
        ReasonsComputation
            .For(busy, Nine)
            .Reasons.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                reason => reason.Rule.ShouldBe(Rule.Calendars),
                reason => reason.Host.ShouldBe("c")
            );
        // Nobody's guest, and the guest of somebody who has no seat, are taken as usual.
        foreach (var keeper in new[] { null, "d" })
        {
            var open = Keepers.Narrow(Pool(SeatKeeper.Only, busy: "c"), keeper);
            OpeningsComputation.Openings(open).ShouldNotBeEmpty();
            Keepers.OnlyOf(open).ShouldBeNull();
        }
    }

    [Fact]
    public void Of_several_seats_for_the_keeper_only_they_take_the_first()
    {
        var input = Pool(SeatKeeper.Only);
        var panel = input with
        {
            Page = input.Page with
            {
                LineUp =
                [
                    new Seat(["a"]),
                    new Seat(["b", "c"]) { Keeper = SeatKeeper.Only },
                    new Seat(["b", "c"]) { Keeper = SeatKeeper.Only },
                ],
            },
        };
        Assignment
            .For(
                Keepers.Narrow(panel, "c"),
                Nine,
                Even with
                {
                    Seats = [.. panel.Page.LineUp.Select(_ => Even.Seats[0])],
                }
            )
            .ShouldBe(["a", "c", "b"]);
    }

    [Fact]
    public void An_answer_says_whose_guest_somebody_is_and_the_first_rule_counts()
    {
        Question[] asked =
        [
            new Question("region", QuestionKind.OneOf, "Region", "", IsNeeded: true, ["North", "South"], ""),
        ];
        KeeperByAnswer[] rules =
        [
            new(new ScreenCondition("region", ScreenTest.Is, "North"), "a"),
            new(new ScreenCondition("region", ScreenTest.IsAnswered, ""), "b"),
        ];
        string? Of(string answer) =>
            Keepers.ByAnswer(asked, rules, new Dictionary<string, string> { ["region"] = answer });
        Of("North").ShouldBe("a");
        Of("South").ShouldBe("b");
        Of("").ShouldBeNull();
        Keepers.ByAnswer([], rules, new Dictionary<string, string> { ["region"] = "North" }).ShouldBeNull();
    }

    /// <summary>
    /// A seat that only prefers the keeper offers what it offers anybody; one for the keeper only offers no more, and
    /// just what a page with the keeper alone in it would.
    /// </summary>
    [Fact]
    public void Whom_a_seat_prefers_changes_no_openings_and_whom_it_waits_for_takes_none_away_but_others() =>
        Gen.Select(RandomInput.Any, Gen.Int[0, 5], Gen.Int[0, 2])
            .Sample(
                (input, seatAt, hostAt) =>
                {
                    var lineUp = input.Page.LineUp;
                    var at = seatAt % lineUp.Count;
                    var keeper = lineUp[at].AnyOf[hostAt % lineUp[at].AnyOf.Count];
                    OpeningsInput With(SeatKeeper rule, IReadOnlyList<string>? anyOf = null) =>
                        input with
                        {
                            Page = input.Page with
                            {
                                LineUp =
                                [
                                    .. lineUp.Select(
                                        (seat, i) => i == at ? new Seat(anyOf ?? seat.AnyOf) { Keeper = rule } : seat
                                    ),
                                ],
                            },
                        };
                    var usual = OpeningsComputation.Openings(input);
                    OpeningsComputation.Openings(Keepers.Narrow(With(SeatKeeper.First), keeper)).ShouldBe(usual);
                    var only = OpeningsComputation.Openings(Keepers.Narrow(With(SeatKeeper.Only), keeper));
                    only.ShouldBe(OpeningsComputation.Openings(With(SeatKeeper.Counts, [keeper])));
                },
                iter: Tries.Of(500)
            );

    private static OpeningsInput Pool(SeatKeeper rule, string? busy = null) =>
        Tuesday(
            Page() with
            {
                LineUp = [new Seat(["a", "b", "c"]) { Keeper = rule }],
            },
            [.. new[] { "a", "b", "c" }.Select(id => id == busy ? Host(id, null, AllMorning) : Host(id))]
        );

    private static string Chosen(OpeningsInput input, string? keeper) =>
        Assignment.For(Keepers.Narrow(input, keeper), Nine, Even).ShouldNotBeNull().ShouldHaveSingleItem();
}
