using LooseLantern.Core.Days;
using NodaTime;

namespace LooseLantern.Core.Hours;

/// <summary>
/// A longest run of open instants. <see cref="HasStart"/> is false for a run that was never not open, however far back
/// one looks; its <see cref="Time"/> then starts where the look did.
/// </summary>
public readonly record struct OpenStretch(Span Time, bool HasStart);

/// <summary>
/// Turns hours into stretches of open time. An instant is open when its local date and time of day lie in an open time
/// of that date, so time that a clock skips is never open and both passes of a repeated hour are.
/// </summary>
public static class OpenStretches
{
    private const int FirstLookBackDays = 2;

    /// <summary>
    /// The stretches that meet <paramref name="range"/>, by start. Each has its true start, also where that lies before
    /// the range; ends are cut a day after the range at the earliest.
    /// </summary>
    public static IReadOnlyList<OpenStretch> Of(HoursSet hours, Span range)
    {
        var zone = hours.Zone;
        var firstDate = range.Start.InZone(zone).Date;

        // Before the earliest change only the week counts: a run still open nine days further back is open always.
        var earliestChange = hours.Changes.Count == 0 ? firstDate : hours.Changes.Min(change => change.From);
        var farthest = LocalDate.Min(firstDate, earliestChange).PlusDays(-9);

        var runs = new OpenRuns();
        runs.Read(hours);
        for (var back = FirstLookBackDays; ; back *= 4)
        {
            var from = LocalDate.Max(farthest, firstDate.PlusDays(-back));
            var lookFrom = LocalDays.Start(zone, from);
            var stretches = new List<OpenStretch>();
            runs.Tell(new Span(lookFrom, range.End + Duration.FromDays(1)), new Those(range, stretches));
            var isCutAtStart = stretches.Count > 0 && stretches[0].Time.Start == lookFrom;
            if (isCutAtStart && from > farthest)
                continue;
            if (isCutAtStart)
                stretches[0] = stretches[0] with { HasStart = false };
            return stretches;
        }
    }

    /// <summary>Notes the runs that meet a range.</summary>
    private readonly struct Those(Span range, List<OpenStretch> stretches) : ITakesRuns
    {
        public void Take(long start, long end)
        {
            var time = new Span(Instant.FromUnixTimeTicks(start), Instant.FromUnixTimeTicks(end));
            if (time.Meets(range))
                stretches.Add(new OpenStretch(time, HasStart: true));
        }
    }
}
