using LooseLantern.Core;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Suggestions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using NodaTime;

namespace LooseLantern.Server.Features.AskingFirst;

/// <summary>Crosses what suits a guest with what the line-up of a link has open.</summary>
public sealed class SuitedTimesCrossing(OpeningsInputs inputs)
{
    // Of one request: what suits several guests is crossed with the same openings, which are read once.
    private readonly Dictionary<(Guid Link, int Duration), OpeningsInput?> _inputs = [];

    /// <summary>How many openings fit that begin in each stretch.</summary>
    /// <param name="link">With its page, whole.</param>
    public async Task<IReadOnlyList<int>> CountsAsync(
        AvailabilityLink link,
        IReadOnlyList<SuitedStretch> stretches,
        int duration,
        CancellationToken ct
    ) =>
        await InputAsync(link, duration, ct) is { } input
            ? SuitedTimes.CountOfEach(OpeningsComputation.Openings(input), SpansOf(stretches))
            : [.. stretches.Select(_ => 0)];

    /// <summary>The openings that fit, the best first.</summary>
    /// <param name="link">With its page, whole.</param>
    /// <param name="duration">Minutes.</param>
    /// <param name="zone">IANA id of the guest's.</param>
    public async Task<IReadOnlyList<Suggestion>> RankedAsync(
        AvailabilityLink link,
        IReadOnlyList<SuitedStretch> stretches,
        int duration,
        string zone,
        int count,
        CancellationToken ct
    ) =>
        await InputAsync(link, duration, ct) is { } input
            ? SuggestionsComputation.Ranked(
                input,
                SuitedTimes.Joined(SpansOf(stretches)),
                count,
                [DateTimeZoneProviders.Tzdb[zone]]
            )
            : [];

    public static IReadOnlyList<Span> SpansOf(IReadOnlyList<SuitedStretch> stretches) =>
        [.. stretches.Select(stretch => new Span(stretch.Start, stretch.End))];

    private async Task<OpeningsInput?> InputAsync(AvailabilityLink link, int duration, CancellationToken ct)
    {
        if (_inputs.TryGetValue((link.Id, duration), out var known))
            return known;
        var rules = inputs.Rules(link.Page!);
        var today = inputs.Today(rules);
        var last = LocalDate.Min(link.Page!.Offer!.Times.Until, today.PlusDays(PageLimits.MostDaysAsked - 1));
        return _inputs[(link.Id, duration)] =
            last < today ? null : await inputs.InputAsync(rules, today, last, duration, ct);
    }
}
