using System.Numerics;
using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.LineUps;

/// <summary>
/// Who takes a booking: among all complete line-ups of free hosts the one with the least total cost. Costs are
/// fractions (sessions over weights, means over several hosts), so they are put over one denominator and added as whole
/// numbers: no rounding, and no two machines that choose differently.
/// </summary>
public static class Assignment
{
    /// <summary>Sessions this long before and after the start count as load.</summary>
    public static readonly Duration LoadReach = Duration.FromDays(30);

    /// <summary>A host put in the seat less long ago than this is a newcomer.</summary>
    public static readonly Duration NewcomerFor = Duration.FromDays(30);

    /// <summary>
    /// The host of each seat for a new session at <paramref name="start"/>, in the order of the seats; null where the
    /// start is no opening for one (rules 1 to 10).
    /// </summary>
    /// <exception cref="ArgumentException">When <paramref name="facts"/> has not one entry for each seat, or a weight
    /// under 1.</exception>
    public static IReadOnlyList<string>? For(OpeningsInput input, Instant start, AssignmentFacts facts)
    {
        var lineUp = input.Page.LineUp;
        if (facts.Seats.Count != lineUp.Count)
            throw new ArgumentException("Facts are needed for each seat of the line-up.", nameof(facts));
        if (facts.Loads.Values.Any(load => load.Weight < 1))
            throw new ArgumentException("A weight is at least 1.", nameof(facts));
        if (OpeningsComputation.HostsFreeAt(input, start) is not { } free)
            return null;

        // The host longest since last assigned stands first, one who never was before all others, then by id.
        var hosts = InRank(lineUp.SelectMany(seat => seat.AnyOf).Distinct().Where(free.Contains), facts).ToArray();
        var chosen = LeastCost.Assign(Costs(lineUp, hosts, start, facts, input.Keeper));
        return chosen?.Select(host => hosts[host]).ToList();
    }

    /// <summary>
    /// Of each seat its hosts in the order in which a new session at <paramref name="start"/> would go to them, were
    /// all of them free and the other seats not there; with how many sessions count as each one's load.
    /// </summary>
    public static IReadOnlyList<IReadOnlyList<Turn>> Turns(
        IReadOnlyList<Seat> lineUp,
        Instant start,
        AssignmentFacts facts
    )
    {
        var denominator = Denominator(lineUp, facts);
        return
        [
            .. lineUp.Select(
                (seat, at) =>
                {
                    var costs = SeatCosts(seat, facts.Seats[at], start, facts, denominator);
                    return (IReadOnlyList<Turn>)
                        [
                            .. InRank(seat.AnyOf, facts)
                                .OrderBy(host => costs[host])
                                .Select(host => new Turn(
                                    host,
                                    facts
                                        .Loads.GetValueOrDefault(host)
                                        ?.Sessions.Count(session => IsLoad(session, start))
                                        ?? 0
                                )),
                        ];
                }
            ),
        ];
    }

    private static IEnumerable<string> InRank(IEnumerable<string> hosts, AssignmentFacts facts) =>
        hosts
            .OrderBy(host => facts.Loads.GetValueOrDefault(host)?.LastAssigned ?? Instant.MinValue)
            .ThenBy(host => host, StringComparer.Ordinal);

    private static bool IsLoad(Instant session, Instant start) =>
        session >= start - LoadReach && session <= start + LoadReach;

    /// <summary>
    /// Costs by seat and host, null where the host can't fill the seat. Four things are packed into one number, each
    /// outweighing all that follow: the guest's keeper, hosts to be kept, the cost itself, and the tie-break seat by
    /// seat.
    /// </summary>
    private static BigInteger?[,] Costs(
        IReadOnlyList<Seat> lineUp,
        string[] hosts,
        Instant start,
        AssignmentFacts facts,
        string? keeper
    )
    {
        var denominator = Denominator(lineUp, facts);
        var ranks = new BigInteger(hosts.Length + 1);
        var costs = new BigInteger?[lineUp.Count, hosts.Length];
        BigInteger most = 0;
        for (var seat = 0; seat < lineUp.Count; seat++)
        {
            var ofSeat = SeatCosts(lineUp[seat], facts.Seats[seat], start, facts, denominator);
            for (var rank = 0; rank < hosts.Length; rank++)
            {
                if (!ofSeat.TryGetValue(hosts[rank], out var cost))
                    continue;
                costs[seat, rank] =
                    cost * BigInteger.Pow(ranks, lineUp.Count) + rank * BigInteger.Pow(ranks, lineUp.Count - 1 - seat);
                most = BigInteger.Max(most, costs[seat, rank]!.Value);
            }
        }

        var kept = most * lineUp.Count + 1;
        var first = (most + kept) * lineUp.Count + 1;
        for (var seat = 0; seat < lineUp.Count; seat++)
        {
            for (var rank = 0; rank < hosts.Length; rank++)
            {
                if (costs[seat, rank] is not { } cost)
                    continue;
                if (facts.Keep.Contains(hosts[rank]))
                    cost -= kept;
                if (hosts[rank] == keeper && Keepers.Considers(lineUp[seat], keeper))
                    cost -= first;
                costs[seat, rank] = cost;
            }
        }

        return costs;
    }

    /// <summary>The cost of each eligible host of a seat, times <paramref name="denominator"/>.</summary>
    private static Dictionary<string, BigInteger> SeatCosts(
        Seat seat,
        SeatFacts facts,
        Instant start,
        AssignmentFacts all,
        BigInteger denominator
    )
    {
        if (facts.Fill == SeatFill.InOrder)
            return seat
                .AnyOf.Select((host, place) => (host, place))
                .ToDictionary(pair => pair.host, pair => pair.place * denominator);

        var loads = seat.AnyOf.ToDictionary(
            host => host,
            host =>
                all.Loads.GetValueOrDefault(host) is { } load
                    ? load.Sessions.Count(session => IsLoad(session, start)) * denominator / load.Weight
                    : BigInteger.Zero
        );
        var settled = seat.AnyOf.Where(host => !IsNewcomer(host, facts, all)).ToList();
        if (settled.Count == 0)
            return loads;

        // A newcomer starts level with the others instead of being given everything until they are even.
        var mean = settled.Aggregate(BigInteger.Zero, (sum, host) => sum + loads[host]) / settled.Count;
        return loads.ToDictionary(
            pair => pair.Key,
            pair => IsNewcomer(pair.Key, facts, all) ? BigInteger.Max(pair.Value, mean) : pair.Value
        );
    }

    private static bool IsNewcomer(string host, SeatFacts seat, AssignmentFacts all) =>
        seat.Since.TryGetValue(host, out var since) && all.BookedAt - since < NewcomerFor;

    /// <summary>What every weight, and every number of hosts whose mean is taken, divides.</summary>
    private static BigInteger Denominator(IReadOnlyList<Seat> lineUp, AssignmentFacts facts)
    {
        var weights = facts
            .Loads.Values.Select(load => load.Weight)
            .Distinct()
            .Aggregate(BigInteger.One, LeastCommonMultiple);
        return weights
            * lineUp
                .Select((seat, i) => seat.AnyOf.Count(host => !IsNewcomer(host, facts.Seats[i], facts)))
                .Where(settled => settled > 0)
                .Distinct()
                .Aggregate(BigInteger.One, LeastCommonMultiple);
    }

    private static BigInteger LeastCommonMultiple(BigInteger left, int right) =>
        left / BigInteger.GreatestCommonDivisor(left, right) * right;
}
