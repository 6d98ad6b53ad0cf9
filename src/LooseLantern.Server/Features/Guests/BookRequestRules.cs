using FluentValidation;
using FluentValidation.Results;
using LooseLantern.Core;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

public sealed class BookRequestRules : AbstractValidator<BookRequest>
{
    /// <param name="questions">What the page asks.</param>
    public BookRequestRules(IReadOnlyList<Question> questions)
    {
        RuleFor(request => request.Start)
            .InclusiveBetween(Instant.FromUtc(1900, 1, 1, 0, 0), Instant.FromUtc(2200, 1, 1, 0, 0))
            .WithMessage("Choose a start among the openings.");
        RuleFor(request => request.Duration)
            .InclusiveBetween(1, 24 * 60)
            .WithMessage("Choose one of the page's durations, in minutes.");
        RuleFor(request => request.Zone)
            .Must(Zones.IsKnown)
            .WithMessage("Give a time zone by its IANA name, such as Europe/Copenhagen.");
        RuleFor(request => request.Guest.Name)
            .Must(Words.FitOneLine)
            .WithMessage("Give your name, in up to 120 characters.");
        RuleFor(request => request.Guest.Email)
            .Must(email => EmailAddress.IsPlausible(email?.Trim()))
            .WithMessage(EmailAddress.Mend);
        RuleFor(request => request.Answers)
            .Custom(
                (answers, context) =>
                {
                    foreach (var (key, mend) in QuestionAnswers.Faults(questions, answers))
                        context.AddFailure(new ValidationFailure($"answers.{key}", mend));
                }
            );
    }
}
