using LooseLantern.Core.Questions;

namespace LooseLantern.Server.Data.Model;

/// <summary>An answer of a guest, with the question in the words it was asked in.</summary>
/// <param name="Key">The question's.</param>
public sealed record GivenAnswer(string Key, string Words, QuestionKind Kind, string Text)
{
    /// <summary>In one line, for mail and calendars.</summary>
    public string Line => $"{Words} {Text.Replace("\n", ", ", StringComparison.Ordinal)}";

    /// <summary>What of all that was typed answers something, in the order of the questions.</summary>
    public static IReadOnlyList<GivenAnswer> Of(
        IReadOnlyList<Question> questions,
        IReadOnlyDictionary<string, string> typed
    ) =>
        [
            .. questions
                .Select(question => new GivenAnswer(
                    question.Key,
                    question.Words,
                    question.Kind,
                    AnswerCheck.Tidy(question, typed.GetValueOrDefault(question.Key, ""))
                ))
                .Where(answer => answer.Text.Length > 0),
        ];
}
