using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>A calendar server that others wrote, for the tests that need one.</summary>
public sealed class RadicaleServer : IAsyncLifetime
{
    public Radicale Radicale { get; private set; } = null!;

    public async ValueTask InitializeAsync() => Radicale = await Radicale.StartAsync();

    public ValueTask DisposeAsync() => Radicale.DisposeAsync();
}

/// <summary>The client against radicale: that it speaks the protocol and not a dialect of our own stand-in.</summary>
public sealed class RadicaleTests(World world, RadicaleServer server) : IClassFixture<RadicaleServer>
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private const string Ten = "2026-12-08T09:00:00Z";

    private Radicale Radicale => server.Radicale;

    [Fact]
    public async Task An_account_is_found_by_its_servers_name_and_its_events_close_openings_as_they_come_and_go()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var (work, path) = (World.Unique("work"), "");
        await Radicale.MakeCalendarAsync(work);
        path = $"/marit/{work}";
        await Radicale.PutAsync($"{path}/a.ics", Outside.Event("a", "20261208T080000Z", "20261208T083000Z"));

        var calendar = (await ada.JoinAccountAsync(Radicale.Account(), work))[0];
        (await StartsAsync(ada, page)).ShouldNotContain(Nine);
        var view = await ada.CalendarAsync(calendar);
        view.GetProperty("mayWrite").GetBoolean().ShouldBeTrue();
        view.GetProperty("isWrittenTo").GetBoolean().ShouldBeTrue();
        (
            await world.LookAsync(db => db.Calendars.IgnoreQueryFilters().SingleAsync(row => row.Id == calendar))
        ).TellsChanges.ShouldBeTrue();

        // Moved, one more made, then one deleted: each is a change since the last look.
        await Radicale.PutAsync($"{path}/a.ics", Outside.Event("a", "20261208T090000Z", "20261208T093000Z"));
        await Radicale.PutAsync(
            $"{path}/b.ics",
            Outside.Event("b", "20261208T100000Z", "20261208T103000Z", more: "RRULE:FREQ=DAILY\r\n")
        );
        await LookOnAsync(ada, calendar);
        var starts = await StartsAsync(ada, page);
        starts.ShouldContain(Nine);
        starts.ShouldNotContain(Ten);
        starts.ShouldNotContain("2026-12-08T10:00:00Z");

        await Radicale.DeleteAsync($"{path}/b.ics");
        await LookOnAsync(ada, calendar);
        (await StartsAsync(ada, page)).ShouldContain("2026-12-08T10:00:00Z");
    }

    [Fact]
    public async Task A_booking_is_written_without_asking_the_server_to_invite_anybody_and_is_never_read_back_as_busy()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Places = 3);
        var work = World.Unique("work");
        await Radicale.MakeCalendarAsync(work);
        var calendar = (await ada.JoinAccountAsync(Radicale.Account(), work))[0];

        (await world.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (
            await world.Guest().BookAsync(ada.Desk, page, Nine, name: "Hanako Mori", email: "hanako@mori-sail.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        await world.WrittenAsync(workspace);

        var session = await world.WithinAsync(workspace, db => db.Sessions.SingleAsync());
        var text = (await Radicale.GetAsync($"/marit/{work}/{session.Uid}.ics"))
            .ReplaceLineEndings("\n")
            .Replace("\n ", "");
        text.ShouldContain($"UID:{session.Uid}");
        text.ShouldNotContain("METHOD");
        var parties = text.Split('\n')
            .Where(line =>
                line.StartsWith("ORGANIZER", StringComparison.Ordinal)
                || line.StartsWith("ATTENDEE", StringComparison.Ordinal)
            )
            .ToList();
        parties.Count.ShouldBe(4);
        parties.ShouldAllBe(line => line.Contains(";SCHEDULE-AGENT=CLIENT"));
        text.ShouldContain("mailto:hanako@mori-sail.example");
        text.ShouldContain("mailto:ottilie@wren-charters.example");

        // Moved or not, what it stands for counts as it is known here: the page still has a place, and other times are
        // as open as before.
        await ada.LookAsync(calendar);
        (await StartsAsync(ada, page)).ShouldContain(Nine);
        (await ada.CalendarAsync(calendar)).GetProperty("entries").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task A_wrong_password_and_a_server_that_has_no_calendars_are_told_at_their_fields()
    {
        var ada = await world.SignUpAsync();
        (await (await ada.PostAsync("/api/calendars/account/find", Radicale.Account("not this one"))).FaultsAsync())[
            "password"
        ]
            .ShouldContain("does not accept");
        var faults = await (
            await ada.PostAsync(
                "/api/calendars/account/find",
                new
                {
                    server = Radicale.Address + "/nowhere",
                    userName = "x:y",
                    password = "",
                }
            )
        ).FaultsAsync();
        faults.Keys.ShouldBe(["userName", "password"], ignoreOrder: true);
    }

    private static async Task<string[]> StartsAsync(Coordinator who, string page) =>
        await who.Http.StartsAsync(who.Desk, page, "2026-12-08", "2026-12-08");

    /// <summary>As the watch does it: from the token of the last look.</summary>
    private async Task LookOnAsync(Coordinator who, Guid calendar) =>
        (await world.LookOnAsync(await world.WorkspaceOfAsync(who.Desk), calendar)).ShouldBeTrue();
}
