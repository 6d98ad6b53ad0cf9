using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// A union of open runs of starts, (from, to): neither bound is in it, so a start may lie exactly between two runs that touch,
/// which is how an appointment fits to the minute between two others.
/// </summary>
internal sealed class ForbiddenStarts
{
    private readonly List<Span> _runs = [];

    public ForbiddenStarts(IEnumerable<Span> runs)
    {
        var sorted = runs.Where(run => !run.IsEmpty).ToList();
        sorted.Sort((a, b) => a.Start.CompareTo(b.Start));
        foreach (var run in sorted)
        {
            if (_runs.Count > 0 && run.Start < _runs[^1].End)
                _runs[^1] = _runs[^1] with { End = Instant.Max(_runs[^1].End, run.End) };
            else
                _runs.Add(run);
        }
    }

    public bool Contains(Instant start)
    {
        // The last run that starts before the instant is the only one that can hold it.
        int low = 0, high = _runs.Count;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (_runs[middle].Start < start) low = middle + 1;
            else high = middle;
        }

        return low > 0 && start < _runs[low - 1].End;
    }
}
