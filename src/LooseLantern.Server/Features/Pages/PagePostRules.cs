using FluentValidation;
using Fluid.Ast;
using LooseLantern.Core;
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
            .WithMend(Phrase.Of("reminders", ("most", MostReminders)));
        RuleForEach(post => post.Reminders).InclusiveBetween(5, PageLimits.MostNoticeMinutes).WithMend("reminder");
        RuleFor(post => post.Reminders)
            .Must(list => list is null || list.Distinct().Count() == list.Count)
            .WithMend("reminder-twice");
        RuleFor(post => post.Booked!).SetValidator(new OwnWordsRules()).When(post => post.Booked is not null);
        RuleFor(post => post.Moved!).SetValidator(new OwnWordsRules()).When(post => post.Moved is not null);
        RuleFor(post => post.Cancelled!).SetValidator(new OwnWordsRules()).When(post => post.Cancelled is not null);
        RuleFor(post => post.Reminder!).SetValidator(new OwnWordsRules()).When(post => post.Reminder is not null);
        RuleFor(post => post.EventTitle)
            .NotNull()
            .MaximumLength(300)
            .WithMend(Phrase.Of("too-long", ("most", 300)))
            .Custom(CheckTokens);
        RuleFor(post => post.EventText)
            .NotNull()
            .MaximumLength(MostBody)
            .WithMend(Phrase.Of("too-long", ("most", MostBody)))
            .Custom(CheckTokens);
        RuleFor(post => post.HostWords).NotNull().MaximumLength(2_000).WithMend(Phrase.Of("too-long", ("most", 2000)));
        RuleFor(post => post.Links)
            .NotNull()
            .Must(links => links is null || (links.Count <= MostLinks && links.All(link => link is not null)))
            .WithMend(Phrase.Of("links-too-many", ("most", MostLinks)));
        RuleForEach(post => post.Links)
            .ChildRules(link =>
            {
                link.RuleFor(row => row.Title).Must(Words.FitOneLine).WithMend("link-behind");
                link.RuleFor(row => row.Address)
                    .Must(address => WebAddress.Whole(address) is not null)
                    .WithMend("web-page");
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
            Links =
            [
                .. post.Links.Select(link => new PostLink(link.Title.Trim(), WebAddress.Whole(link.Address) ?? "")),
            ],
        };

    private static OwnWords? Tidy(OwnWords? own) =>
        own is null || (own.Subject.Trim().Length == 0 && own.Body.Trim().Length == 0)
            ? null
            : new OwnWords(own.Subject.Trim(), own.Body.Trim());

    /// <summary>Says what is wrong with words that hold tokens.</summary>
    internal static void CheckTokens<T>(string? words, ValidationContext<T> context)
    {
        if (string.IsNullOrEmpty(words))
            return;
        if (!OwnWordsParser.TryParse(words, out var template, out var error))
        {
            context.AddMend(Phrase.Of("own-words", ("fault", error)));
            return;
        }

        var reader = new TokenReader();
        reader.VisitTemplate(template);
        var unknown = reader.Names.Where(name => !PostWords.Tokens.ContainsKey(name)).Distinct().ToList();
        if (unknown.Count > 0)
            context.AddMend(Phrase.Of("tokens", ("tokens", unknown.Select(name => $"{{{{ {name} }}}}").ToArray())));
        else if (!PostTemplates.CanBeWritten(new OwnWords("", words)))
            context.AddMend("own-words-long");
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

/// <summary>Own words may have a subject alone, or a body alone; the other is ours then.</summary>
public sealed class OwnWordsRules : AbstractValidator<OwnWords>
{
    public OwnWordsRules()
    {
        RuleFor(own => own.Subject)
            .MaximumLength(300)
            .WithMend("mail-subject-length")
            .Custom(PagePostRules.CheckTokens);
        RuleFor(own => own.Body)
            .MaximumLength(8_000)
            .WithMend(Phrase.Of("too-long", ("most", 8000)))
            .Custom(PagePostRules.CheckTokens);
    }
}
