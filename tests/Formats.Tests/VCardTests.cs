using System.Text;
using LooseLantern.Formats.Tables;
using LooseLantern.Formats.VCards;

namespace Formats.Tests;

/// <summary>Cards of other programs (RFC 6350, and 2426 before it).</summary>
public sealed class VCardTests
{
    private static IReadOnlyList<VCard> Read(string text, int most = 10) =>
        VCardReading.Read(Encoding.UTF8.GetBytes(text.ReplaceLineEndings("\r\n")), most);

    [Fact]
    public void A_card_of_version_4_is_read_with_its_preferred_email_first()
    {
        var card = Read(
                """
                BEGIN:VCARD
                VERSION:4.0
                FN:Ottilie Wren
                N:Wren;Ottilie;;;
                EMAIL;TYPE=home:home@wren.example
                EMAIL;PREF=1:mailto:ottilie@wren.example
                ORG:Wren Charters\, Ltd;Slip 2
                TEL;VALUE=uri;TYPE=cell:tel:+353-21-555-0101
                TZ:Europe/Dublin
                LANG:en
                NOTE:Rings rather
                  than writes\; before ten.
                END:VCARD
                """
            )
            .ShouldHaveSingleItem();
        (card.Line, card.Name, card.Organisation, card.Phone).ShouldBe(
            (1, "Ottilie Wren", "Wren Charters, Ltd", "+353-21-555-0101")
        );
        card.Emails.ShouldBe(["ottilie@wren.example", "home@wren.example"]);
        (card.Zone, card.Language, card.Note).ShouldBe(
            ("Europe/Dublin", "en", "Rings rather than writes; before ten.")
        );
    }

    [Fact]
    public void Groups_older_versions_and_names_in_parts_are_read()
    {
        var cards = Read(
            """
            BEGIN:VCARD
            VERSION:3.0
            N:Pell;Osric;Quill;Dr;
            item1.EMAIL;TYPE=INTERNET,pref:osric@pell.example
            EMAIL:old@pell.example
            TZ:-05:00
            END:VCARD
            BEGIN:VCARD
            VERSION:2.1
            FN:Too old
            END:VCARD
            BEGIN:VCARD
            VERSION:4.0
            FN:Ida
            PHOTO:data:image/png;base64,AAAA
            END:VCARD
            """
        );
        cards.Select(card => (card.Line, card.Name)).ShouldBe([(1, "Dr Osric Quill Pell"), (12, "Ida")]);
        cards[0].Emails.ShouldBe(["osric@pell.example", "old@pell.example"]);
        cards[0].Zone.ShouldBe("");
    }

    [Fact]
    public void What_has_no_cards_that_are_read_or_too_many_is_refused()
    {
        Should
            .Throw<TableFileException>(() => Read("BEGIN:VCARD\nVERSION:2.1\nFN:x\nEND:VCARD"))
            .Fault.ShouldBe(TableFault.NoCards);
        var one = "BEGIN:VCARD\nVERSION:4.0\nFN:x\nEND:VCARD\n";
        Should.Throw<TableFileException>(() => Read(one + one, most: 1)).Fault.ShouldBe(TableFault.TooManyRows);
        VCardReading.IsCards(Encoding.UTF8.GetBytes(one)).ShouldBeTrue();
        VCardReading.IsCards("Name,Email\n"u8.ToArray()).ShouldBeFalse();
    }

    [Fact]
    public void What_is_written_is_read_again_in_lines_of_75_octets()
    {
        var card = new VCard(
            1,
            "Zoë; Ängström, \\ and so on, a name that is longer than any line of a card may be",
            ["zoe@boat.example", "z@boat.example"],
            "Boats, Ltd",
            "+45 55 01 02 03",
            "Europe/Copenhagen",
            "da",
            "Boat: Tern\nRig: Ketch"
        );
        var text = VCardWriting.Write([(Guid.NewGuid(), card)]);
        text.Split("\r\n").ShouldAllBe(line => Encoding.UTF8.GetByteCount(line) <= 75);
        text.ShouldStartWith("BEGIN:VCARD\r\nVERSION:4.0\r\nUID:urn:uuid:");
        var read = Read(text).ShouldHaveSingleItem();
        read.Emails.ShouldBe(card.Emails);
        (read with { Emails = card.Emails }).ShouldBe(card);
    }
}
