using LooseLantern.Core.Openings;

namespace LooseLantern.Core.LineUps;

/// <summary>
/// Rule 10 for many starts at once. By Hall's theorem distinct hosts can fill all seats exactly where, for every set of
/// seats, at least as many hosts are free for one of them as there are seats in it. Hosts who fit the same seats are
/// alike, and so are seats that the same hosts fit; so for 64 starts at a time free hosts are counted group by group,
/// no further than the seats to be filled, and each set of kinds of seats is asked once.
/// </summary>
internal static class LineUpStarts
{
    // Sets of seats double with each kind; past this many, each start is solved by itself.
    private const int MostKinds = 6;

    /// <param name="seats">The eligible hosts of each seat, as indices into <paramref name="hosts"/>, each
    /// once.</param>
    /// <param name="hosts">The starts each host can take.</param>
    /// <param name="among">The starts that are asked about; those that cannot be filled are taken out.</param>
    public static void KeepFillable(int[][] seats, StartSet[] hosts, StartSet among)
    {
        var kinds = seats
            .GroupBy(seat => string.Join(',', seat.Order()))
            .Select(alike => (Hosts: alike.First(), Seats: alike.Count()))
            .ToList();
        if (kinds.Count > MostKinds)
            OneByOne(seats, hosts, among);
        else
            ByGroups(kinds, hosts, among);
    }

    private static void OneByOne(int[][] seats, StartSet[] hosts, StartSet among)
    {
        foreach (var position in among.Positions())
        {
            if (LineUp.Fill(seats, host => hosts[host].Contains(position)) is null)
                among.Remove(position, position + 1);
        }
    }

    private static void ByGroups(List<(int[] Hosts, int Seats)> kinds, StartSet[] hosts, StartSet among)
    {
        // A group: the hosts who fit the same kinds of seats, by those kinds as a bit pattern.
        var fits = new int[hosts.Length];
        for (var kind = 0; kind < kinds.Count; kind++)
        {
            foreach (var host in kinds[kind].Hosts)
                fits[host] |= 1 << kind;
        }

        var groups = Enumerable
            .Range(0, hosts.Length)
            .GroupBy(host => fits[host])
            .Where(group => group.Key != 0)
            .Select(group => (Fits: group.Key, Words: group.Select(host => hosts[host].Words).ToArray()))
            .ToArray();
        var sets = Enumerable
            .Range(1, (1 << kinds.Count) - 1)
            .Select(set =>
                (
                    Seats: kinds.Where((_, k) => (set & 1 << k) != 0).Sum(kind => kind.Seats),
                    Groups: Enumerable.Range(0, groups.Length).Where(g => (groups[g].Fits & set) != 0).ToArray()
                )
            )
            .ToArray();

        var most = kinds.Sum(kind => kind.Seats);
        var counts = groups.Select(_ => new FreeCount(most)).ToArray();
        var all = new FreeCount(most);
        for (var word = 0; word < among.Words.Length; word++)
        {
            if (among.Words[word] == 0)
                continue;
            for (var g = 0; g < groups.Length; g++)
            {
                counts[g].Clear();
                foreach (var host in groups[g].Words)
                    counts[g].Add(host[word]);
            }

            foreach (var set in sets)
            {
                all.Clear();
                foreach (var g in set.Groups)
                    all.Add(counts[g]);
                among.Words[word] &= all.AtLeast(set.Seats);
            }
        }
    }

    /// <summary>
    /// For each of 64 starts, how many hosts are free, counted up to a most: plane n has the starts with at least n.
    /// </summary>
    private sealed class FreeCount(int most)
    {
        private readonly ulong[] _atLeast = new ulong[most + 1];

        public ulong AtLeast(int hosts) => _atLeast[hosts];

        public void Clear()
        {
            Array.Clear(_atLeast);
            _atLeast[0] = ulong.MaxValue;
        }

        /// <summary>One more host, free at the starts whose bits are set.</summary>
        public void Add(ulong free)
        {
            var planes = _atLeast;
            for (var n = planes.Length - 1; n > 0; n--)
                planes[n] |= planes[n - 1] & free;
        }

        /// <summary>All the hosts that another count has.</summary>
        public void Add(FreeCount other)
        {
            for (var n = _atLeast.Length - 1; n > 0; n--)
            {
                for (var others = 1; others <= n; others++)
                    _atLeast[n] |= _atLeast[n - others] & other._atLeast[others];
            }
        }
    }
}
