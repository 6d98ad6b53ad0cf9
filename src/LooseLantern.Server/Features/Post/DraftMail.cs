using LooseLantern.Server.Data.Model;
using MimeKit;

namespace LooseLantern.Server.Features.Post;

/// <summary>Mail that somebody sends from their own mail program.</summary>
public static class DraftMail
{
    /// <summary>A message (RFC 5322) with text and HTML that mail programs open as a draft.</summary>
    /// <param name="to">Those without an email are left out.</param>
    public static async Task<byte[]> WriteAsync(WrittenMail mail, IEnumerable<LinkGuest> to, CancellationToken ct)
    {
        var message = new MimeMessage { Subject = mail.Subject };
        message.To.AddRange(
            to.Where(guest => guest.Email.Length > 0).Select(guest => new MailboxAddress(guest.Name, guest.Email))
        );
        // By this programs tell a draft from a message that was received; it is as common as it is unwritten.
        message.Headers.Add("X-Unsent", "1");
        message.Body = new MultipartAlternative
        {
            new TextPart("plain") { Text = mail.Text },
            new TextPart("html") { Text = mail.Html },
        };
        using var stream = new MemoryStream();
        await message.WriteToAsync(stream, ct);
        return stream.ToArray();
    }
}
