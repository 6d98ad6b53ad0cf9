using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using static Server.Tests.MailScene;

namespace Server.Tests;

/// <summary>What the team does around a booking: notes, letters, other hosts, more people.</summary>
public sealed class BookingWorkTests(World world)
{
    [Fact]
    public async Task Notes_are_the_teams_changed_by_who_wrote_them_and_no_guest_reads_them()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        var booking = await scene.BookingAsync(scene.Owner);
        var path = $"/api/bookings/{booking}/notes";
        await (await bo.PostAsync(path, new { text = "Brings a dog." })).ReadAsync(HttpStatusCode.NoContent);
        var note = (await scene.Owner.GetAsync($"/api/bookings/{booking}")).GetProperty("notes")[0];
        (note.Text("text"), note.Text("by"), note.GetProperty("isMine").GetBoolean()).ShouldBe(
            ("Brings a dog.", "Bo Keel", false)
        );
        (await scene.Owner.PutAsync($"{path}/{note.Id()}", new { text = "Two dogs." })).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        await (await bo.PutAsync($"{path}/{note.Id()}", new { text = "Two dogs." })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await (await bo.PostAsync(path, new { text = " " })).FaultsAsync()).Keys.ShouldBe(["text"]);
        (await (await world.SignUpAsync()).PostAsync(path, new { text = "Hm." })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await scene.Owner.DeleteAsync($"{path}/{note.Id()}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await bo.GetAsync($"/api/bookings/{booking}")).GetProperty("notes").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_word_to_the_guest_goes_out_once_a_press_and_its_answer_comes_back_to_the_booking()
    {
        await using var scene = await MailScene.MakeAsync();
        var page = await scene.Ada.PublishAsync();
        await scene.BookAsync(page);
        await scene.BookAsync(page, Ten, "bryn@ashby.example", "Bryn Ashby");
        var id = (await scene.RowAsync()).Id();
        for (var press = 0; press < 2; press++)
            await (
                await scene.Ada.PostAsync($"/api/bookings/{id}/words", new { word = "Bring boots." }, key: "one")
            ).ReadAsync(HttpStatusCode.OK);
        var sent = (await scene.MessagesAsync(MessageKind.WordsForGuest)).ShouldHaveSingleItem();
        (sent.ToEmail, sent.BookingId).ShouldBe((MailScene.Guest, id));
        sent.Text.ShouldContain("Bring boots.");
        (
            await (await scene.Ada.PostAsync($"/api/bookings/{id}/words", new { word = " " }, key: "two")).FaultsAsync()
        ).Keys.ShouldBe(["word"]);
    }

    [Fact]
    public async Task A_booking_goes_to_whoever_is_free_lets_it_be_booked_and_is_shown_with_their_load()
    {
        await using var scene = await MailScene.MakeAsync();
        var (world, ada) = (scene.World, scene.Ada);
        var team = new Scene(world, ada);
        var bo = await team.JoinAsync(isHost: true, letInviter: true);
        var cai = await team.JoinAsync(isHost: true, letInviter: true, name: "Cai Strand");
        // Who lets nobody book their time is not among them.
        await team.JoinAsync(isHost: true, name: "Dag Voss");
        var bos = await ada.PublishAsync(draft => draft.HostId = bo.HostId);
        await scene.BookAsync(bos, Ten);
        await (await cai.JoinCalendarAsync(Scene.CalendarWith("Dentist"), cai.HostId)).ReadAsync(
            HttpStatusCode.Created
        );
        var page = await ada.PublishAsync();
        await scene.BookAsync(page);
        var row = (await ada.GetAsync($"/api/bookings?host={ada.HostId}")).GetProperty("rows")[0];
        var hosts = $"/api/sessions/{row.Text("sessionId")}/hosts";

        (await ada.GetAsync(hosts))
            .EnumerateArray()
            .Select(one =>
                (one.Text("name"), one.GetProperty("onDay").GetInt32(), one.GetProperty("inWeek").GetInt32())
            )
            .ShouldBe([("Cai Strand", 0, 0), ("Bo Keel", 1, 1)]);
        await (await ada.PostAsync(hosts, Change(ada.HostId, bo.HostId))).ReadAsync(HttpStatusCode.NoContent);

        var detail = await ada.GetAsync($"/api/bookings/{row.Id()}");
        detail.GetProperty("row").GetProperty("hosts")[0].GetString().ShouldBe("Bo Keel");
        detail
            .GetProperty("done")[0]
            .Text("what")
            .ShouldBe("Gave the booking of Ottilie Wren from Ada Wharf to Bo Keel");
        (await scene.MessagesAsync(MessageKind.HostChangedForGuest))
            .ShouldHaveSingleItem()
            .ToEmail.ShouldBe(MailScene.Guest);
        (await scene.MessagesAsync(MessageKind.GivenAwayForHost)).ShouldHaveSingleItem();
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
        (await world.Guest().StartsAsync(ada.Desk, bos, "2026-12-08", "2026-12-08")).ShouldNotContain(Nine);

        // To who is there already, or not at all; and not to whom it went meanwhile.
        (await (await ada.PostAsync(hosts, Change(bo.HostId, bo.HostId))).FaultsAsync()).Keys.ShouldBe(["to"]);
        (await (await ada.PostAsync(hosts, Change(ada.HostId, cai.HostId))).FaultsAsync()).Keys.ShouldBe(["from"]);
        (await (await ada.PostAsync(hosts, Change(null, null))).FaultsAsync()).Keys.ShouldBe(["to"]);
        (await (await ada.PostAsync(hosts, Change(bo.HostId, null))).FaultsAsync()).Keys.ShouldBe(["from"]);
    }

    [Fact]
    public async Task Nobody_gets_it_who_is_busy_and_of_two_at_once_one_has_it()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var cai = await scene.JoinAsync(isHost: true, letInviter: true, name: "Cai Strand");
        await (
            await cai.JoinCalendarAsync(
                Scene.CalendarWith("Dentist", "20261208T080000Z", "20261208T083000Z"),
                cai.HostId
            )
        ).ReadAsync(HttpStatusCode.Created);
        var dag = await scene.JoinAsync(isHost: true, letInviter: true, name: "Dag Voss");
        var booking = await scene.BookingAsync(scene.Owner);
        var session = (await scene.Owner.GetAsync($"/api/bookings/{booking}")).GetProperty("row").Text("sessionId");
        var hosts = $"/api/sessions/{session}/hosts";
        (
            await (await scene.Owner.PostAsync(hosts, Change(scene.Owner.HostId, cai.HostId))).ReadAsync(
                HttpStatusCode.Conflict
            )
        )
            .Text("title")
            .ShouldContain("Cai Strand’s calendar is busy then");
        (await bo.PostAsync(hosts, Change(scene.Owner.HostId, bo.HostId))).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );

        var answers = await Task.WhenAll(
            scene.Owner.PostAsync(hosts, Change(scene.Owner.HostId, bo.HostId)),
            scene.Owner.PostAsync(hosts, Change(scene.Owner.HostId, dag.HostId))
        );
        answers.Count(answer => answer.StatusCode == HttpStatusCode.NoContent).ShouldBe(1);
        var workspace = await world.WorkspaceOfAsync(scene.Owner.Desk);
        (await world.WithinAsync(workspace, db => db.Commitments.CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task One_more_host_comes_along_is_let_go_again_and_guests_hear_of_it_only_if_wanted()
    {
        await using var scene = await MailScene.MakeAsync();
        var (world, ada) = (scene.World, scene.Ada);
        var bo = await new Scene(world, ada).JoinAsync(isHost: true, letInviter: true);
        var page = await ada.PublishAsync();
        await scene.BookAsync(page);
        var row = await scene.RowAsync();
        var hosts = $"/api/sessions/{row.Text("sessionId")}/hosts";
        await (await ada.PostAsync(hosts, Change(null, bo.HostId, tellGuests: false))).ReadAsync(
            HttpStatusCode.NoContent
        );
        var seated = (await scene.DetailAsync()).GetProperty("hosts").EnumerateArray().ToList();
        seated
            .ConvertAll(host => (host.Text("name"), host.GetProperty("isAdded").GetBoolean()))
            .ShouldBe([("Ada Wharf", false), ("Bo Keel", true)]);
        (await scene.MessagesAsync(MessageKind.HostChangedForGuest)).ShouldBeEmpty();
        var bos = await ada.PublishAsync(draft => draft.HostId = bo.HostId);
        (await world.Guest().StartsAsync(ada.Desk, bos, "2026-12-08", "2026-12-08")).ShouldNotContain(Nine);

        await (await ada.PostAsync(hosts, Change(bo.HostId, null))).ReadAsync(HttpStatusCode.NoContent);
        (await scene.DetailAsync()).GetProperty("hosts").GetArrayLength().ShouldBe(1);
        (await world.Guest().StartsAsync(ada.Desk, bos, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
        (await scene.MessagesAsync(MessageKind.HostChangedForGuest)).ShouldHaveSingleItem();
    }

    [Fact]
    public async Task What_only_waits_for_a_yes_is_asked_of_whoever_has_it_now_and_stays_asked_for()
    {
        await using var scene = await MailScene.MakeAsync();
        var ada = scene.Ada;
        var bo = await new Scene(scene.World, ada).JoinAsync(isHost: true, letInviter: true);
        await scene.BookAsync(await ada.PublishAsync(draft => draft.ApprovalHours = 24));
        var row = await scene.RowAsync();
        await (
            await ada.PostAsync($"/api/sessions/{row.Text("sessionId")}/hosts", Change(ada.HostId, bo.HostId))
        ).ReadAsync(HttpStatusCode.NoContent);
        (await scene.RowAsync()).GetProperty("hosts")[0].GetString().ShouldBe("Bo Keel");
        var asked = (await scene.MessagesAsync(MessageKind.AskedForHost)).Where(mail => mail.PersonId == bo.PersonId);
        asked.ShouldHaveSingleItem().CalendarMethod.ShouldBeNull();
        (await scene.MessagesAsync(MessageKind.AskedForGuest)).Count.ShouldBe(2);
        (await scene.MessagesAsync(MessageKind.HostChangedForGuest, MessageKind.BookedForHost)).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_was_noted_of_a_session_is_not_said_of_the_time_it_is_moved_to()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var scene = await GroupScene.MakeAsync(own.World);
        await scene.BookAsync("Ottilie Wren");
        var row = (await scene.Ada.GetAsync("/api/bookings")).GetProperty("rows")[0];
        var start = row.GetProperty("start").GetDateTimeOffset();
        own.World.Clock.Advance(Instant.FromDateTimeOffset(start.AddMinutes(5)) - own.World.Clock.GetCurrentInstant());
        await (await scene.Ada.PutAsync($"/api/bookings/{row.Id()}/outcome", new { outcome = "missed" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        await (
            await scene.Ada.PostAsync(
                $"/api/sessions/{row.Text("sessionId")}/move",
                new { start = "2026-12-10T08:00:00Z" }
            )
        ).ReadAsync(HttpStatusCode.NoContent);
        (await scene.Ada.GetAsync("/api/bookings")).GetProperty("rows")[0].Text("outcome").ShouldBe("none");
    }

    [Fact]
    public async Task The_team_adds_people_whom_the_page_would_not_let_a_guest_bring()
    {
        await using var scene = await MailScene.MakeAsync();
        var page = await scene.Ada.PublishAsync();
        await scene.BookAsync(page);
        var id = (await scene.RowAsync()).Id();
        var people = new[] { new { name = "Tora Lind", email = "tora@lind.example" } };
        await (
            await scene.Ada.PutAsync($"/api/bookings/{id}/companions", new { people, party = (int?)null })
        ).ReadAsync(HttpStatusCode.NoContent);
        (await scene.DetailAsync()).GetProperty("companions")[0].Text("email").ShouldBe("tora@lind.example");
        await scene.MailAsync("tora@lind.example", "Talk");
        (
            await (
                await scene.Ada.PutAsync(
                    $"/api/bookings/{id}/companions",
                    new { people = new[] { new { name = "", email = "nobody" } }, party = (int?)null }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["people[0].email"]);
    }

    private static object Change(Guid? from, Guid? to, bool tellGuests = true) =>
        new
        {
            from,
            to,
            tellGuests,
        };
}
