using LooseLantern.Core.Openings;
using LooseLantern.Formats.Cases;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>Several hosts a booking, several guests a session, and caps; also where many want them at once.</summary>
public class LineUpTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private static readonly string[] Morning =
    [
        "2026-12-08T08:00:00Z",
        "2026-12-08T08:30:00Z",
        "2026-12-08T09:00:00Z",
        "2026-12-08T09:30:00Z",
        "2026-12-08T10:00:00Z",
        "2026-12-08T10:30:00Z",
    ];

    [Fact]
    public async Task A_pool_takes_as_many_bookings_of_one_time_as_it_has_hosts_whoever_comes_first()
    {
        var (ada, team) = await TeamAsync(3);
        var page = await ada.PublishAsync(draft => draft.Seats = [team]);

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 50)
                .Select(i => world.Guest().BookAsync(ada.Desk, page, Nine, email: $"guest{i}@wren.example"))
        );

        Count(answers, HttpStatusCode.Created).ShouldBe(3);
        Count(answers, HttpStatusCode.Conflict).ShouldBe(47);
        var hosts = (await RowsAsync(ada)).Select(row => row.GetProperty("hosts")[0].GetString()).ToList();
        hosts.Distinct().Count().ShouldBe(3);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldBe(Morning[1..]);
    }

    [Fact]
    public async Task A_panel_takes_the_time_of_everybody_in_it()
    {
        var (ada, team) = await TeamAsync(3);
        var panel = await ada.PublishAsync(draft =>
            draft.Seats = [
                [team[0]],
                [team[1], team[2]],
                [team[2]],
            ]
        );
        var alone = await ada.PublishAsync(draft =>
            draft.Seats = [
                [team[1]],
            ]
        );

        var made = await (await world.Guest().BookAsync(ada.Desk, panel, Nine)).ReadAsync(HttpStatusCode.Created);

        // Only the second host is left for the second seat, since the third is alone in the third.
        (await RowsAsync(ada))
            .ShouldHaveSingleItem()
            .GetProperty("hosts")
            .EnumerateArray()
            .Select(name => name.GetString())
            .ShouldBe(["Ada Wharf", "Host 1", "Host 2"]);
        (await world.Guest().StartsAsync(ada.Desk, alone, "2026-12-08", "2026-12-08")).ShouldBe(Morning[1..]);
        var kept = await world
            .Guest()
            .GetFromJsonAsync<JsonElement>(
                "/api/public" + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/")
            );
        kept.GetProperty("hosts").GetArrayLength().ShouldBe(3);
        var bars = (await ada.GetAsync("/api/board?from=2026-12-08&days=1"))
            .GetProperty("days")[0]
            .GetProperty("lanes")
            .EnumerateArray()
            .Count(lane =>
                lane.GetProperty("bars").EnumerateArray().Any(bar => bar.GetProperty("kind").GetString() == "booked")
            );
        bars.ShouldBe(3);
    }

    [Fact]
    public async Task A_group_session_takes_its_places_and_not_one_more()
    {
        var (ada, _) = await TeamAsync(1);
        var page = await ada.PublishAsync(draft => draft.Places = 3);
        (await PlacesAsync(ada, page)).ShouldBe((Nine, 3));
        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await PlacesAsync(ada, page)).ShouldBe((Nine, 2));

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 50)
                .Select(i => world.Guest().BookAsync(ada.Desk, page, Nine, email: $"guest{i}@wren.example"))
        );

        Count(answers, HttpStatusCode.Created).ShouldBe(2);
        Count(answers, HttpStatusCode.Conflict).ShouldBe(48);
        (await PlacesAsync(ada, page)).ShouldBe((Morning[1], 3));
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (await world.WithinAsync(workspace, db => db.Sessions.CountAsync())).ShouldBe(1);
        (await world.WithinAsync(workspace, db => db.Commitments.CountAsync())).ShouldBe(1);
        // Each guest is told, and the host is told of each guest.
        (
            await world.WithinAsync(workspace, db =>
                db.Messages.CountAsync(row =>
                    row.Kind != MessageKind.ReminderForGuest && row.Kind != MessageKind.ReminderForHost
                )
            )
        ).ShouldBe(6);
        (await ada.GetAsync("/api/board?from=2026-12-08&days=1"))
            .ToString()
            .ShouldContain("Ottilie Wren, Ottilie Wren, Ottilie Wren");
    }

    [Theory]
    [InlineData(2, null, 2)]
    [InlineData(null, 1, 1)]
    public async Task The_pages_caps_hold_however_many_come_at_once(int? daily, int? weekly, int expected)
    {
        var (ada, team) = await TeamAsync(2);
        var page = await ada.PublishAsync(draft =>
            (draft.Seats, draft.DailyCap, draft.WeeklyCap) = ([team], daily, weekly)
        );

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 24)
                .Select(i => world.Guest().BookAsync(ada.Desk, page, Morning[i % 6], email: $"guest{i}@wren.example"))
        );

        Count(answers, HttpStatusCode.Created).ShouldBe(expected);
        Count(answers, HttpStatusCode.Conflict).ShouldBe(24 - expected);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldBeEmpty();
        // Friday is another day of the same week, days from what is booked; the Monday after is another week.
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-11", "2026-12-11")).Length.ShouldBe(
            weekly is null ? 6 : 0
        );
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-14", "2026-12-14")).Length.ShouldBe(6);
    }

    [Fact]
    public async Task A_hosts_caps_count_over_all_pages_and_hold_under_race()
    {
        var (ada, team) = await TeamAsync(1);
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Hosts.Where(host => host.Id == team[0])
                .ExecuteUpdateAsync(set =>
                    set.SetProperty(host => host.DailyCap, 2).SetProperty(host => host.WeeklyCap, 3)
                )
        );
        // Many pages, since guests of one page wait for each other in any case.
        var pages = new List<string>();
        for (var i = 0; i < 8; i++)
            pages.Add(await ada.PublishAsync());

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 24)
                .Select(i =>
                    world.Guest().BookAsync(ada.Desk, pages[i % 8], Morning[i % 6], email: $"guest{i}@wren.example")
                )
        );

        Count(answers, HttpStatusCode.Created).ShouldBe(2);
        Count(answers, HttpStatusCode.Conflict).ShouldBe(22);
        (await world.Guest().BookAsync(ada.Desk, pages[0], "2026-12-11T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        // The week of that Tuesday is full now, also on days far from its bookings.
        (await world.Guest().StartsAsync(ada.Desk, pages[1], "2026-12-07", "2026-12-07")).ShouldBeEmpty();
        (await world.Guest().StartsAsync(ada.Desk, pages[1], "2026-12-14", "2026-12-14")).Length.ShouldBe(6);
    }

    [Fact]
    public async Task Balanced_work_goes_round_and_a_heavier_weight_takes_more()
    {
        var (ada, team) = await TeamAsync(3);
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Hosts.Where(host => host.Id == team[2])
                .ExecuteUpdateAsync(set => set.SetProperty(host => host.Weight, 2))
        );
        var page = await ada.PublishAsync(draft => draft.Seats = [team]);
        string[] days = ["08", "09", "10", "11", "14", "15", "16", "17"];
        foreach (var day in days)
            (
                await world
                    .Guest()
                    .BookAsync(ada.Desk, page, $"2026-12-{day}T08:00:00Z", email: $"guest{day}@wren.example")
            ).StatusCode.ShouldBe(HttpStatusCode.Created);

        (await RowsAsync(ada))
            .CountBy(row => row.GetProperty("hosts")[0].GetString()!)
            .Select(pair => (pair.Key, pair.Value))
            .Order()
            .ShouldBe([("Ada Wharf", 2), ("Host 1", 2), ("Host 2", 4)]);
    }

    [Fact]
    public async Task A_seat_filled_in_order_takes_its_first_free_host()
    {
        var (ada, team) = await TeamAsync(3);
        var page = await ada.PublishAsync(draft =>
            (draft.Seats, draft.Fill) = (
                [
                    [team[2], team[0], team[1]],
                ],
                "inOrder"
            )
        );
        foreach (var start in new[] { Nine, Morning[2], Nine })
            await world.Guest().BookAsync(ada.Desk, page, start);
        (await RowsAsync(ada))
            .Select(row => row.GetProperty("hosts")[0].GetString())
            .Order()
            .ShouldBe(["Ada Wharf", "Host 2", "Host 2"]);
    }

    [Theory]
    [InlineData(true, "Host 1")]
    [InlineData(false, "Ada Wharf")]
    public async Task A_guest_who_comes_back_meets_the_same_host_where_the_page_says_so(bool keeps, string second)
    {
        var (ada, team) = await TeamAsync(2);
        var page = await ada.PublishAsync(draft => (draft.Seats, draft.KeepsHosts) = ([team], keeps));
        var first = await ada.PublishAsync(draft =>
            draft.Seats = [
                [team[0]],
            ]
        );
        // The first host is taken at nine, so the guest meets the second; the next time the first one's turn would have
        // come.
        await world.Guest().BookAsync(ada.Desk, first, Nine, email: "somebody@else.example");
        await world.Guest().BookAsync(ada.Desk, page, Nine, email: "Ottilie@wren-charters.example");
        await world.Guest().BookAsync(ada.Desk, page, Morning[2], email: "ottilie@WREN-charters.example");

        var rows = await RowsAsync(ada);
        rows.Single(row => row.GetProperty("start").GetString() == Morning[2])
            .GetProperty("hosts")[0]
            .GetString()
            .ShouldBe(second);
    }

    [Fact]
    public async Task A_line_up_can_be_changed_and_who_stays_in_a_seat_is_no_newcomer()
    {
        var (ada, team) = await TeamAsync(3);
        var made = await (
            await ada.PostAsync(
                "/api/pages",
                ada.Draft(draft =>
                        draft.Seats = [
                            [team[0], team[1]],
                            [team[2]],
                        ]
                    )
                    .Form()
            )
        ).ReadAsync(HttpStatusCode.Created);
        var path = $"/api/pages/{made.GetProperty("id").GetGuid()}";
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        await world.WithinAsync(workspace, db =>
            db.Set<SeatHost>()
                .ExecuteUpdateAsync(set => set.SetProperty(host => host.Since, Instant.FromUtc(2020, 1, 1, 0, 0)))
        );

        foreach (
            var (seats, version) in new[]
            {
                (new Guid[][] { [team[1], team[2]], [team[0]], [team[2]] }, 1),
                (
                    [
                        [team[2], team[1]],
                    ],
                    2
                ),
            }
        )
        {
            var changed = await (
                await ada.PutAsync(path, new { version, form = ada.Draft(draft => draft.Seats = seats).Form() })
            ).ReadAsync(HttpStatusCode.OK);
            changed
                .GetProperty("form")
                .GetProperty("times")
                .GetProperty("lineUp")
                .EnumerateArray()
                .Select(seat => seat.GetProperty("hostIds").EnumerateArray().Select(id => id.GetGuid()).ToArray())
                .ShouldBe(seats);
        }

        var rows = await world.WithinAsync(workspace, db => db.Set<SeatHost>().ToListAsync());
        rows.Count.ShouldBe(2);
        rows.Single(row => row.HostId == team[1]).Since.ShouldBe(Instant.FromUtc(2020, 1, 1, 0, 0));
        rows.Single(row => row.HostId == team[2]).Since.ShouldBe(World.Now);
    }

    [Fact]
    public async Task What_a_change_would_offer_counts_the_sessions_of_the_page()
    {
        var (ada, _) = await TeamAsync(1);
        var page = await ada.PublishAsync();
        await world.Guest().BookAsync(ada.Desk, page, Nine);
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var capped = ada.Draft(draft => draft.DailyCap = 1).Times();

        async Task<int> TuesdayAsync(Guid? pageId)
        {
            var supply = await (await ada.PostAsync("/api/pages/supply", new { times = capped, pageId })).ReadAsync(
                HttpStatusCode.OK
            );
            return supply
                .GetProperty("days")
                .EnumerateArray()
                .Single(day => day.GetProperty("date").GetString() == "2026-12-08")
                .GetProperty("openings")
                .GetArrayLength();
        }

        (await TuesdayAsync(id)).ShouldBe(0);
        (await TuesdayAsync(null)).ShouldBe(5);
    }

    [Fact]
    public async Task The_case_file_of_a_page_gives_the_openings_that_the_server_gives_and_tells_no_titles()
    {
        var (ada, team) = await TeamAsync(3);
        (
            await ada.JoinCalendarAsync(
                """
                BEGIN:VCALENDAR
                BEGIN:VEVENT
                UID:1
                DTSTART:20261208T083000Z
                DTEND:20261208T093000Z
                RRULE:FREQ=DAILY;COUNT=3
                SUMMARY:Secret meeting
                END:VEVENT
                END:VCALENDAR
                """
            )
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Hosts.Where(host => host.Id == team[1])
                .ExecuteUpdateAsync(set => set.SetProperty(host => host.WeeklyCap, 2))
        );
        var page = await ada.PublishAsync(draft =>
        {
            (draft.Seats, draft.DailyCap, draft.Places) = (
                [
                    [team[0], team[1]],
                    [team[1], team[2]],
                ],
                2,
                2
            );
            (draft.BufferBefore, draft.Notice, draft.Durations) = (10, 90, [30, 60]);
        });
        foreach (var start in new[] { Nine, Nine, Morning[4], "2026-12-09T08:00:00Z" })
            (await world.Guest().BookAsync(ada.Desk, page, start, oneMore: true)).StatusCode.ShouldBe(
                HttpStatusCode.Created
            );
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();

        foreach (
            var (from, to, duration) in new[] { ("2026-12-07", "2026-12-20", 30), ("2026-12-09", "2026-12-09", 60) }
        )
        {
            var file = await ada.Http.GetAsync($"/api/pages/{id}/case?from={from}&to={to}&duration={duration}");
            file.Content.Headers.ContentDisposition!.FileName!.ShouldContain(".case.json");
            var text = await file.Content.ReadAsByteArrayAsync();
            var reading = CaseFile.Read(text);

            reading.Faults.ShouldBeEmpty();
            var openings = OpeningsComputation.Openings(reading.Input!);
            var server = await world
                .Guest()
                .GetFromJsonAsync<JsonElement>(
                    $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from={from}&to={to}&duration={duration}"
                );
            openings
                .Select(opening => (opening.Start.ToString(), opening.End.ToString(), opening.PlacesLeft))
                .ShouldBe(
                    server
                        .GetProperty("openings")
                        .EnumerateArray()
                        .Select(opening =>
                            (
                                opening.GetProperty("start").GetString()!,
                                opening.GetProperty("end").GetString()!,
                                opening.GetProperty("placesLeft").GetInt32()
                            )
                        )
                );
            openings.ShouldNotBeEmpty();
            System.Text.Encoding.UTF8.GetString(text).ShouldNotContain("Secret");
        }

        (
            await (await ada.Http.GetAsync($"/api/pages/{id}/case?from=2027-12-07&to=2027-12-08")).FaultsAsync()
        ).ShouldContainKey("from");
        (await (await ada.Http.GetAsync($"/api/pages/{id}/case?duration=7")).FaultsAsync()).ShouldContainKey(
            "duration"
        );
        (await ada.Http.GetAsync($"/api/pages/{id}/case")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await (await world.SignUpAsync()).Http.GetAsync($"/api/pages/{id}/case")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await world.Guest().GetAsync($"/api/pages/{id}/case")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    /// <summary>
    /// A workspace with so many hosts: its coordinator first, then Host 1, Host 2 and so on, always open but for the
    /// page's hours.
    /// </summary>
    private async Task<(Coordinator Ada, Guid[] Team)> TeamAsync(int hosts)
    {
        var ada = await world.SignUpAsync();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var more = Enumerable
            .Range(1, hosts - 1)
            .Select(i => new Host
            {
                WorkspaceId = workspace,
                Name = $"Host {i}",
                Zone = "Europe/Copenhagen",
            })
            .ToList();
        await world.WithinAsync(workspace, db =>
        {
            db.Hosts.AddRange(more);
            return db.SaveChangesAsync();
        });
        return (ada, [ada.HostId, .. more.Select(host => host.Id)]);
    }

    private static int Count(HttpResponseMessage[] answers, HttpStatusCode status) =>
        answers.Count(answer => answer.StatusCode == status);

    private static async Task<List<JsonElement>> RowsAsync(Coordinator ada) =>
        [.. (await ada.GetAsync("/api/bookings")).GetProperty("rows").EnumerateArray()];

    /// <summary>The first opening of that Tuesday, with its places.</summary>
    private async Task<(string Start, int PlacesLeft)> PlacesAsync(Coordinator ada, string page)
    {
        var answer = await world
            .Guest()
            .GetFromJsonAsync<JsonElement>(
                $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from=2026-12-08&to=2026-12-08&duration=30"
            );
        var first = answer.GetProperty("openings")[0];
        return (first.GetProperty("start").GetString()!, first.GetProperty("placesLeft").GetInt32());
    }
}
