using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Team;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>
/// What the demo's team has besides people: rooms and things, dated changes, weights, caps and usual settings.
/// </summary>
internal static class DemoTeam
{
    public static async Task AddAsync(
        IServiceProvider services,
        Dictionary<string, Guid> hosts,
        LocalDate today,
        CancellationToken ct
    )
    {
        var db = services.GetRequiredService<LanternDb>();
        var editing = services.GetRequiredService<HostEditing>();
        foreach (
            var (key, kind, name) in new[]
            {
                ("slip", HostKind.Room, "Slip 2"),
                ("school", HostKind.Room, "School room"),
                ("crane", HostKind.Thing, "Boat crane"),
            }
        )
            hosts[key] = (await editing.AddPlaceAsync(new PlaceForm(kind, name, DemoPeople.Zone, null), ct)).Id;

        // Five weeks from now, past what the demo's guests have booked.
        var weeks = today.PlusWeeks(5);
        await ChangeAsync(
            services,
            hosts["piet"],
            new DatedChangeDocument(weeks.PlusDays(2), weeks.PlusDays(4), [], "Stocktaking"),
            ct
        );
        await ChangeAsync(
            services,
            hosts["rosalind"],
            new DatedChangeDocument(
                weeks,
                weeks.PlusWeeks(9),
                [new("12:00", "15:00")],
                "Lessons in town",
                [WeekdayName.Wed]
            ),
            ct
        );
        await ChangeAsync(
            services,
            hosts["sunniva"],
            new DatedChangeDocument(weeks.PlusDays(7), weeks.PlusDays(20), [], "Leave"),
            ct
        );

        await services
            .GetRequiredService<HoursEditing>()
            .CreateAsync(
                new HoursForm(
                    "Summer evenings",
                    new HoursDocument(
                        DemoPeople.Zone,
                        new WeekDocument(
                            [new("15:00", "20:00")],
                            [new("15:00", "20:00")],
                            [new("15:00", "20:00")],
                            [new("15:00", "20:00")],
                            [],
                            [],
                            []
                        ),
                        []
                    )
                ),
                ct
            );

        var keziah = await db.Hosts.SingleAsync(host => host.Id == hosts["keziah"], ct);
        await editing.ChangeAsync(
            keziah.Id,
            new HostForm(null, null, keziah.HoursId, Weight: 2, DailyCap: 6, WeeklyCap: 20),
            ct
        );
        // Ivo lets Marit offer his time, and keeps to himself what he does with the rest of it.
        foreach (var grant in await db.ActingFor.Where(grant => grant.HostId == hosts["ivo"]).ToListAsync(ct))
            grant.SeesTitles = false;
        foreach (
            var (key, line) in new[]
            {
                ("sunniva", "Sounds planking by ear"),
                ("rosalind", "Runs the yard hand school"),
                ("anselm", "Master shipwright"),
            }
        )
        {
            var personId = await db
                .Hosts.Where(host => host.Id == hosts[key])
                .Select(host => host.PersonId)
                .SingleAsync(ct);
            (await db.Users.SingleAsync(person => person.Id == personId, ct)).Line = line;
        }

        var workspace = await db.Workspaces.SingleAsync(ct);
        workspace.Usual = UsualSettings.None with { BufferAfter = 10, Reminders = [24 * 60, 120] };
        workspace.FirstRunEndedAt = services.GetRequiredService<IClock>().GetCurrentInstant();
        await db.SaveChangesAsync(ct);
    }

    private static async Task ChangeAsync(
        IServiceProvider services,
        Guid host,
        DatedChangeDocument change,
        CancellationToken ct
    )
    {
        var hours = (
            await services
                .GetRequiredService<LanternDb>()
                .Hosts.Include(row => row.Hours)
                .SingleAsync(row => row.Id == host, ct)
        ).Hours!;
        var form = new HoursForm(hours.Name, hours.Document with { Changes = [.. hours.Document.Changes, change] });
        await services.GetRequiredService<HoursEditing>().ChangeAsync(hours.Id, hours.Version, form, ct);
    }
}
