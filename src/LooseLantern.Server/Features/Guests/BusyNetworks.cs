using System.Collections.Concurrent;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>
/// Counts what guests book of each network, of an hour. A school or an office is refused nothing for its size; from so
/// many on, its guests are asked to prove their mail address. The setting is Limits:ProveFrom, 0 for never. Each server
/// counts what it answered itself, and keeps no network address longer than that hour.
/// </summary>
public sealed class BusyNetworks(IConfiguration configuration, PostSettings post, IClock clock)
{
    private const int Usual = 10;

    private static readonly Duration Hour = Duration.FromHours(1);

    private readonly int _from = configuration.GetValue("Limits:ProveFrom", Usual);
    private readonly ConcurrentDictionary<string, Queue<Instant>> _booked = new();

    /// <summary>Whether a guest there is to prove the address; never where no code could be mailed.</summary>
    public bool Asks(HttpContext context) =>
        _from > 0
        && post.Host is not null
        && _booked.TryGetValue(Of(context), out var booked)
        && Count(booked) >= _from;

    /// <summary>Counts one that was booked.</summary>
    public void Note(HttpContext context)
    {
        if (_from == 0)
            return;
        var booked = _booked.GetOrAdd(Of(context), _ => new Queue<Instant>());
        lock (booked)
            booked.Enqueue(clock.GetCurrentInstant());
        foreach (var (network, old) in _booked)
        {
            if (Count(old) == 0)
                _booked.TryRemove(new KeyValuePair<string, Queue<Instant>>(network, old));
        }
    }

    private int Count(Queue<Instant> booked)
    {
        var since = clock.GetCurrentInstant() - Hour;
        lock (booked)
        {
            while (booked.TryPeek(out var first) && first <= since)
                booked.Dequeue();
            return booked.Count;
        }
    }

    private static string Of(HttpContext context) => RateLimits.NetworkOf(context.Connection.RemoteIpAddress);
}
