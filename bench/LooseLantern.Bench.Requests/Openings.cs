using System.Diagnostics;
using System.Globalization;

namespace LooseLantern.Bench.Requests;

/// <summary>
/// Openings over 50 pages with four ranges each, while a booking and a change of a calendar a second go in; beside a
/// static file of the same size from the same server.
/// </summary>
internal static class Openings
{
    private const int Clients = 8;
    private static readonly TimeSpan Warm = TimeSpan.FromSeconds(25);
    private static readonly TimeSpan Time = TimeSpan.FromSeconds(12);
    private static readonly string[] Ranges =
    [
        "from=2026-12-07&to=2026-12-20",
        "from=2026-12-21&to=2027-01-10",
        "from=2027-01-11&to=2027-01-31",
        "from=2027-02-01&to=2027-02-14",
    ];

    public static async Task RunAsync(Yard yard)
    {
        string PathOf(int at) =>
            $"/api/public/desks/{yard.Ada.Desk}/pages/{yard.Pages[at / Ranges.Length % Yard.PageCount]}/openings?{Ranges[at % Ranges.Length]}&zone=Europe/Copenhagen";
        var bytes = (await yard.Http.GetByteArrayAsync(PathOf(0))).Length;
        var file = await StaticFileAsync(yard, bytes);
        using (var warm = new CancellationTokenSource(Warm))
        {
            var warmed = ChangeAsync(yard, 0, PathOf, warm.Token);
            await Load.RunAsync(Clients, Warm, async at => await yard.Http.GetByteArrayAsync(PathOf(at)));
            await warmed;
        }

        await Load.RunAsync(Clients, TimeSpan.FromSeconds(3), async _ => await yard.Http.GetByteArrayAsync(file.Path));
        var beside = await Load.RunAsync(Clients, Time, async _ => await yard.Http.GetByteArrayAsync(file.Path));
        var quiet = await Load.RunAsync(Clients, Time, async at => await yard.Http.GetByteArrayAsync(PathOf(at)));
        using var stop = new CancellationTokenSource();
        var changes = ChangeAsync(yard, 1_000, PathOf, stop.Token);
        var busy = await Load.RunAsync(Clients, Time, async at => await yard.Http.GetByteArrayAsync(PathOf(at)));
        await stop.CancelAsync();
        var first = await changes;
        Console.WriteLine($"openings: an answer of {bytes} bytes, a static file of {file.Bytes}, {Clients} clients");
        Console.WriteLine(
            $"  static file          {beside.PerSecond, 8:0} a second, median {beside.At(.5):0.0} ms, 99th {beside.At(.99):0.0} ms"
        );
        Console.WriteLine(
            $"  openings             {quiet.PerSecond, 8:0} a second, median {quiet.At(.5):0.0} ms, 99th {quiet.At(.99):0.0} ms, ratio {quiet.PerSecond / beside.PerSecond:0.00}"
        );
        Console.WriteLine(
            $"  openings, changing   {busy.PerSecond, 8:0} a second, median {busy.At(.5):0.0} ms, 99th {busy.At(.99):0.0} ms, ratio {busy.PerSecond / beside.PerSecond:0.00}"
        );
        Console.WriteLine(
            $"  first after a change, of {first.Milliseconds.Count}: median {first.At(.5):0.0} ms, most {first.At(1):0.0} ms"
        );
    }

    /// <summary>One of the front end's that is nearest in size.</summary>
    private static async Task<(string Path, int Bytes)> StaticFileAsync(Yard yard, int bytes)
    {
        var web = Environment.GetEnvironmentVariable("LANTERN_WEB")!;
        var file = new DirectoryInfo(web)
            .EnumerateFiles("*.js", SearchOption.AllDirectories)
            .MinBy(one => Math.Abs(one.Length - bytes))!;
        var path = "/" + Path.GetRelativePath(web, file.FullName);
        return (path, (await yard.Http.GetByteArrayAsync(path)).Length);
    }

    /// <summary>
    /// A booking and an entry in a calendar each second; each must be seen in the very next answer, whose time is what
    /// is measured.
    /// </summary>
    private static async Task<Measured> ChangeAsync(
        Yard yard,
        int first,
        Func<int, string> pathOf,
        CancellationToken stop
    )
    {
        var took = new List<double>();
        for (var n = first; !stop.IsCancellationRequested; n++)
        {
            var page = 4 * ((n * 7) % Yard.PageCount);
            var before = await yard.Http.GetStringAsync(pathOf(page), CancellationToken.None);
            var start = DateTime.Parse(
                System
                    .Text.Json.JsonDocument.Parse(before)
                    .RootElement.GetProperty("openings")[0]
                    .GetProperty("start")
                    .GetString()!,
                null,
                DateTimeStyles.AdjustToUniversal
            );
            (await yard.BookAsync(yard.Pages[page / 4], start, 5_000_000 + n)).EnsureSuccessStatusCode();
            var watch = Stopwatch.StartNew();
            await yard.Http.GetStringAsync(pathOf(page), CancellationToken.None);
            took.Add(watch.Elapsed.TotalMilliseconds);
            try
            {
                await Task.Delay(500, stop);
                await EnterAsync(yard, n);
                await Task.Delay(500, stop);
            }
            catch (OperationCanceledException)
            {
                break;
            }
        }

        return new Measured(1, took);
    }

    /// <summary>Ada enters something in her calendar.</summary>
    private static async Task EnterAsync(Yard yard, int n)
    {
        var start = new DateTime(2027, 3, 1, 8, 0, 0, DateTimeKind.Unspecified).AddHours(n);
        (
            await yard.Ada.PostAsync(
                $"/api/calendars/{yard.Calendar}/entries",
                new
                {
                    title = "Hull survey",
                    start = start.ToString("s", CultureInfo.InvariantCulture),
                    end = start.AddHours(1).ToString("s", CultureInfo.InvariantCulture),
                    wholeDay = false,
                    shows = "busy",
                    repeats = "once",
                    until = (string?)null,
                }
            )
        ).EnsureSuccessStatusCode();
    }
}
