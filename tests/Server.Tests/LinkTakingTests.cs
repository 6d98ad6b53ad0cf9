using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using static Server.Tests.LinkDraft;

namespace Server.Tests;

/// <summary>How links are taken: once or several times, by guests or by hand, and what becomes of them after.</summary>
public class LinkTakingTests(World world)
{
    [Fact]
    public async Task The_same_key_again_answers_with_the_same_booking()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync();
        var first = await (await world.Guest().TakeAsync(address, Nine, key: "one")).ReadAsync(HttpStatusCode.Created);
        var again = await (await world.Guest().TakeAsync(address, Nine, key: "one")).ReadAsync(HttpStatusCode.Created);
        again.GetProperty("path").GetString().ShouldBe(first.GetProperty("path").GetString());
        (await (await world.Guest().TakeAsync(address, Ten, key: "one")).ReadAsync(HttpStatusCode.UnprocessableEntity))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:key-used");
        (await (await world.Guest().TakeAsync(address, Ten)).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:link-taken");
    }

    [Fact]
    public async Task A_cancelled_booking_reopens_it_where_wanted_and_else_not()
    {
        var ada = await world.SignUpAsync();
        foreach (var (reopens, then) in new[] { (true, "out"), (false, "ended") })
        {
            var (_, address) = await ada.SendLinkAsync(draft => draft.Reopens = reopens);
            var made = await (await world.Guest().TakeAsync(address, Nine)).ReadAsync(HttpStatusCode.Created);
            (
                await world
                    .Guest()
                    .PostAsJsonAsync(
                        "/api/public"
                            + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/")
                            + "/cancel",
                        new { word = "" }
                    )
            ).StatusCode.ShouldBe(HttpStatusCode.NoContent);

            (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/links/{address}"))
                .GetProperty("state")
                .GetString()
                .ShouldBe(then);
            (await world.Guest().LinkStartsAsync(address)).Length.ShouldBe(reopens ? 4 : 0);
            // The list and the board say the same: what is over is offered to nobody.
            (await ada.GetAsync($"/api/links?state={then}")).GetProperty("total").GetInt32().ShouldBe(1);
            (await ada.GetAsync("/api/board?from=2026-12-08&days=1"))
                .GetRawText()
                .Contains("\"kind\":\"offered\"", StringComparison.Ordinal)
                .ShouldBe(reopens);
            (await world.Guest().TakeAsync(address, Ten)).StatusCode.ShouldBe(
                reopens ? HttpStatusCode.Created : HttpStatusCode.Conflict
            );
        }
    }

    [Fact]
    public async Task One_by_which_each_of_several_takes_their_own_asks_who_it_is_and_holds_on_to_the_rest()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft =>
            (draft.Together, draft.Guests) = (
                false,
                [new LinkGuest("Ottilie Wren", "ottilie@wren-charters.example"), new LinkGuest("Osric Pell", "")]
            )
        );
        await ada.HoldAsync(id);

        (await (await world.Guest().TakeAsync(address, Nine)).FaultsAsync())
            .Keys.Order()
            .ShouldBe(["guest.email", "guest.name"]);
        (
            await world.Guest().TakeAsync(address, Nine, name: "Somebody Else", email: "else@harbour.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await ada.LinkAsync(id)).GetProperty("holds").GetArrayLength().ShouldBe(3);
        // The second of those named, whose email is not known.
        var body = new
        {
            start = Ten,
            duration = 30,
            zone = "Europe/Dublin",
            guest = 1,
            answers = new { },
        };
        (
            await (await world.Guest().PostAsJsonAsync($"/api/public/links/{address}/bookings", body)).FaultsAsync()
        ).Keys.ShouldBe(["guest.email"]);
        (
            await world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/links/{address}/bookings",
                    new
                    {
                        start = Ten,
                        duration = 30,
                        zone = "Europe/Dublin",
                        guest = 1,
                        email = "osric@pell.example",
                        answers = new { },
                    }
                )
        ).StatusCode.ShouldBe(HttpStatusCode.Created);

        var link = await ada.LinkAsync(id);
        link.GetProperty("holds").GetArrayLength().ShouldBe(0);
        link.GetProperty("row")
            .GetProperty("bookings")
            .EnumerateArray()
            .Select(booking => booking.GetProperty("guest").GetString())
            .ShouldBe(["Somebody Else", "Osric Pell"]);
        (await world.Guest().TakeAsync(address, Eleven, name: "x", email: "x@y.example")).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
    }

    [Fact]
    public async Task Any_offered_time_is_booked_by_hand_for_a_guest_who_rang()
    {
        var ada = await world.SignUpAsync();
        var draft = await ada.MakeLinkAsync(draft => draft.Guests = [new LinkGuest("Ottilie Wren", "")]);
        var id = draft.GetProperty("row").GetProperty("id").GetGuid();
        await ada.HoldAsync(id);

        (
            await (
                await ada.PostAsync(
                    $"/api/links/{id}/bookings",
                    new
                    {
                        start = Nine,
                        duration = 30,
                        guests = new[] { new { name = "", email = "ottilie" } },
                    }
                )
            ).FaultsAsync()
        ).Keys.Order().ShouldBe(["guests[0].email", "guests[0].name"]);
        (
            await ada.PostAsync($"/api/links/{id}/bookings", new { start = "2026-12-08T08:15:00Z", duration = 30 })
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var booked = await (
            await ada.PostAsync(
                $"/api/links/{id}/bookings",
                new
                {
                    start = Nine,
                    duration = 30,
                    guests = new[] { new { name = "Ottilie Wren", email = "ottilie@wren.example" } },
                }
            )
        ).ReadAsync(HttpStatusCode.Created);

        var row = (await ada.GetAsync("/api/bookings")).GetProperty("rows").EnumerateArray().ShouldHaveSingleItem();
        (row.GetProperty("id").GetGuid(), row.GetProperty("guestName").GetString()).ShouldBe(
            (booked.GetProperty("bookingId").GetGuid(), "Ottilie Wren")
        );
        (await ada.LinkAsync(id)).GetProperty("row").GetProperty("state").GetString().ShouldBe("booked");
        (await ada.LinkAsync(id)).GetProperty("holds").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_time_among_ourselves_is_booked_at_once_and_no_guest_is_written_to()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var made = await ada.MakeLinkAsync(draft =>
            (draft.IsAmongOurselves, draft.Guests, draft.Title, draft.Seats) = (
                true,
                [],
                "Winter plan",
                [
                    [ada.HostId],
                    [bo.HostId],
                ]
            )
        );

        await (
            await ada.PostAsync(
                $"/api/links/{made.GetProperty("row").GetProperty("id").GetGuid()}/bookings",
                new { start = Nine, duration = 30 }
            )
        ).ReadAsync(HttpStatusCode.Created);

        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (
            await world.WithinAsync(workspace, db =>
                db.Messages.Where(row =>
                        row.Kind == MessageKind.BookedForGuest || row.Kind == MessageKind.ReminderForGuest
                    )
                    .CountAsync()
            )
        ).ShouldBe(0);
        (
            await world.WithinAsync(workspace, db => db.Commitments.Select(row => row.HostId).Distinct().CountAsync())
        ).ShouldBe(2);
    }

    [Fact]
    public async Task Its_booking_is_moved_among_the_links_times_and_leads_to_no_page()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync();
        var made = await (await world.Guest().TakeAsync(address, Nine)).ReadAsync(HttpStatusCode.Created);
        var path = "/api/public" + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/");

        var seen = await world.Guest().GetFromJsonAsync<JsonElement>(path);
        seen.GetProperty("pagePath").GetString().ShouldBe("/" + ada.Desk);
        (await world.Guest().GetFromJsonAsync<JsonElement>($"{path}/openings?from=2026-12-07&to=2026-12-20"))
            .GetProperty("openings")
            .EnumerateArray()
            .Select(opening => opening.GetProperty("start").GetString())
            .ShouldBe([Ten, Eleven, Friday]);
        (await world.Guest().PostAsJsonAsync(path + "/move", new { start = Friday })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/links/{address}"))
            .GetProperty("taken")[0]
            .GetProperty("start")
            .GetString()
            .ShouldBe(Friday);
    }

    [Fact]
    public async Task What_a_page_asked_is_asked_here_too_and_nothing_else()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync(draft =>
            draft.Questions = [new Question("boat", QuestionKind.Short, "Which boat?", "", IsNeeded: true, [], "")]
        );
        (await (await world.Guest().TakeAsync(address, Nine)).FaultsAsync()).Keys.ShouldBe(["answers.boat"]);
        (
            await world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/links/{address}/bookings",
                    new
                    {
                        start = Nine,
                        duration = 30,
                        zone = "Europe/Dublin",
                        answers = new { boat = "Larkspur" },
                    }
                )
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
    }

    [Fact]
    public async Task Whoever_sits_only_on_links_that_are_over_may_leave_the_team()
    {
        var scene = await Scene.MakeAsync(world);
        var room = await scene.RoomAsync();
        var (id, _) = await scene.Owner.SendLinkAsync(draft =>
            draft.Seats = [
                [scene.Owner.HostId],
                [room],
            ]
        );
        (await (await scene.Owner.DeleteAsync($"/api/hosts/{room}")).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("title")
            .GetString()!
            .ShouldContain("Hull survey, Larkspur");

        await scene.Owner.PostAsync($"/api/links/{id}/revoke", new { });

        (await scene.Owner.DeleteAsync($"/api/hosts/{room}")).IsSuccessStatusCode.ShouldBeTrue();
        (await scene.Owner.LinkAsync(id)).GetProperty("row").GetProperty("state").GetString().ShouldBe("revoked");
    }

    [Fact]
    public async Task Hostile_requests_are_refused_by_name()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync();
        foreach (
            var body in new object[]
            {
                new { },
                new
                {
                    start = "yesterday",
                    duration = 30,
                    zone = "Europe/Dublin",
                },
                new
                {
                    start = Nine,
                    duration = 7,
                    zone = "Europe/Dublin",
                },
                new
                {
                    start = Nine,
                    duration = 30,
                    zone = "Mars",
                },
            }
        )
            (
                (int)(await world.Guest().PostAsJsonAsync($"/api/public/links/{address}/bookings", body)).StatusCode
            ).ShouldBeInRange(400, 422);
        (await world.Guest().TakeAsync(address, "2026-12-08T08:01:00Z")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        // The email of its guest is nobody's to change, where it is known.
        await (
            await world.Guest().TakeAsync(address, Nine, name: "Mallory", email: "mallory@elsewhere.example")
        ).ReadAsync(HttpStatusCode.Created);
        (await ada.GetAsync("/api/bookings"))
            .GetProperty("rows")[0]
            .GetProperty("guestEmail")
            .GetString()
            .ShouldBe("ottilie@wren-charters.example");
    }
}
