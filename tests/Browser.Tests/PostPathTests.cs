namespace Browser.Tests;

/// <summary>From a booking to its invitation and its end, with the mail read where it comes in.</summary>
public sealed class PostPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_guest_reads_the_invitation_cancels_by_its_link_and_both_sides_are_told()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater/sail-fitting");
        guest.Press("Tuesday, 08:00");
        guest.Type("Your name", "Dervla Keane");
        guest.Type("Your email", "dervla@keane-sloops.example");
        guest.Press("Reserve 08:00 on Tuesday");
        guest.AwaitText("You’re booked");

        using var mail = new Chromium(site.Calendars);
        AwaitMail(mail, "dervla@keane-sloops.example", "Sail fitting in the loft: Tuesday, 8 December");
        mail.AwaitText("Hello Dervla,");
        mail.AwaitText("with an invitation (REQUEST)");
        AwaitMail(mail, "piet@brackwater.example", "New: Dervla Keane, Sail fitting in the loft");

        // The link in the mail leads to the booking.
        mail.Open("/mail/dervla@keane-sloops.example");
        var link = new Uri(mail.Find("pre a").GetAttribute("href")!);
        guest.Open(link.AbsolutePath);
        guest.AwaitText("You’re booked");
        guest.Press("Cancel this booking");
        guest.AwaitText("The time becomes free at once, and Piet Lund gets a mail.");
        guest.AccessibilityFaults().ShouldBeEmpty();
        guest.Type("Reason, for Piet Lund (optional)", "The sail is not back from the drier.");
        guest.Press("Cancel the booking");
        guest.AwaitText("You cancelled this booking");
        guest.AwaitNone("Cancel this booking");
        guest.TooSmallForThumbs().ShouldBeEmpty();
        guest.Press("See other times of “Sail fitting in the loft”");
        guest.Named("Tuesday, 08:00");

        AwaitMail(mail, "dervla@keane-sloops.example", "Cancelled: Sail fitting in the loft");
        mail.AwaitText("with an invitation (CANCEL)");
        AwaitMail(mail, "piet@brackwater.example", "Cancelled: Dervla Keane");
        mail.AwaitText("The sail is not back from the drier.");
    }

    [Fact]
    public void A_coordinator_cancels_with_a_word_and_reads_in_the_post_what_went_out()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater/sail-fitting");
        guest.Press("Thursday, 09:00");
        guest.Type("Your name", "Wenna Treloar");
        guest.Type("Your email", "wenna@treloar-sails.example");
        guest.Press("Reserve 09:00 on Thursday");
        guest.AwaitText("You’re booked");

        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Bookings");
        coordinator.Type("Search by guest or page", "treloar-sails");
        // Once the others are gone, nothing moves any more beneath the press.
        coordinator.AwaitNoText("Fergal Mulhearn");
        coordinator.Press("Cancel the booking of Wenna Treloar");
        coordinator.Type("Reason, for Wenna Treloar (optional)", "The loft floor is being varnished.");
        coordinator.Press("Cancel the booking");
        coordinator.AwaitText("Nothing matches “treloar-sails”");
        coordinator.Press("Cancelled");
        coordinator.AwaitText("by your team: The loft floor is being varnished.");

        coordinator.Press("Post");
        coordinator.Type("Search by reader or subject", "wenna@treloar-sails");
        coordinator.AwaitText("Cancelled: Sail fitting in the loft");
        coordinator.Await(
            b =>
                b.All("ul li button[aria-pressed]")
                    .FirstOrDefault(row => row.Text.Contains("Cancelled: Sail fitting", StringComparison.Ordinal))
                    is { } row
                    ? Pressed(b, row)
                    : null,
            "the message"
        );
        coordinator.AwaitText("Hello Wenna,");
        coordinator.AwaitText("The loft floor is being varnished.");
        coordinator.AwaitText("The calendar part (CANCEL)");
        coordinator.AccessibilityFaults().ShouldBeEmpty();
        coordinator.ConsoleErrors().ShouldBeEmpty();

        // The guest is told by their link too.
        guest.AwaitAnew("Brackwater Boatworks cancelled this booking", unless: "You’re booked");
        guest.AwaitText("The loft floor is being varnished.");
    }

    private static string Pressed(Chromium browser, IWebElement row)
    {
        browser.Click(row);
        return "pressed";
    }

    private static void AwaitMail(Chromium mail, string box, string subject) =>
        mail.Await(
            browser =>
            {
                browser.Open("/mail/" + box);
                return browser.Shows(subject) ? "there" : null;
            },
            $"the mail “{subject}”"
        );
}
