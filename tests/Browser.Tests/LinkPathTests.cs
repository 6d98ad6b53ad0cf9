namespace Browser.Tests;

/// <summary>An availability link from the first pick on the board to the booking on both hosts' calendars.</summary>
public sealed class LinkPathTests(Site site) : IClassFixture<Site>
{
    private const string Sunniva = "Sunniva Dale, Tuesday 8 December";

    [Fact]
    public void Times_are_picked_held_and_sent_one_is_taken_and_the_others_go()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        NewLink(coordinator, "Mast check, Petrel", "Ingrid Sall", "ingrid@sall-sloops.example");
        coordinator.ChooseZone("Guest’s time zone", "Dublin");
        coordinator.PressInLane(Sunniva, (9 * 60) + 20);
        coordinator.AwaitText("1 opening offered");
        coordinator.PressInLane("Keziah Moon, Tuesday 8 December", (14 * 60) + 5);
        coordinator.AwaitText("1 picked time is not open");
        // What is in the way is told, and the pick goes again.
        PressFirst(coordinator, "[data-piece^='pick:2026-12-08T13']");
        coordinator.AwaitText("Tuesday 8 December, 14:00 to 14:30");
        coordinator.Press("Erase Tue 8 Dec, 14:00");
        coordinator.KeysInLane(
            "Sunniva Dale, Wednesday 9 December",
            Keys.ArrowRight,
            Keys.ArrowRight,
            Keys.ArrowRight,
            Keys.ArrowRight,
            Keys.ArrowRight,
            " "
        );
        coordinator.AwaitText("2 openings offered");
        PressFirst(coordinator, "[data-suggested]");
        coordinator.AwaitText("3 openings offered");
        PressFirst(coordinator, "[data-suggested]");
        coordinator.AwaitText("4 openings offered");
        coordinator.AccessibilityFaults().ShouldBeEmpty();

        coordinator.Press("Make the link");
        coordinator.AwaitText("Made. Copy the text");
        // A hold that is refused leaves the switch as it was.
        coordinator.SetDate("Held until, Copenhagen time", "2026-12-01T10:00");
        PressFirst(coordinator, "label:has([aria-label='Hold all picked times'])");
        coordinator.AwaitText("Hold them until a time to come");
        coordinator.Find("#hold-all").Selected.ShouldBeFalse();
        coordinator.SetDate("Held until, Copenhagen time", "2026-12-07T18:00");
        PressFirst(coordinator, "label:has([aria-label='Hold all picked times'])");
        coordinator.AwaitText("4 times are held on the hosts’ calendars until today, 18:00");
        coordinator.Press("As email");
        coordinator.Type("Message above the times (optional)", "Which of these suits you?");
        coordinator.Press("Send to ingrid@sall-sloops.example");
        coordinator.AwaitText("You can see it in Post.");
        Held(coordinator).ShouldBe(4);

        // The mail that came, with each time to press; pressing one books nothing yet.
        using var ingrid = new Chromium(site.Calendars, 390, 844, zone: "Europe/Dublin");
        ingrid.Await(b => Reload(b, "Times for you: Mast check, Petrel"), "the mail");
        ingrid.AwaitText("Which of these suits you?");
        var link = ingrid.Find("a[href*='at=2026-12-08T08:15:00Z']").GetAttribute("href")!;
        using var guest = new Chromium("", 390, 844, zone: "Europe/Dublin");
        guest.Open(link);
        guest.AwaitText("For Ingrid Sall, in…@sall-sloops.example.");
        guest.AccessibilityFaults().ShouldBeEmpty();
        guest.TooWide().ShouldBeEmpty();
        guest.TooSmallForThumbs().ShouldBeEmpty();
        guest.Press("Reserve 09:15 on Tuesday (08:15 in Dublin)");
        guest.AwaitText("You’re booked");
        guest.Open(new Uri(link).GetLeftPart(UriPartial.Path));
        guest.AwaitText("Booked");
        guest.AwaitText("Tuesday 8 December, 09:15 – 09:45");

        // Without a press of the coordinator's: three holds are gone, one booking stands on both calendars.
        coordinator.Await(
            b => Held(b) == 0 && b.Find("[data-test='link-state']").Text == "booked" ? "gone" : null,
            "the holds to go"
        );
        foreach (var host in new[] { "sunniva", "keziah" })
        {
            coordinator.Await(
                b =>
                    Calendar(host) is var text
                    && text.Contains("Mast check, Petrel: Ingrid Sall", StringComparison.Ordinal)
                    && !text.Contains("Held: Mast check", StringComparison.Ordinal)
                        ? "there"
                        : null,
                $"the booking on the calendar of {host}"
            );
        }

        coordinator.Press("Board");
        coordinator.Await(
            b => b.All("[title^='Ingrid Sall, booked, 09:15 to 09:45']").Count == 2 ? "both" : null,
            "both lanes"
        );
        coordinator.ConsoleErrors().ShouldBeEmpty();
        guest.ConsoleErrors().ShouldBeEmpty();
    }

    [Fact]
    public void A_link_started_from_a_page_goes_out_as_text_in_two_zones_and_one_time_is_released()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Links");
        coordinator.Press("New link");
        coordinator.Press("Start from a page, an earlier link, a pattern or an event");
        coordinator.Type("Search what to start from", "keel talk");
        coordinator.Await(
            b => b.All("[aria-label='Past events'] button").Count == 1 ? "found" : null,
            "the one event of that name"
        );
        PressFirst(coordinator, "[aria-label='Past events'] button");
        coordinator.AwaitText("started from “Keel talk, Gannet” in a calendar");
        // Of the event's people one is a guest, and one of the team.
        coordinator.AwaitText("Times for Barnaby Quill");
        coordinator.Named("Remove Keziah Moon");
        coordinator.Press("Start from a page, an earlier link, a pattern or an event");
        coordinator.Type("Search what to start from", "sail");
        coordinator.Press("Sail fitting in the loft");
        coordinator.AwaitText("started from “Sail fitting in the loft”");
        coordinator.Type("Guest’s name", "Kenji Arataki");
        coordinator.ChooseZone("Guest’s time zone", "Kolkata");
        coordinator.PressInLane("Piet Lund, Thursday 10 December", (9 * 60) + 2);
        coordinator.AwaitText("1 opening offered");
        coordinator.PressInLane("Piet Lund, Thursday 10 December", (10 * 60) + 2);
        coordinator.AwaitText("2 openings offered");
        coordinator.AwaitText(
            "Thursday, 10 December: 13:30–14:00 (09:00–09:30 Copenhagen), 14:30–15:00 (10:00–10:30 Copenhagen)"
        );
        coordinator.Press("Copy");
        coordinator.AwaitText("Copied");
        coordinator.AwaitText("Reserve one of them here:");
        coordinator.Await(
            b => b.Path.StartsWith("/work/links/0", StringComparison.Ordinal) ? "there" : null,
            "an address of its own"
        );
        coordinator.Choose("In whose time", "Copenhagen time");
        coordinator.AwaitText("Thursday, 10 December: 09:00–09:30, 10:00–10:30");
        coordinator.Press("Save changes");
        coordinator.AwaitText("Changed. The guest sees it as it is now.");

        PressFirst(coordinator, "label:has([aria-label='Hold all picked times'])");
        coordinator.AwaitText("2 times are held on the hosts’ calendars");
        coordinator.Press("Web address only");
        var address = coordinator.Find("[data-test='link-address']").Text;
        new Uri(address).AbsolutePath.ShouldStartWith("/times/sail-fitting-in-the-loft-");

        using var guest = new Chromium("", 390, 844, zone: "Asia/Kolkata");
        guest.Open(address);
        guest.Named("Thursday, 09:00");
        using var other = new Chromium(site.Address, 390, 844);
        other.Open("/brackwater/sail-fitting");
        other.Named("Thursday, 08:00");
        other.All("[data-start='2026-12-10T08:00:00Z']").ShouldBeEmpty();

        // Something else comes up: the one is let go, for everybody and from the link.
        coordinator.Press("Release Thu 10 Dec, 09:00");
        coordinator.AwaitText("One time is held on the hosts’ calendars");
        guest.AwaitNone("Thursday, 09:00");
        guest.Named("Thursday, 10:00");
        other.Named("Thursday, 09:00");

        // None of it suits; what would stands on the link's board.
        guest.Press("None of these times work for me");
        guest.Press("Send");
        guest.AwaitText("Give 1 to 6 times that would work for you.");
        guest.SetDate("Time 1 that would work for you", "2026-12-11T10:00");
        guest.Press("Send");
        guest.AwaitText("Marit Oakes will answer you.");
        coordinator.Press("Offer Fri 11 Dec, 10:00");
        coordinator.AwaitText("2 openings offered");
        coordinator.Press("Save changes");
        guest.Named("Friday, 10:00");
        coordinator.Press("Dismiss the wish for Fri 11 Dec, 10:00");
        coordinator.AwaitNone("Dismiss the wish for Fri 11 Dec, 10:00");

        // What was only begun is thrown away.
        coordinator.Press("Repeat");
        coordinator.Press("Save as draft");
        coordinator.Press("Delete draft");
        coordinator.Await(b => b.Path == "/work/links" ? "there" : null, "the list");

        coordinator.Press("Links");
        coordinator.AwaitText("Kenji Arataki");
        coordinator.AwaitText("opened once");
        coordinator.AccessibilityFaults().ShouldBeEmpty();
        coordinator.Press("Kenji Arataki");
        coordinator.Press("Revoke");
        coordinator.Press("Revoke it");
        guest.AwaitText("These times were withdrawn.");
        guest.AwaitText("Ask Marit Oakes for other times.");
        guest.AccessibilityFaults().ShouldBeEmpty();
        coordinator.ConsoleErrors().ShouldBeEmpty();
    }

    [Fact]
    public void Times_are_copied_without_a_title_or_a_guest_and_nothing_goes_out()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Links");
        coordinator.Press("New link");
        coordinator.ChooseLineUp("Piet Lund");
        coordinator.AwaitText("0 openings offered");
        // A drag fills a stretch with one time after the other.
        coordinator.DragInLane("Piet Lund, Tuesday 15 December", (9 * 60) + 2, (10 * 60) + 2);
        coordinator.AwaitText("2 openings offered");
        coordinator.Click(coordinator.Find("label:has(input[type=checkbox]) input[type=checkbox]:checked"));
        coordinator.Press("Copy");
        coordinator.AwaitText("Copied");
        coordinator.Press("Web address only");
        coordinator.AwaitText("It works once the link is made");
        coordinator.Press("Links");
        coordinator.AwaitText("its web address is not out");
        // Whoever looks at the board sees that they are offered.
        coordinator.Open("/work/board?from=2026-12-15&weeks=1");
        coordinator.Await(
            b => b.All("[title*='offered, 09:00 to 09:30']").Count > 0 ? "drawn" : null,
            "what is offered by text"
        );
        // What is out as text is taken back like any link.
        coordinator.Press("Links");
        coordinator.Press("nobody yet");
        coordinator.Press("Revoke");
        coordinator.AwaitText("tell whoever has them yourself");
        coordinator.Press("Revoke it");
        coordinator.Await(
            b => b.Find("[data-test='link-state']").Text == "revoked" ? "revoked" : null,
            "the link to be revoked"
        );
    }

    /// <summary>What stands in a host's calendar outside.</summary>
    private string Calendar(string host)
    {
        using var http = new HttpClient();
        return http.GetStringAsync(new Uri($"{site.Calendars}/screen/{host}/work")).GetAwaiter().GetResult();
    }

    private static string? Reload(Chromium mail, string subject)
    {
        mail.Open("/mail/ingrid@sall-sloops.example");
        return mail.Shows(subject) ? "there" : null;
    }

    /// <summary>Presses what is drawn anew at any moment.</summary>
    private static void PressFirst(Chromium browser, string css) =>
        browser.Await(
            b =>
            {
                if (b.All(css).FirstOrDefault(element => element.Displayed) is not { } element)
                    return null;
                b.Click(element);
                return "pressed";
            },
            css
        );

    private static int Held(Chromium browser) => browser.All("[data-offered] .hatched").Count;

    private static void NewLink(Chromium coordinator, string title, string guest, string email)
    {
        coordinator.Press("Links");
        coordinator.Press("New link");
        coordinator.Type("Title that the guest reads", title);
        coordinator.Type("Guest’s name", guest);
        coordinator.Type("Guest’s email", email);
        coordinator.ChooseLineUp("Sunniva Dale", "Keziah Moon");
        coordinator.AwaitText("acting for Sunniva, Keziah");
    }
}
