namespace Browser.Tests;

/// <summary>Calendars outside, walked through in the product and in the calendar stand-in beside it.</summary>
public sealed class CalendarPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void An_event_moved_in_the_stand_in_takes_an_opening_from_whoever_looks_at_the_page()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater/sail-fitting");
        guest.Named("Thursday, 09:00");

        using var piet = new Chromium(site.Calendars);
        piet.Open("/screen/piet/work");
        piet.Type("Title", "Sailmaker’s visit");
        piet.SetDate("Start", "2026-12-09T20:00");
        piet.SetDate("End", "2026-12-09T20:45");
        piet.Press("Make");
        piet.AwaitText("Sailmaker’s visit");
        piet.SetDate("New start of Sailmaker’s visit", "2026-12-10T08:55");
        piet.SetDate("New end of Sailmaker’s visit", "2026-12-10T09:20");
        piet.Press("Move Sailmaker’s visit");
        piet.AwaitText("10 Dec 2026, 08:55");

        // Somebody looks again, since a guest waits; the guest does nothing at all.
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Calendars");
        coordinator.Click(
            coordinator.Find(
                "section[aria-labelledby^='calendars-of']:has(input[aria-label^='Piet Lund, Work']) button[aria-label='Look again at Work']"
            )
        );
        guest.AwaitNone("Thursday, 09:00");
        guest.Named("Thursday, 09:30");
        coordinator.Press("Board");
        coordinator.AwaitTitle("Sailmaker’s visit, busy, 08:55 to 09:20, Work");
    }

    [Fact]
    public void A_booking_comes_into_the_calendar_and_what_its_host_does_there_is_asked_about()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        Book(guest, "Tuesday, 08:00", "Dervla Keane", "dervla@keane-ketches.example");
        Book(guest, "Tuesday, 09:00", "Osric Pell", "osric@pell-and-pell.example");

        const string dervla = "Sail fitting in the loft: Dervla Keane";
        const string osric = "Sail fitting in the loft: Osric Pell";
        using var piet = new Chromium(site.Calendars);
        piet.Await(b => Reload(b, osric), "the events");
        piet.AwaitText(dervla);
        piet.Press("Delete " + dervla);
        piet.SetDate("New start of " + osric, "2026-12-08T14:00");
        piet.SetDate("New end of " + osric, "2026-12-08T14:30");
        piet.Press("Move " + osric);
        piet.AwaitText("8 Dec 2026, 14:00");

        // Within a minute both stand first in the list, and on the board.
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        LookAgain(coordinator);
        coordinator.Press("Bookings");
        coordinator.AwaitText("In Piet Lund’s calendar “Work” the event was deleted. The booking stands as it was.");
        coordinator.AwaitText("the event was moved to Tue 8, 14:00 to 14:30. The booking is where it was.");
        coordinator.AwaitText("waits for your answer");
        coordinator.AccessibilityFaults().ShouldBeEmpty();
        coordinator.Press("Board");
        coordinator
            .Find("[data-outside='deleted']")
            .GetAttribute("title")!
            .ShouldContain("Dervla Keane, booked, 08:00 to 08:30");
        coordinator.Find("[data-outside='moved']");
        coordinator.AccessibilityFaults().ShouldBeEmpty();

        coordinator.Press("Move the booking of Osric Pell");
        coordinator.AwaitTitle("Osric Pell, booked, 14:00 to 14:30, Sail fitting in the loft");
        coordinator.AwaitNoText("was moved to");
        coordinator.Press("Restore the event of Dervla Keane");
        coordinator.AwaitNoText("was deleted");
        piet.Await(b => Reload(b, dervla), "the event put back");
        piet.AwaitText("8 Dec 2026, 14:00");
        coordinator.ConsoleErrors().ShouldBeEmpty();
    }

    [Fact]
    public void An_account_is_joined_with_a_wrong_password_first_and_one_of_its_calendars_is_written_to()
    {
        using var browser = new Chromium(site.Address);
        browser.SignInToDemo();
        browser.Press("Calendars");
        browser.Press("Join a calendar");
        browser.Type("Calendar server", site.Calendars);
        browser.Type("Name there", "sunniva");
        browser.Type("Password there", "not this one");
        browser.Press("Find calendars");
        browser.AwaitText("does not accept the name or the password");
        browser.Type("Password there", "lantern-demo");
        browser.Press("Find calendars");
        browser.Find("fieldset li");
        browser.Click(browser.Field("New bookings are written to Work: new bookings are written here"));
        browser.AccessibilityFaults().ShouldBeEmpty();
        browser.Press("Join 2");
        browser.AwaitNoText("No calendar is joined for Marit Oakes");
        browser.Field("Marit Oakes, Work: new bookings are written here").Selected.ShouldBeTrue();

        // An address inside the network is refused with the reason.
        browser.Press("Join a calendar");
        browser.Press("An address");
        browser.Type("Address", "https://10.0.0.7/feed.ics");
        browser.Press("Join");
        browser.AwaitText("inside a private network");

        // A page of hers may ask one of them alone, and says so.
        browser.Press("Pages");
        browser.Press("New page");
        browser.AwaitText("For Marit Oakes it asks “Private” and “Work” and writes bookings to “Work”, as usual.");
        browser.Press("Choose other calendars of Marit Oakes");
        browser.Click(browser.Field("Ask Private of Marit Oakes"));
        browser.AwaitText(
            "For Marit Oakes it asks “Work”, which is not the usual; writes bookings to “Work” as usual."
        );
    }

    [Fact]
    public void An_entry_of_the_calendar_kept_here_is_made_changed_and_taken_out()
    {
        using var browser = new Chromium(site.Address);
        browser.SignInToDemo();
        browser.Press("Calendars");
        browser.Press("Entries of Kept here, Rosalind Achebe");
        browser.Press("New entry");
        browser.Press("Add the entry");
        browser.AwaitText("Say what it is, in up to 120 characters.");
        browser.Type("What it is", "Fire drill");
        browser.SetDate("From", "2026-12-08");
        browser.SetDate("To", "2026-12-08");
        browser.SetDate("at", "11:00");
        browser.SetDate("until", "11:30");
        browser.Press("Add the entry");
        browser.AwaitText("11:00 to 11:30");
        browser.AccessibilityFaults().ShouldBeEmpty();
        browser.Press("Board");
        browser.AwaitTitle("Fire drill, busy, 11:00 to 11:30, Kept here");
        browser.Press("Calendars");
        browser.Press("Entries of Kept here, Rosalind Achebe");
        browser.Press("Delete Fire drill");
        browser.AwaitText("No entries yet.");
    }

    private static string? Reload(Chromium browser, string text)
    {
        browser.Open("/screen/piet/work");
        return browser.Shows(text) ? "there" : null;
    }

    private static void LookAgain(Chromium coordinator)
    {
        coordinator.Press("Calendars");
        coordinator.Click(
            coordinator.Find(
                "section[aria-labelledby^='calendars-of']:has(input[aria-label^='Piet Lund, Work']) button[aria-label='Look again at Work']"
            )
        );
        coordinator.Find(
            "section[aria-labelledby^='calendars-of']:has(input[aria-label^='Piet Lund, Work']) button[aria-label='Look again at Work']:not([disabled])"
        );
    }

    private static void Book(Chromium guest, string opening, string name, string email)
    {
        guest.Open("/brackwater/sail-fitting");
        guest.Press(opening);
        guest.Type("Your name", name);
        guest.Type("Your email", email);
        guest.Press($"Reserve {opening.Split(", ")[1]} on {opening.Split(", ")[0]}");
        guest.AwaitText("You’re booked");
    }
}
