using LooseLantern.Core.Calendars;

namespace Core.Tests;

/// <summary>For how long the last known state of a calendar counts.</summary>
public class FreshnessTests
{
    private static readonly Instant Looked = Instant.FromUtc(2026, 12, 7, 7, 0);
    private static readonly Duration Day = Duration.FromHours(24);

    [Theory]
    [InlineData(0, 23, false)]
    [InlineData(0, 24, true)]
    // Whoever is asked to wait twelve hours is not late a day and a half after a look.
    [InlineData(12, 35, false)]
    [InlineData(12, 36, true)]
    public void It_is_too_old_a_day_after_somebody_should_have_looked(int rhythm, int hours, bool isTooOld) =>
        new Freshness(Looked, null, Duration.FromHours(rhythm))
            .IsTooOld(Day, Looked + Duration.FromHours(hours))
            .ShouldBe(isTooOld);

    [Fact]
    public void Out_of_reach_it_counts_from_the_last_look_that_succeeded_whatever_its_publisher_asks()
    {
        var lost = new Freshness(Looked, Looked + Duration.FromHours(2), Duration.FromHours(12));
        lost.ClosesAt(Day).ShouldBe(Looked + Day);
        lost.IsTooOld(Day, Looked + Day - Duration.FromSeconds(1)).ShouldBeFalse();
        lost.IsTooOld(Day, Looked + Day).ShouldBeTrue();
        (lost with { UnreachableSince = null }).ClosesAt(Day).ShouldBeNull();
    }
}
