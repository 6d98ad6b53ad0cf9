using System.Runtime.InteropServices;
using LooseLantern.Core.Reasons;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>Rule 7: nothing that a host's calendars have meets the appointment with the page's buffers.</summary>
internal sealed class CalendarRule : IHostRule
{
    /// <summary>
    /// The rule turned round: [s - before, s + d + after) meets [a, b) exactly where a - d - after &lt; s &lt; b +
    /// before. Neither bound is in it, so an appointment may fit to the minute between two others.
    /// </summary>
    public void Remove(StartSet starts, HostFacts host, StartsAsked asked)
    {
        if (host.IgnoresCalendars)
            return;
        var (lead, trail) = (asked.Duration + asked.After, asked.Before);
        foreach (ref readonly var span in Spans(host))
        {
            var (start, end) = (span.Start.ToUnixTimeTicks(), span.End.ToUnixTimeTicks());
            if (start < end)
                asked.RemoveBetween(starts, start - lead, end + trail);
        }
    }

    private static ReadOnlySpan<Span> Spans(HostFacts host) =>
        host.Busy switch
        {
            Span[] array => array,
            List<Span> list => CollectionsMarshal.AsSpan(list),
            var others => others.ToArray(),
        };

    public IEnumerable<Reason> Say(HostFacts host, AppointmentAsked asked) =>
        host.IgnoresCalendars
            ? []
            : host
                .Busy.Select((busy, i) => (busy, source: host.BusySources?[i]))
                .Where(pair => !pair.busy.IsEmpty && pair.busy.Meets(asked.Wide))
                .Distinct()
                .OrderBy(pair => pair.busy.Start)
                .ThenBy(pair => pair.busy.End)
                .ThenBy(pair => pair.source?.Calendar, StringComparer.Ordinal)
                .ThenBy(pair => pair.source?.Title, StringComparer.Ordinal)
                .Select(pair => new Reason(Rule.Calendars)
                {
                    Host = host.Id,
                    Span = pair.busy,
                    Source = pair.source,
                });
}
