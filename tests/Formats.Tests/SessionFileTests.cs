namespace Formats.Tests;

/// <summary>Sessions and own entries as they are written into calendars, read back from the text.</summary>
public class SessionFileTests
{
    private static readonly Span Time = new(Instant.FromUtc(2026, 12, 8, 8, 0), Instant.FromUtc(2026, 12, 8, 8, 45));
    private static readonly Participant Lead = new(
        Guid.NewGuid(),
        "Sunniva \"Sunny\" Dale",
        "sunniva@brackwater.example"
    );
    private static readonly Participant Slip = new(
        Guid.Parse("01234567-89ab-cdef-0123-456789abcdef"),
        "Slip 2",
        null,
        ParticipantKind.Room
    );

    private static SessionEvent Session(bool isHeld = false) =>
        new(
            "u1",
            3,
            Instant.FromUtc(2026, 12, 1, 0, 0),
            Time,
            "Hull survey: Ottilie, Wren",
            "Slip 2; Quay",
            "one\ntwo",
            isHeld,
            isHeld ? null : Lead,
            isHeld ? [] : [Lead, Slip]
        );

    [Fact]
    public void A_session_is_one_object_without_a_method_whose_every_party_is_ours_to_invite()
    {
        var lines = Lines(SessionFile.Write(Session()));
        lines.ShouldContain("SEQUENCE:3");
        lines.ShouldContain("STATUS:CONFIRMED");
        lines.ShouldContain("LOCATION:Slip 2\\; Quay");
        lines.ShouldNotContain(line => line.StartsWith("METHOD", StringComparison.Ordinal));
        var parties = lines
            .Where(line =>
                line.StartsWith("ORGANIZER", StringComparison.Ordinal)
                || line.StartsWith("ATTENDEE", StringComparison.Ordinal)
            )
            .ToList();
        parties.Count.ShouldBe(3);
        parties.ShouldAllBe(line => line.Contains("SCHEDULE-AGENT=CLIENT"));
        parties.ShouldContain(line =>
            line.Contains("CUTYPE=ROOM")
            && line.EndsWith(":urn:uuid:01234567-89ab-cdef-0123-456789abcdef", StringComparison.Ordinal)
        );
        // A quotation mark would end a parameter.
        parties.ShouldContain(line => line.Contains("CN=Sunniva 'Sunny' Dale"));
        CalendarFile.Parse(SessionFile.Write(Session())).TimeOf("u1").ShouldBe(Time);
    }

    [Fact]
    public void Held_time_is_tentative_and_asks_nobody()
    {
        var lines = Lines(SessionFile.Write(Session(isHeld: true)));
        lines.ShouldContain("STATUS:TENTATIVE");
        lines.ShouldNotContain(line => line.StartsWith("ORGANIZER", StringComparison.Ordinal));
    }

    [Fact]
    public void A_feed_says_what_it_is_and_how_often_to_ask()
    {
        var file = CalendarFile.Parse(
            SessionFile.WriteFeed("Bookings, mine", [Session(), Session() with { Uid = "u2" }])
        );
        file.EventCount.ShouldBe(2);
        file.Name.ShouldBe("Bookings, mine");
        file.RefreshEvery.ShouldBe(Duration.FromMinutes(5));
    }

    [Theory]
    [InlineData("REFRESH-INTERVAL;VALUE=DURATION:P1W", 7 * 24 * 60)]
    [InlineData("REFRESH-INTERVAL;VALUE=DURATION:PT90M", 90)]
    [InlineData("REFRESH-INTERVAL:soon", null)]
    [InlineData("X-OTHER:PT5M", null)]
    public void A_publishers_hint_is_read_where_it_can_be(string line, int? minutes) =>
        CalendarFile
            .Parse($"BEGIN:VCALENDAR\n{line}\nEND:VCALENDAR\n")
            .RefreshEvery.ShouldBe(minutes is { } some ? Duration.FromMinutes(some) : null);

    [Theory]
    [InlineData("DTSTART:20261208T080000Z\nDTEND:20261208T084500Z\n", true)]
    [InlineData("DTSTART;TZID=Europe/Copenhagen:20261208T090000\nDURATION:PT45M\n", true)]
    [InlineData("DTSTART:20261208T080000Z\nDTEND:20261208T084500Z\nSTATUS:CANCELLED\n", false)]
    [InlineData("DTSTART:nonsense\n", false)]
    public void The_time_of_one_event_is_found_by_its_uid(string lines, bool isThere)
    {
        var file = CalendarFile.Parse(
            $"BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:other\nDTSTART:20260101T000000Z\nEND:VEVENT\nBEGIN:VEVENT\nUID:u1\n{lines}END:VEVENT\nEND:VCALENDAR\n"
        );
        file.TimeOf("u1").ShouldBe(isThere ? Time : null);
        file.TimeOf("nobody's").ShouldBeNull();
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void An_own_entry_comes_back_on_its_hosts_wall_clock_over_a_clock_change(bool wholeDay)
    {
        var zone = DateTimeZoneProviders.Tzdb["Europe/Copenhagen"];
        var (start, end) = wholeDay
            ? (new LocalDateTime(2026, 10, 24, 0, 0), new LocalDateTime(2026, 10, 25, 0, 0))
            : (new LocalDateTime(2026, 10, 24, 9, 0), new LocalDateTime(2026, 10, 24, 9, 30));
        var text = OwnEntryFile.Write(
            new OwnEntry(
                "e",
                Instant.FromUtc(2026, 10, 1, 0, 0),
                "Dentist",
                start,
                end,
                wholeDay,
                zone.Id,
                "FREQ=DAILY;COUNT=3",
                IsFree: false,
                IsTentative: true
            )
        );
        var read = CalendarFile
            .Parse(text)
            .Read(
                new Span(Instant.FromUtc(2026, 10, 1, 0, 0), Instant.FromUtc(2026, 11, 1, 0, 0)),
                zone,
                new ReadingBudget()
            );
        read.Unread.ShouldBeEmpty();
        read.Entries.Select(entry => entry.Time.Start.InZone(zone).LocalDateTime)
            .ShouldBe([start, start.PlusDays(1), start.PlusDays(2)]);
        read.Entries.ShouldAllBe(entry => entry.Tentative && !entry.Free && entry.WholeDay == wholeDay);
    }

    private static string[] Lines(string text) => text.ReplaceLineEndings("\n").Replace("\n ", "").Split('\n');
}
