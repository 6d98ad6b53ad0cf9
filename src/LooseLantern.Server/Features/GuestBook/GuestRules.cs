using FluentValidation;
using LooseLantern.Core;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>A guest as the team writes them down.</summary>
/// <param name="Emails">The first is the one that is written to; may be empty.</param>
/// <param name="Zone">IANA id; null where it is not known.</param>
/// <param name="Language">Language tag; null where it is not known.</param>
/// <param name="KeeperId">A person of the team; null for nobody.</param>
/// <param name="Fields">Texts by ids of the workspace's own fields; blank ones are left out.</param>
public sealed record GuestForm(
    string Name,
    IReadOnlyList<string> Emails,
    string Organisation,
    string Phone,
    string? Zone,
    string? Language,
    ClockForm? Clock,
    Guid? KeeperId,
    IReadOnlyDictionary<Guid, string> Fields
);

public sealed class GuestFormRules : AbstractValidator<GuestForm>
{
    public const int MostEmails = 10;

    public const int MostPhone = 40;

    public GuestFormRules()
    {
        RuleFor(form => form.Name).Must(Words.FitOneLine).WithMend("guest-name");
        RuleFor(form => form.Emails)
            .Must(emails => emails.Count <= MostEmails)
            .WithMend(Phrase.Of("guest-emails-too-many", ("most", MostEmails)))
            .Must(emails => emails.DistinctBy(email => GuestEmail.KeyOf(email ?? "")).Count() == emails.Count)
            .WithMend("guest-email-twice");
        RuleForEach(form => form.Emails).Must(email => EmailAddress.IsPlausible(email?.Trim())).WithMend("email");
        RuleFor(form => form.Organisation)
            .Must(text => text.Length == 0 || Words.FitOneLine(text))
            .WithMend("guest-organisation");
        RuleFor(form => form.Phone).Must(IsPhone).WithMend("guest-phone");
        RuleFor(form => form.Zone).Must(zone => zone is null || Zones.IsKnown(zone)).WithMend("zone-or-none");
        RuleFor(form => form.Language)
            .Must(language => language is null || MeEndpoints.Languages.Contains(language))
            .WithMend(Phrase.Of("languages", ("languages", MeEndpoints.Languages)));
        RuleFor(form => form.Clock).IsInEnum();
    }

    /// <summary>Whether it is a phone number as people write them, or nothing.</summary>
    public static bool IsPhone(string text) =>
        text.Trim().Length == 0
        || (
            text.Length <= MostPhone
            && text.Count(char.IsAsciiDigit) >= 3
            && text.All(c => char.IsAsciiLetterOrDigit(c) || " +-/.()#,;".Contains(c, StringComparison.Ordinal))
        );
}
