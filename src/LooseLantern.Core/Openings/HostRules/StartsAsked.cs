using NodaTime;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>What rules take starts out of: all starts of one computation, on one axis. Lengths are in ticks.</summary>
internal sealed class StartsAsked
{
    private readonly IReadOnlyDictionary<string, StretchIndex?> _stretches;
    private readonly Dictionary<(IHostRule, StretchIndex), StartSet> _shared = [];
    private readonly Dictionary<DateTimeZone, List<DateRun>> _dates = [];

    /// <param name="stretches">Where each host is open, by id; null where `only` takes the place of hours.</param>
    public StartsAsked(OpeningsInput input, StartAxis axis, IReadOnlyDictionary<string, StretchIndex?> stretches)
    {
        (Input, Axis, _stretches) = (input, axis, stretches);
        Duration = Ticks(input.Duration);
        Before = Ticks(input.Page.BufferBefore);
        After = Ticks(input.Page.BufferAfter);
    }

    public OpeningsInput Input { get; }

    public StartAxis Axis { get; }

    public long Duration { get; }

    /// <summary>The page's buffers.</summary>
    public long Before { get; }

    public long After { get; }

    public StretchIndex? StretchesOf(HostFacts host) => _stretches[host.Id];

    /// <summary>What a rule makes of stretches, once for all hosts who share them.</summary>
    public StartSet Shared(IHostRule rule, StretchIndex stretches, Func<StartSet> make)
    {
        if (!_shared.TryGetValue((rule, stretches), out var known))
            known = _shared[(rule, stretches)] = make();
        return known;
    }

    /// <summary>The dates that the axis covers in a zone, each with its run of starts.</summary>
    public List<DateRun> DatesIn(DateTimeZone zone)
    {
        if (!_dates.TryGetValue(zone, out var dates))
            dates = _dates[zone] = DateRun.Of(Axis, zone);
        return dates;
    }

    /// <summary>Takes out the starts between two instants, of which neither is among them.</summary>
    public void RemoveBetween(StartSet starts, long after, long before)
    {
        if (before > after)
            starts.Remove(Axis.FirstAfter(after), Axis.FirstAtOrAfter(before));
    }

    public static long Ticks(int minutes) => minutes * NodaConstants.TicksPerMinute;
}
