using NodaTime;

namespace LooseLantern.Core.Reminders;

/// <summary>
/// Hours of the day in which somebody wants to hear nothing that can wait, on their own clock; over midnight where the
/// end comes first.
/// </summary>
public sealed record QuietHours(LocalTime From, LocalTime Until)
{
    /// <summary>
    /// When something that is due then is told: at once, or where it falls in quiet hours, at their end.
    /// </summary>
    public Instant After(Instant due, DateTimeZone zone)
    {
        var local = due.InZone(zone).LocalDateTime;
        if (!IsQuiet(local.TimeOfDay))
            return due;
        var end = local.Date + Until;
        if (end <= local)
            end = end.PlusDays(1);
        // A clock that is put forward over the end lets it end when the gap does; one that is put back, at the later of
        // the two.
        return Instant.Max(due, zone.ResolveLocal(end, Resolving).ToInstant());
    }

    /// <summary>
    /// The same for what speaks of something that begins then: it does not wait so long that less than an hour is left.
    /// </summary>
    public Instant After(Instant due, Instant start, DateTimeZone zone)
    {
        var told = After(due, zone);
        return told <= start - Duration.FromHours(1) ? told : due;
    }

    private static readonly NodaTime.TimeZones.ZoneLocalMappingResolver Resolving =
        NodaTime.TimeZones.Resolvers.CreateMappingResolver(
            NodaTime.TimeZones.Resolvers.ReturnLater,
            NodaTime.TimeZones.Resolvers.ReturnStartOfIntervalAfter
        );

    private bool IsQuiet(LocalTime time) =>
        From < Until ? time >= From && time < Until : From > Until && (time >= From || time < Until);
}
