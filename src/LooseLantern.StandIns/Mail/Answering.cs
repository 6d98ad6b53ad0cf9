using System.Globalization;
using Ical.Net;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;

namespace LooseLantern.StandIns.Mail;

/// <summary>Where mail of a domain goes from here.</summary>
internal sealed record AnswerRoute(string Domain, string Host, int Port)
{
    /// <param name="text">Such as replies.example=127.0.0.1:4826.</param>
    public static AnswerRoute? Of(string? text)
    {
        if (string.IsNullOrEmpty(text))
            return null;
        var (domain, rest) = (
            text[..text.IndexOf('=', StringComparison.Ordinal)],
            text[(text.IndexOf('=', StringComparison.Ordinal) + 1)..]
        );
        var colon = rest.LastIndexOf(':');
        return new AnswerRoute(domain, rest[..colon], int.Parse(rest[(colon + 1)..], CultureInfo.InvariantCulture));
    }
}

/// <summary>
/// Answers an invitation as a calendar program would: an iTIP REPLY or COUNTER (RFC 5546) in an iMIP mail (RFC 6047) to
/// its ORGANIZER, made from nothing but the invitation.
/// </summary>
internal static class Answering
{
    /// <param name="answer">accepted, tentative, declined or counter.</param>
    /// <param name="start">The other time asked for, UTC.</param>
    public static MimeMessage Write(StoredMail invitation, string who, string answer, DateTime? start, string comment)
    {
        var invited = CalendarCollection.Load(invitation.Calendar!)![0]!.Events[0]!;
        var organizer = invited.Organizer!.Value!.OriginalString["mailto:".Length..];
        var isCounter = answer == "counter";
        var me = invited.Attendees!.First(attendee =>
            attendee.Value!.OriginalString.EndsWith(who, StringComparison.OrdinalIgnoreCase)
        );
        me.ParticipationStatus = isCounter ? "TENTATIVE" : answer.ToUpperInvariant();
        me.Rsvp = false;
        invited.Attendees.Clear();
        invited.Attendees.Add(me);
        invited.Alarms.Clear();
        if (comment.Length > 0)
            invited.Comments.Add(comment);
        if (isCounter && start is { } other)
        {
            var length = invited.DtEnd!.AsUtc - invited.DtStart!.AsUtc;
            invited.DtStart = new CalDateTime(DateTime.SpecifyKind(other, DateTimeKind.Utc), hasTime: true);
            invited.DtEnd = new CalDateTime(DateTime.SpecifyKind(other + length, DateTimeKind.Utc), hasTime: true);
        }

        var method = isCounter ? "COUNTER" : "REPLY";
        var calendar = new Ical.Net.Calendar
        {
            ProductId = "-//Mail stand-in//EN",
            Version = "2.0",
            Method = method,
        };
        calendar.Events.Add(invited);
        var mail = new MimeMessage { Subject = $"{answer}: {invited.Summary}" };
        mail.From.Add(new MailboxAddress(me.CommonName ?? "", who));
        mail.To.Add(MailboxAddress.Parse(organizer));
        var part = new TextPart("calendar") { Text = new CalendarSerializer().SerializeToString(calendar)! };
        part.ContentType.Parameters.Add("method", method);
        mail.Body = new MultipartAlternative
        {
            new TextPart("plain") { Text = comment.Length > 0 ? comment : $"{who}: {answer}" },
            part,
        };
        return mail;
    }

    /// <summary>An answer in words, to whoever answers are asked to.</summary>
    public static MimeMessage WriteWords(StoredMail mail, string who, string text)
    {
        var answer = new MimeMessage
        {
            Subject = $"Re: {mail.Subject}",
            Body = new TextPart("plain") { Text = text },
        };
        answer.From.Add(MailboxAddress.Parse(who));
        answer.To.Add(MailboxAddress.Parse(mail.AnswersTo));
        return answer;
    }

    public static async Task SendAsync(MimeMessage mail, AnswerRoute route, CancellationToken ct)
    {
        using var client = new SmtpClient();
        await client.ConnectAsync(route.Host, route.Port, SecureSocketOptions.None, ct);
        await client.SendAsync(mail, ct);
        await client.DisconnectAsync(quit: true, ct);
    }
}
