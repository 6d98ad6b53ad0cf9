using System.Globalization;
using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Formats.Tables;

namespace LooseLantern.Formats.VCards;

/// <summary>Reads cards of versions 3.0 (RFC 2426) and 4.0 (RFC 6350). What it has no place for is left out.</summary>
public static class VCardReading
{
    public static bool IsCards(byte[] bytes) =>
        bytes.Length > 11
        && System
            .Text.Encoding.ASCII.GetString(bytes, 0, Math.Min(bytes.Length, 40))
            .Contains("BEGIN:VCARD", StringComparison.OrdinalIgnoreCase);

    /// <exception cref="TableFileException">Where there are no cards that are read, or too many.</exception>
    public static IReadOnlyList<VCard> Read(byte[] bytes, int most)
    {
        var (text, _) = TableText.Read(bytes, null);
        var (cards, lines, begin) = (new List<VCard>(), new List<ContentLine>(), 0);
        foreach (var (number, line) in Unfolded(text))
        {
            // A group before the name ties lines together, which matters to nobody here.
            var colon = line.AsSpan().IndexOfAny(':', ';');
            var dot = colon < 0 ? -1 : line.AsSpan(0, colon).IndexOf('.');
            if (ContentLine.TryParse(number, line.AsSpan(dot + 1)) is not { } content)
                continue;
            var isCard = content.Value.Trim().Equals("VCARD", StringComparison.OrdinalIgnoreCase);
            if (content.Name == "BEGIN" && isCard)
                (lines, begin) = ([], number);
            else if (content.Name == "END" && isCard)
            {
                if (IsKnown(lines))
                    cards.Add(Of(begin, lines));
                if (cards.Count > most)
                    throw new TableFileException(TableFault.TooManyRows, begin);
            }
            else
                lines.Add(content);
        }

        return cards.Count > 0 ? cards : throw new TableFileException(TableFault.NoCards);
    }

    private static bool IsKnown(List<ContentLine> lines) =>
        lines.Find(line => line.Name == "VERSION")?.Value.Trim() is "3.0" or "4.0";

    private static VCard Of(int begin, List<ContentLine> lines)
    {
        var name = First("FN");
        return new VCard(
            begin,
            name.Length > 0 ? name : NameOf(lines.Find(line => line.Name == "N")),
            [
                .. Preferred("EMAIL")
                    .Select(Plain)
                    .Where(email => email.Length > 0)
                    .Distinct(StringComparer.OrdinalIgnoreCase),
            ],
            // Units of it follow after semicolons.
            Parts(lines.Find(line => line.Name == "ORG")).FirstOrDefault("").Trim(),
            Preferred("TEL").Select(Plain).FirstOrDefault(phone => phone.Length > 0) ?? "",
            First("TZ") is var zone && zone.Contains('/', StringComparison.Ordinal) ? zone : "",
            First("LANG"),
            string.Join("\n", lines.Where(line => line.Name == "NOTE").Select(line => line.Text().Trim()))
        );
        string First(string property) => lines.Find(line => line.Name == property)?.Text().Trim() ?? "";
        IEnumerable<ContentLine> Preferred(string property) =>
            lines.Where(line => line.Name == property).OrderBy(Preference);
    }

    /// <summary>1 is the most preferred (section 5.3); version 3.0 says so by a type.</summary>
    private static int Preference(ContentLine line)
    {
        if (
            line.Parameters.TryGetValue("PREF", out var text)
            && int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var preference)
        )
            return preference;
        return
            line.Parameters.TryGetValue("TYPE", out var types)
            && types.Split(',').Contains("pref", StringComparer.OrdinalIgnoreCase)
            ? 1
            : 101;
    }

    /// <summary>Emails and numbers as they are written, also where they stand as addresses of the web.</summary>
    private static string Plain(ContentLine line)
    {
        var text = line.Text().Trim();
        var scheme = text.IndexOf(':', StringComparison.Ordinal);
        return scheme > 0 && text[..scheme].ToLowerInvariant() is "mailto" or "tel"
            ? Uri.UnescapeDataString(text[(scheme + 1)..])
            : text;
    }

    /// <summary>Family names; given names; further names; prefixes; suffixes (section 6.2.2).</summary>
    private static string NameOf(ContentLine? line)
    {
        var parts = Parts(line).ToList();
        string At(int i) => i < parts.Count ? parts[i].Replace(',', ' ').Trim() : "";
        return string.Join(' ', new[] { At(3), At(1), At(2), At(0), At(4) }.Where(part => part.Length > 0));
    }

    /// <summary>The parts of a value with semicolons between, their escapes undone.</summary>
    private static IEnumerable<string> Parts(ContentLine? line)
    {
        if (line is null)
            yield break;
        var (from, value) = (0, line.Value);
        for (var i = 0; i <= value.Length; i++)
        {
            if (i < value.Length && value[i] == '\\')
                i++;
            else if (i == value.Length || value[i] == ';')
            {
                yield return (line with { Value = value[from..Math.Min(i, value.Length)] }).Text();
                from = i + 1;
            }
        }
    }

    /// <summary>Lines in one piece each, with the line of the file they begin on.</summary>
    private static IEnumerable<(int Number, string Line)> Unfolded(string text)
    {
        var (number, begin, whole) = (0, 0, "");
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n'))
        {
            number++;
            if (line.Length > 0 && line[0] is ' ' or '\t')
            {
                // No property that is read is longer; pictures are.
                if (whole.Length < TableReading.MostCell)
                    whole += line[1..];
                continue;
            }

            if (whole.Length > 0)
                yield return (begin, whole);
            (begin, whole) = (number, line);
        }

        if (whole.Length > 0)
            yield return (begin, whole);
    }
}
