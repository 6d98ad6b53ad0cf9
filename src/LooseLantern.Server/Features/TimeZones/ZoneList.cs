using NodaTime;
using NodaTime.TimeZones;

namespace LooseLantern.Server.Features.TimeZones;

/// <summary>A zone as it is chosen: by its city.</summary>
/// <param name="Id">IANA id, under the name that the tables have for it today.</param>
/// <param name="City">The last part of it, "Kyiv".</param>
/// <param name="Country">In English; empty where a zone belongs to none.</param>
/// <param name="Also">Former ids and others that mean the same, by which it is found as well: "Europe/Kiev".</param>
/// <param name="Offset">Minutes ahead of UTC at the moment.</param>
public sealed record ZoneView(string Id, string City, string Country, IReadOnlyList<string> Also, int Offset);

/// <param name="Version">Of the zone tables (the IANA release), "2025b".</param>
/// <param name="Usual">Ids that are in use in the workspace, the most used first; none for who is not signed
/// in.</param>
public sealed record ZonesAnswer(string Version, IReadOnlyList<ZoneView> Zones, IReadOnlyList<string> Usual);

/// <summary>The zones of this server's tables: those of places that people live in, and UTC.</summary>
public static class ZoneList
{
    /// <summary>The IANA release of the tables.</summary>
    public static string Version => TzdbDateTimeZoneSource.Default.TzdbVersion;

    private static readonly IReadOnlyList<(string Id, string Country, IReadOnlyList<string> Also)> Known = Read();

    public static IReadOnlyList<ZoneView> At(Instant now) =>
        [
            .. Known.Select(zone => new ZoneView(
                zone.Id,
                CityOf(zone.Id),
                zone.Country,
                zone.Also,
                DateTimeZoneProviders.Tzdb[zone.Id].GetUtcOffset(now).Seconds / 60
            )),
        ];

    /// <summary>The id of the one zone that has this city; null where none has it, or several have.</summary>
    public static string? OfCity(string city)
    {
        var found = Known
            .Where(zone => CityOf(zone.Id).Equals(city.Trim(), StringComparison.OrdinalIgnoreCase))
            .ToList();
        return found.Count == 1 ? found[0].Id : null;
    }

    private static string CityOf(string id) => id.Split('/')[^1].Replace('_', ' ');

    /// <summary>
    /// Of zone.tab, which has each place under its name of today; what is linked to one of them finds it, too.
    /// </summary>
    private static List<(string, string, IReadOnlyList<string>)> Read()
    {
        var source = TzdbDateTimeZoneSource.Default;
        var countries = source.ZoneLocations!.ToDictionary(place => place.ZoneId, place => place.CountryName);
        var also = source
            .CanonicalIdMap.Where(pair => pair.Key != pair.Value && !countries.ContainsKey(pair.Key))
            .ToLookup(pair => pair.Value, pair => pair.Key);
        return
        [
            ("UTC", "", []),
            .. countries
                .OrderBy(place => CityOf(place.Key), StringComparer.Ordinal)
                .Select(place =>
                    (place.Key, place.Value, (IReadOnlyList<string>)[.. also[place.Key].Order(StringComparer.Ordinal)])
                ),
        ];
    }
}
