namespace LooseLantern.Core.Openings;

/// <summary>What the asking holder holds: rules 5 and 9 are not asked of exactly that time.</summary>
internal static class Promises
{
    public static IEnumerable<Span> Of(OpeningsInput input, HostFacts host) =>
        input.AsHolder is not { } holder
            ? []
            : host
                .Commitments.Where(commitment => commitment.Kind == CommitmentKind.Hold && commitment.Holder == holder)
                .Select(commitment => new Span(commitment.Start, commitment.End));
}
