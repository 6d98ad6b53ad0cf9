namespace Browser.Tests;

/// <summary>Several people and one time: a school morning that fills, a child, and a link for two.</summary>
public sealed class GroupPathTests(Site site) : IClassFixture<Site>
{
    private const string Morning = "/brackwater-school/safety-morning";

    [Fact]
    public void A_morning_fills_with_whom_people_bring_and_is_cancelled_as_a_whole()
    {
        using var guest = new Chromium(site.Address, 390, 844, zone: "America/Los_Angeles");
        // The one that stands has four places left; a party of three takes all of them but one.
        guest.Open(Morning);
        guest.Choose("How many come", "3");
        Take(guest, "2026-12-17T08:00:00Z", "Ingrid Sall", "ingrid@sall-sloops.example");
        guest.AwaitText("You’re booked");
        guest.TooWide().ShouldBeEmpty();
        guest.TooSmallForThumbs().ShouldBeEmpty();
        guest.AccessibilityFaults().ShouldBeEmpty();
        // One more is room for; after that there is none, and who wants to bring another is told so.
        guest.Choose("How many come", "4");
        guest.Await(b => b.Field("How many come").GetAttribute("value") == "4" ? "four" : null, "four");
        using var late = new Chromium(site.Address);
        late.Open(Morning);
        late.Await(b => b.All("button[data-start]").Count > 0 ? "open" : null, "what is open");
        late.All("button[data-start='2026-12-17T08:00:00Z']").ShouldBeEmpty();

        using var host = new Chromium(site.Address);
        host.SignInToDemo();
        host.Press("Bookings");
        host.Press("8 of 8 places taken");
        host.AwaitText("Which size of boots?");
        host.AwaitText("booked by Lucius Ferrow");
        host.ReadLink("Save as CSV").ShouldContain("Ingrid Sall,ingrid@sall-sloops.example,4,");
        host.AccessibilityFaults().ShouldBeEmpty();
        host.Press("Write to all");
        host.Press("Send");
        host.AwaitText("Write something first.");
        host.Type("Your words", "The slip is icy: bring warm gloves.");
        host.Press("Send");
        host.AwaitText("4 mails go out.");
        host.Press("Cancel all");
        host.Type("Reason, for everyone who comes (optional)", "The hall is flooded.");
        host.Press("Cancel the booking");
        host.AwaitText("Nobody comes to it any more.");
        using var box = new Chromium(site.Calendars);
        foreach (var subject in new[] { "About Safety morning", "Cancelled: Safety morning" })
        {
            box.Await(
                b =>
                {
                    b.Open("/mail/ingrid%40sall-sloops.example");
                    return b.Shows(subject) ? "there" : null;
                },
                $"the mail “{subject}”"
            );
        }

        guest.AwaitAnew("The hall is flooded.", unless: "You’re booked");
        host.ConsoleErrors().ShouldBeEmpty();
        guest.ConsoleErrors().ShouldBeEmpty();
    }

    [Fact]
    public void A_parent_books_for_a_child_and_is_asked_before_one_more_place_is_taken()
    {
        using var parent = new Chromium(site.Address, 390, 844);
        parent.Open(Morning);
        Find(parent, "2026-12-10T08:00:00Z");
        parent.Field("For someone else").Click();
        parent.Type("Their name", "Runa Sall");
        parent.Type("Your name", "Ingrid Sall");
        parent.Type("Your email", "ingrid@sall-sloops.example");
        parent.TooSmallForThumbs().ShouldBeEmpty();
        parent.TooWide().ShouldBeEmpty();
        parent.AccessibilityFaults().ShouldBeEmpty();
        parent.Click(parent.Find("form button[type=submit]"));
        parent.AwaitText("You’re booked");
        parent.AwaitText("Runa Sall");
        parent.AwaitText("Booked by");

        parent.Open(Morning);
        Take(parent, "2026-12-10T08:00:00Z", "Ingrid Sall", "ingrid@sall-sloops.example");
        parent.AwaitText("You’re booked at this time already.");
        parent.Press("Reserve one more place");
        parent.AwaitText("You’re booked");
    }

    [Fact]
    public void A_link_for_two_is_taken_by_one_and_both_have_it()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Links");
        coordinator.Press("New link");
        coordinator.Type("Title that the guest reads", "Keel talk, Gannet");
        coordinator.Type("Guest’s name", "Imke Sandvig");
        coordinator.Type("Guest’s email", "imke@sandvig-sejl.example");
        coordinator.Press("+ guest");
        coordinator.Type("Name of guest 2", "Osric Pell");
        coordinator.Type("Email of guest 2", "osric@pell-and-pell.example");
        coordinator.Field("Whether they come together").GetAttribute("value").ShouldBe("together");
        coordinator.ChooseLineUp("Piet Lund");
        coordinator.Field("Another seat").GetAttribute("value").ShouldBe("");
        coordinator.PressInLane("Piet Lund, Thursday 10 December", (9 * 60) + 2);
        coordinator.AwaitText("1 opening offered");
        coordinator.Press("Make the link");
        coordinator.AwaitText("Made. Copy the text");
        coordinator.Press("Web address only");
        var address = coordinator.Await(
            b => b.Find("[data-test='link-address']").Text is ['h', ..] shown ? shown : null,
            "the web address"
        );

        using var guest = new Chromium("", 390, 844, zone: "America/Los_Angeles");
        guest.Open(address);
        guest.Click(guest.Find("button[data-start]"));
        guest.Choose("Your details", "Osric Pell");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
        guest.AwaitText("Osric Pell");

        coordinator.Press("Bookings");
        coordinator.Press("2 people");
        coordinator.AwaitText("imke@sandvig-sejl.example");
        coordinator.AwaitText("osric@pell-and-pell.example");
        using var box = new Chromium(site.Calendars);
        foreach (var email in new[] { "imke%40sandvig-sejl.example", "osric%40pell-and-pell.example" })
        {
            box.Await(
                b =>
                {
                    b.Open($"/mail/{email}");
                    return b.Shows("Keel talk, Gannet") ? "there" : null;
                },
                $"the invitation of {email}"
            );
        }
    }

    /// <summary>Turns to the week of a time in the middle of December and chooses the time.</summary>
    private static void Find(Chromium guest, string start)
    {
        guest.Click(
            guest.Find(
                $"[data-week='{(start.Contains("-12-1", StringComparison.Ordinal) && start[9] > '3' ? "2026-12-14" : "2026-12-07")}']"
            )
        );
        guest.Click(guest.Find($"button[data-start='{start}']"));
    }

    private static void Take(Chromium guest, string start, string name, string email)
    {
        Find(guest, start);
        guest.Type("Your name", name);
        guest.Type("Your email", email);
        guest.Click(guest.Find("form button[type=submit]"));
    }
}
