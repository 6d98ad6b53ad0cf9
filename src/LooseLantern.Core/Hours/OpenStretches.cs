using LooseLantern.Core.Days;
using NodaTime;

namespace LooseLantern.Core.Hours;

/// <summary>
/// A longest run of open instants. <see cref="HasStart"/> is false for a run that was never not open, however far back one looks;
/// its <see cref="Time"/> then starts where the look did.
/// </summary>
public readonly record struct OpenStretch(Span Time, bool HasStart);

/// <summary>
/// Turns hours into stretches of open time. An instant is open when its local date and time of day lie in an open time of that date,
/// so time that a clock skips is never open and both passes of a repeated hour are.
/// </summary>
public static class OpenStretches
{
    private const int FirstLookBackDays = 2;

    /// <summary>
    /// The stretches that meet <paramref name="range"/>, by start. Each has its true start, also where that lies before the range;
    /// ends are cut a day after the range at the earliest.
    /// </summary>
    public static IReadOnlyList<OpenStretch> Of(HoursSet hours, Span range)
    {
        var zone = hours.Zone;
        var firstDate = range.Start.InZone(zone).Date;

        // Before the earliest change only the week counts: a run still open nine days further back is open always.
        var earliestChange = hours.Changes.Count == 0 ? firstDate : hours.Changes.Min(change => change.From);
        var farthest = LocalDate.Min(firstDate, earliestChange).PlusDays(-9);

        for (var back = FirstLookBackDays; ; back *= 4)
        {
            var from = LocalDate.Max(farthest, firstDate.PlusDays(-back));
            var lookFrom = LocalDays.Start(zone, from);
            var runs = Runs(hours, new Span(lookFrom, range.End + Duration.FromDays(1)));

            var cutAtStart = runs.Count > 0 && runs[0].Start == lookFrom && runs[0].Meets(range);
            if (cutAtStart && from > farthest) continue;

            return runs
                .Where(run => run.Meets(range))
                .Select(run => new OpenStretch(run, HasStart: !(cutAtStart && run.Start == lookFrom)))
                .ToList();
        }
    }

    /// <summary>The union of open instants within <paramref name="range"/>, cut at its bounds.</summary>
    private static IReadOnlyList<Span> Runs(HoursSet hours, Span range)
    {
        var pieces = new List<Span>();
        foreach (var interval in hours.Zone.GetZoneIntervals(range.Start, range.End))
        {
            // Within one zone interval wall clock and instants differ by one offset.
            var offset = interval.WallOffset;
            var start = interval.HasStart ? Instant.Max(interval.Start, range.Start) : range.Start;
            var end = interval.HasEnd ? Instant.Min(interval.End, range.End) : range.End;
            var lastDate = end.WithOffset(offset).Date;
            for (var date = start.WithOffset(offset).Date; date <= lastDate; date = date.PlusDays(1))
            {
                var midnight = date.AtMidnight().WithOffset(offset).ToInstant();
                foreach (var open in hours.OpenOn(date))
                {
                    pieces.Add(new Span(
                        Instant.Max(start, midnight + Duration.FromMinutes(open.From)),
                        Instant.Min(end, midnight + Duration.FromMinutes(open.To))));
                }
            }
        }

        return SpanUnion.Of(pieces);
    }
}
