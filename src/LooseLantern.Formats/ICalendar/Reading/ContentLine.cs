using System.Text;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// One unfolded content line (RFC 5545 section 3.1): name, parameters and raw value, with the line of the file it began
/// on.
/// </summary>
internal sealed record ContentLine(int Line, string Name, IReadOnlyDictionary<string, string> Parameters, string Value)
{
    /// <summary>Reads a content line, or returns null where it has no name or no colon before its value.</summary>
    public static ContentLine? TryParse(int line, string text)
    {
        var position = 0;
        while (position < text.Length && (char.IsAsciiLetterOrDigit(text[position]) || text[position] == '-'))
            position++;
        if (position == 0 || position == text.Length)
            return null;

        var name = text[..position].ToUpperInvariant();
        var parameters = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        while (text[position] == ';')
        {
            var equals = text.IndexOf('=', position);
            if (equals < 0)
                return null;
            var parameter = text[(position + 1)..equals];
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

        return text[position] == ':' ? new ContentLine(line, name, parameters, text[(position + 1)..]) : null;
    }

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
