using FluentValidation;
using LooseLantern.Core;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Pages;

/// <summary>Questions that guests can answer.</summary>
public sealed class QuestionRules : AbstractValidator<IReadOnlyList<Question>>
{
    public const int Most = 25;
    private const int MostOptions = 50;

    public QuestionRules()
    {
        RuleFor(list => list)
            .Must(list => list.All(question => question is not null))
            .WithMend("question-missing")
            .OverridePropertyName("");
        RuleFor(list => list)
            .Must(list => list.Count <= Most)
            .WithMend(Phrase.Of("questions-too-many", ("most", Most)))
            .OverridePropertyName("");
        RuleForEach(list => list)
            .ChildRules(question =>
            {
                question
                    .RuleFor(row => row.Key)
                    .Must(key =>
                        key is { Length: > 0 and <= 40 }
                        && key.All(letter => char.IsAsciiLetterOrDigit(letter) || letter == '-')
                    )
                    .WithMend("question-key");
                question.RuleFor(row => row.Key).NotEqual(GuestQuestions.Number).WithMend("question-key-kept");
                question.RuleFor(row => row.Kind).IsInEnum();
                question
                    .RuleFor(row => row.Words)
                    .Must(words => words is { Length: > 0 and <= 300 } && words.Trim().Length > 0)
                    .WithMend("question-words");
                question.RuleFor(row => row.Hint).NotNull().MaximumLength(300).WithMend("question-hint");
                question
                    .RuleFor(row => row.Options)
                    .Must((row, options) => !NeedsOptions(row.Kind) || Clean(options).Count is >= 2 and <= MostOptions)
                    .WithMend(Phrase.Of("question-options", ("most", MostOptions)));
                question
                    .RuleFor(row => row.Options)
                    .Must(options => options is null || options.All(option => Words.FitOneLine(option)))
                    .WithMend("question-option");
                question
                    .RuleFor(row => row.Address)
                    .NotNull()
                    .Must(address => string.IsNullOrEmpty(address) || WebAddress.Whole(address) is not null)
                    .WithMend("web-page-or-none");
            })
            .OverridePropertyName("");
        RuleFor(list => list)
            .Must(list => list.Select(question => question?.Key).Distinct().Count() == list.Count)
            .WithMend("question-key-twice")
            .OverridePropertyName("");
    }

    /// <summary>As they are kept: options only where they count, each once.</summary>
    public static IReadOnlyList<Question> Tidy(IReadOnlyList<Question> questions) =>
        [
            .. questions.Select(question =>
                question with
                {
                    Words = question.Words.Trim(),
                    Hint = question.Hint.Trim(),
                    Options = NeedsOptions(question.Kind) ? Clean(question.Options) : [],
                    Address = question.Kind == QuestionKind.Consent ? WebAddress.Whole(question.Address) ?? "" : "",
                }
            ),
        ];

    private static bool NeedsOptions(QuestionKind kind) => kind is QuestionKind.OneOf or QuestionKind.SomeOf;

    private static List<string> Clean(IReadOnlyList<string>? options) =>
        [.. (options ?? []).Select(option => option.Trim()).Where(option => option.Length > 0).Distinct()];
}
