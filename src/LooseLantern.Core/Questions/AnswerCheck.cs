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

    /// <summary>What is wrong, by the key of the question; empty where all is well.</summary>
    /// <param name="answers">By key. One that nobody asked for is a fault too, so that nothing typed is lost in
    /// silence.</param>
    public static IReadOnlyDictionary<string, AnswerFault> Faults(
        IReadOnlyList<Question> questions,
        IReadOnlyDictionary<string, string> answers
    )
    {
        var faults = new Dictionary<string, AnswerFault>();
        foreach (var question in questions)
        {
            var answer = answers.GetValueOrDefault(question.Key, "").Trim();
            if (answer.Length == 0)
            {
                if (question.IsNeeded)
                    faults[question.Key] = question.Kind switch
                    {
                        QuestionKind.Consent => AnswerFault.NotAgreed,
                        QuestionKind.OneOf or QuestionKind.SomeOf or QuestionKind.YesNo => AnswerFault.NotChosen,
                        _ => AnswerFault.Missing,
                    };
            }
            else if (FaultOf(question, answer) is { } fault)
                faults[question.Key] = fault;
        }

        foreach (var key in answers.Keys.Where(key => !questions.Any(question => question.Key == key)))
            faults[key] = AnswerFault.NotAsked;
        return faults;
    }

    /// <summary>
    /// As it is kept: without spaces at ends, options in the order they are offered in, and web addresses whole.
    /// </summary>
    public static string Tidy(Question question, string answer) =>
        question.Kind switch
        {
            QuestionKind.SomeOf => string.Join('\n', question.Options.Where(Lines(answer).Contains)),
            QuestionKind.Web => WebAddress.Whole(answer) ?? answer.Trim(),
            _ => answer.Trim(),
        };

    private static AnswerFault? FaultOf(Question question, string answer) =>
        question.Kind switch
        {
            QuestionKind.Short => answer.Length > MostShort || answer.Contains('\n', StringComparison.Ordinal)
                ? AnswerFault.NotOneLine
                : null,
            QuestionKind.Long => answer.Length > MostLong ? AnswerFault.TooLong : null,
            QuestionKind.Number => answer.Length <= 30
            && decimal.TryParse(
                answer,
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out _
            )
                ? null
                : AnswerFault.NoNumber,
            QuestionKind.Date => LocalDatePattern.Iso.Parse(answer)
                is { Success: true, Value.Year: >= 1000 and <= 2999 }
                ? null
                : AnswerFault.NoDate,
            QuestionKind.Email => EmailAddress.IsPlausible(answer) ? null : AnswerFault.NoEmail,
            QuestionKind.Web => WebAddress.Whole(answer) is null ? AnswerFault.NoWebPage : null,
            QuestionKind.Phone => IsPhone(answer) ? null : AnswerFault.NoPhone,
            QuestionKind.OneOf => question.Options.Contains(answer) ? null : AnswerFault.NotOffered,
            QuestionKind.SomeOf => Lines(answer).IsSubsetOf(question.Options) ? null : AnswerFault.NotAllOffered,
            QuestionKind.Others => Lines(answer).All(EmailAddress.IsPlausible) ? null : AnswerFault.NoEmails,
            QuestionKind.YesNo => answer is Yes or No ? null : AnswerFault.NoYesOrNo,
            _ => answer == Yes ? null : AnswerFault.NoAgreement,
        };

    private static HashSet<string> Lines(string answer) =>
        [.. answer.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];

    private static bool IsPhone(string text) =>
        text.Count(char.IsAsciiDigit) is >= 5 and <= 20
        && text.Length <= 40
        && text.All(letter => char.IsAsciiDigit(letter) || letter is '+' or ' ' or '-' or '(' or ')' or '/' or '.');
}
