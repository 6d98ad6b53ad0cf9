using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.Reasons;

/// <summary>The rules by their numbers (docs/openings.md).</summary>
public enum Rule
{
    Grid = 1,
    Notice = 2,
    Window = 3,
    Only = 4,
    PageCaps = 5,
    Hours = 6,
    Calendars = 7,
    Commitments = 8,
    HostCaps = 9,
    LineUp = 10,
    Places = 11,
}

/// <summary>One rule that fails for a start. What is null is not part of this reason.</summary>
public sealed record Reason(Rule Rule)
{
    /// <summary>The host for whom it fails; null where it is asked of the page.</summary>
    public string? Host { get; init; }

    /// <summary>
    /// The time that fails it: the open stretch whose grid is missed (1), the notice (2), the window (3), the first
    /// part of the appointment that lies outside painted spans or hours (4, 6), the day or week whose cap is reached
    /// (5, 9), the busy span (7), the commitment without its buffers (8), the full session (11).
    /// </summary>
    public Span? Span { get; init; }

    /// <summary>What the busy span comes from (7), where the input says so.</summary>
    public BusySource? Source { get; init; }

    /// <summary>The booking or hold that is in the way (8).</summary>
    public Commitment? Commitment { get; init; }

    /// <summary>The cap (5, 9).</summary>
    public CapReached? Cap { get; init; }

    /// <summary>The session without a place left (11).</summary>
    public string? Session { get; init; }

    /// <summary>The seats that can't be filled, by position from 0 (10).</summary>
    public IReadOnlyList<int>? Seats { get; init; }

    /// <summary>What each eligible host of a pool lacks, where none can fill it (10).</summary>
    public IReadOnlyList<HostLacks>? Pool { get; init; }

    /// <summary>
    /// The free hosts that those seats share, fewer than the seats, where each alone could be filled (10).
    /// </summary>
    public IReadOnlyList<string>? Shared { get; init; }
}

/// <summary>Why one host of a pool can't take a start.</summary>
public sealed record HostLacks(string Host, IReadOnlyList<Reason> Reasons);

/// <summary>Why a start is not offered.</summary>
/// <param name="Opening">The opening, where it is one after all; then there are no reasons.</param>
/// <param name="Reasons">Every rule that fails, in the order of the rules, and of one rule in that of the line-up and
/// of time.</param>
/// <param name="Next">The first opening after the start within the dates asked about, or null.</param>
public sealed record StartReasons(
    Instant Start,
    Instant End,
    Opening? Opening,
    IReadOnlyList<Reason> Reasons,
    Opening? Next
);
