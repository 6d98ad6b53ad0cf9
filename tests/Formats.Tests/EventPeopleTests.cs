using static Formats.Tests.CalendarText;

namespace Formats.Tests;

public class EventPeopleTests
{
    private const string When = "UID:a\nDTSTART:20260504T090000Z\nDTEND:20260504T100000Z\n";

    [Theory]
    [InlineData(
        "ORGANIZER;CN=Sunniva Dale:mailto:sunniva@brackwater.example\nATTENDEE;CN=\"Wren, Ottilie\":mailto:ottilie@wren.example",
        "Sunniva Dale <sunniva@brackwater.example>; Wren, Ottilie <ottilie@wren.example>"
    )]
    [InlineData("ATTENDEE:MAILTO:barnaby%40quill.example", " <barnaby@quill.example>")]
    [InlineData("ATTENDEE;CN=Ottilie;EMAIL=ottilie@wren.example:urn:uuid:7d0f", "Ottilie <ottilie@wren.example>")]
    [InlineData(
        "ATTENDEE;CUTYPE=ROOM;CN=Slip:mailto:slip@brackwater.example\nATTENDEE;CUTYPE=RESOURCE:mailto:lift@brackwater.example\nATTENDEE;CUTYPE=GROUP:mailto:all@brackwater.example",
        ""
    )]
    [InlineData(
        "ORGANIZER:mailto:sunniva@brackwater.example\nATTENDEE;CN=Sunniva:mailto:Sunniva@brackwater.example\nATTENDEE:urn:uuid:7d0f",
        " <sunniva@brackwater.example>"
    )]
    public void Says_who_takes_part(string lines, string expected) =>
        string.Join(
                "; ",
                Read(Event(When + lines))
                    .Entries.ShouldHaveSingleItem()
                    .People.Select(person => $"{person.Name} <{person.Email}>")
            )
            .ShouldBe(expected);

    [Fact]
    public void Another_version_of_one_occurrence_has_people_of_its_own()
    {
        var series = Event(
            "UID:a\nDTSTART:20260504T090000Z\nDURATION:PT1H\nRRULE:FREQ=DAILY;COUNT=2\nATTENDEE:mailto:one@wren.example"
        );
        var version = Event(
            "UID:a\nRECURRENCE-ID:20260505T090000Z\nDTSTART:20260505T120000Z\nDURATION:PT1H\nATTENDEE:mailto:two@wren.example"
        );
        Read(series, version)
            .Entries.Select(entry => entry.People.ShouldHaveSingleItem().Email)
            .ShouldBe(["one@wren.example", "two@wren.example"]);
    }
}
