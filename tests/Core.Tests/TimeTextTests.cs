using System.Globalization;
using LooseLantern.Core.TimeText;
using static Core.Tests.Sketch;
using Clock = LooseLantern.Core.TimeText.Clock;

namespace Core.Tests;

public class TimeTextTests
{
    private static readonly DateTimeZone NewYork = DateTimeZoneProviders.Tzdb["America/New_York"];

    [Theory]
    [InlineData("en-GB", "Times in Copenhagen (UTC+1)|Tuesday, 1 December|  09:00–09:30|  13:30–14:00")]
    [InlineData("en-US", "Times in Copenhagen (UTC+1)|Tuesday, December 1|  9:00 AM–9:30 AM|  1:30 PM–2:00 PM")]
    [InlineData("de", "Zeiten in Copenhagen (UTC+1)|Dienstag, 1. Dezember|  09:00–09:30|  13:30–14:00")]
    [InlineData("fr", "Heures de Copenhagen (UTC+1)|Mardi 1 décembre|  09:00–09:30|  13:30–14:00")]
    [InlineData("es", "Horas de Copenhagen (UTC+1)|Martes, 1 de diciembre|  9:00–9:30|  13:30–14:00")]
    [InlineData("da", "Tider i Copenhagen (UTC+1)|Tirsdag den 1. december|  09.00–09.30|  13.30–14.00")]
    public void Dates_and_times_are_in_the_forms_of_the_language(string culture, string expected) =>
        Text(culture, Clock.Usual, null, false, "2026-12-01T08:00:00Z", "2026-12-01T12:30:00Z").ShouldBe(expected);

    [Theory]
    [InlineData("en-GB", Clock.Hours12, "9:00 am–9:30 am", "1:30 pm–2:00 pm")]
    [InlineData("en-US", Clock.Hours24, "09:00–09:30", "13:30–14:00")]
    [InlineData("da", Clock.Hours12, "9.00 AM–9.30 AM", "1.30 PM–2.00 PM")]
    public void Either_clock_goes_with_any_language(string culture, Clock clock, string morning, string afternoon)
    {
        var lines = Text(culture, clock, null, false, "2026-12-01T08:00:00Z", "2026-12-01T12:30:00Z").Split('|');
        lines[2].Trim().ShouldBe(morning);
        lines[3].Trim().ShouldBe(afternoon);
    }

    [Fact]
    public void Openings_that_touch_become_a_range_on_request_and_never_over_midnight()
    {
        string[] starts =
        [
            "2026-12-01T08:00:00Z",
            "2026-12-01T08:15:00Z",
            "2026-12-01T08:45:00Z",
            "2026-12-01T10:00:00Z",
            "2026-12-01T22:30:00Z",
            "2026-12-01T23:00:00Z",
        ];
        Text("en-GB", Clock.Usual, null, true, starts)
            .ShouldBe(
                "Times in Copenhagen (UTC+1)|Tuesday, 1 December|  09:00–10:15|  11:00–11:30|  23:30–00:00|Wednesday, 2 December|  00:00–00:30"
            );
        Text("en-GB", Clock.Usual, null, false, starts).Split('|').Length.ShouldBe(9);
    }

    [Fact]
    public void An_end_that_its_clock_shows_twice_tells_which_is_meant() =>
        Text("en-GB", Clock.Usual, null, false, "2026-10-24T23:45:00Z")
            .ShouldBe("Times in Copenhagen (UTC+2)|Sunday, 25 October|  01:45–02:15 UTC+2");

    [Fact]
    public void A_second_zone_stands_behind_with_its_weekday_where_that_differs()
    {
        Text("en-GB", Clock.Usual, NewYork, false, "2026-12-01T01:00:00Z", "2026-12-01T14:00:00Z")
            .ShouldBe(
                "Times in Copenhagen (UTC+1) / New York (UTC-5)|Tuesday, 1 December|  02:00–02:30 (Mon 20:00–20:30 New York)|  15:00–15:30 (09:00–09:30 New York)"
            );
    }

    [Fact]
    public void Over_midnight_the_end_bears_its_weekday() =>
        Text("en-GB", Clock.Usual, null, false, "2026-12-01T22:45:00Z")
            .ShouldBe("Times in Copenhagen (UTC+1)|Tuesday, 1 December|  23:45–Wed 00:15");

    [Fact]
    public void Where_the_clock_goes_back_no_two_times_read_alike() =>
        Text(
                "en-GB",
                Clock.Usual,
                null,
                false,
                "2026-10-24T08:00:00Z",
                "2026-10-25T00:15:00Z",
                "2026-10-25T01:15:00Z",
                "2026-10-26T08:00:00Z"
            )
            .ShouldBe(
                "Times in Copenhagen|Saturday, 24 October (UTC+2)|  10:00–10:30|Sunday, 25 October|  02:15–02:45 UTC+2|  02:15–02:45 UTC+1|Monday, 26 October (UTC+1)|  09:00–09:30"
            );

    [Fact]
    public void A_second_zone_whose_clock_goes_back_tells_which_time_it_is() =>
        Text("en-GB", Clock.Usual, NewYork, false, "2026-11-01T05:15:00Z", "2026-11-01T06:15:00Z")
            .ShouldBe(
                "Times in Copenhagen (UTC+1) / New York|Sunday, 1 November|  06:15–06:45 (01:15–01:45 UTC-4 New York)|  07:15–07:45 (01:15–01:45 UTC-5 New York)"
            );

    [Fact]
    public void An_appointment_over_the_change_tells_both_sides() =>
        Text("en-GB", Clock.Usual, null, false, "2026-03-29T00:45:00Z")
            .ShouldBe("Times in Copenhagen|Sunday, 29 March|  01:45 UTC+1–03:15 UTC+2");

    [Fact]
    public void The_year_is_written_of_dates_in_another_one() =>
        Text("de", Clock.Usual, null, false, "2027-01-04T08:00:00Z")
            .ShouldBe("Zeiten in Copenhagen (UTC+1)|Montag, 4. Januar 2027|  09:00–09:30");

    [Theory]
    [InlineData("America/St_Johns", "Times in St Johns (UTC-3:30)")]
    [InlineData("UTC", "Times in UTC (UTC)")]
    [InlineData("Asia/Kathmandu", "Times in Kathmandu (UTC+5:45)")]
    [InlineData("Pacific/Kiritimati", "Times in Kiritimati (UTC+14)")]
    public void Odd_offsets_are_written_out(string zone, string expected) =>
        TimeTextWriter
            .Write(
                [Half("2026-12-01T08:00:00Z")],
                new TimeTextRequest(
                    CultureInfo.GetCultureInfo("en"),
                    Clock.Hours24,
                    DateTimeZoneProviders.Tzdb[zone],
                    null,
                    false,
                    new(2026, 12, 1)
                )
            )
            .Zones.ShouldBe(expected);

    private static string Text(string culture, Clock clock, DateTimeZone? second, bool merge, params string[] starts) =>
        TimeTextWriter
            .Write(
                starts.Reverse().Select(Half),
                new TimeTextRequest(
                    CultureInfo.GetCultureInfo(culture),
                    clock,
                    Copenhagen,
                    second,
                    merge,
                    new LocalDate(2026, 12, 1)
                )
            )
            .ToString()
            .Replace('\n', '|');

    private static Opening Half(string start) => new(At(start), At(start) + Duration.FromMinutes(30), 1);
}
