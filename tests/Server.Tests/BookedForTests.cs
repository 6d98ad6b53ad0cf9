using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using static Server.Tests.GroupScene;

namespace Server.Tests;

/// <summary>Somebody books for somebody else: a parent for a child, an assistant for a manager.</summary>
public sealed class BookedForTests(World world)
{
    private static readonly PageDetails ForOthers = PageDetails.Usual with { ForOthers = true };

    private Task<GroupScene> SceneAsync(int places = 1, PagePost? post = null) =>
        MakeAsync(world, places, draft => (draft.Details, draft.Post) = (ForOthers, post));

    private Task<HttpResponseMessage> BookAsync(GroupScene scene, object bookedFor, bool oneMore = false) =>
        world
            .Guest()
            .BookAsync(
                scene.Ada.Desk,
                scene.Page,
                Nine,
                name: "Anselm Holt",
                email: "anselm@harbour.example",
                bookedFor: bookedFor,
                oneMore: oneMore
            );

    [Fact]
    public async Task Both_are_named_and_mail_goes_to_who_booked_where_the_guest_has_no_address()
    {
        var scene = await SceneAsync();
        var booked = await (await BookAsync(scene, new { name = "Ida Holt", mailTo = "guest" })).ReadAsync(
            HttpStatusCode.Created
        );

        var row = (await scene.Ada.GetAsync("/api/bookings")).GetProperty("rows")[0];
        row.GetProperty("guestName").GetString().ShouldBe("Ida Holt");
        row.GetProperty("guestEmail").GetString().ShouldBe("");
        row.GetProperty("bookerName").GetString().ShouldBe("Anselm Holt");
        var seen = await world.Guest().GetFromJsonAsync<JsonElement>(ApiOf(booked));
        (seen.GetProperty("guestName").GetString(), seen.GetProperty("bookerName").GetString()).ShouldBe(
            ("Ida Holt", "Anselm Holt")
        );

        var mail = (await scene.MessagesAsync(MessageKind.BookedForGuest)).ShouldHaveSingleItem();
        mail.ToEmail.ShouldBe("anselm@harbour.example");
        mail.Text.ShouldContain("Hello Anselm,");
        mail.Text.ShouldContain("For Ida Holt.");
        mail.Calendar!.ShouldContain("anselm@harbour.example");
        var toHost = (await scene.MessagesAsync(MessageKind.BookedForHost)).ShouldHaveSingleItem();
        toHost.Text.ShouldContain("Ida Holt (booked by Anselm Holt, anselm@harbour.example)");
    }

    [Theory]
    [InlineData("booker", new[] { "anselm@harbour.example" })]
    [InlineData("both", new[] { "anselm@harbour.example", "ida@harbour.example" })]
    [InlineData("guest", new[] { "ida@harbour.example" })]
    public async Task Mail_goes_to_whom_it_should_and_the_private_link_is_the_same(string mailTo, string[] addresses)
    {
        var scene = await SceneAsync();
        var path = ApiOf(
            await (
                await BookAsync(
                    scene,
                    new
                    {
                        name = "Ida Holt",
                        email = "ida@harbour.example",
                        mailTo,
                    }
                )
            ).ReadAsync(HttpStatusCode.Created)
        );
        (await scene.MessagesAsync(MessageKind.BookedForGuest)).Select(mail => mail.ToEmail).ShouldBe(addresses);
        (await scene.MessagesAsync(MessageKind.ReminderForGuest))
            .Select(mail => mail.ToEmail)
            .Distinct()
            .ShouldBe(addresses);
        (await world.Guest().PostAsJsonAsync(path + "/cancel", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await scene.MessagesAsync(MessageKind.CancelledForGuest)).Select(mail => mail.ToEmail).ShouldBe(addresses);
    }

    [Fact]
    public async Task Only_where_the_page_allows_it_and_each_field_that_is_wrong_is_named()
    {
        var closed = await MakeAsync(world);
        (await (await BookAsync(closed, new { name = "Ida Holt" })).FaultsAsync()).Keys.ShouldBe(["for"]);
        var scene = await SceneAsync();
        (await (await BookAsync(scene, new { name = " ", email = "ida" })).FaultsAsync())
            .Keys.Order()
            .ShouldBe(["for.email", "for.name"]);
        (await scene.Ada.GetAsync("/api/bookings")).GetProperty("total").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task Who_books_for_two_children_is_asked_once_and_both_have_their_place()
    {
        var scene = await SceneAsync(places: 3);
        await (await BookAsync(scene, new { name = "Ida Holt" })).ReadAsync(HttpStatusCode.Created);
        await (await BookAsync(scene, new { name = "Jens Holt" })).ReadAsync(HttpStatusCode.Conflict);
        await (await BookAsync(scene, new { name = "Jens Holt" }, oneMore: true)).ReadAsync(HttpStatusCode.Created);
        (await scene.PeopleAsync()).ShouldBe(2);
    }

    [Fact]
    public async Task Who_comes_back_for_another_meets_the_same_host_and_not_that_of_somebody_elses_child()
    {
        var scene = await Scene.MakeAsync(world);
        var (ada, bo) = (scene.Owner, await scene.JoinAsync(isHost: true, letInviter: true));
        var page = await ada.PublishAsync(draft =>
            (draft.Details, draft.KeepsHosts, draft.Fill, draft.Seats) = (
                ForOthers,
                true,
                "inOrder",
                [
                    [ada.HostId, bo.HostId],
                ]
            )
        );
        async Task<Guid> MetAsync(string parent, string at)
        {
            var answer = await world
                .Guest()
                .BookAsync(
                    ada.Desk,
                    page,
                    at,
                    name: parent,
                    email: EmailOf(parent),
                    bookedFor: new { name = $"Child of {parent}" }
                );
            await answer.ReadAsync(HttpStatusCode.Created);
            return await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
                db.Bookings.Where(row => row.BookerName == parent)
                    .OrderByDescending(row => row.Session!.Time.LowerBound)
                    .Select(row => row.Session!.Hosts[0].HostId)
                    .FirstAsync()
            );
        }

        (await MetAsync("Anselm Holt", Nine)).ShouldBe(ada.HostId);
        (await MetAsync("Ottilie Wren", Nine)).ShouldBe(bo.HostId);
        (await MetAsync("Ottilie Wren", Ten)).ShouldBe(bo.HostId);
        (await MetAsync("Prosper Dunn", "2026-12-09T08:00:00Z")).ShouldBe(ada.HostId);
    }

    [Fact]
    public async Task The_most_that_one_may_have_open_counts_what_one_books_for_others()
    {
        var scene = await MakeAsync(world, change: draft => draft.Details = ForOthers with { MostOpen = 1 });
        await (await BookAsync(scene, new { name = "Ida Holt" })).ReadAsync(HttpStatusCode.Created);
        (await BookAsync(scene, new { name = "Jens Holt" }, oneMore: true)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
    }
}
