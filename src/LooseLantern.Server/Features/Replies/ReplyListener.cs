using System.Buffers;
using System.Net;
using System.Net.Sockets;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Post;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using Npgsql;
using SmtpServer;
using SmtpServer.Mail;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace LooseLantern.Server.Features.Replies;

/// <summary>
/// A small mail server (SMTP, RFC 5321) for answers alone: it takes what is for a booking's or a letter's own address
/// and refuses all else, so that nothing is lost silently and nobody can use it to send. Where mail can't be stored
/// just now the sender is asked to try again.
/// </summary>
public sealed partial class ReplyListener(
    PostSettings settings,
    IServiceScopeFactory scopes,
    ILogger<ReplyListener> logger
) : BackgroundService
{
    public const int MostBytes = 15 * 1024 * 1024;

    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(2);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (settings.RepliesPort is not { } port)
            return;
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add(new Taking(scopes, logger));
        services.Add(new Letting(scopes, settings.RepliesDomain));
        var server = new SmtpServer.SmtpServer(
            new SmtpServerOptionsBuilder()
                .ServerName(settings.RepliesDomain)
                .MaxMessageSize(MostBytes, MaxMessageSizeHandling.Strict)
                .Endpoint(
                    new EndpointDefinitionBuilder()
                        .Endpoint(new IPEndPoint(IPAddress.Parse(settings.RepliesAddress), port))
                        .Build()
                )
                .Build(),
            services
        );
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await server.StartAsync(stoppingToken);
            }
            catch (OperationCanceledException)
            {
                return;
            }
            catch (SocketException e)
            {
                // Another server of ours may have the port for a moment still.
                NotListening(logger, port, e);
                await Task.Delay(Pause, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    [LoggerMessage(LogLevel.Error, "Answers can’t be listened for on port {Port}; it is tried again.")]
    private static partial void NotListening(ILogger logger, int port, Exception exception);

    [LoggerMessage(LogLevel.Error, "A reply could not be taken; its sender is asked to try again.")]
    private static partial void NotTaken(ILogger logger, Exception exception);

    private sealed class Taking(IServiceScopeFactory scopes, ILogger logger) : MessageStore
    {
        public override async Task<SmtpResponse> SaveAsync(
            ISessionContext context,
            IMessageTransaction transaction,
            ReadOnlySequence<byte> buffer,
            CancellationToken cancellationToken
        )
        {
            if (buffer.Length > MostBytes)
                return SmtpResponse.SizeLimitExceeded;
            MimeMessage mail;
            try
            {
                using var stream = new MemoryStream(buffer.ToArray());
                mail = await MimeMessage.LoadAsync(stream, cancellationToken);
            }
            catch (FormatException)
            {
                return new SmtpResponse(SmtpReplyCode.TransactionFailed, "this can't be read as a mail");
            }

            try
            {
                foreach (var to in transaction.To)
                    await TakeAsync(to.User, mail, cancellationToken);

                return SmtpResponse.Ok;
            }
            catch (TooManyRepliesException)
            {
                // RFC 5321 section 4.2.2: for now there is no room; the sender's server keeps it and asks again.
                return new SmtpResponse(
                    SmtpReplyCode.InsufficientStorage,
                    "too many mails in this hour, try again later"
                );
            }
            catch (Exception e) when (e is NpgsqlException or DbUpdateException or InvalidOperationException)
            {
                NotTaken(logger, e);
                return new SmtpResponse(SmtpReplyCode.Aborted, "not just now, try again");
            }
        }

        private async Task TakeAsync(string user, MimeMessage mail, CancellationToken ct)
        {
            await using var scope = scopes.CreateAsyncScope();
            var services = scope.ServiceProvider;
            var db = services.GetRequiredService<LanternDb>();
            if (await LetterAnswers.FindAsync(db, user, ct) is { } letter)
                await services.GetRequiredService<LetterAnswers>().TakeAsync(letter, mail, ct);
            else if (
                await ReplyTaking.FindAsync(db, services.GetRequiredService<ReplyAddresses>(), user, ct) is { } found
            )
                await services.GetRequiredService<ReplyTaking>().TakeAsync(found, mail, ct);
        }
    }

    private sealed class Letting(IServiceScopeFactory scopes, string domain) : MailboxFilter
    {
        public override Task<bool> CanAcceptFromAsync(
            ISessionContext context,
            IMailbox from,
            int size,
            CancellationToken cancellationToken
        ) => Task.FromResult(size <= MostBytes);

        public override async Task<bool> CanDeliverToAsync(
            ISessionContext context,
            IMailbox to,
            IMailbox from,
            CancellationToken cancellationToken
        )
        {
            if (!to.Host.Equals(domain, StringComparison.OrdinalIgnoreCase))
                return false;
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
            var addresses = scope.ServiceProvider.GetRequiredService<ReplyAddresses>();
            return await LetterAnswers.FindAsync(db, to.User, cancellationToken) is not null
                || await ReplyTaking.FindAsync(db, addresses, to.User, cancellationToken) is not null;
        }
    }
}
