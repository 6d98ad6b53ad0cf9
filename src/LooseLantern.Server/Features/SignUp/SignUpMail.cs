using LooseLantern.Core.TimeText;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;

namespace LooseLantern.Server.Features.SignUp;

/// <summary>Sends the mails of sign-up links: they are of no workspace, so they are no messages.</summary>
public sealed class SignUpMail(
    LanternDb db,
    MailServer server,
    PostSettings settings,
    PostWords words,
    PrivateLinks links,
    IClock clock
)
{
    public static readonly DueKind Sends = new(
        TimeSpan.FromMilliseconds(500),
        Duration.FromMinutes(3),
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE sign_up_links SET sending_until = {until}
                    WHERE id IN (
                        SELECT id FROM sign_up_links WHERE due_at <= {now} AND (sending_until IS NULL OR sending_until <= {now})
                        ORDER BY due_at, id LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING id, '00000000-0000-0000-0000-000000000000'::uuid AS workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<SignUpMail>().SendAsync(id, ct)
    );

    private static readonly Duration MostBackOff = Duration.FromMinutes(10);

    public async Task SendAsync(Guid id, CancellationToken ct)
    {
        if (await db.SignUpLinks.FirstOrDefaultAsync(row => row.Id == id && row.DueAt != null, ct) is not { } link)
            return;
        link.Attempts++;
        try
        {
            await server.SendAsync(MailOf(link), ct);
            (link.DueAt, link.Fault) = (null, null);
        }
        catch (Exception e) when (PostFaults.IsOfServer(e) && !ct.IsCancellationRequested)
        {
            var next = clock.GetCurrentInstant() + BackOff.After(link.Attempts, MostBackOff);
            // Who never got it asks for another.
            (link.DueAt, link.Fault) = (next < link.ExpiresAt ? next : null, PostFaults.Short(e.Message));
        }
        catch (Exception e) when (PostFaults.IsOfMessage(e) && !ct.IsCancellationRequested)
        {
            (link.DueAt, link.Fault) = (null, PostFaults.Short(e.Message));
        }

        link.SendingUntil = null;
        await db.SaveChangesAsync(ct);
    }

    private MimeMessage MailOf(SignUpLink link)
    {
        var reader = new Reader(link.Email, link.Email, link.Language, Clock.Usual, "Etc/UTC");
        var written = PostTemplates.Write(
            link.IsKnown ? MessageKind.SignUpKnown : MessageKind.SignUp,
            link.Language,
            new Dictionary<string, string>
            {
                ["deadline"] = words.Deadline(link.ExpiresAt, reader),
                ["link"] = words.Link(link.IsKnown ? "/sign-in" : $"/start/{links.Reveal(link.ProtectedSecret)}"),
                ["reset_link"] = words.Link("/forgot"),
            }
        );
        var mail = new MimeMessage
        {
            Subject = written.Subject,
            MessageId = $"{link.Id:N}@loose-lantern.example",
            Date = link.MadeAt.ToDateTimeOffset(),
            Body = new MultipartAlternative
            {
                new TextPart("plain") { Text = written.Text },
                new TextPart("html") { Text = written.Html },
            },
        };
        mail.From.Add(new MailboxAddress("Loose Lantern", settings.From));
        mail.To.Add(MailServer.Mailbox("", link.Email));
        mail.Headers.Add("Auto-Submitted", "auto-generated");
        return mail;
    }
}
