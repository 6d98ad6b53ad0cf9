namespace LooseLantern.Bench.Requests;

/// <summary>
/// What guests wait for openings while the messages of many bookings are written and sent, beside what they wait when
/// nothing is.
/// </summary>
internal static class Work
{
    private const int Guests = 2;
    private const int Bookings = 2_000;
    private static readonly TimeSpan Time = TimeSpan.FromSeconds(12);

    public static async Task RunAsync(Yard yard)
    {
        await AskedAsync(yard);
        var idle = await AskedAsync(yard);
        await Requests.Bookings.ManyAsync(yard, Bookings);
        var busy = await AskedAsync(yard);
        var sent = await Requests.Bookings.SentAsync(yard);
        Console.WriteLine($"work: openings to {Guests} guests, one request after another");
        Console.WriteLine($"  nothing due          median {idle.At(.5):0.0} ms, 99th {idle.At(.99):0} ms");
        Console.WriteLine(
            $"  messages of {Bookings}     median {busy.At(.5):0.0} ms, 99th {busy.At(.99):0} ms; all sent {Time.TotalSeconds + sent:0} s after the last"
        );
    }

    private static Task<Measured> AskedAsync(Yard yard) => Load.RunAsync(Guests, Time, async n =>
        {
            await yard.Http.GetByteArrayAsync(
                $"/api/public/desks/{yard.Ada.Desk}/pages/{yard.Pages[n % Yard.PageCount]}/openings?from=2026-12-07&to=2026-12-20&zone=Europe/Copenhagen"
            );
            // As people do, they read what they got.
            await Task.Delay(20);
        });
}
