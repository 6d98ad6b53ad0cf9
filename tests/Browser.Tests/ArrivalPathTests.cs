namespace Browser.Tests;

/// <summary>
/// What is written once for guests, and where they meet, on every screen and in every mail, in more than one language.
/// </summary>
public sealed class ArrivalPathTests(Site site) : IClassFixture<Site>
{
    private const string Parking = "Park on the gravel behind the crane.";

    [Fact]
    public void Parking_words_written_once_are_read_on_page_mail_calendar_and_reminder_in_two_languages()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("A word about varnish");
        coordinator.Type("How to get there", Parking);
        coordinator.Press("Publish 1 change");
        coordinator.AwaitText("Published. Guests see it as it is now.");
        coordinator.Named("Copy its address");

        using var mail = new Chromium(site.Calendars);
        using var english = new Chromium(site.Address, 390, 844);
        Reserve(english, "/brackwater/varnish-word", "Ebbe Quist", "ebbe@quist-lines.example", Parking);
        english.AwaitText("You’re booked");
        english.AwaitText(Parking);
        ReadMail(mail, "ebbe@quist-lines.example", "A word about varnish:", "How to get there:");
        mail.Press("The calendar part");
        mail.AwaitText("LOCATION:Finishing shop");

        using var german = new Chromium(site.Address, 390, 844, language: "de");
        Reserve(german, "/brackwater/varnish-word", "Imke Sandvoss", "imke@sandvoss.example", Parking, at: 1);
        german.AwaitText("Ihr Termin ist gebucht");
        german.AwaitText(Parking);
        german.TooWide().ShouldBeEmpty();
        ReadMail(mail, "imke@sandvoss.example", "A word about varnish:", "Anfahrt:");

        coordinator.Press("Post");
        foreach (var (guest, subject) in new[] { ("ebbe", "Reminder: A word"), ("imke", "Erinnerung: A word") })
        {
            coordinator.Type("Search by reader or subject", guest);
            coordinator.Click(
                coordinator.Await(
                    b => b.All("main button").FirstOrDefault(row => row.Text.Contains(subject, Words)),
                    $"the reminder for {guest}"
                )
            );
            coordinator.AwaitText(Parking);
            coordinator.Press("Close");
        }
    }

    [Fact]
    public void A_page_by_phone_in_person_and_by_video_each_say_where()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Office hours at the bench");
        coordinator.Choose("Kind of place", "by phone");
        coordinator.Type("Place", "");
        coordinator.AwaitText("Guests are asked for their name, email and phone number");
        coordinator.AwaitNoText("no place is given");
        coordinator.Choose("Who calls", "the guest calls us");
        coordinator.AwaitText("Guests are to call, but no number is given.");
        coordinator.Choose("Who calls", "we call the guest");
        coordinator.Press("Publish 2 changes");
        coordinator.AwaitText("Published. Guests see it as it is now.");

        using var mail = new Chromium(site.Calendars);
        using var guest = new Chromium(site.Address, 390, 844);
        Open(guest, "/brackwater/bench-hours", "By phone: we call you");
        guest.Type("Your name", "Nell Thorne");
        guest.Type("Your email", "nell@thorne-sails.example");
        guest.Type("Which number can we call?", "call me");
        guest.Click(guest.Find("form button[type=submit]"));
        // The first field that needs a change has the focus.
        guest.AwaitText("Give a phone number");
        guest.Focused("type").ShouldBe("tel");
        guest.Type("Which number can we call?", "+45 55 01 02 03");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("By phone: we call you on +45 55 01 02 03");
        ReadMail(
            mail,
            "nell@thorne-sails.example",
            "Office hours at the bench:",
            "By phone: we call you on +45 55 01 02 03"
        );

        Reserve(
            guest,
            "/brackwater/hull-survey",
            "Nell Thorne",
            "nell@thorne-sails.example",
            "Slip 2, Brackwater Quay"
        );
        guest.AwaitText("You’re booked");
        ReadMail(mail, "nell@thorne-sails.example", "Hull survey on the slip:", "Slip 2, Brackwater Quay");

        Open(guest, "/brackwater-commissions/design-review", "By video");
        guest.Type("Your name", "Nell Thorne");
        guest.Type("Your email", "nell@thorne-sails.example");
        foreach (var field in guest.All("form input[id^='answer-'][type='text'], form textarea"))
            field.SendKeys("A cutter");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
        guest.AwaitAnew("Open the video room", unless: "You’re booked");
        ReadMail(mail, "nell@thorne-sails.example", "Design review:", "/room/");
    }

    private const StringComparison Words = StringComparison.Ordinal;

    private static void Open(Chromium guest, string page, string says, int at = 0)
    {
        guest.Open(page);
        guest.AwaitText(says);
        guest.Click(guest.Await(b => b.All("button[data-start]").ElementAtOrDefault(at), "an opening"));
    }

    private static void Reserve(Chromium guest, string page, string name, string address, string says, int at = 0)
    {
        Open(guest, page, says, at);
        foreach (var (kind, text) in new[] { ("name", name), ("email", address) })
            guest.Find($"#guest-{kind}").SendKeys(text);
        guest.Click(guest.Find("form button[type=submit]"));
    }

    /// <summary>Opens a mail by its subject, once it is there, and reads it.</summary>
    private static void ReadMail(Chromium mail, string box, string subject, string says)
    {
        mail.Await(
            browser =>
            {
                browser.Open("/mail/" + box);
                return browser.Shows(subject) ? "there" : null;
            },
            $"the mail “{subject}”"
        );
        mail.AwaitText(says);
    }
}
