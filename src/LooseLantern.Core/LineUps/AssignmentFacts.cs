using NodaTime;

namespace LooseLantern.Core.LineUps;

/// <summary>How a seat chooses among its free hosts.</summary>
public enum SeatFill
{
    /// <summary>The one with the fewest sessions of the page for its weight.</summary>
    Balanced,

    /// <summary>The first in the seat's order.</summary>
    InOrder,
}

/// <summary>What choosing hosts for a booking needs to know besides who is free.</summary>
/// <param name="BookedAt">When the booking is made.</param>
/// <param name="Seats">In the order of the page's line-up.</param>
/// <param name="Loads">By host; one who is not listed has done nothing yet and weighs one.</param>
/// <param name="Keep">The hosts whom a guest who comes back met before, where the page keeps them; else empty.</param>
public sealed record AssignmentFacts(
    Instant BookedAt,
    IReadOnlyList<SeatFacts> Seats,
    IReadOnlyDictionary<string, HostLoad> Loads,
    IReadOnlySet<string> Keep
);

/// <param name="Since">When each host was put in the seat; one who is not listed has always been.</param>
public sealed record SeatFacts(SeatFill Fill, IReadOnlyDictionary<string, Instant> Since);

/// <summary>What a host has done for the page.</summary>
/// <param name="Weight">How much of the work is the host's share, from 1.</param>
/// <param name="Sessions">The starts of the host's sessions of this page, missed ones too, cancelled ones not; in any
/// order.</param>
/// <param name="LastAssigned">When the host was last given a session of this page; null for never.</param>
public sealed record HostLoad(int Weight, IReadOnlyList<Instant> Sessions, Instant? LastAssigned);

/// <summary>A host of a seat in turn.</summary>
/// <param name="Sessions">How many sessions of the page count as the host's load.</param>
public sealed record Turn(string Host, int Sessions);
