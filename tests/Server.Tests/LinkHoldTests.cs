using LooseLantern.Core.Openings;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using static Server.Tests.LinkDraft;

namespace Server.Tests;

/// <summary>What links hold on hosts' time, and how it ends.</summary>
public class LinkHoldTests(World world)
{
    private const string Ten = "2026-12-08T09:00:00Z";

    [Fact]
    public async Task What_was_held_too_long_is_in_nobodys_way_and_goes_from_the_calendar()
    {
        await using var server = await OddServer.StartAsync();
        await using var own = await OwnWorlds.TakeAsync();
        var other = own.World;
        var ada = await other.SignUpAsync();
        var workspace = await other.WorkspaceOfAsync(ada.Desk);
        await ada.JoinAccountAsync(server.Account(), "Odd");
        var (id, _) = await ada.SendLinkAsync();
        var page = await ada.PublishAsync();
        (await ada.HoldAsync(id, "2026-12-07T09:00:00Z")).StatusCode.ShouldBe(HttpStatusCode.OK);
        await other.WrittenAsync(workspace);
        server.Objects.Count.ShouldBe(4);
        server.Objects.Values.ShouldAllBe(text =>
            text.Contains("SUMMARY:Held: Hull survey\\, Larkspur\\, Ottilie Wren", StringComparison.Ordinal)
            && text.Contains("STATUS:TENTATIVE", StringComparison.Ordinal)
        );

        other.Clock.Advance(Duration.FromHours(3));

        // At once for whoever books, whether or not anything was taken away yet.
        (await other.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await ada.LinkAsync(id)).GetProperty("holds").GetArrayLength().ShouldBe(0);
        await SweepAsync(other, workspace);
        (
            await other.WithinAsync(workspace, db => db.Commitments.CountAsync(row => row.Kind == CommitmentKind.Hold))
        ).ShouldBe(0);
        await other.WrittenAsync(workspace);
        server.Objects.Values.ShouldHaveSingleItem().ShouldContain("Talk: Ottilie Wren");
    }

    [Fact]
    public async Task Holds_follow_a_change_of_the_link_and_never_outlive_it()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => draft.EndsOn = "2026-12-09");
        await ada.HoldAsync(id, "2026-12-20T12:00:00Z");
        var held = await ada.LinkAsync(id);
        // Its last day ends at midnight in its zone.
        held.GetProperty("holds")[0].GetProperty("until").GetString().ShouldBe("2026-12-09T23:00:00Z");

        var changed = await (
            await ada.PutAsync(
                $"/api/links/{id}",
                new
                {
                    version = held.GetProperty("version").GetInt32(),
                    form = ada.Link(draft => (draft.Picked, draft.Durations) = ([Ten, Friday], [45])).Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);

        changed
            .GetProperty("holds")
            .EnumerateArray()
            .Select(hold => (hold.GetProperty("start").GetString(), hold.GetProperty("end").GetString()))
            .ShouldBe([(Ten, "2026-12-08T09:45:00Z"), (Friday, "2026-12-11T08:45:00Z")]);
        (await world.Guest().LinkStartsAsync(address, duration: 45)).ShouldBe([Ten, Friday]);
        (await (await ada.PostAsync($"/api/links/{id}/revoke", new { })).ReadAsync(HttpStatusCode.OK))
            .GetProperty("holds")
            .GetArrayLength()
            .ShouldBe(0);
        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/links/{address}"))
            .GetProperty("state")
            .GetString()
            .ShouldBe("revoked");
        (await (await world.Guest().TakeAsync(address, Ten, 45)).ReadAsync(HttpStatusCode.Gone))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:revoked");
        (await (await ada.HoldAsync(id)).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:revoked");
    }

    [Fact]
    public async Task A_change_that_can_t_be_held_changes_nothing()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var (id, _) = await ada.SendLinkAsync(draft => draft.Picked = [Ten]);
        await ada.HoldAsync(id);

        var refused = await (
            await ada.PutAsync(
                $"/api/links/{id}",
                new
                {
                    version = (await ada.LinkAsync(id)).GetProperty("version").GetInt32(),
                    form = ada.Link(draft => (draft.Title, draft.Picked) = ("Another", [Nine, Ten])).Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.Conflict);

        refused.GetProperty("starts")[0].GetString().ShouldBe(Nine);
        var link = await ada.LinkAsync(id);
        link.GetProperty("row").GetProperty("title").GetString().ShouldBe("Hull survey, Larkspur");
        link.GetProperty("holds").GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task What_is_held_stays_so_whatever_comes_into_a_calendar_and_keeps_nothing_else_from_being_done()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();
        await ada.HoldAsync(id);
        await (
            await ada.JoinCalendarAsync(Scene.CalendarWith("Came up", "20261208T080000Z", "20261208T083000Z"))
        ).ReadAsync(HttpStatusCode.Created);

        (await world.Guest().LinkStartsAsync(address)).ShouldBe([Ten, Eleven, Friday]);
        (
            await (await ada.PostAsync($"/api/links/{id}/release", new { starts = new[] { Ten } })).ReadAsync(
                HttpStatusCode.OK
            )
        )
            .GetProperty("holds")
            .GetArrayLength()
            .ShouldBe(3);
        (
            await (await ada.PostAsync($"/api/links/{id}/release", new { starts = new[] { Nine } })).ReadAsync(
                HttpStatusCode.OK
            )
        )
            .GetProperty("holds")
            .GetArrayLength()
            .ShouldBe(2);
        (await world.Guest().LinkStartsAsync(address)).ShouldBe([Eleven, Friday]);
    }

    [Fact]
    public async Task Two_links_that_want_to_hold_one_time_at_once_one_gets_it()
    {
        var ada = await world.SignUpAsync();
        var links = new List<Guid>();
        for (var i = 0; i < 12; i++)
            links.Add((await ada.SendLinkAsync(draft => draft.Picked = [Nine])).Id);

        var answers = await Task.WhenAll(links.Select(id => ada.HoldAsync(id)));

        answers.Count(answer => answer.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        answers.Count(answer => answer.StatusCode == HttpStatusCode.Conflict).ShouldBe(11);
        (await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db => db.Commitments.CountAsync())).ShouldBe(
            1
        );
    }

    [Fact]
    public async Task Of_several_who_could_take_a_seat_one_holds_it_and_gets_the_booking()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var (id, address) = await ada.SendLinkAsync(draft =>
            (draft.Seats, draft.Picked) = (
                [
                    [ada.HostId, bo.HostId],
                ],
                [Nine]
            )
        );
        await ada.HoldAsync(id);
        var holder = (await ada.LinkAsync(id))
            .GetProperty("holds")[0]
            .GetProperty("hosts")
            .EnumerateArray()
            .ShouldHaveSingleItem()
            .GetString();

        await (await world.Guest().TakeAsync(address, Nine)).ReadAsync(HttpStatusCode.Created);

        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/links/{address}"))
            .GetProperty("taken")[0]
            .GetProperty("hosts")
            .EnumerateArray()
            .Select(host => host.GetString())
            .ShouldBe([holder]);
    }

    [Fact]
    public async Task Whoever_holds_a_time_gets_its_booking_also_where_it_would_be_anothers_turn()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var (id, address) = await ada.SendLinkAsync(draft =>
            (draft.Seats, draft.Picked, draft.Takes) = (
                [
                    [ada.HostId, bo.HostId],
                ],
                [Nine, Ten],
                2
            )
        );
        await ada.HoldAsync(id);
        string?[] HostsOf(JsonElement row) =>
            [.. row.GetProperty("hosts").EnumerateArray().Select(host => host.GetString())];
        var held = (await ada.LinkAsync(id)).GetProperty("holds").EnumerateArray().Select(HostsOf).ToList();

        // By the second one's time its host has had the first, and the other none.
        foreach (var start in new[] { Nine, Ten })
            await (
                await world.Guest().TakeAsync(address, start, name: "Ottilie Wren", email: "ottilie@wren.example")
            ).ReadAsync(HttpStatusCode.Created);

        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/links/{address}"))
            .GetProperty("taken")
            .EnumerateArray()
            .Select(HostsOf)
            .ShouldBe(held);
    }

    [Fact]
    public async Task Time_that_was_held_is_offered_to_others_as_soon_as_the_hold_has_run_out()
    {
        var ada = await world.SignUpAsync();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var (id, _) = await ada.SendLinkAsync(draft => draft.Picked = [Nine]);
        var page = await ada.PublishAsync();
        await ada.HoldAsync(id);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(Nine);
        await world.WithinAsync(workspace, db =>
            db.Commitments.ExecuteUpdateAsync(set => set.SetProperty(row => row.HeldUntil, World.Now))
        );
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
    }

    [Fact]
    public async Task What_is_promised_by_a_hold_stays_so_where_a_cap_is_reached_meanwhile()
    {
        var ada = await world.SignUpAsync();
        var host = await ada.OwnHostAsync();
        (
            await ada.PutAsync(
                $"/api/hosts/{ada.HostId}",
                new
                {
                    name = (string?)null,
                    zone = (string?)null,
                    hoursId = host.GetProperty("hoursId").GetGuid(),
                    weight = 1,
                    dailyCap = 1,
                    weeklyCap = (int?)null,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var (id, address) = await ada.SendLinkAsync(draft => draft.Picked = [Nine, Ten]);
        await ada.HoldAsync(id);
        await ada.PostAsync($"/api/links/{id}/release", new { starts = new[] { Ten } });
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, Ten)).StatusCode.ShouldBe(HttpStatusCode.Created);

        (await world.Guest().LinkStartsAsync(address)).ShouldBe([Nine]);
        (await world.Guest().TakeAsync(address, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
    }

    [Fact]
    public async Task Only_picked_times_are_held_and_until_a_time_to_come()
    {
        var ada = await world.SignUpAsync();
        var (free, _) = await ada.SendLinkAsync(draft => (draft.By, draft.Picked) = ("free", []));
        var (id, _) = await ada.SendLinkAsync();

        (await (await ada.HoldAsync(free)).FaultsAsync())["until"].ShouldContain("Only times that are picked");
        (await (await ada.HoldAsync(id, "2026-12-07T06:00:00Z")).FaultsAsync()).Keys.ShouldBe(["until"]);
        (await (await ada.HoldAsync(id, "2027-12-07T06:00:00Z")).FaultsAsync()).Keys.ShouldBe(["until"]);
    }

    /// <summary>As the worker does, whether or not it comes first.</summary>
    private static async Task SweepAsync(World world, Guid workspace)
    {
        List<DueRow> due;
        await using (var scope = world.App.Services.CreateAsyncScope())
            due = await Holding.RunsOut.ClaimAsync(
                scope.ServiceProvider.GetRequiredService<LooseLantern.Server.Data.LanternDb>(),
                world.Clock.GetCurrentInstant(),
                world.Clock.GetCurrentInstant(),
                100,
                CancellationToken.None
            );
        foreach (var row in due)
        {
            await using var scope = world.App.Services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<Tenant>().Enter(workspace);
            await Holding.RunsOut.DoAsync(scope.ServiceProvider, row.Id, CancellationToken.None);
        }
    }
}
