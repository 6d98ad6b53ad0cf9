using NodaTime;

namespace LooseLantern.Server.Features.TimeZones;

/// <param name="Minutes">Ahead of UTC, from then on.</param>
public sealed record OffsetFrom(Instant From, int Minutes);

/// <summary>
/// How far a zone's clocks are ahead of UTC, by this server's tables. Whoever shows times goes by it where their own
/// tables say otherwise, so that a mail and a screen never tell two hours of one appointment.
/// </summary>
/// <param name="Zone">IANA id, as it was asked for.</param>
/// <param name="Runs">In order; the first one begins before what was asked for.</param>
public sealed record ZoneOffsets(string Zone, IReadOnlyList<OffsetFrom> Runs)
{
    /// <summary>Of each of these zones that is known, from a day before the start to a day after the end.</summary>
    public static IReadOnlyList<ZoneOffsets> Of(Instant start, Instant end, params IEnumerable<string?> zones)
    {
        var (first, last) = (start - Duration.FromDays(1), end + Duration.FromDays(1));
        return
        [
            .. zones
                .OfType<string>()
                .Distinct()
                .Where(Hours.Zones.IsKnown)
                .Select(id => new ZoneOffsets(
                    id,
                    [
                        .. DateTimeZoneProviders
                            .Tzdb[id]
                            .GetZoneIntervals(first, last)
                            .Select(run => new OffsetFrom(
                                run.HasStart && run.Start > first ? run.Start : first,
                                run.WallOffset.Seconds / 60
                            )),
                    ]
                )),
        ];
    }
}
