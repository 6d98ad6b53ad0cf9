namespace Server.Tests;

/// <summary>What operators and other programs ask of the server.</summary>
public class ServiceTests(World world)
{
    [Theory]
    [InlineData("/health/live")]
    [InlineData("/health/ready")]
    public async Task Health_is_told(string path) => (await world.Guest().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.OK);

    [Fact]
    public async Task The_API_describes_itself_as_it_was_described_when_built()
    {
        var served = await world.Guest().GetFromJsonAsync<JsonElement>("/openapi/v1.json");
        served.GetProperty("openapi").GetString()!.ShouldStartWith("3.1");

        var built = JsonDocument.Parse(await File.ReadAllTextAsync(Path.Combine(Checkout.Root, "docs/api/openapi.json"))).RootElement;
        JsonSerializer.Serialize(served.GetProperty("paths")).ShouldBe(JsonSerializer.Serialize(built.GetProperty("paths")));
        JsonSerializer.Serialize(served.GetProperty("components").GetProperty("schemas"))
            .ShouldBe(JsonSerializer.Serialize(built.GetProperty("components").GetProperty("schemas")));
    }

    [Fact]
    public async Task An_unknown_path_of_the_API_is_a_problem_and_not_a_screen()
    {
        var answer = await world.Guest().GetAsync("/api/no-such-thing");
        answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
    }
}
