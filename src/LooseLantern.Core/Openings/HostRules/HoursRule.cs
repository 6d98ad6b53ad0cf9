using LooseLantern.Core.Reasons;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>Rule 6: the appointment lies within one stretch of open time.</summary>
internal sealed class HoursRule : IHostRule
{
    public void Remove(StartSet starts, HostFacts host, StartsAsked asked)
    {
        var page = asked.Input.Page;
        if (page.Only is not null)
            return;
        if (page.HoursMode != HoursMode.Page && host.Hours is { } own)
            asked.Hours.Keep(starts, own);
        if (page.HoursMode != HoursMode.Hosts)
            asked.Hours.Keep(starts, StretchIndex.HoursOf(page));
    }

    /// <summary>Of the host's own hours alone; the page's are cited once, whoever the host is.</summary>
    public IEnumerable<Reason> Say(HostFacts host, AppointmentAsked asked)
    {
        if (asked.Page.Only is not null || asked.Page.HoursMode == HoursMode.Page || host.Hours is null)
            yield break;
        var own = StretchIndex.OfHours(asked.Page with { HoursMode = HoursMode.Hosts }, host.Hours, asked.Time);
        if (ClosedTime.FirstWithin(asked.Time, own) is { } closed)
            yield return new Reason(Rule.Hours) { Host = host.Id, Span = closed };
    }
}
