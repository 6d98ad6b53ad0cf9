using LooseLantern.Core;

namespace LooseLantern.Formats.Cases;

internal static class CaseSpans
{
    /// <summary>Pairs of instants. One whose end is not after its start is no fault; it holds nothing.</summary>
    public static IReadOnlyList<Span> Read(CaseNode list) =>
        [
            .. list.List()
                .Select(item => item.Pair())
                .Where(pair => pair is not null)
                .Select(pair => new Span(pair!.Value.First.Instant(), pair.Value.Second.Instant())),
        ];
}
