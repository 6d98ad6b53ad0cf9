using NodaTime;

namespace LooseLantern.Core;

/// <summary>
/// A half-open run of time, [Start, End), in UTC. A span whose end is not after its start holds nothing.
/// </summary>
public readonly record struct Span(Instant Start, Instant End)
{
    public bool IsEmpty => End <= Start;

    public Duration Length => End - Start;

    /// <summary>Whether the two spans share at least one instant; spans that only touch do not.</summary>
    public bool Meets(Span other) => Start < other.End && other.Start < End;

    public bool Contains(Instant instant) => Start <= instant && instant < End;

    public bool Contains(Span other) => Start <= other.Start && other.End <= End;
}
