using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>Calendars of accounts on servers that are slow with the truth.</summary>
public sealed class AccountTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private const string Ten = "2026-12-08T09:00:00Z";

    private static readonly string AtNine = Outside.Event("a", "20261208T080000Z", "20261208T083000Z");
    private static readonly string AtTen = Outside.Event("a", "20261208T090000Z", "20261208T093000Z");

    [Fact]
    public async Task Without_change_reports_entity_tags_are_compared_and_only_what_changed_is_fetched()
    {
        await using var server = await OddServer.StartAsync();
        var (ada, page, calendar) = await JoinedAsync(server);
        server.Objects["/cal/odd/b.ics"] = Outside.Event("b", "20261208T100000Z", "20261208T103000Z");
        await LookOnAsync(ada, calendar);
        (await StartsAsync(ada, page)).ShouldNotContain("2026-12-08T10:00:00Z");
        var fetches = server.Fetches;

        await LookOnAsync(ada, calendar);
        server.Fetches.ShouldBe(fetches);
        server.Objects.TryRemove("/cal/odd/b.ics", out _);
        await LookOnAsync(ada, calendar);
        (await StartsAsync(ada, page)).ShouldContain("2026-12-08T10:00:00Z");
    }

    [Fact]
    public async Task A_server_that_lies_about_entity_tags_is_found_out_by_looking_again()
    {
        await using var server = await OddServer.StartAsync();
        server.SaysAllTagsAlike = true;
        var (ada, page, calendar) = await JoinedAsync(server);
        server.Objects["/cal/odd/a.ics"] = AtTen;
        await LookOnAsync(ada, calendar);
        (await StartsAsync(ada, page)).ShouldNotContain(Nine);

        await ada.LookAsync(calendar);
        var starts = await StartsAsync(ada, page);
        starts.ShouldContain(Nine);
        starts.ShouldNotContain(Ten);
    }

    [Fact]
    public async Task A_server_whose_tags_are_always_new_changes_nothing_by_that()
    {
        await using var server = await OddServer.StartAsync();
        server.SaysNewTagsAlways = true;
        var (ada, page, calendar) = await JoinedAsync(server);
        var before = await world.LookAsync(db =>
            db.CalendarEntries.IgnoreQueryFilters()
                .Where(row => row.CalendarId == calendar)
                .Select(row => row.Id)
                .ToListAsync()
        );
        await LookOnAsync(ada, calendar);
        (
            await world.LookAsync(db =>
                db.CalendarEntries.IgnoreQueryFilters()
                    .Where(row => row.CalendarId == calendar)
                    .Select(row => row.Id)
                    .ToListAsync()
            )
        ).ShouldBe(before);

        // And what is written there is written once, and settled.
        (await world.Guest().BookAsync(ada.Desk, page, Ten)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await world.WrittenAsync(await world.WorkspaceOfAsync(ada.Desk));
        server.Objects.Count.ShouldBe(2);
    }

    [Fact]
    public async Task What_a_server_lists_and_does_not_send_is_asked_for_by_itself_and_never_taken_for_free()
    {
        await using var server = await OddServer.StartAsync();
        server.LeavesOutSome = true;
        var (ada, page, calendar) = await JoinedAsync(server);

        server.Objects["/cal/odd/b.ics"] = Outside.Event("b", "20261208T100000Z", "20261208T103000Z");
        server.HasTroubleWithOne = true;
        (await world.LookOnAsync(await world.WorkspaceOfAsync(ada.Desk), calendar)).ShouldBeFalse();
        (await StartsAsync(ada, page)).ShouldNotContain(Nine);
        var another = await world.SignUpAsync();
        (
            await (
                await another.PostAsync(
                    "/api/calendars/account",
                    new
                    {
                        @for = new { hostId = another.HostId },
                        account = server.Account(),
                        calendars = new[] { "/cal/odd/" },
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["calendars[0]"]);
    }

    [Fact]
    public async Task A_changed_password_is_told_and_the_new_one_makes_it_good()
    {
        await using var server = await OddServer.StartAsync();
        var (ada, page, calendar) = await JoinedAsync(server);
        server.Password = "another";
        (await ada.LookAsync(calendar)).GetProperty("fault").GetString()!.ShouldContain("does not accept");
        (await StartsAsync(ada, page)).ShouldNotContain(Nine);

        (
            await (
                await ada.PutAsync($"/api/calendars/{calendar}/password", new { password = "not this" })
            ).FaultsAsync()
        ).ShouldContainKey("password");
        var mended = await (
            await ada.PutAsync($"/api/calendars/{calendar}/password", new { password = "another" })
        ).ReadAsync(HttpStatusCode.OK);
        mended.GetProperty("unreachableSince").ValueKind.ShouldBe(JsonValueKind.Null);
        mended.ToString().ShouldNotContain("another");
    }

    [Fact]
    public async Task What_a_server_names_elsewhere_is_never_asked_there()
    {
        await using var server = await OddServer.StartAsync();
        await using var other = await OddServer.StartAsync();
        var (ada, _, calendar) = await JoinedAsync(server);
        server.Objects[other.Address + "/cal/odd/b.ics"] = Outside.Event("b", "20261208T100000Z", "20261208T103000Z");
        await LookOnAsync(ada, calendar);
        other.Asked.ShouldBeEmpty();
    }

    [Fact]
    public async Task Whoever_joins_names_calendars_that_are_there_and_none_twice()
    {
        await using var server = await OddServer.StartAsync();
        var (ada, _, calendar) = await JoinedAsync(server);
        var found = await (
            await ada.PostAsync($"/api/calendars/account/find?hostId={ada.HostId}", server.Account())
        ).ReadAsync(HttpStatusCode.OK);
        found.GetProperty("calendars")[0].GetProperty("isJoined").GetBoolean().ShouldBeTrue();
        async Task<Dictionary<string, string>> JoinAsync(params string[] paths) =>
            await (
                await ada.PostAsync(
                    "/api/calendars/account",
                    new
                    {
                        @for = new { hostId = ada.HostId },
                        account = server.Account(),
                        calendars = paths,
                        writeTo = "/cal/none/",
                    }
                )
            ).FaultsAsync();
        (await JoinAsync("/cal/odd/")).Values.Single().ShouldContain("joined already");
        (await JoinAsync("/cal/none/")).Keys.ShouldBe(["calendars[0]"]);
        (await JoinAsync()).Keys.ShouldBe(["calendars"]);
        (await ada.DeleteAsync($"/api/calendars/{calendar}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (
            await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db => db.CalendarAccounts.CountAsync())
        ).ShouldBe(0);
        (await JoinAsync("/cal/odd/")).Keys.ShouldBe(["writeTo"]);
    }

    private async Task<(Coordinator Ada, string Page, Guid Calendar)> JoinedAsync(OddServer server)
    {
        server.Objects["/cal/odd/a.ics"] = AtNine;
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var calendar = (await ada.JoinAccountAsync(server.Account(), "Odd"))[0];
        (await StartsAsync(ada, page)).ShouldNotContain(Nine);
        return (ada, page, calendar);
    }

    private async Task LookOnAsync(Coordinator who, Guid calendar) =>
        (await world.LookOnAsync(await world.WorkspaceOfAsync(who.Desk), calendar)).ShouldBeTrue();

    private static Task<string[]> StartsAsync(Coordinator who, string page) =>
        who.Http.StartsAsync(who.Desk, page, "2026-12-08", "2026-12-08");
}
