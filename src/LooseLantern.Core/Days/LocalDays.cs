using NodaTime;
using NodaTime.TimeZones;

namespace LooseLantern.Core.Days;

/// <summary>Where local days begin.</summary>
public static class LocalDays
{
    // A midnight that a clock skips, or a whole date that a zone left out (Samoa, 30 December 2011), begins where time
    // goes on.
    private static readonly ZoneLocalMappingResolver Resolver = Resolvers.CreateMappingResolver(
        Resolvers.ReturnEarlier,
        Resolvers.ReturnStartOfIntervalAfter
    );

    /// <summary>
    /// The first instant of a local date; of a date that does not exist, that of the next one that does.
    /// </summary>
    public static Instant Start(DateTimeZone zone, LocalDate date) =>
        zone.ResolveLocal(date.AtMidnight(), Resolver).ToInstant();
}
