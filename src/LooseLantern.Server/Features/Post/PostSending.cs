using System.Text;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Jobs;
using MailKit.Net.Smtp;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Sends one message by SMTP, and notes how that went. A server that fails is asked again later; the Message-ID stays
/// the same, so that a receiver can tell a repeat.
/// </summary>
public sealed class PostSending(
    LanternDb db,
    PostSettings settings,
    MailServer server,
    LettingOut lettingOut,
    InsertsInPost values,
    IClock clock
)
{
    /// <summary>After so many tries, which take about two days, a message counts as failed.</summary>
    public const int MostAttempts = 30;

    private static readonly Duration MostBackOff = Duration.FromHours(2);

    public async Task SendAsync(Guid id, CancellationToken ct)
    {
        var message = await db.Messages.FirstOrDefaultAsync(row => row.Id == id && row.State == MessageState.Due, ct);
        if (message is null)
            return;
        if (await IsTooLateAsync(message, ct))
        {
            await db.Messages.Where(row => row.Id == id).ExecuteDeleteAsync(ct);
            return;
        }

        if (!await lettingOut.LetsOutAsync(message, ct))
            return;
        message.Attempts++;
        try
        {
            await server.SendAsync(await MailOfAsync(message, ct), ct);
            (message.State, message.SentAt, message.Fault) = (MessageState.Sent, clock.GetCurrentInstant(), null);
        }
        catch (SmtpCommandException e)
            when ((int)e.StatusCode >= 500
                && e.ErrorCode is SmtpErrorCode.RecipientNotAccepted or SmtpErrorCode.MessageNotAccepted
            )
        {
            // The server will not take it, however often it is asked.
            (message.State, message.Fault) = (
                MessageState.Failed,
                PostFaults.Short($"The mail server refuses it: {e.Message}")
            );
        }
        catch (Exception e) when (PostFaults.IsOfServer(e) && !ct.IsCancellationRequested)
        {
            message.Fault = PostFaults.Short($"The mail server can’t be used: {e.Message}");
            message.DueAt = clock.GetCurrentInstant() + BackOff.After(message.Attempts, MostBackOff);
            if (message.Attempts >= MostAttempts)
                message.State = MessageState.Failed;
        }
        catch (Exception e) when (PostFaults.IsOfMessage(e) && !ct.IsCancellationRequested)
        {
            // Whatever it is will be the same the next time.
            PostFaults.Fail(message, e);
        }

        message.SendingUntil = null;
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            // A reminder that its booking dropped at this very moment: there is nothing to note any more.
        }
    }

    /// <summary>
    /// Nobody is asked again for what they booked meanwhile: by the link, or on the page that a mailing offered them.
    /// </summary>
    private async Task<bool> IsTooLateAsync(Message message, CancellationToken ct)
    {
        if (message.Kind != MessageKind.LinkAgainForGuest)
            return false;
        var now = clock.GetCurrentInstant();
        if (message.LinkId is { } link)
            return !await db.Links.AnyAsync(row => row.Id == link && row.TakesMore && row.EndsAt > now, ct);
        return await db
            .Database.SqlQuery<int>(
                $"""
                SELECT 1 AS "Value" FROM messages first JOIN mailings m ON m.id = first.mailing_id
                    JOIN guest_emails e ON e.workspace_id = m.workspace_id AND e.key = lower(btrim(first.to_email))
                    JOIN bookings b ON e.guest_id IN (b.guest_id, b.booker_id) JOIN sessions s ON s.id = b.session_id
                WHERE first.id = {message.AgainOf} AND s.page_id = m.page_id AND b.cancelled_at IS NULL AND b.booked_at >= m.sent_at
                """
            )
            .AnyAsync(ct);
    }

    private async Task<MimeMessage> MailOfAsync(Message message, CancellationToken ct)
    {
        var inserts = await values.OfAsync(message, ct);
        string PutIn(string text) => PostInserts.PutIn(text, inserts);
        var mail = new MimeMessage
        {
            Subject = message.Subject,
            MessageId = message.MessageId,
            Date = message.WrittenAt.ToDateTimeOffset(),
        };
        mail.From.Add(new MailboxAddress(message.FromName, settings.From));
        mail.To.Add(MailServer.Mailbox(message.ToName, message.ToEmail));
        // Whoever answers a mail about a booking writes to the booking.
        if (inserts.Reply.Length > 0)
            mail.ReplyTo.Add(new MailboxAddress(message.FromName, inserts.Reply));
        // Nobody's holiday notice is wanted in return (RFC 3834 section 5).
        mail.Headers.Add("Auto-Submitted", "auto-generated");
        var alternatives = new MultipartAlternative
        {
            new TextPart("plain") { Text = PutIn(message.Text) },
            new TextPart("html") { Text = PutIn(message.Html) },
        };
        if (message.Calendar is { } calendar)
        {
            // RFC 6047 section 2.4: the method of the part is that of the object within.
            var part = new TextPart("calendar") { Text = Folding.Fold(PutIn(calendar)) };
            part.ContentType.Parameters.Add("method", message.CalendarMethod!);
            alternatives.Add(part);
        }

        var files = await db
            .PageFiles.AsNoTracking()
            .Where(file => message.FileIds.Contains(file.Id))
            .OrderBy(file => file.Name)
            .ToListAsync(ct);
        if (files.Count == 0 && message.MoreCalendars.Length == 0)
        {
            mail.Body = alternatives;
            return mail;
        }

        var mixed = new Multipart("mixed") { alternatives };
        foreach (var file in files)
        {
            mixed.Add(
                new MimePart(file.MediaType)
                {
                    Content = new MimeContent(new MemoryStream(file.Bytes)),
                    ContentDisposition = new ContentDisposition(ContentDisposition.Attachment),
                    ContentTransferEncoding = ContentEncoding.Base64,
                    FileName = file.Name,
                }
            );
        }

        foreach (var (more, at) in message.MoreCalendars.Select((more, at) => (more, at)))
        {
            var part = new MimePart("text", "calendar")
            {
                Content = new MimeContent(new MemoryStream(Encoding.UTF8.GetBytes(Folding.Fold(PutIn(more))))),
                ContentDisposition = new ContentDisposition(ContentDisposition.Attachment),
                ContentTransferEncoding = ContentEncoding.Base64,
                FileName = $"appointment-{at + 2}.ics",
            };
            part.ContentType.Charset = "utf-8";
            mixed.Add(part);
        }

        mail.Body = mixed;
        return mail;
    }
}
