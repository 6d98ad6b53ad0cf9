namespace Server.Tests;

/// <summary>What the public routes say of a page.</summary>
public class OpeningsTests(World world)
{
    private static string Calendar(string lines) =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//t//EN\r\nBEGIN:VEVENT\r\nUID:a\r\n{lines.ReplaceLineEndings("\r\n")}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";

    [Theory]
    [InlineData(
        "DTSTART;TZID=Europe/Copenhagen:20261208T093000\nDTEND;TZID=Europe/Copenhagen:20261208T113000",
        "08:00 10:30"
    )]
    [InlineData("DTSTART;VALUE=DATE:20261208", "")]
    [InlineData("DTSTART;VALUE=DATE:20261208\nTRANSP:TRANSPARENT", "08:00 08:30 09:00 09:30 10:00 10:30")]
    [InlineData("DTSTART:20261101T090000\nDURATION:PT1H\nRRULE:FREQ=DAILY", "09:00 09:30 10:00 10:30")]
    [InlineData(
        "DTSTART;TZID=Tokyo Standard Time:20261208T170000\nDURATION:PT30M\nSTATUS:CONFIRMED",
        "08:30 09:00 09:30 10:00 10:30"
    )]
    public async Task Follow_from_an_uploaded_calendar(string lines, string expected)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        await (await ada.JoinCalendarAsync(Calendar(lines))).ReadAsync(HttpStatusCode.Created);

        var starts = await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08");

        string.Join(' ', starts.Select(start => start[11..16])).ShouldBe(expected);
    }

    [Fact]
    public async Task A_repeating_event_is_in_the_way_far_ahead_too()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.AheadDays = 365);
        await (
            await ada.JoinCalendarAsync(Calendar("DTSTART:20240101T090000\nDURATION:PT3H\nRRULE:FREQ=DAILY"))
        ).ReadAsync(HttpStatusCode.Created);

        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-07", "2027-12-07")).ShouldBeEmpty();
        // The board may look further than any page offers, where nothing has been read yet.
        var board = await ada.GetAsync("/api/board?from=2031-06-02&days=1");
        board
            .GetProperty("days")[0]
            .GetProperty("lanes")[0]
            .GetProperty("bars")
            .EnumerateArray()
            .ShouldContain(bar => bar.GetProperty("kind").GetString() == "busy");
    }

    [Fact]
    public async Task What_cannot_be_read_far_ahead_is_never_taken_for_free()
    {
        // Every hour: five years of it are more than is kept of one event.
        var ada = await world.SignUpAsync();
        await (
            await ada.JoinCalendarAsync(Calendar("DTSTART:20261201T000000\nDURATION:PT1H\nRRULE:FREQ=HOURLY"))
        ).ReadAsync(HttpStatusCode.Created);
        var board = await ada.GetAsync("/api/board?from=2031-06-02&days=1");
        board.GetProperty("days").GetArrayLength().ShouldBe(1);

        var calendar = (await ada.GetAsync("/api/calendars"))[0];
        calendar.GetProperty("unread").GetArrayLength().ShouldBe(0);
        var page = await ada.PublishAsync(draft => draft.AheadDays = 365);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-07", "2027-12-07")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("2199-01-01")]
    [InlineData("1980-01-01")]
    public async Task A_question_far_outside_the_window_is_answered_without_reading_that_far(string date)
    {
        var ada = await world.SignUpAsync();
        await (
            await ada.JoinCalendarAsync(Calendar("DTSTART:20261201T090000\nDURATION:PT1H\nRRULE:FREQ=DAILY"))
        ).ReadAsync(HttpStatusCode.Created);
        var page = await ada.PublishAsync();
        var before = (await ada.GetAsync("/api/calendars"))[0].GetProperty("entries").GetInt32();

        (await world.Guest().StartsAsync(ada.Desk, page, date, date)).ShouldBeEmpty();
        (await world.Guest().BookAsync(ada.Desk, page, date + "T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );

        (await ada.GetAsync("/api/calendars"))[0].GetProperty("entries").GetInt32().ShouldBe(before);
        (await (await ada.Http.GetAsync($"/api/board?from={date}")).FaultsAsync()).ShouldContainKey("from");
    }

    [Fact]
    public async Task Notice_and_window_hold()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
        {
            draft.Notice = 24 * 60 + 90;
            draft.AheadDays = 2;
        });

        // It is Monday 08:00: 25 hours and a half later is Tuesday 09:30, and two days after today is Wednesday.
        var starts = await world.Guest().StartsAsync(ada.Desk, page, "2026-12-07", "2026-12-31");
        starts[0].ShouldBe("2026-12-08T08:30:00Z");
        starts[^1].ShouldBe("2026-12-09T10:30:00Z");
    }

    [Fact]
    public async Task Hours_of_host_and_page_together_are_where_both_are_open()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
        {
            draft.HoursMode = "both";
            draft.Day = [new { from = "11:00", to = "14:00" }];
        });
        // The host's usual hours have a break from 12 to 13.
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldBe([
            "2026-12-08T10:00:00Z",
            "2026-12-08T10:30:00Z",
            "2026-12-08T12:00:00Z",
            "2026-12-08T12:30:00Z",
        ]);
    }

    [Theory]
    [InlineData("from=2026-12-08&to=2026-12-07", "to")]
    [InlineData("from=2026-12-08&to=2028-12-07", "to")]
    [InlineData("from=8.12.2026&to=2026-12-07", "from")]
    [InlineData("to=2026-12-07", "from")]
    [InlineData("from=2026-12-07&to=2026-12-08&duration=31", "duration")]
    [InlineData("from=2026-12-07&to=2026-12-08&duration=half", "duration")]
    public async Task A_bad_question_is_refused_with_its_field(string query, string field)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        (
            await (
                await world.Guest().GetAsync($"/api/public/desks/{ada.Desk}/pages/{page}/openings?{query}")
            ).FaultsAsync()
        ).Keys.ShouldContain(field);
    }

    [Fact]
    public async Task A_page_says_what_a_guest_needs_and_nothing_more()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Title = "Rig check");

        var shown = await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{page}");

        shown.GetProperty("title").GetString().ShouldBe("Rig check");
        shown.GetProperty("seats")[0][0].GetString().ShouldBe("Ada Wharf");
        shown.GetProperty("now").GetString().ShouldBe("2026-12-07T07:00:00Z");
        shown.GetProperty("lastDate").GetString().ShouldBe("2027-01-04");
        shown.GetRawText().ShouldNotContain("@");
    }

    [Fact]
    public async Task An_unpublished_page_is_not_there_for_guests()
    {
        var ada = await world.SignUpAsync();
        var draft = ada.Draft();
        var page = await (await ada.PostAsync("/api/pages", draft.Form())).ReadAsync(HttpStatusCode.Created);

        foreach (var path in new[] { "", "/openings?from=2026-12-08&to=2026-12-08" })
            (
                await world.Guest().GetAsync($"/api/public/desks/{ada.Desk}/pages/{draft.Address}{path}")
            ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await world.Guest().BookAsync(ada.Desk, draft.Address, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );

        var id = page.GetProperty("id").GetGuid();
        var published = await (await ada.PostAsync($"/api/pages/{id}/publish", new { version = 1 })).ReadAsync(
            HttpStatusCode.OK
        );
        (await world.Guest().GetAsync($"/api/public/desks/{ada.Desk}/pages/{draft.Address}")).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        await ada.PostAsync(
            $"/api/pages/{id}/unpublish",
            new { version = published.GetProperty("version").GetInt32() }
        );
        (await world.Guest().GetAsync($"/api/public/desks/{ada.Desk}/pages/{draft.Address}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }
}
