using System.Buffers;
using System.Collections.Frozen;
using System.Text;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// One unfolded content line (RFC 5545 section 3.1): name, parameters and raw value, with the line of the file it began
/// on.
/// </summary>
internal sealed record ContentLine(int Line, string Name, IReadOnlyDictionary<string, string> Parameters, string Value)
{
    private const int MostParameters = 100;

    private static readonly SearchValues<char> NameLetters = SearchValues.Create(
        "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-"
    );

    private static readonly Dictionary<string, string> None = [];

    private static readonly FrozenSet<string>.AlternateLookup<ReadOnlySpan<char>> Known = ComponentReader
        .Kept.ToFrozenSet(StringComparer.OrdinalIgnoreCase)
        .GetAlternateLookup<ReadOnlySpan<char>>();

    /// <summary>Reads a content line, or returns null where it has no name or no colon before its value.</summary>
    public static ContentLine? TryParse(int line, ReadOnlySpan<char> text)
    {
        var position = text.IndexOfAnyExcept(NameLetters);
        if (position <= 0)
            return null;

        var name = NameOf(text[..position]);
        // Most lines have no parameters, and a file can have a million lines.
        var parameters =
            text[position] == ';' ? new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase) : None;
        while (text[position] == ';')
        {
            if (parameters.Count == MostParameters)
                return null;
            var equals = position + text[position..].IndexOf('=');
            if (equals < position)
                return null;
            var parameter = text[(position + 1)..equals].ToString();
            var value = new StringBuilder();
            var quoted = false;
            for (position = equals + 1; position < text.Length; position++)
            {
                var c = text[position];
                if (c == '"')
                    quoted = !quoted;
                else if (!quoted && c is (';' or ':'))
                    break;
                else
                    value.Append(c);
            }

            parameters[parameter] = value.ToString();
            if (position >= text.Length)
                return null;
        }

        return text[position] == ':'
            ? new ContentLine(line, name, parameters, text[(position + 1)..].ToString())
            : null;
    }

    private static string NameOf(ReadOnlySpan<char> written) =>
        Known.TryGetValue(written, out var known) ? known : written.ToString().ToUpperInvariant();

    /// <summary>The value as TEXT (section 3.3.11), with its escapes undone.</summary>
    public string Text()
    {
        var text = new StringBuilder(Value.Length);
        for (var i = 0; i < Value.Length; i++)
        {
            if (Value[i] != '\\' || i + 1 == Value.Length)
                text.Append(Value[i]);
            else
                text.Append(Value[++i] is 'n' or 'N' ? '\n' : Value[i]);
        }

        return text.ToString();
    }
}
