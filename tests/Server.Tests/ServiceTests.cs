namespace Server.Tests;

/// <summary>What operators and other programs ask of the server.</summary>
public class ServiceTests(World world)
{
    [Theory]
    [InlineData("/health/live")]
    [InlineData("/health/ready")]
    public async Task Health_is_told(string path) =>
        (await world.Guest().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.OK);

    [Fact]
    public async Task The_API_describes_itself_as_it_was_described_when_built()
    {
        var served = await world.Guest().GetFromJsonAsync<JsonElement>("/openapi/v1.json");
        served.GetProperty("openapi").GetString()!.ShouldStartWith("3.1");

        var built = JsonDocument
            .Parse(await File.ReadAllTextAsync(Path.Combine(Checkout.Root, "docs/api/openapi.json")))
            .RootElement;
        JsonSerializer
            .Serialize(served.GetProperty("paths"))
            .ShouldBe(JsonSerializer.Serialize(built.GetProperty("paths")));
        JsonSerializer
            .Serialize(served.GetProperty("components").GetProperty("schemas"))
            .ShouldBe(JsonSerializer.Serialize(built.GetProperty("components").GetProperty("schemas")));
    }

    [Fact]
    public async Task An_unknown_path_of_the_API_is_a_problem_and_not_a_screen()
    {
        var answer = await world.Guest().GetAsync("/api/no-such-thing");
        answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
    }

    [Fact]
    public async Task A_character_that_no_text_can_hold_is_refused_and_nothing_is_written()
    {
        const string Nul = "before\0after";
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();
        foreach (
            var answer in await Task.WhenAll(
                world
                    .Guest()
                    .PostAsJsonAsync(
                        $"/api/public/links/{address}/wishes",
                        new { starts = new[] { "2026-12-15T08:00:00Z" }, words = Nul }
                    ),
                ada.PostAsync("/api/links", ada.Link(draft => draft.Notes = Nul).Form()),
                // Kept as JSON, where it is refused in another way.
                ada.PostAsync(
                    "/api/links/patterns",
                    new { name = "Surveys", form = ada.Link(draft => draft.HostWords = Nul).Form() }
                ),
                ada.Http.GetAsync("/api/links?search=%00"),
                ada.Http.GetAsync("/api/bookings?search=a%00b")
            )
        )
        {
            (await answer.ReadAsync(HttpStatusCode.BadRequest))
                .GetProperty("type")
                .GetString()
                .ShouldBe("urn:loose-lantern:unkept-character", answer.RequestMessage!.RequestUri!.ToString());
        }

        (await ada.LinkAsync(id)).GetProperty("wishes").GetArrayLength().ShouldBe(0);
        (await ada.GetAsync("/api/links")).GetProperty("total").GetInt32().ShouldBe(1);
    }
}
