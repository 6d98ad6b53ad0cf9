namespace Browser.Tests;

/// <summary>
/// From "reserve" to the appointment, with nobody having to write to anybody: answers, moves, a yes that is waited for,
/// own words, a new password.
/// </summary>
public sealed class CorrespondenceTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_guest_accepts_moves_and_cancels_and_both_hosts_are_told()
    {
        const string Address = "wenna@treloar-sails.example";
        using var guest = new Chromium(site.Address, 390, 844);
        Reserve(guest, "/brackwater-commissions/design-review", "Wenna Treloar", Address);
        guest.AwaitText("You’re booked");

        using var mail = new Chromium(site.Calendars);
        mail.AwaitMail(Address, "Design review:");
        mail.AwaitText("with an invitation (REQUEST)");
        mail.Press("Answer this invitation");
        mail.Press("Accept");
        mail.AwaitText("Your answer went to");

        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Bookings");
        coordinator.Type("Search by guest or page", "treloar-sails");
        coordinator.AwaitText("accepted the invitation");

        // The room that was made for it is a press away.
        guest.AwaitAnew("Open the video room", unless: "You’re booked");
        guest.Press("Move this booking");
        guest.AwaitText("Choose another time");
        guest.TooWide().ShouldBeEmpty();
        guest.TooSmallForThumbs().ShouldBeEmpty();
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "another opening"));
        guest.AccessibilityFaults().ShouldBeEmpty();
        guest.Click(
            guest.Await(
                b =>
                    b.All("button")
                        .FirstOrDefault(button => button.Text.StartsWith("Move to", StringComparison.Ordinal)),
                "the press that moves it"
            )
        );
        guest.AwaitText("Your booking has a new time. Everyone gets a mail.");
        mail.AwaitMail(Address, "Moved: Design review");
        mail.AwaitMail("odile@brackwater.example", "Moved: Wenna Treloar");
        mail.AwaitMail("anselm@brackwater.example", "Moved: Wenna Treloar");
        // What was accepted was the former time.
        coordinator.AwaitNoText("accepted the invitation");

        guest.Press("Add a person");
        guest.Type("Their name", "Bram Treloar");
        guest.Type("Their email", "nowhere");
        guest.Press("Send invitations");
        guest.AwaitText("Write one email address");
        guest.Type("Their email", "bram@treloar-sails.example");
        guest.Press("Send invitations");
        guest.Named("Remove Bram Treloar");
        mail.AwaitMail("bram@treloar-sails.example", "You’re invited along");

        guest.Press("Cancel this booking");
        guest.Press("Cancel the booking");
        guest.AwaitText("You cancelled this booking");
        mail.AwaitMail(Address, "Cancelled: Design review");
        mail.AwaitText("with an invitation (CANCEL)");
        guest.ConsoleErrors().ShouldBeEmpty();
    }

    [Fact]
    public void A_coordinator_opens_a_booking_grants_a_wish_and_moves_it()
    {
        const string Address = "ilka@thole-pins.example";
        using var guest = new Chromium(site.Address);
        Reserve(guest, "/brackwater/sail-fitting", "Ilka Thole", Address, at: 4);
        guest.AwaitText("You’re booked");
        using var mail = new Chromium(site.Calendars);
        mail.AwaitMail(Address, "Sail fitting in the loft:");
        mail.Press("Answer this invitation");
        mail.Type("A word", "After the tide, please.");
        mail.Press("Answer in words");
        mail.AwaitText("Your answer went to");

        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Bookings");
        coordinator.Type("Search by guest or page", "thole-pins");
        coordinator.AwaitNone("Cancel the booking of Jasper Holloway-Finch");
        coordinator.Press("Ilka Thole");
        coordinator.AwaitText("After the tide, please.");
        coordinator.AwaitText("Measure the hardware before the guest comes.");
        coordinator.Press("Move");
        coordinator.Click(coordinator.Await(b => b.All("button[data-start]").ElementAtOrDefault(2), "another opening"));
        coordinator.AccessibilityFaults().ShouldBeEmpty();
        coordinator.Click(
            coordinator.Await(
                b =>
                    b.All("button")
                        .FirstOrDefault(button => button.Text.StartsWith("Move to", StringComparison.Ordinal)),
                "the press that moves it"
            )
        );
        coordinator.AwaitText("Moved the booking of Ilka Thole");
        coordinator.AwaitText("Moved: Sail fitting in the loft");
        mail.AwaitMail(Address, "Moved: Sail fitting in the loft");

        mail.Press("Answer this invitation");
        mail.Press("Decline");
        mail.AwaitText("Your answer went to");
        coordinator.AwaitText("Ilka Thole declined the invitation");
        coordinator.ConsoleErrors().ShouldBeEmpty();
    }

    [Fact]
    public void What_waits_for_a_yes_is_answered_by_the_link_in_the_mail_or_in_the_list()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        Reserve(guest, "/brackwater-school/school-class", "Mette Holm", "mette@holm-school.example");
        guest.AwaitText("Requested; the time is kept for you");
        using var mail = new Chromium(site.Calendars);
        mail.AwaitMail("rosalind@brackwater.example", "Mette Holm requests A visit with a school class");
        var link = new Uri(
            mail.All("pre a")
                .Select(a => a.GetAttribute("href")!)
                .First(href => href.Contains("/answer/", StringComparison.Ordinal))
        );
        using var host = new Chromium(site.Address, 390, 844);
        host.Open(link.AbsolutePath);
        host.AwaitText("Mette Holm waits for your answer");
        host.AccessibilityFaults().ShouldBeEmpty();
        host.TooWide().ShouldBeEmpty();
        host.TooSmallForThumbs().ShouldBeEmpty();
        // Looking at it has answered nothing.
        guest.Open(guest.Path);
        guest.AwaitText("Requested; the time is kept for you");
        host.Press("Accept it");
        host.AwaitText("Accepted; Mette Holm is told");
        guest.Open(guest.Path);
        guest.AwaitText("You’re booked");

        Reserve(guest, "/brackwater-school/school-class", "Jonna Lind", "jonna@lind-school.example", at: 3);
        guest.AwaitText("Requested; the time is kept for you");
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Bookings");
        coordinator.AwaitText("waits for your answer");
        coordinator.Press("Jonna Lind");
        coordinator.Press("Decline, or offer other times");
        coordinator.Type("Message to Jonna Lind (optional)", "The gate is being painted.");
        coordinator.Press("Offer other times");
        coordinator.Click(coordinator.Await(b => b.All("button[data-start]").ElementAtOrDefault(1), "a time to offer"));
        coordinator.Press("Decline and offer these");
        coordinator.AwaitText("declined: The gate is being painted.");
        mail.AwaitMail("jonna@lind-school.example", "Not possible: A visit with a school class");
        mail.AwaitText("These times would work:");
        guest.Open(guest.Path);
        guest.AwaitText("Brackwater Boatworks couldn’t accept your request");
    }

    [Fact]
    public void A_page_gets_words_of_its_own_and_a_token_nobody_knows_is_named()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("A word about varnish");
        coordinator.Type("Subject", "Varnish, {{ first_name }}");
        coordinator.Type("Text", "Bring the {{ tin }}.");
        coordinator.Press("Publish 1 change");
        coordinator.AwaitText("There is no placeholder {{ tin }}; choose from the list.");
        coordinator.Type("Text", "Bring the tin to {{ place }}.");
        coordinator.Press("Preview");
        coordinator.AwaitText("Bring the tin to Finishing shop.");
        coordinator.AccessibilityFaults().ShouldBeEmpty();
        coordinator.Press("Publish 1 change");
        coordinator.AwaitText("Published. Guests see it as it is now.");
        using var guest = new Chromium(site.Address);
        Reserve(guest, "/brackwater/varnish-word", "Ebbe Quist", "ebbe@quist-lines.example");
        guest.AwaitText("You’re booked");
        using var mail = new Chromium(site.Calendars);
        mail.AwaitMail("ebbe@quist-lines.example", "Varnish, Ebbe");
        mail.AwaitText("Bring the tin to Finishing shop.");

        coordinator.Click(coordinator.Find("a[href='/work/you']:not(.md\\:hidden)"));
        coordinator.Press("Notifications");
        coordinator.SetDate("Quiet from", "21:00");
        coordinator.Press("Save");
        coordinator.AwaitText("Say when the quiet hours end.");
        coordinator.SetDate("until", "07:30");
        coordinator.Press("Save");
        coordinator.AwaitText("Saved. It applies to mail from now on.");
        coordinator.AccessibilityFaults().ShouldBeEmpty();
    }

    [Fact]
    public void A_page_asks_and_its_guest_answers_and_changes_that_later()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("A first talk about a new boat");
        coordinator.Press("Add a question");
        coordinator.Choose("Answer to question 4", "one of several");
        coordinator.Click(coordinator.Field("Question 4 is needed"));
        coordinator.Type("Question 4", "Which wood?");
        coordinator.Press("Publish 1 change");
        coordinator.AwaitText("Offer 2 to 50 answers, one a line.");
        coordinator.Type("Answers offered to question 4, one a line", "Oak\nLarch");
        coordinator.Press("Move question 4 up");
        coordinator.AccessibilityFaults().ShouldBeEmpty();
        coordinator.Press("Publish 1 change");
        coordinator.AwaitText("Published. Guests see it as it is now.");

        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater-commissions/first-talk");
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        guest.Type("Your name", "Runa Storm");
        guest.Type("Your email", "runa@storm-boats.example");
        guest.Type("How long should she be, in metres? (optional)", "long");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("Give a number, such as 12 or 7.5.");
        guest.AwaitText("Choose an answer.");
        guest.AccessibilityFaults().ShouldBeEmpty();
        guest.TooWide().ShouldBeEmpty();
        guest.TooSmallForThumbs().ShouldBeEmpty();
        // What was typed is kept.
        guest.Field("Your name").GetAttribute("value").ShouldBe("Runa Storm");
        guest.Type("How long should she be, in metres? (optional)", "9.5");
        guest.Click(guest.Field("Larch"));
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
        guest.AwaitText("Larch");
        guest.Press("Change your answers");
        guest.Click(guest.Field("Oak"));
        guest.Press("Save answers");
        guest.AwaitNoText("Larch");

        coordinator.Press("Bookings");
        coordinator.Type("Search by guest or page", "storm-boats");
        coordinator.AwaitNone("Cancel the booking of Jasper Holloway-Finch");
        coordinator.Press("Runa Storm");
        coordinator.AwaitText("Oak");
    }

    [Fact]
    public void Who_forgot_their_password_gets_a_link_and_chooses_a_new_one()
    {
        using var browser = new Chromium(site.Address);
        browser.Open("/sign-in");
        browser.Press("I forgot my password");
        browser.Type("Your email", "keziah@brackwater");
        browser.Press("Send me a link");
        browser.AwaitText("Write one email address");
        browser.Type("Your email", "keziah@brackwater.example");
        browser.Press("Send me a link");
        browser.AwaitText("a mail with a link is on its way");
        using var mail = new Chromium(site.Calendars);
        browser.Open(mail.AwaitLink("keziah@brackwater.example", "A new password for Brackwater Boatworks", "/reset/"));
        browser.Type("New password", "short");
        browser.Press("Use this password");
        browser.Await(b => b.All("[role=alert]").FirstOrDefault(), "what is wrong with it");
        browser.Type("New password", "a keel and a lantern");
        browser.Press("Use this password");
        browser.AwaitText("Your password is changed");
        browser.AccessibilityFaults().ShouldBeEmpty();
        browser.Press("Sign in");
        browser.Type("Email", "keziah@brackwater.example");
        browser.Type("Password", "a keel and a lantern");
        browser.Press("Sign in");
        browser.AwaitText("Sign out");
    }

    private static void Reserve(Chromium guest, string page, string name, string address, int at = 0)
    {
        guest.Open(page);
        guest.Click(guest.Await(b => b.All("button[data-start]").ElementAtOrDefault(at), "an opening"));
        guest.Type("Your name", name);
        guest.Type("Your email", address);
        guest.Click(guest.Find("form button[type=submit]"));
    }
}
