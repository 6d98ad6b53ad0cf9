using LooseLantern.Core.Days;
using static Core.Tests.Sketch;

namespace Core.Tests;

public class DayTests
{
    [Theory]
    [InlineData("2026-12-01T08:00:00Z", "2026-12-01T08:45:00Z", "12-01 540-585")]
    [InlineData("2026-12-01T22:00:00Z", "2026-12-02T00:30:00Z", "12-01 1380-1440, 12-02 0-90")]
    [InlineData("2026-11-30T23:00:00Z", "2026-12-01T23:00:00Z", "12-01 0-1440")]
    [InlineData("2026-12-01T08:00:00Z", "2026-12-01T08:00:30Z", "12-01 540-541")]
    [InlineData("2026-12-01T08:00:00Z", "2026-12-01T08:00:00Z", "")]
    [InlineData("2026-03-29T00:30:00Z", "2026-03-29T01:30:00Z", "03-29 90-210")] // 01:30 to 03:30 on the clock that jumps
    [InlineData("2026-10-25T00:30:00Z", "2026-10-25T01:15:00Z", "10-25 150-151")] // 02:30 to 02:15 after it went back
    public void Spans_are_cut_at_local_midnights(string start, string end, string expected) =>
        string.Join(
                ", ",
                DaySlices
                    .Of(Span(start, end), Copenhagen)
                    .Select(slice => $"{slice.Date.ToString("MM-dd", null)} {slice.FromMinute}-{slice.ToMinute}")
            )
            .ShouldBe(expected);

    [Fact]
    public void A_part_of_a_second_reaches_into_the_next_minute() =>
        DaySlices
            .Of(new Span(At("2026-12-01T08:00:00Z"), At("2026-12-01T08:45:00Z") + Duration.FromTicks(1)), Copenhagen)
            .ShouldBe([new DaySlice(new LocalDate(2026, 12, 1), 540, 586)]);

    [Theory]
    [InlineData("Europe/Copenhagen", 2026, 12, 1, "2026-11-30T23:00:00Z")]
    [InlineData("Africa/Cairo", 2026, 4, 24, "2026-04-23T22:00:00Z")] // midnight is skipped: the day begins at 01:00
    [InlineData("Pacific/Apia", 2011, 12, 30, "2011-12-30T10:00:00Z")] // the whole date is: the 31st begins
    public void A_day_begins_where_its_clock_does(string zone, int year, int month, int day, string expected) =>
        LocalDays.Start(DateTimeZoneProviders.Tzdb[zone], new LocalDate(year, month, day)).ShouldBe(At(expected));

    [Fact]
    public void The_nearest_openings_come_by_start_whichever_side_they_are_on()
    {
        var openings = new[] { "07:00", "08:00", "08:30", "10:00", "13:00" }.Select(time => new Opening(
            At($"2026-12-01T{time}:00Z"),
            At($"2026-12-01T{time}:00Z"),
            1
        ));
        NearestOpenings
            .To(At("2026-12-01T09:00:00Z"), openings, 3)
            .Select(opening => opening.Start.ToString("HH:mm", null))
            .ShouldBe(["08:00", "08:30", "10:00"]);
    }

    [Fact]
    public void Unions_join_what_touches_and_drop_what_is_empty() =>
        SpanUnion
            .Of([
                Span("2026-12-01T10:00:00Z", "2026-12-01T11:00:00Z"),
                Span("2026-12-01T08:00:00Z", "2026-12-01T09:00:00Z"),
                Span("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z"),
                Span("2026-12-01T12:00:00Z", "2026-12-01T12:00:00Z"),
                Span("2026-12-01T08:10:00Z", "2026-12-01T08:20:00Z"),
            ])
            .ShouldBe([
                Span("2026-12-01T08:00:00Z", "2026-12-01T09:30:00Z"),
                Span("2026-12-01T10:00:00Z", "2026-12-01T11:00:00Z"),
            ]);

    [Theory]
    [InlineData("09:00", 540)]
    [InlineData("24:00", 1440)]
    [InlineData("00:00", 0)]
    [InlineData("24:01", -1)]
    [InlineData("9:00", -1)]
    [InlineData("09:60", -1)]
    [InlineData("+9:00", -1)]
    [InlineData("09:+5", -1)]
    [InlineData("0900:", -1)]
    [InlineData(null, -1)]
    public void Times_of_day_are_read_exactly(string? text, int expected) =>
        (OpenTime.TryParseMinute(text, out var minute) ? minute : -1).ShouldBe(expected);

    [Theory]
    [InlineData(600, 600)]
    [InlineData(600, 540)]
    [InlineData(-1, 60)]
    [InlineData(60, 1441)]
    public void An_open_time_that_is_none_is_refused(int from, int to) =>
        Should.Throw<ArgumentOutOfRangeException>(() => new OpenTime(from, to));
}
