using System.Collections.Concurrent;
using System.Text.Json;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// What screens and mails say alike, by language: the tables of <c>words/screens</c>, which the front end reads as
/// well.
/// </summary>
public static class ScreenPhrases
{
    private static readonly ConcurrentDictionary<string, Dictionary<string, string>> Tables = new();
    private static readonly ConcurrentDictionary<string, string?> Written = new();

    /// <param name="language">Language tag; English is taken for one that there is no table of.</param>
    /// <param name="values">By the names that the phrase has in braces.</param>
    /// <exception cref="InvalidOperationException">Where the table has no such phrase.</exception>
    public static string Say(string language, string key, params (string Name, string Value)[] values)
    {
        var table = Tables.GetOrAdd(language, static tag => Load(tag) ?? Load("en")!);
        if (!table.TryGetValue(key, out var words))
            throw new InvalidOperationException($"words/screens/{language}.json has no phrase {key}.");
        return values.Aggregate(words, (text, value) =>
            text.Replace($"{{{value.Name}}}", value.Value, StringComparison.Ordinal)
        );
    }

    /// <summary>All of a language, as JSON; null where there is no table of it.</summary>
    public static string? Table(string language) =>
        Written.GetOrAdd(language, static tag =>
            Load(tag) is { } table ? JsonSerializer.Serialize(table, JsonSerializerOptions.Web) : null
        );

    private static Dictionary<string, string>? Load(string language)
    {
        using var stream = typeof(ScreenPhrases).Assembly.GetManifestResourceStream($"words.screens.{language}.json");
        return stream is null ? null : JsonSerializer.Deserialize<Dictionary<string, string>>(stream);
    }
}
