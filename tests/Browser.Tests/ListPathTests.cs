using LooseLantern.Server.Demo;

namespace Browser.Tests;

/// <summary>Lists and boards where there is more than one screen of everything.</summary>
public sealed class ListPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public async Task Lists_go_on_and_back_are_found_in_and_the_board_begins_with_a_few()
    {
        await site.FillAsync(new LargeDemoSize(Hosts: 8, Pages: 32, Bookings: 80, Links: 1));
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();

        // Pages, a run after another, and back to the start.
        marit.AwaitText("30 of 43");
        marit.AwaitText("A first talk about a new boat");
        marit.Press("After");
        marit.AwaitText("13 of 43");
        marit.AwaitNoText("A first talk about a new boat");
        marit.Ask("return window.scrollY").ShouldBe(0L);
        var here = (string)marit.Ask("return location.pathname + location.search")!;
        marit.Open(here);
        marit.AwaitText("13 of 43");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Before");
        marit.AwaitText("30 of 43");
        marit.AwaitText("A first talk about a new boat");
        marit.Type("Search by title", "berth 3");
        marit.AwaitText("Survey at berth 31");
        marit.AwaitNoText("Survey at berth 4");
        marit.Type("Search by title", "nowhere");
        marit.AwaitText("Nothing matches “nowhere”");
        marit.Press("Show all");
        marit.AwaitText("30 of 43");
        marit.Press("Commissions");
        marit.AwaitText("A first talk about a new boat");
        marit.AwaitNoText("Survey at berth 1");

        marit.Open("/work/bookings");
        marit.Press("Past");
        // It goes on as one comes near its end, and nothing above moves.
        const string top = "return document.querySelector('tbody a').getBoundingClientRect().top + scrollY";
        marit.AwaitText("30 of ");
        var before = marit.Ask(top);
        marit.Ask("window.scrollTo(0, document.body.scrollHeight)");
        marit.Await(
            b => b.All("tbody a[href^='/work/bookings/']").Count > 30 ? "more" : null,
            "more than thirty bookings"
        );
        marit.Ask(top).ShouldBe(before);

        // Twenty hosts would be too many lanes to begin with; the others are chosen.
        marit.Open("/work/board");
        marit.Named("Anselm Park");
        marit.AwaitNone("Berth 8");
        marit.Choose("Show another host", "Berth 8");
        marit.Named("Berth 8");
        marit.Press("only Berth 8");
        marit.AwaitNone("Anselm Park");
        marit.Press("others");
        marit.Named("Anselm Park");
        marit.AccessibilityFaults().ShouldBeEmpty();

        // A guest of the desk has more pages on asking.
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater");
        guest.AwaitText("A word about varnish");
        guest.AwaitNoText("Survey at berth 9");
        guest.Press("Show more");
        guest.AwaitText("Survey at berth 9");
        guest.AwaitNone("Show more");
        guest.TooWide().ShouldBeEmpty();
        guest.TooSmallForThumbs().ShouldBeEmpty();
    }
}
