using System.IO.Pipelines;
using System.Net.Sockets;
using System.Security.Authentication;
using System.Security.Cryptography.X509Certificates;
using SmtpServer;
using SmtpServer.IO;
using SmtpServer.Net;

namespace LooseLantern.StandIns.Mail;

/// <summary>
/// Connections on which answers go out at once: the library's own hold back each one for word of the one before, for a
/// twentieth of a second a mail.
/// </summary>
internal sealed class PromptListening : IEndpointListenerFactory
{
    public IEndpointListener CreateListener(IEndpointDefinition endpoint)
    {
        var listener = new TcpListener(endpoint.Endpoint);
        listener.Start();
        return new Listener(listener);
    }

    private sealed class Listener(TcpListener listener) : IEndpointListener
    {
        public async Task<ISecurableDuplexPipe> GetPipeAsync(ISessionContext context, CancellationToken ct)
        {
            var client = await listener.AcceptTcpClientAsync(ct);
            client.NoDelay = true;
            return new Line(client);
        }

        public void Dispose() => listener.Dispose();
    }

    private sealed class Line(TcpClient client) : ISecurableDuplexPipe
    {
        public PipeReader Input { get; } = PipeReader.Create(client.GetStream());

        public PipeWriter Output { get; } = PipeWriter.Create(client.GetStream());

        public bool IsSecure => false;

        public SslProtocols SslProtocol => SslProtocols.None;

        public Task UpgradeAsync(X509Certificate certificate, SslProtocols protocols, CancellationToken ct) =>
            throw new NotSupportedException("The stand-in has no certificate.");

        public void Dispose() => client.Dispose();
    }
}
