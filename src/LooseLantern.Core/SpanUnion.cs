using NodaTime;

namespace LooseLantern.Core;

/// <summary>Unions of spans: unsorted, overlapping, touching, empty and duplicate spans are ordinary input.</summary>
public static class SpanUnion
{
    /// <summary>
    /// The longest runs covered by <paramref name="spans"/>, by start. Spans that touch are joined; empty ones are left
    /// out.
    /// </summary>
    public static IReadOnlyList<Span> Of(IEnumerable<Span> spans)
    {
        var sorted = spans.Where(span => !span.IsEmpty).ToList();
        sorted.Sort((a, b) => a.Start.CompareTo(b.Start));

        var runs = new List<Span>(sorted.Count);
        foreach (var span in sorted)
        {
            if (runs.Count > 0 && span.Start <= runs[^1].End)
                runs[^1] = runs[^1] with { End = Instant.Max(runs[^1].End, span.End) };
            else
                runs.Add(span);
        }

        return runs;
    }
}
