using System.Text;
using static Formats.Tests.CalendarText;

namespace Formats.Tests;

public class BrokenFileTests
{
    [Theory]
    [InlineData("", null, "empty")]
    [InlineData("Name;Date\nTea;4 May\n", 1, "BEGIN:VCALENDAR")]
    [InlineData("BEGIN:VCALENDAR\nBEGIN:VEVENT\nEND:VCALENDAR\n", 3, "VEVENT that began on line 2")]
    [InlineData("BEGIN:VCALENDAR\nVERSION:2.0\nBEGIN:VEVENT\nSUMMARY:Tea\n", 3, "cut off")]
    [InlineData("BEGIN:VCALENDAR\nthis is no property\nEND:VCALENDAR\n", 2, "no property")]
    [InlineData("BEGIN:VCALENDAR\nEND:VCALENDAR\nhello\n", 3, "after END:VCALENDAR")]
    public void A_file_that_breaks_off_is_refused_with_what_and_where(string text, int? line, string word)
    {
        var refusal = Should.Throw<CalendarFileException>(() => CalendarFile.Parse(text));
        refusal.Line.ShouldBe(line);
        refusal.Message.ShouldContain(word);
    }

    [Fact]
    public void Bytes_that_are_not_UTF8_are_refused_with_their_line()
    {
        var bytes = Encoding.Latin1.GetBytes("BEGIN:VCALENDAR\nX-NAME:Bådeværft\nEND:VCALENDAR\n");
        Should.Throw<CalendarFileException>(() => CalendarFile.Parse(bytes)).Line.ShouldBe(2);
    }

    [Fact]
    public void What_of_a_title_can_be_kept_by_no_means_is_left_out() =>
        Read(Event("UID:a\nSUMMARY:Te\0a\nDTSTART:20260504T090000Z\nDURATION:PT1H")).Entries[0].Title.ShouldBe("Tea");

    [Fact]
    public void A_byte_order_mark_and_bare_line_feeds_are_no_fault() =>
        CalendarFile.Parse([0xEF, 0xBB, 0xBF, .. Encoding.UTF8.GetBytes(Calendar())]).EventCount.ShouldBe(0);

    [Theory]
    [InlineData("SUMMARY:No start", "no DTSTART")]
    [InlineData("SUMMARY:x\nDTSTART:2026-05-04", "neither a date")]
    [InlineData("SUMMARY:x\nDTSTART:20261340T250000", "neither a date")]
    [InlineData("SUMMARY:x\nDTSTART:20260504T090000Z\nDTEND:20260504T080000Z", "ends before it starts")]
    [InlineData("SUMMARY:x\nDTSTART:20260504T090000Z\nDTEND;VALUE=DATE:20260505", "both be dates or both be times")]
    [InlineData("SUMMARY:x\nDTSTART:20260504T090000Z\nDURATION:one hour", "no length of time")]
    [InlineData("SUMMARY:x\nDTSTART:20260504T090000Z\nDTSTART:20260505T090000Z", "a second time")]
    [InlineData("SUMMARY:x\nDTSTART:20260504T090000Z\nnot a property", "no property")]
    public void A_broken_event_is_listed_and_the_rest_is_read(string broken, string word)
    {
        var reading = Read(
            Event("UID:a\n" + broken),
            Event("UID:b\nSUMMARY:Good\nDTSTART:20260504T090000Z\nDURATION:PT1H")
        );

        reading.Entries.ShouldHaveSingleItem().Title.ShouldBe("Good");
        var unread = reading.Unread.ShouldHaveSingleItem();
        unread.Fault.ShouldContain(word);
        unread.Line.ShouldBeInRange(4, 10);
    }
}
