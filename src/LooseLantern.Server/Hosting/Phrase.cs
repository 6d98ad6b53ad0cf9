using System.Text.Json.Serialization;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// What is said to somebody, by its key in the tables of words/refusals, so that each language phrases it once. A text
/// alone is a key.
/// </summary>
/// <param name="Values">What stands in the phrase, by name: numbers, texts, or lists of them.</param>
public sealed record Phrase(
    string Key,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
        IReadOnlyDictionary<string, object>? Values = null
)
{
    public string Key { get; } =
        Key.All(letter => char.IsAsciiLetterLower(letter) || char.IsAsciiDigit(letter) || letter is '-' or '.')
            ? Key
            : throw new ArgumentException($"\"{Key}\" is no key of a phrase.", nameof(Key));

    /// <summary>A phrase with values, each by its name.</summary>
    public static Phrase Of(string key, params (string Name, object Value)[] values) =>
        new(key, values.ToDictionary(value => value.Name, value => value.Value));

    /// <summary>What somebody or something outside said, which no table has.</summary>
    public static Phrase Told(string text) => Of("told", ("text", text));

    public static implicit operator Phrase(string key) => new(key);
}
