using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>Of starts that stand close together guests are shown those a step apart.</summary>
public class ShownApartTests
{
    private static string Shown(int step, params string[] starts) =>
        string.Join(
            ' ',
            ShownApart
                .Of(
                    [.. starts.Select(At).Select(start => new Opening(start, start + Duration.FromMinutes(20), 1))],
                    step,
                    Copenhagen
                )
                .Select(opening => opening.Start.ToString("dd'T'HH:mm", null))
        );

    [Fact]
    public void Of_each_day_the_first_and_then_each_a_step_or_more_later() =>
        Shown(
                20,
                "2026-12-08T16:00:00Z",
                "2026-12-08T16:05:00Z",
                "2026-12-08T16:20:00Z",
                "2026-12-08T16:25:00Z",
                "2026-12-08T16:45:00Z"
            )
            .ShouldBe("08T16:00 08T16:20 08T16:45");

    [Fact]
    public void Days_are_those_of_the_pages_zone() =>
        // Midnight in Copenhagen lies between the two.
        Shown(20, "2026-12-08T22:50:00Z", "2026-12-08T23:00:00Z", "2026-12-08T23:10:00Z")
            .ShouldBe("08T22:50 08T23:00");

    [Fact]
    public void Nothing_stays_nothing_and_no_step_is_refused()
    {
        Shown(20).ShouldBe("");
        Should.Throw<ArgumentOutOfRangeException>(() => ShownApart.Of([], 0, Copenhagen));
    }
}
