using System.Net.Sockets;
using System.Text;

namespace Server.Tests;

/// <summary>
/// A mail server that drops the line: first before it has said whether it took a mail, from then on right after it said
/// so.
/// </summary>
public sealed class DyingMailServer : IAsyncDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly CancellationTokenSource _stopping = new();
    private readonly Task _serving;
    private readonly Lock _lock = new();
    private readonly List<(string To, string MessageId, bool IsTaken)> _mails = [];

    public DyingMailServer()
    {
        _listener.Start();
        _serving = ServeAsync();
    }

    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    /// <summary>What was sent whole to somebody, and whether it was said to be taken.</summary>
    public List<(string MessageId, bool IsTaken)> To(string address)
    {
        lock (_lock)
            return [.. _mails.Where(mail => mail.To == address).Select(mail => (mail.MessageId, mail.IsTaken))];
    }

    public async ValueTask DisposeAsync()
    {
        await _stopping.CancelAsync();
        _listener.Stop();
        await _serving.ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        _stopping.Dispose();
    }

    private async Task ServeAsync()
    {
        while (!_stopping.IsCancellationRequested)
        {
            using var client = await _listener.AcceptTcpClientAsync(_stopping.Token);
            try
            {
                await TalkAsync(client);
            }
            catch (IOException)
            {
                // Whoever called hung up.
            }
        }
    }

    private async Task TalkAsync(TcpClient client)
    {
        using var reader = new StreamReader(client.GetStream(), Encoding.Latin1);
        await using var writer = new StreamWriter(client.GetStream(), Encoding.Latin1)
        {
            NewLine = "\r\n",
            AutoFlush = true,
        };
        await writer.WriteLineAsync("220 dying.example");
        var (to, isData, id) = ("", false, "");
        while (await reader.ReadLineAsync(_stopping.Token) is { } line)
        {
            if (isData)
            {
                if (line.StartsWith("Message-Id:", StringComparison.OrdinalIgnoreCase))
                    id = line;
                if (line != ".")
                    continue;
                bool isTaken;
                lock (_lock)
                {
                    isTaken = _mails.Exists(mail => mail.To == to);
                    _mails.Add((to, id, isTaken));
                }

                if (isTaken)
                    await writer.WriteLineAsync("250 taken");
                return;
            }

            if (line.StartsWith("RCPT TO:", StringComparison.OrdinalIgnoreCase))
                to = line["RCPT TO:".Length..].Split('>')[0].TrimStart('<', ' ');
            isData = line.Equals("DATA", StringComparison.OrdinalIgnoreCase);
            await writer.WriteLineAsync(isData ? "354 go on" : "250 well");
        }
    }
}
