using NodaTime;

namespace LooseLantern.Core.Covers;

/// <summary>
/// The sessions of a plan in numbers: hosts and sessions by position, who could sit where at what cost, and which
/// sessions nobody could have both of.
/// </summary>
internal sealed class CoverProblem
{
    private readonly long _eachLeft;
    private readonly long _eachLoad;
    private readonly CoverLoad[] _loads;

    public CoverProblem(CoverInput input)
    {
        Sessions = [.. input.Sessions.Where(session => session is { Decided: null, IsLeftByHand: false })];
        var decided = input.Sessions.Where(session => session.Decided is not null).ToList();
        Hosts =
        [
            .. input
                .Sessions.SelectMany(session => session.Seats.SelectMany(seat => seat.CanTake.Append(seat.Had)))
                .Concat(decided.SelectMany(session => session.Decided!))
                .Distinct()
                .Order(StringComparer.Ordinal),
        ];
        HostOf = Hosts.Select((host, at) => (host, at)).ToDictionary(pair => pair.host, pair => pair.at);
        _loads =
        [
            .. Hosts.Select(host =>
            {
                var load = input.Loads.GetValueOrDefault(host) ?? new CoverLoad(0, 1);
                return load with { Sessions = load.Sessions + decided.Count(one => one.Decided!.Contains(host)) };
            }),
        ];
        if (Array.Exists(_loads, load => load.Weight < 1))
            throw new ArgumentException("A weight is at least 1.", nameof(input));
        _eachLoad = _loads.Select(load => (long)load.Weight).Distinct().Aggregate(1L, LeastCommonMultiple);
        _eachLeft = Sessions.Select(session => (long)session.Seats.Count).Distinct().Aggregate(1L, LeastCommonMultiple);
        TooClose = new bool[Sessions.Length, Sessions.Length];
        for (var one = 0; one < Sessions.Length; one++)
        {
            for (var other = 0; other < Sessions.Length; other++)
                TooClose[one, other] = one != other && AreTooClose(Sessions[one], Sessions[other]);
        }

        Group = Groups();
        Options =
        [
            .. Sessions.Select(session =>
            {
                var taken = decided
                    .Where(other => AreTooClose(session, other))
                    .SelectMany(other => other.Decided!)
                    .ToHashSet();
                return session.Seats.Select(seat => OptionsOf(seat, taken)).ToArray();
            }),
        ];
    }

    /// <summary>Those that are to be worked out.</summary>
    public CoveredSession[] Sessions { get; }

    public string[] Hosts { get; }

    public Dictionary<string, int> HostOf { get; }

    /// <summary>By two sessions, whether nobody could have both.</summary>
    public bool[,] TooClose { get; }

    /// <summary>Of each session the group it is in; any two of one group are too close.</summary>
    public int[] Group { get; }

    /// <summary>By session and seat.</summary>
    public (int Host, CoverCost Cost)[][][] Options { get; }

    /// <summary>What one seat of a session that is left costs.</summary>
    public CoverCost LeftCost(int session) => new(_eachLeft / Sessions[session].Seats.Count, 0, 0, 0);

    /// <summary>What a host's next session costs who has so many of the plan already.</summary>
    public CoverCost LoadCost(int host, int has) =>
        new(0, 0, (_loads[host].Sessions + has) * _eachLoad / _loads[host].Weight, 0);

    /// <summary>
    /// Rule 8 of openings: between two sessions the larger of their buffers counts, and not the sum.
    /// </summary>
    public static bool AreTooClose(CoveredSession one, CoveredSession other) =>
        Padded(one).Meets(other.Time) || Padded(other).Meets(one.Time);

    private static Span Padded(CoveredSession session) =>
        new(
            session.Time.Start - Duration.FromMinutes(session.BufferBefore),
            session.Time.End + Duration.FromMinutes(session.BufferAfter)
        );

    private (int Host, CoverCost Cost)[] OptionsOf(CoveredSeat seat, HashSet<string> taken)
    {
        var others = seat
            .CanTake.Where(host => host != seat.Had)
            .Distinct()
            .Select((host, place) => (host, new CoverCost(0, seat.IsLost ? 0 : 1, 0, place)));
        if (!seat.IsLost)
            others = others.Prepend((seat.Had, default));
        return [.. others.Where(one => !taken.Contains(one.Item1)).Select(one => (HostOf[one.Item1], one.Item2))];
    }

    private int[] Groups()
    {
        var groups = new List<List<int>>();
        var group = new int[Sessions.Length];
        foreach (var session in Enumerable.Range(0, Sessions.Length).OrderBy(at => Sessions[at].Time.Start))
        {
            var found = groups.FindIndex(members => members.TrueForAll(member => TooClose[session, member]));
            if (found < 0)
            {
                found = groups.Count;
                groups.Add([]);
            }

            groups[found].Add(session);
            group[session] = found;
        }

        return group;
    }

    private static long LeastCommonMultiple(long left, long right)
    {
        var (a, b) = (left, right);
        while (b != 0)
            (a, b) = (b, a % b);
        return left / a * right;
    }
}
