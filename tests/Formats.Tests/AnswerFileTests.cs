namespace Formats.Tests;

/// <summary>What calendars answer to invitations, as different programs write it.</summary>
public class AnswerFileTests
{
    [Theory]
    [InlineData("ACCEPTED", AnswerKind.Accepted)]
    [InlineData("accepted", AnswerKind.Accepted)]
    [InlineData("TENTATIVE", AnswerKind.Tentative)]
    [InlineData("DECLINED", AnswerKind.Declined)]
    public void An_answer_says_who_and_how(string status, AnswerKind kind)
    {
        var answer = AnswerFile.Read(
            Reply(
                $"ATTENDEE;CN=\"Wren, Ottilie\";PARTSTAT={status}:MAILTO:ottilie@wren.example",
                "COMMENT:The boat\\, she is sold."
            )
        );
        (answer.Kind, answer.Uid, answer.Sequence, answer.Attendee, answer.Wish, answer.Comment).ShouldBe(
            (kind, "u-1", 2, "ottilie@wren.example", null, "The boat, she is sold.")
        );
    }

    [Fact]
    public void A_counter_asks_for_a_time_in_any_zone()
    {
        var text = Reply("ATTENDEE;PARTSTAT=TENTATIVE:mailto:ottilie@wren.example")
            .Replace("METHOD:REPLY", "METHOD:COUNTER")
            .Replace("DTSTART:20261208T080000Z", "DTSTART;TZID=Europe/Copenhagen:20261208T110000")
            .Replace("DTEND:20261208T083000Z", "DURATION:PT45M");
        var answer = AnswerFile.Read(text);
        answer.Kind.ShouldBe(AnswerKind.Counter);
        answer.Wish.ShouldBe(new Span(Instant.FromUtc(2026, 12, 8, 10, 0), Instant.FromUtc(2026, 12, 8, 10, 45)));
    }

    [Theory]
    [InlineData("nothing at all")]
    [InlineData("")]
    [InlineData("BEGIN:VCALENDAR\nMETHOD:REPLY\nEND:VCALENDAR")]
    [InlineData(
        "BEGIN:VCALENDAR\nMETHOD:REPLY\nBEGIN:VEVENT\nUID:u-1\nDTSTART:20261208T080000Z\nEND:VEVENT\nEND:VCALENDAR"
    )]
    [InlineData(
        "BEGIN:VCALENDAR\nMETHOD:REPLY\nBEGIN:VEVENT\nUID:u-1\nDTSTART:yesterday\nATTENDEE;PARTSTAT=ACCEPTED:mailto:a@b.example\nEND:VEVENT"
    )]
    [InlineData(
        "BEGIN:VCALENDAR\nMETHOD:COUNTER\nBEGIN:VEVENT\nUID:u-1\nDTSTART;VALUE=DATE:20261208\nATTENDEE:mailto:a@b.example\nEND:VEVENT\nEND:VCALENDAR"
    )]
    [InlineData(
        "BEGIN:VCALENDAR\nMETHOD:COUNTER\nBEGIN:VEVENT\nUID:u-1\nATTENDEE:mailto:a@b.example\nEND:VEVENT\nEND:VCALENDAR"
    )]
    public void What_is_no_answer_is_refused_in_words(string text) =>
        Should.Throw<AnswerException>(() => AnswerFile.Read(text)).Message.ShouldEndWith(".");

    [Fact]
    public void A_part_of_a_size_that_no_answer_has_is_not_read() =>
        Should
            .Throw<AnswerException>(() => AnswerFile.Read(new string('x', AnswerFile.MostCharacters + 1)))
            .Message.ShouldContain("too large");

    private static string Reply(string attendee, string more = "") =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Elsewhere//EN\r\nMETHOD:REPLY\r\nBEGIN:VEVENT\r\nUID:u-1\r\nSEQUENCE:2\r\nDTSTAMP:20261207T080000Z\r\nDTSTART:20261208T080000Z\r\nDTEND:20261208T083000Z\r\n{attendee}\r\n{(more.Length > 0 ? more + "\r\n" : "")}END:VEVENT\r\nEND:VCALENDAR\r\n";
}
