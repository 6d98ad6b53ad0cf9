using System.Text;

namespace Formats.Tests;

/// <summary>Invitations as they go by mail.</summary>
public class InvitationFileTests
{
    private static readonly Span Time = new(Instant.FromUtc(2026, 12, 8, 8, 0), Instant.FromUtc(2026, 12, 8, 8, 45));
    private static readonly Participant Lead = new(Guid.NewGuid(), "Sunniva Dale", "sunniva@brackwater.example");
    private static readonly Participant Guest = new(Guid.NewGuid(), "Ottilie Wren", "ottilie@wren-charters.example");

    private static string[] Lines(InvitationMethod method) =>
        Folding
            .Unfold(
                InvitationFile.Write(
                    new InvitationEvent(
                        method,
                        "u1",
                        2,
                        Instant.FromUtc(2026, 12, 1, 0, 0),
                        Time,
                        "Hull survey",
                        "Slip 2",
                        "See it here",
                        Lead,
                        "b.0a1b@replies.example",
                        [Guest],
                        [Lead]
                    )
                )
            )
            .Split("\r\n");

    [Fact]
    public void A_request_asks_the_guest_names_the_lead_and_is_answered_at_the_bookings_own_address()
    {
        var lines = Lines(InvitationMethod.Request);
        lines.ShouldContain("METHOD:REQUEST");
        lines.ShouldContain("SEQUENCE:2");
        lines.ShouldContain("STATUS:CONFIRMED");
        lines.ShouldContain("ORGANIZER;CN=Sunniva Dale;EMAIL=sunniva@brackwater.example:mailto:b.0a1b@replies.example");
        lines.ShouldContain(line =>
            line.StartsWith("ATTENDEE;CN=Ottilie Wren", StringComparison.Ordinal)
            && line.Contains("PARTSTAT=NEEDS-ACTION")
            && line.Contains("RSVP=TRUE")
        );
        lines.ShouldContain(line =>
            line.StartsWith("ATTENDEE;CN=Sunniva Dale", StringComparison.Ordinal) && line.Contains("PARTSTAT=ACCEPTED")
        );
        lines.ShouldContain("TRIGGER:-PT1H");
    }

    [Fact]
    public void A_cancellation_says_so_and_rings_no_more()
    {
        var lines = Lines(InvitationMethod.Cancel);
        lines.ShouldContain("METHOD:CANCEL");
        lines.ShouldContain("STATUS:CANCELLED");
        lines.ShouldContain("UID:u1");
        lines.ShouldNotContain("BEGIN:VALARM");
    }

    /// <summary>
    /// Another reader than ours, the one that calendar programs of the web have, takes the same files:
    /// web/src/lib/post/invitations.test.ts.
    /// </summary>
    [Theory]
    [InlineData(InvitationMethod.Request, "request.ics")]
    [InlineData(InvitationMethod.Cancel, "cancel.ics")]
    public void Invitations_are_written_as_the_files_that_others_are_tried_with(InvitationMethod method, string file)
    {
        var slip = new Participant(
            Guid.Parse("01a21ba5-0000-7000-8000-000000000001"),
            "Slip \"2\"",
            null,
            ParticipantKind.Room
        );
        var written = Folding.Fold(
            Folding.Unfold(
                InvitationFile.Write(
                    new InvitationEvent(
                        method,
                        "01a21ba5-618c-78cd-a98d-961c543613ce",
                        3,
                        Instant.FromUtc(2026, 12, 1, 0, 0),
                        Time,
                        "Hull survey, with Öre; und \u26f5",
                        "Slip 2, Brackwater Quay",
                        "Sunniva Dale\nYour booking: https://lantern.example/booking/75JgOfqJrkms7Pr9A4nVkUxt",
                        Lead,
                        "b.0a1b@replies.example",
                        [Guest, Guest with { Name = "Bram Wren", Email = "bram@wren-charters.example" }],
                        [Lead, slip]
                    )
                )
            )
        );
        var path = Path.Combine(AppContext.BaseDirectory, "Invitations", file);
        if (Environment.GetEnvironmentVariable("LANTERN_WRITE_FILES") is { } folder)
            File.WriteAllText(Path.Combine(folder, file), written);
        File.ReadAllText(path).ReplaceLineEndings("\n").ShouldBe(written.ReplaceLineEndings("\n"));
    }

    [Theory]
    [InlineData("SUMMARY:short")]
    [InlineData("SUMMARY:exactly seventy-five octets long, which is as long as a line may get ....")]
    [InlineData("SUMMARY:ein sehr langer Titel mit Umlauten: äöüß äöüß äöüß äöüß äöüß äöüß äöüß äöüß äöüß äöüß äöüß")]
    [InlineData("SUMMARY:⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵⛵😀😀😀😀😀😀😀😀😀😀😀😀😀😀😀😀😀😀😀😀")]
    public void Lines_are_folded_to_75_octets_between_letters_and_come_back_whole(string line)
    {
        var folded = Folding.Fold(line);
        folded.Split("\r\n").ShouldAllBe(part => Encoding.UTF8.GetByteCount(part) <= 75 && !part.Contains('�'));
        Folding.Unfold(folded).ShouldBe(line + "\r\n");
    }
}
