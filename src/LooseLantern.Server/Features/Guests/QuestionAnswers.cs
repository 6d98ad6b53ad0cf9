using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Guests;

/// <summary>Answers as guests send them.</summary>
public static class QuestionAnswers
{
    /// <summary>What to mend, by the key of the question.</summary>
    public static IReadOnlyDictionary<string, Phrase> Faults(
        IReadOnlyList<Question> questions,
        IReadOnlyDictionary<string, string>? typed
    ) =>
        AnswerCheck
            .Faults(questions, Known(typed))
            .ToDictionary(fault => fault.Key, fault => QuestionPhrases.Of(fault.Value));

    /// <exception cref="Refusal">400 naming each question that is not answered well, as answers.{key}.</exception>
    public static IReadOnlyList<GivenAnswer> Check(
        IReadOnlyList<Question> questions,
        IReadOnlyDictionary<string, string>? typed
    )
    {
        var faults = Faults(questions, typed);
        if (faults.Count > 0)
            throw Refusal.Invalid(faults.ToDictionary(fault => $"answers.{fault.Key}", fault => new[] { fault.Value }));
        return GivenAnswer.Of(questions, Known(typed));
    }

    private static Dictionary<string, string> Known(IReadOnlyDictionary<string, string>? typed) =>
        (typed ?? new Dictionary<string, string>()).ToDictionary(pair => pair.Key, pair => pair.Value ?? "");
}
