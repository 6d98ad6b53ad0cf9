using System.Diagnostics;
using System.Net;

namespace LooseLantern.Bench.Requests;

/// <summary>
/// Bookings of different openings by 8 clients, over 50 pages and on one page; beside pgbench. Then how long it takes
/// until all of their messages are written and sent.
/// </summary>
internal static class Bookings
{
    private const int Clients = 8;
    private static int _guests;

    public static async Task RunAsync(Yard yard)
    {
        var starts = Starts().ToArray();
        // Each page's pool is taken from its own hours, so that no two clients want one time.
        Func<int, Task> over = async at =>
        {
            var page = at % Yard.PageCount;
            await BookedAsync(yard, yard.Pages[page], starts[(page * 40 + at / Yard.PageCount) % starts.Length]);
        };
        await Load.RunAsync(Clients, TimeSpan.FromSeconds(5), at => over(at));
        await SentAsync(yard);
        // Each commitment's transaction begins with its locks, and ends when it is committed.
        await yard.DoAsync("ALTER TABLE commitments ADD COLUMN began timestamptz DEFAULT now()");
        // As the database does by itself within a minute; until then it takes all tables for empty.
        await yard.DoAsync("ANALYZE");
        var beside = await Bare.PgbenchAsync(yard.ConnectionString, Clients, 8);
        _refused = 0;
        var many = await Load.RunAsync(Clients, TimeSpan.FromSeconds(10), at => over(1000 + at));
        var (refusedMany, heldMany) = (_refused, await HeldAsync(yard));
        var sent = await SentAsync(yard);
        _refused = 0;
        var one = await Load.RunAsync(Clients, TimeSpan.FromSeconds(10), at =>
            BookedAsync(yard, yard.Crowded, starts[(starts.Length / 2 + at) % starts.Length])
        );
        var (refusedOne, heldOne) = (_refused, await HeldAsync(yard));
        var sentOne = await SentAsync(yard);
        var alone = await Load.RunAsync(1, TimeSpan.FromSeconds(5), at => over(3000 + at));
        var heldAlone = await HeldAsync(yard);
        Console.WriteLine($"bookings: {Clients} clients");
        Console.WriteLine($"  pgbench              {beside, 8:0} a second");
        Console.WriteLine(
            $"  over 50 pages        {many.PerSecond, 8:0.0} a second ({refusedMany} refused), median {many.At(.5):0} ms, 99th {many.At(.99):0} ms, ratio {(many.Milliseconds.Count - refusedMany) / many.Seconds / beside:0.000}; locks held {heldMany:0.0} ms; messages sent {sent:0} s after"
        );
        Console.WriteLine(
            $"  on one page          {one.PerSecond, 8:0.0} a second ({refusedOne} refused), median {one.At(.5):0} ms, 99th {one.At(.99):0} ms, ratio {(one.Milliseconds.Count - refusedOne) / one.Seconds / beside:0.000}; locks held {heldOne:0.0} ms; messages sent {sentOne:0} s after"
        );
        Console.WriteLine(
            $"  alone                {alone.PerSecond, 8:0.0} a second, median {alone.At(.5):0.0} ms, locks held {heldAlone:0.0} ms"
        );
    }

    /// <summary>So many bookings over all pages, at times of their own.</summary>
    public static async Task ManyAsync(Yard yard, int count)
    {
        var (starts, next) = (Starts().Reverse().ToArray(), -1);
        await Task.WhenAll(
            Enumerable
                .Range(0, Clients)
                .Select(async _ =>
                {
                    while (Interlocked.Increment(ref next) is var at && at < count)
                        await BookedAsync(yard, yard.Pages[at % Yard.PageCount], starts[at / Yard.PageCount]);
                })
        );
    }

    private static int _refused;

    private static async Task BookedAsync(Yard yard, string page, DateTime start)
    {
        var answer = await yard.BookAsync(page, start, Interlocked.Increment(ref _guests));
        if (answer.StatusCode == HttpStatusCode.Conflict)
            Interlocked.Increment(ref _refused);
        else
            answer.EnsureSuccessStatusCode();
    }

    /// <summary>Half hours of the days from the second week on.</summary>
    private static IEnumerable<DateTime> Starts()
    {
        for (
            var day = new DateTime(2026, 12, 14, 0, 0, 0, DateTimeKind.Utc);
            day.Year < 2027 || day.Month < 9;
            day = day.AddDays(1)
        )
        {
            if (day.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday)
                continue;
            for (var half = 0; half < 16; half++)
                yield return day.AddHours(8).AddMinutes(30 * half);
        }
    }

    /// <summary>
    /// Milliseconds from asking for its locks to the end of its commit, of the median booking since this was asked
    /// last.
    /// </summary>
    private static async Task<double> HeldAsync(Yard yard)
    {
        var held = await yard.AskAsync<double>(
            "SELECT percentile_cont(0.5) WITHIN GROUP (ORDER BY extract(epoch FROM pg_xact_commit_timestamp(xmin) - began) * 1000) FROM commitments WHERE began IS NOT NULL"
        );
        await yard.DoAsync("UPDATE commitments SET began = NULL");
        return held;
    }

    public static async Task<double> SentAsync(Yard yard)
    {
        var watch = Stopwatch.StartNew();
        while (
            await yard.AskAsync<long>(
                "SELECT (SELECT count(*) FROM tellings) + (SELECT count(*) FROM messages WHERE state = 'Due' AND due_at <= written_at)"
            ) > 0
            && watch.Elapsed < TimeSpan.FromMinutes(3)
        )
            await Task.Delay(200);
        return watch.Elapsed.TotalSeconds;
    }
}
