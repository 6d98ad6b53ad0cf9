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

/// <summary>The offsets that go along with times: those the server counts by.</summary>
public class ZoneOffsetTests(World world)
{
    [Fact]
    public async Task Openings_come_with_the_offsets_of_the_page_and_of_whoever_reads()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.AheadDays = 120);
        var answer = await world
            .Guest()
            .GetFromJsonAsync<JsonElement>(
                $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from=2027-03-01&to=2027-03-31&zone=America/New_York"
            );
        string Runs(string zone) =>
            string.Join(
                ' ',
                answer
                    .GetProperty("offsets")
                    .EnumerateArray()
                    .Single(one => one.GetProperty("zone").GetString() == zone)
                    .GetProperty("runs")
                    .EnumerateArray()
                    .Select(run => $"{run.GetProperty("from").GetString()} {run.GetProperty("minutes").GetInt32()}")
            );
        Runs("Europe/Copenhagen").ShouldBe("2027-02-28T00:00:00Z 60 2027-03-28T01:00:00Z 120");
        Runs("America/New_York").ShouldBe("2027-02-28T00:00:00Z -300 2027-03-14T07:00:00Z -240");
    }

    [Fact]
    public async Task A_zone_that_nobody_knows_is_passed_over_and_a_private_link_has_both()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var answer = await world
            .Guest()
            .GetFromJsonAsync<JsonElement>(
                $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from=2026-12-08&to=2026-12-09&zone=Mars/Base"
            );
        answer.GetProperty("offsets").GetArrayLength().ShouldBe(1);
        var made = await (await world.Guest().BookAsync(ada.Desk, page, LinkDraft.Nine)).ReadAsync(
            HttpStatusCode.Created
        );
        var path = "/api/public/bookings/" + made.GetProperty("path").GetString()!.Split('/')[^1];
        (await world.Guest().GetFromJsonAsync<JsonElement>(path))
            .GetProperty("offsets")
            .EnumerateArray()
            .Select(one => one.GetProperty("zone").GetString())
            .ShouldBe(["Europe/Copenhagen", "Europe/Dublin"]);
    }
}
