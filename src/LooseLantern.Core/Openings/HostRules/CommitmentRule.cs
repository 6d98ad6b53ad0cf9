using LooseLantern.Core.Reasons;
using NodaTime;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>
/// Rule 8: the page's buffers around the appointment against each commitment, and the bare appointment against the
/// commitment's own buffers.
/// </summary>
internal sealed class CommitmentRule : IHostRule
{
    /// <summary>
    /// The commitments that stand in the way: not empty, not the asking holder's own holds, not what is being moved.
    /// </summary>
    public static IEnumerable<Commitment> Blocking(OpeningsInput input, HostFacts host) =>
        host.Commitments.Where(commitment => Blocks(input, commitment));

    private static bool Blocks(OpeningsInput input, Commitment commitment) =>
        commitment.End > commitment.Start
        && !(
            commitment.Kind == CommitmentKind.Hold
                ? input.AsHolder is { } holder && commitment.Holder == holder
                : input.Moving is { } session && commitment.Holder == session
        );

    public void Remove(StartSet starts, HostFacts host, StartsAsked asked)
    {
        for (var i = 0; i < host.Commitments.Count; i++)
        {
            var commitment = host.Commitments[i];
            if (!Blocks(asked.Input, commitment))
                continue;
            var (start, end) = (commitment.Start.ToUnixTimeTicks(), commitment.End.ToUnixTimeTicks());
            var (before, after) = (
                StartsAsked.Ticks(commitment.BufferBefore),
                StartsAsked.Ticks(commitment.BufferAfter)
            );
            asked.RemoveBetween(starts, start - asked.Duration - asked.After, end + asked.Before);
            asked.RemoveBetween(starts, start - before - asked.Duration, end + after);
        }
    }

    public IEnumerable<Reason> Say(HostFacts host, AppointmentAsked asked) =>
        Blocking(asked.Input, host)
            .Where(commitment =>
                new Span(commitment.Start, commitment.End).Meets(asked.Wide)
                || asked.Time.Meets(
                    new Span(
                        commitment.Start - Duration.FromMinutes(commitment.BufferBefore),
                        commitment.End + Duration.FromMinutes(commitment.BufferAfter)
                    )
                )
            )
            .Distinct()
            .OrderBy(commitment => commitment.Start)
            .ThenBy(commitment => commitment.End)
            .ThenBy(commitment => commitment.Holder, StringComparer.Ordinal)
            .Select(commitment => new Reason(Rule.Commitments)
            {
                Host = host.Id,
                Span = new Span(commitment.Start, commitment.End),
                Commitment = commitment,
            });
}
