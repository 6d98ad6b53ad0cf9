using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.GuestBook;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>What the demo's yard knows of its guests besides what they booked, and those who never booked.</summary>
internal static class DemoGuests
{
    /// <summary>How many there are in all.</summary>
    public const int Count = 60;

    private static readonly string[] Boats =
    [
        "Larkspur",
        "Petrel",
        "Saltmarsh",
        "Amaranth",
        "Nell",
        "Harrier",
        "Oyster Girl",
        "Lodestar",
        "Windrow",
        "Tern",
    ];
    private static readonly string[] Rigs = ["Ketch", "Yawl", "Cutter", "Lugger", "Motor"];

    /// <summary>Known from boat shows and calls; they have not booked.</summary>
    private static readonly (string Name, string Company, string Zone)[] Others =
    [
        ("Ottilie Wren", "wren-and-wren", "Europe/Dublin"),
        ("Ambrose Tilde", "tilde-marine", "Europe/Dublin"),
        ("Birgit Solhaug", "solhaug", "Europe/Copenhagen"),
        ("Caius Pemberwick", "pemberwick", "America/Halifax"),
        ("Dagny Storvik", "storvik-sejl", "Europe/Copenhagen"),
        ("Eamon Fairlie", "fairlie-hulls", "Europe/Dublin"),
        ("Freya Lindqvist-Holm", "lindqvist-holm", "Europe/Copenhagen"),
        ("Gethin Marlowe", "marlowe-tenders", "Europe/Dublin"),
        ("Haruto Senzaki", "senzaki", "Asia/Tokyo"),
        ("Isolde Varne", "varne-yachting", "America/Halifax"),
        ("Joaquim Brisk", "brisk-launches", "Europe/Dublin"),
        ("Kerensa Dowe", "dowe", "Pacific/Auckland"),
        ("Leander Stout", "stout-rigging", "America/Halifax"),
        ("Mio Hayasaka", "hayasaka", "Asia/Tokyo"),
        ("Nils Ravnkilde", "ravnkilde", "Europe/Copenhagen"),
        ("Oriel Thackeray-Bloom", "thackeray-bloom", "Europe/Dublin"),
        ("Petra Kjolby", "kjolby-baade", "Europe/Copenhagen"),
        ("Quentin Alderbrook", "alderbrook", "America/Halifax"),
        ("Runa Espeland", "espeland", "Europe/Copenhagen"),
        ("Silas Orme", "orme-and-daughters", "Europe/Dublin"),
        ("Tamsin Goodwater", "goodwater", "Pacific/Auckland"),
        ("Ulrik Damsgaard", "damsgaard-marine", "Europe/Copenhagen"),
        ("Verity Penhale", "penhale", "Europe/Dublin"),
        ("Wendell Crowther-Hay", "crowther-hay", "America/Halifax"),
        ("Xanthe Mirador", "mirador-sail", "Pacific/Auckland"),
        ("Yrsa Fjeldgaard", "fjeldgaard", "Europe/Copenhagen"),
        ("Zenobia Marsh-Teal", "marsh-teal", "Europe/Dublin"),
        ("Alby Rookwood", "rookwood-boats", "Pacific/Auckland"),
        ("Britta Havemose", "havemose", "Europe/Copenhagen"),
        ("Conall Drumgoole", "drumgoole", "Europe/Dublin"),
        ("Delphine Ashgrove", "ashgrove-yawls", "America/Halifax"),
        ("Edda Norgreen", "norgreen", "Europe/Copenhagen"),
        ("Fumiko Hoshizawa", "hoshizawa", "Asia/Tokyo"),
        ("Gideon Starling", "starling-cutters", "America/Halifax"),
        ("Hepzibah Loom", "loom-lofts", "Europe/Dublin"),
        ("Ingolf Bakkegaard", "bakkegaard", "Europe/Copenhagen"),
        ("Jessamy Tolland", "tolland", "Europe/Dublin"),
        ("Kaia Rosenvold", "rosenvold", "Europe/Copenhagen"),
        ("Lorcan Whitethorn", "whitethorn", "Europe/Dublin"),
        ("Maren Skovlund", "skovlund", "Europe/Copenhagen"),
    ];

    private static readonly string[] Notes =
    [
        "Rings rather than writes. Best before ten in the morning.",
        "Wants the keel seen before the winter. Asked what a lift costs.",
        "Met at the spring boat show; keen on the yard hand school for a nephew.",
        "Sends drawings by post, not by mail.",
        "Away until the new year. Ask again in the second week of January.",
    ];

    /// <summary>Writes down what is known; guests who booked are known by then.</summary>
    public static async Task AddAsync(IServiceProvider services, Instant now, CancellationToken ct)
    {
        var db = services.GetRequiredService<LanternDb>();
        var fields = await FieldsAsync(services, ct);
        var keepers = await db
            .Users.Where(person => person.IsCoordinator || person.Name == "Ivo Brandt" || person.Name == "Odile Farrow")
            .OrderBy(person => person.Name)
            .Select(person => person.Id)
            .ToListAsync(ct);
        var known = await db
            .Guests.AsNoTracking()
            .Include(guest => guest.Emails)
            .OrderBy(guest => guest.NameKey)
            .ThenBy(guest => guest.Id)
            .ToListAsync(ct);
        foreach (var (i, guest) in known.Index().Where(row => row.Item.Emails.Count > 0))
        {
            var editing = ActivatorUtilities.CreateInstance<GuestEditing>(services);
            var form = FormOf(i, 100 + i, guest.Name, guest.Emails[0].Email, guest.Zone, fields, keepers);
            await editing.ChangeAsync(guest.Id, guest.Version, form with { Language = guest.Language }, ct);
        }

        foreach (var (i, (name, company, zone)) in Others.Take(Count - known.Count).Index())
        {
            var clock = new StoppedClock(now - Duration.FromDays(40 + (i * 3)));
            var email = $"{name.Split(' ')[0].ToLowerInvariant()}@{company}.example";
            await ActivatorUtilities
                .CreateInstance<GuestEditing>(services, clock)
                .AddAsync(FormOf(i + 3, 150 + i, name, email, zone, fields, keepers), ct);
        }

        db.ChangeTracker.Clear();
    }

    /// <summary>What the team noted of some, by whoever is at work, and the views they saved.</summary>
    public static async Task NoteAsync(IServiceProvider services, Instant now, CancellationToken ct)
    {
        var guests = await services
            .GetRequiredService<LanternDb>()
            .Guests.OrderBy(guest => guest.NameKey)
            .ThenBy(guest => guest.Id)
            .Select(guest => guest.Id)
            .ToListAsync(ct);
        foreach (var (i, text) in Notes.Index())
        {
            var clock = new StoppedClock(now - Duration.FromDays(3 + (i * 11)) - Duration.FromHours(i));
            await ActivatorUtilities
                .CreateInstance<GuestNotes>(services, clock)
                .AddAsync(guests[((i * 7) + 2) % guests.Count], new NoteForm(text), ct);
        }

        var views = services.GetRequiredService<GuestSavedViews>();
        await views.SaveAsync(
            new GuestViewForm("To come", GuestFilter.All with { Appointments = GuestAppointments.ToCome }),
            ct
        );
        await views.SaveAsync(
            new GuestViewForm(
                "Never booked",
                GuestFilter.All with
                {
                    Appointments = GuestAppointments.None,
                    Offers = GuestOffers.None,
                    Order = GuestOrder.Newest,
                }
            ),
            ct
        );
    }

    private static async Task<Guid[]> FieldsAsync(IServiceProvider services, CancellationToken ct)
    {
        var editing = services.GetRequiredService<GuestFieldEditing>();
        await editing.ReplaceAsync(
            [
                new GuestFieldForm(null, "Boat", GuestFieldKind.Text, []),
                new GuestFieldForm(null, "Length in metres", GuestFieldKind.Number, []),
                new GuestFieldForm(null, "Rig", GuestFieldKind.Choice, Rigs),
                new GuestFieldForm(null, "Berth with us", GuestFieldKind.YesNo, []),
            ],
            ct
        );
        return [.. (await editing.ListAsync(ct)).Select(field => field.Id)];
    }

    /// <summary>How a number of that zone begins; the rest is of those that nobody has.</summary>
    private static string Abroad(string? zone) =>
        zone switch
        {
            "Europe/Dublin" => "+353 21",
            "America/Halifax" => "+1 902",
            "Asia/Tokyo" => "+81 3",
            "Pacific/Auckland" => "+64 9",
            _ => "+45 33",
        };

    private static GuestForm FormOf(
        int i,
        int number,
        string name,
        string email,
        string? zone,
        Guid[] fields,
        List<Guid> keepers
    )
    {
        var company = email.Split('@')[1].Split('.')[0];
        var values = new Dictionary<Guid, string>();
        if (i % 3 != 1)
        {
            values[fields[0]] = Boats[i % Boats.Length];
            values[fields[1]] = $"{7 + (i % 9)}.{i % 10}";
            values[fields[2]] = Rigs[i % Rigs.Length];
        }

        if (i % 4 == 0)
            values[fields[3]] = i % 8 == 0 ? "yes" : "no";
        return new GuestForm(
            name,
            [email],
            string.Join(' ', company.Split('-').Select(word => char.ToUpperInvariant(word[0]) + word[1..])),
            i % 2 == 0 ? $"{Abroad(zone)} 555 {number:0000}" : "",
            zone,
            i % 5 == 2 ? "da" : "en",
            Clock: null,
            keepers.Count == 0 || i % 3 == 0 ? null : keepers[i % keepers.Count],
            values
        );
    }
}
