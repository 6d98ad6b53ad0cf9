namespace Server.Tests;

internal static class Answers
{
    /// <summary>
    /// The JSON of an answer that must have this status; what it says instead is shown where it has not.
    /// </summary>
    public static async Task<JsonElement> ReadAsync(this HttpResponseMessage answer, HttpStatusCode status)
    {
        var text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(status, text);
        return text.Length == 0 ? default : JsonDocument.Parse(text).RootElement;
    }

    /// <summary>The fields that a refusal names, each with its first mend.</summary>
    public static async Task<Dictionary<string, string>> FaultsAsync(this HttpResponseMessage answer)
    {
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        var problem = await answer.ReadAsync(HttpStatusCode.BadRequest);
        return problem
            .GetProperty("errors")
            .EnumerateObject()
            .ToDictionary(field => field.Name, field => field.Value[0].GetString()!);
    }

    public static async Task<string[]> StartsAsync(
        this HttpClient client,
        string desk,
        string page,
        string from,
        string to,
        int duration = 30
    )
    {
        var answer = await client.GetFromJsonAsync<JsonElement>(
            $"/api/public/desks/{desk}/pages/{page}/openings?from={from}&to={to}&duration={duration}"
        );
        return
        [
            .. answer
                .GetProperty("openings")
                .EnumerateArray()
                .Select(opening => opening.GetProperty("start").GetString()!),
        ];
    }

    public static Task<HttpResponseMessage> BookAsync(
        this HttpClient client,
        string desk,
        string page,
        string start,
        int duration = 30,
        string name = "Ottilie Wren",
        string email = "ottilie@wren-charters.example",
        string? key = null,
        object? bookedFor = null,
        int? party = null,
        bool oneMore = false
    )
    {
        var request = new HttpRequestMessage(HttpMethod.Post, $"/api/public/desks/{desk}/pages/{page}/bookings")
        {
            Content = JsonContent.Create(
                new
                {
                    start,
                    duration,
                    zone = "Europe/Dublin",
                    guest = new { name, email },
                    answers = new { },
                    @for = bookedFor,
                    party,
                    oneMore,
                }
            ),
        };
        if (key is not null)
            request.Headers.Add("Idempotency-Key", key);
        return client.SendAsync(request);
    }
}
