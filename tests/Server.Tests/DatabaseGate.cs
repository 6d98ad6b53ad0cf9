using System.Net.Sockets;
using Npgsql;

namespace Server.Tests;

/// <summary>
/// A way to PostgreSQL that can be closed: what is on it breaks off, and nothing gets through until it opens again.
/// </summary>
internal sealed class DatabaseGate : IAsyncDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly NpgsqlConnectionStringBuilder _behind;
    private readonly CancellationTokenSource _end = new();
    private readonly List<TcpClient> _open = [];
    private readonly Task _listening;
    private volatile bool _isClosed;

    public DatabaseGate(string connectionString)
    {
        _behind = new NpgsqlConnectionStringBuilder(connectionString);
        _listener.Start();
        _listening = ListenAsync();
    }

    /// <summary>Leads through the gate.</summary>
    public string ConnectionString =>
        new NpgsqlConnectionStringBuilder(_behind.ConnectionString)
        {
            Host = "127.0.0.1",
            Port = ((IPEndPoint)_listener.LocalEndpoint).Port,
            SslMode = SslMode.Disable,
        }.ConnectionString;

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
            await to.ConnectAsync(_behind.Host!, _behind.Port);
            await Task.WhenAny(
                from.GetStream().CopyToAsync(to.GetStream()),
                to.GetStream().CopyToAsync(from.GetStream())
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
}
