using LooseLantern.Core.Reasons;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>
/// Rule 1 where the grid is counted from the start of each host's open stretch. A stretch without a start fits any.
/// </summary>
internal sealed class StretchGridRule : IHostRule
{
    public void Remove(StartSet starts, HostFacts host, StartsAsked asked)
    {
        if (asked.OnGridOf(host) is { } onGrid)
            starts.IntersectWith(new StartSet(onGrid));
    }

    public IEnumerable<Reason> Say(HostFacts host, AppointmentAsked asked)
    {
        var page = asked.Page;
        // Painted spans and a page's own hours give every host the same stretch; that reason is the page's.
        if (page.StepFrom != StepFrom.Open || page.Only is not null || page.HoursMode == HoursMode.Page)
            yield break;
        if (
            asked.StretchAround(host) is { HasStart: true } stretch
            && !StartGrid.IsOnGridOf(stretch.Time.Start, asked.Time.Start, page.Step)
        )
            yield return new Reason(Rule.Grid) { Host = host.Id, Span = stretch.Time };
    }
}
