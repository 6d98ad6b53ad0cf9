namespace Browser.Tests;

/// <summary>The first path, from a coordinator's sign-in to a guest's booking, by clicking as people do.</summary>
public sealed class FirstPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_coordinator_makes_a_page_and_a_guest_books_it()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();

        // The hosts' calendars stand on the board.
        coordinator.Press("Board");
        coordinator.AwaitText("Interviews");

        // A page for Rosalind: her own calendar has her away from 13 to 15 on Tuesday and an assembly on Wednesday from
        // 9 to 10.
        coordinator.Press("Pages");
        coordinator.Press("New page");
        coordinator.Type("Title, as guests read it", "Trial morning at the bench");
        coordinator.Choose("Add a host to seat 1", "Rosalind Achebe");
        coordinator.Press("Remove Marit Oakes from seat 1");
        coordinator.Type("Place", "Bench room");
        coordinator.Choose("Desk", "brackwater-school");
        coordinator.Type("Days ahead", "10");
        coordinator.Type("Minutes kept free after", "15");
        coordinator.Type("Minutes from start to start", "60");
        coordinator.Type("Notice", "2");
        // A new page has its hosts' hours; this one has some of its own.
        coordinator.Press("This page’s hours");
        coordinator.Type("Tuesday, open times", "9-11.30");
        coordinator.Tab();
        coordinator.Type("Wednesday, open times", "9-12");
        coordinator.Tab();
        coordinator.Press("Copy Wednesday to other days");
        coordinator.Press("Thu");
        coordinator.Press("Fri");
        coordinator.Type("Monday, open times", "10-12");
        coordinator.Tab();
        // It is a little past Monday 08:00: with two hours' notice only 11:00 is left of today. On Tuesday 11:00 just
        // fits before 11:30, and on Wednesdays the assembly takes 9:00. On Thursday and Friday guests have booked her
        // safety morning from 9 to 11; on the second Monday a school class waits for her yes from 10 to 11, and has the
        // time until then.
        coordinator.AwaitSupply("1 3 2 1 1 – – 1 3 2 1 – – –");
        coordinator.Field("Address").GetAttribute("value").ShouldBe("trial-morning-at-the-bench");
        coordinator.Press("Publish");
        coordinator.AwaitText("published");

        using var guest = new Chromium(site.Address, zone: "America/Halifax");
        guest.Open("/brackwater-school/trial-morning-at-the-bench");
        guest.AwaitText("Trial morning at the bench");
        guest.Press("Tuesday, 10:00");
        guest.AwaitText("10:00 – 10:30");
        guest.Press("show mine (Halifax)");
        guest.AwaitText("05:00 – 05:30");
        guest.AwaitText("10:00 in Copenhagen");
        guest.Press("show Copenhagen");

        guest.Type("Your name", "Barnaby Quill");
        guest.Type("Your email", "barnaby at quill");
        guest.Press("Reserve 10:00 on Tuesday (05:00 in Halifax)");
        guest.AwaitText("Write one email address, such as name@company.example.");
        guest.Field("Your name").GetAttribute("value").ShouldBe("Barnaby Quill");

        guest.Type("Your email", "barnaby@quill-and-daughter.example");
        guest.Press("Reserve 10:00 on Tuesday (05:00 in Halifax)");
        guest.AwaitText("You’re booked");
        guest.AwaitText("Tuesday, 8 December 2026");
        guest.AwaitText("Bench room");
        guest.ReadLink("Save the calendar file").ShouldContain("DTSTART:20261208T090000Z");

        // Gone for everyone, with the 15 minutes after it; and it stands where the team looks.
        guest.Press("See other times of “Trial morning at the bench”");
        guest.Named("Tuesday, 09:00");
        guest.AwaitNone("Tuesday, 10:00");
        coordinator.Press("Bookings");
        coordinator.AwaitText("barnaby@quill-and-daughter.example");
        coordinator.Press("Board");
        coordinator.AwaitTitle("Barnaby Quill, booked, 10:00 to 10:30, Trial morning at the bench");
    }

    [Fact]
    public void Who_loses_a_race_keeps_what_was_typed_and_is_offered_what_is_left()
    {
        using var slow = new Chromium(site.Address);
        slow.Open("/brackwater/sail-fitting");
        slow.Press("Tuesday, 09:00");
        slow.Type("Your name", "Dervla Keane");
        slow.Type("Your email", "dervla@keane-ketches.example");

        using var quick = new Chromium(site.Address, 390, 844);
        quick.Open("/brackwater/sail-fitting");
        quick.Press("Tuesday, 09:00");
        quick.Type("Your name", "Osric Pell");
        quick.Type("Your email", "osric@pell-and-pell.example");
        quick.Press("Reserve 09:00 on Tuesday");
        quick.AwaitText("You’re booked");

        slow.Press("Reserve 09:00 on Tuesday");
        slow.AwaitText("This time is not open any more.");
        slow.AwaitNone("Tuesday, 09:00");
        slow.Press("Tue 8, 09:45");
        slow.Field("Your name").GetAttribute("value").ShouldBe("Dervla Keane");
        slow.Press("Reserve 09:45 on Tuesday");
        slow.AwaitText("You’re booked");
        slow.AwaitText("09:45 – 10:15");
    }

    [Fact]
    public void A_taken_address_and_bad_hours_are_told_at_their_fields_and_nothing_typed_is_lost()
    {
        using var browser = new Chromium(site.Address);
        browser.SignInToDemo();
        browser.Press("New page");
        browser.Type("Title, as guests read it", "Hull survey");
        browser.Choose("Desk", "brackwater");
        browser.Tab();
        browser.AwaitText("Another page of this desk has the address");
        browser.Press("Save as draft");
        browser.AwaitText("Another page of this desk has the address hull-survey; choose a different one.");

        browser.Press("This page’s hours");
        browser.Type("Wednesday, open times", "9-8, 13-15");
        browser.Tab();
        browser.AwaitText("“9-8” ends before it starts.");
        browser.Type("Address", "hull-survey-afloat");
        browser.Press("Save as draft");
        browser.AwaitText("nothing is saved until they are fixed");
        browser.Field("Wednesday, open times").GetAttribute("value").ShouldBe("9-8, 13-15");
        browser.Field("Title, as guests read it").GetAttribute("value").ShouldBe("Hull survey");

        browser.Type("Wednesday, open times", "9-12");
        browser.Tab();
        browser.Press("Save as draft");
        browser.Await(
            b =>
                b.Path.StartsWith("/work/pages/", StringComparison.Ordinal)
                && !b.Path.EndsWith("/new", StringComparison.Ordinal)
                    ? "saved"
                    : null,
            "the saved page"
        );
    }

    [Fact]
    public void A_calendar_file_is_joined_a_broken_one_is_refused_and_openings_follow()
    {
        var folder = Directory.CreateTempSubdirectory("lantern-files").FullName;
        var good = Path.Combine(folder, "marit.ics");
        var broken = Path.Combine(folder, "broken.ics");
        File.WriteAllText(
            good,
            "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//t//EN\nBEGIN:VEVENT\nUID:1\nSUMMARY:Harbour board\nDTSTART:20261209T093000\nDTEND:20261209T113000\nEND:VEVENT\nBEGIN:VEVENT\nUID:2\nSUMMARY:Nowhere\nDTSTART;TZID=Lost/Place:20261209T093000\nEND:VEVENT\nEND:VCALENDAR\n"
        );
        File.WriteAllText(broken, "BEGIN:VCALENDAR\nBEGIN:VEVENT\n");

        using var browser = new Chromium(site.Address);
        browser.SignInToDemo();
        browser.Press("Calendars");
        browser.AwaitText("No calendar is joined for Marit Oakes");
        browser.Press("Join a calendar");
        browser.Press("A file");
        browser.Choose("Whose calendar", "Marit Oakes");
        browser.Press("Join");
        browser.AwaitText("Choose a calendar file (.ics).");
        browser.Field("iCalendar file").SendKeys(broken);
        browser.Press("Join");
        browser.AwaitText("Line 2: The file ends before this VEVENT does");
        browser.Field("iCalendar file").SendKeys(good);
        browser.Press("Join");
        browser.AwaitText("1 event could not be read");
        browser.AwaitNoText("No calendar is joined for Marit Oakes");
        browser.Press("Board");
        browser.AwaitText("Harbour board");

        // It is her club's, not her own: no longer asked, it is shown and keeps nothing.
        browser.Press("Calendars");
        browser.Click(browser.Field("Busy times of marit block openings"));
        browser.AwaitText("None of the calendars of Marit Oakes is used");
        browser.Press("Board");
        browser.AwaitTitle("Harbour board, marked free, 09:30 to 11:30, marit, which is not asked");
        browser.Press("Calendars");
        browser.Press("Make an address – Your busy times for other programs");
        browser.Field("Address of your busy times").GetAttribute("value")!.ShouldContain("/api/public/busy/");
    }

    [Fact]
    public void A_wrong_password_is_told_and_the_way_back_is_kept()
    {
        using var browser = new Chromium(site.Address);
        browser.Open("/work/bookings");
        browser.Await(b => b.Path == "/sign-in" ? "asked" : null, "the sign-in");
        browser.Type("Email", "sunniva@brackwater.example");
        browser.Type("Password", "not-the-password");
        browser.Press("Sign in");
        browser.AwaitText("The email or the password is wrong.");
        browser.Type("Password", "lantern-demo");
        browser.Press("Sign in");
        browser.Await(b => b.Path == "/work/bookings" ? "there" : null, "the bookings");

        // A host who does not coordinate sees pages but changes none.
        browser.Press("Pages");
        browser.AwaitText("in two weeks");
        browser.AwaitNone("New page");
        browser.Press("Hull survey on the slip");
        browser.Find("[data-test=supply-total]");
        browser.AwaitNone("Nothing to publish");
        browser.Field("Title, as guests read it").Enabled.ShouldBeFalse();
    }

    [Fact]
    public void An_address_without_a_page_says_so()
    {
        using var browser = new Chromium(site.Address);
        browser.Open("/brackwater/mast-inspection");
        browser.AwaitText("There is nothing at this address");
        browser.Open("/booking/AAAAAAAAAAAAAAAAAAAAAAAA");
        browser.AwaitText("No booking has this link");
    }

    [Fact]
    public void A_page_with_nothing_open_says_so()
    {
        using var browser = new Chromium(site.Address);
        browser.Open("/brackwater/launch-day");
        browser.AwaitText("Nothing is open just now");
    }
}
