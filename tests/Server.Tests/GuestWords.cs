namespace Server.Tests;

/// <summary>
/// Reads what guests are refused, as every test of this program asks it, and holds that each phrase of it stands in the
/// tables of all languages, with no value left open.
/// </summary>
internal sealed class GuestWords : DelegatingHandler
{
    private static readonly string[] Asked = ["/api/public/desks/", "/api/public/links/", "/api/public/bookings/"];

    private static readonly string[] Languages = ["en", "de", "fr", "es", "da"];

    private static readonly Dictionary<string, JsonElement> Tables = Languages.ToDictionary(
        language => language,
        language =>
            JsonDocument
                .Parse(File.ReadAllText(Path.Combine(Checkout.Root, "words", "refusals", $"{language}.json")))
                .RootElement
    );

    protected override async Task<HttpResponseMessage> SendAsync(
        HttpRequestMessage request,
        CancellationToken cancellationToken
    )
    {
        var answer = await base.SendAsync(request, cancellationToken);
        if (
            request.RequestUri!.AbsolutePath is var path
            && Asked.Any(start => path.StartsWith(start, StringComparison.Ordinal))
            && answer.Content.Headers.ContentType?.MediaType == "application/problem+json"
        )
        {
            await answer.Content.LoadIntoBufferAsync(cancellationToken);
            Check(JsonDocument.Parse(await answer.Content.ReadAsStringAsync(cancellationToken)).RootElement);
        }

        return answer;
    }

    public static void Check(JsonElement problem)
    {
        if (!problem.TryGetProperty("phrase", out var phrase))
        {
            // Where no route leads, screens have words of their own.
            problem.GetProperty("status").GetInt32().ShouldBe(404, problem.ToString());
            return;
        }

        foreach (var (language, table) in Tables)
        {
            Said(language, table.GetProperty("refusals"), phrase, words => words.GetProperty("title").GetString()!);
            if (!problem.TryGetProperty("mends", out var mends))
                continue;
            foreach (var mend in mends.EnumerateObject().SelectMany(field => field.Value.EnumerateArray()))
                Said(language, table.GetProperty("mends"), mend, words => words.GetString()!);
        }
    }

    private static void Said(string language, JsonElement table, JsonElement phrase, Func<JsonElement, string> read)
    {
        var key = phrase.GetProperty("key").GetString()!;
        table.TryGetProperty(key, out var words).ShouldBeTrue($"{language} has no words for {key}");
        var said = read(words);
        if (phrase.TryGetProperty("values", out var values))
            foreach (var value in values.EnumerateObject())
                said = said.Replace($"{{{value.Name}}}", value.Value.ToString(), StringComparison.Ordinal);
        said.ShouldNotContain("{", Case.Sensitive, $"{key} in {language} leaves a value open");
    }
}
