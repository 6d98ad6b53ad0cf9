using LooseLantern.Server.Features.Links;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using static Server.Tests.LinkDraft;

namespace Server.Tests;

/// <summary>Availability links are made, sent and taken over HTTP.</summary>
public class LinkTests(World world)
{
    [Fact]
    public async Task A_link_offers_its_picked_times_alone_and_is_taken_with_one_press()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();
        var guest = world.Guest();

        (await guest.LinkStartsAsync(address)).ShouldBe([Nine, Ten, Eleven, Friday]);
        var seen = await guest.GetFromJsonAsync<JsonElement>($"/api/public/links/{address}");
        seen.GetProperty("state").GetString().ShouldBe("out");
        seen.GetProperty("guests")[0].GetString().ShouldBe("Ottilie Wren");
        seen.GetProperty("knownEmail").GetString().ShouldBe("ot…@wren-charters.example");

        // Nothing is asked that is known.
        var taken = await (await guest.TakeAsync(address, Ten)).ReadAsync(HttpStatusCode.Created);
        taken.GetProperty("path").GetString().ShouldStartWith("/booking/");
        (await guest.LinkStartsAsync(address)).ShouldBeEmpty();
        var after = await guest.GetFromJsonAsync<JsonElement>($"/api/public/links/{address}");
        after.GetProperty("state").GetString().ShouldBe("booked");
        after.GetProperty("taken")[0].GetProperty("start").GetString().ShouldBe(Ten);
        var row = (await ada.LinkAsync(id)).GetProperty("row");
        row.GetProperty("state").GetString().ShouldBe("booked");
        row.GetProperty("bookings")[0].GetProperty("guest").GetString().ShouldBe("Ottilie Wren");
        (await ada.GetAsync("/api/bookings"))
            .GetProperty("rows")[0]
            .GetProperty("guestEmail")
            .GetString()
            .ShouldBe("ottilie@wren-charters.example");
        // Nothing of a link is a page of a desk.
        (await ada.PagesAsync()).GetArrayLength().ShouldBe(0);
        (await guest.GetAsync($"/api/public/desks/{ada.Desk}/pages/~{id}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    [Fact]
    public async Task Fifty_at_once_by_one_link_for_different_times_book_one()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();
        (await ada.HoldAsync(id)).StatusCode.ShouldBe(HttpStatusCode.OK);
        string[] starts = [Nine, Ten, Eleven, Friday];

        var answers = await Task.WhenAll(
            Enumerable.Range(0, 50).Select(i => world.Guest().TakeAsync(address, starts[i % 4]))
        );

        answers.Count(answer => answer.StatusCode == HttpStatusCode.Created).ShouldBe(1);
        answers.Count(answer => answer.StatusCode == HttpStatusCode.Conflict).ShouldBe(49);
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (await world.WithinAsync(workspace, db => db.Bookings.CountAsync())).ShouldBe(1);
        (await world.WithinAsync(workspace, db => db.Commitments.CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task One_link_opened_five_hundred_times_at_once_answers_each_and_counts_them()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();

        var answers = await Task.WhenAll(
            Enumerable.Range(0, 500).Select(_ => world.Guest().GetAsync($"/api/public/links/{address}"))
        );
        answers.ShouldAllBe(answer => answer.StatusCode == HttpStatusCode.OK);
        (await ada.LinkAsync(id)).GetProperty("row").GetProperty("opened").GetInt32().ShouldBe(0);

        (
            await Task.WhenAll(
                Enumerable
                    .Range(0, 40)
                    .Select(_ => world.Guest().PostAsync($"/api/public/links/{address}/opened", null))
            )
        ).ShouldAllBe(answer => answer.StatusCode == HttpStatusCode.NoContent);
        var row = (await ada.LinkAsync(id)).GetProperty("row");
        (row.GetProperty("opened").GetInt32(), row.GetProperty("state").GetString()).ShouldBe((40, "opened"));
    }

    [Fact]
    public async Task All_times_are_held_on_all_calendars_and_give_way_to_the_booking()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var (id, address) = await ada.SendLinkAsync(draft =>
            draft.Seats = [
                [ada.HostId],
                [bo.HostId],
            ]
        );
        var page = await ada.PublishAsync(draft => draft.HostId = bo.HostId);

        // What is being arranged shows in its place, held or not.
        Titles(await ada.GetAsync("/api/board?from=2026-12-08&days=1"), "offered")
            .ShouldBe(Enumerable.Repeat("Hull survey, Larkspur, Ottilie Wren", 4));
        var held = await (await ada.HoldAsync(id)).ReadAsync(HttpStatusCode.OK);
        held.GetProperty("holds").GetArrayLength().ShouldBe(4);
        held.GetProperty("holds")[0].GetProperty("hosts").GetArrayLength().ShouldBe(2);
        // They block everybody else, and not the link itself.
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(Nine);
        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await world.Guest().LinkStartsAsync(address)).ShouldBe([Nine, Ten, Eleven, Friday]);
        Titles(await ada.GetAsync("/api/board?from=2026-12-08&days=1"), "held")
            .ShouldBe(Enumerable.Repeat("Hull survey, Larkspur, Ottilie Wren", 4));

        Titles(await ada.GetAsync("/api/board?from=2026-12-08&days=1"), "offered").ShouldBeEmpty();

        (await world.Guest().TakeAsync(address, Ten)).StatusCode.ShouldBe(HttpStatusCode.Created);

        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (
            await world.WithinAsync(workspace, db =>
                db.Commitments.Select(row => new { row.Kind, row.PageId }).ToListAsync()
            )
        ).ShouldAllBe(row => row.Kind == LooseLantern.Core.Openings.CommitmentKind.Booking && row.PageId == null);
        Titles(await ada.GetAsync("/api/board?from=2026-12-08&days=1"), "booked")
            .ShouldBe(["Ottilie Wren", "Ottilie Wren"]);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
    }

    [Fact]
    public async Task A_released_time_is_free_again_and_the_link_offers_the_rest()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();
        var page = await ada.PublishAsync();
        await ada.HoldAsync(id);

        var left = await (await ada.PostAsync($"/api/links/{id}/release", new { starts = new[] { Nine } })).ReadAsync(
            HttpStatusCode.OK
        );

        left.GetProperty("holds").GetArrayLength().ShouldBe(3);
        (await world.Guest().LinkStartsAsync(address)).ShouldBe([Ten, Eleven, Friday]);
        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await (await ada.HoldAsync(id, until: null)).ReadAsync(HttpStatusCode.OK))
            .GetProperty("holds")
            .GetArrayLength()
            .ShouldBe(0);
        (await world.Guest().LinkStartsAsync(address)).ShouldBe([Ten, Eleven, Friday]);
    }

    [Fact]
    public async Task A_time_that_was_just_taken_can_t_be_held_and_nothing_is()
    {
        var ada = await world.SignUpAsync();
        var (id, _) = await ada.SendLinkAsync();
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, Ten)).StatusCode.ShouldBe(HttpStatusCode.Created);

        var refused = await (await ada.HoldAsync(id)).ReadAsync(HttpStatusCode.Conflict);

        refused.GetProperty("type").GetString().ShouldBe("urn:loose-lantern:cant-hold");
        refused.GetProperty("starts")[0].GetString().ShouldBe(Ten);
        (await ada.LinkAsync(id)).GetProperty("holds").GetArrayLength().ShouldBe(0);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
    }

    [Fact]
    public async Task Guessed_and_unfit_addresses_lead_nowhere_and_a_draft_opens_for_nobody()
    {
        var ada = await world.SignUpAsync();
        var draft = await ada.MakeLinkAsync();
        draft.GetProperty("address").ValueKind.ShouldBe(JsonValueKind.Null);
        var addresses = world.App.Services.GetRequiredService<LinkAddresses>();
        var secret = await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            Task.FromResult(db.Links.Single().ProtectedSecret)
        );
        var address = $"hull-survey-larkspur-{addresses.Reveal(secret)}";

        foreach (
            var guessed in new[]
            {
                address,
                "hull-survey-larkspur-" + new string('a', 26),
                "x",
                "hull-survey",
                new string('a', 500),
                "%2e%2e",
            }
        )
        {
            (await world.Guest().GetAsync($"/api/public/links/{guessed}")).StatusCode.ShouldBe(
                HttpStatusCode.NotFound,
                guessed
            );
            (await world.Guest().TakeAsync(guessed, Nine)).StatusCode.ShouldBe(HttpStatusCode.NotFound, guessed);
        }

        address.ShouldMatch("^hull-survey-larkspur-[a-z0-9]{26}$");
        address.ShouldNotContain("wren");
    }

    private static IEnumerable<string?> Titles(JsonElement board, string kind) =>
        board
            .GetProperty("days")[0]
            .GetProperty("lanes")
            .EnumerateArray()
            .SelectMany(lane => lane.GetProperty("bars").EnumerateArray())
            .Where(bar => bar.GetProperty("kind").GetString() == kind)
            .Select(bar => bar.GetProperty("title").GetString());
}
