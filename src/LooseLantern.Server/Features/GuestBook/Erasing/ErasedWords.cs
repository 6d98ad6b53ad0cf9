using System.Globalization;
using System.Net;
using System.Text;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <summary>
/// Finds names and emails of guests in running text, as patterns of PostgreSQL (section 9.7.3 of its manual). Names
/// count as they are written, emails in any case.
/// </summary>
public static class ErasedWords
{
    /// <summary>What stands in the place of a name from then on.</summary>
    public const string Guest = "Erased guest";

    private const string Never = "(?=a)b";
    private const string NotWithinWord = "(?<![[:alnum:]])";
    private const string NotGoingOn = "(?![[:alnum:]])";

    // Parts of a name that are shorter are words of any text.
    private const int LeastPart = 3;

    public static string OfEmails(IEnumerable<string> emails) =>
        Any(
            emails.SelectMany(email => new[] { email, email.Replace("@", "%40", StringComparison.Ordinal) }),
            "(?<![[:alnum:]._%+-])"
        );

    /// <summary>Whole names, with whatever stands between their words; also as they stand in HTML.</summary>
    public static string OfNames(IEnumerable<string> names) =>
        Any(names.SelectMany(name => new[] { name, WebUtility.HtmlEncode(name) }), NotWithinWord);

    /// <summary>Whole names, and each word of them, for texts that are of nobody else.</summary>
    public static string OfNamesAndParts(IEnumerable<string> names) =>
        OfNames(
            names
                .SelectMany(name => name.Split(' ', StringSplitOptions.RemoveEmptyEntries).Prepend(name))
                .Where(word => word.Length >= LeastPart)
        );

    /// <summary>An expression that is the column's text without them.</summary>
    /// <param name="column">Of a text.</param>
    /// <param name="names">The parameter that has the pattern of names; that of emails is <c>@emails</c>.</param>
    public static string Without(string column, string names = "@names") =>
        $"regexp_replace(regexp_replace({column}, @emails, '…', 'gi'), {names}, '{Guest}', 'g')";

    /// <summary>A condition that one of them is in the column's text.</summary>
    /// <inheritdoc cref="Without"/>
    public static string IsIn(string column, string names = "@names") => $"({column} ~* @emails OR {column} ~ {names})";

    private static string Any(IEnumerable<string> words, string before)
    {
        // The longest first, or a part would be found and leave the rest.
        var patterns = words
            .Select(word => word.Trim())
            .Where(word => word.Length > 0)
            .Distinct()
            .OrderByDescending(word => word.Length)
            .Select(PatternOf)
            .ToList();
        return patterns.Count == 0 ? Never : $"{before}(?:{string.Join('|', patterns)}){NotGoingOn}";
    }

    private static string PatternOf(string word)
    {
        var pattern = new StringBuilder();
        foreach (var c in word)
        {
            if (char.IsWhiteSpace(c))
                pattern.Append("[\\s._-]+");
            else if (char.IsAscii(c) && !char.IsAsciiLetterOrDigit(c))
                pattern.Append(CultureInfo.InvariantCulture, $"\\{c}");
            else
                pattern.Append(c);
        }

        return pattern.ToString();
    }
}
