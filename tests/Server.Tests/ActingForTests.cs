namespace Server.Tests;

/// <summary>Work for a host: with their leave, picked, and in the record.</summary>
public class ActingForTests(World world)
{
    [Fact]
    public async Task What_is_done_for_a_host_stands_in_the_record_and_the_host_reads_it()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        var form = scene
            .Owner.Draft(page =>
            {
                page.HostId = bo.HostId;
                page.Title = "Varnish";
            })
            .Form();
        var refused = await (await scene.Owner.PostAsync("/api/pages", form)).ReadAsync(HttpStatusCode.Forbidden);
        refused.GetProperty("title").GetString().ShouldBe("You may not offer the time of Bo Keel.");
        (await scene.Owner.PagesAsync()).GetArrayLength().ShouldBe(0);

        await (await bo.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).ReadAsync(HttpStatusCode.OK);
        var page = await (await scene.Owner.PostAsync("/api/pages", form)).ReadAsync(HttpStatusCode.Created);
        await (
            await scene.Owner.PostAsync($"/api/pages/{page.GetProperty("id").GetGuid()}/publish", new { version = 1 })
        ).ReadAsync(HttpStatusCode.OK);

        var mine = (await bo.GetAsync("/api/me/record")).EnumerateArray().ToList();
        mine.Select(line => $"{line.GetProperty("person")}: {line.GetProperty("what")}")
            .ShouldBe(["Ada Wharf: Published “Varnish”", "Ada Wharf: Made “Varnish”"]);
        mine.ShouldAllBe(line => line.GetProperty("for")[0].GetString() == "Bo Keel");
        (await scene.Owner.GetAsync($"/api/record?subject={page.GetProperty("id").GetGuid()}"))
            .GetArrayLength()
            .ShouldBe(2);
    }

    [Fact]
    public async Task Own_work_is_done_for_nobody_else()
    {
        var scene = await Scene.MakeAsync(world);
        await scene.Owner.PublishAsync();
        (await scene.Owner.GetAsync("/api/me/record")).GetArrayLength().ShouldBe(0);
        (await scene.Owner.GetAsync("/api/record"))
            .EnumerateArray()
            .ShouldAllBe(line => line.GetProperty("for").GetArrayLength() == 0);
    }

    [Fact]
    public async Task Leave_that_is_taken_back_counts_at_once()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var page = (
            await (
                await scene.Owner.PostAsync("/api/pages", scene.Owner.Draft(draft => draft.HostId = bo.HostId).Form())
            ).ReadAsync(HttpStatusCode.Created)
        )
            .GetProperty("id")
            .GetGuid();
        await (
            await bo.PutAsync(
                $"/api/me/acting/{scene.OwnerId}",
                new
                {
                    mayOffer = false,
                    mayBook = true,
                    mayMove = false,
                    seesTitles = true,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await scene.Owner.PostAsync($"/api/pages/{page}/publish", new { version = 1 })).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        // Nor may the host be slipped off a page by who has no leave.
        (
            await scene.Owner.PutAsync($"/api/pages/{page}", new { version = 1, form = scene.Owner.Draft().Form() })
        ).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        await (
            await bo.PutAsync(
                $"/api/me/acting/{scene.OwnerId}",
                new
                {
                    mayOffer = false,
                    mayBook = false,
                    mayMove = false,
                    seesTitles = false,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await bo.GetAsync("/api/me/acting"))
            .EnumerateArray()
            .Single()
            .GetProperty("grant")
            .EnumerateObject()
            .ShouldAllBe(allowed => !allowed.Value.GetBoolean());
    }

    [Fact]
    public async Task Only_coordinators_act_for_hosts_and_only_hosts_are_acted_for()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        var cai = await scene.JoinAsync(isHost: true, name: "Cai Strand");
        var eve = await scene.JoinAsync(isCoordinator: true, name: "Eve Locke");
        (await (await bo.PutAsync($"/api/me/acting/{cai.PersonId}", Scene.AllGrants)).FaultsAsync()).Keys.ShouldBe([
            "personId",
        ]);
        (await bo.PutAsync($"/api/me/acting/{Guid.NewGuid()}", Scene.AllGrants)).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await eve.Http.GetAsync("/api/me/acting")).StatusCode.ShouldBe(HttpStatusCode.Conflict);

        // Who stops coordinating acts for nobody any more, also when they start again.
        await (await bo.PutAsync($"/api/me/acting/{eve.PersonId}", Scene.AllGrants)).ReadAsync(HttpStatusCode.OK);
        await (
            await scene.Owner.PutAsync(
                $"/api/people/{eve.PersonId}/roles",
                new
                {
                    isOwner = false,
                    isCoordinator = false,
                    isHost = true,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        await (
            await scene.Owner.PutAsync(
                $"/api/people/{eve.PersonId}/roles",
                new
                {
                    isOwner = false,
                    isCoordinator = true,
                    isHost = true,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await eve.PostAsync("/api/pages", eve.Draft(page => page.HostId = bo.HostId).Form())).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
    }
}
