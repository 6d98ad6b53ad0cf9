namespace LooseLantern.Core.Openings;

/// <summary>Rule 4 of painted spans.</summary>
internal static class StretchStarts
{
    /// <summary>The starts from which the whole appointment lies within one stretch.</summary>
    /// <param name="duration">In ticks.</param>
    public static StartSet Of(StretchIndex stretches, StartAxis axis, long duration)
    {
        var starts = StartSet.Empty(axis.Count);
        foreach (var stretch in stretches.All)
        {
            starts.Add(
                axis.FirstAtOrAfter(stretch.Time.Start.ToUnixTimeTicks()),
                axis.FirstAfter(stretch.Time.End.ToUnixTimeTicks() - duration)
            );
        }

        return starts;
    }
}
