using System.Diagnostics;
using LooseLantern.Core;
using LooseLantern.Core.Covers;
using NodaTime;

namespace LooseLantern.Bench;

/// <summary>
/// What it takes to find cover for sessions together, as a multiple of finding it for each of them by itself, one after
/// the other.
/// </summary>
internal static class CoverBench
{
    private const int Rounds = 9;

    public static void Run()
    {
        // A week of one host; two hosts' fortnight, at overlapping times; and what is meant to be hard.
        Tell("20 sessions of one, 6 others", Sessions(20, 6, 90, seats: 1));
        Tell("40 sessions, 12 others, chains", Sessions(40, 12, 9, seats: 1));
        Tell("40 sessions, 60 others, 3 seats", Sessions(40, 60, 30, seats: 3));
        Tell("40 sessions, 14 others, 3 seats", Sessions(40, 14, 11, seats: 3));
    }

    private static void Tell(string what, CoverInput input)
    {
        var each = input.Sessions.Select(session => input with { Sessions = [session] }).ToList();
        var plan = CoverComputation.Of(input);
        var (whole, apart) = (
            Median(() => CoverComputation.Of(input)),
            Median(() => each.ForEach(one => CoverComputation.Of(one)))
        );
        Console.WriteLine(
            $"{what, -34} {whole, 8:0.0} ms   each by itself {apart, 7:0.0} ms   ratio {whole / apart, 6:0.0}   kept {plan.Lines.Count(line => line.Hosts is not null)}, {(plan.IsBest ? "proven" : "best found")}"
        );
    }

    private static CoverInput Sessions(int count, int others, int minutesApart, int seats)
    {
        var random = new Random(3);
        var hosts = Enumerable.Range(0, others).Select(at => $"h{at:00}").ToArray();
        var monday = Instant.FromUtc(2026, 12, 7, 7, 0);
        return new CoverInput(
            [
                .. Enumerable
                    .Range(0, count)
                    .Select(at =>
                    {
                        var start = monday + Duration.FromMinutes(at * minutesApart);
                        return new CoveredSession(
                            $"{at}",
                            new Span(start, start + Duration.FromMinutes(30)),
                            at % 3 * 5,
                            at % 4 * 5,
                            [
                                .. Enumerable
                                    .Range(0, seats)
                                    .Select(seat => new CoveredSeat(
                                        seat == 0 ? "ill" : hosts[(at * (seat + 4) + seat) % others],
                                        seat == 0,
                                        [.. hosts.Where(_ => random.Next(2) > 0)]
                                    )),
                            ]
                        );
                    }),
            ],
            hosts.ToDictionary(host => host, _ => new CoverLoad(random.Next(8), 1))
        );
    }

    /// <summary>In milliseconds.</summary>
    private static double Median(Action what)
    {
        var took = new double[Rounds];
        for (var round = -2; round < Rounds; round++)
        {
            var began = Stopwatch.GetTimestamp();
            what();
            if (round >= 0)
                took[round] = Stopwatch.GetElapsedTime(began).TotalMilliseconds;
        }

        return took.Order().ElementAt(Rounds / 2);
    }
}
