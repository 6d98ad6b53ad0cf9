namespace Server.Tests;

/// <summary>What a page offers before it is saved, why it does not offer more, and what would.</summary>
public class SupplyTests(World world)
{
    [Theory]
    [InlineData(2, 14)]
    [InlineData(8, 56)]
    public async Task Weeks_are_counted_day_by_day(int weeks, int days)
    {
        var ada = await world.SignUpAsync();
        var supply = await AskAsync(
            ada,
            "supply",
            new { times = ada.Draft(page => page.AheadDays = 60).Times(), weeks }
        );
        supply.GetProperty("days").GetArrayLength().ShouldBe(days);
        // From Monday 08:00 on, six a weekday.
        supply.GetProperty("total").GetInt32().ShouldBe(weeks * 30);
        supply.GetProperty("worked").GetProperty("next").GetString().ShouldBe("2026-12-07T08:30:00Z");
        (
            await (
                await ada.PostAsync("/api/pages/supply", new { times = ada.Draft().Times(), weeks = 9 })
            ).FaultsAsync()
        ).Keys.ShouldBe(["weeks"]);
    }

    [Fact]
    public async Task What_a_page_offers_beyond_its_hosts_hours_is_counted_and_starts_are_shown_apart()
    {
        var ada = await world.SignUpAsync();
        object[] long_ = [new { from = "08:00", to = "10:00" }];
        var draft = ada.Draft(page => (page.Day, page.Step, page.StartsApart) = (long_, 15, true));
        var supply = await (
            await ada.PostAsync(
                "/api/pages/supply",
                new
                {
                    times = draft.Times(),
                    duration = 30,
                    pageId = (Guid?)null,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        // From 08:00 to 10:00 are 7 starts a day; the host opens at 09:00, so the first four lie before that.
        supply.GetProperty("beyondHosts").GetInt32().ShouldBeGreaterThan(0);
        supply.GetProperty("beyondHosts").GetInt32().ShouldBeLessThan(supply.GetProperty("total").GetInt32());

        var address = await ada.PublishAsync(page => (page.Day, page.Step, page.StartsApart) = (long_, 30, true));
        var answer = await world
            .Guest()
            .GetFromJsonAsync<JsonElement>(
                $"/api/public/desks/{ada.Desk}/pages/{address}/openings?from=2026-12-08&to=2026-12-08"
            );
        answer.GetProperty("shown").GetArrayLength().ShouldBe(answer.GetProperty("openings").GetArrayLength());
        var all = await ada.PublishAsync(page => page.Day = long_);
        (
            await world
                .Guest()
                .GetFromJsonAsync<JsonElement>(
                    $"/api/public/desks/{ada.Desk}/pages/{all}/openings?from=2026-12-08&to=2026-12-08"
                )
        )
            .GetProperty("shown")
            .ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task It_begins_with_the_first_date_that_is_offered_and_tells_the_window_from_the_hours()
    {
        var ada = await world.SignUpAsync();
        var later = await AskAsync(
            ada,
            "supply",
            new
            {
                times = ada.Draft(page =>
                        page.Window = new(
                            LooseLantern.Server.Data.Model.WindowKind.Dates,
                            new LocalDate(2027, 1, 11),
                            new LocalDate(2027, 1, 31)
                        )
                    )
                    .Times(),
            }
        );
        later.GetProperty("today").GetString().ShouldBe("2026-12-07");
        later.GetProperty("days")[0].GetProperty("date").GetString().ShouldBe("2027-01-11");
        later.GetProperty("total").GetInt32().ShouldBe(60);
        // Offered are the days up to the one before it opens.
        var closed = await AskAsync(
            ada,
            "supply",
            new
            {
                times = ada.Draft(page =>
                        page.Window = new(
                            LooseLantern.Server.Data.Model.WindowKind.Dates,
                            new LocalDate(2026, 12, 12),
                            new LocalDate(2026, 12, 13)
                        )
                    )
                    .Times(),
            }
        );
        var cause = closed.GetProperty("empty").EnumerateArray().ShouldHaveSingleItem();
        (cause.GetProperty("kind").GetString(), cause.GetProperty("opens").GetString()).ShouldBe(
            ("windowClosed", "2026-12-14")
        );
    }

    [Fact]
    public async Task A_page_that_is_empty_by_mistake_says_so()
    {
        var ada = await world.SignUpAsync();
        async Task<string?> CauseAsync(Action<PageDraft> change) =>
            (await AskAsync(ada, "supply", new { times = ada.Draft(change).Times() }))
                .GetProperty("empty")
                .EnumerateArray()
                .Select(cause => cause.GetProperty("kind").GetString())
                .SingleOrDefault();

        (await CauseAsync(page => page.Day = [])).ShouldBe("pageClosed");
        (
            await CauseAsync(page =>
                page.Window = new(
                    LooseLantern.Server.Data.Model.WindowKind.Dates,
                    new LocalDate(2026, 11, 1),
                    new LocalDate(2026, 11, 5)
                )
            )
        ).ShouldBe("datesPast");
        (await CauseAsync(page => (page.Notice, page.AheadDays) = (20 * 24 * 60, 7))).ShouldBe("noticeBeyondWindow");
        (await CauseAsync(page => (page.HoursMode, page.Zone) = ("both", "Pacific/Auckland"))).ShouldBe("hoursApart");
        (await CauseAsync(_ => { })).ShouldBeNull();
    }

    [Fact]
    public async Task A_dark_stretch_names_what_is_in_the_way_and_titles_only_to_whom_they_are_shown()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        await (
            await bo.PutAsync(
                $"/api/me/acting/{scene.OwnerId}",
                new
                {
                    mayOffer = true,
                    mayBook = false,
                    mayMove = false,
                    seesTitles = false,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        await (await bo.JoinCalendarAsync(Scene.CalendarWith("Boat fair"))).ReadAsync(HttpStatusCode.Created);
        object Asked() =>
            new
            {
                times = scene.Owner.Draft(page => page.HostId = bo.HostId).Times(),
                duration = (int?)null,
                pageId = (Guid?)null,
                date = "2026-12-08",
                fromMinute = 10 * 60,
                toMinute = 11 * 60,
            };

        async Task<JsonElement> ReasonAsync() =>
            (await AskAsync(scene.Owner, "dark", Asked()))
                .GetProperty("seats")[0]
                .GetProperty("hosts")[0]
                .GetProperty("reasons")
                .EnumerateArray()
                .Single(reason => reason.GetProperty("rule").GetString() == "calendars");
        var untitled = await ReasonAsync();
        (
            untitled.GetProperty("from").GetString(),
            untitled.GetProperty("to").GetString(),
            untitled.GetProperty("title").ValueKind
        ).ShouldBe(("2026-12-08T09:00:00Z", "2026-12-08T10:00:00Z", JsonValueKind.Null));

        await (await bo.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).ReadAsync(HttpStatusCode.OK);
        (await ReasonAsync()).GetProperty("title").GetString().ShouldBe("Boat fair");
    }

    [Fact]
    public async Task A_booking_that_is_in_the_way_is_named_by_its_page()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Title = "Hull survey");
        (await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        var dark = await AskAsync(
            ada,
            "dark",
            new
            {
                times = ada.Draft().Times(),
                duration = (int?)null,
                pageId = (Guid?)null,
                date = "2026-12-08",
                fromMinute = 540,
                toMinute = 570,
            }
        );
        var reason = dark.GetProperty("seats")[0].GetProperty("hosts")[0].GetProperty("reasons")[0];
        (
            reason.GetProperty("rule").GetString(),
            reason.GetProperty("page").GetString(),
            reason.GetProperty("isHold").GetBoolean()
        ).ShouldBe(("commitments", "Hull survey", false));
        (
            await (
                await ada.PostAsync(
                    "/api/pages/dark",
                    new
                    {
                        times = ada.Draft().Times(),
                        duration = (int?)null,
                        pageId = (Guid?)null,
                        date = "2026-12-08",
                        fromMinute = 600,
                        toMinute = 600,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["toMinute"]);
    }

    [Fact]
    public async Task What_would_open_more_is_computed_and_names_those_who_could_take_a_seat()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var times = scene
            .Owner.Draft(page => (page.Notice, page.HoursMode, page.DailyCap) = (48 * 60, "hosts", 2))
            .Times();
        var relaxations = (await AskAsync(scene.Owner, "relaxations", new { times }))
            .GetProperty("relaxations")
            .EnumerateArray()
            .ToList();
        JsonElement Of(string rule) => relaxations.Single(one => one.GetProperty("rule").GetString() == rule);
        string Change(string rule) => Of(rule).GetProperty("change").GetRawText();

        Of("pageDailyCapRaised").GetProperty("to").GetInt32().ShouldBe(3);
        Of("noticeDropped").GetProperty("gained").GetInt32().ShouldBeGreaterThan(0);
        Change("pageDailyCapRaised").ShouldBe("""{"dailyCap":3}""");
        Change("noticeHalved").ShouldBe("""{"notice":1440}""");
        Change("longerWindow").ShouldContain("aheadDays");
        // The host's own hours are no part of the page's form.
        Of("hoursEarlier").GetProperty("change").ValueKind.ShouldBe(JsonValueKind.Null);
        var seat = relaxations.Single(one =>
            one.GetProperty("rule").GetString() == "seatOpened" && one.GetProperty("hostId").GetGuid() == bo.HostId
        );
        (seat.GetProperty("host").GetString(), seat.GetProperty("seat").GetInt32()).ShouldBe(("Bo Keel", 0));
        seat.GetProperty("change")
            .GetProperty("lineUp")[0]
            .GetProperty("hostIds")
            .EnumerateArray()
            .Select(id => id.GetGuid())
            .ShouldBe([scene.Owner.HostId, bo.HostId]);
        relaxations.Select(one => one.GetProperty("gained").GetInt32()).ShouldBeInOrder(SortDirection.Descending);
    }

    [Fact]
    public async Task Hours_that_would_begin_earlier_come_as_the_pages_own_hours_would_be()
    {
        var ada = await world.SignUpAsync();
        var week = (await AskAsync(ada, "relaxations", new { times = ada.Draft().Times() }))
            .GetProperty("relaxations")
            .EnumerateArray()
            .Single(one => one.GetProperty("rule").GetString() == "hoursEarlier")
            .GetProperty("change")
            .GetProperty("hours")
            .GetProperty("week");
        week.GetProperty("mon").GetRawText().ShouldBe("""[{"from":"08:00","to":"12:00"}]""");
        week.GetProperty("sat").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_longer_window_shows_what_it_adds_also_where_it_ends_with_the_weeks_shown()
    {
        var ada = await world.SignUpAsync();
        var relaxations = await AskAsync(
            ada,
            "relaxations",
            new { times = ada.Draft(page => page.AheadDays = 13).Times() }
        );
        relaxations
            .GetProperty("relaxations")
            .EnumerateArray()
            .Single(one => one.GetProperty("rule").GetString() == "longerWindow")
            .GetProperty("gained")
            .GetInt32()
            .ShouldBe(30);
    }

    [Fact]
    public async Task A_longer_window_shows_what_it_adds_of_office_hours_too()
    {
        var ada = await world.SignUpAsync();
        var blocks = new
        {
            whole = true,
            list = new[]
            {
                new
                {
                    start = "2026-12-01T09:00:00",
                    length = 30,
                    rule = "FREQ=DAILY",
                    without = Array.Empty<string>(),
                },
            },
        };
        var relaxations = await AskAsync(
            ada,
            "relaxations",
            new
            {
                times = ada.Draft(page => (page.AheadDays, page.Blocks, page.StepFrom) = (3, blocks, "open")).Times(),
            }
        );
        relaxations
            .GetProperty("relaxations")
            .EnumerateArray()
            .Single(one => one.GetProperty("rule").GetString() == "longerWindow")
            .GetProperty("gained")
            .GetInt32()
            .ShouldBe(7);
    }

    [Fact]
    public async Task Dates_more_than_a_year_ahead_are_offered_like_any()
    {
        var ada = await world.SignUpAsync();
        var blocks = new
        {
            whole = true,
            list = new[]
            {
                new
                {
                    start = "2026-12-01T09:00:00",
                    length = 30,
                    rule = "FREQ=DAILY",
                    without = Array.Empty<string>(),
                },
            },
        };
        var address = await ada.PublishAsync(page =>
            (page.Window, page.Blocks, page.StepFrom) = (
                new(
                    LooseLantern.Server.Data.Model.WindowKind.Dates,
                    new LocalDate(2031, 5, 1),
                    new LocalDate(2031, 5, 9)
                ),
                blocks,
                "open"
            )
        );
        var path = $"/api/public/desks/{ada.Desk}/pages/{address}";
        var seen = await world.Guest().GetFromJsonAsync<JsonElement>(path);
        var (first, last) = (seen.GetProperty("firstDate").GetString(), seen.GetProperty("lastDate").GetString());
        (first, last).ShouldBe(("2031-05-01", "2031-05-09"));
        (await world.Guest().GetFromJsonAsync<JsonElement>($"{path}/openings?from={first}&to={last}"))
            .GetProperty("openings")
            .GetArrayLength()
            .ShouldBe(9);
        (await world.Guest().BookAsync(ada.Desk, address, "2031-05-09T07:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
    }

    [Fact]
    public async Task Of_a_host_with_a_seat_to_themselves_too_it_is_told_how_many_sessions_they_have_had()
    {
        var ada = await world.SignUpAsync();
        var address = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, address, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        (await ada.GetAsync($"/api/pages/{id}/supply"))
            .GetProperty("turns")[0][0]
            .GetProperty("sessions")
            .GetInt32()
            .ShouldBe(1);
    }

    [Fact]
    public async Task Who_would_be_next_is_told_by_what_each_has_had()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var address = await scene.Owner.PublishAsync(page =>
            page.Seats = [
                [scene.Owner.HostId, bo.HostId],
            ]
        );
        var id = (await scene.Owner.PagesAsync())[0].GetProperty("id").GetGuid();
        async Task<string> TurnsAsync() =>
            string.Join(
                ' ',
                (await scene.Owner.GetAsync($"/api/pages/{id}/supply"))
                    .GetProperty("turns")[0]
                    .EnumerateArray()
                    .Select(turn =>
                        $"{turn.GetProperty("host").GetString()!.Split(' ')[0]}:{turn.GetProperty("sessions").GetInt32()}"
                    )
            );

        var before = await TurnsAsync();
        var first = before.Split(':')[0];
        (await world.Guest().BookAsync(scene.Owner.Desk, address, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        var second = first == "Ada" ? "Bo" : "Ada";
        (await TurnsAsync()).ShouldBe($"{second}:0 {first}:1");
    }

    [Fact]
    public async Task Guests_names_are_found_in_what_everybody_can_read()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z", name: "Osric Vane")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        async Task<IEnumerable<string?>> FoundAsync(string words) =>
            (await AskAsync(ada, "guest-names", new { words = new[] { "Talk", words } }))
                .EnumerateArray()
                .Select(name => name.GetString());
        (await FoundAsync("A talk with osric vane, at the slip")).ShouldBe(["Osric Vane"]);
        (await FoundAsync("Osric Vanes are birds")).ShouldBeEmpty();
    }

    private static async Task<JsonElement> AskAsync(Coordinator who, string what, object body) =>
        await (await who.PostAsync($"/api/pages/{what}", body)).ReadAsync(HttpStatusCode.OK);
}
