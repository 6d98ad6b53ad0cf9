namespace Browser.Tests;

/// <summary>
/// Every main view, from the demo: nothing wrong by axe, nothing on the console, nothing wider than the screen. With
/// LANTERN_SHOTS set to a folder a picture of each is kept there, for the documentation.
/// </summary>
public sealed class MainViews(Site site) : IClassFixture<Site>
{
    private static readonly string? Pictures = Environment.GetEnvironmentVariable("LANTERN_SHOTS");

    [Fact]
    public void A_desk()
    {
        using var browser = new Chromium(site.Address, 390, 844);
        browser.Open("/brackwater-school");
        browser.AwaitText("For whoever wants to learn the trade");
        Check(browser, null);
        browser.Resize(1280, 800);
        Check(browser, "desk");
    }

    [Theory]
    [InlineData("guest-page", 1280)]
    [InlineData("guest-page-phone", 390)]
    public void The_guests_page(string name, int width)
    {
        using var browser = new Chromium(site.Address, width, width < 600 ? 844 : 800, zone: "Europe/Dublin");
        browser.Open("/brackwater/hull-survey");
        browser.Find("button[data-start]").Click();
        browser.Type("Your name", "Ottilie Wren");
        browser.Type("Your email", "ottilie@wren-charters.example");
        browser.ScrollToTop();
        Check(browser, name);
        if (width < 600)
            browser.TooSmallForThumbs().ShouldBeEmpty();
    }

    [Theory]
    [InlineData("group-page", 1280)]
    [InlineData(null, 390)]
    public void A_group_page(string? name, int width)
    {
        using var browser = new Chromium(site.Address, width, width < 600 ? 844 : 800);
        browser.Open("/brackwater-school/safety-morning");
        browser.Find("button[data-start]").Click();
        browser.ScrollToTop();
        Check(browser, name);
        if (width < 600)
            browser.TooSmallForThumbs().ShouldBeEmpty();
    }

    [Theory]
    [InlineData("booking", 1280)]
    [InlineData("booking-phone", 390)]
    public void The_private_link(string name, int width)
    {
        using var browser = new Chromium(site.Address, width, width < 600 ? 844 : 800, zone: "America/Halifax");
        browser.Open("/brackwater/sail-fitting");
        browser.Find("button[data-start]").Click();
        browser.Type("Your name", "Barnaby Quill");
        browser.Type("Your email", "barnaby@quill-and-daughter.example");
        browser.Click(browser.Find("form button[type=submit]"));
        browser.AwaitText("You’re booked");
        Check(browser, name);
        if (width < 600)
            browser.TooSmallForThumbs().ShouldBeEmpty();
    }

    [Fact]
    public void Signing_in()
    {
        using var browser = new Chromium(site.Address);
        browser.Open("/sign-in");
        browser.Field("Email");
        Check(browser, null);
    }

    [Fact]
    public void Making_a_workspace()
    {
        using var browser = new Chromium(site.Address);
        browser.Open("/start");
        browser.Field("Your email");
        Check(browser, null);
    }

    [Fact]
    public void The_coordinators_views()
    {
        using var browser = new Chromium(site.Address);
        browser.SignInToDemo();
        browser.AwaitText("in two weeks");
        browser.Await(b => b.Shows("…") ? null : "counted", "every page's openings");
        Check(browser, "pages");

        browser.Press("Hull survey on the slip");
        browser.Find("[data-test=supply-total]");
        Check(browser, null);
        browser.Type("Minutes kept free after", "0");
        browser.AwaitText("by your changes");
        browser.ScrollToTop();
        Check(browser, "page-editor");

        browser.Press("Bookings");
        browser.AwaitText("Discard changes?");
        Check(browser, null);
        browser.Press("Keep editing");
        browser.AwaitNoText("Discard changes?");
        browser.Field("Minutes kept free after").GetAttribute("value").ShouldBe("0");
        browser.Press("Bookings");
        browser.Press("Discard");
        // The screen that is left stands until the question is gone.
        browser.AwaitNoText("Discard changes?");
        browser.AwaitText("Booked");
        Check(browser, "bookings");
        browser.Press("Lucius Ferrow");
        browser.AwaitText("Lucius Ferrow waits for your answer");
        Check(browser, "opened-booking");

        browser.Press("Guests");
        browser.AwaitText("30 of 60");
        Check(browser, "guests");
        browser.Press("Barnaby Quill");
        browser.AwaitText("What happened");
        Check(browser, "guest");
        browser.Press("Edit");
        browser.Field("Organisation");
        Check(browser, null);
        browser.Open("/work/guests/fields");
        browser.AwaitText("Filled in for");
        Check(browser, null);
        browser.Open("/work/guests/import");
        browser.Field("CSV or vCard file");
        Check(browser, null);
        browser.Open("/work/guests/new");
        browser.Field("Organisation");
        Check(browser, null);

        browser.Press("Post");
        browser.Find("ul li button[aria-pressed]");
        browser.Click(browser.All("ul li button[aria-pressed]")[0]);
        browser.Find("article");
        Check(browser, "post");

        browser.Press("Links");
        browser.AwaitText("waits for");
        Check(browser, "links");
        browser.Press("Osric Pell: Ask again");
        browser.AwaitText("Ask Osric Pell again");
        Check(browser, null);
        browser.Press("Cancel");
        browser.Press("Ottilie Wren");
        browser.AwaitText("4 openings offered");
        browser.AwaitText("4 times are held");
        browser.Find("[data-piece]");
        Check(browser, "link");
        browser.Press("Change");
        browser.Press("more rules");
        browser.Press("As email");
        Check(browser, null);

        browser.Press("Board");
        browser.AwaitText("Tide table");
        Check(browser, null);
        browser.Open("/work/board?from=2026-12-10&weeks=1&together=all&beside=America/Halifax");
        browser.AwaitText("Office hours at the bench");
        Check(browser, "board");
        browser.Press("Calendars");
        browser.AwaitText("No calendar is joined for");
        Check(browser, "calendars");
        browser.Press("Join a calendar");
        browser.Type("Calendar server", site.Calendars);
        browser.Type("Name there", "sunniva");
        browser.Type("Password there", "lantern-demo");
        browser.Press("Find calendars");
        browser.Find("fieldset li");
        Check(browser, null);
    }

    [Fact]
    public void The_teams_views()
    {
        using var browser = new Chromium(site.Address);
        browser.SignInToDemo();
        browser.Press("Hours");
        browser.AwaitText("Summer evenings");
        Check(browser, null);
        browser.Press("Piet Lund, usual hours");
        browser.AwaitText("Stocktaking");
        browser.Type("Monday, open times", "7-11.30, 12-18");
        browser.Tab();
        browser.AwaitText("more in the next 4 weeks");
        browser.Press("Copy Monday to other days");
        Check(browser, "hours");
        browser.Press("Add a dated change");
        browser.Press("Some weekdays of a run");
        browser.Press("Other times");
        Check(browser, null);
        browser.Press("Paste a whole week");
        browser.Type("A line for a day or several, such as Mon–Thu 8–12, 13–17", "Mon 9-12\nTue nonsense");
        browser.AwaitText("can’t be read");
        Check(browser, null);
        browser.Press("Team");
        browser.Press("Discard");
        // The screen that is left stands until the question is gone.
        browser.AwaitNoText("Discard changes?");
        browser.AwaitText("lets you act for them");
        Check(browser, "team");
        browser.Press("Invite someone");
        Check(browser, null);
        browser.Press("Hours and caps of Keziah Moon");
        browser.AwaitText("Weight in a pool");
        Check(browser, null);
    }

    [Fact]
    public void Ones_own_views()
    {
        using var browser = new Chromium(site.Address);
        browser.SignInToDemo();
        browser.Press("MO Marit Oakes");
        browser.AwaitText("A line about you, for guests");
        Check(browser, null);
        browser.Press("Acting for me");
        browser.AwaitText("There is no other coordinator");
        Check(browser, null);
        browser.Press("Notifications");
        browser.AwaitText("Daily mail at");
        Check(browser, null);
        browser.Press("Defaults");
        browser.AwaitText("the workspace’s");
        Check(browser, null);
        browser.Press("Signing in");
        browser.Type("Your password", "lantern-demo");
        browser.Press("Set it up");
        browser.AwaitText("Scan it with an authenticator");
        Check(browser, null);
    }

    [Fact]
    public void In_the_dark()
    {
        using var browser = new Chromium(site.Address);
        browser.AskForDark();
        browser.Open("/brackwater-commissions/first-talk");
        browser.Find("button[data-start]").Click();
        Check(browser, null);

        browser.SignInToDemo();
        browser.AwaitText("in two weeks");
        browser.Press("Hull survey on the slip");
        browser.Type("Minutes kept free after", "0");
        browser.AwaitText("by your changes");
        Check(browser, null);
        browser.Press("Bookings");
        browser.Press("Discard");
        // The screen that is left stands until the question is gone.
        browser.AwaitNoText("Discard changes?");
        browser.AwaitText("Copenhagen time");
        Check(browser, null);
        browser.Press("Post");
        browser.Find("ul li button[aria-pressed]");
        browser.Click(browser.All("ul li button[aria-pressed]")[0]);
        browser.Find("article");
        Check(browser, null);
        browser.Press("Links");
        browser.Press("Ottilie Wren");
        browser.AwaitText("4 openings offered");
        Check(browser, null);

        browser.Press("Board");
        browser.AwaitText("Tide table");
        Check(browser, null);
        browser.Press("Hours");
        browser.Press("Piet Lund, usual hours");
        browser.AwaitText("Stocktaking");
        Check(browser, null);
        browser.Press("Team");
        browser.AwaitText("lets you act for them");
        Check(browser, null);
    }

    [Fact]
    public void A_coordinator_on_a_phone()
    {
        using var browser = new Chromium(site.Address, 390, 844);
        browser.SignInToDemo();
        browser.AwaitText("in two weeks");
        Check(browser, null);
        browser.Press("Hull survey on the slip");
        browser.Find("[data-test=supply-total]");
        Check(browser, null);
        browser.Press("Links");
        browser.AwaitText("Ottilie Wren");
        Check(browser, null);
        browser.Press("Ottilie Wren");
        browser.AwaitText("4 openings offered");
        Check(browser, null);
        browser.Press("Bookings");
        browser.AwaitText("today");
        Check(browser, null);
        browser.Press("Lucius Ferrow");
        browser.AwaitText("Lucius Ferrow waits for your answer");
        Check(browser, null);
        browser.Press("Post");
        browser.Find("ul li button[aria-pressed]");
        Check(browser, null);
        browser.Press("Calendars");
        browser.AwaitText("No calendar is joined for");
        Check(browser, null);
        browser.Press("Board");
        browser.AwaitText("Tide");
        Check(browser, null);
        browser.Press("Hours");
        browser.Press("Piet Lund, usual hours");
        browser.AwaitText("Stocktaking");
        Check(browser, null);
        browser.Press("Team");
        browser.AwaitText("Rooms and things");
        Check(browser, null);
        browser.Press("You");
        browser.AwaitText("A line about you, for guests");
        Check(browser, null);
    }

    private static void Check(Chromium browser, string? picture)
    {
        if (picture is not null && Pictures is not null)
            browser.Picture(Path.Combine(Pictures, picture + ".png"));
        browser.AccessibilityFaults().ShouldBeEmpty();
        browser.ConsoleErrors().ShouldBeEmpty();
        browser.TooWide().ShouldBeEmpty();
    }
}
