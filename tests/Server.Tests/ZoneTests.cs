namespace Server.Tests;

/// <summary>Zones as people choose them: by city, under today's names.</summary>
public class ZoneTests(World world)
{
    private static JsonElement Of(JsonElement answer, string id) =>
        answer.GetProperty("zones").EnumerateArray().Single(zone => zone.GetProperty("id").GetString() == id);

    private static string?[] Also(JsonElement zone) =>
        [.. zone.GetProperty("also").EnumerateArray().Select(name => name.GetString())];

    [Fact]
    public async Task They_have_todays_names_and_are_found_by_former_ones()
    {
        var answer = await world.Guest().GetFromJsonAsync<JsonElement>("/api/zones");
        Also(Of(answer, "Europe/Kyiv")).ShouldContain("Europe/Kiev");
        Also(Of(answer, "Asia/Kolkata")).ShouldContain("Asia/Calcutta");
        Also(Of(answer, "America/Argentina/Buenos_Aires")).ShouldContain("America/Buenos_Aires");
        Of(answer, "America/Argentina/Buenos_Aires").GetProperty("city").GetString().ShouldBe("Buenos Aires");
        Of(answer, "Europe/Kyiv").GetProperty("country").GetString().ShouldBe("Ukraine");
        // Copenhagen is a link to another zone in the tables of today, and a place of its own to people.
        Of(answer, "Europe/Copenhagen").GetProperty("offset").GetInt32().ShouldBe(60);
        answer
            .GetProperty("zones")
            .EnumerateArray()
            .Select(zone => zone.GetProperty("id").GetString())
            .ShouldNotContain("Europe/Kiev");
        answer.GetProperty("usual").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Those_in_use_in_the_workspace_come_first_for_who_is_signed_in()
    {
        var ada = await world.SignUpAsync();
        await (await world.Guest().BookAsync(ada.Desk, await ada.PublishAsync(), LinkDraft.Nine)).ReadAsync(
            HttpStatusCode.Created
        );
        (await ada.GetAsync("/api/zones"))
            .GetProperty("usual")
            .EnumerateArray()
            .Select(zone => zone.GetString())
            .ShouldBe(["Europe/Copenhagen", "Europe/Dublin"]);
    }

    [Fact]
    public async Task The_server_says_by_which_tables_it_counts()
    {
        var zones = await world.Guest().GetFromJsonAsync<JsonElement>("/api/zones");
        var ready = await world.Guest().GetFromJsonAsync<JsonElement>("/health/ready");
        ready.GetProperty("zones").GetString().ShouldBe(zones.GetProperty("version").GetString());
        ready.GetProperty("zones").GetString()!.ShouldMatch(@"^20\d\d[a-z]$");
    }
}
