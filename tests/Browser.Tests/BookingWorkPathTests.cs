namespace Browser.Tests;

/// <summary>Bookings are chosen, saved as a view, exported, printed, and worked on from their own screen.</summary>
public sealed class BookingWorkPathTests(Site site) : IClassFixture<Site>
{
    private const string Exported =
        "return fetch(document.querySelector('a[href*=\"export.csv\"]').href).then((answer) => answer.text())";

    [Fact]
    public void A_view_is_saved_found_again_exported_and_printed()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/bookings");
        marit.Choose("Host", "Sunniva Dale");
        marit.AwaitNoText("Fergal Mulhearn");
        marit.SetDate("to", "2026-12-08");
        marit.AwaitNoText("Osric Pell");
        marit.Press("Save this view");
        marit.Type("Name", "Sunniva until Tuesday");
        marit.Press("Save view");
        marit.Press("Everything");
        marit.AwaitText("Fergal Mulhearn");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Sunniva until Tuesday");
        marit.AwaitText("1 of 1");
        var exported = (string)marit.Ask(Exported)!;
        exported.ShouldContain("Sunniva Dale,Jasper Holloway-Finch");
        exported.Trim().Split('\n').Length.ShouldBe(2, exported);

        marit.SetDate("from", "2026-12-09");
        marit.AwaitText("The last date comes before the first");
        marit.Press("Everything");
        marit.Press("Print a day or week");
        marit.AwaitText("Monday, 7 December 2026 to Sunday, 13 December 2026");
        marit.AwaitText("Fergal Mulhearn");
        marit.Click(marit.Field("guests’ names"));
        marit.AwaitNoText("Fergal Mulhearn");
        marit.AwaitText("1 guest");
        marit.AccessibilityFaults().ShouldBeEmpty();
    }

    [Fact]
    public void A_booking_is_noted_given_to_another_written_about_and_joined_by_one_more()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/bookings?search=Fergal");
        marit.Press("Fergal Mulhearn");
        marit.Type("A note that only your team sees", "Has a dog.");
        marit.Press("Add note");
        marit.AwaitText("Marit Oakes, 7 Dec");

        marit.Press("Give to another: Tomasz Reed");
        marit.AwaitText("Instead of Tomasz Reed, free then:");
        marit.AwaitText("0 bookings that week");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Give");
        marit.AwaitText("Choose somebody first.");
        marit.Click(
            marit.Await(
                b =>
                    b.All("#to label")
                        .FirstOrDefault(label => label.Text.Contains("Keziah Moon", StringComparison.Ordinal)),
                "Keziah among who could take it"
            )
        );
        marit.Press("Give");
        marit.AwaitText("Keziah Moon has it now.");
        marit.AwaitText("Gave the booking of Fergal Mulhearn from Tomasz Reed to Keziah Moon");

        marit.Press("By day");
        marit.AwaitText("Who of your team did what, and for whom.");
        marit.AwaitText("for Keziah Moon, Tomasz Reed");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Gave the booking of Fergal Mulhearn from Tomasz Reed to Keziah Moon");

        marit.Press("Write");
        marit.Type("Your words", "Bring boots.");
        marit.Press("Send");
        marit.AwaitText("Sent to Fergal Mulhearn.");
        marit.Press("Add a person");
        marit.Type("Their name", "Tora Lind");
        marit.Type("Their email", "tora@lind.example");
        marit.Press("Send invitations");
        marit.AwaitText("Tora Lind, tora@lind.example");
        marit.Press("Book the next one");
        marit.AwaitText("Fergal Mulhearn");
        marit.AwaitText("Keziah Moon");

        using var mail = new Chromium(site.Calendars);
        mail.AwaitMail("fergal@mulhearn-tugs.example", "Hull survey on the slip");
        mail.AwaitMail("tora@lind.example", "Hull survey on the slip");
    }
}
