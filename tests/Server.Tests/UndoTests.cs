using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using static Server.Tests.MailScene;

namespace Server.Tests;

/// <summary>What one press did is taken back as long as its mail waits.</summary>
public sealed class UndoTests(World world)
{
    [Fact]
    public async Task A_booking_given_away_comes_back_and_nobody_ever_heard_of_it()
    {
        await using var scene = await WaitingAsync();
        var ada = scene.Ada;
        var bo = await new Scene(scene.World, ada).JoinAsync(isHost: true, letInviter: true);
        var (page, bos) = (await ada.PublishAsync(), await ada.PublishAsync(draft => draft.HostId = bo.HostId));
        await scene.BookAsync(page);
        var row = await scene.RowAsync();
        await AssertUndoAsync(
            scene,
            () =>
                ada.PostAsync(
                    $"/api/sessions/{row.Text("sessionId")}/hosts",
                    new { from = ada.HostId, to = bo.HostId }
                ),
            "Gave the booking of Ottilie Wren from Ada Wharf to Bo Keel"
        );
        (await scene.RowAsync()).GetProperty("hosts")[0].GetString().ShouldBe("Ada Wharf");
        (await scene.World.Guest().StartsAsync(ada.Desk, bos, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
        (await scene.World.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(Nine);
        (await scene.DetailAsync())
            .GetProperty("done")
            .EnumerateArray()
            .Select(line => line.Text("what"))
            .ShouldBe(
                [
                    "Gave the booking of Ottilie Wren from Ada Wharf to Bo Keel",
                    "Took back: Gave the booking of Ottilie Wren from Ada Wharf to Bo Keel",
                ],
                ignoreOrder: true
            );
    }

    [Fact]
    public async Task A_moved_booking_is_where_it_was_with_its_reminders_and_a_newer_sequence()
    {
        await using var scene = await WaitingAsync();
        var ada = scene.Ada;
        await scene.BookAsync(await ada.PublishAsync());
        var id = (await scene.RowAsync()).Id();
        var before = await RemindersAsync(scene);
        before.ShouldNotBeEmpty();
        await AssertUndoAsync(
            scene,
            () => ada.PostAsync($"/api/bookings/{id}/move", new { start = "2026-12-09T09:00:00Z" }),
            "Moved the booking of Ottilie Wren"
        );
        (await scene.RowAsync()).Text("start").ShouldBe(Nine);
        (await RemindersAsync(scene)).ShouldBe(before);
        (await LookAsync(scene, db => db.BookingMoves.IgnoreQueryFilters().CountAsync())).ShouldBe(0);
        (await LookAsync(scene, db => db.Sessions.IgnoreQueryFilters().SingleAsync())).Sequence.ShouldBe(2);
    }

    [Fact]
    public async Task A_cancelled_booking_stands_again_and_what_was_asked_for_waits_again()
    {
        await using var scene = await WaitingAsync();
        var ada = scene.Ada;
        var guest = await scene.BookAsync(await ada.PublishAsync());
        var id = (await scene.RowAsync()).Id();
        await AssertUndoAsync(
            scene,
            () => ada.PostAsync($"/api/bookings/{id}/cancel", new { word = "Sorry." }),
            "Cancelled the booking of Ottilie Wren"
        );
        (await scene.RowAsync()).Id().ShouldBe(id);
        (await scene.SeeAsync(guest)).GetProperty("cancelledAt").ValueKind.ShouldBe(JsonValueKind.Null);
        (await RemindersAsync(scene)).ShouldNotBeEmpty();

        await scene.BookAsync(await ada.PublishAsync(draft => draft.ApprovalHours = 24), Ten);
        var asked = (await ada.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .Single(row => row.GetProperty("waitsUntil").ValueKind != JsonValueKind.Null)
            .Id();
        await AssertUndoAsync(scene, () => ada.PostAsync($"/api/bookings/{asked}/accept", new { }), null);
        await AssertUndoAsync(scene, () => ada.PostAsync($"/api/bookings/{asked}/decline", new { word = "" }), null);
        (await ada.PostAsync($"/api/bookings/{asked}/accept", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task Once_its_minute_is_over_the_mail_goes_and_it_is_told_what_to_do_instead()
    {
        await using var scene = await WaitingAsync();
        var ada = scene.Ada;
        await scene.BookAsync(await ada.PublishAsync());
        var id = (await scene.RowAsync()).Id();
        await ada.PostAsync($"/api/bookings/{id}/cancel", new { word = "Sorry." });
        var act = (await ada.GetAsync("/api/undo"))[0].Id();
        (await scene.MessagesAsync(MessageKind.CancelledForGuest)).ShouldHaveSingleItem().SentAt.ShouldBeNull();
        scene.World.Clock.Advance(Duration.FromSeconds(61));
        await scene.MailAsync(MailScene.Guest, "Cancelled");
        (await ada.GetAsync("/api/undo")).GetArrayLength().ShouldBe(0);
        (await (await ada.PostAsync($"/api/undo/{act}", new { })).ReadAsync(HttpStatusCode.Conflict))
            .Text("title")
            .ShouldContain("too late");
        (await ada.GetAsync("/api/bookings")).GetProperty("rows").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task What_the_guest_changed_since_is_not_taken_back_and_they_hear_of_both_in_order()
    {
        await using var scene = await WaitingAsync();
        var ada = scene.Ada;
        var guest = await scene.BookAsync(await ada.PublishAsync());
        var id = (await scene.RowAsync()).Id();
        await ada.PostAsync($"/api/bookings/{id}/move", new { start = Ten });
        var act = (await ada.GetAsync("/api/undo"))[0].Id();
        await (await scene.MoveAsync(guest, HalfPastNine)).ReadAsync(HttpStatusCode.NoContent);
        (await ada.PostAsync($"/api/undo/{act}", new { })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await scene.RowAsync()).Text("start").ShouldBe(HalfPastNine);
        // Nobody's clock moved: what waited goes out with what follows it.
        await Outside.AwaitAsync(
            () =>
                Task.FromResult(
                    scene
                        .Box(MailScene.Guest)
                        .Count(mail =>
                            mail.Subject.Contains("moved", StringComparison.OrdinalIgnoreCase)
                            || mail.Subject.Contains("New time", StringComparison.OrdinalIgnoreCase)
                        ) == 2
                        ? "both"
                        : null
                ),
            "both moves in the box"
        );
    }

    [Fact]
    public async Task Time_that_somebody_else_has_by_now_is_not_given_twice()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        await ada.LetMailWaitAsync();
        var page = await ada.PublishAsync();
        await (await world.Guest().BookAsync(ada.Desk, page, Nine)).ReadAsync(HttpStatusCode.Created);
        var id = (await ada.GetAsync("/api/bookings")).GetProperty("rows")[0].Id();
        await ada.PostAsync($"/api/bookings/{id}/cancel", new { word = "" });
        var act = (await ada.GetAsync("/api/undo"))[0].Id();
        await (await world.Guest().BookAsync(ada.Desk, page, Nine, email: "bryn@ashby.example")).ReadAsync(
            HttpStatusCode.Created
        );
        (await (await ada.PostAsync($"/api/undo/{act}", new { })).ReadAsync(HttpStatusCode.Conflict))
            .Text("title")
            .ShouldContain("taken by now");
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (await world.WithinAsync(workspace, db => db.Bookings.CountAsync())).ShouldBe(1);
        // Its mail goes all the same, at its time.
        (
            await world.WithinAsync(workspace, db =>
                db.Messages.CountAsync(row => row.Kind == MessageKind.CancelledForGuest)
            )
        ).ShouldBe(1);
    }

    [Fact]
    public async Task Only_who_did_it_takes_it_back_and_twice_is_once()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        await ada.LetMailWaitAsync();
        var other = await scene.JoinAsync(isOwner: true);
        var id = await scene.BookingAsync(ada);
        await ada.PostAsync($"/api/bookings/{id}/cancel", new { word = "" });
        var act = (await ada.GetAsync("/api/undo"))[0].Id();
        (await other.GetAsync("/api/undo")).GetArrayLength().ShouldBe(0);
        (await other.PostAsync($"/api/undo/{act}", new { })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var answers = await Task.WhenAll(
            ada.PostAsync($"/api/undo/{act}", new { }),
            ada.PostAsync($"/api/undo/{act}", new { })
        );
        answers.ShouldAllBe(answer => answer.StatusCode == HttpStatusCode.NoContent);
        (await ada.GetAsync($"/api/bookings/{id}")).GetProperty("done").GetArrayLength().ShouldBe(2);
    }

    [Fact]
    public async Task A_link_that_was_mailed_is_a_draft_again_and_what_it_held_is_let_go()
    {
        await using var scene = await WaitingAsync();
        var ada = scene.Ada;
        var link = (await ada.MakeLinkAsync()).GetProperty("row").Id();
        await AssertUndoAsync(
            scene,
            () => ada.PostAsync($"/api/links/{link}/mail", new { word = "" }, "press"),
            "Sent out the link “Hull survey, Larkspur”"
        );
        (await ada.LinkAsync(link)).GetProperty("row").Text("state").ShouldBe("draft");
        (await scene.MessagesAsync(MessageKind.LinkForGuest)).ShouldBeEmpty();
        await AssertUndoAsync(
            scene,
            () => ada.PutAsync($"/api/links/{link}/hold", new { until = "2026-12-07T12:00:00Z" }),
            "Held the times of “Hull survey, Larkspur”"
        );
        (await ada.LinkAsync(link)).GetProperty("holds").GetArrayLength().ShouldBe(0);
        // And the other way round.
        await ada.PutAsync($"/api/links/{link}/hold", new { until = "2026-12-07T12:00:00Z" });
        await ada.PostAsync($"/api/links/{link}/out", new { });
        await AssertUndoAsync(
            scene,
            () => ada.PostAsync($"/api/links/{link}/ask-again", new { word = "" }, "again"),
            "Asked again: “Hull survey, Larkspur”"
        );
        await AssertUndoAsync(
            scene,
            () => ada.PostAsync($"/api/links/{link}/revoke", new { }),
            "Revoked the link “Hull survey, Larkspur”"
        );
        var back = await ada.LinkAsync(link);
        (back.GetProperty("row").Text("state"), back.GetProperty("holds").GetArrayLength()).ShouldBe(("out", 4));
    }

    [Fact]
    public async Task A_page_that_was_published_or_taken_down_is_as_guests_had_it()
    {
        var ada = await world.SignUpAsync();
        await ada.LetMailWaitAsync();
        var address = await ada.PublishAsync();
        var page = (await ada.PagesAsync())[0].Id();
        var version = (await ada.GetAsync($"/api/pages/{page}")).GetProperty("version").GetInt32();
        await (await ada.PostAsync($"/api/pages/{page}/unpublish", new { version })).ReadAsync(HttpStatusCode.OK);
        (await world.Guest().GetAsync($"/api/public/desks/{ada.Desk}/pages/{address}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        await UndoLastAsync(ada);
        (await world.Guest().GetAsync($"/api/public/desks/{ada.Desk}/pages/{address}")).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        // Whoever has it open still must load it anew.
        (await ada.PostAsync($"/api/pages/{page}/unpublish", new { version })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
    }

    [Fact]
    public async Task Several_at_once_wait_ten_minutes_and_come_back_together()
    {
        await using var scene = await WaitingAsync();
        var ada = scene.Ada;
        var page = await ada.PublishAsync();
        await scene.BookAsync(page);
        await scene.BookAsync(page, Ten, "bryn@ashby.example", "Bryn Ashby");
        Guid[] bookings = [(await scene.RowAsync()).Id(), (await scene.RowAsync(1)).Id()];
        await AssertUndoAsync(
            scene,
            () =>
                ada.PostAsync(
                    "/api/bookings/flagged/call-off",
                    new
                    {
                        bookings,
                        subject = "Called off",
                        body = "We are sorry.",
                    }
                ),
            "Called off the booking of Ottilie Wren",
            minutes: 10
        );
        (await ada.GetAsync("/api/bookings")).GetProperty("rows").GetArrayLength().ShouldBe(2);
    }

    [Fact]
    public async Task Rows_as_they_were_are_kept_for_an_hour()
    {
        await using var scene = await WaitingAsync();
        await scene.BookAsync(await scene.Ada.PublishAsync());
        await scene.Ada.PostAsync($"/api/bookings/{(await scene.RowAsync()).Id()}/cancel", new { word = "" });
        Task<int> KeptAsync(Duration later) => LookAsync(scene, async db =>
            {
                await OldRows.SweepAsync(db, World.Now + later, default);
                return await db.UndoRows.IgnoreQueryFilters().CountAsync();
            });
        (await KeptAsync(Duration.FromMinutes(60))).ShouldBeGreaterThan(0);
        (await KeptAsync(Duration.FromMinutes(62))).ShouldBe(0);
    }

    [Fact]
    public async Task Who_wants_no_mail_to_wait_says_so()
    {
        await using var scene = await MailScene.MakeAsync();
        await scene.BookAsync(await scene.Ada.PublishAsync());
        var answer = await scene.Ada.PostAsync(
            $"/api/bookings/{(await scene.RowAsync()).Id()}/cancel",
            new { word = "" }
        );
        answer.Headers.Contains(UndoBeginning.Header).ShouldBeFalse();
        (await scene.Ada.GetAsync("/api/undo")).GetArrayLength().ShouldBe(0);
        await scene.MailAsync(MailScene.Guest, "Cancelled");
        (
            await (
                await scene.Ada.PutAsync(
                    "/api/workspace",
                    new
                    {
                        name = "Yard",
                        zone = "Europe/Copenhagen",
                        undoMinutes = 11,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["undoMinutes"]);
        (await scene.Ada.GetAsync("/api/me")).GetProperty("undoMinutes").GetInt32().ShouldBe(0);
    }

    /// <summary>Does it, sees that nobody is mailed, takes it back, and sees that nobody ever is.</summary>
    private static async Task AssertUndoAsync(
        MailScene scene,
        Func<Task<HttpResponseMessage>> act,
        string? what,
        int minutes = 1
    )
    {
        var before = await SentAsync(scene);
        var answer = await act();
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
        answer.Headers.GetValues(UndoBeginning.Header).ShouldHaveSingleItem();
        (await SentAsync(scene)).ShouldBe(before);
        var listed = (await scene.Ada.GetAsync("/api/undo"))[0];
        if (what is not null)
            listed.GetProperty("what")[0].GetString().ShouldBe(what);
        var until = listed.GetProperty("until").GetDateTimeOffset() - listed.GetProperty("at").GetDateTimeOffset();
        until.ShouldBe(TimeSpan.FromMinutes(minutes));
        await UndoLastAsync(scene.Ada);
        (
            await LookAsync(scene, db => db.Messages.IgnoreQueryFilters().CountAsync(row => row.ActId == listed.Id()))
        ).ShouldBe(0);
        (await scene.Ada.GetAsync("/api/undo")).EnumerateArray().Select(one => one.Id()).ShouldNotContain(listed.Id());
    }

    private static async Task UndoLastAsync(Coordinator person)
    {
        var act = (await person.GetAsync("/api/undo"))[0].Id();
        await (await person.PostAsync($"/api/undo/{act}", new { })).ReadAsync(HttpStatusCode.NoContent);
    }

    private static async Task<MailScene> WaitingAsync()
    {
        var scene = await MailScene.MakeAsync();
        await scene.Ada.LetMailWaitAsync();
        return scene;
    }

    /// <summary>Mails that are out, or go out at once; by kind.</summary>
    private static Task<int> SentAsync(MailScene scene) =>
        LookAsync(scene, db =>
            db.Messages.IgnoreQueryFilters().CountAsync(row => row.State == MessageState.Sent || row.DueAt <= World.Now)
        );

    private static Task<List<Instant>> RemindersAsync(MailScene scene) =>
        LookAsync(scene, db =>
            db.Messages.IgnoreQueryFilters()
                .Where(row => row.Kind == MessageKind.ReminderForGuest || row.Kind == MessageKind.ReminderForHost)
                .OrderBy(row => row.DueAt)
                .Select(row => row.DueAt)
                .ToListAsync()
        );

    private static Task<T> LookAsync<T>(MailScene scene, Func<LooseLantern.Server.Data.LanternDb, Task<T>> look) =>
        scene.World.LookAsync(look);
}
