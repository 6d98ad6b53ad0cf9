using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// Lists are read run by run: none of their rows is left out or shown twice, whatever changes meanwhile, and a run
/// costs the database the same however much there is.
/// </summary>
public class ListTests(World world)
{
    [Fact]
    public async Task Bookings_come_run_by_run_in_one_order_there_and_back()
    {
        var (ada, page) = await BookedAsync(7);
        await AskForAnotherTimeAsync(ada, "Guest 3");
        var all = Names(await ada.GetAsync("/api/bookings?take=100"));
        all.ShouldBe(["Guest 3", "Guest 0", "Guest 1", "Guest 2", "Guest 4", "Guest 5", "Guest 6"]);

        var (there, last) = await WalkAsync(ada, "/api/bookings?take=2", "after");
        there.SelectMany(run => run).ShouldBe(all);
        there.Select(run => run.Count).ShouldBe([2, 2, 2, 1]);
        var (back, _) = await WalkAsync(ada, $"/api/bookings?take=2&before={Place(last, "before")}", "before");
        back.AsEnumerable().Reverse().SelectMany(run => run).ShouldBe(all.SkipLast(1));

        // Who is searched for comes run by run, too.
        await BookAsync(ada, page, "Wren", "2026-12-08T08:30:00Z");
        (await WalkAsync(ada, "/api/bookings?take=3&search=guest%20", "after"))
            .Runs.SelectMany(run => run)
            .ShouldBe(all);
        (await ada.GetAsync("/api/bookings?take=3&search=guest%20")).GetProperty("total").GetInt32().ShouldBe(7);
    }

    [Fact]
    public async Task What_comes_or_goes_between_two_runs_leaves_none_out_and_shows_none_twice()
    {
        var (ada, page) = await BookedAsync(5);
        var first = await ada.GetAsync("/api/bookings?take=2");
        Names(first).ShouldBe(["Guest 0", "Guest 1"]);
        // One that was shown is cancelled, the very last of the run, and another comes before them all.
        var gone = first.GetProperty("rows")[1].GetProperty("id").GetGuid();
        (await ada.PostAsync($"/api/bookings/{gone}/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        await BookAsync(ada, page, "Early", "2026-12-08T08:00:00Z");
        var second = await ada.GetAsync($"/api/bookings?take=2&after={Place(first, "after")}");
        Names(second).ShouldBe(["Guest 2", "Guest 3"]);
        Names(await ada.GetAsync($"/api/bookings?take=9&before={Place(second, "before")}"))
            .ShouldBe(["Early", "Guest 0"]);
        Names(await ada.GetAsync("/api/bookings?when=cancelled")).ShouldBe(["Guest 1"]);
    }

    [Fact]
    public async Task A_run_whose_rows_are_all_gone_leads_back()
    {
        var (ada, _) = await BookedAsync(3);
        var first = await ada.GetAsync("/api/bookings?take=2");
        var last = (await ada.GetAsync("/api/bookings")).GetProperty("rows")[2].GetProperty("id").GetGuid();
        await ada.PostAsync($"/api/bookings/{last}/cancel", new { word = "" });
        var second = await ada.GetAsync($"/api/bookings?take=2&after={Place(first, "after")}");
        (Names(second).Count, second.GetProperty("total").GetInt32()).ShouldBe((0, 2));
        second.GetProperty("after").ValueKind.ShouldBe(JsonValueKind.Null);
        Names(await ada.GetAsync($"/api/bookings?take=2&before={Place(second, "before")}")).ShouldBe(["Guest 0"]);
    }

    [Theory]
    [InlineData("/api/bookings")]
    [InlineData("/api/bookings?when=past")]
    [InlineData("/api/bookings?when=cancelled")]
    [InlineData("/api/links")]
    [InlineData("/api/post")]
    [InlineData("/api/pages")]
    [InlineData("/api/load")]
    public async Task A_place_that_was_never_told_of_is_refused_by_its_name(string path)
    {
        var ada = await world.SignUpAsync();
        var with = path + (path.Contains('?', StringComparison.Ordinal) ? "&" : "?");
        string[] odd =
        [
            "nonsense",
            Coded("""{"Block":9,"Value":"2026-12-08","Id":"00000000-0000-0000-0000-000000000000"}"""),
            Coded("""{"Block":0,"Value":null,"Id":"00000000-0000-0000-0000-000000000000"}"""),
            Coded("[]"),
        ];
        foreach (var place in odd)
            (await (await ada.Http.GetAsync($"{with}after={place}")).FaultsAsync()).Keys.ShouldBe(["after"]);
        (await (await ada.Http.GetAsync($"{with}before=nonsense")).FaultsAsync()).Keys.ShouldBe(["before"]);
    }

    [Fact]
    public async Task A_place_whose_time_is_none_is_refused()
    {
        var ada = await world.SignUpAsync();
        var odd = Coded("""{"Block":0,"Value":"soon","Id":"00000000-0000-0000-0000-000000000000"}""");
        foreach (var path in new[] { "/api/bookings", "/api/links", "/api/post" })
            (await (await ada.Http.GetAsync($"{path}?after={odd}")).FaultsAsync()).Keys.ShouldBe(["after"]);
        // What only some read as a time, and what no text is.
        var early = Coded("""{"Block":0,"Value":"8 Dec 2026 1 PM","Id":"00000000-0000-0000-0000-000000000000"}""");
        await ada.GetAsync($"/api/bookings?after={early}");
        var nothing = Coded("""{"Block":0,"Value":"\u0000","Id":"00000000-0000-0000-0000-000000000000"}""");
        (await (await ada.Http.GetAsync($"/api/pages?after={nothing}")).FaultsAsync()).Keys.ShouldBe(["after"]);
    }

    [Fact]
    public async Task Pages_come_by_title_with_what_was_changed_and_archived_ones_apart()
    {
        var ada = await world.SignUpAsync();
        foreach (var title in new[] { "Keel talk", "Anchor talk", "Mast talk", "Bow talk" })
            await ada.PublishAsync(draft => draft.Title = title);
        var (runs, _) = await WalkAsync(ada, "/api/pages?take=3", "after", "title");
        runs.ShouldBe([
            ["Anchor talk", "Bow talk", "Keel talk"],
            ["Mast talk"],
        ]);

        var mast = await ada.GetAsync("/api/pages?search=mast");
        var id = mast.GetProperty("rows")[0].GetProperty("id").GetGuid();
        await ada.PostAsync($"/api/pages/{id}/archive", new { version = 2 });
        var left = await ada.GetAsync("/api/pages");
        (left.GetProperty("total").GetInt32(), left.GetProperty("archived").GetInt32()).ShouldBe((3, 1));
        Names(await ada.GetAsync("/api/pages?archived=true"), "title").ShouldBe(["Mast talk"]);
        (await ada.GetAsync("/api/pages/names"))
            .EnumerateArray()
            .Select(page => page.GetProperty("title").GetString())
            .ShouldBe(["Anchor talk", "Bow talk", "Keel talk"]);

        // What waits to be published is what the team reads.
        var bow = left.GetProperty("rows")[1].GetProperty("id").GetGuid();
        var form = (await ada.GetAsync($"/api/pages/{bow}")).GetProperty("form");
        var address = form.GetProperty("address").GetString()!;
        await (
            await ada.PutAsync(
                $"/api/pages/{bow}",
                new
                {
                    version = 2,
                    form = ada.Draft(draft => (draft.Title, draft.Address) = ("Stern talk", address)).Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        var found = await ada.GetAsync("/api/pages?search=stern");
        Names(found, "title").ShouldBe(["Stern talk"]);
        found.GetProperty("rows")[0].GetProperty("hasDraft").GetBoolean().ShouldBeTrue();
    }

    [Fact]
    public async Task A_hosts_pages_are_those_with_office_hours_and_a_seat_of_theirs()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync();
        var of = await ada.GetAsync($"/api/pages/of-host/{ada.HostId}");
        (of.GetProperty("deskId").GetGuid(), of.GetProperty("withBlocks").GetArrayLength()).ShouldBe((ada.DeskId, 0));
        var nobody = await ada.GetAsync($"/api/pages/of-host/{Guid.NewGuid()}");
        nobody.GetProperty("deskId").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_desk_shows_its_guests_thirty_pages_at_once_and_the_others_on_asking()
    {
        var ada = await world.SignUpAsync();
        for (var i = 0; i < 31; i++)
            await ada.PublishAsync(draft => draft.Title = $"Talk {i:00}");
        var guest = world.Guest();
        var path = $"/api/public/desks/{ada.Desk}";
        var first = await guest.GetFromJsonAsync<JsonElement>(path);
        first.GetProperty("pages").GetArrayLength().ShouldBe(30);
        var second = await guest.GetFromJsonAsync<JsonElement>($"{path}?after={Place(first, "after")}");
        Names(second, "title", "pages").ShouldBe(["Talk 30"]);
        second.GetProperty("after").ValueKind.ShouldBe(JsonValueKind.Null);
        (await (await guest.GetAsync(path + "?after=nonsense")).FaultsAsync()).Keys.ShouldBe(["after"]);
    }

    [Fact]
    public async Task Load_comes_by_hosts_and_each_has_its_share_of_all()
    {
        var ada = await world.SignUpAsync();
        for (var i = 0; i < 2; i++)
            await (await ada.PostAsync("/api/hosts", Scene.Room)).ReadAsync(HttpStatusCode.Created);
        var first = await ada.GetAsync("/api/load?take=2");
        (first.GetProperty("total").GetInt32(), first.GetProperty("hosts").GetArrayLength()).ShouldBe((3, 2));
        var rest = await ada.GetAsync($"/api/load?take=2&after={Place(first, "after")}");
        rest.GetProperty("hosts").GetArrayLength().ShouldBe(1);
        first
            .GetProperty("hosts")
            .EnumerateArray()
            .Concat(rest.GetProperty("hosts").EnumerateArray())
            .Sum(host => host.GetProperty("share").GetDouble())
            .ShouldBe(1);
    }

    [Fact]
    public async Task A_run_costs_as_many_round_trips_of_many_rows_as_of_one()
    {
        using var trips = new RoundTrips();
        var one = await CostsAsync(trips, 1);
        var twelve = await CostsAsync(trips, 12);
        foreach (var (path, cost) in one)
            twelve[path].ShouldBe(cost, path);
    }

    private async Task<Dictionary<string, int>> CostsAsync(RoundTrips trips, int count)
    {
        var (ada, _) = await BookedAsync(count);
        for (var i = 0; i < count; i++)
        {
            await ada.MakeLinkAsync();
            await ada.PublishAsync();
            await (await ada.PostAsync("/api/hosts", Scene.Room)).ReadAsync(HttpStatusCode.Created);
        }

        await world.LookAsync(db => db.Messages.AnyAsync());
        string[] paths =
        [
            "/api/bookings",
            "/api/bookings?search=guest",
            "/api/links",
            "/api/links?search=talk",
            "/api/pages",
            "/api/post",
            "/api/load",
            "/api/hours",
            "/api/hosts",
            "/api/board?from=2026-12-07&days=14",
            $"/api/public/desks/{ada.Desk}",
        ];
        var costs = new Dictionary<string, int>();
        foreach (var path in paths)
        {
            // What is asked once for each program is not counted.
            await ada.GetAsync(path);
            var asked = await trips.OfAsync(ada.Http, new HttpRequestMessage(HttpMethod.Get, path), HttpStatusCode.OK);
            costs[path.Replace(ada.Desk, "desk", StringComparison.Ordinal)] = asked.Count;
        }

        return costs;
    }

    private async Task<(Coordinator Ada, string Page)> BookedAsync(int count)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        for (var i = 0; i < count; i++)
            await BookAsync(ada, page, $"Guest {i}", $"2026-12-{9 + i / 6:00}T{8 + i % 6 / 2:00}:{i % 2 * 30:00}:00Z");
        return (ada, page);
    }

    private async Task BookAsync(Coordinator ada, string page, string name, string start) =>
        (
            await world
                .Guest()
                .BookAsync(ada.Desk, page, start, name: name, email: World.Unique("mail") + "@wren.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);

    private async Task AskForAnotherTimeAsync(Coordinator ada, string guest) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Bookings.Where(row => row.GuestName == guest)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.Reply, GuestReply.Declined))
        );

    /// <summary>Run after run as the last one told, and the answer that ended it.</summary>
    private static async Task<(List<IReadOnlyList<string>> Runs, JsonElement Last)> WalkAsync(
        Coordinator ada,
        string path,
        string way,
        string of = "guestName"
    )
    {
        var runs = new List<IReadOnlyList<string>>();
        var answer = await ada.GetAsync(path);
        var start = path.Split($"&{way}=")[0];
        while (true)
        {
            runs.Add(Names(answer, of));
            if (answer.GetProperty(way).ValueKind == JsonValueKind.Null)
                return (runs, answer);
            answer = await ada.GetAsync($"{start}&{way}={Place(answer, way)}");
        }
    }

    private static IReadOnlyList<string> Names(JsonElement answer, string of = "guestName", string rows = "rows") =>
        [.. answer.GetProperty(rows).EnumerateArray().Select(row => row.GetProperty(of).GetString()!)];

    private static string Place(JsonElement answer, string way) => answer.GetProperty(way).GetString()!;

    private static string Coded(string text) =>
        Convert
            .ToBase64String(System.Text.Encoding.UTF8.GetBytes(text))
            .Replace('+', '-')
            .Replace('/', '_')
            .TrimEnd('=');
}
