using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using NodaTime;

namespace LooseLantern.Server.Features.Supply;

/// <summary>One opening as a bar: its start, and its wall-clock minutes of the day in the page's zone.</summary>
public sealed record SupplyOpening(Instant Start, int FromMinute, int ToMinute);

public sealed record SupplyDay(LocalDate Date, IReadOnlyList<SupplyOpening> Openings);

/// <param name="Now">The instant this was computed for.</param>
/// <param name="Zone">The page's zone, by whose days it is counted.</param>
/// <param name="Duration">Minutes; the duration that was counted.</param>
public sealed record SupplyAnswer(Instant Now, string Zone, int Duration, int Total, IReadOnlyList<SupplyDay> Days);

/// <summary>How many openings a page offers, by day and in all.</summary>
public sealed class SupplyReckoning(OpeningsLoader loader, IClock clock)
{
    public const int Days = 14;

    /// <summary>The next two weeks of a page, saved or not: today and the 13 days after it, in the page's zone.</summary>
    /// <param name="page">With its seats and hours.</param>
    /// <param name="duration">Minutes, or null for the preset one.</param>
    public async Task<SupplyAnswer> NextTwoWeeksAsync(Page page, int? duration, CancellationToken ct)
    {
        var rules = loader.Rules(page);
        var minutes = duration is { } asked && page.Durations.Contains(asked) ? asked : page.Durations[0];
        var today = loader.Today(rules);
        var openings = await loader.OpeningsAsync(rules, today, today.PlusDays(Days - 1), minutes, ct);

        var byDay = openings.ToLookup(opening => opening.Start.InZone(rules.Zone).Date);
        var days = Enumerable.Range(0, Days).Select(today.PlusDays).Select(date => new SupplyDay(date,
        [
            .. byDay[date].Select(opening => (opening, slice: DaySlices.Of(new Span(opening.Start, opening.End), rules.Zone).First()))
                .Select(pair => new SupplyOpening(pair.opening.Start, pair.slice.FromMinute, pair.slice.ToMinute)),
        ]));
        return new SupplyAnswer(clock.GetCurrentInstant(), page.Zone, minutes, openings.Count, [.. days]);
    }
}
