namespace Browser.Tests;

/// <summary>Anything is found, and the screen's main button pressed, by keyboard alone.</summary>
public sealed class FindPathTests(Site site) : IClassFixture<Site>
{
    private const string Switch = "Keys: / finds, . presses the screen’s main button, ? lists what works there";

    [Fact]
    public void A_page_a_guest_and_a_day_are_found_by_one_key()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/calendars");
        marit.AwaitText("Kept here");

        marit.Keyboard("/");
        marit.Keyboard("hull survey");
        marit.Named("Hull survey on the slip");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Keyboard(Keys.Enter);
        marit.AwaitText("The page’s rules");

        marit.Keyboard("/");
        marit.Keyboard("fergal");
        marit.Named("New link: Fergal Mulhearn");
        marit.Keyboard(Keys.ArrowDown);
        marit.Keyboard(Keys.Enter);
        marit.AwaitText("What happened");
        marit.AwaitText("fergal@mulhearn-tugs.example");

        marit.Keyboard("/");
        marit.Keyboard("tue");
        marit.Named("Tuesday, 8 December 2026");
        marit.Keyboard(Keys.Escape);
        marit.AwaitNone("Tuesday, 8 December 2026");
        marit.Keyboard("8 dec");
        marit.Named("Tuesday, 8 December 2026");
        marit.Keyboard(Keys.Enter);
        marit.Await(b => b.Path == "/work/board" ? "there" : null, "the board");
        marit.AwaitText("8 Dec to 14 Dec");

        marit.Keyboard("/");
        marit.Keyboard("qqq");
        marit.AwaitText("Nothing is called “qqq”.");
        // Who knows what they want does not wait for the answer.
        marit.Keyboard(Keys.Escape);
        marit.Keyboard("audit" + Keys.Enter);
        marit.AwaitText("Who of your team did what, and for whom.");
    }

    [Fact]
    public void A_key_presses_the_main_button_another_lists_what_works_and_all_can_be_switched_off()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/pages");
        marit.Named("New page");
        marit.Keyboard("?");
        marit.AwaitText("Keys on this screen");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Close");
        marit.AwaitNoText("Keys on this screen");
        // What is typed is typed.
        marit.Type("Search by title", "a.?");
        marit.AwaitText("Nothing matches “a.?”");
        marit.Open("/work/pages");
        marit.Named("New page");
        marit.Keyboard(".");
        marit.Await(b => b.Path == "/work/pages/new" ? "there" : null, "a new page");

        // From one row of a list to the next.
        marit.Open("/work/bookings?order=soonest");
        marit.Named("Fergal Mulhearn");
        marit.Ask("document.querySelector('tbody a').focus()");
        var first = marit.Focused("href");
        marit.Keyboard(Keys.ArrowDown);
        marit.Focused("href").ShouldNotBe(first);
        marit.Keyboard(Keys.ArrowUp);
        marit.Focused("href").ShouldBe(first);

        marit.Open("/work/you");
        marit.Click(marit.Field(Switch));
        marit.Press("Save profile");
        marit.AwaitText("Saved.");
        marit.Open("/work/pages");
        marit.Named("New page");
        marit.Keyboard("?");
        marit.Keyboard(".");
        marit.AwaitNoText("Keys on this screen");
        marit.Path.ShouldBe("/work/pages");
        marit.Open("/work/you");
        marit.Click(marit.Field(Switch));
        marit.Press("Save profile");
        marit.AwaitText("Saved.");
    }
}
