namespace Server.Tests;

/// <summary>The record is found by person, thing, day and words, and stays where the thing is gone.</summary>
public sealed class RecordTests(World world)
{
    [Fact]
    public async Task A_line_is_found_by_who_did_it_to_what_when_and_in_which_words()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var scene = await Scene.MakeAsync(own.World);
        var bo = await scene.JoinAsync(isHost: true, isCoordinator: true, letInviter: true);
        var booking = await scene.BookingAsync(scene.Owner, start: "2026-12-10T08:00:00Z");
        own.World.Clock.Advance(Duration.FromDays(1));
        (await scene.Owner.PostAsync($"/api/bookings/{booking}/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

        var cancelled = (await LinesAsync(bo, $"?subject={booking}")).ShouldHaveSingleItem();
        (cancelled.Text("what"), cancelled.Text("person"), cancelled.Text("way")).ShouldBe(
            ("Cancelled the booking of Ottilie Wren", "Ada Wharf", $"/work/bookings/{booking}")
        );
        (await LinesAsync(bo, "?words=CANCELLED"))[0].Id().ShouldBe(cancelled.Id());
        (await LinesAsync(bo, $"?person={bo.PersonId}&words=cancelled")).ShouldBeEmpty();
        var today = own.World.Clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb["Europe/Copenhagen"]).Date;
        (await LinesAsync(bo, $"?from={today:uuuu-MM-dd}")).ShouldHaveSingleItem().Id().ShouldBe(cancelled.Id());
        (await LinesAsync(bo, $"?to={today.PlusDays(-1):uuuu-MM-dd}")).ShouldNotContain(line =>
            line.Id() == cancelled.Id()
        );
        // One run after another, the latest first.
        var all = await LinesAsync(bo, "");
        var first = await bo.GetAsync("/api/record/lines?take=1");
        var second = await bo.GetAsync($"/api/record/lines?take=1&after={first.Text("after")}");
        second.GetProperty("rows")[0].Id().ShouldBe(all[1].Id());
        (await (await bo.Http.GetAsync("/api/record/lines?from=soon")).FaultsAsync()).Keys.ShouldBe(["from"]);
        (
            await (await bo.Http.GetAsync("/api/record/lines?from=2026-12-09&to=2026-12-08")).FaultsAsync()
        ).Keys.ShouldBe(["to"]);
    }

    [Fact]
    public async Task What_is_gone_leads_nowhere_and_another_workspace_reads_nothing()
    {
        var scene = await Scene.MakeAsync(world);
        var hours = await scene.FreeHoursAsync();
        (await scene.Owner.DeleteAsync($"/api/hours/{hours}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var lines = await LinesAsync(scene.Owner, $"?subject={hours}");
        lines.ShouldNotBeEmpty();
        lines.ShouldAllBe(line => line.GetProperty("way").ValueKind == JsonValueKind.Null);
        (await LinesAsync(await world.SignUpAsync(), $"?subject={hours}")).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_line_leads_nobody_where_they_may_not_go()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        var (link, _) = await scene.Owner.SendLinkAsync(draft =>
            draft.Guests = [new("Bryn Ashby", "bryn@ashby.example")]
        );
        (await LinesAsync(scene.Owner, $"?subject={link}")).ShouldAllBe(line =>
            line.Text("way") == $"/work/links/{link}"
        );
        var lines = await LinesAsync(bo, $"?subject={link}");
        lines.ShouldNotBeEmpty();
        lines.ShouldAllBe(line => line.GetProperty("way").ValueKind == JsonValueKind.Null);
    }

    private static async Task<List<JsonElement>> LinesAsync(Coordinator who, string query) =>
        [.. (await who.GetAsync("/api/record/lines" + query)).GetProperty("rows").EnumerateArray()];
}
