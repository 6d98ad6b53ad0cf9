using LooseLantern.Core.LineUps;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using static Server.Tests.GroupScene;
using static Server.Tests.GuestScene;

namespace Server.Tests;

/// <summary>A guest who is known beforehand goes to who keeps them; on an open page the usual rule counts.</summary>
public sealed class KeeperTests(World world)
{
    private const string Eleven = "2026-12-08T10:00:00Z";
    private const string Email = "ottilie@harbour.example";

    [Fact]
    public async Task By_an_address_of_their_own_a_guest_goes_to_their_keeper_and_when_that_one_is_away_to_the_pool()
    {
        var (ada, bo) = await PoolAsync();
        var (page, secret) = await PageAsync(ada, bo, "first");
        await ada.AddGuestAsync(Form("Ottilie Wren", [Email], keeper: bo.PersonId));
        await HostsAsync(ada, page, Nine, secret, "Bo Keel");
        // Bo is booked then by somebody else's guest.
        var other = await ada.PublishAsync(draft =>
            (draft.Address, draft.Seats) = (
                "other",
                [
                    [bo.HostId],
                ]
            )
        );
        (
            await world.Guest().BookAsync(ada.Desk, other, Ten, name: "Osric", email: "o@pell.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        await HostsAsync(ada, page, Ten, secret, "Ada Wharf");
        // Whoever types the email on the open page learns nothing of whose guest that is.
        await HostsAsync(ada, page, Eleven, null, "Ada Wharf");
    }

    [Fact]
    public async Task A_page_for_the_keeper_only_offers_their_times_by_the_address_and_all_times_to_anybody()
    {
        var (ada, bo) = await PoolAsync();
        var (page, secret) = await PageAsync(ada, bo, "only");
        await ada.AddGuestAsync(Form("Ottilie Wren", [Email], keeper: bo.PersonId));
        (
            await world
                .Guest()
                .BookAsync(
                    ada.Desk,
                    await ada.PublishAsync(draft =>
                        (draft.Address, draft.Seats) = (
                            "other",
                            [
                                [bo.HostId],
                            ]
                        )
                    ),
                    Ten,
                    name: "Osric",
                    email: "o@pell.example"
                )
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await StartsAsync(ada, page, secret)).ShouldNotContain(Ten);
        (await StartsAsync(ada, page, secret)).ShouldContain(Nine);
        (await StartsAsync(ada, page, null)).ShouldContain(Ten);
        (await StartsAsync(ada, page, "no-such-secret")).ShouldContain(Ten);
        var refused = await (await BookAsync(ada, page, Ten, secret)).ReadAsync(HttpStatusCode.Conflict);
        refused.Text("type").ShouldBe("urn:loose-lantern:opening-gone");
        refused.GetProperty("nearest").EnumerateArray().Select(opening => opening.Text("start")).ShouldNotContain(Ten);

        // Somebody else keeps them from now on; no kept answer stands in the way, and moving is with the keeper, too.
        var path = ApiOf(await (await BookAsync(ada, page, Nine, secret)).ReadAsync(HttpStatusCode.Created));
        (await MovesAsync(path)).ShouldNotContain(Ten);
        var guest = await ada.GuestAsync("Ottilie Wren");
        (
            await ada.PutAsync(
                $"/api/guests/{guest.Id()}",
                new
                {
                    version = guest.GetProperty("version").GetInt32(),
                    form = Form("Ottilie Wren", [Email], keeper: ada.PersonId),
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await StartsAsync(ada, page, secret)).ShouldContain(Ten);
        (await MovesAsync(path)).ShouldContain(Ten);
        (await world.Guest().PostAsJsonAsync(path + "/move", new { start = Ten })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await RowsAsync(ada, "Ottilie Wren"))[0].GetProperty("hosts")[0].GetString().ShouldBe("Ada Wharf");
    }

    [Fact]
    public async Task Who_booked_on_the_open_page_learns_nothing_by_moving()
    {
        var (ada, bo) = await PoolAsync();
        var (page, _) = await PageAsync(ada, bo, "only");
        await ada.AddGuestAsync(Form("Ottilie Wren", [Email], keeper: bo.PersonId));
        var path = ApiOf(await (await BookAsync(ada, page, Nine, null)).ReadAsync(HttpStatusCode.Created));
        (
            await world
                .Guest()
                .BookAsync(
                    ada.Desk,
                    await ada.PublishAsync(draft =>
                        (draft.Address, draft.Seats) = (
                            "other",
                            [
                                [bo.HostId],
                            ]
                        )
                    ),
                    Ten,
                    name: "Osric",
                    email: "o@pell.example"
                )
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await MovesAsync(path)).ShouldContain(Ten);
    }

    [Fact]
    public async Task A_link_is_for_the_keeper_of_its_guest_also_while_it_is_written()
    {
        var (ada, bo) = await PoolAsync();
        await ada.AddGuestAsync(Form("Ottilie Wren", ["ottilie@wren-charters.example"], keeper: bo.PersonId));
        await world
            .Guest()
            .BookAsync(
                ada.Desk,
                await ada.PublishAsync(draft =>
                    (draft.Address, draft.Seats) = (
                        "other",
                        [
                            [bo.HostId],
                        ]
                    )
                ),
                LinkDraft.Ten,
                name: "Osric",
                email: "o@pell.example"
            );
        void Pool(LinkDraft draft) =>
            (draft.Seats, draft.Keeper) = (
                [
                    [ada.HostId, bo.HostId],
                ],
                "only"
            );
        var reckoned = await (
            await ada.PostAsync("/api/links/reckoning", new { form = ada.Link(Pool).Form(), of = (Guid?)null })
        ).ReadAsync(HttpStatusCode.OK);
        reckoned.GetProperty("supply").GetProperty("total").GetInt32().ShouldBe(3);
        var dark = await (
            await ada.PostAsync(
                "/api/links/dark",
                new
                {
                    times = ada.Link(Pool).Times(),
                    of = (Guid?)null,
                    date = "2026-12-08",
                    fromMinute = 10 * 60,
                    toMinute = 10 * 60 + 30,
                    guests = new[] { new LinkGuest("Ottilie Wren", "ottilie@wren-charters.example") },
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        var host = dark.GetProperty("seats")[0].GetProperty("hosts").EnumerateArray().ShouldHaveSingleItem();
        (host.Text("name"), host.GetProperty("isKeeper").GetBoolean()).ShouldBe(("Bo Keel", true));

        var (_, address) = await ada.SendLinkAsync(Pool);
        (await world.Guest().LinkStartsAsync(address)).ShouldNotContain(LinkDraft.Ten);
        (await world.Guest().TakeAsync(address, LinkDraft.Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await RowsAsync(ada, "Ottilie Wren"))[0].GetProperty("hosts")[0].GetString().ShouldBe("Bo Keel");
        // Nobody's guest is taken as usual: by whoever comes first.
        var (_, others) = await ada.SendLinkAsync(draft =>
        {
            Pool(draft);
            draft.Guests = [new("Osric Pell", "osric@pell.example")];
        });
        (await world.Guest().LinkStartsAsync(others)).ShouldContain(LinkDraft.Ten);
    }

    [Fact]
    public async Task Who_has_no_keeper_yet_gets_one_as_they_book_and_keeps_them()
    {
        var (ada, bo) = await PoolAsync();
        var (page, _) = await PageAsync(ada, bo, "first", fill: "balanced");
        await BookedAsync(ada, page, Nine, "a@harbour.example", "One");
        await BookedAsync(ada, page, Ten, "b@harbour.example", "Two");
        await BookedAsync(ada, page, Eleven, "a@harbour.example", "One");
        var keepers = new[]
        {
            (await ada.GuestAsync("One")).Text("keeperName"),
            (await ada.GuestAsync("Two")).Text("keeperName"),
        };
        keepers.Order().ShouldBe(["Ada Wharf", "Bo Keel"]);
        var first = (await RowsAsync(ada, "One")).MinBy(row => row.Text("start"));
        first.GetProperty("hosts")[0].GetString().ShouldBe(keepers[0]);
        // A page that considers nobody makes nobody a keeper.
        var plain = await ada.PublishAsync(draft => draft.Address = "plain");
        await BookedAsync(ada, plain, "2026-12-09T08:00:00Z", "c@harbour.example", "Three");
        (await ada.GuestAsync("Three")).Text("keeperName").ShouldBe("");
    }

    [Fact]
    public async Task An_answer_says_whose_guest_somebody_is()
    {
        var (ada, bo) = await PoolAsync();
        var region = new Question("region", QuestionKind.OneOf, "Region", "", IsNeeded: true, ["North", "South"], "");
        object Draft(string host, string value) =>
            ada.Draft(draft =>
                {
                    (draft.Address, draft.Seats, draft.Fill) = (
                        "leads",
                        [
                            [ada.HostId, bo.HostId],
                        ],
                        "inOrder"
                    );
                    (draft.Keeper, draft.Questions) = ("first", [region]);
                    draft.Details = PageDetails.Usual with
                    {
                        Keepers = [new KeeperByAnswer(new ScreenCondition("region", ScreenTest.Is, value), host)],
                    };
                })
                .Form();
        (await (await ada.PostAsync("/api/pages", Draft(bo.HostId.ToString(), "West"))).FaultsAsync()).Keys.ShouldBe([
            "details.keepers[0].if",
        ]);
        (
            await (await ada.PostAsync("/api/pages", Draft(Guid.NewGuid().ToString(), "North"))).FaultsAsync()
        ).Keys.ShouldBe(["details.keepers[0].host"]);
        var page = await ada.PublishAsync(draft =>
        {
            (draft.Address, draft.Seats, draft.Fill) = (
                "leads",
                [
                    [ada.HostId, bo.HostId],
                ],
                "inOrder"
            );
            (draft.Keeper, draft.Questions) = ("first", [region]);
            draft.Details = PageDetails.Usual with
            {
                Keepers =
                [
                    new KeeperByAnswer(new ScreenCondition("region", ScreenTest.Is, "North"), bo.HostId.ToString()),
                ],
            };
        });
        foreach (
            var (answer, at, name, host) in new[]
            {
                ("North", Nine, "One", "Bo Keel"),
                ("South", Ten, "Two", "Ada Wharf"),
            }
        )
        {
            (
                await world
                    .Guest()
                    .PostAsJsonAsync(
                        $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                        new
                        {
                            start = at,
                            duration = 30,
                            zone = "Europe/Dublin",
                            guest = new { name, email = $"{name.ToLowerInvariant()}@harbour.example" },
                            answers = new { region = answer },
                        }
                    )
            ).StatusCode.ShouldBe(HttpStatusCode.Created);
            (await RowsAsync(ada, name))[0].GetProperty("hosts")[0].GetString().ShouldBe(host);
            (await ada.GuestAsync(name)).Text("keeperName").ShouldBe(host);
        }
    }

    [Fact]
    public async Task Only_pages_for_one_guest_a_time_consider_keepers()
    {
        var ada = await world.SignUpAsync();
        (
            await (
                await ada.PostAsync(
                    "/api/pages",
                    ada.Draft(draft => (draft.Keeper, draft.Places) = ("first", 2)).Form()
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["times.lineUp[0]"]);
    }

    private async Task<(Coordinator Ada, Coordinator Bo)> PoolAsync()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        return (scene.Owner, bo);
    }

    /// <summary>A pool that goes by its order, Ada first, and its address for Ottilie alone.</summary>
    private static async Task<(string Page, string Secret)> PageAsync(
        Coordinator ada,
        Coordinator bo,
        string keeper,
        string fill = "inOrder"
    )
    {
        var page = await ada.PublishAsync(draft =>
        {
            draft.Seats =
            [
                [ada.HostId, bo.HostId],
            ];
            (draft.Fill, draft.Keeper) = (fill, keeper);
        });
        var id = (await ada.PagesAsync())[0].Id();
        var made = await (
            await ada.PostAsync($"/api/pages/{id}/personal-addresses", new { name = "Ottilie Wren", email = Email })
        ).ReadAsync(HttpStatusCode.OK);
        return (page, made.Text("path").Split('=')[1]);
    }

    private async Task<HttpResponseMessage> BookAsync(Coordinator ada, string page, string start, string? secret) =>
        await world
            .Guest()
            .PostAsJsonAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new
                {
                    start,
                    duration = 30,
                    zone = "Europe/Dublin",
                    guest = new { name = "Ottilie Wren", email = Email },
                    answers = new { },
                    address = secret,
                }
            );

    private async Task HostsAsync(Coordinator ada, string page, string start, string? secret, string host)
    {
        await (await BookAsync(ada, page, start, secret)).ReadAsync(HttpStatusCode.Created);
        (await RowsAsync(ada, "Ottilie Wren"))
            .Single(row => row.Text("start") == start)
            .GetProperty("hosts")[0]
            .GetString()
            .ShouldBe(host);
    }

    private async Task BookedAsync(Coordinator ada, string page, string start, string email, string name) =>
        (await world.Guest().BookAsync(ada.Desk, page, start, name: name, email: email)).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );

    private async Task<IReadOnlyList<string>> StartsAsync(Coordinator ada, string page, string? secret) =>
        [
            .. (
                await world
                    .Guest()
                    .GetFromJsonAsync<JsonElement>(
                        $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from=2026-12-08&to=2026-12-08&for={secret}"
                    )
            )
                .GetProperty("openings")
                .EnumerateArray()
                .Select(opening => opening.Text("start")),
        ];

    private async Task<IReadOnlyList<string>> MovesAsync(string path) =>
        [
            .. (await world.Guest().GetFromJsonAsync<JsonElement>($"{path}/openings?from=2026-12-08&to=2026-12-08"))
                .GetProperty("openings")
                .EnumerateArray()
                .Select(opening => opening.Text("start")),
        ];

    private static async Task<IReadOnlyList<JsonElement>> RowsAsync(Coordinator ada, string name) =>
        [
            .. (await ada.GetAsync($"/api/bookings?search={Uri.EscapeDataString(name)}"))
                .GetProperty("rows")
                .EnumerateArray(),
        ];
}
