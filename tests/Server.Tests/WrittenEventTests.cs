using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NpgsqlTypes;

namespace Server.Tests;

/// <summary>Bookings in hosts' own calendars, and what their owners do to them there.</summary>
public sealed class WrittenEventTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private const string Ten = "2026-12-08T09:00:00Z";

    [Fact]
    public async Task An_event_that_its_host_moved_changes_no_booking_until_somebody_chooses()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        await scene.BookAsync(Nine);
        var text = scene.Written();
        scene.Server.Objects[scene.PathOf(text)] = text.Replace("T080000Z", "T100000Z").Replace("T083000Z", "T103000Z");
        await scene.LookOnAsync();

        var row = (await scene.Ada.GetAsync("/api/bookings")).GetProperty("rows")[0];
        row.GetProperty("start").GetString().ShouldBe(Nine);
        var outside = row.GetProperty("outside")[0];
        outside.GetProperty("change").GetString().ShouldBe("moved");
        outside.GetProperty("start").GetString().ShouldBe("2026-12-08T10:00:00Z");
        (await scene.BarAsync())
            .GetProperty("outside")
            .GetProperty("id")
            .GetGuid()
            .ShouldBe(outside.GetProperty("id").GetGuid());
        // Neither time is given away: the booking keeps its own, and the event is ours and not busy.
        var starts = await scene.StartsAsync();
        starts.ShouldNotContain(Nine);
        starts.ShouldContain("2026-12-08T10:00:00Z");

        await (
            await scene.Ada.PostAsync($"/api/written-events/{outside.GetProperty("id").GetGuid()}/move", new { })
        ).ReadAsync(HttpStatusCode.NoContent);
        await scene.SettledAsync();
        var session = await world.WithinAsync(scene.Workspace, db => db.Sessions.SingleAsync());
        (session.Time.LowerBound, session.Sequence).ShouldBe((Instant.FromUtc(2026, 12, 8, 10, 0), 1));
        scene.Written().ShouldContain("DTSTART:20261208T100000Z");
        scene.Written().ShouldContain("SEQUENCE:1");
        (await scene.Ada.GetAsync("/api/bookings"))
            .GetProperty("rows")[0]
            .GetProperty("outside")
            .GetArrayLength()
            .ShouldBe(0);
        starts = await scene.StartsAsync();
        starts.ShouldContain(Nine);
        starts.ShouldNotContain("2026-12-08T10:00:00Z");
        (
            await world.WithinAsync(scene.Workspace, db =>
                db.Messages.Where(message =>
                        message.Kind == MessageKind.MovedForGuest || message.Kind == MessageKind.MovedForHost
                    )
                    .CountAsync()
            )
        ).ShouldBe(2);
        (
            await scene.Ada.PostAsync($"/api/written-events/{outside.GetProperty("id").GetGuid()}/move", new { })
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_booking_is_not_moved_to_where_its_host_is_taken_and_its_event_can_be_put_back()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        await scene.BookAsync(Nine);
        var text = scene.Written();
        await scene.BookAsync(Ten);
        scene.Server.Objects[scene.PathOf(text)] = text.Replace("T080000Z", "T090000Z").Replace("T083000Z", "T093000Z");
        await scene.LookOnAsync();

        var id = (await scene.Ada.GetAsync("/api/bookings"))
            .GetProperty("rows")[0]
            .GetProperty("outside")[0]
            .GetProperty("id")
            .GetGuid();
        var refused = await (await scene.Ada.PostAsync($"/api/written-events/{id}/move", new { })).ReadAsync(
            HttpStatusCode.Conflict
        );
        refused.GetProperty("title").GetString()!.ShouldContain("is booked then");
        await (await scene.Ada.PostAsync($"/api/written-events/{id}/put-back", new { })).ReadAsync(
            HttpStatusCode.NoContent
        );
        await scene.SettledAsync();
        scene.Server.Objects[scene.PathOf(text)].ShouldContain("DTSTART:20261208T080000Z");
        (await scene.Ada.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .ShouldAllBe(row => row.GetProperty("outside").GetArrayLength() == 0);
    }

    [Fact]
    public async Task A_deleted_event_is_told_first_of_all_and_is_put_back_or_left_off()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        await scene.BookAsync(Nine);
        await scene.BookAsync(Ten);
        var later = scene
            .Server.Objects.Single(pair => pair.Value.Contains("DTSTART:20261208T090000Z", StringComparison.Ordinal))
            .Key;
        scene.Server.Objects.TryRemove(later, out _);
        await scene.LookOnAsync();

        var row = (await scene.Ada.GetAsync("/api/bookings")).GetProperty("rows")[0];
        row.GetProperty("start").GetString().ShouldBe(Ten);
        row.GetProperty("outside")[0].GetProperty("change").GetString().ShouldBe("deleted");
        (await scene.StartsAsync()).ShouldNotContain(Ten);
        var id = row.GetProperty("outside")[0].GetProperty("id").GetGuid();
        (await scene.Ada.PostAsync($"/api/written-events/{id}/move", new { })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        await (await scene.Ada.PostAsync($"/api/written-events/{id}/put-back", new { })).ReadAsync(
            HttpStatusCode.NoContent
        );
        await scene.SettledAsync();
        scene.Server.Objects.ShouldContainKey(later);

        scene.Server.Objects.TryRemove(later, out _);
        await scene.LookOnAsync();
        await (await scene.Ada.PostAsync($"/api/written-events/{id}/leave-off", new { })).ReadAsync(
            HttpStatusCode.NoContent
        );
        await scene.LookOnAsync();
        scene.Server.Objects.ShouldNotContainKey(later);
        (await scene.Ada.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .ShouldAllBe(each => each.GetProperty("outside").GetArrayLength() == 0);
        (await scene.StartsAsync()).ShouldNotContain(Ten);
    }

    [Fact]
    public async Task Who_may_not_move_bookings_of_a_host_may_not_choose_for_them()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        await scene.BookAsync(Nine);
        scene.Server.Objects.Clear();
        await scene.LookOnAsync();
        var bo = await new Scene(world, scene.Ada).JoinAsync(isCoordinator: true);
        var outside = (await bo.GetAsync("/api/bookings")).GetProperty("rows")[0].GetProperty("outside")[0];
        outside.GetProperty("mayAnswer").GetBoolean().ShouldBeFalse();
        foreach (var choice in new[] { "put-back", "leave-off" })
            (
                await bo.PostAsync($"/api/written-events/{outside.GetProperty("id").GetGuid()}/{choice}", new { })
            ).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_server_that_takes_an_event_and_dies_has_it_once()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        scene.Server.DiesAfterPuts = 100;
        (await world.Guest().BookAsync(scene.Ada.Desk, scene.Page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var failed = await Outside.AwaitAsync(
            () =>
                world.WithinAsync(scene.Workspace, db =>
                    db.WrittenEvents.FirstOrDefaultAsync(row => row.Attempts == 1)
                ),
            "the first try"
        );
        failed.DueAt.ShouldBe(World.Now + Duration.FromSeconds(30));
        (await scene.Ada.CalendarAsync(scene.Calendar)).GetProperty("unwritten").GetInt32().ShouldBe(1);

        scene.Server.DiesAfterPuts = 0;
        // Due again; the clock of all tests stands still.
        await world.WithinAsync(scene.Workspace, db =>
            db.WrittenEvents.ExecuteUpdateAsync(set => set.SetProperty(row => row.DueAt, World.Now))
        );
        await scene.SettledAsync();
        scene.Server.Objects.Count.ShouldBe(1);
        await scene.LookOnAsync();
        (await scene.Ada.GetAsync("/api/bookings"))
            .GetProperty("rows")[0]
            .GetProperty("outside")
            .GetArrayLength()
            .ShouldBe(0);
    }

    [Fact]
    public async Task A_move_that_broke_off_after_it_was_carried_out_is_ours_and_no_hosts_doing()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        var booked = await (await world.Guest().BookAsync(scene.Ada.Desk, scene.Page, Nine)).ReadAsync(
            HttpStatusCode.Created
        );
        await scene.SettledAsync();
        scene.Server.DiesAfterPuts = 100;
        foreach (var start in new[] { Ten, "2026-12-08T10:00:00Z" })
        {
            await MoveAsync(booked, start);
            await AwaitTriedAsync(scene, start);
        }

        scene.Server.DiesAfterPuts = 0;
        await MoveAsync(booked, "2026-12-08T08:30:00Z");
        await scene.SettledAsync();
        scene.Written().ShouldContain("DTSTART:20261208T083000Z");
        (await scene.BarAsync()).GetProperty("outside").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task An_event_that_was_deleted_though_nobody_said_so_is_written_where_it_is_wanted_again()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        await scene.BookAsync(Nine);
        scene.Server.DiesAfterDeletes = 100;
        await WishAsync(scene, isWanted: false);
        await Outside.AwaitAsync(
            () =>
                world.WithinAsync(scene.Workspace, db =>
                    db.WrittenEvents.FirstOrDefaultAsync(row => row.Attempts == 1)
                ),
            "the first try"
        );
        scene.Server.Objects.ShouldBeEmpty();

        scene.Server.DiesAfterDeletes = 0;
        await WishAsync(scene, isWanted: true);
        await scene.SettledAsync();
        scene.Server.Objects.Count.ShouldBe(1);
        (await scene.BarAsync()).GetProperty("outside").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    private async Task MoveAsync(JsonElement booked, string start) =>
        (await world.Guest().PostAsJsonAsync(GroupScene.ApiOf(booked) + "/move", new { start })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

    /// <summary>Waits until it was tried to write the event at another time.</summary>
    private async Task AwaitTriedAsync(WritingScene scene, string start)
    {
        var at = NodaTime.Text.InstantPattern.General.Parse(start).Value;
        await Outside.AwaitAsync(
            () =>
                world.WithinAsync(scene.Workspace, db =>
                    db.WrittenEvents.FirstOrDefaultAsync(row => row.Attempts == 1 && row.TriedStart == at)
                ),
            "the try that breaks off"
        );
    }

    /// <summary>What should be there changes, as when a session goes to another host and comes back.</summary>
    private Task WishAsync(WritingScene scene, bool isWanted) =>
        world.WithinAsync(scene.Workspace, db =>
            db.WrittenEvents.ExecuteUpdateAsync(set =>
                set.SetProperty(row => row.IsWanted, isWanted)
                    .SetProperty(row => row.Wish, row => row.Wish + 1)
                    .SetProperty(row => row.Attempts, 0)
                    .SetProperty(row => row.DueAt, World.Now)
            )
        );

    [Fact]
    public async Task A_booking_does_not_wait_while_what_a_look_brought_is_kept()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        await using var services = world.App.Services.CreateAsyncScope();
        services.ServiceProvider.GetRequiredService<Tenant>().Enter(scene.Workspace);
        var db = services.ServiceProvider.GetRequiredService<LanternDb>();
        await using var keeping = await db.Database.BeginTransactionAsync(TestContext.Current.CancellationToken);
        var locking = services.ServiceProvider.GetRequiredService<CalendarUnrolling>();
        (await locking.LockedAsync(scene.Calendar, TestContext.Current.CancellationToken)).ShouldNotBeNull();

        // Each event points at its calendar; whoever keeps one waits for the event in turn.
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        (await world.Guest().BookAsync(scene.Ada.Desk, scene.Page, Nine).WaitAsync(patience.Token)).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
    }

    [Fact]
    public async Task A_booking_waits_for_no_calendar_server()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        scene.Server.IsDown = true;
        (await world.Guest().BookAsync(scene.Ada.Desk, scene.Page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await Outside.AwaitAsync(
            () =>
                world.WithinAsync(scene.Workspace, db =>
                    db.WrittenEvents.FirstOrDefaultAsync(row => row.Fault != null)
                ),
            "the try that fails"
        );
        var view = await scene.Ada.CalendarAsync(scene.Calendar);
        view.GetProperty("writeFault").GetString()!.ShouldContain("broke off");
    }

    [Fact]
    public async Task Two_changes_at_once_are_not_taken_for_somebody_elses()
    {
        await using var scene = await WritingScene.MakeAsync(world, places: 20);
        await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(async guest =>
                    (
                        await world
                            .Guest()
                            .BookAsync(
                                scene.Ada.Desk,
                                scene.Page,
                                Nine,
                                name: $"Guest {guest}",
                                email: $"g{guest}@yard.example"
                            )
                    ).StatusCode.ShouldBe(HttpStatusCode.Created)
                )
        );
        await scene.SettledAsync();
        await scene.LookOnAsync();
        scene.Server.Objects.Count.ShouldBe(1);
        for (var guest = 0; guest < 8; guest++)
            scene.Written().ShouldContain($"g{guest}@yard.example");
        (await scene.Ada.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .ShouldAllBe(row => row.GetProperty("outside").GetArrayLength() == 0);
    }

    [Fact]
    public async Task Who_leaves_takes_the_event_out_of_their_calendar_and_the_heir_has_it_in_theirs()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        await using var heirs = await OddServer.StartAsync();
        var team = new Scene(world, scene.Ada);
        var bo = await team.JoinAsync(isHost: true);
        await bo.JoinAccountAsync(heirs.Account(), "Odd");
        await team.JoinAsync(isOwner: true, name: "Cai Strand");
        await scene.BookAsync(Nine);
        scene.Server.Objects.Count.ShouldBe(1);

        await (
            await scene.Ada.PostAsync($"/api/people/{scene.Ada.PersonId}/leave", new { toHostId = bo.HostId })
        ).ReadAsync(HttpStatusCode.OK);
        await scene.SettledAsync();
        scene.Server.Objects.ShouldBeEmpty();
        heirs.Objects.Count.ShouldBe(1);
        heirs.Objects.Values.Single().ShouldContain("Bo Keel");
    }

    [Fact]
    public async Task Held_time_stands_in_the_calendar_as_tentative_until_it_is_released()
    {
        await using var scene = await WritingScene.MakeAsync(world);
        var hold = await HoldAsync(scene, (db, wishes, held) =>
        {
            var trip = new RoundTrip(db);
            wishes.ForHolds(trip, Guid.Empty, [held], "a first talk");
            return trip.RunAsync(CancellationToken.None);
        });
        await scene.SettledAsync();
        var text = scene.Written();
        text.ShouldContain("STATUS:TENTATIVE");
        text.ShouldContain("SUMMARY:Held: a first talk");
        text.ShouldContain($"UID:{hold:D}");
        await scene.LookOnAsync();
        (await scene.Ada.CalendarAsync(scene.Calendar)).GetProperty("entries").GetInt32().ShouldBe(0);

        await WithWishesAsync(scene, async (db, wishes) =>
        {
            db.Commitments.RemoveRange(await db.Commitments.ToListAsync());
            var trip = new RoundTrip(db);
            wishes.Released(trip, [hold]);
            await trip.RunAsync(CancellationToken.None);
        });
        await scene.SettledAsync();
        scene.Server.Objects.ShouldBeEmpty();
    }

    private async Task<Guid> HoldAsync(WritingScene scene, Func<LanternDb, EventWishes, CommitmentRow, Task> wish)
    {
        var from = Instant.FromUtc(2026, 12, 8, 8, 0);
        var held = new CommitmentRow
        {
            WorkspaceId = scene.Workspace,
            HostId = scene.Ada.HostId,
            HolderId = Guid.CreateVersion7(),
            Kind = CommitmentKind.Hold,
            Span = new NpgsqlRange<Instant>(from, true, from + Duration.FromHours(1), false),
            BufferBefore = 0,
            BufferAfter = 0,
        };
        await WithWishesAsync(scene, async (db, wishes) =>
        {
            db.Commitments.Add(held);
            await wish(db, wishes, held);
        });
        return held.Id;
    }

    private async Task WithWishesAsync(WritingScene scene, Func<LanternDb, EventWishes, Task> act)
    {
        await using var services = world.App.Services.CreateAsyncScope();
        services.ServiceProvider.GetRequiredService<Tenant>().Enter(scene.Workspace);
        var db = services.ServiceProvider.GetRequiredService<LanternDb>();
        await act(db, services.ServiceProvider.GetRequiredService<EventWishes>());
        await db.SaveChangesAsync();
    }
}

/// <summary>A coordinator whose bookings are written to a calendar of an odd server.</summary>
internal sealed class WritingScene : IAsyncDisposable
{
    private WritingScene(World world, OddServer server, Coordinator ada) => (World, Server, Ada) = (world, server, ada);

    public World World { get; }

    public OddServer Server { get; }

    public Coordinator Ada { get; }

    public string Page { get; private set; } = "";

    public Guid Calendar { get; private set; }

    public Guid Workspace { get; private set; }

    public static async Task<WritingScene> MakeAsync(World world, int places = 1)
    {
        var scene = new WritingScene(world, await OddServer.StartAsync(), await world.SignUpAsync());
        scene.Page = await scene.Ada.PublishAsync(page => page.Places = places);
        scene.Calendar = (await scene.Ada.JoinAccountAsync(scene.Server.Account(), "Odd"))[0];
        scene.Workspace = await world.WorkspaceOfAsync(scene.Ada.Desk);
        return scene;
    }

    public async Task BookAsync(string start)
    {
        (await World.Guest().BookAsync(Ada.Desk, Page, start)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await SettledAsync();
    }

    public Task SettledAsync() => World.WrittenAsync(Workspace);

    public async Task LookOnAsync() => (await World.LookOnAsync(Workspace, Calendar)).ShouldBeTrue();

    /// <summary>The text of the only event there, unfolded.</summary>
    public string Written() => Server.Objects.Values.Single().ReplaceLineEndings("\n").Replace("\n ", "");

    public string PathOf(string text) =>
        Server.Objects.Single(pair => pair.Value.ReplaceLineEndings("\n").Replace("\n ", "") == text).Key;

    public Task<string[]> StartsAsync() => Ada.Http.StartsAsync(Ada.Desk, Page, "2026-12-08", "2026-12-08");

    public async Task<JsonElement> BarAsync() =>
        (await Ada.GetAsync("/api/board?from=2026-12-08&days=1"))
            .GetProperty("days")[0]
            .GetProperty("lanes")[0]
            .GetProperty("bars")
            .EnumerateArray()
            .Single(bar => bar.GetProperty("kind").GetString() == "booked");

    public ValueTask DisposeAsync() => Server.DisposeAsync();
}
