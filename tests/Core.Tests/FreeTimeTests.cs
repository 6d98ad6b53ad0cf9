using CsCheck;
using LooseLantern.Core.FreeTimes;

namespace Core.Tests;

/// <summary>Free time of several, against asking minute by minute.</summary>
public class FreeTimeTests
{
    private static readonly Gen<Span[]> Spans = Gen.Select(Gen.Int[0, 60], Gen.Int[-2, 20], (from, length) =>
        Of(from, from + length)
    ).Array[0, 8];

    [Fact]
    public void What_is_taken_is_cut_out_of_what_is_open() =>
        FreeTime
            .Of([Of(0, 10), Of(20, 30)], [Of(8, 22), Of(25, 26), Of(25, 25), Of(29, 40)])
            .ShouldBe([Of(0, 8), Of(22, 25), Of(26, 29)]);

    [Fact]
    public void What_is_taken_to_the_very_end_leaves_nothing_behind_it() =>
        FreeTime.Of([Of(0, 10)], [Of(4, 10)]).ShouldBe([Of(0, 4)]);

    [Fact]
    public void Nobody_is_never_free_together()
    {
        FreeTime.All([]).ShouldBeEmpty();
        FreeTime.Any([]).ShouldBeEmpty();
    }

    [Fact]
    public void A_minute_is_free_where_it_is_open_and_not_taken() =>
        Gen.Select(Spans, Spans)
            .Sample((open, taken) => Holds(FreeTime.Of(open, taken), minute => In(open, minute) && !In(taken, minute)));

    [Fact]
    public void All_and_any_are_as_their_names_say() =>
        Spans
            .Array[1, 4]
            .Sample(each =>
                Holds(FreeTime.All(each), minute => each.All(spans => In(spans, minute)))
                && Holds(FreeTime.Any(each), minute => each.Any(spans => In(spans, minute)))
            );

    /// <summary>The spans say the same of each minute, are in order, and none touches the next.</summary>
    private static bool Holds(IReadOnlyList<Span> spans, Func<int, bool> isFree) =>
        Enumerable.Range(-5, 100).All(minute => In(spans, minute) == isFree(minute))
        && spans.Zip(spans.Skip(1)).All(pair => pair.First.End < pair.Second.Start);

    private static bool In(IEnumerable<Span> spans, int minute) => spans.Any(span => span.Contains(At(minute)));

    private static Span Of(int from, int to) => new(At(from), At(to));

    private static Instant At(int minute) => Instant.FromUnixTimeSeconds(minute * 60L);
}
