using FluentValidation;
using Fluid.Ast;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Pages;

/// <summary>
/// What a page may send, and in which words. A token that is not known is refused by its name, so that no guest reads a
/// gap.
/// </summary>
public sealed class PagePostRules : AbstractValidator<PagePost>
{
    public const int MostReminders = 5;
    private const int MostLinks = 10;
    private const int MostBody = 8_000;

    public PagePostRules()
    {
        RuleFor(post => post.ToGuests).IsInEnum();
        RuleFor(post => post.Reminders)
            .NotNull()
            .Must(list => list is null || list.Count <= MostReminders)
            .WithMessage($"Remind {MostReminders} times at the most.");
        RuleForEach(post => post.Reminders)
            .InclusiveBetween(5, PageLimits.MostNoticeMinutes)
            .WithMessage("Remind 5 minutes to 90 days before the start.");
        RuleFor(post => post.Reminders)
            .Must(list => list is null || list.Distinct().Count() == list.Count)
            .WithMessage("The same reminder stands there twice; take one away.");
        RuleFor(post => post.Booked!).SetValidator(new OwnWordsRules()).When(post => post.Booked is not null);
        RuleFor(post => post.Moved!).SetValidator(new OwnWordsRules()).When(post => post.Moved is not null);
        RuleFor(post => post.Cancelled!).SetValidator(new OwnWordsRules()).When(post => post.Cancelled is not null);
        RuleFor(post => post.Reminder!).SetValidator(new OwnWordsRules()).When(post => post.Reminder is not null);
        RuleFor(post => post.EventTitle)
            .NotNull()
            .MaximumLength(300)
            .WithMessage("Keep it to 300 characters.")
            .Custom(CheckTokens);
        RuleFor(post => post.EventText)
            .NotNull()
            .MaximumLength(MostBody)
            .WithMessage($"Keep it to {MostBody} characters.")
            .Custom(CheckTokens);
        RuleFor(post => post.HostWords).NotNull().MaximumLength(2_000).WithMessage("Keep it to 2000 characters.");
        RuleFor(post => post.Links)
            .NotNull()
            .Must(links => links is null || (links.Count <= MostLinks && links.All(link => link is not null)))
            .WithMessage($"Send {MostLinks} links along at the most.");
        RuleForEach(post => post.Links)
            .ChildRules(link =>
            {
                link.RuleFor(row => row.Title)
                    .Must(Words.FitOneLine)
                    .WithMessage("Say what is behind the link, in up to 120 characters.");
                link.RuleFor(row => row.Address)
                    .Must(IsWeb)
                    .WithMessage("Give an address that begins with https:// or http://.");
            });
    }

    /// <summary>As it is kept: without spaces at ends, and without words that are empty.</summary>
    public static PagePost Tidy(PagePost post) =>
        post with
        {
            Reminders = [.. post.Reminders.OrderDescending()],
            Booked = Tidy(post.Booked),
            Moved = Tidy(post.Moved),
            Cancelled = Tidy(post.Cancelled),
            Reminder = Tidy(post.Reminder),
            EventTitle = post.EventTitle.Trim(),
            EventText = post.EventText.Trim(),
            HostWords = post.HostWords.Trim(),
            Links = [.. post.Links.Select(link => new PostLink(link.Title.Trim(), link.Address.Trim()))],
        };

    private static OwnWords? Tidy(OwnWords? own) =>
        own is null || (own.Subject.Trim().Length == 0 && own.Body.Trim().Length == 0)
            ? null
            : new OwnWords(own.Subject.Trim(), own.Body.Trim());

    private static bool IsWeb(string? address) =>
        address is { Length: <= 500 }
        && Uri.TryCreate(address.Trim(), UriKind.Absolute, out var uri)
        && uri.Scheme is "http" or "https";

    /// <summary>Says what is wrong with words that hold tokens.</summary>
    internal static void CheckTokens<T>(string? words, ValidationContext<T> context)
    {
        if (string.IsNullOrEmpty(words))
            return;
        if (!OwnWordsParser.TryParse(words, out var template, out var error))
        {
            context.AddFailure($"This can’t be read as words with tokens: {error}");
            return;
        }

        var reader = new TokenReader();
        reader.VisitTemplate(template);
        var unknown = reader.Names.Where(name => !PostWords.Tokens.ContainsKey(name)).Distinct().ToList();
        if (unknown.Count > 0)
            context.AddFailure(
                $"There is no token {string.Join(", ", unknown.Select(name => $"{{{{ {name} }}}}"))}; choose from the list."
            );
    }

    private sealed class TokenReader : AstVisitor
    {
        public List<string> Names { get; } = [];

        protected override Expression VisitMemberExpression(MemberExpression memberExpression)
        {
            if (memberExpression.Segments is [IdentifierSegment first, ..])
                Names.Add(first.Identifier);
            return base.VisitMemberExpression(memberExpression);
        }
    }
}

/// <summary>Own words have both a subject and a body.</summary>
public sealed class OwnWordsRules : AbstractValidator<OwnWords>
{
    public OwnWordsRules()
    {
        RuleFor(own => own.Subject)
            .NotEmpty()
            .When(own => !string.IsNullOrWhiteSpace(own.Body))
            .WithMessage("Give the mail a subject.");
        RuleFor(own => own.Body)
            .NotEmpty()
            .When(own => !string.IsNullOrWhiteSpace(own.Subject))
            .WithMessage("Write the mail’s words, or take its subject out too.");
        RuleFor(own => own.Subject)
            .MaximumLength(300)
            .WithMessage("Keep the subject to 300 characters.")
            .Custom(PagePostRules.CheckTokens);
        RuleFor(own => own.Body)
            .MaximumLength(8_000)
            .WithMessage("Keep it to 8000 characters.")
            .Custom(PagePostRules.CheckTokens);
    }
}
