using LooseLantern.Core.Openings;
using LooseLantern.Server.Data.Model;
using NpgsqlTypes;

namespace Server.Tests;

/// <summary>The board as it is told: what lies in each lane, what all and any are free for, and office hours.</summary>
public class BoardTests(World world)
{
    [Fact]
    public async Task A_lane_shows_hours_leave_events_holds_and_bookings_each_with_who_says_so()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Title = "Hull survey");
        (await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        await (await ada.JoinCalendarAsync(Scene.CalendarWith("Dentist"))).ReadAsync(HttpStatusCode.Created);
        await HoldAsync(ada, Instant.FromUtc(2026, 12, 8, 13, 0), Instant.FromUtc(2026, 12, 8, 14, 0));
        var hours = (await ada.OwnHostAsync()).GetProperty("hoursId").GetGuid();
        object[] day = [new { from = "09:00", to = "17:00" }];
        await (
            await ada.PutAsync(
                $"/api/hours/{hours}",
                new
                {
                    version = 1,
                    form = Scene.Hours(
                        "Usual",
                        day,
                        [
                            new
                            {
                                from = "2026-12-09",
                                to = "2026-12-09",
                                open = Array.Empty<object>(),
                                name = "Stocktaking",
                            },
                        ]
                    ),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);

        var days = (await ada.GetAsync("/api/board?from=2026-12-08&days=2")).GetProperty("days");
        Bars(days[0])
            .ShouldBe([
                "hours 540-1020 /Usual",
                "busy 600-660 Dentist/export",
                "held 840-900 held/a link or poll",
                "booked 540-570 Ottilie Wren/Hull survey Hs",
            ]);
        Bars(days[1]).ShouldBe(["leave 540-1020 Stocktaking/Usual"]);
        Runs(days[0], "allFree").ShouldBe(["570-600", "660-840", "900-1020"]);
        Runs(days[1], "anyFree").ShouldBeEmpty();
    }

    [Fact]
    public async Task All_and_any_are_those_of_the_chosen_hosts()
    {
        var scene = await Scene.MakeAsync(world);
        var room = await scene.RoomAsync();
        await (
            await scene.Owner.JoinCalendarAsync(
                Scene.CalendarWith("Haul out", "20261208T060000Z", "20261208T100000Z"),
                room
            )
        ).ReadAsync(HttpStatusCode.Created);
        var both = (
            await scene.Owner.GetAsync($"/api/board?from=2026-12-08&days=1&host={room}&host={scene.Owner.HostId}")
        ).GetProperty("days")[0];
        Runs(both, "allFree").ShouldBe(["660-720", "780-1020"]);
        Runs(both, "anyFree").ShouldBe(["0-420", "540-1440"]);
        Runs(
                (
                    await scene.Owner.GetAsync($"/api/board?from=2026-12-08&days=1&host={scene.Owner.HostId}")
                ).GetProperty("days")[0],
                "anyFree"
            )
            .ShouldBe(["540-720", "780-1020"]);
    }

    [Fact]
    public async Task Days_and_minutes_are_in_the_zone_that_is_asked_for()
    {
        var ada = await world.SignUpAsync();
        await (await ada.JoinCalendarAsync(Scene.CalendarWith("Dentist"))).ReadAsync(HttpStatusCode.Created);
        var tokyo = await ada.GetAsync("/api/board?from=2026-12-08&days=1&zone=Asia/Tokyo");
        Bars(tokyo.GetProperty("days")[0]).ShouldContain("busy 1080-1140 Dentist/export");
        (await (await ada.Http.GetAsync("/api/board?zone=Nowhere/Town")).FaultsAsync()).Keys.ShouldBe(["zone"]);
    }

    [Fact]
    public async Task Who_may_not_read_titles_sees_busy()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        await (await bo.JoinCalendarAsync(Scene.CalendarWith("Dentist"))).ReadAsync(HttpStatusCode.Created);
        var path = $"/api/board?from=2026-12-08&days=1&host={bo.HostId}";
        Bars((await bo.GetAsync(path)).GetProperty("days")[0]).ShouldContain("busy 600-660 Dentist/export");
        Bars((await scene.Owner.GetAsync(path)).GetProperty("days")[0]).ShouldContain("busy 600-660 busy/export");
        await (
            await bo.PutAsync(
                $"/api/me/acting/{scene.OwnerId}",
                new
                {
                    mayOffer = false,
                    mayBook = false,
                    mayMove = false,
                    seesTitles = true,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        Bars((await scene.Owner.GetAsync(path)).GetProperty("days")[0]).ShouldContain("busy 600-660 Dentist/export");
    }

    [Fact]
    public async Task Nor_are_they_told_what_an_event_is_called_that_could_not_be_read()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        await (
            await bo.JoinCalendarAsync(
                "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:1\nSUMMARY:Dentist\nEND:VEVENT\nEND:VCALENDAR\n"
            )
        ).ReadAsync(HttpStatusCode.Created);
        (await bo.GetAsync("/api/calendars")).ToString().ShouldContain("Dentist");
        var told = (await scene.Owner.GetAsync("/api/calendars")).ToString();
        told.ShouldNotContain("Dentist");
        told.ShouldContain("an event");
    }

    [Fact]
    public async Task Office_hours_are_cut_into_openings_and_stand_on_the_board()
    {
        var ada = await world.SignUpAsync();
        // Tuesdays 22:30 to 00:30, with the one of the 15th left out: over midnight, 45 minutes from its own start,
        // twice.
        var page = await ada.PublishAsync(draft =>
            Office(
                draft,
                45,
                whole: false,
                new
                {
                    start = "2026-12-08T22:30:00",
                    length = 120,
                    rule = "FREQ=WEEKLY;BYDAY=TU",
                    without = new[] { "2026-12-15" },
                }
            )
        );
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-07", "2026-12-24", 45)).ShouldBe([
            "2026-12-08T21:30:00Z",
            "2026-12-08T22:15:00Z",
            "2026-12-22T21:30:00Z",
            "2026-12-22T22:15:00Z",
        ]);

        var board = await ada.GetAsync("/api/board?from=2026-12-08&days=9");
        Bars(board.GetProperty("days")[0]).ShouldContain("block 1350-1440 Talk/office hours Ta");
        Bars(board.GetProperty("days")[1]).ShouldContain("block 0-30 Talk/office hours Ta");
        Bars(board.GetProperty("days")[7]).ShouldNotContain(bar => bar.StartsWith("block", StringComparison.Ordinal));
        // It takes no time: her hours of the next morning are as free as before.
        Runs(board.GetProperty("days")[1], "allFree").ShouldBe(["540-720", "780-1020"]);

        // The case file gives the same, by a dated change for each date and an empty week.
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var file = await ada.GetAsync($"/api/pages/{id}/case?from=2026-12-07&to=2026-12-24");
        var hours = file.GetProperty("page").GetProperty("hours");
        hours.GetProperty("week").EnumerateObject().ShouldAllBe(day => day.Value.GetArrayLength() == 0);
        hours.GetProperty("changes").GetArrayLength().ShouldBeGreaterThanOrEqualTo(4);
        OpeningsComputation
            .Openings(
                LooseLantern.Formats.Cases.CaseFile.Read(System.Text.Encoding.UTF8.GetBytes(file.GetRawText())).Input!
            )
            .Count.ShouldBe(4);
    }

    [Fact]
    public async Task A_block_offered_whole_is_one_opening_of_its_length()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            Office(
                draft,
                150,
                whole: true,
                new
                {
                    start = "2026-12-08T09:10:00",
                    length = 150,
                    rule = (string?)null,
                    without = Array.Empty<string>(),
                }
            )
        );
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-07", "2026-12-20", 150)).ShouldBe([
            "2026-12-08T08:10:00Z",
        ]);
        (await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T08:10:00Z", 150)).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-07", "2026-12-20", 150)).ShouldBeEmpty();
    }

    public static TheoryData<string, Action<PageDraft>> Faults() =>
        new()
        {
            { "times.blocks.list", page => Office(page, 30, whole: false) },
            { "times.blocks.list[0].length", page => Office(page, 30, whole: false, Once("2026-12-08T09:00:00", 0)) },
            {
                "times.blocks.list[0].rule",
                page =>
                    Office(
                        page,
                        30,
                        whole: false,
                        new
                        {
                            start = "2026-12-08T09:00:00",
                            length = 60,
                            rule = "FREQ=SOMETIMES",
                            without = Array.Empty<string>(),
                        }
                    )
            },
            {
                "times.blocks.list[0].rule",
                page =>
                    Office(
                        page,
                        30,
                        whole: false,
                        new
                        {
                            start = "2026-12-08T09:00:00",
                            length = 60,
                            rule = "FREQ=DAILY;UNTIL=20261207T235959",
                            without = Array.Empty<string>(),
                        }
                    )
            },
            {
                "times.blocks.list[1].start",
                page => Office(page, 30, whole: false, Once("2026-12-08T09:00:00", 60), Once("2026-12-08T09:30:00", 60))
            },
            { "times.blocks", page => Office(page, 30, whole: true, Once("2026-12-08T09:00:00", 60)) },
            {
                "times.hoursMode",
                page =>
                {
                    Office(page, 30, whole: false, Once("2026-12-08T09:00:00", 60));
                    page.HoursMode = "hosts";
                }
            },
            {
                "times.stepFrom",
                page =>
                {
                    Office(page, 30, whole: false, Once("2026-12-08T09:00:00", 60));
                    page.StepFrom = "clock";
                }
            },
        };

    [Theory, MemberData(nameof(Faults), DisableDiscoveryEnumeration = true)]
    public async Task Bad_office_hours_are_named_and_not_saved(string field, Action<PageDraft> change)
    {
        var ada = await world.SignUpAsync();
        (await (await ada.PostAsync("/api/pages", ada.Draft(change).Form())).FaultsAsync()).Keys.ShouldContain(field);
        (await ada.PagesAsync()).GetArrayLength().ShouldBe(0);
    }

    private static object Once(string start, int length) =>
        new
        {
            start,
            length,
            rule = (string?)null,
            without = Array.Empty<string>(),
        };

    private static void Office(PageDraft draft, int duration, bool whole, params object[] list)
    {
        (draft.Durations, draft.Step, draft.StepFrom, draft.HoursMode) = ([duration], duration, "open", "page");
        draft.Blocks = new { whole, list };
    }

    private async Task HoldAsync(Coordinator of, Instant from, Instant to)
    {
        var workspace = await world.WorkspaceOfAsync(of.Desk);
        await world.WithinAsync(workspace, async db =>
        {
            db.Commitments.Add(
                new CommitmentRow
                {
                    WorkspaceId = workspace,
                    HostId = of.HostId,
                    HolderId = Guid.NewGuid(),
                    Kind = CommitmentKind.Hold,
                    Span = new NpgsqlRange<Instant>(from, true, to, false),
                    BufferBefore = 0,
                    BufferAfter = 0,
                }
            );
            return await db.SaveChangesAsync();
        });
    }

    private static string[] Bars(JsonElement day) =>
        [
            .. day.GetProperty("lanes")[0]
                .GetProperty("bars")
                .EnumerateArray()
                .Select(bar =>
                    $"{bar.GetProperty("kind").GetString()} {bar.GetProperty("fromMinute")}-{bar.GetProperty("toMinute")} {bar.GetProperty("title")}/{bar.GetProperty("source")} {bar.GetProperty("mark")}".TrimEnd()
                ),
        ];

    private static string[] Runs(JsonElement day, string which) =>
        [
            .. day.GetProperty(which)
                .EnumerateArray()
                .Select(run => $"{run.GetProperty("fromMinute")}-{run.GetProperty("toMinute")}"),
        ];
}
