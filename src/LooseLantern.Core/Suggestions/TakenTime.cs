using LooseLantern.Core.Openings;
using LooseLantern.Core.Openings.HostRules;
using NodaTime;

namespace LooseLantern.Core.Suggestions;

/// <summary>What one host already has, and where its open time ends.</summary>
internal sealed class TakenTime(OpeningsInput input, HostFacts host, StretchIndex? stretches)
{
    private readonly IReadOnlyList<Span> _taken = SpanUnion.Of(
        (host.IgnoresCalendars ? [] : host.Busy).Concat(
            CommitmentRule.Blocking(input, host).Select(commitment => new Span(commitment.Start, commitment.End))
        )
    );

    public string Host => host.Id;

    /// <summary>
    /// The nearest taken time before and after an appointment that meets none of it; null where it meets some.
    /// </summary>
    public (Span? Before, Span? After)? Around(Span time)
    {
        int low = 0,
            high = _taken.Count;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (_taken[middle].End <= time.Start)
                low = middle + 1;
            else
                high = middle;
        }

        if (low < _taken.Count && _taken[low].Start < time.End)
            return null;
        return (low > 0 ? _taken[low - 1] : null, low < _taken.Count ? _taken[low] : null);
    }

    /// <summary>
    /// Free open time just before and just after, up to the next taken or closed time; null where it has no end in
    /// sight.
    /// </summary>
    public (Duration? Before, Duration? After) Gaps(Span time, Span? before, Span? after)
    {
        var stretch = stretches?.Containing(time.Start);
        var from = stretch is { HasStart: true } open ? Later(before?.End, open.Time.Start) : before?.End;
        var to = stretch is { } around ? Earlier(after?.Start, around.Time.End) : after?.Start;
        return (from is { } start ? time.Start - start : null, to is { } end ? end - time.End : null);
    }

    private static Instant Later(Instant? one, Instant other) => one is { } known && known > other ? known : other;

    private static Instant Earlier(Instant? one, Instant other) => one is { } known && known < other ? known : other;
}
