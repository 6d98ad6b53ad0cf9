using System.Globalization;
using NodaTime.Text;

namespace LooseLantern.Core.Questions;

/// <summary>How an answer is compared.</summary>
public enum ScreenTest
{
    Is,
    IsNot,

    /// <summary>A number that is greater, or a date that is later.</summary>
    Over,

    /// <summary>A number that is less, or a date that is earlier.</summary>
    Under,
    IsAnswered,
    IsNotAnswered,
}

/// <summary>What becomes of a guest whose answers meet a rule.</summary>
public enum ScreenAct
{
    DontBook,
    GoElsewhere,
    Flag,
}

/// <summary>One comparison of an answer.</summary>
/// <param name="Key">Of the question.</param>
/// <param name="Value">What it is compared with, as answers are written; empty where nothing is.</param>
public sealed record ScreenCondition(string Key, ScreenTest Test, string Value);

/// <summary>A sentence of the screening: if all or any of these, then that.</summary>
/// <param name="Words">What the guest reads, or for a flag what the team reads.</param>
/// <param name="Address">Where to go instead: a path of ours, or https.</param>
public sealed record ScreeningRule(
    IReadOnlyList<ScreenCondition> If,
    bool All,
    ScreenAct Then,
    string Words,
    string Address
);

/// <summary>What answers lead to.</summary>
/// <param name="Stop">The rule that ends the way; null where the guest may book.</param>
/// <param name="Flags">What the team is told of the booking.</param>
public sealed record ScreeningOutcome(ScreeningRule? Stop, IReadOnlyList<string> Flags);

/// <summary>Asks the rules of a page of a guest's answers.</summary>
public static class Screening
{
    /// <param name="answers">By key, such as passed <see cref="AnswerCheck"/>.</param>
    public static ScreeningOutcome Of(
        IReadOnlyList<Question> questions,
        IReadOnlyList<ScreeningRule> rules,
        IReadOnlyDictionary<string, string> answers
    )
    {
        var met = rules.Where(rule => rule.If.Count > 0 && (rule.All ? rule.If.All(IsSo) : rule.If.Any(IsSo))).ToList();
        return new ScreeningOutcome(
            met.Find(rule => rule.Then != ScreenAct.Flag),
            [.. met.Where(rule => rule.Then == ScreenAct.Flag).Select(rule => rule.Words)]
        );

        bool IsSo(ScreenCondition condition) => Holds(questions, condition, answers);
    }

    /// <summary>Whether an answer is as a condition says; of a question that is not asked it is not.</summary>
    /// <param name="answers">By key, such as passed <see cref="AnswerCheck"/>.</param>
    public static bool Holds(
        IReadOnlyList<Question> questions,
        ScreenCondition condition,
        IReadOnlyDictionary<string, string> answers
    ) =>
        questions.FirstOrDefault(question => question.Key == condition.Key) is { } question
        && Meets(question, condition, answers.GetValueOrDefault(condition.Key, "").Trim());

    /// <summary>The comparisons that make sense of a kind of answer.</summary>
    public static IReadOnlyList<ScreenTest> TestsOf(QuestionKind kind) =>
        kind switch
        {
            QuestionKind.Number =>
            [
                ScreenTest.Is,
                ScreenTest.IsNot,
                ScreenTest.Over,
                ScreenTest.Under,
                ScreenTest.IsAnswered,
                ScreenTest.IsNotAnswered,
            ],
            QuestionKind.Date =>
            [
                ScreenTest.Is,
                ScreenTest.Over,
                ScreenTest.Under,
                ScreenTest.IsAnswered,
                ScreenTest.IsNotAnswered,
            ],
            QuestionKind.OneOf or QuestionKind.SomeOf or QuestionKind.YesNo or QuestionKind.Short =>
            [
                ScreenTest.Is,
                ScreenTest.IsNot,
                ScreenTest.IsAnswered,
                ScreenTest.IsNotAnswered,
            ],
            _ => [ScreenTest.IsAnswered, ScreenTest.IsNotAnswered],
        };

    /// <summary>What is wrong with a condition; null where it can be asked.</summary>
    public static ScreenFault? FaultOf(Question? question, ScreenCondition condition)
    {
        if (question is null)
            return ScreenFault.NotAsked;
        if (!TestsOf(question.Kind).Contains(condition.Test))
            return ScreenFault.NoSuchTest;
        if (condition.Test is ScreenTest.IsAnswered or ScreenTest.IsNotAnswered)
            return null;
        return question.Kind switch
        {
            QuestionKind.Number => NumberOf(condition.Value) is null ? ScreenFault.NoNumber : null,
            QuestionKind.Date => LocalDatePattern.Iso.Parse(condition.Value).Success ? null : ScreenFault.NoDate,
            QuestionKind.OneOf or QuestionKind.SomeOf => question.Options.Contains(condition.Value)
                ? null
                : ScreenFault.NotOffered,
            QuestionKind.YesNo => condition.Value is AnswerCheck.Yes or AnswerCheck.No ? null : ScreenFault.NoYesOrNo,
            _ => condition.Value.Trim().Length is > 0 and <= AnswerCheck.MostShort ? null : ScreenFault.NoValue,
        };
    }

    /// <summary>
    /// What is not answered meets no comparison but its own, so that a question left open never stops anybody by
    /// chance.
    /// </summary>
    private static bool Meets(Question question, ScreenCondition condition, string answer) =>
        condition.Test switch
        {
            ScreenTest.IsAnswered => answer.Length > 0,
            ScreenTest.IsNotAnswered => answer.Length == 0,
            _ when answer.Length == 0 => false,
            ScreenTest.Is => IsSame(question, condition.Value, answer),
            ScreenTest.IsNot => !IsSame(question, condition.Value, answer),
            ScreenTest.Over => Compare(question, answer, condition.Value) > 0,
            _ => Compare(question, answer, condition.Value) < 0,
        };

    private static bool IsSame(Question question, string value, string answer) =>
        question.Kind switch
        {
            QuestionKind.Number or QuestionKind.Date => Compare(question, answer, value) == 0,
            QuestionKind.SomeOf => answer.Split('\n', StringSplitOptions.TrimEntries).Contains(value),
            _ => answer.Equals(value.Trim(), StringComparison.OrdinalIgnoreCase),
        };

    /// <summary>Null, which is neither more nor less, where one of the two can't be read.</summary>
    private static int? Compare(Question question, string answer, string value)
    {
        if (question.Kind == QuestionKind.Number)
            return NumberOf(answer) is { } one && NumberOf(value) is { } other ? one.CompareTo(other) : null;
        var (date, than) = (LocalDatePattern.Iso.Parse(answer), LocalDatePattern.Iso.Parse(value));
        return date.Success && than.Success ? date.Value.CompareTo(than.Value) : null;
    }

    private static decimal? NumberOf(string text) =>
        decimal.TryParse(
            text,
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : null;
}
