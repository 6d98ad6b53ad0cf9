using System.Text.Json.Nodes;
using LooseLantern.Server.Data.Model;
using SkiaSharp;

namespace Server.Tests;

/// <summary>Desks as guests see them, and pages handed on.</summary>
public class DeskTests(World world)
{
    [Fact]
    public async Task A_desk_lists_the_pages_that_are_meant_to_be_seen()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync(page => (page.Title, page.Description) = ("Seen", "First line.\n\nSecond."));
        await ada.PublishAsync(page =>
            (page.Title, page.Details) = (
                "By its address only",
                PageDetails.Usual with
                {
                    Face = PageDetails.Usual.Face with { IsListed = false },
                }
            )
        );
        await ada.PostAsync("/api/pages", ada.Draft(page => page.Title = "A draft").Form());
        await ChangeAsync(ada, intro: "We **build** boats.");

        var desk = await SeeAsync(ada.Desk);
        desk.GetProperty("pages")
            .EnumerateArray()
            .Select(page => (page.GetProperty("title").GetString(), page.GetProperty("intro").GetString()))
            .ShouldBe([("Seen", "First line.")]);
        desk.GetProperty("intro").GetString().ShouldBe("<p>We <strong>build</strong> boats.</p>");
        (await world.Guest().GetAsync("/api/public/desks/nobody-here")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_persons_desk_lists_the_pages_on_which_they_have_a_seat()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        await scene.Owner.PublishAsync(page =>
            (page.Title, page.Seats) = (
                "Together",
                [
                    [scene.Owner.HostId],
                    [bo.HostId],
                ]
            )
        );
        await scene.Owner.PublishAsync(page => page.Title = "Ada alone");
        var address = World.Unique("bo");
        await (
            await scene.Owner.PostAsync(
                "/api/desks",
                new
                {
                    address,
                    name = "Bo Keel",
                    hostId = bo.HostId,
                }
            )
        ).ReadAsync(HttpStatusCode.Created);
        (await SeeAsync(address))
            .GetProperty("pages")
            .EnumerateArray()
            .Select(page => page.GetProperty("title").GetString())
            .ShouldBe(["Together"]);
        (
            await (
                await scene.Owner.PostAsync(
                    "/api/desks",
                    new
                    {
                        address,
                        name = "Again",
                        hostId = (Guid?)null,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["address"]);
        (
            await (
                await scene.Owner.PostAsync(
                    "/api/desks",
                    new
                    {
                        address = "embed",
                        name = "Kept",
                        hostId = (Guid?)null,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["address"]);
    }

    [Theory]
    [InlineData("name", " ", "", "", "")]
    [InlineData("accent", "Desk", "#ffe9bd", "", "")]
    [InlineData("hostName", "Desk", "", "not a host", "")]
    [InlineData("framers[0]", "Desk", "", "", "https://yard.example/path")]
    [InlineData("framers[0]", "Desk", "", "", "http://yard.example")]
    [InlineData("framers[0]", "Desk", "", "", "https://yard.example; script-src *")]
    public async Task A_bad_field_of_a_desk_is_named(
        string field,
        string name,
        string accent,
        string hostName,
        string framer
    )
    {
        var ada = await world.SignUpAsync();
        var answer = await ada.PutAsync(
            $"/api/desks/{ada.DeskId}",
            new
            {
                name,
                intro = "",
                accent,
                hostName,
                framers = framer.Length == 0 ? [] : new[] { framer },
                hostId = (Guid?)null,
            }
        );
        (await answer.FaultsAsync()).Keys.ShouldBe([field]);
    }

    [Fact]
    public async Task A_picture_is_made_anew_and_cut_to_shape_and_what_is_none_is_refused()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        (
            await ada.UploadAsync(HttpMethod.Put, $"/api/desks/{ada.DeskId}/pictures/logo", Png(40, 20))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (
            await ada.UploadAsync(HttpMethod.Put, $"/api/desks/{ada.DeskId}/pictures/banner", Png(300, 300))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        var desk = await SeeAsync(ada.Desk);
        (await SizeAsync(desk.GetProperty("logo").GetString()!, "image/png")).ShouldBe((256, 256));
        (await SizeAsync(desk.GetProperty("banner").GetString()!, "image/jpeg")).ShouldBe((1600, 600));
        // A page wears its desk's picture until it has its own.
        var before = (await GuestAsync(ada, page)).GetProperty("banner").GetString();
        before.ShouldBe(desk.GetProperty("banner").GetString());
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        (await ada.UploadAsync(HttpMethod.Put, $"/api/pages/{id}/picture", Png(30, 30))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await SizeAsync((await GuestAsync(ada, page)).GetProperty("banner").GetString()!, "image/jpeg")).ShouldBe(
            (1600, 600)
        );

        (
            await (
                await ada.UploadAsync(
                    HttpMethod.Put,
                    $"/api/desks/{ada.DeskId}/pictures/logo",
                    "GIF89a nothing"u8.ToArray()
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["file"]);
        (
            await (
                await ada.UploadAsync(
                    HttpMethod.Put,
                    $"/api/desks/{ada.DeskId}/pictures/logo",
                    [.. Png(40, 20).Take(60)]
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["file"]);
        (await ada.DeleteAsync($"/api/desks/{ada.DeskId}/pictures/logo")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await SeeAsync(ada.Desk)).GetProperty("logo").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_desk_names_who_may_show_its_pages_in_a_frame_and_screens_run_no_scripts_but_ours()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        async Task<string> PolicyAsync(string path) =>
            (await world.Guest().GetAsync(path)).Headers.GetValues("Content-Security-Policy").Single();
        (await PolicyAsync($"/{ada.Desk}/{page}")).ShouldEndWith("frame-ancestors 'self'");
        await ChangeAsync(ada, framers: "https://www.yard.example");
        var policy = await PolicyAsync($"/{ada.Desk}/{page}");
        policy.ShouldEndWith("frame-ancestors 'self' https://www.yard.example");
        policy.ShouldContain("script-src 'self' 'sha256-");
        policy.ShouldNotContain("script-src 'self' 'unsafe");
        (await PolicyAsync("/work/pages")).ShouldEndWith("frame-ancestors 'self'");
        (await PolicyAsync($"/api/public/desks/{ada.Desk}")).ShouldBe("default-src 'none'; frame-ancestors 'none'");
    }

    [Fact]
    public async Task A_desk_answers_at_a_host_name_of_its_own_once_that_is_proven()
    {
        await using var names = new NameServer();
        await using var site = new LanternApp(world.ConnectionString, world.Clock)
        {
            OnlyAnswers = true,
            NameServer = names.Address,
        };
        var (ada, eve) = (await world.SignUpAsync(), await world.SignUpAsync());
        var page = await ada.PublishAsync();
        var name = $"{World.Unique("booking")}.yard.example";
        async Task<string?> LeadsAsync(string path)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, path);
            request.Headers.Host = name;
            return (await world.Guest().SendAsync(request)).Headers.Location?.ToString();
        }

        async Task<Coordinator> ThereAsync(Coordinator who)
        {
            var there = new Coordinator(site.CreateClient(), who.Desk);
            await (
                await there.PostAsync(
                    "/api/sign-in",
                    new { email = $"ada@{who.Desk}.example", password = "harbour at first light" }
                )
            ).ReadAsync(HttpStatusCode.NoContent);
            there.ForgetToken();
            return there;
        }

        var (adaThere, eveThere) = (await ThereAsync(ada), await ThereAsync(eve));
        Task<HttpResponseMessage> ProveAsync(Coordinator who, Guid desk) =>
            who.PostAsync($"/api/desks/{desk}/host-name-proof", new { });
        (await ProveAsync(adaThere, ada.DeskId)).StatusCode.ShouldBe(HttpStatusCode.Conflict);

        // Whoever only claims it gets nothing of it, and keeps nobody from it.
        await ChangeAsync(eve, hostName: name);
        await ChangeAsync(ada, hostName: name.ToUpperInvariant());
        var asked = (await ada.GetAsync("/api/desks"))[0].GetProperty("hostNameProof");
        asked.GetProperty("record").GetString().ShouldBe($"_loose-lantern.{name}");
        (await LeadsAsync("/")).ShouldBeNull();
        (await ProveAsync(adaThere, ada.DeskId)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);

        names.Texts[asked.GetProperty("record").GetString()!] = asked.GetProperty("text").GetString()!;
        (await ProveAsync(eveThere, eve.DeskId)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await (await ProveAsync(adaThere, ada.DeskId)).ReadAsync(HttpStatusCode.OK))
            .GetProperty("hostNameProof")
            .GetProperty("since")
            .GetString()
            .ShouldBe("2026-12-07T07:00:00Z");
        (await LeadsAsync("/")).ShouldBe($"/{ada.Desk}");
        (await LeadsAsync($"/{page}?for=x")).ShouldBe($"/{ada.Desk}/{page}?for=x");
        (await LeadsAsync("/sign-in")).ShouldBeNull();
        (await LeadsAsync($"/{ada.Desk}/{page}")).ShouldBeNull();

        // What is saved beside it leaves it proven; another desk can't have it, nor claim it anew.
        await ChangeAsync(ada, "Hello", name);
        (await LeadsAsync("/")).ShouldBe($"/{ada.Desk}");
        names.Texts[$"_loose-lantern.{name}"] = await MarkAsync(eve);
        (await ProveAsync(eveThere, eve.DeskId)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        await ChangeAsync(eve);
        (await (await eve.PutAsync($"/api/desks/{eve.DeskId}", Form(hostName: name))).FaultsAsync()).Keys.ShouldBe([
            "hostName",
        ]);
    }

    private static async Task<string> MarkAsync(Coordinator who) =>
        (await who.GetAsync("/api/desks"))[0].GetProperty("hostNameProof").GetProperty("text").GetString()!;

    [Fact]
    public async Task The_sites_own_host_name_is_no_desks()
    {
        var ada = await world.SignUpAsync();
        await using var site = new LanternApp(world.ConnectionString, world.Clock)
        {
            OnlyAnswers = true,
            PublicAddress = "https://site.yard.example",
        };
        var there = new Coordinator(site.CreateClient(), ada.Desk);
        await (
            await there.PostAsync(
                "/api/sign-in",
                new { email = $"ada@{ada.Desk}.example", password = "harbour at first light" }
            )
        ).ReadAsync(HttpStatusCode.NoContent);
        there.ForgetToken();
        (
            await (await there.PutAsync($"/api/desks/{ada.DeskId}", Form(hostName: "Site.yard.example"))).FaultsAsync()
        ).Keys.ShouldBe(["hostName"]);
    }

    [Fact]
    public async Task Words_without_a_space_are_cut_between_characters()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync(page => page.Description = new string('木', 159) + "🛶🛶");
        (await SeeAsync(ada.Desk))
            .GetProperty("pages")[0]
            .GetProperty("intro")
            .GetString()
            .ShouldBe(new string('木', 159) + " …");
    }

    [Fact]
    public async Task Pictures_set_at_once_leave_one_and_a_banner_has_white_behind_it()
    {
        var ada = await world.SignUpAsync();
        await ada.PutAsync($"/api/desks/{ada.DeskId}", Form());
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    ada.UploadAsync(
                        HttpMethod.Put,
                        $"/api/desks/{ada.DeskId}/pictures/banner",
                        Png(32, 12, SKColors.Transparent)
                    )
                )
        );
        answers.ShouldAllBe(answer => answer.StatusCode == HttpStatusCode.NoContent);
        using var picture = SKBitmap.Decode(
            await world.Guest().GetByteArrayAsync((await SeeAsync(ada.Desk)).GetProperty("banner").GetString())
        );
        picture.GetPixel(800, 300).ShouldBe(SKColors.White);
    }

    [Fact]
    public async Task A_personal_address_fills_a_guests_fields_and_nothing_else_does()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        (
            await world
                .Guest()
                .BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z", name: "Ottilie Wren", email: "ottilie@wren.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        var path = (
            await (
                await ada.PostAsync(
                    $"/api/pages/{id}/personal-addresses",
                    new { name = "Ottilie Wren", email = "ottilie@wren.example" }
                )
            ).ReadAsync(HttpStatusCode.OK)
        )
            .GetProperty("path")
            .GetString()!;
        path.ShouldStartWith($"/{ada.Desk}/{page}?for=");
        path.ShouldNotContain("Ottilie", Case.Insensitive);

        async Task<JsonElement> GuestOfAsync(string secret) =>
            (
                await world
                    .Guest()
                    .GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{page}?for={secret}")
            ).GetProperty("guest");
        (await GuestOfAsync(path.Split('=')[1])).GetProperty("email").GetString().ShouldBe("ottilie@wren.example");
        (await GuestOfAsync("ottilie@wren.example")).ValueKind.ShouldBe(JsonValueKind.Null);
        var other = await ada.PublishAsync();
        (
            await world
                .Guest()
                .GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{other}?for={path.Split('=')[1]}")
        )
            .GetProperty("guest")
            .ValueKind.ShouldBe(JsonValueKind.Null);
        (
            await (
                await ada.PostAsync($"/api/pages/{id}/personal-addresses", new { name = "", email = "none" })
            ).FaultsAsync()
        ).Keys.ShouldBe(["name", "email"]);
    }

    [Fact]
    public async Task The_next_openings_are_text_in_any_zone_and_language_and_lead_to_the_page()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var text = (await ada.GetAsync($"/api/pages/{id}/text?days=2&zone=America/Halifax&language=de"))
            .GetProperty("text")
            .GetString()!;
        text.ShouldContain("Montag, 7. Dezember");
        text.ShouldContain("04:00");
        text.ShouldEndWith($"/{ada.Desk}/{page}");
        (await (await ada.Http.GetAsync($"/api/pages/{id}/text?days=11")).FaultsAsync()).Keys.ShouldBe(["days"]);
        await ada.PostAsync($"/api/pages/{id}/unpublish", new { version = 2 });
        (await ada.Http.GetAsync($"/api/pages/{id}/text")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_copy_is_a_draft_of_its_own_and_an_archived_page_is_open_to_nobody()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.BufferAfter = 25);
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var copy = await (await ada.PostAsync($"/api/pages/{id}/copy", new { })).ReadAsync(HttpStatusCode.Created);
        (
            copy.GetProperty("state").GetString(),
            copy.GetProperty("form").GetProperty("address").GetString(),
            copy.GetProperty("form").GetProperty("times").GetProperty("bufferAfter").GetInt32()
        ).ShouldBe(("draft", page + "-2", 25));
        copy.GetProperty("mark")
            .GetString()
            .ShouldNotBe((await ada.GetAsync($"/api/pages/{id}")).GetProperty("mark").GetString());

        (await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        await (await ada.PostAsync($"/api/pages/{id}/archive", new { version = 2 })).ReadAsync(HttpStatusCode.OK);
        (await world.Guest().GetAsync($"/api/public/desks/{ada.Desk}/pages/{page}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await ada.GetAsync("/api/bookings")).GetProperty("rows").GetArrayLength().ShouldBe(1);
        (await (await ada.PostAsync($"/api/pages/{id}/restore", new { version = 3 })).ReadAsync(HttpStatusCode.OK))
            .GetProperty("state")
            .GetString()
            .ShouldBe("draft");
    }

    [Fact]
    public async Task A_page_goes_out_as_json_and_comes_back_in_another_workspace()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync(draft => (draft.BufferAfter, draft.Durations) = (25, [45, 90]));
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var file = await ada.Http.GetStringAsync($"/api/pages/{id}/export");
        file.ShouldNotContain(ada.HostId.ToString());

        var eve = await world.SignUpAsync();
        var made = await (await ImportAsync(eve, file)).ReadAsync(HttpStatusCode.Created);
        (
            made.GetProperty("state").GetString(),
            made.GetProperty("form").GetProperty("times").GetProperty("bufferAfter").GetInt32()
        ).ShouldBe(("draft", 25));
        made.GetProperty("form")
            .GetProperty("times")
            .GetProperty("lineUp")[0]
            .GetProperty("hostIds")[0]
            .GetGuid()
            .ShouldBe(eve.HostId);
    }

    [Fact]
    public async Task Every_fault_of_a_file_is_named_at_once_and_nothing_is_made()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync();
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var file = JsonNode.Parse(await ada.Http.GetStringAsync($"/api/pages/{id}/export"))!;
        var page = file["page"]!;
        page["title"] = " ";
        page["times"]!["bufferBefore"] = -1;
        page["times"]!["lineUp"]![0]!["hosts"]!.AsArray().Add("Somebody Else");
        (await (await ImportAsync(ada, file.ToJsonString())).FaultsAsync()).Keys.ShouldBe(
            ["page.times.lineUp[0].hosts[1]", "page.title", "page.times.bufferBefore"],
            ignoreOrder: true
        );

        page["desk"] = 7;
        page["times"]!["lineUp"]!.AsArray().Add(null);
        (await (await ImportAsync(ada, file.ToJsonString())).FaultsAsync()).Keys.ShouldContain("page.times.lineUp");
        page["times"]!["step"] = "often";
        (await (await ImportAsync(ada, file.ToJsonString())).FaultsAsync()).Keys.ShouldContain("page.times.step");
        (await (await ImportAsync(ada, "{}")).FaultsAsync()).Keys.ShouldBe(["file"]);
        (await (await ImportAsync(ada, """{"format":1,"version":1,"page":{}}""")).FaultsAsync()).Keys.ShouldBe([
            "file",
        ]);
        (await (await ImportAsync(ada, "no json")).FaultsAsync()).Keys.ShouldBe(["file"]);
        file["version"] = 9;
        (await (await ImportAsync(ada, file.ToJsonString())).FaultsAsync()).Keys.ShouldBe(["version"]);
        (await ada.PagesAsync()).GetArrayLength().ShouldBe(1);
    }

    private static Task<HttpResponseMessage> ImportAsync(Coordinator who, string text) =>
        who.UploadAsync(HttpMethod.Post, "/api/pages/import", System.Text.Encoding.UTF8.GetBytes(text));

    internal static object Form(string intro = "", string hostName = "", params string[] framers) =>
        new
        {
            name = "Desk",
            intro,
            accent = "",
            hostName,
            framers,
            hostId = (Guid?)null,
        };

    private static async Task ChangeAsync(
        Coordinator ada,
        string intro = "",
        string hostName = "",
        params string[] framers
    ) =>
        await (await ada.PutAsync($"/api/desks/{ada.DeskId}", Form(intro, hostName, framers))).ReadAsync(
            HttpStatusCode.OK
        );

    private Task<JsonElement> SeeAsync(string desk) =>
        world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{desk}");

    private Task<JsonElement> GuestAsync(Coordinator ada, string address) =>
        world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{address}");

    private async Task<(int Width, int Height)> SizeAsync(string path, string type)
    {
        var answer = await world.Guest().GetAsync(path);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe(type);
        using var picture = SKBitmap.Decode(await answer.Content.ReadAsByteArrayAsync());
        return (picture.Width, picture.Height);
    }

    internal static byte[] Png(int width, int height, SKColor? colour = null)
    {
        using var bitmap = new SKBitmap(width, height);
        bitmap.Erase(colour ?? SKColors.SeaGreen);
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        return encoded.ToArray();
    }
}
