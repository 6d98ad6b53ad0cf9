namespace Browser.Tests;

/// <summary>A link that asks its guest first, from its making to the booking.</summary>
public sealed class AskingFirstPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_guest_is_asked_for_times_paints_three_stretches_on_a_phone_and_one_is_booked()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        var address = MakeLink(coordinator, "Rudder talk, Petrel", "Ingrid Sall");
        coordinator.AccessibilityFaults().ShouldBeEmpty();

        using var guest = new Chromium("", 390, 844, zone: "Europe/Dublin");
        guest.Open(address);
        guest.AwaitText("When does it suit you?");
        guest.AwaitText("Sunniva Dale");
        // Nothing can be sent before something is marked.
        guest.Press("Send these times");
        guest.AwaitText("Mark at least one stretch that suits you.");
        guest.TouchInLane(Lane("Tuesday 8 December"), (9 * 60) + 15, 11 * 60);
        guest.AwaitText("09:15 to 11:00");
        Fits(guest, "Tuesday 8 December").ShouldEndWith("of our times fit");
        // On a Saturday nobody works, which is told as it is painted.
        guest.TouchInLane(Lane("Saturday 12 December"), 10 * 60, 12 * 60);
        guest.AwaitText("none of our times fits");
        guest.PressInLane(Lane("Thursday 10 December"), (13 * 60) + 40);
        guest.AwaitText("13:30 to 14:30");
        guest.AccessibilityFaults().ShouldBeEmpty();
        guest.TooWide().ShouldBeEmpty();
        guest.TooSmallForThumbs().ShouldBeEmpty();

        // What is marked stays when the screen is opened anew.
        guest.Open(address);
        guest.AwaitText("13:30 to 14:30");
        guest.Press("Send these times");
        guest.AwaitText("Sent.");

        coordinator.AwaitText("What suits Ingrid Sall");
        coordinator.AwaitText("the guest said what suits");
        coordinator.AccessibilityFaults().ShouldBeEmpty();
        coordinator.Await(
            b =>
            {
                if (b.All("section[aria-labelledby='their-times'] ol button").FirstOrDefault() is not { } best)
                    return null;
                b.Click(best);
                return "pressed";
            },
            "the best that fits"
        );
        coordinator.AwaitText("What came of it");
        coordinator.AwaitText("Ingrid Sall");
        guest.Open(address);
        guest.AwaitText("Booked");
        coordinator.ConsoleErrors().ShouldBeEmpty();
        guest.ConsoleErrors().ShouldBeEmpty();
    }

    [Fact]
    public void The_best_that_fits_is_booked_by_itself_beside_what_the_guests_calendar_has_taken()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        var address = MakeLink(coordinator, "Sail talk, Petrel", "Wilf Teller", byItself: true);

        using var guest = new Chromium("", zone: "America/Los_Angeles");
        guest.Open(address);
        guest.AwaitText("The best time that suits everyone is booked at once.");
        var file = Path.Combine(Directory.CreateTempSubdirectory("lantern-own").FullName, "mine.ics");
        File.WriteAllText(
            file,
            """
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//Made up//Tests//EN
            BEGIN:VEVENT
            UID:one@example
            DTSTAMP:20261201T000000Z
            DTSTART:20261208T090000Z
            DTEND:20261208T093000Z
            SUMMARY:School run
            END:VEVENT
            END:VCALENDAR
            """.ReplaceLineEndings("\r\n")
        );
        guest.All("input[type=file]")[0].SendKeys(file);
        guest.AwaitText("What your calendar has taken is left out of what you mark.");
        guest.ScrollToTop();
        // Midnight to two there is nine to eleven in Copenhagen.
        guest.DragInLane(Lane("Tuesday 8 December"), 0, 2 * 60);
        guest.AwaitText("00:00 to 01:00");
        guest.AwaitText("01:30 to 02:00");
        // It is the same time in another zone.
        guest.Press("show Copenhagen");
        guest.AwaitText("09:00 to 10:00");
        guest.AwaitText("10:30 to 11:00");
        guest.Press("Book the best of these times");
        guest.AwaitText("You’re booked");
        coordinator.AwaitText("What came of it");
        guest.ConsoleErrors().ShouldBeEmpty();
    }

    private static string Lane(string day) => $"{day}, when it suits you";

    /// <summary>What a guest reads of how much fits on a day.</summary>
    private static string Fits(Chromium guest, string day) =>
        guest.Await(
            b =>
                b.All($"section[aria-label='{day}'] li span.text-muted").Select(fits => fits.Text).FirstOrDefault()
                    is { Length: > 0 } text
                    ? text
                    : null,
            $"how much fits on {day}"
        );

    /// <returns>The whole web address of the link.</returns>
    private static string MakeLink(Chromium coordinator, string title, string guest, bool byItself = false)
    {
        coordinator.Press("Links");
        coordinator.Press("New link");
        coordinator.Type("Title that the guest reads", title);
        coordinator.Type("Guest’s name", guest);
        coordinator.Type("Guest’s email", $"{guest.Split(' ')[0].ToLowerInvariant()}@sall-sloops.example");
        coordinator.ChooseLineUp("Sunniva Dale");
        coordinator.Press("what suits the guest");
        if (byItself)
            coordinator.Click(coordinator.Field("book the best that fits by itself"));
        coordinator.AwaitText("The guest sees none of these times.");
        coordinator.Press("Make the link");
        coordinator.AwaitText("Made. Copy the text");
        coordinator.Press("Web address only");
        return coordinator.Await(
            b =>
                System.Text.RegularExpressions.Regex.Match(b.Find("[data-test='link-address']").Text, @"http\S+")
                    is { Success: true } match
                    ? match.Value
                    : null,
            "the web address"
        );
    }
}
