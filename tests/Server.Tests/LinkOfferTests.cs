using LooseLantern.Core.Links;
using LooseLantern.Server.Data.Model;
using NodaTime.Text;
using static Server.Tests.LinkDraft;

namespace Server.Tests;

/// <summary>
/// What links offer, in each of the ways to say it, and what is said of it before anything is saved. The host works
/// weekdays 9 to 17.
/// </summary>
public class LinkOfferTests(World world)
{
    [Fact]
    public async Task What_is_free_in_painted_time_is_offered_each_week_as_long_as_the_link_lives()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync(draft =>
            (draft.By, draft.Picked, draft.Painted) = (
                "painted",
                [],
                [new PaintedTime(new LocalDateTime(2026, 12, 8, 10, 0), 60, IsWeekly: true)]
            )
        );
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, Ten)).StatusCode.ShouldBe(HttpStatusCode.Created);

        (await world.Guest().LinkStartsAsync(address)).ShouldBe([
            "2026-12-08T09:30:00Z",
            "2026-12-15T09:00:00Z",
            "2026-12-15T09:30:00Z",
        ]);
        // Paint takes the place of hours, and of nothing else.
        (await world.Guest().TakeAsync(address, "2026-12-15T10:00:00Z")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await world.Guest().TakeAsync(address, "2026-12-15T09:30:00Z")).StatusCode.ShouldBe(HttpStatusCode.Created);
    }

    [Fact]
    public async Task Whatever_is_free_is_offered_on_the_days_and_hours_that_count_and_only_so_much_is_shown()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync(draft =>
            (draft.By, draft.Picked, draft.Days, draft.FromMinute, draft.ToMinute) = (
                "free",
                [],
                ["tuesday", "thursday"],
                600,
                660
            )
        );
        (await world.Guest().LinkStartsAsync(address)).ShouldBe([
            "2026-12-08T09:00:00Z",
            "2026-12-08T09:30:00Z",
            "2026-12-10T09:00:00Z",
            "2026-12-10T09:30:00Z",
            "2026-12-15T09:00:00Z",
            "2026-12-15T09:30:00Z",
            "2026-12-17T09:00:00Z",
            "2026-12-17T09:30:00Z",
        ]);

        var (_, few) = await ada.SendLinkAsync(draft => (draft.By, draft.Picked, draft.MostShown) = ("free", [], 3));
        (await world.Guest().LinkStartsAsync(few)).Length.ShouldBe(3);
    }

    [Fact]
    public async Task Chosen_hosts_calendars_are_overridden_and_our_own_bookings_never()
    {
        var ada = await world.SignUpAsync();
        await (
            await ada.JoinCalendarAsync(Scene.CalendarWith("Kept for this", "20261208T080000Z", "20261208T110000Z"))
        ).ReadAsync(HttpStatusCode.Created);
        var (_, asked) = await ada.SendLinkAsync();
        var (_, over) = await ada.SendLinkAsync(draft => draft.Overridden = [ada.HostId]);
        (await world.Guest().LinkStartsAsync(asked)).ShouldBe([Eleven, Friday]);
        (await world.Guest().LinkStartsAsync(over)).ShouldBe([Nine, Ten, Eleven, Friday]);

        (await world.Guest().TakeAsync(over, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var (_, again) = await ada.SendLinkAsync(draft => draft.Overridden = [ada.HostId]);
        (await world.Guest().LinkStartsAsync(again)).ShouldBe([Ten, Eleven, Friday]);
    }

    [Fact]
    public async Task What_is_booked_stands_as_free_time_in_the_calendar_where_that_was_wanted()
    {
        await using var server = await OddServer.StartAsync();
        var ada = await world.SignUpAsync();
        await ada.JoinAccountAsync(server.Account(), "Odd");
        var (_, address) = await ada.SendLinkAsync(draft =>
            (draft.LeavesFree, draft.HostWords) = (true, "Bring the moisture meter.")
        );
        (await world.Guest().TakeAsync(address, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await world.WrittenAsync(await world.WorkspaceOfAsync(ada.Desk));

        var written = server.Objects.Values.Single();
        written.ShouldContain("TRANSP:TRANSPARENT");
        written.Replace("\r\n ", "").ShouldContain("Bring the moisture meter.");
        // It blocks here all the same.
        (await world.Guest().LinkStartsAsync((await ada.SendLinkAsync()).Address)).ShouldBe([Ten, Eleven, Friday]);
    }

    [Fact]
    public async Task One_answer_tells_the_count_the_text_and_what_would_open_more_as_each_of_them_alone_does()
    {
        var ada = await world.SignUpAsync();
        var link = ada.Link();
        var times = new
        {
            times = link.Times(),
            of = (Guid?)null,
            guestZone = link.GuestZone,
        };
        var form = new { form = link.Form(), of = (Guid?)null };
        async Task<string> AskAsync(string path, object body) =>
            (await (await ada.PostAsync("/api/links/" + path, body)).ReadAsync(HttpStatusCode.OK)).GetRawText();

        var all = JsonDocument.Parse(await AskAsync("reckoning", form)).RootElement;
        all.GetProperty("supply").GetRawText().ShouldBe(await AskAsync("supply", times));
        all.GetProperty("text").GetRawText().ShouldBe(await AskAsync("text", form));
        all.GetProperty("relaxations").GetRawText().ShouldBe(await AskAsync("relaxations", times));

        // What is not right yet beside its times leaves out the text alone.
        link.Title = "";
        var untitled = JsonDocument
            .Parse(await AskAsync("reckoning", new { form = link.Form(), of = (Guid?)null }))
            .RootElement;
        untitled.GetProperty("text").ValueKind.ShouldBe(JsonValueKind.Null);
        untitled.GetProperty("supply").GetRawText().ShouldBe(await AskAsync("supply", times));
    }

    [Fact]
    public async Task The_count_what_was_missed_and_suggestions_are_told_before_anything_is_saved()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, Ten)).StatusCode.ShouldBe(HttpStatusCode.Created);

        var supply = await (
            await ada.PostAsync(
                "/api/links/supply",
                new
                {
                    times = ada.Link().Times(),
                    of = (Guid?)null,
                    guestZone = "Asia/Tokyo",
                }
            )
        ).ReadAsync(HttpStatusCode.OK);

        supply.GetProperty("total").GetInt32().ShouldBe(3);
        supply
            .GetProperty("missed")
            .EnumerateArray()
            .Select(missed => missed.GetProperty("start").GetString())
            .ShouldBe([Ten]);
        var suggested = supply
            .GetProperty("suggestions")
            .EnumerateArray()
            .Select(one => InstantPattern.ExtendedIso.Parse(one.GetProperty("start").GetString()!).Value)
            .ToList();
        suggested.Count.ShouldBe(6);
        // Decent hours in Tokyo are early ones here, and none lies on what is picked.
        suggested.ShouldAllBe(start => start.InUtc().Hour < 11);
        suggested.Select(start => InstantPattern.ExtendedIso.Format(start)).ShouldNotContain(Nine);

        var dark = await (
            await ada.PostAsync(
                "/api/links/dark",
                new
                {
                    times = ada.Link().Times(),
                    of = (Guid?)null,
                    date = "2026-12-08",
                    fromMinute = 600,
                    toMinute = 630,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        dark.GetProperty("seats")[0]
            .GetProperty("hosts")[0]
            .GetProperty("reasons")[0]
            .GetProperty("page")
            .GetString()
            .ShouldBe("Talk");
        var more = await (
            await ada.PostAsync(
                "/api/links/relaxations",
                new
                {
                    times = ada.Link(draft => draft.Notice = 3 * 24 * 60).Times(),
                    of = (Guid?)null,
                    guestZone = "",
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        more.GetProperty("relaxations")
            .EnumerateArray()
            .Single(one => one.GetProperty("rule").GetString() == "noticeDropped")
            .GetProperty("gained")
            .GetInt32()
            .ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task The_text_is_by_day_in_order_of_time_in_one_zone_or_two_with_each_time_to_press()
    {
        var ada = await world.SignUpAsync();
        var (id, last) = await ada.SendLinkAsync(draft =>
            (draft.Picked, draft.GuestZone) = ([Friday, "2026-12-08T08:30:00Z", Nine], "Asia/Kolkata")
        );
        var address = $"http://localhost/times/{last}";

        async Task<JsonElement> TextAsync(LinkText text, string language = "en", Guid? of = null) =>
            await (
                await ada.PostAsync(
                    "/api/links/text",
                    new
                    {
                        form = ada.Link(draft =>
                                (draft.Picked, draft.GuestZone, draft.GuestLanguage, draft.Text) = (
                                    [Friday, "2026-12-08T08:30:00Z", Nine],
                                    "Asia/Kolkata",
                                    language,
                                    text
                                )
                            )
                            .Form(),
                        of,
                    }
                )
            ).ReadAsync(HttpStatusCode.OK);

        var both = await TextAsync(LinkText.Usual, of: id);
        both.GetProperty("text")
            .GetString()
            .ShouldBe(
                $"""
                Hull survey, Larkspur (30 min), Slip 2
                Times in Kolkata (UTC+5:30) / Copenhagen (UTC+1)
                Tuesday, 8 December: 13:30–14:00 (09:00–09:30 Copenhagen), 14:00–14:30 (09:30–10:00 Copenhagen)
                Friday, 11 December: 13:30–14:00 (09:00–09:30 Copenhagen)

                Reserve one of them here:
                {address}
                """.ReplaceLineEndings("\n")
            );
        both.GetProperty("html")
            .GetString()!
            .ShouldContain($"<a href=\"{address}?at=2026-12-08T08:30:00Z\">14:00–14:30 (09:30–10:00 Copenhagen)</a>");

        var ranges = (
            await TextAsync(new LinkText(LinkZones.Guest, AsRanges: true, ClockForm.H12, WithAddress: false), of: id)
        )
            .GetProperty("text")
            .GetString()!;
        ranges.ShouldContain("Tuesday, 8 December: 1:30 pm–2:30 pm");
        ranges.ShouldNotContain("http");
        (await TextAsync(new LinkText(LinkZones.Own, AsRanges: false, null, WithAddress: true), "de"))
            .GetProperty("text")
            .GetString()!
            .ShouldContain("Dienstag, 8. Dezember: 09:00–09:30, 09:30–10:00");
    }

    [Fact]
    public async Task A_pick_that_is_not_open_says_why_and_one_after_the_last_date_too()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Title = "Hull survey");
        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var supply = await SupplyAsync(ada, draft => (draft.Picked, draft.Until) = ([Nine, Friday], "2026-12-09"));

        var missed = supply.GetProperty("missed").EnumerateArray().ToList();
        missed.Select(one => one.GetProperty("start").GetString()).ShouldBe([Nine, Friday]);
        var booked = missed[0].GetProperty("why").GetProperty("seats")[0].GetProperty("hosts")[0];
        booked.GetProperty("reasons")[0].GetProperty("page").GetString().ShouldBe("Hull survey");
        missed[1].GetProperty("why").GetProperty("ofPage")[0].GetProperty("rule").GetString().ShouldBe("window");
        // What is offered from a later date on is not offered before it.
        (await SupplyAsync(ada, draft => (draft.Picked, draft.From) = ([Ten, Friday], "2026-12-10")))
            .GetProperty("openings")
            .EnumerateArray()
            .Select(opening => opening.GetProperty("start").GetString())
            .ShouldBe([Friday]);
    }

    [Fact]
    public async Task Of_a_pool_it_is_told_who_can_serve_which_opening()
    {
        var scene = await Scene.MakeAsync(world);
        var (ada, bo) = (scene.Owner, await scene.JoinAsync(isHost: true, letInviter: true));
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);

        var supply = await SupplyAsync(ada, draft => (draft.Seats, draft.Picked) = (
                [
                    [ada.HostId, bo.HostId],
                ],
                [Nine, Ten]
            ));

        supply
            .GetProperty("byHost")
            .EnumerateArray()
            .ToDictionary(
                one => one.GetProperty("host").GetGuid(),
                one => string.Join(' ', one.GetProperty("starts").EnumerateArray().Select(start => start.GetString()))
            )
            .ShouldBe(
                new Dictionary<Guid, string> { [ada.HostId] = Ten, [bo.HostId] = $"{Nine} {Ten}" },
                ignoreOrder: true
            );
        (await SupplyAsync(ada)).GetProperty("byHost").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Of_a_whole_list_ranges_are_written_and_the_best_where_they_are_asked_for()
    {
        var ada = await world.SignUpAsync();
        async Task<string> TextAsync(LinkText text) =>
            (
                await (
                    await ada.PostAsync(
                        "/api/links/text",
                        new
                        {
                            form = ada.Link(draft => (draft.By, draft.Step, draft.Text) = ("free", 15, text)).Form(),
                            of = (Guid?)null,
                        }
                    )
                ).ReadAsync(HttpStatusCode.OK)
            )
                .GetProperty("text")
                .GetString()!;

        var usual = LinkText.Usual with { Zones = LinkZones.Own };
        (await TextAsync(usual)).ShouldContain("Tuesday, 8 December: 09:00–12:00");
        (await TextAsync(usual with { AsRanges = false })).ShouldContain("09:00–09:30, 09:15–09:45");
        (await TextAsync(usual with { AsRanges = false, MostListed = 8 })).Count(letter => letter == '–').ShouldBe(8);
    }

    [Fact]
    public async Task Times_given_out_as_text_are_kept_listed_and_held_and_no_guest_can_open_them()
    {
        var ada = await world.SignUpAsync();
        (
            await (
                await ada.PostAsync("/api/links?asText=true", ada.Link(draft => draft.Picked = []).Form())
            ).FaultsAsync()
        ).Keys.ShouldBe(["times.offer.picked"]);
        var made = await (
            await ada.PostAsync("/api/links?asText=true", ada.Link(draft => draft.Guests = []).Form())
        ).ReadAsync(HttpStatusCode.Created);
        var id = made.GetProperty("row").GetProperty("id").GetGuid();

        var row = (await ada.GetAsync("/api/links")).GetProperty("rows")[0];
        row.GetProperty("state").GetString().ShouldBe("draft");
        row.GetProperty("givenAt").ValueKind.ShouldBe(JsonValueKind.String);
        row.GetProperty("path").ValueKind.ShouldBe(JsonValueKind.Null);
        (await (await ada.HoldAsync(id)).ReadAsync(HttpStatusCode.OK))
            .GetProperty("holds")
            .GetArrayLength()
            .ShouldBe(4);
        (await ada.HoldAsync(id, until: null)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ada.GetAsync("/api/board?from=2026-12-08&days=1"))
            .GetProperty("days")[0]
            .GetProperty("lanes")[0]
            .GetProperty("bars")
            .EnumerateArray()
            .Count(bar => bar.GetProperty("kind").GetString() == "offered")
            .ShouldBe(2);
        // What was given out is thrown away by no slip.
        (await ada.DeleteAsync($"/api/links/{id}")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_new_link_begins_with_what_was_used_last()
    {
        var ada = await world.SignUpAsync();
        (await ada.GetAsync("/api/links/beginnings"))
            .GetProperty("last")
            .GetProperty("lineUp")
            .GetArrayLength()
            .ShouldBe(0);
        await ada.MakeLinkAsync(draft => draft.Durations = [50]);
        var last = (await ada.GetAsync("/api/links/beginnings")).GetProperty("last");
        last.GetProperty("lineUp")[0].GetProperty("hostIds")[0].GetGuid().ShouldBe(ada.HostId);
        last.GetProperty("durations")[0].GetInt32().ShouldBe(50);
        last.GetProperty("deskId").GetGuid().ShouldBe(ada.DeskId);
    }

    private static async Task<JsonElement> SupplyAsync(Coordinator ada, Action<LinkDraft>? change = null) =>
        await (
            await ada.PostAsync(
                "/api/links/supply",
                new
                {
                    times = ada.Link(change).Times(),
                    of = (Guid?)null,
                    guestZone = "",
                }
            )
        ).ReadAsync(HttpStatusCode.OK);

    [Fact]
    public async Task Every_field_that_is_wrong_is_named_with_its_mend()
    {
        var ada = await world.SignUpAsync();
        var faults = await (
            await ada.PostAsync(
                "/api/links",
                ada.Link(draft =>
                    {
                        (draft.Title, draft.Takes, draft.MostShown, draft.FromMinute, draft.ToMinute) = (
                            "",
                            0,
                            0,
                            700,
                            600
                        );
                        draft.Picked =
                        [
                            .. Enumerable
                                .Range(0, 21)
                                .Select(i => $"2026-12-08T{i % 24:00}:00:00Z")
                                .Append("2026-12-08T08:00:30Z"),
                        ];
                        draft.Painted = [new PaintedTime(new LocalDateTime(2026, 12, 8, 9, 0), 0, false)];
                        draft.Guests = [new LinkGuest("", "nobody"), new LinkGuest("Ada\nBcc: x", "")];
                        (draft.GuestZone, draft.GuestLanguage, draft.Topic, draft.Durations) = (
                            "Mars/Base",
                            "tlh",
                            "No Spaces",
                            []
                        );
                        draft.AlsoInvited = [new InvitedAlong("x", "not an address")];
                    })
                    .Form()
            )
        ).FaultsAsync();

        faults
            .Keys.Order(StringComparer.Ordinal)
            .ShouldBe([
                "details.alsoInvited[0]",
                "details.takes",
                "details.topic",
                "guestLanguage",
                "guestZone",
                "guests[0]",
                "guests[1]",
                "times.durations",
                "times.offer.mostShown",
                "times.offer.painted[0]",
                "times.offer.picked",
                "times.offer.toMinute",
                "title",
            ]);
        (
            await (await ada.PostAsync("/api/links", ada.Link(draft => draft.Seats = []).Form())).FaultsAsync()
        ).Keys.ShouldContain("times.lineUp");
        (
            await (
                await ada.PostAsync("/api/links", ada.Link(draft => draft.DeskId = Guid.NewGuid()).Form())
            ).FaultsAsync()
        ).Keys.ShouldBe(["deskId"]);
        (
            await (
                await ada.PostAsync(
                    "/api/links",
                    ada.Link(draft =>
                            draft.Seats = [
                                [Guid.NewGuid()],
                            ]
                        )
                        .Form()
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["times.lineUp[0].hostIds[0]"]);
        (await ada.GetAsync("/api/links")).GetProperty("total").GetInt32().ShouldBe(0);

        var nothing = await ada.MakeLinkAsync(draft => draft.Picked = []);
        (
            await (
                await ada.PostAsync($"/api/links/{nothing.GetProperty("row").GetProperty("id").GetGuid()}/out", new { })
            ).FaultsAsync()
        ).Keys.ShouldBe(["times.offer.picked"]);
    }
}
