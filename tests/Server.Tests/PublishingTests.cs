using LooseLantern.Server.Data.Model;

namespace Server.Tests;

/// <summary>What of a page guests have, and what waits to be published.</summary>
public class PublishingTests(World world)
{
    [Fact]
    public async Task Guests_go_on_seeing_a_page_as_it_was_until_its_changes_are_published()
    {
        var (ada, path, address) = await PublishedAsync();
        var saved = await (
            await ada.PutAsync(
                path,
                new
                {
                    version = 2,
                    form = ada.Draft(page =>
                        {
                            page.Address = address;
                            page.Title = "Longer talk";
                            page.Durations = [60];
                        })
                        .Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (
            saved.GetProperty("form").GetProperty("title").GetString(),
            saved.GetProperty("published").GetProperty("title").GetString(),
            saved.GetProperty("hasDraft").GetBoolean()
        ).ShouldBe(("Longer talk", "Talk", true));
        (await GuestAsync(ada, address)).GetProperty("title").GetString().ShouldBe("Talk");
        (await world.Guest().BookAsync(ada.Desk, address, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        (await ada.GetAsync(path + "/supply")).GetProperty("duration").GetInt32().ShouldBe(30);

        var published = await (await ada.PostAsync(path + "/publish", new { version = 3 })).ReadAsync(
            HttpStatusCode.OK
        );
        published.GetProperty("hasDraft").GetBoolean().ShouldBeFalse();
        (await GuestAsync(ada, address)).GetProperty("title").GetString().ShouldBe("Longer talk");
    }

    [Fact]
    public async Task What_is_discarded_is_gone_and_what_comes_to_the_same_waits_for_nothing()
    {
        var (ada, path, address) = await PublishedAsync();
        await (
            await ada.PutAsync(
                path,
                new
                {
                    version = 2,
                    form = ada.Draft(page =>
                        {
                            page.Address = address;
                            page.Title = "Other";
                        })
                        .Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        var back = await (await ada.PostAsync(path + "/discard", new { version = 3 })).ReadAsync(HttpStatusCode.OK);
        (back.GetProperty("form").GetProperty("title").GetString(), back.GetProperty("hasDraft").GetBoolean()).ShouldBe(
            ("Talk", false)
        );
        var same = await (await ada.PutAsync(path, new { version = 4, form = back.GetProperty("form") })).ReadAsync(
            HttpStatusCode.OK
        );
        same.GetProperty("hasDraft").GetBoolean().ShouldBeFalse();
        (await ada.PostAsync(path + "/discard", new { version = 3 })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_page_that_is_taken_back_keeps_what_waits()
    {
        var (ada, path, address) = await PublishedAsync();
        await (
            await ada.PutAsync(
                path,
                new
                {
                    version = 2,
                    form = ada.Draft(page =>
                        {
                            page.Address = address;
                            page.Title = "Later";
                        })
                        .Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        var closed = await (await ada.PostAsync(path + "/unpublish", new { version = 3 })).ReadAsync(HttpStatusCode.OK);
        (
            closed.GetProperty("form").GetProperty("title").GetString(),
            closed.GetProperty("published").ValueKind
        ).ShouldBe(("Later", JsonValueKind.Null));
        await (await ada.PostAsync(path + "/publish", new { version = 4 })).ReadAsync(HttpStatusCode.OK);
        (await GuestAsync(ada, address)).GetProperty("title").GetString().ShouldBe("Later");
    }

    [Fact]
    public async Task Each_publication_is_kept_with_who_and_when_and_can_be_taken_back()
    {
        var (ada, path, address) = await PublishedAsync();
        await ada.PutAsync(
            path,
            new
            {
                version = 2,
                form = ada.Draft(page =>
                    {
                        page.Address = address;
                        page.Title = "Second";
                    })
                    .Form(),
            }
        );
        await (await ada.PostAsync(path + "/publish", new { version = 3 })).ReadAsync(HttpStatusCode.OK);

        var editions = (await ada.GetAsync(path + "/editions")).EnumerateArray().ToList();
        editions
            .Select(edition =>
                (
                    edition.GetProperty("number").GetInt32(),
                    edition.GetProperty("by").GetString(),
                    edition.GetProperty("form").GetProperty("title").GetString()
                )
            )
            .ShouldBe([(2, "Ada Wharf", "Second"), (1, "Ada Wharf", "Talk")]);
        editions[0].GetProperty("at").GetString().ShouldBe("2026-12-07T07:00:00Z");
        // The page as it once was is a form like any other.
        var back = await (
            await ada.PutAsync(path, new { version = 4, form = editions[1].GetProperty("form") })
        ).ReadAsync(HttpStatusCode.OK);
        back.GetProperty("form").GetProperty("title").GetString().ShouldBe("Talk");
    }

    [Fact]
    public async Task An_address_that_was_published_leads_to_where_the_page_is_now()
    {
        var (ada, path, address) = await PublishedAsync();
        var moved = World.Unique("moved");
        await ada.PutAsync(path, new { version = 2, form = ada.Draft(page => page.Address = moved).Form() });
        await (await ada.PostAsync(path + "/publish", new { version = 3 })).ReadAsync(HttpStatusCode.OK);

        (await GuestAsync(ada, address)).GetProperty("path").GetString().ShouldBe($"/{ada.Desk}/{moved}");
        (await world.Guest().BookAsync(ada.Desk, address, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );

        // A page that takes the old address is what stands there from then on.
        await ada.PublishAsync(page => (page.Address, page.Title) = (address, "Newcomer"));
        (await GuestAsync(ada, address)).GetProperty("title").GetString().ShouldBe("Newcomer");
        (await GuestAsync(ada, moved)).GetProperty("title").GetString().ShouldBe("Talk");
    }

    [Fact]
    public async Task A_draft_is_refused_where_its_address_is_taken_and_nothing_is_kept()
    {
        var (ada, path, address) = await PublishedAsync();
        var other = await ada.PublishAsync();
        (
            await (
                await ada.PutAsync(path, new { version = 2, form = ada.Draft(page => page.Address = other).Form() })
            ).FaultsAsync()
        ).Keys.ShouldBe(["address"]);
        (await ada.GetAsync(path)).GetProperty("hasDraft").GetBoolean().ShouldBeFalse();
        (await GuestAsync(ada, address)).GetProperty("title").GetString().ShouldBe("Talk");
    }

    [Fact]
    public async Task Office_hours_are_changed_at_once_and_nothing_else_that_waits_with_them()
    {
        var ada = await world.SignUpAsync();
        object Blocks(string start) =>
            new
            {
                whole = true,
                list = new[]
                {
                    new
                    {
                        start,
                        length = 30,
                        rule = (string?)null,
                        without = Array.Empty<string>(),
                    },
                },
            };
        var address = await ada.PublishAsync(page =>
            (page.Blocks, page.StepFrom) = (Blocks("2026-12-08T09:00:00"), "open")
        );
        var path = $"/api/pages/{(await ada.PagesAsync())[0].GetProperty("id").GetGuid()}";
        await (
            await ada.PutAsync(
                path,
                new
                {
                    version = 2,
                    form = ada.Draft(page =>
                        {
                            page.Address = address;
                            page.Title = "Waits";
                            (page.Blocks, page.StepFrom) = (Blocks("2026-12-08T09:00:00"), "open");
                        })
                        .Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);

        var changed = await (
            await ada.PutAsync(path + "/blocks", new { version = 3, blocks = Blocks("2026-12-09T10:00:00") })
        ).ReadAsync(HttpStatusCode.OK);

        changed.GetProperty("form").GetProperty("title").GetString().ShouldBe("Waits");
        changed.GetProperty("published").GetProperty("title").GetString().ShouldBe("Talk");
        foreach (var form in new[] { "form", "published" })
            changed
                .GetProperty(form)
                .GetProperty("times")
                .GetProperty("blocks")
                .GetProperty("list")[0]
                .GetProperty("start")
                .GetString()
                .ShouldBe("2026-12-09T10:00:00");
        (await world.Guest().BookAsync(ada.Desk, address, "2026-12-09T09:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        (
            await (
                await ada.PutAsync(
                    path + "/blocks",
                    new { version = 4, blocks = new { whole = true, list = Array.Empty<object>() } }
                )
            ).FaultsAsync()
        ).Keys.ShouldContain("times.blocks.list");
    }

    [Fact]
    public async Task What_office_hours_made_wrong_in_a_draft_is_not_published()
    {
        var ada = await world.SignUpAsync();
        var blocks = new
        {
            whole = true,
            list = new[]
            {
                new
                {
                    start = "2026-12-08T09:00:00",
                    length = 30,
                    rule = (string?)null,
                    without = Array.Empty<string>(),
                },
            },
        };
        var address = await ada.PublishAsync(page => (page.Blocks, page.StepFrom) = (blocks, "open"));
        var path = $"/api/pages/{(await ada.PagesAsync())[0].GetProperty("id").GetGuid()}";
        await (
            await ada.PutAsync(path, new { version = 2, form = ada.Draft(page => page.Address = address).Form() })
        ).ReadAsync(HttpStatusCode.OK);
        await (await ada.PutAsync(path + "/blocks", new { version = 3, blocks })).ReadAsync(HttpStatusCode.OK);
        (await (await ada.PostAsync(path + "/publish", new { version = 4 })).FaultsAsync()).Keys.ShouldBe([
            "times.stepFrom",
        ]);
        (await GuestAsync(ada, address)).GetProperty("title").GetString().ShouldBe("Talk");
    }

    [Fact]
    public async Task A_page_is_tried_as_a_guest_with_what_waits_and_nothing_is_reserved()
    {
        var (ada, path, address) = await PublishedAsync();
        await ada.PutAsync(
            path,
            new
            {
                version = 2,
                form = ada.Draft(page =>
                    {
                        page.Address = address;
                        page.Title = "Waits";
                        page.Durations = [60];
                        page.Details = PageDetails.Usual with { After = new Afterwards("**Bring** boots.", "", false) };
                    })
                    .Form(),
            }
        );
        (await ada.GetAsync(path + "/as-guest")).GetProperty("title").GetString().ShouldBe("Waits");
        (await ada.GetAsync(path + "/as-guest/openings?from=2026-12-08&to=2026-12-08"))
            .GetProperty("openings")
            .GetArrayLength()
            .ShouldBe(5);

        object Wish(string start, string name = "Ottilie Wren") =>
            new
            {
                start,
                duration = 60,
                zone = "Europe/Copenhagen",
                guest = new { name, email = "ottilie@wren.example" },
                answers = new { },
            };
        var tried = await (await ada.PostAsync(path + "/as-guest/bookings", Wish("2026-12-08T08:00:00Z"))).ReadAsync(
            HttpStatusCode.OK
        );
        tried.GetProperty("words").GetString().ShouldBe("<p><strong>Bring</strong> boots.</p>");
        (await ada.GetAsync("/api/bookings")).GetProperty("rows").GetArrayLength().ShouldBe(0);
        (
            await (await ada.PostAsync(path + "/as-guest/bookings", Wish("2026-12-08T08:00:00Z", " "))).FaultsAsync()
        ).Keys.ShouldBe(["guest.name"]);
        (
            await (await ada.PostAsync(path + "/as-guest/bookings", Wish("2026-12-08T20:00:00Z"))).ReadAsync(
                HttpStatusCode.Conflict
            )
        )
            .GetProperty("nearest")
            .GetArrayLength()
            .ShouldBeGreaterThan(0);
    }

    private Task<JsonElement> GuestAsync(Coordinator ada, string address) =>
        world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{address}");

    private async Task<(Coordinator Ada, string Path, string Address)> PublishedAsync()
    {
        var ada = await world.SignUpAsync();
        var address = await ada.PublishAsync();
        return (ada, $"/api/pages/{(await ada.PagesAsync())[0].GetProperty("id").GetGuid()}", address);
    }
}
