namespace Formats.Tests;

public class BookingFileTests
{
    private static readonly BookingEvent Booking = new(
        "7f3a@loose-lantern",
        2,
        Instant.FromUtc(2026, 5, 1, 8, 0),
        new Span(Instant.FromUtc(2026, 5, 4, 9, 0), Instant.FromUtc(2026, 5, 4, 9, 45)),
        "Hull survey, afloat; with Sunniva Dale",
        "Slip 2,\nBrackwater Quay",
        new string('x', 200),
        new Uri("http://127.0.0.1/booking/abc")
    );

    [Fact]
    public void What_is_written_reads_back_the_same()
    {
        var reading = CalendarFile
            .Parse(BookingFile.Write(Booking))
            .Read(CalendarText.Year(2026), CalendarText.Copenhagen, new ReadingBudget());

        reading.Unread.ShouldBeEmpty();
        var entry = reading.Entries.ShouldHaveSingleItem();
        (entry.Uid, entry.Title, entry.Time).ShouldBe((Booking.Uid, Booking.Title, Booking.Time));
    }

    [Fact]
    public void Is_a_valid_iCalendar_object()
    {
        var text = BookingFile.Write(Booking);

        // RFC 5545 section 3.1: CRLF, at most 75 octets a line; section 3.6: PRODID and VERSION once; 3.6.1: UID and
        // DTSTAMP once.
        text.Replace("\r\n", "").ShouldNotContain('\n');
        text.Split("\r\n").ShouldAllBe(line => System.Text.Encoding.UTF8.GetByteCount(line) <= 75);
        foreach (
            var once in new[]
            {
                "PRODID:",
                "VERSION:2.0",
                "UID:",
                "DTSTAMP:20260501T080000Z",
                "SEQUENCE:2",
                "DTSTART:20260504T090000Z",
            }
        )
            text.Split("\r\n").Count(line => line.StartsWith(once, StringComparison.Ordinal)).ShouldBe(1, once);
        text.ShouldContain("LOCATION:Slip 2\\,\\nBrackwater Quay");
    }
}
