using static Server.Tests.GroupScene;

namespace Server.Tests;

/// <summary>One field finds guests, bookings, pages, links and hosts by words and addresses.</summary>
public sealed class FindTests(World world)
{
    [Fact]
    public async Task What_is_typed_is_found_wherever_all_its_words_stand()
    {
        var scene = await MakeAsync(world, change: draft => draft.Title = "Keel inspection");
        await scene.BookAsync("Osric Pell");
        await scene.BookAsync("Dunn Osric", at: Ten);
        await scene.Ada.SendLinkAsync(draft => draft.Guests = [new("Bryn Ashby", "bryn@ashby.example")]);

        var osric = await FindAsync(scene.Ada, "osric");
        Names(osric, "guests", "name").ShouldBe(["Dunn Osric", "Osric Pell"]);
        // Those nearest to now.
        Names(osric, "bookings", "guestName").ShouldBe(["Osric Pell", "Dunn Osric"]);
        Names(await FindAsync(scene.Ada, "pell osric"), "guests", "name").ShouldBe(["Osric Pell"]);
        Names(await FindAsync(scene.Ada, "OSRIC@harbour"), "bookings", "guestName").ShouldBe(["Osric Pell"]);
        Names(await FindAsync(scene.Ada, "keel insp"), "pages", "title").ShouldBe(["Keel inspection"]);
        Names(await FindAsync(scene.Ada, "ada"), "hosts", "name").ShouldBe(["Ada Wharf"]);
        Names(await FindAsync(scene.Ada, "bryn"), "links", "guests").ShouldBe(["Bryn Ashby"]);
        // As it was copied from elsewhere.
        Names(
                await FindAsync(scene.Ada, $"https://times.yard.example/{scene.Ada.Desk}/{scene.Page}?lang=de"),
                "pages",
                "title"
            )
            .ShouldBe(["Keel inspection"]);
        foreach (var nothing in new[] { "", " ", "osric zz", "%", "\0" })
            Names(await FindAsync(scene.Ada, nothing), "guests", "name").ShouldBeEmpty(nothing);
        // A cancelled booking is not in the way of those that stand.
        var booking = osric.GetProperty("bookings")[0].Id();
        await scene.Ada.PostAsync($"/api/bookings/{booking}/cancel", new { word = "" });
        Names(await FindAsync(scene.Ada, "osric"), "bookings", "guestName").ShouldBe(["Dunn Osric"]);
    }

    [Fact]
    public async Task Nobody_finds_what_is_another_workspaces_or_not_for_them()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        await scene.Owner.SendLinkAsync(draft => draft.Guests = [new("Ysolde Marrow", "ysolde@marrow.example")]);
        Names(await FindAsync(scene.Owner, "ysolde"), "links", "guests").Count.ShouldBe(1);
        Names(await FindAsync(bo, "ysolde"), "links", "guests").ShouldBeEmpty();
        var stranger = await FindAsync(await world.SignUpAsync(), "ysolde");
        Names(stranger, "guests", "name").ShouldBeEmpty();
        Names(stranger, "links", "guests").ShouldBeEmpty();
    }

    private static Task<JsonElement> FindAsync(Coordinator who, string words) =>
        who.GetAsync($"/api/find?words={Uri.EscapeDataString(words)}");

    private static List<string> Names(JsonElement found, string kind, string name) =>
        [.. found.GetProperty(kind).EnumerateArray().Select(one => one.Text(name))];
}
