using System.IO.Compression;

namespace Browser.Tests;

/// <summary>From a page that offers too little to one that guests book, and what guests of it meet.</summary>
public sealed class PagePathTests(Site site) : IClassFixture<Site>
{
    // What a guest's browser has to load before anything can be chosen.
    private const int MostScriptBytes = 130 * 1024;

    [Fact]
    public void A_panel_page_is_built_its_dark_day_explained_relaxed_published_and_booked_on_a_phone()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("New page");
        coordinator.Type("Title, as guests read it", "Launch talk");
        coordinator.Choose("Desk", "brackwater-school");
        coordinator.Type("Internal name", "Launch talk, panel");
        coordinator.Choose("Kind", "School");
        coordinator.Choose("Add a host to seat 1", "Rosalind Achebe");
        coordinator.Press("Remove Marit Oakes from seat 1");
        coordinator.Press("Another seat");
        coordinator.Find("[aria-label='Who may take seat 2']").Text.ShouldContain("Anselm Park");
        coordinator.Press("The hosts’ hours");
        coordinator.Type("Place", "Loft");

        // Anselm is away on Thursday, and seat 2 has nobody else.
        coordinator.Click(
            coordinator.Find("section[aria-label='Openings in the next two weeks'] li:nth-child(4) button")
        );
        coordinator.AwaitText("Thursday 10 December is dark");
        coordinator.AwaitText("Anselm Park is away all day");
        coordinator.AwaitText("and seat 2 has nobody else.");
        coordinator.Press("Apply: Let Odile Farrow take seat 2 as well");
        coordinator.AwaitText("Applied: Let Odile Farrow take seat 2 as well.");
        coordinator.Named("Remove Odile Farrow from seat 2");
        coordinator.AwaitNoText("and seat 2 has nobody else.");
        coordinator.AccessibilityFaults().ShouldBeEmpty();

        // What a guest would see is tried before anybody can, with wrong input too.
        coordinator.Press("View as a guest");
        coordinator.AwaitText("Nothing is reserved for real.");
        coordinator.Click(coordinator.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        coordinator.Type("Your name", "Try Out");
        coordinator.Click(coordinator.Find("form button[type=submit]"));
        coordinator.AwaitText("Write one email address, such as name@company.example.");
        coordinator.Type("Your email", "try@out.example");
        coordinator.Click(coordinator.Find("form button[type=submit]"));
        coordinator.AwaitText("A guest would now have this time");
        coordinator.AccessibilityFaults().ShouldBeEmpty();
        coordinator.Press("Back to the page");
        coordinator.Press("Publish");
        coordinator.AwaitText("Published. Guests can book it now.");

        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater-school");
        guest.Click(guest.Find("a[href='/brackwater-school/launch-talk']"));
        guest.AwaitText("Rosalind Achebe, and Anselm Park or Odile Farrow");
        var opening = guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening");
        guest.Click(opening);
        guest.Type("Your name", "Signe Bolt");
        guest.Type("Your email", "signe@bolt-boats.example");
        // What is typed is there again after the page was loaded anew.
        guest.Open("/brackwater-school/launch-talk");
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        guest.Field("Your name").GetAttribute("value").ShouldBe("Signe Bolt");
        guest.AccessibilityFaults().ShouldBeEmpty();
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
        coordinator.Press("Bookings");
        coordinator.AwaitText("Signe Bolt");

        // A change waits until it is published, and the page as it was can be had back.
        coordinator.Press("Pages");
        coordinator.Press("Launch talk, panel");
        coordinator.Type("Place", "Crane pad");
        coordinator.Press("Save changes");
        coordinator.AwaitText("Saved. Guests see it once you publish.");
        guest.Open("/brackwater-school/launch-talk");
        guest.AwaitText("Loft");
        coordinator.Press("Publish 1 change");
        coordinator.AwaitText("Published. Guests see it as it is now.");
        coordinator
            .Await(b => b.All("[aria-label^='Restore the version of']").FirstOrDefault(), "the former edition")
            .Click();
        coordinator.Field("Place").GetAttribute("value").ShouldBe("Loft");
        coordinator.Named("Publish 1 change");
        coordinator.Press("Discard changes");
        coordinator.AwaitText("Changes discarded. The page is as guests see it.");
        coordinator.Field("Place").GetAttribute("value").ShouldBe("Crane pad");
    }

    [Fact]
    public void A_guest_is_screened_out_by_what_they_answer_and_loses_nothing()
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater-commissions/first-talk");
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        guest.Type("Your name", "Vilhelm Aske");
        guest.Type("Your email", "vilhelm@aske-marine.example");
        guest.Type("How long should she be, in metres? (optional)", "30");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("Over 24 metres our slip is too short.");
        guest.AccessibilityFaults().ShouldBeEmpty();
        guest.Type("How long should she be, in metres? (optional)", "9");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
    }

    [Fact]
    public void A_group_session_fills_up_while_another_guest_looks_on()
    {
        using var looker = new Chromium(site.Address);
        looker.Open("/brackwater-school/safety-morning");
        var start = looker
            .Await(
                b =>
                    b.All("button[data-start]")
                        .FirstOrDefault(button => button.Text.Contains("left", StringComparison.Ordinal)),
                "a session"
            )
            .GetAttribute("data-start");
        using var guest = new Chromium(site.Address, 390, 844);
        for (var number = 1; ; number++)
        {
            guest.Open("/brackwater-school/safety-morning");
            guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "the openings");
            var session = guest.All($"button[data-start='{start}']").FirstOrDefault();
            if (session is null)
                break;
            number.ShouldBeLessThan(9);
            guest.Click(session);
            guest.Type("Your name", $"Class Mate {number}");
            guest.Type("Your email", $"mate{number}@class.example");
            guest.Click(guest.Find("form button[type=submit]"));
            guest.AwaitText("You’re booked");
        }

        looker.Await(b => b.All($"button[data-start='{start}']").Count == 0 ? "gone" : null, "the full session to go");
    }

    [Fact]
    public void Guests_read_in_their_language_see_their_own_calendar_and_load_little()
    {
        using var guest = new Chromium(site.Address, 390, 844, language: "da");
        guest.Open("/brackwater/hull-survey");
        guest.AwaitText("Mere");
        guest.AwaitText("Eftermiddag");
        guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "the openings");
        ScriptBytes(guest).ShouldBeLessThan(MostScriptBytes);

        var file = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}.ics");
        File.WriteAllText(
            file,
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//EN\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20261201T000000Z\r\nSUMMARY:Tandlæge\r\nDTSTART:20261208T090000Z\r\nDTEND:20261208T100000Z\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
        );
        try
        {
            guest.Find("input[type=file]").SendKeys(file);
            guest.AwaitText("1 aftale i din kalender tælles med");
            guest.Await(
                b =>
                    b.All("button[data-start='2026-12-08T09:00:00Z']")
                        .FirstOrDefault(button => button.Text.Contains("optaget", StringComparison.Ordinal)),
                "the clash"
            );
            guest.AccessibilityFaults().ShouldBeEmpty();
        }
        finally
        {
            File.Delete(file);
        }
    }

    [Fact]
    public void A_desk_is_dressed_and_its_page_shared_and_booked_inside_another_site()
    {
        using var outer = new OuterSite();
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Desks");
        coordinator.Await(b => b.Path == "/work/desks" ? "there" : null, "the desks");
        var framers = coordinator.Find("#framers-brackwater");
        framers.SendKeys("http://yard.example");
        coordinator.Press("Save Service desk");
        coordinator.AwaitText("Give an origin such as https://www.example.com, without a path.");
        framers.SendKeys(Keys.Control + "a");
        framers.SendKeys(outer.Origin);
        coordinator.Press("Save Service desk");
        coordinator.AwaitText("Saved. Guests see the change now.");
        coordinator.AccessibilityFaults().ShouldBeEmpty();

        coordinator.Press("Pages");
        coordinator.Press("Sail fitting in the loft");
        coordinator.Press("Share");
        coordinator.Press("For one guest");
        coordinator.Type("Guest’s name", "Petra Lindqvist");
        coordinator.Type("Guest’s email", "petra@lindqvist-sails.example");
        coordinator.Press("Make the address");
        var personal = coordinator
            .Await(b => b.All("#personal-address").FirstOrDefault(), "the address")
            .GetAttribute("value")!;
        coordinator.Press("On your site");
        var snippet = coordinator
            .Await(b => b.All("#share-frame").FirstOrDefault(), "the lines")
            .GetAttribute("value")!;
        coordinator.AccessibilityFaults().ShouldBeEmpty();

        outer.Serve(
            $"<!doctype html><title>Yard</title><h1>Our yard</h1>{snippet}<script>addEventListener('lantern:booked', (event) => document.title = 'booked ' + event.detail.start)</script>"
        );
        using var guest = new Chromium(outer.Origin, blocksOthersCookies: true);
        guest.Open("/");
        guest.InFrame("iframe", frame =>
        {
            Reserve(frame);
            frame.AwaitText("You’re booked");
        });
        guest.Await(
            b => b.Title.StartsWith("booked 2026-12-", StringComparison.Ordinal) ? "told" : null,
            "the outer page to hear of it"
        );

        // A page that sends its guests on takes the whole window along, out of the frame.
        coordinator.Open("/work/pages");
        coordinator.Press("Sail fitting in the loft");
        coordinator.Type("Web page to send them to", "https://after.yard.example/thanks");
        coordinator.Choose("Booking window", "no end date");
        coordinator.Press("Publish 2 changes");
        coordinator.AwaitText("Published. Guests see it as it is now.");
        guest.Open("/");
        guest.InFrame("iframe", Reserve);
        guest.Await(b => b.Path == "/thanks" ? "there" : null, "the page that guests are sent on to");

        static void Reserve(Chromium frame)
        {
            frame.Click(frame.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
            frame.Type("Your name", "Frida Holm");
            frame.Type("Your email", "frida@holm-sails.example");
            frame.Click(frame.Find("form button[type=submit]"));
        }

        // A personal address asks for nothing that is known.
        using var known = new Chromium(site.Address, 390, 844);
        known.Open(new Uri(personal).PathAndQuery);
        known.Click(known.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        known.Field("Your name").GetAttribute("value").ShouldBe("Petra Lindqvist");

        // Where no end is set, guests look on as far as they like, up to a year.
        var weeks = known.All("nav button").Count;
        known.Press("Show later dates");
        known.Await(b => b.All("nav button").Count > weeks + 20 ? "more" : null, "more weeks");
        known.Find("nav button[aria-current]").Location.X.ShouldBeInRange(0, 390);
    }

    /// <summary>All scripts that the page has loaded, as a browser that asks for gzip gets them.</summary>
    private static int ScriptBytes(Chromium guest)
    {
        using var http = new HttpClient();
        return guest
            .Scripts()
            .Sum(script =>
            {
                using var packed = new MemoryStream();
                using (var gzip = new GZipStream(packed, CompressionLevel.Optimal, leaveOpen: true))
                    gzip.Write(
                        http.GetByteArrayAsync(script, TestContext.Current.CancellationToken).GetAwaiter().GetResult()
                    );
                return (int)packed.Length;
            });
    }
}
