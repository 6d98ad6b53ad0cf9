using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>How much one guest holds, and when a busy network's guests prove who they are.</summary>
public class GuestLimitTests(World world)
{
    private static readonly string[] Starts =
    [
        "2026-12-08T08:00:00Z",
        "2026-12-08T08:30:00Z",
        "2026-12-08T09:00:00Z",
        "2026-12-08T09:30:00Z",
        "2026-12-08T10:00:00Z",
        "2026-12-08T10:30:00Z",
    ];

    [Fact]
    public async Task One_address_has_five_bookings_to_come_on_a_page_unless_it_says_otherwise()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        foreach (var start in Starts.Take(5))
            (await world.Guest().BookAsync(ada.Desk, page, start)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var refused = await (
            await world.Guest().BookAsync(ada.Desk, page, Starts[5], email: "OTTILIE@wren-charters.example")
        ).ReadAsync(HttpStatusCode.UnprocessableEntity);
        refused.GetProperty("type").GetString().ShouldBe("urn:loose-lantern:most-open");
        (
            await world.Guest().BookAsync(ada.Desk, page, Starts[5], email: "else@wren-charters.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);

        var wide = await ada.PublishAsync(draft =>
        {
            draft.Address = "wide";
            draft.Day = [new { from = "12:00", to = "16:00" }];
            draft.Details = PageDetails.Usual with { MostOpen = 6 };
        });
        for (var i = 0; i < 6; i++)
            (
                await world
                    .Guest()
                    .BookAsync(ada.Desk, wide, $"2026-12-08T1{1 + (i / 2)}:{(i % 2 == 0 ? "00" : "30")}:00Z")
            ).StatusCode.ShouldBe(HttpStatusCode.Created);
    }

    [Fact]
    public async Task One_address_has_so_many_in_a_workspace_also_when_all_come_at_once()
    {
        var ada = await world.SignUpAsync();
        (
            await ada.PutAsync(
                "/api/workspace",
                new
                {
                    name = "Yard",
                    zone = "Europe/Copenhagen",
                    mostOpen = 4,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var pages = new List<string>();
        foreach (var hour in (int[])[9, 11, 13])
            pages.Add(
                await ada.PublishAsync(draft =>
                {
                    draft.Address = $"at-{hour}";
                    draft.Day = [new { from = $"{hour:00}:00", to = $"{hour + 2:00}:00" }];
                })
            );
        var answers = await Task.WhenAll(
            pages.SelectMany(
                (page, i) =>
                    Enumerable
                        .Range(0, 4)
                        .Select(at =>
                            world
                                .Guest()
                                .BookAsync(
                                    ada.Desk,
                                    page,
                                    $"2026-12-08T{8 + (2 * i) + (at / 2):00}:{(at % 2 == 0 ? "00" : "30")}:00Z"
                                )
                        )
            )
        );
        answers.Count(answer => answer.StatusCode == HttpStatusCode.Created).ShouldBe(4);
        foreach (var refused in answers.Where(answer => answer.StatusCode != HttpStatusCode.Created))
            (await refused.ReadAsync(HttpStatusCode.UnprocessableEntity))
                .GetProperty("title")
                .GetString()
                .ShouldBe("You have reached the most bookings one guest can have with this team.");
        (
            await (
                await ada.PutAsync(
                    "/api/workspace",
                    new
                    {
                        name = "Yard",
                        zone = "UTC",
                        mostOpen = 0,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["mostOpen"]);
    }

    [Fact]
    public async Task From_so_many_bookings_an_hour_a_networks_guests_prove_their_address()
    {
        await using var scene = await MailScene.MakeAsync(new MailLimits(ProveFrom: 3));
        var page = await scene.Ada.PublishAsync();
        for (var i = 0; i < 3; i++)
            await scene.BookAsync(page, Starts[i], $"guest{i}@wren.example");
        var needed = await (
            await scene.World.Guest().BookAsync(scene.Ada.Desk, page, Starts[3], email: "guest3@wren.example")
        ).ReadAsync(HttpStatusCode.UnprocessableEntity);
        needed.GetProperty("type").GetString().ShouldBe("urn:loose-lantern:code-needed");
        var mail = await scene.MailAsync("guest3@wren.example", "A code for");
        var code = mail.Text.Split('\n').First(line => line.Trim().Length == 6 && line.Trim().All(char.IsDigit)).Trim();
        (
            await scene
                .World.Guest()
                .PostAsJsonAsync(
                    $"/api/public/desks/{scene.Ada.Desk}/pages/{page}/bookings",
                    new
                    {
                        start = Starts[3],
                        duration = 30,
                        zone = "Europe/Dublin",
                        guest = new { name = "Ottilie Wren", email = "guest3@wren.example" },
                        code,
                    }
                )
        ).StatusCode.ShouldBe(HttpStatusCode.Created);

        scene.World.Clock.Advance(Duration.FromHours(1));
        await scene.BookAsync(page, Starts[4], "guest4@wren.example");
    }

    [Fact]
    public async Task Where_no_code_can_be_mailed_none_is_asked_for_in_vain()
    {
        await using var scene = await MailScene.MakeAsync(MailLimits.None, isProven: false);
        var page = await scene.Ada.PublishAsync(draft =>
            draft.Details = PageDetails.Usual with
            {
                After = new Afterwards("", "", OffersAnother: false, ProvesEmail: true),
            }
        );
        (
            await (await scene.World.Guest().BookAsync(scene.Ada.Desk, page, Starts[0])).ReadAsync(
                HttpStatusCode.UnprocessableEntity
            )
        )
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:code-held");
        (await scene.World.LookAsync(db => db.EmailCodes.IgnoreQueryFilters().CountAsync())).ShouldBe(0);
    }
}
