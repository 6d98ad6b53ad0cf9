using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;

namespace Server.Tests;

/// <summary>A route of the API's description, with what it takes.</summary>
internal sealed record FuzzedRoute(HttpMethod Method, string Path, JsonObject Described);

/// <summary>
/// Makes odd requests from the API's description: mostly of the right shape with something wrong in them, since what is
/// nothing like what is expected is refused at the door. The same seed makes the same requests.
/// </summary>
internal sealed class Fuzzing(int seed, IReadOnlyList<string> ids)
{
    private const int Deepest = 6;

    private static readonly JsonObject Description = JsonNode
        .Parse(File.ReadAllText(Path.Combine(Checkout.Root, "docs/api/openapi.json")))!
        .AsObject();

    private static readonly string[] OddTexts =
    [
        "",
        " ",
        "\0",
        "\uFEFF",
        "\U0001F9ED",
        "../../etc",
        "%00",
        "%2e%2e",
        "<script>alert(1)</script>",
        "'; DROP TABLE pages; --",
        "{{ 1 | plus: 1 }}",
        "[[link]]",
        "-1",
        "1e309",
        "9999-12-31T23:59:59Z",
        "0000-00-00",
        "2026-02-30",
        "2026-12-08T08:00:00Z",
        "2026-12-08",
        "Mars/Base",
        "Europe/Copenhagen",
        "null",
        "a@b",
        "a.@x.example",
        "ada@wharf.example",
        "http://127.0.0.1:1/",
        "FREQ=SECONDLY",
        new('x', 5000),
        new('[', 3000),
        string.Concat(Enumerable.Repeat("e\u0301\u0327", 700)),
    ];

    private readonly Random _random = new(seed);

    public static IReadOnlyList<FuzzedRoute> Routes { get; } =
    [
        .. Description["paths"]!
            .AsObject()
            .SelectMany(
                path => path.Value!.AsObject(),
                (path, each) => new FuzzedRoute(HttpMethod.Parse(each.Key), path.Key, each.Value!.AsObject())
            )
            .Where(route => route.Described["operationId"]?.ToString() != "signOut"),
    ];

    public int Next(int most) => _random.Next(most);

    public FuzzedRoute Route() => Routes[Next(Routes.Count)];

    public HttpRequestMessage Request(FuzzedRoute route)
    {
        var (path, query) = (route.Path, new List<string>());
        foreach (var parameter in route.Described["parameters"]?.AsArray() ?? [])
        {
            var name = parameter!["name"]!.ToString();
            if (parameter["in"]!.ToString() == "path")
                path = path.Replace(
                    $"{{{name}}}",
                    Escaped(PathText().Replace("\0", "", StringComparison.Ordinal)),
                    StringComparison.Ordinal
                );
            else if (parameter["in"]!.ToString() == "query" && Next(3) > 0)
                query.Add($"{name}={Escaped(Next(3) == 0 ? OddText() : Text(parameter["schema"]))}");
        }

        var request = new HttpRequestMessage(
            route.Method,
            path + (query.Count > 0 ? "?" + string.Join('&', query) : "")
        );
        if (route.Method != HttpMethod.Get)
            request.Content = Body(route.Described["requestBody"]?["content"]?["application/json"]?["schema"]);
        if (Next(8) == 0)
            request.Headers.TryAddWithoutValidation("Idempotency-Key", Escaped(OddText()));
        return request;
    }

    private HttpContent Body(JsonNode? schema)
    {
        if (schema is null || Next(20) == 0)
            return Upload();
        var made = Made(schema, 0);
        for (var times = Next(3); times > 0; times--)
            made = Spoilt(made);
        var text = made?.ToJsonString() ?? "null";
        // One in twenty breaks off, or is of another kind than it says.
        if (Next(20) == 0)
            text = text[..Next(text.Length + 1)];
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(text));
        content.Headers.ContentType = MediaTypeHeaderValue.Parse(
            Next(25) == 0 ? "text/plain" : "application/json; charset=utf-8"
        );
        return content;
    }

    private ByteArrayContent Upload()
    {
        var text =
            $"--cut\r\nContent-Disposition: form-data; name=\"hostId\"\r\n\r\n{Id()}\r\n--cut\r\nContent-Disposition: form-data; name=\"file\"; filename=\"a\"\r\n\r\nBEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTART:{OddText()}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n--cut--\r\n";
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(Next(3) == 0 ? text[..Next(text.Length)] : text));
        content.Headers.ContentType = MediaTypeHeaderValue.Parse("multipart/form-data; boundary=cut");
        return content;
    }

    private string Id() => ids.Count > 0 ? ids[Next(ids.Count)] : Guid.NewGuid().ToString();

    private string PathText() =>
        Next(10) switch
        {
            0 => OddText(),
            1 => Guid.Empty.ToString(),
            _ => Id(),
        };

    private string OddText() => OddTexts[Next(OddTexts.Length)];

    private string Text(JsonNode? schema) => Made(schema, 0)?.ToString() ?? "";

    private static string Escaped(string text) =>
        Uri.EscapeDataString(
            text.Length == 0 ? " "
            : text.Length > 300 ? text[..300]
            : text
        );

    /// <summary>Something of the kind that a schema describes.</summary>
    private JsonNode? Made(JsonNode? schema, int depth)
    {
        if (schema?["$ref"]?.ToString() is { } name)
            schema = Description["components"]!["schemas"]![name.Split('/')[^1]];
        if (schema is null || depth > Deepest)
            return null;
        if (schema["enum"] is JsonArray values)
            return values[Next(values.Count)]?.DeepClone();
        foreach (var word in (string[])["oneOf", "anyOf", "allOf"])
        {
            if (schema[word] is JsonArray choices)
                return Made(choices[Next(choices.Count)], depth + 1);
        }

        var type = schema["type"] is JsonArray types
            ? types[Next(types.Count)]!.ToString()
            : schema["type"]?.ToString();
        return type switch
        {
            "object" => Object(schema, depth),
            "array" => new JsonArray([.. Enumerable.Range(0, Next(3)).Select(_ => Made(schema["items"], depth + 1))]),
            "integer" or "number" => (JsonNode)
                ((int[])[0, 1, -1, 5, 30, 60, 1440, int.MaxValue, int.MinValue])[Next(9)],
            "boolean" => (JsonNode)(Next(2) == 0),
            "string" => schema["format"]?.ToString() switch
            {
                "uuid" => Id(),
                "date" => "2026-12-08",
                "date-time" => "2026-12-08T08:00:00Z",
                _ => Next(3) == 0 ? OddText() : "Plain words",
            },
            _ => null,
        };
    }

    private JsonObject Object(JsonNode schema, int depth)
    {
        var required = schema["required"]?.AsArray().Select(each => each!.ToString()).ToHashSet() ?? [];
        var made = new JsonObject();
        foreach (var (name, property) in schema["properties"]?.AsObject() ?? [])
        {
            if (required.Contains(name) || Next(3) > 0)
                made[name] = Made(property, depth + 1);
        }

        return made;
    }

    /// <summary>With one thing in it that is another than it should be, or not there.</summary>
    private JsonNode? Spoilt(JsonNode? node)
    {
        switch (node)
        {
            case JsonObject { Count: > 0 } members:
                var name = members.ElementAt(Next(members.Count)).Key;
                if (Next(6) == 0)
                    members.Remove(name);
                else if (Next(10) == 0)
                    members["nobodyKnowsThis"] = 1;
                else
                    members[name] = Spoilt(members[name]?.DeepClone());
                return members;
            case JsonArray { Count: > 0 } items:
                var place = Next(items.Count);
                items[place] = Spoilt(items[place]?.DeepClone());
                return items;
            default:
                return Next(8) switch
                {
                    0 => null,
                    1 => new JsonArray(),
                    2 => new JsonObject(),
                    3 => (JsonNode)true,
                    4 => (JsonNode)long.MaxValue,
                    5 => (JsonNode)(-0.5),
                    _ => OddText(),
                };
        }
    }
}
