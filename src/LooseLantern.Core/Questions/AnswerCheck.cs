using System.Globalization;
using NodaTime.Text;

namespace LooseLantern.Core.Questions;

/// <summary>
/// Whether answers answer questions. An answer is a text: the words, a number with a point, an ISO date, yes or no, the
/// options chosen one a line.
/// </summary>
public static class AnswerCheck
{
    public const int MostShort = 200;
    public const int MostLong = 4_000;
    public const string Yes = "yes";
    public const string No = "no";

    /// <summary>What to mend, by the key of the question; empty where all is well.</summary>
    /// <param name="answers">By key. One that nobody asked for is a fault too, so that nothing typed is lost in
    /// silence.</param>
    public static IReadOnlyDictionary<string, string> Faults(
        IReadOnlyList<Question> questions,
        IReadOnlyDictionary<string, string> answers
    )
    {
        var faults = new Dictionary<string, string>();
        foreach (var question in questions)
        {
            var answer = answers.GetValueOrDefault(question.Key, "").Trim();
            if (answer.Length == 0)
            {
                if (question.IsNeeded)
                    faults[question.Key] = question.Kind switch
                    {
                        QuestionKind.Consent => "This is needed to go on.",
                        QuestionKind.OneOf or QuestionKind.SomeOf or QuestionKind.YesNo => "Choose an answer.",
                        _ => "Answer this.",
                    };
            }
            else if (MendOf(question, answer) is { } mend)
                faults[question.Key] = mend;
        }

        foreach (var key in answers.Keys.Where(key => !questions.Any(question => question.Key == key)))
            faults[key] = "Nobody asks this any more; load the page again.";
        return faults;
    }

    /// <summary>As it is kept: without spaces at ends, and options in the order they are offered in.</summary>
    public static string Tidy(Question question, string answer) =>
        question.Kind == QuestionKind.SomeOf
            ? string.Join('\n', question.Options.Where(Lines(answer).Contains))
            : answer.Trim();

    private static string? MendOf(Question question, string answer) =>
        question.Kind switch
        {
            QuestionKind.Short => answer.Length > MostShort || answer.Contains('\n', StringComparison.Ordinal)
                ? $"Keep it to one line of {MostShort} characters."
                : null,
            QuestionKind.Long => answer.Length > MostLong ? $"Keep it to {MostLong} characters." : null,
            QuestionKind.Number => answer.Length <= 30
            && decimal.TryParse(
                answer,
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out _
            )
                ? null
                : "Give a number, such as 12 or 7.5.",
            QuestionKind.Date => LocalDatePattern.Iso.Parse(answer)
                is { Success: true, Value.Year: >= 1000 and <= 2999 }
                ? null
                : "Give a date, such as 2027-03-31.",
            QuestionKind.Email => EmailAddress.IsPlausible(answer) ? null : EmailAddress.Mend,
            QuestionKind.Web => answer.Length <= 500
            && Uri.TryCreate(answer, UriKind.Absolute, out var uri)
            && uri.Scheme is "http" or "https"
                ? null
                : "Give an address that begins with https:// or http://.",
            QuestionKind.Phone => IsPhone(answer)
                ? null
                : "Give a phone number with its country’s code, such as +45 55 01 02 03.",
            QuestionKind.OneOf => question.Options.Contains(answer)
                ? null
                : "Choose one of the answers that are offered.",
            QuestionKind.SomeOf => Lines(answer).IsSubsetOf(question.Options)
                ? null
                : "Choose among the answers that are offered.",
            QuestionKind.Others => Lines(answer).All(EmailAddress.IsPlausible)
                ? null
                : "Give email addresses, one a line.",
            QuestionKind.YesNo => answer is Yes or No ? null : "Answer yes or no.",
            _ => answer == Yes ? null : "Agree, or leave it.",
        };

    private static HashSet<string> Lines(string answer) =>
        [.. answer.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];

    private static bool IsPhone(string text) =>
        text.Count(char.IsAsciiDigit) is >= 5 and <= 20
        && text.Length <= 40
        && text.All(letter => char.IsAsciiDigit(letter) || letter is '+' or ' ' or '-' or '(' or ')' or '/' or '.');
}
