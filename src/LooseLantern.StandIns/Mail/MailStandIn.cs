using System.Buffers;
using System.Net;
using MimeKit;
using SmtpServer;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace LooseLantern.StandIns.Mail;

/// <summary>
/// A small mail server: SMTP in, and a mailbox to read for each person on the stand-ins' screen. Nothing leaves it.
/// </summary>
public sealed class MailStandIn : IAsyncDisposable
{
    private readonly CancellationTokenSource _stopping = new();
    private readonly Task _serving;

    private MailStandIn(MailStore store, int port)
    {
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add(new Storing(store));
        services.Add(new Letting());
        services.Add(new PromptListening());
        var server = new SmtpServer.SmtpServer(
            new SmtpServerOptionsBuilder()
                .ServerName("mail.stand-in.example")
                .Endpoint(
                    new EndpointDefinitionBuilder()
                        .Endpoint(new IPEndPoint(IPAddress.Loopback, port))
                        .AllowUnsecureAuthentication()
                        .Build()
                )
                .MaxMessageSize(MailStore.MostBytes)
                .Build(),
            services
        );
        _serving = server.StartAsync(_stopping.Token);
    }

    /// <param name="port">On loopback.</param>
    public static MailStandIn Start(MailStore store, int port) => new(store, port);

    public async ValueTask DisposeAsync()
    {
        await _stopping.CancelAsync();
        try
        {
            await _serving;
        }
        catch (OperationCanceledException)
        {
            // Stopped.
        }

        _stopping.Dispose();
    }

    private sealed class Storing(MailStore store) : MessageStore
    {
        public override async Task<SmtpResponse> SaveAsync(
            ISessionContext context,
            IMessageTransaction transaction,
            ReadOnlySequence<byte> buffer,
            CancellationToken cancellationToken
        )
        {
            using var stream = new MemoryStream(buffer.ToArray());
            var mail = await MimeMessage.LoadAsync(stream, cancellationToken);
            foreach (var to in transaction.To)
                store.Keep($"{to.User}@{to.Host}", mail);
            return SmtpResponse.Ok;
        }
    }

    /// <summary>Nobody at bounce.example can be reached, so that it can be tried what becomes of such mail.</summary>
    private sealed class Letting : MailboxFilter
    {
        public override Task<bool> CanDeliverToAsync(
            ISessionContext context,
            SmtpServer.Mail.IMailbox to,
            SmtpServer.Mail.IMailbox from,
            CancellationToken cancellationToken
        ) => Task.FromResult(!to.Host.Equals("bounce.example", StringComparison.OrdinalIgnoreCase));

        public override Task<bool> CanAcceptFromAsync(
            ISessionContext context,
            SmtpServer.Mail.IMailbox from,
            int size,
            CancellationToken cancellationToken
        ) => Task.FromResult(true);
    }
}
