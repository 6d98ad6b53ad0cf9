using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>Pages as a coordinator makes them, and what they would offer.</summary>
public class PageTests(World world)
{
    [Fact]
    public async Task A_page_that_is_not_saved_yet_tells_its_openings_by_day()
    {
        var ada = await world.SignUpAsync();
        var supply = await (
            await ada.PostAsync("/api/pages/supply", new { times = ada.Draft().Times(), duration = 30 })
        ).ReadAsync(HttpStatusCode.OK);

        // From Monday 08:00: six starts on each of ten weekdays.
        supply.GetProperty("total").GetInt32().ShouldBe(60);
        supply.GetProperty("days").GetArrayLength().ShouldBe(14);
        var tuesday = supply.GetProperty("days")[1];
        tuesday.GetProperty("date").GetString().ShouldBe("2026-12-08");
        tuesday.GetProperty("openings")[0].GetProperty("fromMinute").GetInt32().ShouldBe(9 * 60);
        tuesday.GetProperty("openings")[0].GetProperty("toMinute").GetInt32().ShouldBe(9 * 60 + 30);
        (await ada.PagesAsync()).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_saved_page_comes_back_as_it_was_typed()
    {
        var ada = await world.SignUpAsync();
        var draft = ada.Draft(page =>
        {
            page.BufferAfter = 25;
            page.Durations = [45, 90];
            page.Day = [new { from = "08:00", to = "11:30" }, new { from = "22:00", to = "24:00" }];
            (page.Changes, page.Post, page.ApprovalHours) = (
                ChangeRules.Usual with
                {
                    MoveUntil = 60,
                    AskWhom = "Ring us.",
                },
                PagePost.Usual with
                {
                    HostWords = "Bring oilskins.",
                    Booked = new OwnWords("Booked", "See you."),
                },
                48
            );
            page.Questions = [new Question("length", QuestionKind.Number, "How long?", "", IsNeeded: true, [], "")];
            page.Window = new PageWindow(WindowKind.Dates, new LocalDate(2026, 12, 10), new LocalDate(2027, 2, 1));
            page.Details = new PageDetails(
                new PageNaming("Winter survey", "", "Ws"),
                new PageFace("de", "#1c2743", ShowsHosts: false, PlaceZoneOnly: true, IsListed: false),
                new PlaceDetail("Over the *bridge*.", HostsRing: false),
                new Afterwards("Bring boots.", "https://yard.example/after", OffersAnother: true),
                0,
                [new InvitedAlong("Nils Aft", "nils@yard.example")],
                [
                    new ScreeningRule(
                        [new ScreenCondition("length", ScreenTest.Over, "24")],
                        All: true,
                        ScreenAct.DontBook,
                        "Ring the yard.",
                        ""
                    ),
                ],
                MostOpen: 3
            );
        });
        var made = await (await ada.PostAsync("/api/pages", draft.Form())).ReadAsync(HttpStatusCode.Created);

        var page = await ada.GetAsync($"/api/pages/{made.GetProperty("id").GetGuid()}");
        JsonSerializer
            .Serialize(page.GetProperty("form"))
            .ShouldBe(JsonSerializer.Serialize(draft.Form(), LooseLantern.Server.Hosting.Json.Options));
        page.GetProperty("state").GetString().ShouldBe("draft");
    }

    [Fact]
    public async Task A_page_that_turns_to_its_hosts_hours_leaves_none_behind()
    {
        var ada = await world.SignUpAsync();
        var draft = ada.Draft();
        var made = await (await ada.PostAsync("/api/pages", draft.Form())).ReadAsync(HttpStatusCode.Created);
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (await world.WithinAsync(workspace, db => db.Hours.CountAsync())).ShouldBe(2);

        var form = System.Text.Json.Nodes.JsonNode.Parse(JsonSerializer.Serialize(draft.Form()))!;
        form["times"]!["hoursMode"] = "hosts";
        form["times"]!["hours"] = null;
        await (
            await ada.PutAsync($"/api/pages/{made.GetProperty("id").GetGuid()}", new { version = 1, form })
        ).ReadAsync(HttpStatusCode.OK);

        (await world.WithinAsync(workspace, db => db.Hours.CountAsync())).ShouldBe(1);
        var supply = await ada.GetAsync($"/api/pages/{made.GetProperty("id").GetGuid()}/supply");
        // The host's usual hours: 9 to 12 and 13 to 17, from Monday 08:00.
        supply.GetProperty("total").GetInt32().ShouldBe(140);
    }

    [Fact]
    public async Task A_value_that_is_no_number_is_named_where_it_stands()
    {
        var ada = await world.SignUpAsync();
        var form = System.Text.Json.Nodes.JsonNode.Parse(JsonSerializer.Serialize(ada.Draft().Form()))!;
        form["times"]!["step"] = null;
        (await (await ada.PostAsync("/api/pages", form)).FaultsAsync()).Keys.ShouldBe(["times.step"]);
        form["times"]!.AsObject().Remove("step");
        (await (await ada.PostAsync("/api/pages/supply", new { times = form["times"] })).FaultsAsync()).Keys.ShouldBe([
            "times.step",
        ]);
    }

    [Fact]
    public async Task A_taken_address_is_refused_also_when_two_take_it_at_once()
    {
        var ada = await world.SignUpAsync();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ => ada.PostAsync("/api/pages", ada.Draft(page => page.Address = "same").Form()))
        );

        answers.Count(answer => answer.StatusCode == HttpStatusCode.Created).ShouldBe(1);
        foreach (var refused in answers.Where(answer => answer.StatusCode != HttpStatusCode.Created))
            (await refused.FaultsAsync())["address"].ShouldContain("same");
        (await ada.GetAsync($"/api/pages/address?deskId={ada.DeskId}&address=same"))
            .GetProperty("free")
            .GetBoolean()
            .ShouldBeFalse();
        (await ada.GetAsync($"/api/pages/address?deskId={ada.DeskId}&address=other"))
            .GetProperty("free")
            .GetBoolean()
            .ShouldBeTrue();
    }

    [Fact]
    public async Task Nobody_overwrites_what_a_colleague_has_just_saved()
    {
        var ada = await world.SignUpAsync();
        var made = await (await ada.PostAsync("/api/pages", ada.Draft().Form())).ReadAsync(HttpStatusCode.Created);
        var path = $"/api/pages/{made.GetProperty("id").GetGuid()}";
        var change = ada.Draft(page => page.Title = "Changed first").Form();
        (await ada.PutAsync(path, new { version = 1, form = change })).StatusCode.ShouldBe(HttpStatusCode.OK);

        var late = await ada.PutAsync(
            path,
            new { version = 1, form = ada.Draft(page => page.Title = "Too late").Form() }
        );

        (await late.ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:changed-meanwhile");
        (await ada.GetAsync(path)).GetProperty("form").GetProperty("title").GetString().ShouldBe("Changed first");
    }

    public static TheoryData<string, Action<PageDraft>> Faults() =>
        new()
        {
            { "title", page => page.Title = " " },
            { "address", page => page.Address = "No Spaces" },
            { "deskId", page => page.DeskId = Guid.NewGuid() },
            { "times.lineUp[0].hostIds[0]", page => page.HostId = Guid.NewGuid() },
            { "times.lineUp", page => page.Seats = [] },
            {
                "times.lineUp[1].hostIds",
                page =>
                    page.Seats = [
                        [page.HostId],
                        [],
                    ]
            },
            {
                "times.lineUp[0].hostIds",
                page =>
                    page.Seats = [
                        [page.HostId, page.HostId],
                    ]
            },
            { "times.dailyCap", page => page.DailyCap = 0 },
            { "times.weeklyCap", page => page.WeeklyCap = 5000 },
            { "times.places", page => page.Places = 0 },
            { "times.durations", page => page.Durations = [] },
            {
                "times.window.from",
                page => page.Window = new PageWindow(WindowKind.Dates, null, new LocalDate(2027, 1, 1))
            },
            {
                "times.window.to",
                page =>
                    page.Window = new PageWindow(WindowKind.Dates, new LocalDate(2027, 1, 2), new LocalDate(2027, 1, 1))
            },
            {
                "details.naming.kind",
                page => page.Details = PageDetails.Usual with { Naming = new PageNaming("", "Unheard of", null) }
            },
            {
                "details.naming.mark",
                page => page.Details = PageDetails.Usual with { Naming = new PageNaming("", "", "H1") }
            },
            {
                "details.face.language",
                page => page.Details = PageDetails.Usual with { Face = PageDetails.Usual.Face with { Language = "xx" } }
            },
            {
                "details.face.accent",
                page =>
                    page.Details = PageDetails.Usual with { Face = PageDetails.Usual.Face with { Accent = "#f0ae2e" } }
            },
            {
                "details.after.goTo",
                page =>
                    page.Details = PageDetails.Usual with { After = new Afterwards("", "http://yard.example", false) }
            },
            { "details.lead", page => page.Details = PageDetails.Usual with { Lead = 1 } },
            { "details.mostOpen", page => page.Details = PageDetails.Usual with { MostOpen = 0 } },
            {
                "details.alsoInvited[0].email",
                page => page.Details = PageDetails.Usual with { AlsoInvited = [new InvitedAlong("Nils", "nils")] }
            },
            {
                "details.alsoInvited",
                page =>
                    page.Details = PageDetails.Usual with
                    {
                        AlsoInvited = [new InvitedAlong("", "a@b.example"), new InvitedAlong("", "A@b.example")],
                    }
            },
            {
                "questions",
                page =>
                {
                    page.Questions =
                    [
                        .. Enumerable.Repeat(
                            new Question("same", QuestionKind.Short, "Twice?", "", IsNeeded: false, [], ""),
                            2
                        ),
                    ];
                    page.Details = PageDetails.Usual with
                    {
                        Screening =
                        [
                            new ScreeningRule(
                                [new ScreenCondition("same", ScreenTest.Is, "1")],
                                true,
                                ScreenAct.DontBook,
                                "No.",
                                ""
                            ),
                        ],
                    };
                }
            },
            {
                "details.screening[0].if",
                page =>
                    page.Details = PageDetails.Usual with
                    {
                        Screening = [new ScreeningRule([], true, ScreenAct.DontBook, "No.", "")],
                    }
            },
            {
                "details.screening[0].if[0]",
                page =>
                    page.Details = PageDetails.Usual with
                    {
                        Screening =
                        [
                            new ScreeningRule(
                                [new ScreenCondition("nothing", ScreenTest.Is, "1")],
                                true,
                                ScreenAct.DontBook,
                                "No.",
                                ""
                            ),
                        ],
                    }
            },
            {
                "details.screening[0].words",
                page =>
                    page.Details = PageDetails.Usual with
                    {
                        Screening =
                        [
                            new ScreeningRule(
                                [new ScreenCondition("nothing", ScreenTest.Is, "1")],
                                true,
                                ScreenAct.DontBook,
                                " ",
                                ""
                            ),
                        ],
                    }
            },
            {
                "details.screening[0].address",
                page =>
                    page.Details = PageDetails.Usual with
                    {
                        Screening =
                        [
                            new ScreeningRule(
                                [new ScreenCondition("nothing", ScreenTest.Is, "1")],
                                true,
                                ScreenAct.GoElsewhere,
                                "There.",
                                "javascript:alert(1)"
                            ),
                        ],
                    }
            },
            { "times.durations", page => page.Durations = [30, 30] },
            { "times.durations[1]", page => page.Durations = [30, 0] },
            { "times.step", page => page.Step = 0 },
            { "times.bufferBefore", page => page.BufferBefore = -1 },
            { "times.bufferAfter", page => page.BufferAfter = 2000 },
            { "times.notice", page => page.Notice = -5 },
            { "times.aheadDays", page => page.AheadDays = 400 },
            { "times.zone", page => page.Zone = "Nowhere/Town" },
            { "times.hours.week.mon[0].to", page => page.Day = [new { from = "12:00", to = "09:00" }] },
            {
                "times.hours.week.mon[1].from",
                page => page.Day = [new { from = "09:00", to = "12:00" }, new { from = "11:00", to = "13:00" }]
            },
            { "times.hours.week.mon[0].from", page => page.Day = [new { from = "9am", to = "12:00" }] },
        };

    [Theory, MemberData(nameof(Faults), DisableDiscoveryEnumeration = true)]
    public async Task A_bad_field_is_named_and_nothing_is_saved(string field, Action<PageDraft> change)
    {
        var ada = await world.SignUpAsync();
        (await (await ada.PostAsync("/api/pages", ada.Draft(change).Form())).FaultsAsync()).Keys.ShouldContain(field);
        (await ada.PagesAsync()).GetArrayLength().ShouldBe(0);
    }
}
