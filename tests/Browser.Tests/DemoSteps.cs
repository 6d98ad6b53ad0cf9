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

    /// <summary>Has a link's line-up be these hosts, each with a seat; it starts as that of the link before.</summary>
    public static void ChooseLineUp(this Chromium browser, params string[] hosts)
    {
        const string Remove = "Remove ";
        string[] Seated() =>
            [
                .. browser
                    .All("[aria-label='Line-up'] button[aria-label^='Remove ']")
                    .Select(button => button.GetAttribute("aria-label")![Remove.Length..]),
            ];
        // A host who is alone can't be removed, so whoever is to come is added first.
        var options = browser.Find("[aria-label='Another seat']").Text;
        foreach (var host in hosts.Where(host => options.Contains(host, StringComparison.Ordinal)))
            browser.Choose("Another seat", host);
        if (hosts.Length > 1 || options.Contains(hosts[0], StringComparison.Ordinal))
            browser.Named(Remove + hosts[0]);
        foreach (var other in Seated().Except(hosts))
        {
            browser.Press(Remove + other);
            browser.AwaitNone(Remove + other);
        }

        // The board is drawn anew for them: until then a drag would be lost with the lanes it is in.
        browser.Await(
            b =>
                b.All("[data-lane]")
                    .Select(lane => lane.GetAttribute("aria-label")!.Split(',')[0])
                    .Distinct()
                    .Order()
                    .SequenceEqual(hosts.Order())
                    ? "drawn"
                    : null,
            $"the lanes of {string.Join(", ", hosts)}"
        );
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
