using LooseLantern.Server.Data.Model;

namespace Server.Tests;

/// <summary>What is due later: reminders, and what waits for the end of the night or for the mail of the day.</summary>
public sealed class ReminderTests : IAsyncLifetime
{
    private MailScene? _scene;

    private MailScene Scene => _scene!;

    public async ValueTask InitializeAsync() => _scene = await MailScene.MakeAsync();

    public async ValueTask DisposeAsync()
    {
        if (_scene is not null)
            await _scene.DisposeAsync();
    }

    [Fact]
    public async Task Reminders_move_and_go_with_the_booking()
    {
        var path = await Scene.BookAsync(await Scene.Ada.PublishAsync(), "2026-12-10T08:00:00Z");
        (await DueAsync(MessageKind.ReminderForGuest)).ShouldBe(["2026-12-09T08:00:00Z", "2026-12-10T07:00:00Z"]);
        (await DueAsync(MessageKind.ReminderForHost)).ShouldBe(["2026-12-09T08:00:00Z", "2026-12-10T07:00:00Z"]);

        await (await Scene.MoveAsync(path, "2026-12-11T09:30:00Z")).ReadAsync(HttpStatusCode.NoContent);
        (await DueAsync(MessageKind.ReminderForGuest)).ShouldBe(["2026-12-10T09:30:00Z", "2026-12-11T08:30:00Z"]);
        (await Scene.MessagesAsync(MessageKind.ReminderForHost)).ShouldAllBe(row => row.Text.Contains("10:30–11:00"));
        await (await Scene.World.Guest().PostAsJsonAsync(path + "/cancel", new { word = "" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await Scene.MessagesAsync(MessageKind.ReminderForGuest, MessageKind.ReminderForHost)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_reminder_goes_out_when_it_is_due_and_not_before_and_one_too_late_is_not_written()
    {
        await Scene.BookAsync(
            await Scene.Ada.PublishAsync(draft => draft.Post = PagePost.Usual with { Reminders = [48 * 60, 24 * 60] })
        );
        // Two days before has passed when it is booked.
        (await Scene.MessagesAsync(MessageKind.ReminderForHost)).Count.ShouldBe(1);
        await Scene.MailAsync(Scene.AdasAddress, "New: Ottilie Wren, Talk");
        Scene.Box(Scene.AdasAddress).Count.ShouldBe(1);
        Scene.World.Clock.Advance(Duration.FromHours(2));
        (await Scene.MailAsync(Scene.AdasAddress, "Reminder: Ottilie Wren")).Text.ShouldContain("09:00–09:30");
        (await Scene.MailAsync(MailScene.Guest, "Reminder: Talk")).Text.ShouldContain("/booking/");
    }

    [Fact]
    public async Task Hosts_of_a_group_are_reminded_once_whoever_of_its_guests_goes()
    {
        var page = await Scene.Ada.PublishAsync(draft => draft.Places = 3);
        var first = await Scene.BookAsync(page, "2026-12-10T08:00:00Z", "a@wren.example");
        var second = await Scene.BookAsync(page, "2026-12-10T08:00:00Z", "b@wren.example");
        await Scene.BookAsync(page, "2026-12-10T08:00:00Z", "c@wren.example");
        (await DueAsync(MessageKind.ReminderForHost)).Count.ShouldBe(2);
        await (await Scene.World.Guest().PostAsJsonAsync(first + "/cancel", new { word = "" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await DueAsync(MessageKind.ReminderForHost)).ShouldBe(["2026-12-09T08:00:00Z", "2026-12-10T07:00:00Z"]);
        await (await Scene.MoveAsync(second, "2026-12-11T09:00:00Z")).ReadAsync(HttpStatusCode.NoContent);
        (await DueAsync(MessageKind.ReminderForHost)).ShouldBe([
            "2026-12-09T08:00:00Z",
            "2026-12-10T07:00:00Z",
            "2026-12-10T09:00:00Z",
            "2026-12-11T08:00:00Z",
        ]);
    }

    [Fact]
    public async Task A_page_reminds_as_often_as_it_says_and_who_wants_none_gets_none()
    {
        (
            await Scene.Ada.PutAsync("/api/me/notifications", Notifications.Usual with { Reminded = false })
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        await Scene.BookAsync(
            await Scene.Ada.PublishAsync(draft => draft.Post = PagePost.Usual with { Reminders = [30, 120, 1440] }),
            "2026-12-10T10:00:00Z"
        );
        (await DueAsync(MessageKind.ReminderForGuest)).ShouldBe([
            "2026-12-09T10:00:00Z",
            "2026-12-10T08:00:00Z",
            "2026-12-10T09:30:00Z",
        ]);
        (await Scene.MessagesAsync(MessageKind.ReminderForHost)).ShouldBeEmpty();
        var bad = await Scene.Ada.PostAsync(
            "/api/pages",
            Scene.Ada.Draft(draft => draft.Post = PagePost.Usual with { Reminders = [60, 60] }).Form()
        );
        (await bad.FaultsAsync()).Keys.ShouldBe(["post.reminders"]);
    }

    [Fact]
    public async Task In_quiet_hours_comes_what_can_not_wait()
    {
        // It is 8:00 in Copenhagen.
        (
            await Scene.Ada.PutAsync(
                "/api/me/notifications",
                Notifications.Usual with
                {
                    QuietFrom = new LocalTime(22, 0),
                    QuietUntil = new LocalTime(8, 45),
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var page = await Scene.Ada.PublishAsync();
        await Scene.BookAsync(page);
        (await Scene.MessagesAsync(MessageKind.BookedForHost))
            .Single()
            .DueAt.ShouldBe(Instant.FromUtc(2026, 12, 7, 7, 45));
        await Scene.BookAsync(page, "2026-12-07T08:30:00Z", "soon@wren-charters.example");
        (await Scene.MessagesAsync(MessageKind.BookedForHost))
            .Single(row => row.Text.Contains("soon@", StringComparison.Ordinal))
            .DueAt.ShouldBe(World.Now);
        (
            await (
                await Scene.Ada.PutAsync(
                    "/api/me/notifications",
                    Notifications.Usual with
                    {
                        QuietFrom = new LocalTime(22, 0),
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["quietUntil"]);
    }

    [Fact]
    public async Task Once_a_day_all_comes_in_one_mail_and_others_hear_as_they_chose()
    {
        (
            await Scene.Ada.PutAsync(
                "/api/me/notifications",
                Notifications.Usual with
                {
                    Own = Notify.Daily,
                    Reminded = false,
                    DailyAt = new LocalTime(9, 0),
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var bo = await new Scene(Scene.World, Scene.Ada).JoinAsync(isCoordinator: true);
        (
            await bo.PutAsync("/api/me/notifications", Notifications.Usual with { Others = Notify.AtOnce })
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var page = await Scene.Ada.PublishAsync();
        await Scene.BookAsync(page);
        await Scene.BookAsync(page, MailScene.Ten, "hanako@mori-sail.example", "Hanako Mori");
        (await Scene.MessagesAsync(MessageKind.BookedForHost))
            .Count(row => row.State == MessageState.Gathered)
            .ShouldBe(2);
        (await Scene.MessagesAsync(MessageKind.BookedForHost)).Count(row => row.ToName == "Bo Keel").ShouldBe(2);
        Scene.World.Clock.Advance(Duration.FromMinutes(61));
        var daily = await Scene.MailAsync(Scene.AdasAddress, "2 today");
        daily.Text.ShouldContain("Ottilie Wren has booked Talk.");
        daily.Text.ShouldContain("Hanako Mori has booked Talk.");
        Scene.Box(Scene.AdasAddress).Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_host_in_whose_calendar_nothing_can_be_written_gets_the_appointment_by_mail()
    {
        var path = await Scene.BookAsync(await Scene.Ada.PublishAsync());
        var invited = await Scene.MailAsync(Scene.AdasAddress, "New: Ottilie Wren, Talk");
        invited.Method.ShouldBe("REQUEST");
        var text = MailScene.Unfolded(invited.Calendar!);
        text.ShouldContain("mailto:" + MailScene.Guest);
        text.ShouldContain("SUMMARY:Talk: Ottilie Wren");
        text.ShouldNotContain(path.Split('/')[^1]);
        await (await Scene.World.Guest().PostAsJsonAsync(path + "/cancel", new { word = "" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await Scene.MailAsync(Scene.AdasAddress, "Cancelled: Ottilie Wren")).Method.ShouldBe("CANCEL");
    }

    private async Task<List<string>> DueAsync(MessageKind kind) =>
        (await Scene.MessagesAsync(kind)).ConvertAll(row => row.DueAt.ToString());
}
