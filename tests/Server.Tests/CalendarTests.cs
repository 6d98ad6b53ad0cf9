namespace Server.Tests;

/// <summary>Calendars joined from files.</summary>
public class CalendarTests(World world)
{
    private const string Good =
        "BEGIN:VEVENT\r\nUID:good\r\nSUMMARY:Survey\r\nDTSTART:20261208T080000Z\r\nDTEND:20261208T090000Z\r\nEND:VEVENT\r\n";

    private static string Calendar(string events) =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//t//EN\r\n{events}END:VCALENDAR\r\n";

    [Fact]
    public async Task A_broken_file_is_refused_with_what_and_where_and_nothing_is_joined()
    {
        var ada = await world.SignUpAsync();
        var answer = await ada.JoinCalendarAsync(Calendar(Good).Replace("END:VEVENT\r\n", ""));

        var fault = (await answer.FaultsAsync())["file"];
        fault.ShouldContain("Line 9");
        fault.ShouldContain("VEVENT");
        (await ada.GetAsync("/api/calendars"))
            .EnumerateArray()
            .Select(calendar => calendar.GetProperty("kind").GetString())
            .ShouldBe(["builtIn"]);
    }

    [Fact]
    public async Task A_file_with_a_broken_event_loads_the_rest_and_lists_it()
    {
        var ada = await world.SignUpAsync();
        var joined = await (
            await ada.JoinCalendarAsync(
                Calendar(
                    Good
                        + "BEGIN:VEVENT\r\nUID:bad\r\nSUMMARY:Lost\r\nDTSTART;TZID=Not/There:20261208T080000\r\nEND:VEVENT\r\n"
                )
            )
        ).ReadAsync(HttpStatusCode.Created);

        joined.GetProperty("entries").GetInt32().ShouldBe(1);
        var unread = joined.GetProperty("unread")[0];
        unread.GetProperty("title").GetString().ShouldBe("Lost");
        unread.GetProperty("fault").GetString()!.ShouldContain("Not/There");
    }

    [Fact]
    public async Task A_broken_replacement_leaves_the_old_file_in_force_and_a_good_one_takes_its_place()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var joined = await (await ada.JoinCalendarAsync(Calendar(Good))).ReadAsync(HttpStatusCode.Created);
        var id = joined.GetProperty("id").GetGuid();
        const string taken = "2026-12-08T08:00:00Z";

        (await (await ada.ReplaceCalendarAsync(id, "no calendar at all")).FaultsAsync()).ShouldContainKey("file");
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(taken);

        await (
            await ada.ReplaceCalendarAsync(
                id,
                Calendar(Good.Replace("T080000Z", "T093000Z").Replace("T090000Z", "T100000Z"))
            )
        ).ReadAsync(HttpStatusCode.OK);
        var starts = await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08");
        starts.ShouldContain(taken);
        starts.ShouldNotContain("2026-12-08T09:30:00Z");
    }

    [Fact]
    public async Task A_calendar_taken_away_is_in_nobodys_way()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var joined = await (await ada.JoinCalendarAsync(Calendar(Good))).ReadAsync(HttpStatusCode.Created);
        (await ada.DeleteAsync($"/api/calendars/{joined.GetProperty("id").GetGuid()}")).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).Length.ShouldBe(6);
    }

    [Fact]
    public async Task A_calendar_that_is_not_asked_is_shown_and_in_nobodys_way()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var id = (await (await ada.JoinCalendarAsync(Calendar(Good))).ReadAsync(HttpStatusCode.Created))
            .GetProperty("id")
            .GetGuid();
        const string taken = "2026-12-08T08:00:00Z";
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(taken);

        await (
            await ada.PutAsync(
                $"/api/calendars/{id}",
                new
                {
                    name = "Club",
                    isAsked = false,
                    tentativeCounts = true,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(taken);
        // Nor is what lies past the time it was read for.
        (await world.Guest().BookAsync(ada.Desk, page, taken)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var bars = (await ada.GetAsync("/api/board?from=2026-12-08&days=1"))
            .GetProperty("days")[0]
            .GetProperty("lanes")[0]
            .GetProperty("bars")
            .EnumerateArray();
        bars.ShouldContain(bar =>
            bar.GetProperty("kind").GetString() == "free"
            && bar.GetProperty("source").GetString() == "Club, which is not asked"
        );
        (
            await (
                await ada.PutAsync(
                    $"/api/calendars/{id}",
                    new
                    {
                        name = " ",
                        isAsked = false,
                        tentativeCounts = true,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["name"]);
    }

    [Fact]
    public async Task Tentative_events_count_unless_the_calendar_says_not()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var both = Calendar(
            Good.Replace("SUMMARY", "STATUS:TENTATIVE\r\nSUMMARY")
                + Good.Replace("UID:good", "UID:sure").Replace("T080000Z", "T093000Z").Replace("T090000Z", "T100000Z")
        );
        var id = (await (await ada.JoinCalendarAsync(both)).ReadAsync(HttpStatusCode.Created))
            .GetProperty("id")
            .GetGuid();
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(
            "2026-12-08T08:00:00Z"
        );

        await (
            await ada.PutAsync(
                $"/api/calendars/{id}",
                new
                {
                    name = "Own",
                    isAsked = true,
                    tentativeCounts = false,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        var starts = await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08");
        starts.ShouldContain("2026-12-08T08:00:00Z");
        starts.ShouldNotContain("2026-12-08T09:30:00Z");
    }

    [Fact]
    public async Task Busy_times_are_told_at_a_secret_address_without_what_they_are()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        await (await ada.JoinCalendarAsync(Calendar(Good))).ReadAsync(HttpStatusCode.Created);
        (await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T10:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        (await ada.GetAsync("/api/me/busy-times")).GetProperty("path").ValueKind.ShouldBe(JsonValueKind.Null);

        var path = (await (await ada.PostAsync("/api/me/busy-times", new { })).ReadAsync(HttpStatusCode.OK))
            .GetProperty("path")
            .GetString()!;
        var file = await world.Guest().GetStringAsync(path);
        file.ShouldContain("20261208T080000Z/20261208T090000Z");
        file.ShouldContain("20261208T100000Z/20261208T103000Z");
        file.ShouldNotContain("Survey");
        file.ShouldNotContain("Ottilie");

        var next = (await (await ada.PostAsync("/api/me/busy-times", new { })).ReadAsync(HttpStatusCode.OK))
            .GetProperty("path")
            .GetString()!;
        (await world.Guest().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await ada.DeleteAsync("/api/me/busy-times")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await world.Guest().GetAsync(next)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_file_that_is_too_large_or_not_there_is_refused()
    {
        var ada = await world.SignUpAsync();
        (await (await ada.JoinCalendarAsync(Calendar(new string('\n', 5 * 1024 * 1024)))).FaultsAsync())["file"]
            .ShouldContain("5 MB");
        (await (await ada.JoinCalendarAsync(Calendar(Good), Guid.NewGuid())).FaultsAsync()).ShouldContainKey("hostId");
        await (await ada.PostAsync("/api/calendars", new { })).ReadAsync(HttpStatusCode.UnsupportedMediaType);
        var without = new MultipartFormDataContent { { new StringContent(ada.HostId.ToString()), "hostId" } };
        (await (await ada.SendAsync(HttpMethod.Post, "/api/calendars", without)).FaultsAsync()).ShouldContainKey(
            "file"
        );
    }

    [Fact]
    public async Task The_board_shows_hours_events_and_what_is_only_marked_free()
    {
        var ada = await world.SignUpAsync();
        await (
            await ada.JoinCalendarAsync(Calendar(Good + Good.Replace("UID:good", "UID:free\r\nTRANSP:TRANSPARENT")))
        ).ReadAsync(HttpStatusCode.Created);

        var board = await ada.GetAsync("/api/board?from=2026-12-08&days=1");

        board.GetProperty("hosts")[0].GetProperty("calendars").GetInt32().ShouldBe(1);
        var bars = board
            .GetProperty("days")[0]
            .GetProperty("lanes")[0]
            .GetProperty("bars")
            .EnumerateArray()
            .Select(bar =>
                $"{bar.GetProperty("kind").GetString()} {bar.GetProperty("fromMinute")}-{bar.GetProperty("toMinute")} {bar.GetProperty("title")}".Trim()
            );
        bars.ShouldBe(["hours 540-720", "hours 780-1020", "busy 540-600 Survey", "free 540-600 Survey"]);
    }
}
