using System.Net.Sockets;
using Npgsql;

namespace Server.Tests;

/// <summary>
/// A way to another server that can be closed, and then what is on it breaks off and nothing gets through until it
/// opens again, or be made slow.
/// </summary>
internal sealed class TcpGate : IAsyncDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly string _host;
    private readonly int _port;
    private readonly CancellationTokenSource _end = new();
    private readonly List<TcpClient> _open = [];
    private readonly Task _listening;
    private volatile bool _isClosed;

    public TcpGate(string host, int port)
    {
        (_host, _port) = (host, port);
        _listener.Start();
        _listening = ListenAsync();
    }

    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    /// <summary>How long each piece of what goes through is kept back.</summary>
    public TimeSpan Delay { get; set; }

    /// <summary>A gate before a database, and what leads through it.</summary>
    public static (TcpGate Gate, string ConnectionString) Before(string connectionString)
    {
        var behind = new NpgsqlConnectionStringBuilder(connectionString);
        var gate = new TcpGate(behind.Host!, behind.Port);
        behind.Host = "127.0.0.1";
        behind.Port = gate.Port;
        behind.SslMode = SslMode.Disable;
        return (gate, behind.ConnectionString);
    }

    public void Close()
    {
        _isClosed = true;
        lock (_open)
        {
            foreach (var client in _open)
                client.Close();
            _open.Clear();
        }
    }

    public void Open() => _isClosed = false;

    public async ValueTask DisposeAsync()
    {
        await _end.CancelAsync();
        Close();
        _listener.Stop();
        await _listening.ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        _end.Dispose();
    }

    private async Task ListenAsync()
    {
        while (!_end.IsCancellationRequested)
            _ = PassAsync(await _listener.AcceptTcpClientAsync(_end.Token));
    }

    private async Task PassAsync(TcpClient from)
    {
        using var to = new TcpClient();
        lock (_open)
            _open.AddRange([from, to]);
        try
        {
            if (_isClosed)
                return;
            await to.ConnectAsync(_host, _port);
            await Task.WhenAny(
                CopyAsync(from.GetStream(), to.GetStream()),
                CopyAsync(to.GetStream(), from.GetStream())
            );
        }
        catch (Exception e) when (e is IOException or ObjectDisposedException or SocketException)
        {
            // Closed while it was on its way.
        }
        finally
        {
            from.Close();
        }
    }

    private async Task CopyAsync(NetworkStream from, NetworkStream to)
    {
        var buffer = new byte[64 * 1024];
        while (await from.ReadAsync(buffer) is > 0 and var count)
        {
            if (Delay > TimeSpan.Zero)
                await Task.Delay(Delay);
            await to.WriteAsync(buffer.AsMemory(0, count));
        }
    }
}
