using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>What screening flagged is seen, and called off with a letter, all of it at once.</summary>
public sealed class FlaggedTests(World world)
{
    private static object Letter(
        IEnumerable<Guid> bookings,
        string subject = "About {{ page }}, {{ day }}",
        string body = "Dear {{ first_name }},\n\nnot this time: {{ time }}."
    ) =>
        new
        {
            bookings,
            subject,
            body,
        };

    [Fact]
    public async Task Flagged_bookings_are_called_off_kindly_in_one_go_and_nobody_is_told_twice()
    {
        await using var scene = await MailScene.MakeAsync();
        var ada = scene.Ada;
        var page = await ada.PublishAsync();
        await scene.BookAsync(page, MailScene.Nine);
        await scene.BookAsync(page, MailScene.HalfPastNine, "bryn@ashby.example", "Bryn Ashby");
        await scene.BookAsync(page, MailScene.Ten, "wilf@teller.example", "Wilf Teller");
        await FlagAsync(scene.World, ada, "Ottilie Wren", "Wilf Teller");
        var flagged = await ada.GetAsync("/api/bookings/flagged");
        var rows = flagged.GetProperty("bookings").EnumerateArray().ToList();
        rows.ConvertAll(row => row.Text("guest")).ShouldBe(["Ottilie Wren", "Wilf Teller"]);
        rows[0].GetProperty("flags")[0].GetString().ShouldBe("Longer than the slip takes");
        rows.ShouldAllBe(row => row.GetProperty("mayCallOff").GetBoolean());
        (await ada.GuestAsync("Wilf Teller"))
            .GetProperty("flags")[0]
            .Text("flag")
            .ShouldBe("Longer than the slip takes");
        var ids = rows.ConvertAll(row => row.Id());
        var preview = await (
            await ada.PostAsync("/api/bookings/flagged/preview", new { callOff = Letter(ids), show = ids[1] })
        ).ReadAsync(HttpStatusCode.OK);
        preview.Text("subject").ShouldStartWith("About Talk, Tuesday");
        preview.Text("text").ShouldStartWith("Dear Wilf,\n\nnot this time: 10:00");

        var presses = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(_ => ada.PostAsync("/api/bookings/flagged/call-off", Letter(ids)))
        );
        var counts = await Task.WhenAll(presses.Select(answer => answer.ReadAsync(HttpStatusCode.OK)));
        counts.Sum(answer => answer.GetProperty("count").GetInt32()).ShouldBe(2);
        var mail = await scene.MailAsync("wilf@teller.example", "About Talk, Tuesday");
        (mail.Method, mail.Text.Trim()).ShouldBe(("CANCEL", preview.Text("text")));
        (await scene.MessagesAsync(MessageKind.CancelledForGuest))
            .Select(one => one.ToName)
            .Order()
            .ShouldBe(["Ottilie Wren", "Wilf Teller"]);
        (await scene.MailAsync(scene.AdasAddress, "Cancelled: Wilf Teller")).ShouldNotBeNull();
        (await ada.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .Single()
            .Text("guestName")
            .ShouldBe("Bryn Ashby");
        (await ada.GetAsync("/api/bookings/flagged")).GetProperty("total").GetInt32().ShouldBe(0);
        // Their time is free again.
        await scene.BookAsync(page, MailScene.Nine, "next@guest.example", "Next Guest");
    }

    [Fact]
    public async Task What_is_only_asked_for_is_declined_by_the_letter_and_of_a_group_the_others_stay()
    {
        await using var scene = await MailScene.MakeAsync();
        var ada = scene.Ada;
        // Its guests are mailed nothing else.
        var group = await ada.PublishAsync(draft =>
            (draft.Places, draft.Post) = (4, PagePost.Usual with { ToGuests = GuestMail.None })
        );
        var asked = await ada.PublishAsync(draft => draft.ApprovalHours = 24);
        await scene.BookAsync(group, MailScene.Nine, "bryn@ashby.example", "Bryn Ashby");
        await scene.BookAsync(group, MailScene.Nine, "wilf@teller.example", "Wilf Teller");
        await scene.BookAsync(asked, MailScene.Ten);
        await FlagAsync(scene.World, ada, "Ottilie Wren", "Wilf Teller");
        var rows = (await ada.GetAsync("/api/bookings/flagged")).GetProperty("bookings").EnumerateArray().ToList();
        rows.ConvertAll(row => row.GetProperty("waitsForYes").GetBoolean()).ShouldBe([false, true]);
        var answer = await (
            await ada.PostAsync("/api/bookings/flagged/call-off", Letter(rows.ConvertAll(row => row.Id())))
        ).ReadAsync(HttpStatusCode.OK);
        answer.GetProperty("count").GetInt32().ShouldBe(2);

        (await scene.MailAsync("wilf@teller.example", "About Talk")).Text.ShouldStartWith("Dear Wilf,");
        var declined = await scene.MailAsync(MailScene.Guest, "About Talk");
        // By both clocks, as the guest's differs from the page's.
        (declined.Calendar, declined.Text.Trim()).ShouldBe(
            (null, "Dear Ottilie,\n\nnot this time: 10:00–10:30 (09:00–09:30 Dublin).")
        );
        (await scene.MessagesAsync(MessageKind.DeclinedForGuest)).ShouldHaveSingleItem();
        // Who else comes to that session comes still, and was told of nothing.
        var left = (await ada.GetAsync("/api/bookings")).GetProperty("rows").EnumerateArray().ShouldHaveSingleItem();
        left.Text("guestName").ShouldBe("Bryn Ashby");
        scene.Box("bryn@ashby.example").ShouldBeEmpty();
        (await ada.GetAsync("/api/bookings?when=cancelled"))
            .GetProperty("rows")
            .EnumerateArray()
            .Select(row => row.Text("cancelledBy"))
            .Order()
            .ShouldBe(["declined", "team"]);
    }

    [Fact]
    public async Task Nothing_is_called_off_where_a_booking_or_a_word_is_wrong_or_a_host_does_not_let()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, MailScene.Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await FlagAsync(world, ada, "Ottilie Wren");
        var id = (await ada.GetAsync("/api/bookings/flagged")).GetProperty("bookings")[0].Id();
        async Task<IEnumerable<string>> FaultsAsync(object letter) =>
            (await (await ada.PostAsync("/api/bookings/flagged/call-off", letter)).FaultsAsync()).Keys;
        (await FaultsAsync(Letter([]))).ShouldBe(["bookings"]);
        (await FaultsAsync(Letter([id], subject: "{{ guest }}"))).ShouldBe(["subject"]);
        (await FaultsAsync(Letter([id], body: "{{ times }}"))).ShouldBe(["body"]);
        (await ada.PostAsync("/api/bookings/flagged/call-off", Letter([id, Guid.NewGuid()]))).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        var bo = await scene.JoinAsync(isCoordinator: true);
        var row = (await bo.GetAsync("/api/bookings/flagged")).GetProperty("bookings")[0];
        row.GetProperty("mayCallOff").GetBoolean().ShouldBeFalse();
        (await bo.PostAsync("/api/bookings/flagged/call-off", Letter([id]))).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        (await ada.GetAsync("/api/bookings")).GetProperty("total").GetInt32().ShouldBe(1);
    }

    private static async Task FlagAsync(World world, Coordinator ada, params string[] guests) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Bookings.Where(row => guests.Contains(row.GuestName))
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.Flags, new[] { "Longer than the slip takes" }))
        );
}
