using System.Globalization;
using System.Text;

namespace LooseLantern.Core;

/// <summary>
/// One mailbox to write to, as it was typed: a bare address with a domain that has a dot (RFC 5321, RFC 6531). Quoted
/// local parts, comments, display names and addresses of machines ([192.0.2.1]) are none.
/// </summary>
/// <param name="Local">What stands before the @, as it was typed: whether capitals matter there is its server's to
/// say.</param>
/// <param name="Domain">In ASCII (IDNA, RFC 3490) and small letters, as it goes over the wire.</param>
public sealed record EmailAddress(string Local, string Domain)
{
    /// <summary>The most characters of a whole address, in ASCII (RFC 5321 section 4.5.3.1.3, without the angle
    /// brackets).</summary>
    public const int Most = 254;

    private const int MostLocal = 64;

    private static readonly IdnMapping Idna = new() { UseStd3AsciiRules = true };

    /// <summary>
    /// Whether it can be mailed only through a server that knows SMTPUTF8 (RFC 6531): the part before the @ has more
    /// than ASCII. A domain never needs that, since it has a form in ASCII.
    /// </summary>
    public bool NeedsUtf8 => !Ascii.IsValid(Local);

    /// <summary>How it goes over the wire.</summary>
    public override string ToString() => $"{Local}@{Domain}";

    /// <summary>The same for every way to write one mailbox, for counting and comparing.</summary>
    public string Key => ToString().ToLowerInvariant();

    /// <returns>Null for what is no address that could be mailed.</returns>
    public static EmailAddress? Read(string? text)
    {
        if (text is null || text.Length is < 6 or > Most || text.LastIndexOf('@') is not (> 0 and var at))
            return null;
        var local = text[..at];
        if (
            Encoding.UTF8.GetByteCount(local) > MostLocal
            || !IsDotAtom(local)
            || DomainOf(text[(at + 1)..]) is not { } domain
        )
            return null;
        return local.Length + 1 + domain.Length > Most ? null : new EmailAddress(local, domain);
    }

    public static bool IsPlausible(string? text) => Read(text) is not null;

    /// <summary>
    /// The same for every way to write the mailbox; of what is no address, the text in small letters.
    /// </summary>
    public static string KeyOf(string text) => Read(text.Trim())?.Key ?? text.Trim().ToLowerInvariant();

    public static bool AreSame(string one, string other) => KeyOf(one) == KeyOf(other);

    /// <summary>
    /// Words of letters, digits and some marks with single dots between them (RFC 5322 section 3.2.3).
    /// </summary>
    private static bool IsDotAtom(string local) =>
        local.IsNormalized() && local.Split('.').All(word => word.Length > 0 && word.EnumerateRunes().All(IsAtomText));

    private static bool IsAtomText(Rune rune) =>
        rune.IsAscii
            ? char.IsAsciiLetterOrDigit((char)rune.Value)
                || "!#$%&'*+-/=?^_`{|}~".Contains((char)rune.Value, StringComparison.Ordinal)
            : Rune.IsLetterOrDigit(rune)
                || Rune.GetUnicodeCategory(rune)
                    is UnicodeCategory.NonSpacingMark
                        or UnicodeCategory.SpacingCombiningMark;

    private static string? DomainOf(string text)
    {
        // Other signs that stand for a dot somewhere are no way to write an address.
        if (
            text.StartsWith('.')
            || text.EndsWith('.')
            || !text.All(c =>
                c is '-' or '.'
                || char.IsLetterOrDigit(c)
                || char.IsSurrogate(c)
                || CharUnicodeInfo.GetUnicodeCategory(c)
                    is UnicodeCategory.NonSpacingMark
                        or UnicodeCategory.SpacingCombiningMark
            )
        )
            return null;
        try
        {
            var domain = Idna.GetAscii(text).ToLowerInvariant();
            return domain.LastIndexOf('.') is > 0 and var dot && !domain[(dot + 1)..].All(char.IsAsciiDigit)
                ? domain
                : null;
        }
        catch (ArgumentException)
        {
            return null;
        }
    }
}
