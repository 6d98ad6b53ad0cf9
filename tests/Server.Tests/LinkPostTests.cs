using LooseLantern.Core.Links;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using static Server.Tests.LinkDraft;

namespace Server.Tests;

/// <summary>
/// Links go out by mail, are asked about again, and their makers hear what needs them; and what links start from.
/// </summary>
public class LinkPostTests(World world)
{
    [Fact]
    public async Task The_mail_bears_each_time_to_press_and_post_opens_no_link()
    {
        await using var scene = await MailScene.MakeAsync();
        var ada = scene.Ada;
        var id = (await ada.MakeLinkAsync(draft => (draft.Picked, draft.GuestLanguage) = ([Nine, Friday], "de")))
            .GetProperty("row")
            .GetProperty("id")
            .GetGuid();

        var sent = await (await ada.PostAsync($"/api/links/{id}/mail", new { word = "Welche passt?" })).ReadAsync(
            HttpStatusCode.OK
        );

        var address = sent.GetProperty("address").GetString()!;
        sent.GetProperty("row").GetProperty("state").GetString().ShouldBe("out");
        // Nobody is written to twice by one press, however often it is asked for.
        foreach (var _ in Enumerable.Range(0, 3))
            await (await ada.PostAsync($"/api/links/{id}/mail", new { word = "Welche passt?" }, "one press")).ReadAsync(
                HttpStatusCode.OK
            );
        (await scene.MessagesAsync(MessageKind.LinkForGuest)).Count.ShouldBe(2);
        var mail = await scene.MailAsync(MailScene.Guest, "Termine für Sie: Hull survey, Larkspur");
        mail.Text.ShouldContain("Welche passt?");
        mail.Text.ShouldContain("Dienstag, 8. Dezember: 08:00–08:30 (09:00–09:30 Copenhagen)");
        mail.Text.ShouldContain(address);
        mail.Html.ShouldContain($"href=\"{address}?at={Friday}\"");
        // Who reads the post sees the message and not the random part of the address.
        var message = (await ada.GetAsync("/api/post"))
            .GetProperty("rows")
            .EnumerateArray()
            .First(row => row.GetProperty("kind").GetString() == "linkForGuest")
            .GetProperty("id")
            .GetGuid();
        var kept = (await ada.GetAsync($"/api/post/{message}")).GetProperty("text").GetString()!;
        kept.ShouldContain("/times/hull-survey-larkspur-");
        var random = address.Split('-')[^1];
        kept.ShouldNotContain(random);
        (
            await scene.World.LookAsync(db =>
                db.Messages.IgnoreQueryFilters()
                    .CountAsync(row => row.Text.Contains(random) || row.Html.Contains(random))
            )
        ).ShouldBe(0);
    }

    [Fact]
    public async Task Whoever_has_not_answered_is_asked_again_and_what_waits_longest_comes_first()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var other = own.World;
        var ada = await other.SignUpAsync();
        var (first, _) = await ada.SendLinkAsync(draft => (draft.Title, draft.Picked) = ("First", [Friday]));
        other.Clock.Advance(Duration.FromHours(2));
        var (second, _) = await ada.SendLinkAsync(draft =>
            (draft.Title, draft.Picked, draft.Guests) = ("Second", [Friday], [new LinkGuest("Osric Pell", "")])
        );
        var draft = await ada.MakeLinkAsync(draft => draft.Title = "Kept");
        other.Clock.Advance(Duration.FromHours(2));
        async Task<string?[]> ListedAsync(string query = "") =>
            [
                .. (await ada.GetAsync("/api/links" + query))
                    .GetProperty("rows")
                    .EnumerateArray()
                    .Select(row => row.GetProperty("title").GetString()),
            ];
        (await ListedAsync()).ShouldBe(["First", "Second", "Kept"]);

        var asked = await (await ada.PostAsync($"/api/links/{first}/ask-again", new { word = "" })).ReadAsync(
            HttpStatusCode.OK
        );

        (
            asked.GetProperty("row").GetProperty("askedAgain").GetInt32(),
            asked.GetProperty("row").GetProperty("waitsSince").GetString()
        ).ShouldBe((1, "2026-12-07T11:00:00Z"));
        (await ListedAsync()).ShouldBe(["Second", "First", "Kept"]);
        (await ListedAsync("?state=draft")).ShouldBe(["Kept"]);
        (await (await ada.Http.GetAsync("/api/links?state=lost")).FaultsAsync()).Keys.ShouldBe(["state"]);
        (await ListedAsync("?search=osric")).ShouldBe(["Second"]);
        // Words may stand apart, in the title and the guest; what stands around a guest's name as it is kept is none.
        (await ListedAsync("?search=PELL%20sec")).ShouldBe(["Second"]);
        (await ListedAsync("?search=wren-charters.example")).ShouldBe(["First", "Kept"]);
        (await ListedAsync("?search=email")).ShouldBeEmpty();
        var start = (await ada.GetAsync("/api/links?take=1")).GetProperty("after").GetString();
        (await ListedAsync($"?take=1&after={start}")).ShouldBe(["First"]);
        (await (await ada.PostAsync($"/api/links/{second}/ask-again", new { word = "" })).FaultsAsync())["guests"]
            .ShouldContain("email");
        (
            await ada.DeleteAsync($"/api/links/{draft.GetProperty("row").GetProperty("id").GetGuid()}")
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await (await ada.DeleteAsync($"/api/links/{first}")).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:out");
    }

    [Fact]
    public async Task Its_maker_hears_once_when_nothing_is_left_and_again_only_after_something_was()
    {
        var ada = await world.SignUpAsync();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var (id, _) = await ada.SendLinkAsync(draft => draft.Picked = [Nine]);
        var page = await ada.PublishAsync();
        Task<int> ToldAsync() =>
            world.WithinAsync(workspace, db => db.Messages.CountAsync(row => row.Kind == MessageKind.NoneLeftForMaker));
        await LookAsync(workspace, id);
        (await ToldAsync()).ShouldBe(0);

        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => LookAsync(workspace, id)));

        (await ToldAsync()).ShouldBe(1);
        var link = await ada.LinkAsync(id);
        link.GetProperty("row").GetProperty("noneLeft").GetBoolean().ShouldBeTrue();
        await (
            await ada.PutAsync(
                $"/api/links/{id}",
                new
                {
                    version = link.GetProperty("version").GetInt32(),
                    form = ada.Link(draft => draft.Picked = [Ten]).Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        await LookAsync(workspace, id);
        (await ada.LinkAsync(id)).GetProperty("row").GetProperty("noneLeft").GetBoolean().ShouldBeFalse();
        (await world.Guest().BookAsync(ada.Desk, page, Ten)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await LookAsync(workspace, id);
        (await ToldAsync()).ShouldBe(2);
    }

    [Fact]
    public async Task Its_maker_hears_soon_after_time_of_its_hosts_is_taken_and_links_of_others_are_not_looked_at_for_that()
    {
        var ada = await world.SignUpAsync();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var room = (await (await ada.PostAsync("/api/hosts", Scene.Room)).ReadAsync(HttpStatusCode.Created))
            .GetProperty("id")
            .GetGuid();
        var (mine, _) = await ada.SendLinkAsync(draft => draft.Picked = [Nine]);
        var (other, _) = await ada.SendLinkAsync(draft =>
            (draft.Picked, draft.Seats) = (
                [Nine],
                [
                    [room],
                ]
            )
        );
        var page = await ada.PublishAsync();
        // The clock stands still here: by itself neither falls due any more.
        var later = world.Clock.GetCurrentInstant() + Duration.FromHours(1);
        Task PutOffAsync() =>
            world.WithinAsync(workspace, db =>
                db.Links.ExecuteUpdateAsync(set => set.SetProperty(row => row.CheckDueAt, later))
            );
        await PutOffAsync();
        // What was noted while all of this was made is over once a booking after it is.
        (await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T10:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        await Outside.AwaitAsync(
            () =>
                world.WithinAsync(workspace, db => db.Links.AnyAsync(row => row.Id == mine && row.CheckDueAt < later)),
            "its link to be looked at"
        );
        await PutOffAsync();

        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);

        await Outside.AwaitAsync(
            () =>
                world.WithinAsync(workspace, db =>
                    db.Messages.AnyAsync(row => row.Kind == MessageKind.NoneLeftForMaker)
                ),
            "its maker to hear"
        );
        (
            await world.WithinAsync(workspace, db =>
                db.Links.Where(row => row.Id == other).Select(row => row.CheckDueAt).SingleAsync()
            )
        ).ShouldBe(later);
    }

    [Fact]
    public async Task A_link_with_something_left_only_weeks_ahead_has_something_left()
    {
        var ada = await world.SignUpAsync();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var (id, _) = await ada.SendLinkAsync(draft =>
            (draft.Picked, draft.Until, draft.EndsOn) = (["2027-03-09T09:00:00Z"], "2027-04-01", "2027-04-01")
        );
        await LookAsync(workspace, id);
        (await ada.LinkAsync(id)).GetProperty("row").GetProperty("noneLeft").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task Times_that_would_suit_come_back_to_the_link_and_to_its_maker()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();
        Task<HttpResponseMessage> WishAsync(object body) =>
            world.Guest().PostAsJsonAsync($"/api/public/links/{address}/wishes", body);
        (await (await WishAsync(new { starts = Array.Empty<string>() })).FaultsAsync()).Keys.ShouldBe(["starts"]);
        (await (await WishAsync(new { starts = new[] { "2026-12-01T08:00:00Z" } })).FaultsAsync()).Keys.ShouldBe([
            "starts",
        ]);
        (
            await (await WishAsync(new { starts = new[] { Nine }, words = new string('x', 1001) })).FaultsAsync()
        ).Keys.ShouldBe(["words"]);

        (
            await WishAsync(
                new
                {
                    starts = new[] { "2026-12-14T13:00:00Z", "2026-12-15T13:00:00Z" },
                    words = "After lunch, please.",
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        var wishes = (await ada.LinkAsync(id)).GetProperty("wishes");
        wishes
            .EnumerateArray()
            .Select(wish => (wish.GetProperty("start").GetString(), wish.GetProperty("end").GetString()))
            .ShouldBe([
                ("2026-12-14T13:00:00Z", "2026-12-14T13:30:00Z"),
                ("2026-12-15T13:00:00Z", "2026-12-15T13:30:00Z"),
            ]);
        var told = await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Messages.AsNoTracking().SingleAsync(row => row.Kind == MessageKind.WishForMaker)
        );
        told.Text.ShouldContain("Monday, 14 December, 14:00–14:30");
        told.Text.ShouldContain("After lunch, please.");
        (await ada.DeleteAsync($"/api/links/{id}/wishes/{wishes[0].GetProperty("id").GetGuid()}")).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ada.LinkAsync(id)).GetProperty("wishes").GetArrayLength().ShouldBe(1);
        // Nobody fills the board with them.
        for (var i = 0; i < 4; i++)
            await WishAsync(new { starts = Enumerable.Range(0, 6).Select(hour => $"2026-12-1{i + 5}T0{hour}:00:00Z") });
        var all = await Task.WhenAll(
            Enumerable
                .Range(0, 5)
                .Select(_ => WishAsync(new { starts = new[] { "2026-12-20T08:00:00Z", "2026-12-20T09:00:00Z" } }))
        );
        all.Count(answer => answer.StatusCode == HttpStatusCode.NoContent).ShouldBe(2);
        (await ada.LinkAsync(id)).GetProperty("wishes").GetArrayLength().ShouldBeLessThanOrEqualTo(30);
    }

    [Fact]
    public async Task What_is_not_listed_to_start_from_is_counted()
    {
        var ada = await world.SignUpAsync();
        for (var more = 1; more <= 13; more++)
            await (
                await ada.PostAsync("/api/links/patterns", new { name = $"Survey {more:00}", form = ada.Link().Form() })
            ).ReadAsync(HttpStatusCode.OK);
        var full = await ada.GetAsync("/api/links/beginnings?search=survey");
        full.GetProperty("patterns").GetArrayLength().ShouldBe(12);
        full.GetProperty("more").GetProperty("patterns").GetInt32().ShouldBe(1);
    }

    [Fact]
    public async Task Links_start_from_pages_earlier_links_patterns_past_events_and_guests_who_were_here()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync(draft => draft.Title = "Sea trial");
        await ada.SendLinkAsync();
        await (
            await ada.JoinCalendarAsync(Scene.CalendarWith("Larkspur handover", "20261203T090000Z", "20261203T101500Z"))
        ).ReadAsync(HttpStatusCode.Created);
        var saved = await (
            await ada.PostAsync(
                "/api/links/patterns",
                new
                {
                    name = "Surveys",
                    form = ada.Link(draft =>
                            draft.Painted = [
                                new PaintedTime(new LocalDateTime(2026, 12, 8, 9, 0), 60, true),
                                new PaintedTime(new LocalDateTime(2026, 12, 9, 9, 0), 60, false),
                            ]
                        )
                        .Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        // What is of one guest and one week is not part of a pattern.
        saved.GetProperty("form").GetProperty("guests").GetArrayLength().ShouldBe(0);
        saved
            .GetProperty("form")
            .GetProperty("times")
            .GetProperty("offer")
            .GetProperty("picked")
            .GetArrayLength()
            .ShouldBe(0);
        saved
            .GetProperty("form")
            .GetProperty("times")
            .GetProperty("offer")
            .GetProperty("painted")
            .GetArrayLength()
            .ShouldBe(1);

        var all = await ada.GetAsync("/api/links/beginnings");
        string?[] Names(JsonElement found, string what, string name) =>
            [.. found.GetProperty(what).EnumerateArray().Select(one => one.GetProperty(name).GetString())];
        Names(all, "pages", "title").ShouldBe(["Sea trial"]);
        Names(all, "links", "title").ShouldBe(["Hull survey, Larkspur"]);
        Names(all, "patterns", "name").ShouldBe(["Surveys"]);
        all.GetProperty("more").GetProperty("patterns").GetInt32().ShouldBe(0);
        Names(all, "events", "title").ShouldBe(["Larkspur handover"]);
        (
            all.GetProperty("events")[0].GetProperty("minutes").GetInt32(),
            all.GetProperty("events")[0].GetProperty("hostIds")[0].GetGuid()
        ).ShouldBe((75, ada.HostId));
        var byGuest = await ada.GetAsync("/api/links/beginnings?search=ottilie");
        Names(byGuest, "links", "title").ShouldBe(["Hull survey, Larkspur"]);
        Names(byGuest, "pages", "title").ShouldBeEmpty();

        await ada.PostAsync(
            "/api/links/patterns",
            new { name = "Surveys", form = ada.Link(draft => draft.Title = "Newer").Form() }
        );
        (await ada.GetAsync("/api/links/beginnings"))
            .GetProperty("patterns")[0]
            .GetProperty("form")
            .GetProperty("title")
            .GetString()
            .ShouldBe("Newer");
        (
            await (
                await ada.PostAsync("/api/links/patterns", new { name = " ", form = ada.Link().Form() })
            ).FaultsAsync()
        ).Keys.ShouldBe(["name"]);
        (await ada.DeleteAsync($"/api/links/patterns/{saved.GetProperty("id").GetGuid()}")).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
    }

    [Fact]
    public async Task An_event_says_who_took_part_and_only_to_those_who_may_read_it()
    {
        var ada = await world.SignUpAsync();
        var scene = new Scene(world, ada);
        var bo = await scene.JoinAsync(isHost: true, isCoordinator: true);
        var mail = (
            await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
                db.Users.Where(row => row.Id == bo.PersonId).Select(row => row.Email).SingleAsync()
            )
        )!;
        var file = Scene
            .CalendarWith("Larkspur handover", "20261203T090000Z", "20261203T101500Z")
            .Replace(
                "END:VEVENT",
                $"ATTENDEE;CN=Bo:mailto:{mail}\nATTENDEE;CN=Ottilie Wren:mailto:ottilie@wren-charters.example\nATTENDEE:mailto:nobody\nATTENDEE:mailto:kit@wren-charters.example\nEND:VEVENT",
                StringComparison.Ordinal
            );
        await (await ada.JoinCalendarAsync(file)).ReadAsync(HttpStatusCode.Created);
        var entry = (await ada.GetAsync("/api/links/beginnings"))
            .GetProperty("events")[0]
            .GetProperty("entry")
            .GetInt64();

        var people = await ada.GetAsync($"/api/links/beginnings/events/{entry}");

        people
            .GetProperty("guests")
            .EnumerateArray()
            .Select(guest => guest.GetProperty("name").GetString())
            .ShouldBe(["Ottilie Wren", "kit"]);
        people.GetProperty("hostIds").EnumerateArray().Select(host => host.GetGuid()).ShouldBe([ada.HostId, bo.HostId]);
        (await bo.Http.GetAsync($"/api/links/beginnings/events/{entry}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await world.SignUpAsync()).Http.GetAsync($"/api/links/beginnings/events/{entry}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await ada.Http.GetAsync("/api/links/beginnings/events/0")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private Task LookAsync(Guid workspace, Guid id) => world.LookAtLinkAsync(workspace, id);
}
