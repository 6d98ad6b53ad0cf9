using System.Net.Mail;

namespace LooseLantern.Core;

/// <summary>
/// Whether a text can be a mailbox to write to: one bare address with a domain that has a dot, at most 254 characters
/// (RFC 5321).
/// </summary>
public static class EmailAddress
{
    public static bool IsPlausible(string? text)
    {
        if (text is null || text.Length is < 6 or > 254 || text.Any(c => char.IsWhiteSpace(c) || char.IsControl(c)))
            return false;
        // A display name, a list or a comment would be something else than what was typed.
        if (!MailAddress.TryCreate(text, out var address) || address.Address != text)
            return false;
        var domain = address.Host;
        return address.User.Length is > 0 and <= 64
            && !address.User.StartsWith('"')
            && domain.Contains('.', StringComparison.Ordinal)
            && domain
                .Split('.')
                .All(label =>
                    label.Length is > 0 and <= 63 && label[0] != '-' && label[^1] != '-' && label.All(IsOfDomain)
                );
    }

    private static bool IsOfDomain(char c) => char.IsLetterOrDigit(c) || c == '-';
}
