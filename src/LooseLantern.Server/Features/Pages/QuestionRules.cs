using FluentValidation;
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
            .WithMessage("Write each question out, or leave it away.")
            .OverridePropertyName("");
        RuleFor(list => list)
            .Must(list => list.Count <= Most)
            .WithMessage($"Ask {Most} questions at the most.")
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
                    .WithMessage("Name the question by letters, digits and hyphens, up to 40.");
                question
                    .RuleFor(row => row.Key)
                    .NotEqual(GuestQuestions.Number)
                    .WithMessage("The number that hosts ring is asked by this name; choose another.");
                question.RuleFor(row => row.Kind).IsInEnum();
                question
                    .RuleFor(row => row.Words)
                    .Must(words => words is { Length: > 0 and <= 300 } && words.Trim().Length > 0)
                    .WithMessage("Write what you ask, in up to 300 characters.");
                question
                    .RuleFor(row => row.Hint)
                    .NotNull()
                    .MaximumLength(300)
                    .WithMessage("Keep the hint to 300 characters.");
                question
                    .RuleFor(row => row.Options)
                    .Must((row, options) => !NeedsOptions(row.Kind) || Clean(options).Count is >= 2 and <= MostOptions)
                    .WithMessage($"Offer 2 to {MostOptions} answers, one a line.");
                question
                    .RuleFor(row => row.Options)
                    .Must(options => options is null || options.All(option => Words.FitOneLine(option)))
                    .WithMessage("Keep each answer to one line of 120 characters.");
                question
                    .RuleFor(row => row.Address)
                    .NotNull()
                    .Must(address =>
                        string.IsNullOrEmpty(address)
                        || (
                            Uri.TryCreate(address, UriKind.Absolute, out var uri)
                            && uri.Scheme is "http" or "https"
                            && address.Length <= 500
                        )
                    )
                    .WithMessage("Give an address that begins with https:// or http://, or leave it empty.");
            })
            .OverridePropertyName("");
        RuleFor(list => list)
            .Must(list => list.Select(question => question?.Key).Distinct().Count() == list.Count)
            .WithMessage("Two questions have one name; give each its own.")
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
                    Address = question.Kind == QuestionKind.Consent ? question.Address.Trim() : "",
                }
            ),
        ];

    private static bool NeedsOptions(QuestionKind kind) => kind is QuestionKind.OneOf or QuestionKind.SomeOf;

    private static List<string> Clean(IReadOnlyList<string>? options) =>
        [.. (options ?? []).Select(option => option.Trim()).Where(option => option.Length > 0).Distinct()];
}
