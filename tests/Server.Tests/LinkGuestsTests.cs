using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using static Server.Tests.LinkDraft;

namespace Server.Tests;

/// <summary>A link for several guests, for nobody by name, or for ourselves.</summary>
public sealed class LinkGuestsTests(World world)
{
    private static readonly LinkGuest Ottilie = new("Ottilie Wren", "ottilie@wren-charters.example");
    private static readonly LinkGuest Osric = new("Osric Pell", "osric@pell.example");

    [Fact]
    public async Task One_takes_a_time_and_all_are_booked_each_with_an_invitation_and_a_link_of_their_own()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => draft.Guests = [Ottilie, Osric, new("Wilf Teller", "")]);

        var taken = await (await world.Guest().TakeAsync(address, Nine, guest: 1)).ReadAsync(HttpStatusCode.Created);

        var row = (await ada.LinkAsync(id)).GetProperty("row");
        row.GetProperty("state").GetString().ShouldBe("booked");
        row.GetProperty("bookings")
            .EnumerateArray()
            .Select(booking => booking.GetProperty("guest").GetString()!)
            .Order()
            .ShouldBe(["Osric Pell", "Ottilie Wren", "Wilf Teller"]);
        var mails = await MessagesAsync(ada, MessageKind.BookedForGuest);
        mails.Select(mail => mail.ToEmail).ShouldBe(["osric@pell.example", "ottilie@wren-charters.example"]);
        // None reads the other's private link, and the team is told once.
        mails.Select(mail => mail.BookingId).Distinct().Count().ShouldBe(2);
        (await MessagesAsync(ada, MessageKind.BookedForHost)).Count.ShouldBe(1);
        var seen = await world.Guest().GetFromJsonAsync<JsonElement>(GroupScene.ApiOf(taken));
        seen.GetProperty("guestName").GetString().ShouldBe("Osric Pell");

        // What they took together moves together, and one of them may leave.
        await (await world.Guest().PostAsJsonAsync(GroupScene.ApiOf(taken) + "/move", new { start = Ten })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await MessagesAsync(ada, MessageKind.MovedForGuest)).Count.ShouldBe(2);
        (await ada.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .Select(booking => booking.GetProperty("start").GetString())
            .ShouldBe([Ten, Ten, Ten]);
        await (await world.Guest().PostAsJsonAsync(GroupScene.ApiOf(taken) + "/cancel", new { })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await ada.LinkAsync(id)).GetProperty("row").GetProperty("state").GetString().ShouldBe("booked");
    }

    [Fact]
    public async Task Or_each_takes_their_own_once_and_it_takes_as_many_as_they_are()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft =>
            (draft.Guests, draft.Together, draft.Takes) = ([Ottilie, Osric], false, 1)
        );

        (await world.Guest().TakeAsync(address, Nine, guest: 0)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await (await world.Guest().TakeAsync(address, Ten, guest: 0)).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:link-yours-taken");
        (await world.Guest().TakeAsync(address, Ten, guest: 1)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var link = await ada.LinkAsync(id);
        link.GetProperty("row").GetProperty("state").GetString().ShouldBe("booked");
        link.GetProperty("row").GetProperty("bookings").GetArrayLength().ShouldBe(2);
        link.GetProperty("form").GetProperty("details").GetProperty("takes").GetInt32().ShouldBe(2);
    }

    [Fact]
    public async Task Who_wrote_a_wish_is_named()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => draft.Guests = [Ottilie, Osric]);
        async Task WishAsync(string of, string by) =>
            await (
                await world
                    .Guest()
                    .PostAsJsonAsync(
                        $"/api/public/links/{of}/wishes",
                        new { starts = new[] { "2026-12-10T09:00:00Z" }, by }
                    )
            ).ReadAsync(HttpStatusCode.NoContent);
        await WishAsync(address, "Osric Pell");
        var (alone, own) = await ada.SendLinkAsync();
        await WishAsync(own, "");

        async Task<string?> ByAsync(Guid link) =>
            (await ada.LinkAsync(link)).GetProperty("wishes")[0].GetProperty("by").GetString();
        (await ByAsync(id)).ShouldBe("Osric Pell");
        (await ByAsync(alone)).ShouldBe("Ottilie Wren");
        (await MessagesAsync(ada, MessageKind.WishForMaker))
            .Select(mail => mail.Subject)
            .Order()
            .ShouldBe([
                "Other times wanted: Hull survey, Larkspur, Osric Pell",
                "Other times wanted: Hull survey, Larkspur, Ottilie Wren",
            ]);
    }

    [Fact]
    public async Task Booked_by_hand_all_are_and_nobody_is_mailed_whose_email_was_taken_out()
    {
        var ada = await world.SignUpAsync();
        var (id, _) = await ada.SendLinkAsync(draft => draft.Guests = [Ottilie, Osric]);

        await (
            await ada.PostAsync(
                $"/api/links/{id}/bookings",
                new
                {
                    start = Nine,
                    duration = 30,
                    guests = new[] { Ottilie, Osric with { Email = "" } },
                }
            )
        ).ReadAsync(HttpStatusCode.Created);

        (await ada.LinkAsync(id)).GetProperty("row").GetProperty("bookings").GetArrayLength().ShouldBe(2);
        (await MessagesAsync(ada, MessageKind.BookedForGuest, MessageKind.ReminderForGuest))
            .Select(mail => mail.ToEmail)
            .Distinct()
            .ShouldBe(["ottilie@wren-charters.example"]);
    }

    [Fact]
    public async Task A_time_among_ourselves_is_arranged_by_its_maker_who_is_no_participant()
    {
        var scene = await Scene.MakeAsync(world);
        var (ada, bo) = (scene.Owner, await scene.JoinAsync(isHost: true, letInviter: true));
        var made = await ada.MakeLinkAsync(draft =>
            (draft.IsAmongOurselves, draft.Guests, draft.Title, draft.Seats) = (
                true,
                [],
                "Winter plan",
                [
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

        var row = (await ada.GetAsync("/api/bookings")).GetProperty("rows")[0];
        row.GetProperty("isAmongOurselves").GetBoolean().ShouldBeTrue();
        var toBo = (await MessagesAsync(ada, MessageKind.BookedForHost)).Single(mail => mail.PersonId == bo.PersonId);
        toBo.Calendar!.ShouldContain("SUMMARY:Winter plan\r\n");
        var adas = (await ada.GetAsync("/api/me")).GetProperty("email").GetString()!;
        toBo.Calendar!.ShouldNotContain(adas);
    }

    [Fact]
    public async Task A_link_may_be_for_nobody_by_name_and_a_named_guest_can_say_that_it_is_somebody_else()
    {
        var ada = await world.SignUpAsync();
        var (_, open) = await ada.SendLinkAsync(draft => draft.Guests = []);
        (await (await world.Guest().TakeAsync(open, Nine)).FaultsAsync())
            .Keys.Order()
            .ShouldBe(["guest.email", "guest.name"]);
        (
            await world.Guest().TakeAsync(open, Nine, name: "Prosper Dunn", email: "prosper@dunn.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);

        var (id, named) = await ada.SendLinkAsync();
        (
            await world.Guest().TakeAsync(named, Ten, name: "Osric Pell", email: "osric@pell.example", notMe: true)
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await ada.LinkAsync(id))
            .GetProperty("row")
            .GetProperty("bookings")[0]
            .GetProperty("guest")
            .GetString()
            .ShouldBe("Osric Pell");
    }

    private async Task<List<Message>> MessagesAsync(Coordinator ada, params MessageKind[] kinds) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Messages.AsNoTracking()
                .Where(row => kinds.Contains(row.Kind))
                .OrderBy(row => row.ToEmail)
                .ThenBy(row => row.Id)
                .ToListAsync()
        );
}
