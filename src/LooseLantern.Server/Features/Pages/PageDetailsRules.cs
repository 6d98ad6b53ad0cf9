using FluentValidation;
using LooseLantern.Core;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Pages;

/// <summary>What a page may say of itself.</summary>
public sealed class PageDetailsRules : AbstractValidator<PageDetails>
{
    public const int MostWords = 2000;
    private const int MostInvited = 20;

    public PageDetailsRules()
    {
        RuleFor(details => details.Naming.Name)
            .NotNull()
            .Must(name => name.Length == 0 || Words.FitOneLine(name))
            .WithMend("page-name");
        RuleFor(details => details.Naming.Kind).NotNull();
        RuleFor(details => details.Naming.Mark)
            .Must(mark => string.IsNullOrEmpty(mark) || (mark.Length == 2 && mark.All(char.IsLetter)))
            .WithMend("page-mark");
        RuleFor(details => details.Face.Language)
            .Must(language => language == "" || MeEndpoints.Languages.Contains(language))
            .WithMend("language-or-readers");
        RuleFor(details => details.Face.Accent)
            .Must(accent => accent == "" || Accents.IsLegible(accent))
            .WithMend(Accents.Mend);
        RuleFor(details => details.Place.Directions)
            .NotNull()
            .MaximumLength(MostWords)
            .WithMend(Phrase.Of("too-long", ("most", MostWords)))
            .Must(Markdown.CanBeShown)
            .WithMend("markdown");
        RuleFor(details => details.After.Words)
            .NotNull()
            .MaximumLength(MostWords)
            .WithMend(Phrase.Of("too-long", ("most", MostWords)))
            .Must(Markdown.CanBeShown)
            .WithMend("markdown");
        RuleFor(details => details.After.GoTo)
            .Must(address => address == "" || IsHttps(address))
            .WithMend("https-or-none");
        RuleFor(details => details.AlsoInvited)
            .Must(list => list is not null && list.Count <= MostInvited && list.All(one => one is not null))
            .WithMend(Phrase.Of("invited", ("most", MostInvited)));
        RuleForEach(details => details.AlsoInvited)
            .ChildRules(one =>
            {
                one.RuleFor(row => row.Name)
                    .NotNull()
                    .Must(name => name.Length == 0 || Words.FitOneLine(name))
                    .WithMend("name-or-none");
                one.RuleFor(row => row.Email).Must(email => EmailAddress.IsPlausible(email?.Trim())).WithMend("email");
            })
            .When(details => details.AlsoInvited?.All(one => one is not null) == true);
        RuleFor(details => details.AlsoInvited)
            .Must(list => list.Select(one => one.Email?.Trim().ToLowerInvariant()).Distinct().Count() == list.Count)
            .When(details => details.AlsoInvited?.All(one => one is not null) == true)
            .WithMend("email-twice");
        RuleFor(details => details.Screening).NotNull();
        RuleFor(details => details.MostOpen).InclusiveBetween(1, 100).WithMend("open-bookings");
    }

    public static bool IsHttps(string? address) =>
        WebAddress.Whole(address) is { } whole && new Uri(whole) is { Scheme: "https", UserInfo: "" };

    /// <summary>As it is kept.</summary>
    public static PageDetails Tidy(PageDetails details) =>
        details with
        {
            Naming = details.Naming with
            {
                Name = details.Naming.Name.Trim(),
                Mark = string.IsNullOrEmpty(details.Naming.Mark) ? null : details.Naming.Mark,
            },
            Place = details.Place with { Directions = details.Place.Directions.Trim() },
            After = details.After with
            {
                Words = details.After.Words.Trim(),
                GoTo = WebAddress.Whole(details.After.GoTo) ?? "",
            },
            AlsoInvited = [.. details.AlsoInvited.Select(one => new InvitedAlong(one.Name.Trim(), one.Email.Trim()))],
            Screening =
            [
                .. details.Screening.Select(rule =>
                    rule with
                    {
                        Words = rule.Words.Trim(),
                        Address = rule.Then == ScreenAct.GoElsewhere ? WebAddress.Whole(rule.Address) ?? "" : "",
                    }
                ),
            ],
        };
}

/// <summary>The sentences of a page's screening, which ask its own questions.</summary>
internal static class ScreeningRules
{
    private const int MostRules = 20;
    private const int MostConditions = 10;
    private const int MostWords = 1000;

    public static void Check(PageForm form, ValidationContext<PageForm> context)
    {
        var rules = form.Details!.Screening;
        void Fault(string field, Phrase mend) => context.AddMend($"details.screening{field}", mend);
        if (rules.Count > MostRules || rules.Any(rule => rule?.If is null))
            Fault("", Phrase.Of("sentences", ("most", MostRules)));
        else
        {
            for (var i = 0; i < rules.Count; i++)
                CheckRule(
                    rules[i],
                    (form.Questions ?? [])
                        .Where(question => question is not null)
                        .DistinctBy(question => question.Key)
                        .ToDictionary(question => question.Key ?? ""),
                    (field, mend) => Fault($"[{i}]{field}", mend)
                );
        }
    }

    private static void CheckRule(
        ScreeningRule rule,
        Dictionary<string, Question> questions,
        Action<string, Phrase> fault
    )
    {
        if (rule.If.Count is 0 or > MostConditions || rule.If.Any(condition => condition is null))
            fault(".if", Phrase.Of("conditions", ("most", MostConditions)));
        else
        {
            for (var i = 0; i < rule.If.Count; i++)
            {
                var condition = rule.If[i] with { Value = rule.If[i].Value ?? "" };
                if (Screening.FaultOf(questions.GetValueOrDefault(condition.Key ?? ""), condition) is { } unfit)
                    fault($".if[{i}]", QuestionPhrases.Of(unfit));
            }
        }

        if (!Enum.IsDefined(rule.Then))
            fault(".then", "screening-act");
        // A screened guest always reads something: never a dead end.
        if (string.IsNullOrWhiteSpace(rule.Words) || rule.Words.Length > MostWords)
            fault(".words", Phrase.Of(rule.Then == ScreenAct.Flag ? "team-reads" : "guest-reads", ("most", MostWords)));
        if (rule.Then == ScreenAct.GoElsewhere && !(PageDetailsRules.IsHttps(rule.Address) || IsPath(rule.Address)))
            fault(".address", "screening-address");
    }

    private static bool IsPath(string? path) =>
        path?.Split('/') is ["", var desk, var page] && Address.IsWellFormed(desk) && Address.IsWellFormed(page);
}

/// <summary>How far a page may offer.</summary>
public sealed class PageWindowRules : AbstractValidator<PageWindow>
{
    private static readonly LocalDate First = new(2000, 1, 1);
    private static readonly LocalDate Last = new(2199, 12, 31);

    public PageWindowRules()
    {
        RuleFor(window => window.Kind).IsInEnum();
        When(
            window => window.Kind == WindowKind.Dates,
            () =>
            {
                RuleFor(window => window.From).Must(date => date >= First && date <= Last).WithMend("first-date");
                RuleFor(window => window.To)
                    .Must((window, date) => date >= (window.From ?? First) && date <= Last)
                    .WithMend("last-date");
            }
        );
    }
}
