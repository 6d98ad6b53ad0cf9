using System.Net.Sockets;
using System.Text;
using LooseLantern.Core;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;

namespace LooseLantern.Server.Features.Post;

/// <summary>The mail server that the operator set, spoken to by SMTP (RFC 5321).</summary>
public sealed class MailServer(PostSettings settings, MailReach reach)
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    /// <summary>Somebody to write to, with the domain in ASCII (RFC 5890), which every server takes.</summary>
    public static MailboxAddress Mailbox(string name, string email) =>
        new(name, EmailAddress.Read(email)?.ToString() ?? email);

    /// <summary>Hands it one mail.</summary>
    /// <exception cref="NotSupportedException">An address needs SMTPUTF8, which the server does not know.</exception>
    public async Task SendAsync(MimeMessage mail, CancellationToken ct)
    {
        using var client = await OpenAsync(ct);
        var options = FormatOptions.Default.Clone();
        options.International = mail.To.Mailboxes.Any(to => !Ascii.IsValid(to.LocalPart));
        // A server that knows it would be sent every domain in Unicode; not all behind it can read that.
        if (!options.International)
            client.Capabilities &= ~SmtpCapabilities.UTF8;
        await client.SendAsync(options, mail, ct);
        await CloseAsync(client, ct);
    }

    /// <summary>Greets it, and learns whom it can write to.</summary>
    public async Task GreetAsync(CancellationToken ct)
    {
        using var client = await OpenAsync(ct);
        await CloseAsync(client, ct);
    }

    private async Task<SmtpClient> OpenAsync(CancellationToken ct)
    {
        var client = new SmtpClient { Timeout = (int)Patience.TotalMilliseconds };
        try
        {
            await client.ConnectAsync(
                await ReachAsync(ct),
                settings.Host!,
                settings.Port,
                settings.Tls ? SecureSocketOptions.StartTls : SecureSocketOptions.None,
                ct
            );
            if (settings.UserName is { } name)
                await client.AuthenticateAsync(name, settings.Password ?? "", ct);
            reach.Learn(client.Capabilities.HasFlag(SmtpCapabilities.UTF8));
            return client;
        }
        catch (Exception e) when (e is NotSupportedException or InvalidOperationException)
        {
            // It offers no TLS or no sign-in, say: that is for the operator to mend, and no fault of any mail.
            client.Dispose();
            throw new IOException(e.Message, e);
        }
        catch
        {
            client.Dispose();
            throw;
        }
    }

    /// <summary>
    /// A mail goes out in several writes, each of which would wait for word of the one before: a tenth of a second for
    /// a mail, on a line that takes none.
    /// </summary>
    private async Task<Socket> ReachAsync(CancellationToken ct)
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(ct);
        patience.CancelAfter(Patience);
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(settings.Host!, settings.Port, patience.Token);
            return socket;
        }
        catch (OperationCanceledException) when (!ct.IsCancellationRequested)
        {
            socket.Dispose();
            throw new TimeoutException("It can’t be reached.");
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    private static async Task CloseAsync(SmtpClient client, CancellationToken ct)
    {
        try
        {
            await client.DisconnectAsync(quit: true, ct);
        }
        catch (Exception e) when (e is IOException or SocketException or ProtocolException)
        {
            // It was taken already; how the server says goodbye does not matter.
        }
    }
}
