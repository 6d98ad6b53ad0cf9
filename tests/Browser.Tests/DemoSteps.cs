namespace Browser.Tests;

internal static class DemoSteps
{
    /// <summary>Signs in as the demo's coordinator, which ends at the pages.</summary>
    public static void SignInToDemo(this Chromium browser)
    {
        browser.Open("/sign-in");
        browser.Type("Email", "marit@brackwater.example");
        browser.Type("Password", "lantern-demo");
        browser.Press("Sign in");
        browser.Await(b => b.Path == "/work/pages" ? "there" : null, "the pages");
    }

    /// <summary>Waits until the editor counts these openings on the fourteen days, a dash for none.</summary>
    public static void AwaitSupply(this Chromium browser, string counts)
    {
        string Shown(Chromium b) =>
            string.Join(
                ' ',
                b.All("section[aria-label='Openings in the next two weeks'] [data-count]").Select(count => count.Text)
            );
        try
        {
            browser.Await(b => Shown(b) == counts ? "counted" : null, "openings");
        }
        catch (WebDriverTimeoutException)
        {
            Shown(browser).ShouldBe(counts);
        }
    }
}
