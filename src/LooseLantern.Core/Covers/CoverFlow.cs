namespace LooseLantern.Core.Covers;

/// <summary>What is barred in one branch of the search.</summary>
/// <param name="Barred">Sessions a host does not get.</param>
/// <param name="Left">Sessions that are not kept.</param>
/// <param name="Kept">Sessions that must be kept.</param>
internal sealed record CoverBranch(
    IReadOnlySet<(int Session, int Host)> Barred,
    IReadOnlySet<int> Left,
    IReadOnlySet<int> Kept
)
{
    public static readonly CoverBranch Root = new(new HashSet<(int, int)>(), new HashSet<int>(), new HashSet<int>());
}

/// <summary>
/// The cheapest way to seat everybody while only some of what must not be is barred: one host has one session of each
/// group, and a seat may stay empty beside one that is filled. As a flow of least cost (successive shortest paths;
/// Busacker and Gowen 1961) from seats through hosts, each of whom costs more with each session. No plan costs less.
/// </summary>
internal sealed class CoverFlow
{
    private readonly List<(int To, int Back, CoverCost Cost)> _arcs = [];
    private readonly List<bool> _open = [];
    private readonly List<List<int>> _from = [];
    private readonly CoverProblem _problem;
    private long _steps;

    private CoverFlow(CoverProblem problem) => _problem = problem;

    /// <param name="steps">Counts what was looked at, whichever machine does it.</param>
    /// <returns>By session and seat the host, or -1; null where a session that must be kept can't be.</returns>
    public static (int[][] Seated, CoverCost Cost)? Solve(CoverProblem problem, CoverBranch branch, ref long steps)
    {
        var flow = new CoverFlow(problem);
        var solved = flow.Solve(branch);
        steps += flow._steps;
        return solved;
    }

    private (int[][] Seated, CoverCost Cost)? Solve(CoverBranch branch)
    {
        var sink = Node();
        var hosts = _problem.Hosts.Select(_ => Node()).ToArray();
        var seats = SeatsOf(branch);
        for (var host = 0; host < hosts.Length; host++)
        {
            var most = seats.Count(seat => seat.Options.Any(option => option.Host == host));
            for (var has = 0; has < most; has++)
                Arc(hosts[host], sink, _problem.LoadCost(host, has));
        }

        var turns = new Dictionary<(int Group, int Host), int>();
        var cost = default(CoverCost);
        var nodes = seats.ConvertAll(seat =>
        {
            var node = Node();
            foreach (var (host, price) in seat.Options)
            {
                if (!turns.TryGetValue((_problem.Group[seat.Session], host), out var turn))
                {
                    turns.Add((_problem.Group[seat.Session], host), turn = Node());
                    Arc(turn, hosts[host], default);
                }

                Arc(node, turn, price);
            }

            if (!branch.Kept.Contains(seat.Session))
                Arc(node, sink, _problem.LeftCost(seat.Session));
            return node;
        });
        foreach (var node in nodes)
        {
            if (Augment(node, sink) is not { } step)
                return null;
            cost += step;
        }

        foreach (var session in branch.Left)
        {
            for (var seat = 0; seat < _problem.Sessions[session].Seats.Count; seat++)
                cost += _problem.LeftCost(session);
        }

        return (Seated(seats, nodes, turns), cost);
    }

    private List<(int Session, int Seat, (int Host, CoverCost Cost)[] Options)> SeatsOf(CoverBranch branch) =>
        [
            .. _problem
                .Options.SelectMany((seats, session) => seats.Select((options, seat) => (session, seat, options)))
                .Where(one => !branch.Left.Contains(one.session))
                .Select(one =>
                    (
                        one.session,
                        one.seat,
                        one.options.Where(option => !branch.Barred.Contains((one.session, option.Host))).ToArray()
                    )
                ),
        ];

    private int[][] Seated(
        List<(int Session, int Seat, (int Host, CoverCost Cost)[] Options)> seats,
        List<int> nodes,
        Dictionary<(int Group, int Host), int> turns
    )
    {
        var seated = _problem
            .Sessions.Select(session => Enumerable.Repeat(-1, session.Seats.Count).ToArray())
            .ToArray();
        var hostOf = turns.ToDictionary(turn => turn.Value, turn => turn.Key.Host);
        for (var i = 0; i < seats.Count; i++)
        {
            // What was used is closed, and open the other way.
            var used = _from[nodes[i]].Find(arc => arc % 2 == 0 && !_open[arc]);
            seated[seats[i].Session][seats[i].Seat] = hostOf.GetValueOrDefault(_arcs[used].To, -1);
        }

        return seated;
    }

    private int Node()
    {
        _from.Add([]);
        return _from.Count - 1;
    }

    private void Arc(int from, int to, CoverCost cost)
    {
        _from[from].Add(_arcs.Count);
        _arcs.Add((to, from, cost));
        _open.Add(true);
        _from[to].Add(_arcs.Count);
        _arcs.Add((from, to, default(CoverCost) - cost));
        _open.Add(false);
    }

    /// <summary>One unit by the cheapest way; costs may be negative where something is given back (Bellman and
    /// Ford).</summary>
    private CoverCost? Augment(int from, int sink)
    {
        var best = new CoverCost?[_from.Count];
        var came = new int[_from.Count];
        var waits = new Queue<int>([from]);
        var isWaiting = new bool[_from.Count];
        best[from] = default(CoverCost);
        while (waits.TryDequeue(out var node))
        {
            isWaiting[node] = false;
            foreach (var arc in _from[node])
            {
                _steps++;
                if (!_open[arc])
                    continue;
                var (to, _, price) = _arcs[arc];
                var cost = best[node]!.Value + price;
                if (best[to] is { } known && !(cost < known))
                    continue;
                (best[to], came[to]) = (cost, arc);
                if (isWaiting[to] || to == sink)
                    continue;
                isWaiting[to] = true;
                waits.Enqueue(to);
            }
        }

        if (best[sink] is not { } all)
            return null;
        for (var node = sink; node != from; node = _arcs[came[node]].Back)
        {
            var arc = came[node];
            (_open[arc], _open[arc ^ 1]) = (false, true);
        }

        return all;
    }
}
