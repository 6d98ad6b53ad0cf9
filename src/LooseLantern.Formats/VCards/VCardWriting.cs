using System.Text;
using LooseLantern.Formats.ICalendar.Writing;

namespace LooseLantern.Formats.VCards;

/// <summary>Writes cards of version 4.0 (RFC 6350).</summary>
public static class VCardWriting
{
    public const string MediaType = "text/vcard";

    /// <param name="cards">Each with the id that stays the same over every export.</param>
    public static string Write(IEnumerable<(Guid Id, VCard Card)> cards)
    {
        var text = new StringBuilder();
        foreach (var (id, card) in cards)
        {
            text.Append("BEGIN:VCARD\r\nVERSION:4.0\r\n");
            Line(text, "UID", $"urn:uuid:{id:D}", isText: false);
            Line(text, "FN", card.Name);
            foreach (var (i, email) in card.Emails.Index())
                Line(text, i == 0 ? "EMAIL;PREF=1" : "EMAIL", email);
            Line(text, "ORG", card.Organisation);
            Line(text, "TEL", card.Phone);
            Line(text, "TZ", card.Zone);
            Line(text, "LANG", card.Language, isText: false);
            Line(text, "NOTE", card.Note);
            text.Append("END:VCARD\r\n");
        }

        return Folding.Fold(text.ToString());
    }

    private static void Line(StringBuilder text, string property, string value, bool isText = true)
    {
        if (value.Length > 0)
            text.Append(property).Append(':').Append(isText ? Escaped(value) : value).Append("\r\n");
    }

    /// <summary>Section 3.4.</summary>
    private static string Escaped(string text) =>
        text.ReplaceLineEndings("\n")
            .Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace(",", "\\,", StringComparison.Ordinal)
            .Replace(";", "\\;", StringComparison.Ordinal)
            .Replace("\n", "\\n", StringComparison.Ordinal);
}
