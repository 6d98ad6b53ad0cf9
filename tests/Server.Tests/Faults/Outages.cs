using System.Collections.Concurrent;

namespace Server.Tests.Faults;

/// <summary>
/// Sends every request to one of the servers, and notes what failed while nothing was down that it needs.
/// </summary>
internal sealed class Outages(IReadOnlyList<FaultServer> servers)
    : DelegatingHandler(
        new SocketsHttpHandler { UseCookies = false, PooledConnectionLifetime = TimeSpan.FromSeconds(2) }
    )
{
    // A server finds back to its database within this.
    private static readonly TimeSpan Recovery = TimeSpan.FromSeconds(3);

    private readonly ConcurrentDictionary<Guid, (DateTime From, DateTime Until)> _times = new();
    private int _turn;

    /// <summary>Answers of 500 and more at a time at which everything was up.</summary>
    public ConcurrentQueue<string> Failures { get; } = new();

    /// <summary>How many requests were answered, and how many were not.</summary>
    public int Answered;
    public int Lost;

    /// <summary>Marks a time at which something is down.</summary>
    public async Task DuringAsync(Func<Task> outage)
    {
        var (id, from) = (Guid.NewGuid(), DateTime.UtcNow);
        _times[id] = (from, DateTime.MaxValue);
        try
        {
            await outage();
        }
        finally
        {
            _times[id] = (from, DateTime.UtcNow + Recovery);
        }
    }

    protected override async Task<HttpResponseMessage> SendAsync(
        HttpRequestMessage request,
        CancellationToken cancellationToken
    )
    {
        var server = servers[(int)((uint)Interlocked.Increment(ref _turn) % servers.Count)];
        request.RequestUri = new UriBuilder(request.RequestUri!) { Port = server.Port }.Uri;
        var from = DateTime.UtcNow;
        try
        {
            var answer = await base.SendAsync(request, cancellationToken);
            Interlocked.Increment(ref Answered);
            if ((int)answer.StatusCode >= 500 && !WasDown(from))
                Failures.Enqueue(
                    $"{request.Method} {request.RequestUri.AbsolutePath}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync(cancellationToken)}"
                );
            return answer;
        }
        catch (Exception e) when (e is HttpRequestException or TaskCanceledException or IOException)
        {
            Interlocked.Increment(ref Lost);
            if (!WasDown(from))
                Failures.Enqueue($"{request.Method} {request.RequestUri.AbsolutePath}: no answer ({e.Message})");
            throw;
        }
    }

    private bool WasDown(DateTime from) =>
        _times.Values.Any(time => time.From <= DateTime.UtcNow && time.Until >= from);
}
