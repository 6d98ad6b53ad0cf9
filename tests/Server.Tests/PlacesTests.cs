using LooseLantern.Server.Data.Model;
using static Server.Tests.GroupScene;

namespace Server.Tests;

/// <summary>Places of a group page are people: who comes along takes one, too.</summary>
public sealed class PlacesTests(World world)
{
    [Fact]
    public async Task A_party_takes_a_place_for_each_and_is_offered_only_where_all_of_it_fits()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren", party: 3);

        (await scene.OpenAsync())[0].ShouldBe((Nine, 1));
        (await scene.OpenAsync(party: 2)).ShouldAllBe(opening => opening.Start != Nine && opening.Left == 4);
        (await scene.OpenAsync(party: 5)).ShouldBeEmpty();
        (await scene.PeopleAsync()).ShouldBe(3);

        var refused = await (await scene.TryAsync("Osric Pell", party: 2)).ReadAsync(HttpStatusCode.Conflict);
        refused.GetProperty("type").GetString().ShouldBe("urn:loose-lantern:places-left");
        refused.GetProperty("title").GetString()!.ShouldContain("1");
        await scene.BookAsync("Osric Pell");
        (await (await scene.TryAsync("Prosper Dunn")).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:opening-gone");
    }

    [Fact]
    public async Task Companions_who_are_named_count_and_one_added_later_takes_a_place_under_the_lock()
    {
        var scene = await MakeAsync(world);
        var first = await scene.BookAsync("Ottilie Wren");
        await scene.BookAsync("Osric Pell");

        (await scene.BringAsync(first, null, "a@b.example", "c@d.example")).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await scene.PeopleAsync()).ShouldBe(4);
        var full = await (await scene.BringAsync(first, null, "a@b.example", "c@d.example", "e@f.example")).ReadAsync(
            HttpStatusCode.Conflict
        );
        full.GetProperty("title").GetString().ShouldBe("Places left for you at this time: 3. You would be 4.");
        (await scene.PeopleAsync()).ShouldBe(4);
        // Fewer come: the place is free again.
        (await scene.BringAsync(first, 2)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await scene.OpenAsync())[0].ShouldBe((Nine, 1));
        (await (await scene.BringAsync(first, 9)).FaultsAsync()).Keys.ShouldBe(["party"]);
    }

    [Fact]
    public async Task Two_who_bring_more_at_one_moment_never_fill_more_than_there_are_places()
    {
        var scene = await MakeAsync(world, places: 5);
        var paths = new[] { await scene.BookAsync("Ottilie Wren"), await scene.BookAsync("Osric Pell") };

        var answers = await Task.WhenAll(paths.Select(path => scene.BringAsync(path, 3)));

        answers
            .Select(answer => answer.StatusCode)
            .Order()
            .ShouldBe([HttpStatusCode.NoContent, HttpStatusCode.Conflict]);
        (await scene.PeopleAsync()).ShouldBe(4);
    }

    [Fact]
    public async Task A_party_moves_only_where_all_of_it_fits()
    {
        var scene = await MakeAsync(world, places: 3);
        var party = await scene.BookAsync("Ottilie Wren", party: 2);
        await scene.BookAsync("Osric Pell", party: 2, at: Ten);

        (await world.Guest().GetFromJsonAsync<JsonElement>($"{party}/openings?from=2026-12-08&to=2026-12-08"))
            .GetProperty("openings")
            .EnumerateArray()
            .Select(opening => opening.GetProperty("start").GetString())
            .ShouldNotContain(Ten);
        var refused = await world.Guest().PostAsJsonAsync(party + "/move", new { start = Ten });
        (await refused.ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("title")
            .GetString()
            .ShouldBe("Places left for you at this time: 1. You would be 2.");
        (await scene.BringAsync(party, 1)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await world.Guest().PostAsJsonAsync(party + "/move", new { start = Ten })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await scene.PeopleAsync()).ShouldBe(3);
    }

    [Fact]
    public async Task With_one_place_companions_take_none()
    {
        var scene = await MakeAsync(world, places: 1);
        var path = await scene.BookAsync("Ottilie Wren", party: 3);
        (await scene.BringAsync(path, null, "a@b.example")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await scene.OpenAsync(party: 3)).ShouldNotBeEmpty();
    }

    [Fact]
    public async Task The_same_address_is_asked_before_it_takes_one_more_place()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren");

        (await (await scene.TryAsync("Ottilie Wren")).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:booked-already");
        (await scene.PeopleAsync()).ShouldBe(1);
        (await scene.TryAsync("Ottilie Wren", oneMore: true)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await scene.PeopleAsync()).ShouldBe(2);
        // At another time nobody is asked.
        await scene.BookAsync("Ottilie Wren", at: Ten);
    }

    [Fact]
    public async Task How_many_come_is_asked_within_what_the_page_lets_one_bring()
    {
        var scene = await MakeAsync(world, change: draft => draft.Changes = ChangeRules.Usual with { MostBrought = 1 });
        (await (await scene.TryAsync("Ottilie Wren", party: 3)).FaultsAsync()).Keys.ShouldBe(["party"]);
        (await (await scene.TryAsync("Ottilie Wren", party: 0)).FaultsAsync()).Keys.ShouldBe(["party"]);
        var answer = await world
            .Guest()
            .GetAsync(
                $"/api/public/desks/{scene.Ada.Desk}/pages/{scene.Page}/openings?from=2026-12-08&to=2026-12-08&party=x"
            );
        (await answer.FaultsAsync()).Keys.ShouldBe(["party"]);
        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{scene.Ada.Desk}/pages/{scene.Page}"))
            .GetProperty("mostParty")
            .GetInt32()
            .ShouldBe(2);
    }
}
