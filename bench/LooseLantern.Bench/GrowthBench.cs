using System.Diagnostics;
using LooseLantern.Core.Openings;

namespace LooseLantern.Bench;

/// <summary>
/// How the time of one computation grows with hosts, busy spans and days, over two decades each: the exponent of the
/// least power that lies through both ends, 1 for what grows in step.
/// </summary>
internal static class GrowthBench
{
    private const int Rounds = 25;

    public static void Run()
    {
        Tell("hosts, 10 to 1000", by => Panel.Of(10 * by, 90));
        Tell("hosts, 10 to 1000, all asked", by => Panel.Dark(10 * by, 90));
        Tell("spans, 40 to 4000 each", by => Panel.Of(50, 90, 40 * by));
        Tell("days, 4 to 400", by => Panel.Of(50, 4 * by));
    }

    private static void Tell(string what, Func<int, OpeningsInput> size)
    {
        double[] took = [Median(size(1)), Median(size(10)), Median(size(100))];
        Console.WriteLine(
            $"{what, -30} {took[0] * 1000, 8:0} µs {took[1] * 1000, 8:0} µs {took[2] * 1000, 8:0} µs   exponent {Math.Log10(took[2] / took[0]) / 2:0.00}"
        );
    }

    /// <summary>In milliseconds.</summary>
    private static double Median(OpeningsInput input)
    {
        var took = new double[Rounds];
        for (var round = -Rounds; round < Rounds; round++)
        {
            var began = Stopwatch.GetTimestamp();
            // So many times that the clock is fine enough for it.
            for (var i = 0; i < 4; i++)
                OpeningsComputation.Openings(input);
            if (round >= 0)
                took[round] = Stopwatch.GetElapsedTime(began).TotalMilliseconds / 4;
        }

        return took.Order().ElementAt(Rounds / 2);
    }
}
