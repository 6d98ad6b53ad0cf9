using LooseLantern.Server.Features.Hours;

namespace LooseLantern.Server.Demo;

internal sealed record DemoHost(string Name, string Key, string Zone, HoursDocument Hours);

internal sealed record DemoGuest(string Name, string Email, string Zone);

/// <summary>The made-up people of the made-up Brackwater Boatworks and their guests.</summary>
internal static class DemoPeople
{
    public const string Password = "lantern-demo";
    public const string Zone = "Europe/Copenhagen";

    public static readonly DemoHost[] Hosts =
    [
        new(
            "Sunniva Dale",
            "sunniva",
            Zone,
            Week(Zone, all: [("08:00", "12:00"), ("12:30", "16:30")], fri: [("08:00", "13:00")])
        ),
        new(
            "Tomasz Reed",
            "tomasz",
            Zone,
            Week(Zone, all: [("09:00", "13:00"), ("14:00", "18:00")], mon: [], sat: [("09:00", "12:00")])
        ),
        new("Keziah Moon", "keziah", Zone, Week(Zone, all: [("07:30", "11:30"), ("12:00", "15:00")])),
        new("Anselm Park", "anselm", Zone, Week(Zone, all: [("08:00", "12:00"), ("13:00", "16:00")])),
        new(
            "Odile Farrow",
            "odile",
            "Europe/Lisbon",
            Week("Europe/Lisbon", all: [("09:00", "13:00"), ("14:00", "18:00")])
        ),
        new("Ivo Brandt", "ivo", Zone, Week(Zone, all: [("10:00", "13:00"), ("13:45", "18:00")])),
        new("Rosalind Achebe", "rosalind", Zone, Week(Zone, all: [("09:00", "15:00")], fri: [])),
        new("Piet Lund", "piet", Zone, Week(Zone, all: [("07:00", "11:30"), ("12:00", "15:30")])),
    ];

    public static readonly DemoGuest[] Guests =
    [
        Guest("Ottilie Wren", "wren-charters", "Europe/Dublin"),
        Guest("Barnaby Quill", "quill-and-daughter", "America/Halifax"),
        Guest("Hanako Mori", "mori-sail", "Asia/Tokyo"),
        Guest("Tane Whareroa", "whareroa-marine", "Pacific/Auckland"),
        Guest("Dervla Keane", "keane-ketches", "Europe/Dublin"),
        Guest("Lucius Ferrow", "ferrow", Zone),
        Guest("Imke Sandvig", "sandvig-sejl", Zone),
        Guest("Osric Pell", "pell-and-pell", "Europe/Dublin"),
        Guest("Marguerite Doan", "doan-yawls", "America/Halifax"),
        Guest("Eskil Ronne", "ronne-baade", Zone),
        Guest("Philippa Thrale", "thrale", "Europe/Dublin"),
        Guest("Kenji Arakawa", "arakawa-kaiji", "Asia/Tokyo"),
        Guest("Bryony Sallow", "sallow-cruising", "America/Halifax"),
        Guest("Aksel Tornby", "tornby-kutter", Zone),
        Guest("Niamh Corrigan-Lee", "corrigan-lee", "Europe/Dublin"),
        Guest("Wiremu Tahana", "tahana-boats", "Pacific/Auckland"),
        Guest("Cosima Vell", "vell-regatta", Zone),
        Guest("Jasper Holloway-Finch", "holloway-finch", "Europe/Dublin"),
        Guest("Signe Munkholt", "munkholt", Zone),
        Guest("Teodor Vask", "vask-marina", Zone),
        Guest("Adaora Nwosu-Pike", "nwosu-pike", "America/Halifax"),
        Guest("Fergal Mulhearn", "mulhearn-tugs", "Europe/Dublin"),
        Guest("Yuki Tanabe-Ross", "tanabe-ross", "Asia/Tokyo"),
        Guest("Liselotte Brandgaard", "brandgaard", Zone),
    ];

    private static DemoGuest Guest(string name, string company, string zone) =>
        new(name, $"{name.Split(' ')[0].ToLowerInvariant()}@{company}.example", zone);

    private static HoursDocument Week(
        string zone,
        (string, string)[] all,
        (string, string)[]? mon = null,
        (string, string)[]? fri = null,
        (string, string)[]? sat = null
    )
    {
        static OpenTimeDocument[] Day((string From, string To)[] open) =>
            [.. open.Select(time => new OpenTimeDocument(time.From, time.To))];
        return new HoursDocument(
            zone,
            new WeekDocument(Day(mon ?? all), Day(all), Day(all), Day(all), Day(fri ?? all), Day(sat ?? []), []),
            []
        );
    }
}
