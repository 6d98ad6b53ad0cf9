using CsCheck;
using LooseLantern.Core.LineUps;
using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>What holds of every choice of hosts for a booking.</summary>
public class AssignmentPropertyTests
{
    private static readonly Gen<AssignmentFacts> Facts =
        from weights in Gen.Int[1, 7].Array[3]
        from sessions in Gen.Int[-50, 50].Array[0, 6].Array[3]
        from last in Gen.Int[0, 4].Array[3]
        from since in Gen.Int[0, 60].Array[3]
        from inOrder in Gen.Bool.Array[3]
        from keep in Gen.Int[0, 5]
        select new AssignmentFacts(
            At("2026-12-01T00:00:00Z"),
            [
                .. inOrder.Select(order => new SeatFacts(
                    order ? SeatFill.InOrder : SeatFill.Balanced,
                    Ids.Zip(since, (id, days) => (id, days))
                        .Where(pair => pair.days < 40)
                        .ToDictionary(
                            pair => pair.id,
                            pair => At("2026-12-01T00:00:00Z") - Duration.FromDays(pair.days)
                        )
                )),
            ],
            Ids.Select(
                    (id, i) =>
                        (
                            id,
                            load: new HostLoad(
                                weights[i],
                                [.. sessions[i].Select(day => At("2026-12-01T08:00:00Z") + Duration.FromDays(day))],
                                last[i] == 0 ? null : At("2026-11-01T08:00:00Z") + Duration.FromDays(last[i])
                            )
                        )
                )
                .ToDictionary(pair => pair.id, pair => pair.load),
            keep < 3 ? new HashSet<string> { Ids[keep] } : []
        );

    private static string[] Ids => ["a", "b", "c"];

    [Fact]
    public void Hosts_can_be_named_for_every_new_opening_and_for_nothing_else() =>
        Gen.Select(RandomInput.Any, Facts)
            .Sample(
                (input, facts) =>
                {
                    var single = input with { Page = input.Page with { Places = 1 } };
                    var fitting = facts with { Seats = [.. facts.Seats.Take(single.Page.LineUp.Count)] };
                    var openings = OpeningsComputation.Openings(single);
                    foreach (var opening in openings.Take(12))
                    {
                        var hosts = Assignment.For(single, opening.Start, fitting).ShouldNotBeNull();
                        hosts.Distinct().Count().ShouldBe(hosts.Count);
                        hosts.Zip(single.Page.LineUp).ShouldAllBe(pair => pair.Second.AnyOf.Contains(pair.First));
                        Assignment.For(single, opening.End + Duration.FromSeconds(7), fitting).ShouldBeNull();
                    }
                },
                iter: Tries.Of(1_000)
            );

    /// <summary>
    /// With fewer seats than hosts, whom a guest met before can stay out; with as many, all have to fit.
    /// </summary>
    [Theory]
    [InlineData(2)]
    [InlineData(3)]
    public void The_line_up_chosen_is_the_best_of_all_there_are(int count) =>
        Facts.Sample(
            drawn =>
            {
                var facts = drawn with { Seats = [.. drawn.Seats.Take(count)] };
                Seat[] lineUp =
                [
                    .. new Seat[] { new(["b", "a", "c"]), new(["c", "b"]), new(["a", "b", "c"]) }.Take(count),
                ];
                var input = Tuesday(Page() with { LineUp = lineUp }, Host("a"), Host("b"), Host("c"));
                var start = At("2026-12-01T08:00:00Z");
                IEnumerable<string[]> ways =
                [
                    [],
                ];
                foreach (var seat in lineUp)
                    ways = ways.SelectMany(way => seat.AnyOf.Except(way), (way, host) => (string[])[.. way, host]);
                var best = ways.OrderByDescending(way => way.Count(facts.Keep.Contains))
                    .ThenBy(way =>
                        way.Select((host, seat) => Cost(host, lineUp[seat], facts.Seats[seat], facts, start))
                            .Sum(cost => cost)
                    )
                    .ThenBy(way => Rank(way[0], facts))
                    .ThenBy(way => Rank(way[1], facts))
                    .ThenBy(way => Rank(way[^1], facts))
                    .First();
                Assignment.For(input, start, facts).ShouldBe(best);
            },
            iter: Tries.Of(5_000)
        );

    /// <summary>
    /// The promise of a balanced pool: with one seat, equal weights and availability, nothing cancelled, no newcomer
    /// and everything within thirty days, nobody ever has two sessions more than anybody else.
    /// </summary>
    [Fact]
    public void Loads_of_equals_never_differ_by_more_than_one() =>
        Gen.Select(Gen.Int[2, 6], Gen.Int[0, 15].Array[1, 30])
            .Sample(
                (hosts, days) =>
                {
                    var ids = Enumerable.Range(0, hosts).Select(i => $"h{i}").ToArray();
                    var given = ids.ToDictionary(id => id, _ => (Sessions: new List<Instant>(), Last: (Instant?)null));
                    for (var booking = 0; booking < days.Length; booking++)
                    {
                        // Each at a time of its own on its day, so that everybody is free.
                        var start =
                            At("2026-12-01T09:00:00Z")
                            + Duration.FromDays(days[booking])
                            + Duration.FromMinutes(booking);
                        var input = On(
                            new LocalDate(2026, 12, 1).PlusDays(days[booking]),
                            Page() with
                            {
                                Step = 1,
                                LineUp = [new Seat(ids)],
                            },
                            [.. ids.Select(id => Host(id))]
                        );
                        var at = At("2026-11-20T09:00:00Z") + Duration.FromHours(booking);
                        var facts = new AssignmentFacts(
                            at,
                            [new SeatFacts(SeatFill.Balanced, new Dictionary<string, Instant>())],
                            given.ToDictionary(
                                pair => pair.Key,
                                pair => new HostLoad(1, pair.Value.Sessions, pair.Value.Last)
                            ),
                            new HashSet<string>()
                        );
                        var host = Assignment.For(input, start, facts).ShouldNotBeNull().ShouldHaveSingleItem();
                        given[host].Sessions.Add(start);
                        given[host] = (given[host].Sessions, at);
                        var loads = given.Values.Select(one => one.Sessions.Count).ToList();
                        (loads.Max() - loads.Min()).ShouldBeLessThanOrEqualTo(1);
                    }
                },
                iter: Tries.Of(500)
            );

    // Costs in thousands of a common multiple of all weights and of all numbers of hosts, so that whole numbers are
    // exact here too.
    private const long Common = 420L * 6;

    private static long Cost(string host, Seat seat, SeatFacts facts, AssignmentFacts all, Instant start)
    {
        if (facts.Fill == SeatFill.InOrder)
            return seat.AnyOf.ToList().IndexOf(host) * Common;
        long Load(string id) =>
            all.Loads[id].Sessions.Count(session => (session - start).TotalDays is >= -30 and <= 30)
            * Common
            / all.Loads[id].Weight;
        bool IsNew(string id) => facts.Since.TryGetValue(id, out var since) && (all.BookedAt - since).TotalDays < 30;
        var settled = seat.AnyOf.Where(id => !IsNew(id)).ToList();
        return IsNew(host) && settled.Count > 0 ? Math.Max(Load(host), settled.Sum(Load) / settled.Count) : Load(host);
    }

    private static int Rank(string host, AssignmentFacts facts) =>
        Ids.OrderBy(id => facts.Loads[id].LastAssigned is not null)
            .ThenBy(id => facts.Loads[id].LastAssigned)
            .ThenBy(id => id, StringComparer.Ordinal)
            .ToList()
            .IndexOf(host);
}
