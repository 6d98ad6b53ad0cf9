namespace Browser.Tests;

/// <summary>What a guest sees before the app has come, and without it.</summary>
public sealed class FirstViewTests(Site site) : IClassFixture<Site>
{
    private const string Page = "/brackwater/hull-survey";

    // Where what can be read and pressed stands.
    private const string Seen = """
        const round = (box) => [box.x, box.y, box.width, box.height].map((side) => Math.round(side)).join(' ');
        return [...document.querySelectorAll('h1, h2, [data-start], [data-week]')]
          .map((one) => `${one.tagName} ${one.getAttribute('aria-label') ?? one.textContent.trim()} ${round(one.getBoundingClientRect())} ${one.className}`)
          .join('\n');
        """;

    private static string[] SeenOf(Chromium guest) => ((string)guest.Ask(Seen)!).Split('\n');

    [Theory]
    [InlineData(Page, 1280, "Europe/Copenhagen", "en-GB")]
    [InlineData(Page, 390, "America/Los_Angeles", "en-US")]
    [InlineData("/brackwater-commissions/design-review", 1280, "America/Los_Angeles", "de-DE")]
    [InlineData("/brackwater-commissions/design-review", 390, "Asia/Tokyo", "da-DK")]
    public void It_stands_where_the_app_draws_the_same(string path, int width, string zone, string language)
    {
        using var early = new Chromium(site.Address, width, 800, zone, language);
        early.Block("*/entry/*");
        early.OpenAtOnce(path);
        early.Await(b => b.All("#first-view [data-start]").FirstOrDefault(), "the first view");
        var before = SeenOf(early);

        using var late = new Chromium(site.Address, width, 800, zone, language);
        late.Open(path);
        late.Await(b => b.All("[data-start]").FirstOrDefault(), "the openings");
        var after = SeenOf(late);
        before.Length.ShouldBeGreaterThan(7);
        before.Where(line => !after.Contains(line)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(Page, "Europe/Copenhagen", "en-GB")]
    [InlineData(Page, "America/Los_Angeles", "en-US")]
    [InlineData("/brackwater-commissions/design-review", "Asia/Tokyo", "da-DK")]
    public void It_waits_for_no_tables_of_the_browsers(string path, string zone, string language)
    {
        using var guest = new Chromium(site.Address, 390, 844, zone, language);
        guest.Block("*/entry/*");
        // The first of these to be made takes a slow phone a quarter of a second, whatever it is.
        guest.Before(
            "for (const name of ['DateTimeFormat', 'ListFormat', 'NumberFormat', 'Segmenter', 'PluralRules']) Intl[name] = function () { window.asked = name; throw new Error(name); };"
        );
        guest.OpenAtOnce(path);
        guest.Await(b => b.All("#first-view [data-start]").FirstOrDefault(), "the first view");
        guest.Ask("return window.asked ?? null").ShouldBeNull();
    }

    [Fact]
    public void What_is_pressed_in_it_is_done_once_the_app_is_there()
    {
        using var guest = new Chromium(site.Address, 390, 844, "America/Los_Angeles", "en-US");
        guest.SlowDown(40_000);
        guest.Ask($"location.href = '{site.Address}{Page}'");
        // In one go, so that the app can't come between.
        var chosen = guest.Await(
            b =>
                (string?)
                    b.Ask(
                        "const one = document.querySelectorAll('#first-view [data-start]')[1]; one?.click(); return one?.dataset.start ?? null"
                    ),
            "an opening of the first view"
        );
        guest.Field("Your name");
        guest.All("#first-view").ShouldBeEmpty();
        guest.Find("[data-start][aria-pressed=true]").GetAttribute("data-start").ShouldBe(chosen);
    }

    [Fact]
    public void It_asks_nothing_twice_and_loads_little()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Block();
        guest.Open(Page);
        guest.Await(b => b.All("[data-start]").FirstOrDefault(), "the openings");
        var loaded = (string)
            guest.Ask(
                "return JSON.stringify(performance.getEntriesByType('resource').map((one) => [new URL(one.name).pathname, one.transferSize]))"
            )!;
        using var entries = System.Text.Json.JsonDocument.Parse(loaded);
        var names = entries.RootElement.EnumerateArray().Select(one => one[0].GetString()!).ToList();
        // The page came with the first answer; only its openings are asked for again, in the reader's zone.
        names
            .Count(name =>
                name.StartsWith("/api/public/desks", StringComparison.Ordinal)
                && name.EndsWith("hull-survey", StringComparison.Ordinal)
            )
            .ShouldBe(0);
        names.Count(name => name.EndsWith("/openings", StringComparison.Ordinal)).ShouldBeLessThanOrEqualTo(2);
        (entries.RootElement.EnumerateArray().Sum(one => one[1].GetInt64()) / 1024).ShouldBeLessThan(170);
        names.Count(name => name.EndsWith(".js", StringComparison.Ordinal)).ShouldBeLessThan(11);
    }

    [Fact]
    public void Whoever_goes_from_a_guests_screen_to_the_teams_starts_anew_with_its_styles()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open(Page);
        guest.Await(b => b.All("#first-view").Count == 0 ? "yes" : null, "the app");
        Go("/brackwater");
        guest.AwaitText("Sail fitting");
        guest.Ask("return window.isOld ?? null").ShouldBe(true);
        Go("/sign-in");
        guest.Field("Email");
        guest.Ask("return window.isOld ?? null").ShouldBeNull();

        void Go(string path) =>
            guest.Ask(
                $"window.isOld = true; const link = document.createElement('a'); link.href = '{path}'; document.body.append(link); link.click()"
            );
    }

    [Fact]
    public void Where_there_is_nothing_it_is_said_in_our_words_alone()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/no/such/place/here");
        guest.AwaitText("There is nothing at this address");
        guest.AwaitText("Check the address");
        guest.Shows("Not Found").ShouldBeFalse();
    }

    [Fact]
    public void The_team_keeps_its_menu_where_there_is_nothing()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open($"/work/bookings/{Guid.NewGuid()}");
        marit.AwaitText("There is nothing at this address");
        marit.AwaitText("There is no such booking");
        marit.Shows("Calendars").ShouldBeTrue();
    }

    [Fact]
    public void What_was_typed_and_chosen_is_there_again_when_the_tab_is_loaded_anew()
    {
        using var guest = new Chromium(site.Address, 390, 844, "America/Los_Angeles", "en-US");
        guest.Open(Page);
        guest.Press("show mine (Los Angeles)");
        guest.AwaitText("Los Angeles, 11:0");
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        guest.Type("Your name", "Esme Lightfoot");
        guest.Ask("location.reload()");
        guest.Await(b => b.All("#guest-name, #first-view").Count == 0 ? "yes" : null, "the page anew");
        guest.AwaitText("Los Angeles, 11:0");
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        guest.Field("Your name").GetAttribute("value").ShouldBe("Esme Lightfoot");
    }

    [Fact]
    public void Without_scripts_it_says_what_is_open_next_and_whom_to_write_to()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.WithoutScripts();
        guest.OpenAtOnce(Page);
        guest.AwaitText("Hull survey on the slip");
        guest.AwaitText("Next open times");
        guest.AwaitText("Times in Copenhagen (UTC+1)");
        guest.AwaitText("Without it, write to");
        guest.TooWide().ShouldBeEmpty();
        guest.OpenAtOnce("/brackwater");
        guest.Click(guest.Await(b => b.All("main a").FirstOrDefault(), "a page of the desk"));
        guest.AwaitText("Next open times");
    }

    [Fact]
    public void An_address_of_nothing_says_so_in_the_readers_language()
    {
        using var guest = new Chromium(site.Address, language: "de-DE");
        guest.Open("/brackwater/no-such-page");
        guest.AwaitText("Hier ist keine Seite veröffentlicht");
    }
}
