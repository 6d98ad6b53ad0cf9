namespace Browser.Tests;

/// <summary>Hours that change, people who join and leave, work done for others, and how one signs in.</summary>
public sealed class TeamPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_change_of_hours_says_what_it_does_and_guests_see_it()
    {
        var holidays = File(
            "holidays.ics",
            "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//t//EN\nBEGIN:VEVENT\nUID:1\nSUMMARY:Harbour day\nDTSTART;VALUE=DATE:20261210\nEND:VEVENT\nBEGIN:VEVENT\nUID:2\nSUMMARY:Meeting\nDTSTART:20261211T100000Z\nDTEND:20261211T110000Z\nEND:VEVENT\nEND:VCALENDAR\n"
        );
        var broken = File("broken.ics", "BEGIN:VCALENDAR\n");
        using var browser = SignIn();
        browser.Press("Hours");
        browser.Press("Piet Lund, usual hours");
        browser.AwaitText("Acting for Piet Lund");
        browser.AwaitText("They count on “A word about varnish”, “Sail fitting in the loft”, “Yard hand interview”.");

        browser.Type("Tuesday, open times", "7-11:30 and then some");
        browser.Tab();
        browser.AwaitText("“then some” is no run of time");
        browser.Named("Save hours").Enabled.ShouldBeFalse();
        browser.Type("Tuesday, open times", "7-10");
        browser.Tab();
        browser.AwaitText("Sail fitting in the loft: ");

        browser.Press("Add a dated change");
        browser.Press("Some weekdays of a run");
        browser.Press("Add the change");
        browser.AwaitText("Choose at least one weekday that lies between the dates.");
        browser.SetDate("From", "2026-12-07");
        browser.SetDate("To", "2026-12-20");
        browser.Press("Wed");
        browser.Type("What it is", "Deliveries");
        browser.Press("Add the change");
        browser.AwaitText("all Wednesdays from 7 Dec to 20 Dec");

        browser.Field("Holidays file").SendKeys(broken);
        browser.AwaitText("The file ends before this VCALENDAR does");
        browser.Field("Holidays file").SendKeys(holidays);
        browser.AwaitText("1 event of the file is no whole day and left out");
        browser.Press("Add these days");
        browser.AwaitText("closed, Harbour day");
        browser.Find("[aria-label='A year of changes'] [title*='Harbour day']");

        browser.Press("Save hours");
        browser.AwaitText("What your change did");
        browser.AwaitText("fewer in the next 4 weeks");
        browser.ReadLink("Save as iCalendar availability").ShouldContain("SUMMARY:Harbour day");

        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater/sail-fitting");
        guest.Named("Tuesday, 09:00");
        guest.AwaitNone("Tuesday, 10:00");
        guest
            .All("button[data-start]")
            .ShouldNotContain(button =>
                button.GetAttribute("aria-label")!.StartsWith("Wednesday", StringComparison.Ordinal)
                || button.GetAttribute("aria-label")!.StartsWith("Thursday", StringComparison.Ordinal)
            );
    }

    [Fact]
    public void Hours_by_another_clock_are_warned_of()
    {
        using var browser = SignIn();
        browser.Press("Hours");
        browser.Press("Ivo Brandt, usual hours");
        browser.ChooseZone("In the time of", "Tokyo");
        browser.AwaitText("Ivo Brandt is in Copenhagen, where it is 08:0");
        browser.AwaitText("09:00 here is not their 09:00");
        browser.AwaitText("A first talk about a new boat: ");
    }

    [Fact]
    public void Somebody_joins_by_a_link_and_chooses_who_acts_for_them()
    {
        using var owner = SignIn();
        owner.Press("Team");
        owner.Press("Invite someone");
        owner.Press("Make the link");
        owner.AwaitText("Give their name");
        owner.Type("Name", "Cai Strand");
        owner.Type("Email, which they will sign in with", "cai@brackwater.example");
        owner.Press("Make the link");
        var link = owner.Field("Link for Cai Strand").GetAttribute("value")!;

        using var cai = new Chromium(site.Address, 390, 844);
        cai.Open(new Uri(link).AbsolutePath);
        cai.AwaitText("Marit Oakes invites you, as host.");
        cai.Type("Password", "short");
        cai.Press("Join");
        cai.AwaitText("Choose a password of at least 10 characters.");
        cai.Type("Password", "lanterns along a wet quay");
        cai.Press("Join");
        cai.AwaitText("Cai Strand, usual hours");
        using (var late = new Chromium(site.Address))
        {
            late.Open(new Uri(link).AbsolutePath);
            late.AwaitText("This invitation was used or has run out");
        }

        // Marit may act for Cai, and it is marked where she does.
        owner.Press("Pages");
        owner.Press("New page");
        owner.Type("Title, as guests read it", "Rope work");
        owner.Choose("Add a host to seat 1", "Cai Strand");
        owner.Press("Remove Marit Oakes from seat 1");
        owner.AwaitText("Acting for Cai Strand.");
        owner.Press("Publish");
        owner.AwaitText("published");
        owner.AwaitText("Marit Oakes, for Cai Strand: Made “Rope work”");

        cai.Press("You");
        cai.Press("Acting for me");
        cai.AwaitText("Marit Oakes, for Cai Strand: Published “Rope work”");
        cai.Click(cai.Field("Marit Oakes may offer my time"));
        cai.Await(
            b => b.Field("Marit Oakes may offer my time") is { Selected: false, Enabled: true } ? "off" : null,
            "the leave taken back and kept"
        );

        owner.Type("Place", "Rope loft");
        owner.Press("Publish 1 change");
        owner.AwaitText("You may not offer the time of Cai Strand.");
        owner.Field("Place").GetAttribute("value").ShouldBe("Rope loft");
    }

    [Fact]
    public void Who_leaves_hands_over_and_who_takes_over_must_be_free()
    {
        using var owner = SignIn();
        owner.Press("Team");
        owner.Press("Remove from team: Tomasz Reed");
        owner.Press("Remove from team");
        owner.AwaitText("Choose who takes over.");
        // Everybody has something to do at some time of Tomasz's: whatever Sunniva is not free for goes to the room
        // keeper, Marit.
        owner.Choose("Who takes over their seats on pages and their bookings to come", "Sunniva Dale");
        owner.Press("Remove from team");
        var clashes = owner.Await(
            b => b.All("select[id^='clash-']") is { Count: > 0 } found ? found : null,
            "the clashes"
        );
        owner.AwaitText("can’t go over as they stand");
        foreach (var clash in clashes)
            clash.FindElements(By.TagName("option")).Single(option => option.Text == "Marit Oakes").Click();
        owner.Press("Remove from team");
        owner.AwaitNoText("Remove Tomasz Reed from the team");
        owner.AwaitNone("Roles of Tomasz Reed");
        owner.AwaitText("Tomasz Reed left;");

        using var tomasz = new Chromium(site.Address);
        tomasz.Open("/sign-in");
        tomasz.Type("Email", "tomasz@brackwater.example");
        tomasz.Type("Password", "lantern-demo");
        tomasz.Press("Sign in");
        tomasz.AwaitText("The email or the password is wrong.");
    }

    [Fact]
    public void A_second_factor_is_set_up_asked_for_and_another_place_signed_out()
    {
        using var browser = SignIn("keziah");
        using var phone = SignIn("keziah");
        browser.Press("KM Keziah Moon");
        browser.Press("Signing in");
        browser.Type("Your password", "wrong");
        browser.Press("Set it up");
        browser.AwaitText("This is not your password.");
        browser.Type("Your password", "lantern-demo");
        browser.Press("Set it up");
        var key = browser.Find("code").Text;
        browser.Type("The code it shows now", "000000");
        browser.Press("Turn it on");
        browser.AwaitText("This is not the code your authenticator shows now");
        browser.Type("The code it shows now", Totp.Code(key));
        browser.Press("Turn it on");
        browser.AwaitText("Keep these recovery codes");
        var recovery = browser.Find("[aria-label='Recovery codes'] li").Text;
        browser.Press("I’ve saved them");
        browser.AwaitText("10 recovery codes are left");
        // Whoever came in by the password alone is out, which that screen may have noticed by itself.
        phone.Open("/work/board");
        phone.Await(b => b.Path == "/sign-in" ? "out" : null, "the sign-in");

        phone.Type("Email", "keziah@brackwater.example");
        phone.Type("Password", "lantern-demo");
        phone.Press("Sign in");
        phone.Type("Code of your authenticator", "123456");
        phone.Press("Sign in");
        phone.AwaitText("This code is wrong.");
        phone.Type("Code of your authenticator", recovery);
        phone.Press("Sign in");
        phone.Await(b => b.Path.StartsWith("/work", StringComparison.Ordinal) ? "in" : null, "the work");

        browser.Open("/work/you/security");
        browser.Press("Sign out there");
        browser.AwaitNone("Sign out there");
        phone.Open("/work/board");
        phone.Await(b => b.Path == "/sign-in" ? "out" : null, "the sign-in again");
    }

    [Fact]
    public void New_pages_start_from_usual_settings_and_say_whose()
    {
        using var browser = SignIn("marit");
        browser.Open("/work/you/usual");
        browser.Type("Duration, minutes", "2");
        browser.Press("Save defaults");
        browser.AwaitText("A duration is 5 minutes to 24 hours.");
        browser.Type("Duration, minutes", "50");
        browser.Press("Save defaults");
        browser.AwaitText("New pages start from these");
        browser.Press("Pages");
        browser.Press("New page");
        browser.AwaitText("50 minutes (yours)");
        browser.AwaitText("10 min after (the workspace’s)");
        browser.Field("Minutes kept free after").GetAttribute("value").ShouldBe("10");
    }

    [Fact]
    public void Weights_and_caps_are_set_and_load_is_read_for_other_weeks()
    {
        using var browser = SignIn();
        browser.Press("Team");
        browser.Press("Hours and caps of Sunniva Dale");
        browser.AwaitText("Acting for Sunniva Dale");
        browser.Type("Most a day", "many");
        browser.Type("Weight in a pool", "3");
        browser.Press("Save");
        browser.AwaitText("Cap a day at 1 to 1000 sessions, or leave it open.");
        browser.Type("Most a day", "4");
        browser.Press("Save");
        browser.AwaitText("weight 3; at most 4 a day");
        browser.Press("Earlier weeks");
        browser.AwaitText("from 19 Oct");

        browser.Press("Add a room or thing");
        browser.Press("Add it");
        browser.AwaitText("Name it in up to 120 characters.");
        browser.Type("Name of the room or thing", "Paint tent");
        browser.Press("Add it");
        browser.Press("Remove from team: Paint tent");
        browser.AwaitNone("Remove from team: Paint tent");
    }

    [Fact]
    public void Who_may_only_look_can_paint_nothing()
    {
        using var browser = SignIn("sunniva");
        browser.Press("Hours");
        browser.Press("Piet Lund, usual hours");
        browser.AwaitText("Piet Lund does not let you offer their time");
        browser.Field("Saturday, open times").GetAttribute("value").ShouldBe("closed");
        browser.DragInLane("Saturday, painted", 9 * 60, 11 * 60);
        browser.Field("Saturday, open times").GetAttribute("value").ShouldBe("closed");
        browser.AwaitNone("Save hours");
        browser.Open("/work/board?from=2026-12-08&weeks=1");
        browser.DragInLane("Sunniva Dale, Tuesday 8 December", 9 * 60, 10 * 60);
        browser.AwaitText("Sunniva Dale: ");
        browser.AwaitNone("Publish");
    }

    private Chromium SignIn(string who = "marit")
    {
        var browser = new Chromium(site.Address);
        browser.Open("/sign-in");
        browser.Type("Email", $"{who}@brackwater.example");
        browser.Type("Password", "lantern-demo");
        browser.Press("Sign in");
        browser.Await(b => b.Path.StartsWith("/work", StringComparison.Ordinal) ? "in" : null, "the work");
        return browser;
    }

    private static string File(string name, string text)
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("lantern-files").FullName, name);
        System.IO.File.WriteAllText(path, text);
        return path;
    }
}
