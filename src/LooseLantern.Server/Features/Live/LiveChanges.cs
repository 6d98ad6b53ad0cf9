using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using LooseLantern.Server.Jobs;
using Npgsql;

namespace LooseLantern.Server.Features.Live;

/// <summary>
/// Tells whoever watches a screen that something in their workspace changed. Servers hear it from the database
/// (LISTEN), so it does not matter which of them made the change.
/// </summary>
public sealed class LiveChanges(NpgsqlDataSource database, WorkSignals signals, IConfiguration configuration)
    : BackgroundService
{
    public const string Channel = "lantern_changes";

    /// <summary>The most screens that one server tells at once; one more asks by itself now and then.</summary>
    public const int MostWatchers = 4_000;

    /// <summary>The most streams of one network address, and of one person who is signed in.</summary>
    private const int MostOfNetwork = 12;
    private const int MostOfPerson = 24;

    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan Alive = TimeSpan.FromSeconds(25);

    private readonly ConcurrentDictionary<Guid, (Guid Workspace, Channel<bool> Told)> _watchers = [];

    private readonly ConcurrentDictionary<string, int> _ofOne = [];
    private readonly int _mostOfNetwork = configuration.GetValue("Limits:Streams", MostOfNetwork);

    /// <summary>A place to watch from, given back when it is disposed; null where there is none left.</summary>
    /// <param name="person">Who is signed in; null for a guest, who is known by the network alone.</param>
    public IDisposable? Place(string network, Guid? person)
    {
        if (_watchers.Count >= MostWatchers)
            return null;
        var (key, most) = person is { } id ? (id.ToString(), MostOfPerson) : (network, _mostOfNetwork);
        if (_ofOne.AddOrUpdate(key, 1, (_, count) => count + 1) <= most)
            return new PlaceTaken(this, key);
        GiveBack(key);
        return null;
    }

    private void GiveBack(string key)
    {
        // Taken out at nothing, or there would be one for every address that ever watched.
        if (_ofOne.AddOrUpdate(key, 0, (_, count) => count - 1) == 0)
            _ofOne.TryRemove(KeyValuePair.Create(key, 0));
    }

    private sealed class PlaceTaken(LiveChanges live, string key) : IDisposable
    {
        private int _isGivenBack;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _isGivenBack, 1) == 0)
                live.GiveBack(key);
        }
    }

    /// <summary>
    /// One value for each change, several near one another as one; the first at once, so that a watcher knows it is
    /// connected. False only shows that the line is alive.
    /// </summary>
    public async IAsyncEnumerable<bool> WatchAsync(Guid workspace, [EnumeratorCancellation] CancellationToken ct)
    {
        var id = Guid.NewGuid();
        var told = System.Threading.Channels.Channel.CreateBounded<bool>(
            new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
        );
        _watchers[id] = (workspace, told);
        try
        {
            yield return false;
            while (!ct.IsCancellationRequested)
            {
                var heard = false;
                using var quiet = CancellationTokenSource.CreateLinkedTokenSource(ct);
                quiet.CancelAfter(Alive);
                try
                {
                    heard = await told.Reader.ReadAsync(quiet.Token);
                }
                catch (OperationCanceledException)
                {
                    // Nothing to tell, or nobody to tell it to any more.
                }

                if (ct.IsCancellationRequested)
                    yield break;
                yield return heard;
            }
        }
        finally
        {
            _watchers.TryRemove(id, out _);
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await ListenAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is NpgsqlException or InvalidOperationException)
            {
                // The database was away; what was missed meanwhile is told as one change once it is back.
                await Task.Delay(Pause, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    private async Task ListenAsync(CancellationToken ct)
    {
        await using var connection = await database.OpenConnectionAsync(ct);
        connection.Notification += (_, heard) =>
            Tell(Guid.TryParse(heard.Payload, out var workspace) ? workspace : null);
        await using (var listen = new NpgsqlCommand($"LISTEN {Channel}", connection))
            await listen.ExecuteNonQueryAsync(ct);
        Tell(null);
        while (true)
            await connection.WaitAsync(ct);
    }

    private void Tell(Guid? workspace)
    {
        // Whatever changes bookings is heard here, and may be to be told.
        signals.Tellings.Wake();
        foreach (var watcher in _watchers.Values)
        {
            if (workspace is null || watcher.Workspace == workspace)
                watcher.Told.Writer.TryWrite(true);
        }
    }
}
