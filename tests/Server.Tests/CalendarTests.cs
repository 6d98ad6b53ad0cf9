namespace Server.Tests;

/// <summary>Calendars joined from files.</summary>
public class CalendarTests(World world)
{
    private const string Good = "BEGIN:VEVENT\r\nUID:good\r\nSUMMARY:Survey\r\nDTSTART:20261208T080000Z\r\nDTEND:20261208T090000Z\r\nEND:VEVENT\r\n";

    private static string Calendar(string events) => $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//t//EN\r\n{events}END:VCALENDAR\r\n";

    [Fact]
    public async Task A_broken_file_is_refused_with_what_and_where_and_nothing_is_joined()
    {
        var ada = await world.SignUpAsync();
        var answer = await ada.JoinCalendarAsync(Calendar(Good).Replace("END:VEVENT\r\n", ""));

        var fault = (await answer.FaultsAsync())["file"];
        fault.ShouldContain("Line 9");
        fault.ShouldContain("VEVENT");
        (await ada.GetAsync("/api/calendars")).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_file_with_a_broken_event_loads_the_rest_and_lists_it()
    {
        var ada = await world.SignUpAsync();
        var joined = await (await ada.JoinCalendarAsync(Calendar(
            Good + "BEGIN:VEVENT\r\nUID:bad\r\nSUMMARY:Lost\r\nDTSTART;TZID=Not/There:20261208T080000\r\nEND:VEVENT\r\n"))).ReadAsync(HttpStatusCode.Created);

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

        await (await ada.ReplaceCalendarAsync(id, Calendar(Good.Replace("T080000Z", "T093000Z").Replace("T090000Z", "T100000Z")))).ReadAsync(HttpStatusCode.OK);
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
        (await ada.DeleteAsync($"/api/calendars/{joined.GetProperty("id").GetGuid()}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).Length.ShouldBe(6);
    }

    [Fact]
    public async Task A_file_that_is_too_large_or_not_there_is_refused()
    {
        var ada = await world.SignUpAsync();
        (await (await ada.JoinCalendarAsync(Calendar(new string('\n', 5 * 1024 * 1024)))).FaultsAsync())["file"].ShouldContain("5 MB");
        (await (await ada.JoinCalendarAsync(Calendar(Good), Guid.NewGuid())).FaultsAsync()).ShouldContainKey("hostId");
        (await (await ada.PostAsync("/api/calendars", new { })).FaultsAsync()).ShouldContainKey("file");
    }

    [Fact]
    public async Task The_board_shows_hours_events_and_what_is_only_marked_free()
    {
        var ada = await world.SignUpAsync();
        await (await ada.JoinCalendarAsync(Calendar(Good + Good.Replace("UID:good", "UID:free\r\nTRANSP:TRANSPARENT")))).ReadAsync(HttpStatusCode.Created);

        var board = await ada.GetAsync("/api/board?from=2026-12-08&days=1");

        board.GetProperty("hosts")[0].GetProperty("calendars").GetInt32().ShouldBe(1);
        var bars = board.GetProperty("days")[0].GetProperty("lanes")[0].GetProperty("bars").EnumerateArray()
            .Select(bar => $"{bar.GetProperty("kind").GetString()} {bar.GetProperty("fromMinute")}-{bar.GetProperty("toMinute")} {bar.GetProperty("title")}".Trim());
        bars.ShouldBe(["hours 540-720", "hours 780-1020", "busy 540-600 Survey", "free 540-600 Survey"]);
    }
}
