namespace LooseLantern.Core.FreeTimes;

/// <summary>
/// Free time of several hosts together, as runs of time; what a page's rules would make of it is not asked here.
/// </summary>
public static class FreeTime
{
    /// <summary>
    /// What of <paramref name="open"/> nothing of <paramref name="taken"/> lies on, by start. Neither need be sorted or
    /// apart.
    /// </summary>
    public static IReadOnlyList<Span> Of(IEnumerable<Span> open, IEnumerable<Span> taken)
    {
        var busy = SpanUnion.Of(taken);
        var free = new List<Span>();
        foreach (var run in SpanUnion.Of(open))
        {
            var from = run.Start;
            foreach (var span in busy)
            {
                if (span.End <= from)
                    continue;
                if (span.Start >= run.End)
                    break;
                if (span.Start > from)
                    free.Add(new Span(from, span.Start));
                from = span.End;
            }

            if (from < run.End)
                free.Add(new Span(from, run.End));
        }

        return free;
    }

    /// <summary>When all are free, by start; with nobody asked, never.</summary>
    public static IReadOnlyList<Span> All(IReadOnlyList<IReadOnlyList<Span>> each)
    {
        if (each.Count == 0)
            return [];
        var together = SpanUnion.Of(each[0]);
        foreach (var other in each.Skip(1))
            together = Meet(together, SpanUnion.Of(other));
        return together;
    }

    /// <summary>When at least one is free, by start.</summary>
    public static IReadOnlyList<Span> Any(IReadOnlyList<IReadOnlyList<Span>> each) =>
        SpanUnion.Of(each.SelectMany(spans => spans));

    private static List<Span> Meet(IReadOnlyList<Span> these, IReadOnlyList<Span> those)
    {
        var both = new List<Span>();
        for (int i = 0, j = 0; i < these.Count && j < those.Count; )
        {
            var (one, other) = (these[i], those[j]);
            if (one.Meets(other))
                both.Add(
                    new Span(
                        one.Start > other.Start ? one.Start : other.Start,
                        one.End < other.End ? one.End : other.End
                    )
                );
            if (one.End < other.End)
                i++;
            else
                j++;
        }

        return both;
    }
}
