using System.Numerics;
using LooseLantern.Core.Openings;

namespace LooseLantern.Core.LineUps;

/// <summary>
/// Rule 10 for many starts at once. By Hall's theorem distinct hosts can fill all seats exactly where, for every set of
/// seats, at least as many hosts are free for one of them as there are seats in it. Hosts who fit the same seats are
/// alike, and so are seats that the same hosts fit; so free hosts are counted group by group, for 64 starts at a time,
/// no further than the seats that the group can fill: where those are reached nobody else of it is asked. Each set of
/// kinds of seats is asked once, as soon as all who fit it were counted.
/// </summary>
internal sealed class SeatCounts
{
    // Sets of seats double with each kind; past this many, each start is solved by itself.
    private const int MostKinds = 6;

    private readonly List<Group> _groups = [];
    private readonly List<(ulong Seat, int Seats)> _kinds = [];
    private readonly List<int> _setsLeft = [];
    private int[] _hosts = [];
    private ulong[] _planes = [];
    private int _words;

    /// <summary>Hosts who fit the same seats.</summary>
    /// <param name="Seats">Those seats, a bit each.</param>
    /// <param name="Kinds">Their kinds, a bit each.</param>
    /// <param name="Most">How many of these hosts can sit at once.</param>
    /// <param name="From">Where its hosts begin in the list of all.</param>
    /// <param name="Planes">Where its first plane begins: plane n has the starts with more than n hosts free.</param>
    private readonly record struct Group(ulong Seats, int Hosts, int Kinds, int Most, int From, int Planes);

    /// <summary>How many words it writes on.</summary>
    public int Size => _planes.Length;

    public int Groups => _groups.Count;

    /// <param name="seatsOf">For each host the seats that they fit, a bit each.</param>
    /// <param name="seats">How many there are, up to 64.</param>
    /// <param name="words">Of each set of starts.</param>
    /// <returns>False where seats are of too many kinds for this.</returns>
    public bool Begin(ReadOnlySpan<ulong> seatsOf, int seats, int words)
    {
        _words = words;
        _groups.Clear();
        _kinds.Clear();
        _setsLeft.Clear();
        foreach (var fits in seatsOf)
        {
            var at = Find(fits);
            if (at >= 0)
                _groups[at] = _groups[at] with { Hosts = _groups[at].Hosts + 1 };
            else if (fits != 0)
                _groups.Add(new Group(fits, 1, 0, 0, 0, 0));
            if (_groups.Count >= 1 << MostKinds)
                return false;
        }

        for (var seat = 0; seat < seats; seat++)
            AddToKinds(seat);
        if (_kinds.Count > MostKinds)
            return false;
        // Who sits alone decides for all others: small groups come first.
        _groups.Sort(static (one, other) => one.Hosts - other.Hosts);
        Place(seatsOf);
        for (var set = 1; set < 1 << _kinds.Count; set++)
            _setsLeft.Add(set);
        return true;
    }

    public ReadOnlySpan<int> HostsOf(int group) => _hosts.AsSpan(_groups[group].From, _groups[group].Hosts);

    /// <summary>The starts at which as many of a group are free as can sit.</summary>
    public StartSet Enough(int group) => Plane(_groups[group], _groups[group].Most - 1);

    /// <summary>One more host of a group, free at these starts.</summary>
    public void Add(int group, StartSet free)
    {
        var counted = _groups[group];
        for (var n = counted.Most - 1; n > 0; n--)
            Plane(counted, n).AddBoth(Plane(counted, n - 1), free);
        Plane(counted, 0).AddBoth(free, free);
    }

    /// <summary>Takes out the starts at which seats can't be filled, once all of some groups were counted.</summary>
    /// <param name="groups">The first so many.</param>
    public void KeepFillable(StartSet among, int groups)
    {
        var open = 0;
        for (var group = groups; group < _groups.Count; group++)
            open |= _groups[group].Kinds;
        for (var i = _setsLeft.Count - 1; i >= 0; i--)
        {
            if ((_setsLeft[i] & open) != 0)
                continue;
            KeepWhereEnough(among, _setsLeft[i]);
            _setsLeft.RemoveAt(i);
        }
    }

    private void KeepWhereEnough(StartSet among, int set)
    {
        var seats = 0;
        for (var kind = 0; kind < _kinds.Count; kind++)
            seats += (set >> kind & 1) * _kinds[kind].Seats;
        // For 64 starts: which of them have at least n hosts free for these seats.
        Span<ulong> atLeast = stackalloc ulong[seats + 1];
        for (var word = 0; word < _words; word++)
        {
            if (among.Words[word] == 0)
                continue;
            atLeast.Clear();
            atLeast[0] = ulong.MaxValue;
            foreach (var group in _groups)
            {
                if ((group.Kinds & set) != 0)
                    AddGroup(atLeast, group, word);
            }

            among.Words[word] &= atLeast[seats];
        }
    }

    private void AddGroup(Span<ulong> atLeast, Group group, int word)
    {
        for (var n = atLeast.Length - 1; n > 0; n--)
        {
            for (var more = Math.Min(group.Most, n); more > 0; more--)
                atLeast[n] |= atLeast[n - more] & _planes[group.Planes + (more - 1) * _words + word];
        }
    }

    private StartSet Plane(Group group, int n) => new(_planes.AsSpan(group.Planes + n * _words, _words));

    private int Find(ulong seats)
    {
        for (var at = 0; at < _groups.Count; at++)
        {
            if (_groups[at].Seats == seats)
                return at;
        }

        return -1;
    }

    /// <summary>Seats are of one kind where every host who fits one fits the other.</summary>
    private void AddToKinds(int seat)
    {
        for (var kind = 0; kind < _kinds.Count; kind++)
        {
            if (!AreAlike(_kinds[kind].Seat, 1UL << seat))
                continue;
            _kinds[kind] = _kinds[kind] with { Seats = _kinds[kind].Seats + 1 };
            return;
        }

        _kinds.Add((1UL << seat, 1));
    }

    private bool AreAlike(ulong one, ulong other)
    {
        foreach (var group in _groups)
        {
            if ((group.Seats & one) == 0 != ((group.Seats & other) == 0))
                return false;
        }

        return true;
    }

    /// <summary>Gives each group its kinds, its hosts and its planes.</summary>
    private void Place(ReadOnlySpan<ulong> seatsOf)
    {
        if (_hosts.Length < seatsOf.Length)
            _hosts = new int[seatsOf.Length];
        var (hosts, planes) = (0, 0);
        for (var at = 0; at < _groups.Count; at++)
        {
            var group = _groups[at];
            var kinds = 0;
            for (var kind = 0; kind < _kinds.Count; kind++)
                kinds |= (group.Seats & _kinds[kind].Seat) != 0 ? 1 << kind : 0;
            _groups[at] = group with
            {
                Kinds = kinds,
                Most = Math.Min(group.Hosts, BitOperations.PopCount(group.Seats)),
                From = hosts,
                Planes = planes,
            };
            for (var host = 0; host < seatsOf.Length; host++)
            {
                if (seatsOf[host] == group.Seats)
                    _hosts[hosts++] = host;
            }

            planes += _groups[at].Most * _words;
        }

        if (_planes.Length < planes)
            _planes = new ulong[planes];
        _planes.AsSpan(0, planes).Clear();
    }
}
