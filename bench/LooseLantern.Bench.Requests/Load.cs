using System.Diagnostics;

namespace LooseLantern.Bench.Requests;

/// <summary>How long each of many requests took, and how many a second there were.</summary>
internal sealed record Measured(double Seconds, IReadOnlyList<double> Milliseconds)
{
    public double PerSecond => Milliseconds.Count / Seconds;

    public double At(double part) =>
        Milliseconds.Count == 0 ? double.NaN : Milliseconds.Order().ElementAt((int)((Milliseconds.Count - 1) * part));
}

/// <summary>Clients that each ask again as soon as they are answered.</summary>
internal static class Load
{
    /// <param name="ask">With the number of the request, which rises over all clients.</param>
    public static async Task<Measured> RunAsync(int clients, TimeSpan time, Func<int, Task> ask)
    {
        var (next, took, watch) = (-1, new List<double>[clients], Stopwatch.StartNew());
        await Task.WhenAll(
            Enumerable
                .Range(0, clients)
                .Select(client =>
                    Task.Run(async () =>
                    {
                        took[client] = [];
                        while (watch.Elapsed < time)
                        {
                            var start = watch.Elapsed;
                            await ask(Interlocked.Increment(ref next));
                            took[client].Add((watch.Elapsed - start).TotalMilliseconds);
                        }
                    })
                )
        );
        return new Measured(watch.Elapsed.TotalSeconds, [.. took.SelectMany(one => one)]);
    }
}
