using NodaTime;

namespace LooseLantern.Core.Days;

/// <summary>Local dates as whole days since 1 January 1970, for where many are counted through.</summary>
internal static class Day
{
    private static readonly LocalDate Epoch = new(1970, 1, 1);

    public static long Of(LocalDate date) => Period.DaysBetween(Epoch, date);

    /// <param name="localTicks">Ticks since 1 January 1970, 00:00, by the same wall clock.</param>
    public static long At(long localTicks) =>
        localTicks / NodaConstants.TicksPerDay - (localTicks % NodaConstants.TicksPerDay < 0 ? 1 : 0);

    public static LocalDate Date(long day) => Epoch.PlusDays((int)day);

    /// <summary>From 1, Monday, to 7.</summary>
    public static int Weekday(long day) =>
        // The first of January 1970 was a Thursday.
        (int)((day + 3) % 7 + 7) % 7
        + 1;
}
