using CsCheck;
using LooseLantern.Core.Reminders;

namespace Core.Tests;

/// <summary>When reminders are due, and what waits for the end of quiet hours.</summary>
public class ReminderTests
{
    private static readonly DateTimeZone Copenhagen = DateTimeZoneProviders.Tzdb["Europe/Copenhagen"];
    private static readonly QuietHours Night = new(new LocalTime(21, 0), new LocalTime(8, 0));

    [Fact]
    public void A_day_before_is_the_same_time_of_day_also_over_a_clock_change_and_hours_are_time_that_passes()
    {
        // The clock goes forward on 28 March 2027 at 2:00.
        var start = Local(2027, 3, 28, 9, 0);
        ReminderTimes.DueAt(start, 1440, Copenhagen).ShouldBe(Local(2027, 3, 27, 9, 0));
        ReminderTimes.DueAt(start, 60, Copenhagen).ShouldBe(Local(2027, 3, 28, 8, 0));
        ReminderTimes.DueAt(start, 8 * 60, Copenhagen).ShouldBe(start - Duration.FromHours(8));
        ReminderTimes.DueAt(start, 2 * 1440, Copenhagen).ShouldBe(Local(2027, 3, 26, 9, 0));
        // At the start itself means that instant, in the second pass of an hour that comes twice as well.
        ReminderTimes
            .DueAt(Sketch.At("2026-10-25T01:30:00Z"), 0, Copenhagen)
            .ShouldBe(Sketch.At("2026-10-25T01:30:00Z"));
    }

    [Fact]
    public void What_falls_in_the_night_comes_in_the_morning_and_what_does_not_comes_at_once()
    {
        Night.After(Local(2026, 12, 8, 23, 30), Copenhagen).ShouldBe(Local(2026, 12, 9, 8, 0));
        Night.After(Local(2026, 12, 8, 3, 0), Copenhagen).ShouldBe(Local(2026, 12, 8, 8, 0));
        Night.After(Local(2026, 12, 8, 21, 0), Copenhagen).ShouldBe(Local(2026, 12, 9, 8, 0));
        Night.After(Local(2026, 12, 8, 8, 0), Copenhagen).ShouldBe(Local(2026, 12, 8, 8, 0));
        new QuietHours(new LocalTime(12, 0), new LocalTime(13, 0))
            .After(Local(2026, 12, 8, 12, 0), Copenhagen)
            .ShouldBe(Local(2026, 12, 8, 13, 0));
        new QuietHours(new LocalTime(12, 0), new LocalTime(13, 0))
            .After(Local(2026, 12, 8, 12, 59), Copenhagen)
            .ShouldBe(Local(2026, 12, 8, 13, 0));
    }

    [Fact]
    public void What_begins_soon_after_the_night_can_not_wait()
    {
        var due = Local(2026, 12, 9, 7, 30);
        Night.After(due, Local(2026, 12, 9, 8, 30), Copenhagen).ShouldBe(due);
        Night.After(due, Local(2026, 12, 9, 9, 0), Copenhagen).ShouldBe(Local(2026, 12, 9, 8, 0));
    }

    [Fact]
    public void Nothing_that_waits_comes_earlier_in_quiet_hours_or_more_than_a_day_late()
    {
        var zones = new[] { "Europe/Copenhagen", "America/St_Johns", "Australia/Lord_Howe", "America/Sao_Paulo" }
            .Select(id => DateTimeZoneProviders.Tzdb[id])
            .ToArray();
        Gen.Select(Gen.Long[0, 400L * 24 * 60], Gen.Int[0, 95], Gen.Int[0, 95], Gen.Int[0, zones.Length - 1])
            .Where(drawn => drawn.Item2 != drawn.Item3)
            .Sample(
                (minute, from, until, zone) =>
                {
                    var quiet = new QuietHours(
                        LocalTime.Midnight.PlusMinutes(from * 15),
                        LocalTime.Midnight.PlusMinutes(until * 15)
                    );
                    var due = Instant.FromUtc(2026, 6, 1, 0, 0) + Duration.FromMinutes(minute);
                    var told = quiet.After(due, zones[zone]);
                    told.ShouldBeGreaterThanOrEqualTo(due);
                    (told - due).ShouldBeLessThanOrEqualTo(Duration.FromHours(26));
                    // Asked again it stays: the end of quiet hours is not quiet.
                    quiet.After(told, zones[zone]).ShouldBe(told);
                }
            );
    }

    private static Instant Local(int year, int month, int day, int hour, int minute) =>
        new LocalDateTime(year, month, day, hour, minute).InZoneStrictly(Copenhagen).ToInstant();
}
