using MimeKit;

namespace LooseLantern.StandIns.Mail;

/// <summary>A mail in somebody's box.</summary>
/// <param name="AnswersTo">The address that an answer goes to.</param>
/// <param name="Files">Names of what is attached.</param>
/// <param name="Calendar">Its iCalendar part, and the method of that; null for a mail without.</param>
public sealed record StoredMail(
    string Id,
    string MessageId,
    string From,
    string To,
    string Subject,
    DateTimeOffset At,
    string Text,
    string? Calendar,
    string? Method,
    string AnswersTo,
    IReadOnlyList<string> Files,
    string Html = ""
);

/// <summary>
/// Mailboxes by address, each mail a file in a folder. A mail that comes twice by its Message-ID is kept once.
/// </summary>
public sealed class MailStore
{
    public const int MostBytes = 15 * 1024 * 1024;

    private readonly string _folder;
    private readonly Lock _lock = new();

    public MailStore(string folder)
    {
        _folder = Path.GetFullPath(folder);
        Directory.CreateDirectory(_folder);
    }

    public IReadOnlyList<string> Boxes()
    {
        lock (_lock)
            return
            [
                .. Directory.GetDirectories(_folder).Select(box => Path.GetFileName(box)).Order(StringComparer.Ordinal),
            ];
    }

    /// <summary>The mails of a box, the latest first.</summary>
    public IReadOnlyList<StoredMail> Mails(string box)
    {
        lock (_lock)
        {
            var folder = FolderOf(box);
            return Directory.Exists(folder)
                ? [.. Directory.GetFiles(folder, "*.eml").OrderDescending(StringComparer.Ordinal).Select(Read)]
                : [];
        }
    }

    public void Keep(string address, MimeMessage mail)
    {
        lock (_lock)
        {
            var folder = FolderOf(address);
            Directory.CreateDirectory(folder);
            var name = Safe(mail.MessageId ?? Guid.NewGuid().ToString("N"));
            if (Directory.GetFiles(folder, $"*-{name}.eml").Length > 0)
                return;
            mail.WriteTo(Path.Combine(folder, $"{DateTimeOffset.UtcNow.UtcTicks:D19}-{name}.eml"));
        }
    }

    private static StoredMail Read(string file)
    {
        var mail = MimeMessage.Load(file);
        var calendar = mail
            .BodyParts.OfType<TextPart>()
            .FirstOrDefault(part => part.ContentType.IsMimeType("text", "calendar"));
        return new StoredMail(
            Path.GetFileNameWithoutExtension(file),
            mail.MessageId ?? "",
            mail.From.ToString(),
            mail.To.ToString(),
            mail.Subject ?? "",
            mail.Date,
            mail.TextBody ?? "",
            calendar?.Text,
            calendar?.ContentType.Parameters["method"],
            (mail.ReplyTo.Mailboxes.FirstOrDefault() ?? mail.From.Mailboxes.FirstOrDefault())?.Address ?? "",
            [.. mail.Attachments.Select(part => part.ContentDisposition?.FileName ?? part.ContentType.Name ?? "")],
            mail.HtmlBody ?? ""
        );
    }

    private string FolderOf(string address) => Path.Combine(_folder, Safe(address.ToLowerInvariant()));

    /// <summary>Addresses and ids go into paths.</summary>
    private static string Safe(string name)
    {
        var safe = new string([
            .. name.Where(letter => char.IsAsciiLetterOrDigit(letter) || letter is '.' or '-' or '_' or '@').Take(150),
        ]);
        return safe.Length > 0 && safe[0] != '.' ? safe : "unnamed";
    }
}
