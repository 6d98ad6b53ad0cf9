using CsCheck;
using LooseLantern.Core.Covers;
using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>Who takes what when hosts can't come.</summary>
public class CoverTests
{
    private static readonly Instant Nine = At("2026-12-08T08:00:00Z");

    private static readonly CoveredSeat LostToAnybody = new("ill", true, ["a", "b"]);

    [Fact]
    public void What_can_be_kept_is_kept_at_its_time_and_shared_evenly()
    {
        var plan = Plan([Session("1", 0, LostToAnybody), Session("2", 60, LostToAnybody)], ("a", 3), ("b", 2));
        // The first of them makes b even with a; the order of the seat decides from then on.
        Told(plan).ShouldBe("1: b; 2: a");
        plan.IsBest.ShouldBeTrue();
        Told(Plan([Session("1", 0, LostToAnybody), Session("2", 60, LostToAnybody)], ("a", 9))).ShouldBe("1: b; 2: b");
    }

    [Fact]
    public void Who_weighs_more_takes_more()
    {
        var sessions = Enumerable.Range(0, 4).Select(at => Session($"{at}", at * 60, LostToAnybody)).ToList();
        var plan = CoverComputation.Of(
            new CoverInput(sessions, new Dictionary<string, CoverLoad> { ["a"] = new(0, 3), ["b"] = new(0, 1) })
        );
        plan.Lines.Count(line => line.Hosts!.Contains("a")).ShouldBe(3);
    }

    [Fact]
    public void Nobody_is_in_two_places_at_once_and_the_larger_buffer_counts()
    {
        var only = new CoveredSeat("ill", true, ["a"]);
        Told(Plan([Session("1", 0, only), Session("2", 30, only)])).ShouldBe("1: a; 2: a");
        // Ten minutes are missing between them.
        var plan = Plan([Session("1", 0, only) with { BufferAfter = 10 }, Session("2", 30, only)]);
        plan.Lines.Count(line => line.Hosts is null).ShouldBe(1);
        plan.Lines.Single(line => line.Hosts is null)
            .Lacks.ShouldHaveSingleItem()
            .Needed.ShouldHaveSingleItem()
            .Host.ShouldBe("a");
    }

    [Fact]
    public void A_session_is_kept_by_a_change_of_another_seat_where_there_is_no_other_way()
    {
        // Only b, who assists, can lead; and c can assist.
        var panel = Session("1", 0, new CoveredSeat("ill", true, ["b"]), new CoveredSeat("b", false, ["c"]));
        Told(Plan([panel])).ShouldBe("1: b+c");
        var other = panel with { Seats = [new CoveredSeat("ill", true, ["b", "d"]), panel.Seats[1]] };
        // d costs no change, however much they have to do.
        Told(Plan([other], ("d", 30))).ShouldBe("1: d+b");
    }

    [Fact]
    public void As_many_as_can_be_are_kept_before_anything_else_counts()
    {
        // Kept by b it would be even; but then nobody is there for the other.
        var plan = Plan(
            [Session("1", 0, LostToAnybody), Session("2", 10, new CoveredSeat("ill", true, ["b"]))],
            ("a", 12)
        );
        Told(plan).ShouldBe("1: a; 2: b");
    }

    [Fact]
    public void Whom_a_session_that_is_kept_needs_is_said_of_one_that_is_left()
    {
        var only = new CoveredSeat("ill", true, ["a"]);
        var plan = Plan([
            Session("1", 0, only),
            Session("2", 0, only),
            Session("3", 0, new CoveredSeat("ill", true, [])),
        ]);
        Told(plan).ShouldBe("1: a; 2: -; 3: -");
        plan.Lines[1].Lacks.ShouldHaveSingleItem().Needed.ShouldBe([new NeededElsewhere("a", "1")]);
        plan.Lines[2].Lacks.ShouldHaveSingleItem().Needed.ShouldBeEmpty();
    }

    [Fact]
    public void Two_seats_that_share_one_host_are_both_named()
    {
        var only = new CoveredSeat("ill", true, ["a"]);
        var plan = Plan([Session("1", 0, only, only with { Had = "away" })]);
        plan.Lines[0].Hosts.ShouldBeNull();
        plan.Lines[0].Lacks.Select(lack => lack.Seat).ShouldBe([0, 1]);
    }

    [Fact]
    public void What_is_decided_by_hand_stays_and_the_rest_goes_around_it()
    {
        var sessions = new[] { Session("1", 0, LostToAnybody), Session("2", 0, LostToAnybody) };
        Told(Plan([sessions[0] with { Decided = ["b"] }, sessions[1]])).ShouldBe("1: b; 2: a");
        Told(Plan([sessions[0] with { IsLeftByHand = true }, sessions[1]], ("b", 1))).ShouldBe("1: -; 2: a");
        // Somebody from elsewhere, too.
        Told(Plan([sessions[0] with { Decided = ["z"] }, sessions[1]])).ShouldBe("1: z; 2: a");
        var colliding = new CoverInput(
            [sessions[0] with { Decided = ["b"] }, sessions[1] with { Decided = ["b"] }],
            new Dictionary<string, CoverLoad>()
        );
        CoverComputation.CollidingByHand(colliding).ShouldBe(("b", "1", "2"));
        Should.Throw<ArgumentException>(() => CoverComputation.Of(colliding));
    }

    [Fact]
    public void More_than_forty_are_refused()
    {
        var sessions = Enumerable.Range(0, 41).Select(at => Session($"{at}", at * 60, LostToAnybody)).ToList();
        Should.Throw<ArgumentException>(() => Plan(sessions));
    }

    [Fact]
    public void Of_all_plans_there_are_none_is_better() =>
        Inputs.Sample(
            input =>
            {
                var plan = CoverComputation.Of(input);
                plan.IsBest.ShouldBeTrue();
                var chosen = plan.Lines.Select(line => line.Hosts).ToList();
                Breaks(input, chosen).ShouldBeFalse();
                Cost(input, chosen).ShouldBe(AllPlans(input).Min(all => Cost(input, all)));
                foreach (var (line, session) in plan.Lines.Zip(input.Sessions))
                    (line.Hosts is null && !session.IsLeftByHand).ShouldBe(line.Lacks.Count > 0);
            },
            iter: Tries.Of(400)
        );

    [Fact]
    public void The_most_there_can_be_at_once_are_spread_and_that_is_proven()
    {
        var random = new Random(7);
        var hosts = Enumerable.Range(0, 12).Select(at => $"h{at}").ToArray();
        var sessions = Enumerable
            .Range(0, 40)
            .Select(at =>
                Session(
                    $"{at}",
                    at / 4 * 35,
                    new CoveredSeat("ill", true, [.. hosts.Where(_ => random.Next(3) > 0)])
                ) with
                {
                    BufferAfter = 10,
                }
            )
            .ToList();
        var plan = Plan(sessions, [.. hosts.Select(host => (host, random.Next(5)))]);
        plan.IsBest.ShouldBeTrue();
        plan.Lines.ShouldAllBe(line => line.Hosts != null);
    }

    [Fact]
    public void What_would_take_too_long_ends_with_a_plan_that_breaks_nothing_and_says_so()
    {
        // Forty at odd times that overlap in long chains, with three seats each, for few who can take them.
        var random = new Random(3);
        var hosts = Enumerable.Range(0, 14).Select(at => $"h{at}").ToArray();
        CoveredSeat Seat(string had, bool isLost) => new(had, isLost, [.. hosts.Where(_ => random.Next(2) > 0)]);
        var sessions = Enumerable
            .Range(0, 40)
            .Select(at =>
                Session(
                    $"{at}",
                    at * 11,
                    Seat("ill", true),
                    Seat(hosts[at % 14], false),
                    Seat(hosts[(at * 5 + 3) % 14], at % 2 == 0)
                ) with
                {
                    BufferBefore = at % 3 * 5,
                    BufferAfter = at % 4 * 5,
                }
            )
            .ToList();
        var plan = Plan(sessions);
        plan.IsBest.ShouldBeFalse();
        Breaks(
                new CoverInput(sessions, new Dictionary<string, CoverLoad>()),
                [.. plan.Lines.Select(line => line.Hosts)]
            )
            .ShouldBeFalse();
        plan.Lines.Count(line => line.Hosts is not null).ShouldBeGreaterThan(10);
    }

    private static readonly Gen<CoverInput> Inputs =
        from sessions in Gen.Select(
            Gen.Int[0, 5],
            Gen.Int[0, 2],
            Gen.Int[0, 2],
            Gen.Select(Gen.Bool, Gen.Int[0, 15], (isLost, mask) => (isLost, mask)).Array[1, 3],
            Gen.Int[0, 9]
        ).Array[1, 4]
        from loads in Gen.Int[0, 4].Array[4]
        from weights in Gen.Int[1, 3].Array[4]
        select new CoverInput(
            [
                .. sessions.Select(
                    (one, at) =>
                        Session(
                            $"{at}",
                            one.Item1 * 15,
                            [
                                .. one.Item4.Select(
                                    (seat, place) =>
                                        // The first seat lost somebody; others did, or have a host who could sit
                                        // elsewhere.
                                        new CoveredSeat(
                                            seat.isLost || place == 0 ? $"ill{place}" : $"{"abcd"[place]}",
                                            seat.isLost || place == 0,
                                            [
                                                .. "abcd"
                                                    .Where((_, bit) => (seat.mask >> bit & 1) == 1)
                                                    .Select(host => $"{host}"),
                                            ]
                                        )
                                ),
                            ]
                        ) with
                        {
                            BufferBefore = one.Item2 * 5,
                            BufferAfter = one.Item3 * 5,
                            IsLeftByHand = one.Item5 == 9,
                        }
                ),
            ],
            "abcd"
                .Select((host, at) => (host, at))
                .ToDictionary(pair => $"{pair.host}", pair => new CoverLoad(loads[pair.at], weights[pair.at]))
        );

    /// <summary>Every way to seat or leave each session that breaks nothing.</summary>
    private static IEnumerable<List<IReadOnlyList<string>?>> AllPlans(CoverInput input)
    {
        IEnumerable<List<IReadOnlyList<string>?>> plans =
        [
            [],
        ];
        foreach (var session in input.Sessions)
        {
            IEnumerable<IReadOnlyList<string>?> ways = session.IsLeftByHand ? [null] : LineUps(session).Prepend(null);
            plans = plans.SelectMany(plan => ways.Select(way => plan.Append(way).ToList()));
        }

        return plans.Where(plan => !Breaks(input, plan));
    }

    private static IEnumerable<IReadOnlyList<string>> LineUps(CoveredSession session)
    {
        IEnumerable<List<string>> ways =
        [
            [],
        ];
        foreach (var seat in session.Seats)
            ways = ways.SelectMany(way =>
                seat.CanTake.Concat(seat.IsLost ? [] : [seat.Had])
                    .Distinct()
                    .Where(host => !way.Contains(host))
                    .Select(host => way.Append(host).ToList())
            );
        return ways;
    }

    private static bool Breaks(CoverInput input, List<IReadOnlyList<string>?> plan)
    {
        for (var one = 0; one < plan.Count; one++)
        {
            for (var other = one + 1; other < plan.Count; other++)
            {
                var (a, b) = (input.Sessions[one], input.Sessions[other]);
                var gap = Duration.FromMinutes(
                    a.Time.Start <= b.Time.Start
                        ? Math.Max(a.BufferAfter, b.BufferBefore)
                        : Math.Max(b.BufferAfter, a.BufferBefore)
                );
                var (first, last) = a.Time.Start <= b.Time.Start ? (a, b) : (b, a);
                if (last.Time.Start < first.Time.End + gap && plan[one]?.Intersect(plan[other] ?? []).Any() == true)
                    return true;
            }
        }

        return false;
    }

    private static (int Left, int Changes, decimal Load) Cost(CoverInput input, List<IReadOnlyList<string>?> plan)
    {
        var (changes, load) = (0, 0m);
        var has = input.Loads.ToDictionary(pair => pair.Key, pair => pair.Value.Sessions);
        foreach (var (hosts, session) in plan.Zip(input.Sessions))
        {
            foreach (var (host, seat) in (hosts ?? []).Zip(session.Seats))
            {
                // Six weights of up to three go into whole numbers.
                load += has[host]++ * 6m / input.Loads[host].Weight;
                if (!seat.IsLost && host == seat.Had)
                    continue;
                changes += seat.IsLost ? 0 : 1;
            }
        }

        return (plan.Count(hosts => hosts is null), changes, load);
    }

    private static CoverPlan Plan(IReadOnlyList<CoveredSession> sessions, params (string Host, int Sessions)[] loads) =>
        CoverComputation.Of(
            new CoverInput(sessions, loads.ToDictionary(load => load.Host, load => new CoverLoad(load.Sessions, 1)))
        );

    private static CoveredSession Session(string id, int minute, params CoveredSeat[] seats)
    {
        var start = Nine + Duration.FromMinutes(minute);
        return new CoveredSession(id, new Span(start, start + Duration.FromMinutes(30)), 0, 0, seats);
    }

    private static string Told(CoverPlan plan) =>
        string.Join(
            "; ",
            plan.Lines.Select(line => $"{line.Session}: {(line.Hosts is { } hosts ? string.Join("+", hosts) : "-")}")
        );
}
