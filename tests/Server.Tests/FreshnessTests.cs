using System.Net.ServerSentEvents;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>What becomes of openings as time goes on, in a world whose clock the test moves.</summary>
public sealed class FreshnessTests : IAsyncLifetime
{
    private const string Nine = "2026-12-08T08:00:00Z";

    private OwnWorld? _own;

    private World World => _own!.World;

    public async ValueTask InitializeAsync() => _own = await OwnWorlds.TakeAsync();

    public async ValueTask DisposeAsync()
    {
        if (_own is not null)
            await _own.DisposeAsync();
    }

    [Fact]
    public async Task A_change_outside_shows_within_a_minute_and_whoever_watches_the_page_is_told()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        using var watching = await WatchAsync(
            World.Guest(),
            $"/api/public/desks/{scene.Ada.Desk}/pages/{scene.Page}/changes"
        );
        await watching.NextAsync("here");
        using var elsewhere = await WatchAsync((await World.SignUpAsync()).Http, "/api/changes");
        await elsewhere.NextAsync("here");

        scene.Server.Objects["/cal/odd/x.ics"] = Outside.Event("x", "20261208T080000Z", "20261208T083000Z");
        World.Clock.AdvanceSeconds(59);
        await watching.NextAsync("changed");
        (await scene.StartsAsync()).ShouldNotContain(Nine);
        elsewhere.HasMore.ShouldBeFalse();

        // A booking is told as well.
        (await World.Guest().BookAsync(scene.Ada.Desk, scene.Page, "2026-12-08T09:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        await watching.NextAsync("changed");
    }

    [Fact]
    public async Task Out_of_reach_for_a_day_closes_its_hosts_openings_and_no_other_page_before_it_answers_again()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        scene.Server.IsDown = true;
        World.Clock.AdvanceMinutes(1);
        await Outside.AwaitAsync(
            async () => (await ViewAsync(scene)).GetProperty("unreachableSince").ValueKind == JsonValueKind.String,
            "the look that fails"
        );
        (await scene.StartsAsync()).ShouldContain(Nine);
        var view = await ViewAsync(scene);
        view.GetProperty("closesAt").GetString().ShouldBe("2026-12-08T07:00:00Z");

        World.Clock.Advance(Duration.FromHours(24) - Duration.FromMinutes(2));
        (await NextDayAsync(scene)).ShouldNotBeEmpty();
        World.Clock.AdvanceMinutes(1);
        (await NextDayAsync(scene)).ShouldBeEmpty();
        (await World.Guest().BookAsync(scene.Ada.Desk, scene.Page, "2026-12-09T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        var bars = (await scene.Ada.GetAsync("/api/board?from=2026-12-09&days=1"))
            .GetProperty("days")[0]
            .GetProperty("lanes")[0]
            .GetProperty("bars")
            .EnumerateArray();
        bars.ShouldContain(bar => bar.GetProperty("title").GetString() == "out of reach for too long");

        var busy = (await (await scene.Ada.PostAsync("/api/me/busy-times", new { })).ReadAsync(HttpStatusCode.OK))
            .GetProperty("path")
            .GetString()!;
        (await World.Guest().GetStringAsync(busy)).ShouldContain("FREEBUSY:20261207T070000Z/20270206T070000Z");

        // The workspace may wait longer.
        await (
            await scene.Ada.PutAsync(
                "/api/workspace",
                new
                {
                    name = "Yard",
                    zone = "Europe/Copenhagen",
                    closesAfterHours = 48,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await NextDayAsync(scene)).ShouldNotBeEmpty();
        await (
            await scene.Ada.PutAsync(
                "/api/workspace",
                new
                {
                    name = "Yard",
                    zone = "Europe/Copenhagen",
                    closesAfterHours = 24,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (
            await (
                await scene.Ada.PutAsync(
                    "/api/workspace",
                    new
                    {
                        name = "Yard",
                        zone = "Europe/Copenhagen",
                        closesAfterHours = 0,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["closesAfterHours"]);

        scene.Server.IsDown = false;
        World.Clock.AdvanceMinutes(16);
        await Outside.AwaitAsync(async () => (await NextDayAsync(scene)).Length > 0, "the look that succeeds");
        (await ViewAsync(scene)).GetProperty("unreachableSince").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_booking_asks_a_calendar_first_at_which_nobody_has_looked_for_too_long()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        // As if whoever looks in time had stopped.
        await World.WithinAsync(scene.Workspace, db =>
            db.Calendars.Where(row => row.Id == scene.Calendar)
                .ExecuteUpdateAsync(set =>
                    set.SetProperty(row => row.NextLookAt, World.Now + Duration.FromDays(300))
                        .SetProperty(row => row.LookedAt, World.Now - Duration.FromMinutes(5))
                )
        );
        scene.Server.Objects["/cal/odd/x.ics"] = Outside.Event("x", "20261208T080000Z", "20261208T083000Z");
        (await scene.StartsAsync()).ShouldContain(Nine);
        (await World.Guest().BookAsync(scene.Ada.Desk, scene.Page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_server_that_hangs_holds_up_nobody_elses_calendar()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        await using var slow = await OddServer.StartAsync();
        var waiting = await World.SignUpAsync();
        // As many as were done at once in one go, and due before the other.
        for (var count = 0; count < 5; count++)
        {
            slow.Answer = context => OddServer.CalendarAsync(context, Scene.EmptyCalendar);
            await waiting.JoinAddressAsync($"{slow.Address}/{count}.ics");
        }

        slow.Hangs = true;
        scene.Server.Objects["/cal/odd/x.ics"] = Outside.Event("x", "20261208T080000Z", "20261208T083000Z");
        await World.WithinAsync(scene.Workspace, db =>
            db.Calendars.Where(row => row.Id == scene.Calendar)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.NextLookAt, World.Now + Duration.FromSeconds(31)))
        );
        World.Clock.AdvanceSeconds(32);
        await Outside.AwaitAsync(
            async () => !(await scene.StartsAsync()).Contains(Nine),
            "the look that does not hang"
        );
        (await waiting.GetAsync("/api/calendars"))
            .EnumerateArray()
            .ShouldAllBe(calendar => calendar.GetProperty("unreachableSince").ValueKind == JsonValueKind.Null);
    }

    [Fact]
    public async Task A_start_looks_at_once_at_what_was_put_off_also_where_the_clock_was_ahead()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        await World.WithinAsync(scene.Workspace, db =>
            db.Calendars.Where(row => row.Id == scene.Calendar)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.NextLookAt, World.Now + Duration.FromDays(300)))
        );
        scene.Server.Objects["/cal/odd/x.ics"] = Outside.Event("x", "20261208T080000Z", "20261208T083000Z");
        (await scene.StartsAsync()).ShouldContain(Nine);
        await using var another = new LanternApp(World.ConnectionString, World.Clock);
        _ = another.Server;
        await Outside.AwaitAsync(async () => !(await scene.StartsAsync()).Contains(Nine), "the look at the start");
    }

    [Fact]
    public async Task An_event_that_could_not_be_written_is_written_once_its_server_answers()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        scene.Server.IsDown = true;
        (await World.Guest().BookAsync(scene.Ada.Desk, scene.Page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await Outside.AwaitAsync(
            async () => (await ViewAsync(scene)).GetProperty("writeFault").ValueKind == JsonValueKind.String,
            "the try that fails"
        );
        scene.Server.IsDown = false;
        World.Clock.AdvanceSeconds(31);
        await scene.SettledAsync();
        scene.Server.Objects.Count.ShouldBe(1);
    }

    private static Task<JsonElement> ViewAsync(WritingScene scene) => scene.Ada.CalendarAsync(scene.Calendar);

    private static Task<string[]> NextDayAsync(WritingScene scene) =>
        scene.Ada.Http.StartsAsync(scene.Ada.Desk, scene.Page, "2026-12-09", "2026-12-09");

    private static async Task<Watched> WatchAsync(HttpClient client, string path) =>
        new(
            SseParser
                .Create(await client.GetStreamAsync(path))
                .EnumerateAsync()
                .GetAsyncEnumerator(TestContext.Current.CancellationToken)
        );

    private sealed class Watched(IAsyncEnumerator<SseItem<string>> events) : IDisposable
    {
        private Task<bool>? _next;

        public bool HasMore => (_next ??= events.MoveNextAsync().AsTask()).IsCompleted;

        public async Task NextAsync(string type)
        {
            (await (_next ?? events.MoveNextAsync().AsTask()).WaitAsync(TimeSpan.FromSeconds(20))).ShouldBeTrue();
            _next = null;
            events.Current.EventType.ShouldBe(type);
        }

        public void Dispose()
        {
            // The stream ends with the test's server.
        }
    }
}
