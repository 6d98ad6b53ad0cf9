using System.Collections;
using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace LooseLantern.Server.Hosting;

/// <summary>Phrases in English, as the API says them beside their keys.</summary>
public static partial class Phrases
{
    private sealed record Refused(string Title, string? Detail);

    private sealed record Table(Dictionary<string, Refused> Refusals, Dictionary<string, string> Mends);

    private static readonly Table English = Load();

    /// <summary>What a field needs.</summary>
    /// <exception cref="InvalidOperationException">Where the table has no such phrase.</exception>
    public static string Mend(Phrase phrase) => Filled(Known(English.Mends, phrase.Key), phrase);

    /// <summary>What is refused.</summary>
    /// <inheritdoc cref="Mend"/>
    public static string Title(Phrase phrase) => Filled(Known(English.Refusals, phrase.Key).Title, phrase);

    /// <summary>What to do about it; null where nothing can be done.</summary>
    /// <inheritdoc cref="Mend"/>
    public static string? Detail(Phrase phrase) =>
        Known(English.Refusals, phrase.Key).Detail is { } detail ? Filled(detail, phrase) : null;

    private static T Known<T>(Dictionary<string, T> table, string key) =>
        table.TryGetValue(key, out var words)
            ? words
            : throw new InvalidOperationException($"words/refusals/en.json has no phrase {key}.");

    private static string Filled(string words, Phrase phrase) =>
        Value()
            .Replace(words, match =>
                phrase.Values?.GetValueOrDefault(match.Groups[1].Value) is { } value ? Said(value) : match.Value
            );

    private static string Said(object value) =>
        value switch
        {
            string text => text,
            IEnumerable list => string.Join(", ", list.Cast<object>().Select(Said)),
            _ => Convert.ToString(value, CultureInfo.InvariantCulture)!,
        };

    [GeneratedRegex(@"\{(\w+)\}")]
    private static partial Regex Value();

    private static Table Load()
    {
        using var stream = typeof(Phrases).Assembly.GetManifestResourceStream("words.refusals.en.json")!;
        return JsonSerializer.Deserialize<Table>(stream, JsonSerializerOptions.Web)!;
    }
}
