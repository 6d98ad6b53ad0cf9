using LooseLantern.Server.Data.Model;
using static Server.Tests.GroupScene;

namespace Server.Tests;

/// <summary>Bookings are found by what is known of them, put in order, saved as views and taken out as files.</summary>
public sealed class BookingListTests(World world)
{
    private const string HalfPastNine = "2026-12-08T08:30:00Z";
    private const string Thursday = "2026-12-10T08:00:00Z";

    [Fact]
    public async Task Each_condition_finds_what_it_says_and_dates_are_the_workspaces()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var (ada, desk) = (scene.Owner, scene.Owner.Desk);
        (
            await ada.PutAsync(
                "/api/workspace",
                new
                {
                    name = "Yard",
                    zone = "Europe/Copenhagen",
                    kinds = new[] { "Surveys" },
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var own = await ada.PublishAsync(draft =>
        {
            draft.Title = "Zinc talk";
            draft.Details = PageDetails.Usual with { Naming = new PageNaming("", "Surveys", null) };
        });
        var bos = await ada.PublishAsync(draft => (draft.HostId, draft.Title) = (bo.HostId, "Anode talk"));
        await BookAsync(desk, own, Nine, "Wilma Ash");
        await BookAsync(desk, own, Thursday, "Bryn Ashby");
        await BookAsync(desk, bos, HalfPastNine, "Osric Pell");
        var guest = (await ada.GetAsync("/api/bookings?search=osric")).GetProperty("rows")[0].GetProperty("guestId");

        (await GuestsAsync(ada, "")).ShouldBe(["Wilma Ash", "Osric Pell", "Bryn Ashby"]);
        (await GuestsAsync(ada, $"?host={bo.HostId}")).ShouldBe(["Osric Pell"]);
        (await GuestsAsync(ada, $"?page={await PageIdAsync(ada, "Anode talk")}")).ShouldBe(["Osric Pell"]);
        (await GuestsAsync(ada, $"?guest={guest}")).ShouldBe(["Osric Pell"]);
        (await GuestsAsync(ada, $"?keeper={ada.PersonId}")).ShouldBeEmpty();
        (await GuestsAsync(ada, "?withoutKeeper=true&state=confirmed")).Count.ShouldBe(3);
        (await GuestsAsync(ada, "?flagged=true")).ShouldBeEmpty();
        (await GuestsAsync(ada, "?kind=Surveys")).ShouldBe(["Wilma Ash", "Bryn Ashby"]);
        (await GuestsAsync(ada, "?from=2026-12-09")).ShouldBe(["Bryn Ashby"]);
        (await GuestsAsync(ada, "?to=2026-12-08")).ShouldBe(["Wilma Ash", "Osric Pell"]);
        (await GuestsAsync(ada, $"?search=ash&host={ada.HostId}&from=2026-12-08&to=2026-12-08")).ShouldBe([
            "Wilma Ash",
        ]);
        (await GuestsAsync(ada, "?order=latest")).ShouldBe(["Bryn Ashby", "Osric Pell", "Wilma Ash"]);
        (await GuestsAsync(ada, "?order=guest&when=all")).ShouldBe(["Bryn Ashby", "Osric Pell", "Wilma Ash"]);
        (await GuestsAsync(ada, "?order=page&when=all")).ShouldBe(["Osric Pell", "Wilma Ash", "Bryn Ashby"]);

        var moved = (await ada.GetAsync("/api/bookings?search=wilma")).GetProperty("rows")[0].Id();
        (await ada.PostAsync($"/api/bookings/{moved}/move", new { start = Ten })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await GuestsAsync(ada, "?state=moved")).ShouldBe(["Wilma Ash"]);
        (await ada.PostAsync($"/api/bookings/{moved}/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await GuestsAsync(ada, "?when=cancelled&order=soonest&search=zinc")).ShouldBe(["Wilma Ash"]);
        (await GuestsAsync(ada, $"?when=cancelled&host={bo.HostId}")).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_day_is_that_of_whoever_reads()
    {
        var scene = await MakeAsync(world);
        // At nine in Copenhagen it is the evening before in Honolulu.
        await scene.BookAsync("Ottilie Wren");
        (await GuestsAsync(scene.Ada, "?from=2026-12-08&to=2026-12-08")).ShouldBe(["Ottilie Wren"]);
        await (
            await scene.Ada.PutAsync(
                "/api/me/profile",
                new
                {
                    name = "Ada Wharf",
                    line = "",
                    zone = "Pacific/Honolulu",
                    language = "en",
                    clock = "h24",
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await GuestsAsync(scene.Ada, "?from=2026-12-08&to=2026-12-08")).ShouldBeEmpty();
        (await GuestsAsync(scene.Ada, "?from=2026-12-07&to=2026-12-07")).ShouldBe(["Ottilie Wren"]);
    }

    [Theory]
    [InlineData("?from=8.12.", "from")]
    [InlineData("?from=2026-12-09&to=2026-12-08", "to")]
    [InlineData("?when=soon", "when")]
    [InlineData("?state=1", "state")]
    [InlineData("?order=sideways", "order")]
    public async Task What_can_not_be_asked_is_refused_by_its_name(string query, string field)
    {
        var ada = await world.SignUpAsync();
        (await (await ada.Http.GetAsync("/api/bookings" + query)).FaultsAsync()).Keys.ShouldBe([field]);
        (await (await ada.Http.GetAsync("/api/bookings/export.csv" + query)).FaultsAsync()).Keys.ShouldBe([field]);
    }

    [Fact]
    public async Task In_every_order_runs_follow_one_another_and_of_a_group_only_who_is_meant_is_shown()
    {
        var scene = await MakeAsync(world);
        foreach (var name in new[] { "Ottilie Wren", "Prosper Dunn", "Osric Pell" })
            await scene.BookAsync(name);
        await scene.BookAsync("Bryn Ashby", at: Ten);
        foreach (var order in new[] { "usual", "soonest", "latest", "newest", "guest", "page" })
        {
            var whole = await GuestsAsync(scene.Ada, $"?order={order}&take=9");
            var (first, second) = (
                await scene.Ada.GetAsync($"/api/bookings?order={order}&take=1"),
                await scene.Ada.GetAsync(
                    $"/api/bookings?order={order}&take=1&after={(await scene.Ada.GetAsync($"/api/bookings?order={order}&take=1")).Text("after")}"
                )
            );
            Names(first).Concat(Names(second)).ShouldBe(whole, order);
            whole.Count.ShouldBe(4, order);
            second.GetProperty("after").ValueKind.ShouldBe(JsonValueKind.Null);
        }

        (await GuestsAsync(scene.Ada, "?order=newest"))[0].ShouldBe("Bryn Ashby");
        var osric = (await scene.Ada.GetAsync("/api/bookings?search=osric")).GetProperty("rows")[0];
        (await GuestsAsync(scene.Ada, $"?guest={osric.Text("guestId")}")).ShouldBe(["Osric Pell"]);
    }

    [Fact]
    public async Task What_becomes_of_a_booking_is_noted_and_found_once_it_has_begun()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var ada = await own.World.SignUpAsync();
        var page = await ada.PublishAsync();
        foreach (var (start, name) in new[] { (Nine, "Wilma Ash"), (HalfPastNine, "Bryn Ashby"), (Ten, "Osric Pell") })
            await own.World.Guest().BookAsync(ada.Desk, page, start, name: name);
        var rows = (await ada.GetAsync("/api/bookings")).GetProperty("rows").EnumerateArray().ToList();
        var (wilma, bryn) = (rows[0].Id(), rows[1].Id());
        (await (await OutcomeAsync(ada, wilma, "happened")).ReadAsync(HttpStatusCode.Conflict))
            .Text("type")
            .ShouldBe("urn:loose-lantern:not-begun");

        own.World.Clock.Advance(Duration.FromDays(3));
        (await OutcomeAsync(ada, wilma, "happened")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await OutcomeAsync(ada, bryn, "missed")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await GuestsAsync(ada, "?when=past&state=happened")).ShouldBe(["Wilma Ash"]);
        (await GuestsAsync(ada, "?when=past&state=missed")).ShouldBe(["Bryn Ashby"]);
        (await GuestsAsync(ada, "?when=all&state=notNoted")).ShouldBe(["Osric Pell"]);
        (await ada.Http.GetStringAsync("/api/bookings/export.csv?when=past&state=missed")).ShouldContain(",missed,");
        (await ada.GetAsync($"/api/bookings/{bryn}"))
            .GetProperty("done")[0]
            .Text("what")
            .ShouldBe("Noted that Bryn Ashby did not come");
        (await OutcomeAsync(ada, bryn, "none")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await GuestsAsync(ada, "?when=past&state=notNoted")).ShouldBe(["Osric Pell", "Bryn Ashby"]);
    }

    [Fact]
    public async Task A_view_is_saved_for_the_whole_team_replaced_by_name_and_deleted()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        foreach (var state in new[] { "moved", "confirmed" })
            await (
                await scene.Owner.PutAsync("/api/bookings/views", new { name = "Standing", filter = new { state } })
            ).ReadAsync(HttpStatusCode.OK);
        // Those of guests are others.
        await scene.Owner.PutAsync("/api/guests/views", new { name = "Standing", filter = new { } });
        var view = (await bo.GetAsync("/api/bookings/views")).EnumerateArray().ShouldHaveSingleItem();
        (view.Text("name"), view.GetProperty("filter").Text("state")).ShouldBe(("Standing", "confirmed"));
        (
            await (
                await scene.Owner.PutAsync(
                    "/api/bookings/views",
                    new { name = "Odd", filter = new { from = "2026-12-09", to = "2026-12-08" } }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["to"]);
        (await scene.Owner.DeleteAsync($"/api/bookings/views/{view.Id()}")).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await bo.GetAsync("/api/bookings/views")).GetArrayLength().ShouldBe(0);
        (await bo.GetAsync("/api/guests/views")).GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task What_is_shown_goes_out_as_a_calendar_with_one_event_a_session()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren");
        await scene.BookAsync("Prosper Dunn");
        await scene.BookAsync("Bryn Ashby", at: Ten);
        var file = await scene.Ada.Http.GetStringAsync("/api/bookings/export.ics");
        file.ShouldStartWith("BEGIN:VCALENDAR");
        (file.Split("BEGIN:VEVENT").Length - 1).ShouldBe(2);
        file.ShouldContain("DTSTART:20261208T080000Z");
        (await scene.Ada.Http.GetStringAsync("/api/bookings/export.ics?search=bryn")).ShouldNotContain(
            "DTSTART:20261208T080000Z"
        );
        (await (await scene.Ada.Http.GetAsync("/api/bookings/export.ics?when=cancelled")).FaultsAsync()).Keys.ShouldBe([
            "when",
        ]);
    }

    private Task BookAsync(string desk, string page, string start, string name) =>
        world.Guest().BookAsync(desk, page, start, name: name, email: EmailOf(name));

    private static Task<HttpResponseMessage> OutcomeAsync(Coordinator who, Guid booking, string outcome) =>
        who.PutAsync($"/api/bookings/{booking}/outcome", new { outcome });

    private static async Task<Guid> PageIdAsync(Coordinator ada, string title) =>
        (await ada.GetAsync("/api/pages/names")).EnumerateArray().Single(page => page.Text("title") == title).Id();

    private static async Task<List<string>> GuestsAsync(Coordinator ada, string query) =>
        Names(await ada.GetAsync("/api/bookings" + query));

    private static List<string> Names(JsonElement list) =>
        [.. list.GetProperty("rows").EnumerateArray().Select(row => row.Text("guestName"))];
}
