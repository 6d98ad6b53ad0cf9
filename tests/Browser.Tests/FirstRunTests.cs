namespace Browser.Tests;

/// <summary>From an empty database to a page that a guest can book, as somebody new walks it.</summary>
public sealed class FirstRunTests : IAsyncLifetime
{
    private const int MostHandled = 40;

    private readonly Site _site = new(demo: false);

    public ValueTask InitializeAsync() => _site.InitializeAsync();

    public ValueTask DisposeAsync() => _site.DisposeAsync();

    [Fact]
    public void Somebody_new_comes_to_a_bookable_page_in_at_most_forty_presses_and_fields()
    {
        var calendar = Path.Combine(Directory.CreateTempSubdirectory("lantern-first").FullName, "runa.ics");
        File.WriteAllText(
            calendar,
            "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//t//EN\nBEGIN:VEVENT\nUID:1\nSUMMARY:Dredging\nDTSTART:20261208T090000\nDTEND:20261208T100000\nEND:VEVENT\nEND:VCALENDAR\n"
        );

        using var browser = new Chromium(_site.Address);
        browser.Open("/");
        browser.Await(b => b.Path == "/sign-in" ? "asked" : null, "the sign-in");
        browser.Press("Make one");
        browser.AwaitText("We mail you a link");
        GoOnByMail(browser, "runa@kittiwake.example");
        browser.AwaitText("It is ");
        browser.AwaitText("You will sign in with runa@kittiwake.example");
        browser.Type("Your organisation", "Kittiwake Moorings");
        browser.AwaitText("kittiwake-moorings is free");
        browser.Type("Your name", "Runa Strand");
        browser.Type("Password", "short");
        browser.Press("Make the workspace");
        browser.AwaitText("Choose a password of at least 10 characters.");
        browser.Type("Password", "seven ropes and a gull");
        browser.Press("Make the workspace");

        browser.AwaitText("Your time zone is Copenhagen, where it is 08:0");
        browser.Press("Yes, that’s right");
        // From nine to twelve and one to five: Monday's morning goes, its afternoon begins at two, and Saturday opens.
        browser.Find("[data-lane][aria-label='Monday, painted']");
        browser.KeysInLane("Monday, painted", [.. Enumerable.Repeat(Keys.ArrowRight, 12), Keys.Delete]);
        browser.DragInLane("Saturday, painted", 10 * 60, 12 * 60);
        browser.DragInLane("Monday, painted", 13 * 60, 14 * 60);
        browser.Await(
            b => b.Field("Monday, open times").GetAttribute("value") == "14:00–17:00" ? "painted" : null,
            "Monday's hours"
        );
        browser.Field("Saturday, open times").GetAttribute("value").ShouldBe("10:00–12:00");

        // Left and taken up again, the steps that were done stay so.
        browser.Press("Save these hours");
        browser.AwaitText("Busy times of a joined calendar are never offered.");
        browser.Press("Pages");
        browser.AwaitText("No page yet");
        browser.Press("First steps");
        browser.AwaitText("Mon 14:00–17:00; Tue–Fri 09:00–12:00, 13:00–17:00; Sat 10:00–12:00");
        browser.Field("iCalendar file").SendKeys(calendar);
        browser.Press("Join");
        browser.Type("What can be booked, as guests read it", "Mooring check");
        browser.Press("Publish the page");
        browser.AwaitText("Guests can book you now");
        browser.Handled.ShouldBeLessThanOrEqualTo(MostHandled);

        using var guest = new Chromium(_site.Address, 390, 844);
        guest.Open("/kittiwake-moorings/mooring-check");
        guest.Named("Monday, 14:00");
        guest.AwaitNone("Monday, 09:00");
        // Her own calendar has her away on Tuesday from nine to ten.
        guest.AwaitNone("Tuesday, 09:30");
        guest.Press("Tuesday, 10:00");
        guest.Type("Your name", "Barnaby Quill");
        guest.Type("Your email", "barnaby@quill-and-daughter.example");
        guest.Press("Reserve 10:00 on Tuesday");
        guest.AwaitText("You’re booked");

        browser.Press("Go to your pages");
        browser.AwaitText("Mooring check");
        browser.AwaitNone("First steps");
    }

    [Fact]
    public void A_taken_address_is_told_as_it_is_typed_with_free_ones_to_choose()
    {
        using var first = new Chromium(_site.Address);
        Sign(first, "Kittiwake Moorings", "runa@kittiwake.example");
        first.Press("Make the workspace");
        first.AwaitText("First steps");

        using var second = new Chromium(_site.Address);
        Sign(second, "Kittiwake Moorings", "eve@other.example");
        second.AwaitText("The address kittiwake-moorings is taken.");
        second.Press("kittiwake-moorings-team");
        second.AwaitText("kittiwake-moorings-team is free");
        second.Press("Make the workspace");
        second.AwaitText("First steps");
    }

    private void Sign(Chromium browser, string organisation, string email)
    {
        browser.Open("/start");
        GoOnByMail(browser, email);
        browser.Type("Your organisation", organisation);
        browser.Type("Your name", "Runa Strand");
        browser.Type("Password", "seven ropes and a gull");
    }

    private void GoOnByMail(Chromium browser, string email)
    {
        browser.Type("Your email", email);
        browser.Press("Send me a link");
        browser.AwaitText("A mail is on its way to");
        using var mail = new Chromium(_site.Calendars);
        browser.Open(mail.AwaitLink(email, "Make your workspace", "/start/"));
    }
}
