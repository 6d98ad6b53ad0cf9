namespace LooseLantern.Core.Openings;

/// <summary>
/// Rule 6 (or 4, of painted spans), and with it rule 1 where the grid is counted from open stretches.
/// </summary>
internal static class StretchStarts
{
    /// <summary>The starts from which the whole appointment lies within one stretch.</summary>
    /// <param name="step">Ticks of the grid counted from each stretch with a start; null where the grid is asked
    /// elsewhere.</param>
    public static StartSet Of(StretchIndex stretches, StartAxis axis, long duration, long? step)
    {
        var starts = new StartSet(axis.Count);
        foreach (var stretch in stretches.All)
        {
            var start = stretch.Time.Start.ToUnixTimeTicks();
            var from = axis.FirstAtOrAfter(start);
            var to = axis.FirstAfter(stretch.Time.End.ToUnixTimeTicks() - duration);
            if (step is { } grid && stretch.HasStart)
                AddOnGrid(starts, axis, from, to, start, grid);
            else
                starts.Add(from, to);
        }

        return starts;
    }

    private static void AddOnGrid(StartSet starts, StartAxis axis, int from, int to, long stretchStart, long step)
    {
        for (var position = from; position < to; position++)
        {
            if ((axis[position] - stretchStart) % step == 0)
                starts.Add(position);
        }
    }
}
