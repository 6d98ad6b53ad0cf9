using System.Runtime.CompilerServices;
using NodaTime;

namespace LooseLantern.Core.Openings.HostRules;

/// <summary>What rules take starts out of: all starts of one computation, on one axis. Lengths are in ticks.</summary>
internal sealed class StartsAsked
{
    private readonly IReadOnlyDictionary<string, StretchIndex>? _stretches;
    private readonly Dictionary<StretchIndex, ulong[]> _onGrid = [];

    /// <param name="hours">Begun with the same axis.</param>
    /// <param name="stretches">Where each host is open, by id, where the grid is counted from that; else null.</param>
    public StartsAsked(
        OpeningsInput input,
        StartAxis axis,
        HoursStarts hours,
        IReadOnlyDictionary<string, StretchIndex>? stretches
    )
    {
        (Input, Axis, Hours, _stretches) = (input, axis, hours, stretches);
        Duration = Ticks(input.Duration);
        Before = Ticks(input.Page.BufferBefore);
        After = Ticks(input.Page.BufferAfter);
    }

    public OpeningsInput Input { get; }

    public StartAxis Axis { get; }

    public HoursStarts Hours { get; }

    public long Duration { get; }

    /// <summary>The page's buffers.</summary>
    public long Before { get; }

    public long After { get; }

    /// <summary>The starts on the grid of a host's stretches, once for all who share them; null where the grid is no
    /// host's.</summary>
    public ulong[]? OnGridOf(HostFacts host)
    {
        if (_stretches?[host.Id] is not { } stretches)
            return null;
        if (!_onGrid.TryGetValue(stretches, out var known))
        {
            var starts = StartSet.Empty(Axis.Count);
            starts.Add(0, Axis.Count);
            StartGrid.KeepOnGridOf(starts, Axis, stretches, Input.Page.Step);
            known = _onGrid[stretches] = starts.Words.ToArray();
        }

        return known;
    }

    /// <summary>Takes out the starts between two instants, of which neither is among them.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    public void RemoveBetween(StartSet starts, long after, long before)
    {
        if (before > after)
            starts.Remove(Axis.FirstAfter(after), Axis.FirstAtOrAfter(before));
    }

    public static long Ticks(int minutes) => minutes * NodaConstants.TicksPerMinute;
}
