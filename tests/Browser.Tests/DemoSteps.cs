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
}
