using FluentValidation;
using LooseLantern.Core;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

public sealed class BookRequestRules : AbstractValidator<BookRequest>
{
    /// <param name="questions">What the page asks.</param>
    /// <param name="page">Which says whether one may book for somebody else.</param>
    public BookRequestRules(IReadOnlyList<Question> questions, Page page)
    {
        RuleFor(request => request.For)
            .Must(other => other is null || page.Details.ForOthers)
            .WithMend("for-yourself")
            .DependentRules(() =>
            {
                RuleFor(request => request.For!.Name).Must(Words.FitOneLine).WithMend("guest-name");
                RuleFor(request => request.For!.Email)
                    .Must(email =>
                        email is not null && (email.Trim().Length == 0 || EmailAddress.IsPlausible(email.Trim()))
                    )
                    .WithMend("email-or-none");
                RuleFor(request => request.For!.MailTo).IsInEnum();
            })
            .When(request => request.For is not null);
        RuleFor(request => request.Start)
            .InclusiveBetween(Instant.FromUtc(1900, 1, 1, 0, 0), Instant.FromUtc(2200, 1, 1, 0, 0))
            .WithMend("start");
        RuleFor(request => request.Duration).InclusiveBetween(1, 24 * 60).WithMend("page-duration");
        RuleFor(request => request.Zone).Must(Zones.IsKnown).WithMend("iana-zone");
        RuleFor(request => request.Guest.Name).Must(Words.FitOneLine).WithMend("your-name");
        RuleFor(request => request.Guest.Email)
            .Must(email => EmailAddress.IsPlausible(email?.Trim()))
            .WithMend("email");
        RuleFor(request => request.Answers)
            .Custom(
                (answers, context) =>
                {
                    foreach (var (key, mend) in QuestionAnswers.Faults(questions, answers))
                        context.AddMend($"answers.{key}", mend);
                }
            );
    }
}
