using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>
/// What grid and buffers come to, worked from an opening at 09:00 to 10:30 in Copenhagen (08:00 to 09:30 in UTC).
/// </summary>
public class WorkedExampleTests
{
    [Theory]
    [InlineData(0, 0, 30, 0, StepFrom.Clock, "09:30", "09:30")]
    [InlineData(0, 0, 60, 0, StepFrom.Clock, "09:30", "10:00")]
    [InlineData(10, 20, 30, 0, StepFrom.Clock, "09:50", "10:00")]
    [InlineData(45, 20, 30, 0, StepFrom.Clock, "10:15", "10:30")]
    [InlineData(0, 20, 60, 15, StepFrom.Clock, "09:50", "10:15")]
    [InlineData(0, 20, 40, 0, StepFrom.Open, "09:50", "10:00")]
    public void The_next_start_comes_after_the_larger_buffer(
        int before,
        int after,
        int step,
        int offset,
        StepFrom from,
        string free,
        string next
    )
    {
        var worked = WorkedExample.Of(
            Page() with
            {
                BufferBefore = before,
                BufferAfter = after,
                Step = step,
                StepOffset = offset,
                StepFrom = from,
            },
            new Opening(At("2026-12-08T08:00:00Z"), At("2026-12-08T09:30:00Z"), 1)
        );
        (worked.FreeFrom, worked.Next).ShouldBe((At($"2026-12-08T{free}:00Z"), At($"2026-12-08T{next}:00Z")));
    }

    [Theory]
    [InlineData("2026-12-07T22:20:00Z", 50, "2026-12-07T22:20:00Z 2026-12-07T23:00:00Z 2026-12-07T23:50:00Z")]
    [InlineData("2026-12-07T23:00:00Z", 1440, "2026-12-07T23:00:00Z 2026-12-08T23:00:00Z 2026-12-09T23:00:00Z")]
    [InlineData("2027-03-28T00:30:00Z", 30, "2027-03-28T00:30:00Z 2027-03-28T01:00:00Z 2027-03-28T01:30:00Z")]
    public void Starts_are_those_of_the_clock_also_over_midnight_and_a_change_of_the_clock(
        string from,
        int step,
        string starts
    )
    {
        var opening = new Opening(At(from), At(from) + Duration.FromMinutes(30), 1);
        string.Join(' ', WorkedExample.Of(Page() with { Step = step }, opening).Starts).ShouldBe(starts);
    }
}
