using LooseLantern.Core.LineUps;

namespace LooseLantern.Core.Covers;

/// <summary>
/// Spreads sessions that lost hosts over others: first as many kept at their time as can be, then the fewest changes of
/// other seats, then even work, then the order of the seats. It is worked out over all of them together: the cheapest
/// way that leaves some rules aside (<see cref="CoverFlow"/>) is a bound, and where it breaks a rule the search goes on
/// with each way not to break it, the most promising first (branch and bound; Land and Doig 1960). The first that
/// breaks none is the best.
/// </summary>
public static class CoverComputation
{
    /// <summary>More are to be split: over a shorter time, or by host.</summary>
    public const int MostSessions = 40;

    /// <summary>
    /// After so many steps, which take less than half a second, the best plan that was found is taken. They are counted
    /// and not timed, so that every machine finds the same.
    /// </summary>
    private const long MostSteps = 4_000_000;

    /// <exception cref="ArgumentException">More sessions than <see cref="MostSessions"/>, a weight under 1, or two
    /// sessions decided by hand that one host can't have both of.</exception>
    public static CoverPlan Of(CoverInput input)
    {
        if (input.Sessions.Count > MostSessions)
            throw new ArgumentException($"More than {MostSessions} sessions.", nameof(input));
        if (CollidingByHand(input) is { } collision)
            throw new ArgumentException($"{collision.Host} has two sessions at once by hand.", nameof(input));
        var problem = new CoverProblem(input);
        var (seated, isBest) = Search(problem);
        return new CoverPlan(Lines(input, problem, seated), isBest);
    }

    /// <summary>Two sessions that somebody gave to one host by hand, though nobody can have both; null for
    /// none.</summary>
    public static (string Host, string One, string Other)? CollidingByHand(CoverInput input)
    {
        var decided = input.Sessions.Where(session => session.Decided is not null).ToList();
        foreach (var (one, at) in decided.Select((session, at) => (session, at)))
        {
            if (one.Decided!.GroupBy(host => host).FirstOrDefault(group => group.Count() > 1) is { } twice)
                return (twice.Key, one.Id, one.Id);
            foreach (var other in decided.Skip(at + 1).Where(other => CoverProblem.AreTooClose(one, other)))
            {
                if (one.Decided!.FirstOrDefault(other.Decided!.Contains) is { } host)
                    return (host, one.Id, other.Id);
            }
        }

        return null;
    }

    private static (int[][] Seated, bool IsBest) Search(CoverProblem problem)
    {
        var open = new PriorityQueue<(CoverBranch Branch, int[][] Seated), (CoverCost Cost, int Turn)>();
        var found = Nobody(problem);
        var best = CostOf(problem, found);
        var (turn, steps) = (0, 0L);
        void Add(CoverBranch branch)
        {
            if (CoverFlow.Solve(problem, branch, ref steps) is not { } solved)
                return;
            open.Enqueue((branch, solved.Seated), (solved.Cost, turn++));
            var mended = Mended(problem, solved.Seated);
            var cost = CostOf(problem, mended);
            if (cost < best)
                (found, best) = (mended, cost);
        }

        Add(CoverBranch.Root);
        while (open.TryDequeue(out var next, out var priority))
        {
            // Nothing that is left to look at is cheaper.
            if (!priority.Cost.IsBetterThan(best))
                return (found, true);
            if (steps > MostSteps)
                return (found, false);
            foreach (var branch in Branches(problem, next.Branch, next.Seated))
                Add(branch);
        }

        return (found, true);
    }

    /// <summary>Ways not to break a rule that is broken; every plan is in one of them.</summary>
    private static IEnumerable<CoverBranch> Branches(CoverProblem problem, CoverBranch branch, int[][] seated)
    {
        for (var session = 0; session < seated.Length; session++)
        {
            if (seated[session].Contains(-1) && seated[session].Any(host => host >= 0))
                return
                [
                    branch with
                    {
                        Kept = new HashSet<int>(branch.Kept) { session },
                    },
                    branch with
                    {
                        Left = new HashSet<int>(branch.Left) { session },
                    },
                ];
        }

        for (var session = 0; session < seated.Length; session++)
        {
            foreach (var host in seated[session].Where(host => host >= 0))
            {
                var close = Enumerable.Range(0, seated.Length).Where(other => problem.TooClose[session, other]);
                if (!close.Any(other => seated[other].Contains(host)))
                    continue;
                // Either somebody else has this one, or the host has none that is too close to it.
                return
                [
                    branch with
                    {
                        Barred = new HashSet<(int, int)>(branch.Barred) { (session, host) },
                    },
                    branch with
                    {
                        Barred = new HashSet<(int, int)>(branch.Barred.Concat(close.Select(other => (other, host)))),
                    },
                ];
            }
        }

        return [];
    }

    /// <summary>A plan that breaks nothing: what collides is left, and taken again by whoever is free.</summary>
    private static int[][] Mended(CoverProblem problem, int[][] seated)
    {
        var mended = Nobody(problem);
        for (var session = 0; session < seated.Length; session++)
        {
            if (!seated[session].Contains(-1) && seated[session].All(host => IsFree(problem, mended, session, host)))
                mended[session] = seated[session];
        }

        for (var session = 0; session < seated.Length; session++)
        {
            if (mended[session].Contains(-1) && Filled(problem, mended, session) is { } hosts)
                mended[session] = hosts;
        }

        return mended;
    }

    private static int[]? Filled(CoverProblem problem, int[][] seated, int session) =>
        LineUp.Fill(
            [.. problem.Options[session].Select(options => options.Select(option => option.Host).ToList())],
            host => IsFree(problem, seated, session, host)
        );

    private static bool IsFree(CoverProblem problem, int[][] seated, int session, int host) =>
        !Enumerable
            .Range(0, seated.Length)
            .Any(other => problem.TooClose[session, other] && seated[other].Contains(host));

    private static int[][] Nobody(CoverProblem problem) =>
        [.. problem.Sessions.Select(session => Enumerable.Repeat(-1, session.Seats.Count).ToArray())];

    private static CoverCost CostOf(CoverProblem problem, int[][] seated)
    {
        var (cost, has) = (default(CoverCost), new int[problem.Hosts.Length]);
        for (var session = 0; session < seated.Length; session++)
        {
            for (var seat = 0; seat < seated[session].Length; seat++)
            {
                var host = seated[session][seat];
                cost +=
                    host < 0
                        ? problem.LeftCost(session)
                        : Array.Find(problem.Options[session][seat], option => option.Host == host).Cost
                            + problem.LoadCost(host, has[host]++);
            }
        }

        return cost;
    }

    private static List<CoverLine> Lines(CoverInput input, CoverProblem problem, int[][] seated)
    {
        var lines = new List<CoverLine>();
        var at = 0;
        foreach (var session in input.Sessions)
        {
            if (session.Decided is { } decided)
            {
                lines.Add(new CoverLine(session.Id, decided, []));
                continue;
            }

            if (session.IsLeftByHand)
            {
                lines.Add(new CoverLine(session.Id, null, []));
                continue;
            }

            lines.Add(
                seated[at].Contains(-1)
                    ? new CoverLine(session.Id, null, Lacks(input, problem, seated, at))
                    : new CoverLine(session.Id, [.. seated[at].Select(host => problem.Hosts[host])], [])
            );
            at++;
        }

        return lines;
    }

    /// <summary>The seats that nobody could take as the plan stands; where each alone could be filled, all that lost
    /// somebody: they share too few.</summary>
    private static List<EmptySeat> Lacks(CoverInput input, CoverProblem problem, int[][] seated, int session)
    {
        var seats = problem.Sessions[session].Seats;
        var lacks = new List<EmptySeat>();
        for (var seat = 0; seat < seats.Count; seat++)
        {
            var could = seats[seat].IsLost ? seats[seat].CanTake : [.. seats[seat].CanTake, seats[seat].Had];
            var needed = could.Distinct().Select(host => Elsewhere(input, problem, seated, session, host)).ToList();
            if (needed.TrueForAll(one => one is not null))
                lacks.Add(new EmptySeat(seat, [.. needed.OfType<NeededElsewhere>()]));
        }

        return lacks.Count > 0
            ? lacks
            :
            [
                .. Enumerable
                    .Range(0, seats.Count)
                    .Where(seat => seats[seat].IsLost)
                    .Select(seat => new EmptySeat(seat, [])),
            ];
    }

    private static NeededElsewhere? Elsewhere(
        CoverInput input,
        CoverProblem problem,
        int[][] seated,
        int session,
        string host
    )
    {
        var own = problem.Sessions[session];
        var byHand = input.Sessions.FirstOrDefault(other =>
            other.Decided?.Contains(host) == true && CoverProblem.AreTooClose(own, other)
        );
        if (byHand is not null)
            return new NeededElsewhere(host, byHand.Id);
        for (var other = 0; other < seated.Length; other++)
        {
            if (problem.TooClose[session, other] && seated[other].Contains(problem.HostOf[host]))
                return new NeededElsewhere(host, problem.Sessions[other].Id);
        }

        return null;
    }
}
