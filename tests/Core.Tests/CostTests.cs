using LooseLantern.Core.Days;
using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>What a computation costs, as far as that is the same on every machine.</summary>
public class CostTests
{
    // An opening as an object, and its place in the list.
    private const int BytesOfOpening = 56 + 8;

    [Theory]
    [InlineData(2, 10)]
    [InlineData(200, 500)]
    public void Little_but_the_answer_is_allocated_however_many_hosts_and_spans_there_are(int hosts, int spans)
    {
        var input = Pool(hosts, spans);
        // What it writes on is there from the first time on.
        var openings = OpeningsComputation.Openings(input);
        var before = GC.GetAllocatedBytesForCurrentThread();
        OpeningsComputation.Openings(input);
        var allocated = GC.GetAllocatedBytesForCurrentThread() - before;
        (allocated - (openings.Count * BytesOfOpening)).ShouldBeLessThan(1536);
    }

    /// <summary>Two seats of one pool, whose hosts all have hours of their own and are busy at other hours.</summary>
    private static OpeningsInput Pool(int hosts, int spans)
    {
        var from = new LocalDate(2026, 12, 1);
        var night = LocalDays.Start(Copenhagen, from);
        var ids = Enumerable.Range(0, hosts).Select(at => $"h{at}").ToArray();
        return On(
            from,
            Page() with
            {
                LineUp = [new Seat(ids), new Seat(ids)],
            },
            [
                .. ids.Select(
                    (id, at) =>
                        Host(
                            id,
                            Open($"09:00-12:00,{14 + (at / 30)}:{at % 30:00}-{22}:{at % 60:00}"),
                            [
                                .. Enumerable
                                    .Range(0, spans)
                                    .Select(day => new Span(
                                        night + Duration.FromDays(day % 60),
                                        night + Duration.FromDays(day % 60) + Duration.FromHours(3)
                                    )),
                            ]
                        )
                ),
            ]
        ) with
        {
            To = from.PlusDays(60),
        };
    }
}
