using LooseLantern.Core;
using LooseLantern.Core.Hours;
using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Bench;

/// <summary>
/// The page that is measured: a panel of a named host and one each of two pools, 45 minutes, step 15, buffers 10 before
/// and after, 400 busy spans a host in no order. Always the same for the same size: the numbers come from a fixed seed.
/// </summary>
public static class Panel
{
    private static readonly string[] Zones = ["Europe/Copenhagen", "Europe/Lisbon", "America/New_York"];

    /// <summary>
    /// One of all others beside the named host, who works at night when nobody else does: everybody is asked, and
    /// nothing is open.
    /// </summary>
    public static OpeningsInput Dark(int hosts, int days)
    {
        var input = Of(hosts, days);
        var nights = Enum.GetValues<IsoDayOfWeek>()
            .ToDictionary(day => day, _ => (IReadOnlyList<OpenTime>)[new OpenTime(0, 4 * 60)]);
        var named = input.Hosts[0] with { Hours = input.Hosts[0].Hours! with { Week = nights } };
        return input with
        {
            Page = input.Page with
            {
                LineUp = [new Seat([named.Id]), new Seat([.. input.Hosts.Skip(1).Select(host => host.Id)])],
            },
            Hosts = [named, .. input.Hosts.Skip(1)],
        };
    }

    public static OpeningsInput Of(int hosts, int days, int spans = 400)
    {
        var random = new Random(20261207);
        var from = new LocalDate(2026, 12, 7);
        var start = from.AtStartOfDayInZone(DateTimeZoneProviders.Tzdb["Europe/Copenhagen"]).ToInstant();
        var ids = Enumerable.Range(0, hosts).Select(i => $"h{i:0000}").ToArray();
        var half = 1 + (hosts - 1) / 2;
        var page = new PageRules(
            "panel",
            DateTimeZoneProviders.Tzdb["Europe/Copenhagen"],
            Step: 15,
            StepOffset: 0,
            StepFrom.Clock,
            BufferBefore: 10,
            BufferAfter: 10,
            Notice: 240,
            new BookingWindow.Open(),
            HoursMode.Hosts,
            Hours: null,
            DailyCap: null,
            WeeklyCap: null,
            Places: 1,
            [new Seat([ids[0]]), new Seat(ids[1..half]), new Seat(ids[half..])],
            Only: null,
            Sessions: []
        );
        return new OpeningsInput(
            start - Duration.FromHours(16),
            from,
            from.PlusDays(days - 1),
            Duration: 45,
            AsHolder: null,
            Moving: null,
            page,
            [.. ids.Select((id, i) => Host(id, Zones[i % Zones.Length], start, days, spans, random))]
        );
    }

    /// <summary>Hours of their own for each host and weekday, with days off; hardly two have the same.</summary>
    private static HostFacts Host(string id, string zoneId, Instant start, int days, int spans, Random random)
    {
        var zone = DateTimeZoneProviders.Tzdb[zoneId];
        var week = Enum.GetValues<IsoDayOfWeek>()
            .Where(day => day is >= IsoDayOfWeek.Monday and <= IsoDayOfWeek.Friday)
            .ToDictionary(day => day, _ => Day(random));
        var off = new LocalDate(2026, 12, 10).PlusDays(random.Next(60));
        var hours = new HoursSet(
            zone,
            week,
            [
                new DatedChange(new LocalDate(2026, 12, 24), new LocalDate(2026, 12, 26), []),
                new DatedChange(off, off.PlusDays(random.Next(8)), []),
            ]
        );
        var busy = new Span[spans];
        for (var i = 0; i < busy.Length; i++)
        {
            var at = start + Duration.FromMinutes(random.Next(days * 24 * 12) * 5);
            busy[i] = new Span(at, at + Duration.FromMinutes(15 + random.Next(9) * 15 / 2));
        }

        return new HostFacts(id, zone, DailyCap: null, WeeklyCap: null, IgnoresCalendars: false, hours, busy, []);
    }

    /// <summary>Two stretches with a pause, each end anywhere within an hour or two.</summary>
    private static IReadOnlyList<OpenTime> Day(Random random)
    {
        int Between(int from, int to) => 60 * from + 15 * random.Next(1 + 4 * (to - from));
        return [new OpenTime(Between(8, 10), Between(11, 12)), new OpenTime(Between(13, 14), Between(16, 18))];
    }
}
