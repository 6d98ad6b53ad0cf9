using LooseLantern.Server.Outside;
using Microsoft.Extensions.Configuration;

namespace Server.Tests;

/// <summary>
/// The calendar that everybody has here, calendars of the whole team, a page's own choice, and the feed of bookings.
/// </summary>
public sealed class OwnCalendarTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private const string NineOnWednesday = "2026-12-09T08:00:00Z";

    private static object Entry(
        string title = "Dentist",
        string start = "2026-12-08T09:00:00",
        string end = "2026-12-08T09:30:00",
        bool wholeDay = false,
        string shows = "busy",
        string repeats = "once",
        string? until = null
    ) =>
        new
        {
            title,
            start,
            end,
            wholeDay,
            shows,
            repeats,
            until,
        };

    [Fact]
    public async Task What_is_kept_here_closes_openings_as_it_is_made_changed_and_taken_out()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var path = await EntriesAsync(ada);
        var made = await (await ada.PostAsync(path, Entry(repeats: "daily", until: "2026-12-09"))).ReadAsync(
            HttpStatusCode.Created
        );
        var starts = await StartsAsync(ada, page, "2026-12-10");
        starts.ShouldNotContain(Nine);
        starts.ShouldNotContain(NineOnWednesday);
        starts.ShouldContain("2026-12-10T08:00:00Z");

        var id = made.GetProperty("id").GetInt64();
        await (await ada.PutAsync($"{path}/{id}", Entry(shows: "tentative"))).ReadAsync(HttpStatusCode.OK);
        (await StartsAsync(ada, page, "2026-12-10")).ShouldContain(NineOnWednesday);
        (await StartsAsync(ada, page, "2026-12-10")).ShouldNotContain(Nine);
        await (await ada.PutAsync($"{path}/{id}", Entry(shows: "free"))).ReadAsync(HttpStatusCode.OK);
        (await StartsAsync(ada, page, "2026-12-10")).ShouldContain(Nine);
        await (
            await ada.PutAsync(
                $"{path}/{id}",
                Entry(start: "2026-12-08T00:00:00", end: "2026-12-09T00:00:00", wholeDay: true)
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await StartsAsync(ada, page, "2026-12-08")).ShouldBeEmpty();
        (await ada.GetAsync(path))[0].GetProperty("entry").GetProperty("wholeDay").GetBoolean().ShouldBeTrue();

        (await ada.DeleteAsync($"{path}/{id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await StartsAsync(ada, page, "2026-12-08")).ShouldContain(Nine);
        (await ada.DeleteAsync($"{path}/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task An_entry_that_makes_no_sense_is_told_at_its_fields()
    {
        var ada = await world.SignUpAsync();
        var path = await EntriesAsync(ada);
        (await (await ada.PostAsync(path, Entry(title: " ", end: "2026-12-08T08:00:00"))).FaultsAsync()).Keys.ShouldBe(
            ["title", "end"],
            ignoreOrder: true
        );
        (await (await ada.PostAsync(path, Entry(wholeDay: true))).FaultsAsync()).Keys.ShouldBe(
            ["start", "end"],
            ignoreOrder: true
        );
        (await (await ada.PostAsync(path, Entry(until: "2026-12-09"))).FaultsAsync()).Keys.ShouldBe(["until"]);
        (await (await ada.PostAsync(path, Entry(repeats: "weekly", until: "2026-12-01"))).FaultsAsync()).Keys.ShouldBe([
            "until",
        ]);
        (await (await ada.PostAsync(path, Entry(end: "2029-12-08T08:00:00"))).FaultsAsync()).Keys.ShouldBe(["end"]);
        (await ada.GetAsync(path)).GetArrayLength().ShouldBe(0);
        (await ada.DeleteAsync(path.Replace("/entries", ""))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_calendar_of_the_team_counts_for_each_in_their_own_zone_and_for_nobody_else()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        await bo.PutAsync(
            "/api/me/profile",
            new
            {
                name = "Bo Keel",
                line = "",
                zone = "America/Halifax",
                language = "en",
                clock = "h24",
            }
        );
        (await bo.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var ada = scene.Owner;
        var mine = await ada.PublishAsync();
        var theirs = await ada.PublishAsync(page => page.HostId = bo.HostId);

        var closed =
            "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:1\nDTSTART;VALUE=DATE:20261208\nEND:VEVENT\nEND:VCALENDAR\n"u8.ToArray();
        var joined = await (
            await ada.UploadAsync(
                HttpMethod.Post,
                "/api/calendars",
                closed,
                ("hostIds", $"{ada.HostId},{bo.HostId}"),
                ("name", "Closures")
            )
        ).ReadAsync(HttpStatusCode.Created);
        joined.GetProperty("hostId").ValueKind.ShouldBe(JsonValueKind.Null);
        (await StartsAsync(ada, mine, "2026-12-08")).ShouldBeEmpty();
        // Nine in Copenhagen is four in the morning in Halifax, and noon the day before is not.
        (await StartsAsync(ada, theirs, "2026-12-08")).ShouldBeEmpty();
        (await StartsAsync(ada, theirs, "2026-12-09")).ShouldContain(NineOnWednesday);
        var halifax = await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            Task.FromResult(
                db.CalendarEntries.Where(row => row.HostId == bo.HostId).Select(row => row.Span.LowerBound).Single()
            )
        );
        halifax.ShouldBe(Instant.FromUtc(2026, 12, 8, 4, 0));

        var path = $"/api/calendars/{joined.GetProperty("id").GetGuid()}";
        await (
            await ada.PutAsync(
                path,
                new
                {
                    name = "Closures",
                    isAsked = true,
                    tentativeCounts = true,
                    hostIds = new[] { bo.HostId },
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await StartsAsync(ada, mine, "2026-12-08")).ShouldContain(Nine);
        (await StartsAsync(ada, theirs, "2026-12-08")).ShouldBeEmpty();
        (
            await (
                await ada.PutAsync(
                    path,
                    new
                    {
                        name = "Closures",
                        isAsked = true,
                        tentativeCounts = true,
                        hostIds = Array.Empty<Guid>(),
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["hostIds"]);
        var cai = await scene.JoinAsync(isHost: true, name: "Cai Strand");
        (
            await ada.PutAsync(
                path,
                new
                {
                    name = "Closures",
                    isAsked = true,
                    tentativeCounts = true,
                    hostIds = new[] { bo.HostId, cai.HostId },
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await cai.DeleteAsync(path)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_page_may_ask_and_write_others_than_usual_until_they_are_taken_away()
    {
        await using var work = await OddServer.StartAsync();
        await using var other = await OddServer.StartAsync();
        work.Objects["/cal/odd/a.ics"] = Outside.Event("a", "20261208T080000Z", "20261208T083000Z");
        other.Objects["/cal/odd/b.ics"] = Outside.Event("b", "20261208T090000Z", "20261208T093000Z");
        var ada = await world.SignUpAsync();
        var first = (await ada.JoinAccountAsync(work.Account(), "Odd"))[0];
        var second = (await ada.JoinAccountAsync(other.Account(), "Odd"))[0];
        await (await ada.PutAsync($"/api/hosts/{ada.HostId}/written-calendar", new { calendarId = first })).ReadAsync(
            HttpStatusCode.NoContent
        );
        var usual = await ada.PublishAsync();
        var chosen = await ada.PublishAsync(page =>
            page.Calendars = [
                new
                {
                    hostId = ada.HostId,
                    asked = new[] { second },
                    writtenTo = (Guid?)second,
                },
            ]
        );

        (await StartsAsync(ada, usual, "2026-12-08")).ShouldBe([
            "2026-12-08T08:30:00Z",
            "2026-12-08T09:30:00Z",
            "2026-12-08T10:00:00Z",
            "2026-12-08T10:30:00Z",
        ]);
        (await StartsAsync(ada, chosen, "2026-12-08")).ShouldBe([
            Nine,
            "2026-12-08T08:30:00Z",
            "2026-12-08T09:30:00Z",
            "2026-12-08T10:00:00Z",
            "2026-12-08T10:30:00Z",
        ]);
        (await world.Guest().BookAsync(ada.Desk, chosen, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await world.Guest().BookAsync(ada.Desk, usual, "2026-12-08T10:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        await world.WrittenAsync(await world.WorkspaceOfAsync(ada.Desk));
        work.Objects.Count.ShouldBe(2);
        other.Objects.Count.ShouldBe(2);
        other.Objects.Values.ShouldContain(text => text.Contains("DTSTART:20261208T080000Z", StringComparison.Ordinal));

        // Taken away, the page is not left asking none.
        (await ada.DeleteAsync($"/api/calendars/{second}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await StartsAsync(ada, chosen, "2026-12-08")).ShouldBe([
            "2026-12-08T08:30:00Z",
            "2026-12-08T09:00:00Z",
            "2026-12-08T09:30:00Z",
            "2026-12-08T10:30:00Z",
        ]);
        foreach (var row in (await ada.PagesAsync()).EnumerateArray())
            (await ada.GetAsync($"/api/pages/{row.GetProperty("id").GetGuid()}"))
                .GetProperty("form")
                .GetProperty("times")
                .GetProperty("calendars")
                .GetArrayLength()
                .ShouldBe(0);
    }

    [Fact]
    public async Task A_page_can_choose_only_calendars_of_its_hosts()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        var theirs = await Scene.CalendarOfAsync(bo);
        var ada = scene.Owner;
        var own = await Scene.CalendarOfAsync(ada);
        async Task<IEnumerable<string>> TryAsync(Guid? asked, Guid? writtenTo) =>
            (
                await (
                    await ada.PostAsync(
                        "/api/pages",
                        ada.Draft(page =>
                                page.Calendars = [
                                    new
                                    {
                                        hostId = ada.HostId,
                                        asked = asked is { } id ? new[] { id } : null,
                                        writtenTo,
                                    },
                                ]
                            )
                            .Form()
                    )
                ).FaultsAsync()
            ).Keys;
        (await TryAsync(theirs, null)).ShouldBe(["times.calendars[0].asked[0]"]);
        (await TryAsync(own, own)).ShouldBe(["times.calendars[0].writtenTo"]);
        (
            await (
                await ada.PutAsync($"/api/hosts/{ada.HostId}/written-calendar", new { calendarId = own })
            ).FaultsAsync()
        ).Keys.ShouldBe(["calendarId"]);
        (
            await bo.PutAsync($"/api/hosts/{ada.HostId}/written-calendar", new { calendarId = (Guid?)null })
        ).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task Bookings_can_be_subscribed_to_by_each_and_all_of_them_by_coordinators_alone()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isCoordinator: true, isHost: true);
        var ada = scene.Owner;
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        async Task<string> PathAsync(Coordinator who, bool all) =>
            (await (await who.PostAsync("/api/me/feed", new { all })).ReadAsync(HttpStatusCode.OK))
                .GetProperty("path")
                .GetString()!;

        var feed = await world.Guest().GetStringAsync(await PathAsync(ada, all: false));
        feed.ShouldContain("METHOD:PUBLISH");
        feed.ShouldContain("REFRESH-INTERVAL;VALUE=DURATION:PT5M");
        feed.ShouldContain("Ottilie Wren");
        (await world.Guest().GetStringAsync(await PathAsync(bo, all: false))).ShouldNotContain("VEVENT");
        var all = await PathAsync(bo, all: true);
        (await world.Guest().GetStringAsync(all)).ShouldContain("Ottilie Wren");

        // Who coordinates no more reads their own alone, and a dropped address nothing.
        await ada.PutAsync(
            $"/api/people/{bo.PersonId}/roles",
            new
            {
                isOwner = false,
                isCoordinator = false,
                isHost = true,
            }
        );
        (await world.Guest().GetStringAsync(all)).ShouldNotContain("Ottilie Wren");
        (await (await bo.PostAsync("/api/me/feed", new { all = true })).FaultsAsync()).Keys.ShouldBe(["all"]);
        (await bo.DeleteAsync("/api/me/feed")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await world.Guest().GetAsync(all)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_feed_of_ones_own_bookings_joined_here_counts_nothing_twice()
    {
        await using var server = await OddServer.StartAsync();
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Places = 2);
        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var path = (await (await ada.PostAsync("/api/me/feed", new { all = false })).ReadAsync(HttpStatusCode.OK))
            .GetProperty("path")
            .GetString()!;
        var feed = await world.Guest().GetStringAsync(path);
        server.Answer = context => OddServer.CalendarAsync(context, feed);
        await ada.JoinAddressAsync(server.Address + "/feed.ics");
        (await StartsAsync(ada, page, "2026-12-08")).ShouldContain(Nine);
    }

    [Fact]
    public async Task A_domain_tells_its_calendar_servers_by_their_records()
    {
        await using var names = new NameServer();
        names.Services["_caldavs._tcp.yard.example"] = ("dav.yard.example", 8443);
        names.Texts["_caldavs._tcp.yard.example"] = "path=/calendars/";
        var configuration = new ConfigurationBuilder()
            .AddInMemoryCollection([new("Outside:NameServer", names.Address)])
            .Build();
        var records = new ServiceRecords(configuration);
        (await records.CalendarServersAsync("yard.example", TestContext.Current.CancellationToken)).ShouldBe([
            new Uri("https://dav.yard.example:8443/calendars/"),
        ]);
        (await records.CalendarServersAsync("127.0.0.1", TestContext.Current.CancellationToken)).ShouldBeEmpty();
    }

    private static async Task<string> EntriesAsync(Coordinator who) =>
        $"/api/calendars/{(await who.GetAsync("/api/calendars")).EnumerateArray().Single(calendar => calendar.GetProperty("kind").GetString() == "builtIn").GetProperty("id").GetGuid()}/entries";

    private static Task<string[]> StartsAsync(Coordinator who, string page, string to) =>
        who.Http.StartsAsync(who.Desk, page, "2026-12-08", to);
}
