using System.Globalization;
using System.Text;

namespace LooseLantern.Core;

/// <summary>The one way in which texts are cut to what can be kept or shown of them.</summary>
public static class CutText
{
    private const string More = "…";

    /// <summary>
    /// As much of a text as fits. What people see as one character (a grapheme cluster, UAX #29) is never cut in two,
    /// unless it fits by no means; half of a character that takes two code units never stands alone, since it can be
    /// neither kept nor sent.
    /// </summary>
    /// <param name="most">In UTF-16 code units, as the database's columns are at least that wide.</param>
    public static string At(string text, int most)
    {
        if (text.Length <= most)
            return text;
        var end = 0;
        while (end < most)
        {
            var length = StringInfo.GetNextTextElementLength(text.AsSpan(end, Math.Min(text.Length - end, most + 2)));
            if (end + length > most)
                break;
            end += length;
        }

        // One cluster can be of any length: a letter with a thousand marks on it.
        if (end == 0)
            end = most > 0 && char.IsHighSurrogate(text[most - 1]) ? most - 1 : most;
        return text[..end];
    }

    /// <summary>As much as fits together with the dots that tell that there was more.</summary>
    public static string WithDots(string text, int most) =>
        text.Length <= most ? text : At(text, most - More.Length).TrimEnd() + More;

    /// <summary>A text of somebody else's, as it can be kept, with dots where it is cut.</summary>
    public static string Kept(string text, int most) => WithDots(Kept(text), most);

    /// <summary>
    /// A text of somebody else's, as it can be kept: without what PostgreSQL refuses (U+0000) and with a replacement
    /// character for each half of a character that stands alone.
    /// </summary>
    public static string Kept(string text)
    {
        if (!text.Any(unit => unit == '\0' || char.IsSurrogate(unit)))
            return text;
        var kept = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
        {
            if (rune.Value != 0)
                kept.Append(rune);
        }

        return kept.ToString();
    }
}
