namespace LooseLantern.Core.Reasons;

/// <summary>
/// Seats that could each be filled alone and yet not all at once, because they share too few free hosts.
/// </summary>
internal static class SharedSeats
{
    // Sets of kinds of seats are tried by size; past so many tries the smallest found so far has to do.
    private const int MostTries = 200_000;

    /// <summary>
    /// The smallest set of seats with fewer free hosts than seats, by position from 0, and those hosts by id; null
    /// where there is none (Hall). Of several as small, the one with the earliest seats.
    /// </summary>
    /// <param name="free">The free hosts of each seat.</param>
    public static (IReadOnlyList<int> Seats, IReadOnlyList<string> Hosts)? Smallest(
        IReadOnlyList<IReadOnlyList<string>> free
    )
    {
        // Seats with the same free hosts are alike: of a set of kinds, any one seat more than it has hosts is too many.
        var kinds = free.Select((hosts, seat) => (hosts, seat))
            .GroupBy(pair => string.Join('\n', pair.hosts.Order(StringComparer.Ordinal)))
            .Select(alike => (Hosts: alike.First().hosts, Seats: alike.Select(pair => pair.seat).ToList()))
            .ToList();
        List<int>? best = null;
        var bestHosts = new SortedSet<string>(StringComparer.Ordinal);
        var tries = 0;
        for (var size = 1; size <= kinds.Count && (best is null || size <= best.Count) && tries < MostTries; size++)
        {
            foreach (var set in Sets(kinds.Count, size))
            {
                if (++tries > MostTries)
                    break;
                var hosts = new SortedSet<string>(set.SelectMany(kind => kinds[kind].Hosts), StringComparer.Ordinal);
                var seats = FirstOfEachThenOthers([.. set.Select(kind => kinds[kind].Seats)], hosts.Count + 1);
                if (seats is null || (best is not null && !IsBetter(seats, best)))
                    continue;
                (best, bestHosts) = (seats, hosts);
            }
        }

        return best is null ? null : (best, [.. bestHosts]);
    }

    /// <summary>
    /// One seat of each kind at least, and so many in all, the earliest there are; null where there are too few.
    /// </summary>
    private static List<int>? FirstOfEachThenOthers(List<List<int>> kinds, int count)
    {
        if (count < kinds.Count || kinds.Sum(seats => seats.Count) < count)
            return null;
        var first = kinds.Select(seats => seats[0]).ToList();
        return [.. first.Concat(kinds.SelectMany(seats => seats.Skip(1)).Order().Take(count - first.Count)).Order()];
    }

    private static bool IsBetter(List<int> seats, List<int> than)
    {
        if (seats.Count != than.Count)
            return seats.Count < than.Count;
        for (var i = 0; i < seats.Count; i++)
        {
            if (seats[i] != than[i])
                return seats[i] < than[i];
        }

        return false;
    }

    /// <summary>All sets of <paramref name="size"/> out of 0 .. count - 1, in order.</summary>
    private static IEnumerable<int[]> Sets(int count, int size)
    {
        var set = Enumerable.Range(0, size).ToArray();
        while (true)
        {
            yield return [.. set];
            var i = size - 1;
            while (i >= 0 && set[i] == count - size + i)
                i--;
            if (i < 0)
                yield break;
            set[i]++;
            for (var j = i + 1; j < size; j++)
                set[j] = set[j - 1] + 1;
        }
    }
}
