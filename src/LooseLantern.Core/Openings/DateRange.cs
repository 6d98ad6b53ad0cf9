using LooseLantern.Core.Days;
using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>Runs of local dates as spans of instants.</summary>
internal static class DateRange
{
    /// <summary>
    /// A span that contains every instant whose local date lies from <paramref name="from"/> to <paramref name="to"/>,
    /// with a day to spare on either side: where a clock goes back over midnight the same date comes twice, so the
    /// bounds are never taken to be exact.
    /// </summary>
    public static Span Around(DateTimeZone zone, LocalDate from, LocalDate to) =>
        new(LocalDays.Start(zone, from.PlusDays(-1)), LocalDays.Start(zone, to.PlusDays(2)));
}
