using System.Security.Cryptography;
using System.Text;
using LooseLantern.Core;
using MimeKit;

namespace LooseLantern.Server.Features.Replies;

/// <summary>What is kept of a mail that came.</summary>
public static class ReceivedMail
{
    private const int MostText = 20_000;

    /// <summary>Its iCalendar part; null where it has none.</summary>
    public static string? CalendarOf(MimeMessage mail) =>
        mail.BodyParts.OfType<TextPart>().FirstOrDefault(part => part.ContentType.IsMimeType("text", "calendar"))?.Text;

    /// <summary>SHA-256 of what tells it from others: the same mail that comes twice is kept once.</summary>
    public static byte[] FingerprintOf(MimeMessage mail) =>
        SHA256.HashData(
            Encoding.UTF8.GetBytes(
                mail.MessageId ?? $"{mail.From}{mail.Date}{mail.Subject}{mail.TextBody}{CalendarOf(mail)}"
            )
        );

    /// <summary>Its words; of files that came along only their names.</summary>
    /// <param name="comment">Of its calendar part, which counts before its text; null for none.</param>
    public static string TextOf(MimeMessage mail, string? comment)
    {
        var text = (comment is { Length: > 0 } ? comment : mail.TextBody ?? "").ReplaceLineEndings("\n").Trim();
        var files = mail
            .Attachments.Select(part => part.ContentDisposition?.FileName ?? part.ContentType.Name ?? "without a name")
            .ToList();
        // Files go to people, not to us: what came along is named, so that it can be asked for.
        return files.Count == 0
            ? Short(text, MostText)
            : $"{Short(text, MostText)}\n\n({(files.Count == 1 ? "A file" : "Files")} came along and {(files.Count == 1 ? "was" : "were")} not kept: {Short(string.Join(", ", files), 500)})".Trim();
    }

    /// <summary>
    /// Nobody is woken by a machine's mail, and no two machines write to each other for ever (RFC 3834).
    /// </summary>
    public static bool IsAutomatic(MimeMessage mail) =>
        mail.Headers["Auto-Submitted"] is { } how && !how.Trim().Equals("no", StringComparison.OrdinalIgnoreCase);

    public static string Short(string text, int most) => CutText.At(CutText.Kept(text), most);
}
