using System.Diagnostics;
using System.Net;

namespace LooseLantern.Bench.Requests;

/// <summary>
/// 200 at once for one opening of a pool of three, beside the same 200 as bare transactions that lock first; and what
/// other guests wait for openings meanwhile.
/// </summary>
internal static class Crowd
{
    private const int People = 200;

    public static async Task RunAsync(Yard yard)
    {
        var day = new DateTime(2027, 4, 5, 8, 0, 0, DateTimeKind.Utc);
        await OnceAsync(yard, day, 9_000_000);
        var bare = await Bare.CrowdAsync(yard.ConnectionString, People);
        await yard.DoAsync("DELETE FROM bare WHERE host > 1000");
        bare = await Bare.CrowdAsync(yard.ConnectionString, People);
        using var stop = new CancellationTokenSource();
        var others = OthersAsync(yard, stop.Token);
        var (took, won) = await OnceAsync(yard, day.AddDays(1), 9_100_000);
        await stop.CancelAsync();
        var waited = new Measured(1, await others);
        Console.WriteLine($"crowd: {People} at once for one opening of a pool of three");
        Console.WriteLine($"  bare transactions    {bare, 8:0} ms");
        Console.WriteLine($"  all answered         {took, 8:0} ms, ratio {took / bare:0.0}, {won} won");
        Console.WriteLine(
            $"  other guests' {waited.Milliseconds.Count} requests meanwhile: median {waited.At(.5):0} ms, 99th {waited.At(.99):0} ms"
        );
    }

    private static async Task<(double Took, int Won)> OnceAsync(Yard yard, DateTime start, int firstGuest)
    {
        var watch = Stopwatch.StartNew();
        var answers = await Task.WhenAll(
            Enumerable.Range(0, People).Select(at => yard.BookAsync(yard.Crowded, start, firstGuest + at))
        );
        var took = watch.Elapsed.TotalMilliseconds;
        foreach (var answer in answers.Where(answer => answer.StatusCode != HttpStatusCode.Conflict))
            answer.EnsureSuccessStatusCode();
        return (took, answers.Count(answer => answer.StatusCode == HttpStatusCode.Created));
    }

    private static async Task<List<double>> OthersAsync(Yard yard, CancellationToken stop)
    {
        var took = new List<double>();
        for (var n = 0; !stop.IsCancellationRequested; n++)
        {
            var watch = Stopwatch.StartNew();
            await yard.Http.GetByteArrayAsync(
                $"/api/public/desks/{yard.Ada.Desk}/pages/{yard.Pages[n % Yard.PageCount]}/openings?from=2026-12-07&to=2026-12-20&zone=Europe/Copenhagen",
                CancellationToken.None
            );
            took.Add(watch.Elapsed.TotalMilliseconds);
        }

        return took;
    }
}
