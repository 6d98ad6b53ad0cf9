namespace LooseLantern.Core.LineUps;

/// <summary>Rule 10: whether distinct hosts can fill all seats at once.</summary>
public static class LineUp
{
    /// <summary>
    /// Fills every seat with a host of its own, or returns null where that can't be done. Exact, not first come: a host
    /// already seated is moved to another of its seats where that makes room (augmenting paths, Kuhn 1955). The first
    /// seats keep their earliest listed hosts where there is a choice, so the same input gives the same line-up.
    /// </summary>
    /// <param name="seats">The eligible hosts of each seat, as indices, in the seat's order.</param>
    /// <param name="canTake">Whether a host is free.</param>
    /// <returns>The host of each seat, in the order of the seats.</returns>
    public static int[]? Fill(IReadOnlyList<IReadOnlyList<int>> seats, Func<int, bool> canTake)
    {
        var seatOf = new Dictionary<int, int>();
        for (var seat = 0; seat < seats.Count; seat++)
        {
            if (!Seat(seat, seats, canTake, seatOf, []))
                return null;
        }

        var hosts = new int[seats.Count];
        foreach (var (host, seat) in seatOf)
            hosts[seat] = host;
        return hosts;
    }

    private static bool Seat(
        int seat,
        IReadOnlyList<IReadOnlyList<int>> seats,
        Func<int, bool> canTake,
        Dictionary<int, int> seatOf,
        HashSet<int> tried
    )
    {
        foreach (var host in seats[seat])
        {
            if (!canTake(host) || !tried.Add(host))
                continue;
            if (seatOf.TryGetValue(host, out var other) && !Seat(other, seats, canTake, seatOf, tried))
                continue;
            seatOf[host] = seat;
            return true;
        }

        return false;
    }
}
