using LooseLantern.Core.Hours;
using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// The open stretches that rule 6 asks of one host (or, with painted spans, that rule 4 asks of all), found by instant.
/// </summary>
internal sealed class StretchIndex(IReadOnlyList<OpenStretch> stretches)
{
    /// <summary>Open from always to always.</summary>
    public static readonly StretchIndex Always = new([
        new OpenStretch(new Span(Instant.MinValue, Instant.MaxValue), HasStart: false),
    ]);

    public IReadOnlyList<OpenStretch> All => stretches;

    public static StretchIndex OfPainted(IEnumerable<Span> spans) =>
        new(SpanUnion.Of(spans).Select(span => new OpenStretch(span, HasStart: true)).ToList());

    /// <summary>Rule 6: the host's hours, the page's, or where both are open.</summary>
    public static StretchIndex OfHours(PageRules page, HoursSet? hostHours, Span range)
    {
        var own = page.HoursMode == HoursMode.Page ? null : hostHours;
        var pages = page.HoursMode == HoursMode.Hosts ? null : HoursOf(page);
        if (own is null && pages is null)
            return Always;
        if (own is null || pages is null)
            return new StretchIndex(OpenStretches.Of((own ?? pages)!, range));
        return new StretchIndex(WhereBothAreOpen(OpenStretches.Of(own, range), OpenStretches.Of(pages, range)));
    }

    /// <exception cref="ArgumentException">When a page whose own hours count has none.</exception>
    public static HoursSet HoursOf(PageRules page) =>
        page.Hours ?? throw new ArgumentException("A page whose own hours count must have hours.", nameof(page));

    public OpenStretch? Containing(Instant instant)
    {
        int low = 0,
            high = stretches.Count - 1;
        while (low <= high)
        {
            var middle = (low + high) / 2;
            if (stretches[middle].Time.End <= instant)
                low = middle + 1;
            else if (stretches[middle].Time.Start > instant)
                high = middle - 1;
            else
                return stretches[middle];
        }

        return null;
    }

    private static List<OpenStretch> WhereBothAreOpen(IReadOnlyList<OpenStretch> left, IReadOnlyList<OpenStretch> right)
    {
        // A shared run starts where the later of the two starts; it has no start only where neither has one.
        var both = new List<OpenStretch>();
        for (int i = 0, j = 0; i < left.Count && j < right.Count; )
        {
            var (a, b) = (left[i], right[j]);
            var time = new Span(
                !a.HasStart ? b.Time.Start
                    : !b.HasStart ? a.Time.Start
                    : Instant.Max(a.Time.Start, b.Time.Start),
                Instant.Min(a.Time.End, b.Time.End)
            );
            if (!time.IsEmpty)
                both.Add(new OpenStretch(time, a.HasStart || b.HasStart));
            if (a.Time.End < b.Time.End)
                i++;
            else
                j++;
        }

        return both;
    }
}
