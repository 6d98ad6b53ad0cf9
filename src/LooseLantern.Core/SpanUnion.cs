namespace LooseLantern.Core;

/// <summary>Unions of spans: unsorted, overlapping, touching, empty and duplicate spans are ordinary input.</summary>
public static class SpanUnion
{
    /// <summary>The longest runs covered by <paramref name="spans"/>, by start. Spans that touch are joined; empty ones are left out.</summary>
    public static IReadOnlyList<Span> Of(IEnumerable<Span> spans)
    {
        var sorted = spans.Where(span => !span.IsEmpty).ToList();
        sorted.Sort((a, b) => a.Start.CompareTo(b.Start));

        var runs = new List<Span>(sorted.Count);
        foreach (var span in sorted)
        {
            if (runs.Count > 0 && span.Start <= runs[^1].End)
                runs[^1] = runs[^1] with { End = NodaTime.Instant.Max(runs[^1].End, span.End) };
            else
                runs.Add(span);
        }

        return runs;
    }

    /// <summary>What both unions cover. Each list must be disjoint and sorted, as <see cref="Of"/> returns it.</summary>
    public static IReadOnlyList<Span> Intersect(IReadOnlyList<Span> left, IReadOnlyList<Span> right)
    {
        var both = new List<Span>();
        for (int i = 0, j = 0; i < left.Count && j < right.Count;)
        {
            var start = NodaTime.Instant.Max(left[i].Start, right[j].Start);
            var end = NodaTime.Instant.Min(left[i].End, right[j].End);
            if (start < end) both.Add(new Span(start, end));
            if (left[i].End < right[j].End) i++;
            else j++;
        }

        return both;
    }
}
