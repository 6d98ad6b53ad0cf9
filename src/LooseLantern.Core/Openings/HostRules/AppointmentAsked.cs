using LooseLantern.Core.Hours;
using NodaTime;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>What rules give reasons of: one appointment.</summary>
internal sealed class AppointmentAsked
{
    private readonly Dictionary<string, OpenStretch?> _stretches = [];

    public AppointmentAsked(OpeningsInput input, Span time)
    {
        (Input, Page, Time) = (input, input.Page, time);
        Wide = new Span(
            time.Start - Duration.FromMinutes(Page.BufferBefore),
            time.End + Duration.FromMinutes(Page.BufferAfter)
        );
    }

    public OpeningsInput Input { get; }

    public PageRules Page { get; }

    public Span Time { get; }

    /// <summary>The appointment with the page's buffers.</summary>
    public Span Wide { get; }

    /// <summary>
    /// The open (or painted) stretch of a host that contains the start; null where there is none, or none is asked for.
    /// </summary>
    public OpenStretch? StretchAround(HostFacts host)
    {
        if (!_stretches.TryGetValue(host.Id, out var known))
            known = _stretches[host.Id] = Find(host);
        return known;
    }

    private OpenStretch? Find(HostFacts host) =>
        (
            Page.Only switch
            {
                OnlyTimes.Painted painted => StretchIndex.OfPainted(painted.Spans),
                OnlyTimes.Exact => null,
                _ => StretchIndex.OfHours(Page, host.Hours, Time),
            }
        )?.Containing(Time.Start);
}
