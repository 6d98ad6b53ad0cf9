namespace Browser.Tests;

/// <summary>
/// A guest in Los Angeles and a host in Copenhagen: one pair of clocks on every screen and in every mail.
/// </summary>
public sealed class ClockPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_guest_nine_hours_away_reads_both_clocks_from_the_first_screen_to_the_last_mail()
    {
        const string Address = "esme@harbour-lights.example";
        using var guest = new Chromium(site.Address, 390, 844, zone: "America/Los_Angeles", language: "en-US");
        guest.Open("/brackwater-commissions/design-review");
        guest.AwaitText("Times where you are,");
        guest.AwaitText("Los Angeles, 11:00 PM now");
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        var press = guest.Await(
            b => b.All("form button[type=submit]").FirstOrDefault(one => one.Text.Contains("Reserve", Words)),
            "the press that reserves"
        );
        // The hour where the guest is, and the one at the place in brackets.
        press.Text.ShouldMatch(@"^Reserve \d+:\d\d [AP]M on \w+ \(.*\d+:\d\d [AP]M in Copenhagen\)$");
        guest.AccessibilityFaults().ShouldBeEmpty();
        guest.TooWide().ShouldBeEmpty();
        guest.Type("Your name", "Esme Lightfoot");
        guest.Type("Your email", Address);
        Answer(guest);
        guest.Press(press.Text);
        guest.AwaitText("You’re booked");
        guest.AwaitText("Los Angeles time");
        guest.AwaitText("Copenhagen time:");

        using var mail = new Chromium(site.Calendars);
        mail.Open("/mail");
        mail.Await(b => Reload(b, Address, "Design review:"), "the mail");
        mail.AwaitText("Times in Los Angeles (UTC-8) / Copenhagen (UTC+1)");

        guest.Press("Move this booking");
        guest.AwaitText("Choose another time");
        guest.Click(guest.Await(b => b.All("button[data-start]").Skip(1).FirstOrDefault(), "another opening"));
        var move = guest.Await(
            b => b.All("button").FirstOrDefault(one => one.Text.StartsWith("Move to", Words)),
            "the press that moves it"
        );
        move.Text.ShouldMatch(@"^Move to \d+:\d\d [AP]M on \w+ \(.*\d+:\d\d [AP]M in Copenhagen\)$");
        guest.Click(move);
        guest.AwaitText("Your booking has a new time.");
        mail.Await(b => Reload(b, Address, "Moved: Design review"), "the mail that it was moved");
        mail.AwaitText("Times in Los Angeles (UTC-8) / Copenhagen (UTC+1)");
    }

    [Fact]
    public void What_a_guest_chose_to_read_by_lasts_and_in_person_the_place_comes_first()
    {
        using var guest = new Chromium(site.Address, zone: "America/Los_Angeles");
        guest.Open("/brackwater-commissions/design-review");
        guest.AwaitText("Times where you are,");
        guest.Press("show Copenhagen");
        guest.AwaitText("Copenhagen, 08:00 now");
        guest.Open("/brackwater-commissions/design-review");
        guest.AwaitText("Copenhagen, 08:00 now");

        guest.Open("/brackwater/hull-survey");
        guest.AwaitText("Copenhagen, 08:00 now");
        guest.Press("Tuesday, 09:00");
        guest.Named("Reserve 09:00 on Tuesday (00:00 in Los Angeles)");
    }

    private const StringComparison Words = StringComparison.Ordinal;

    private static void Answer(Chromium guest)
    {
        foreach (var field in guest.All("form input[id^='answer-'][type='text'], form textarea"))
            field.SendKeys("A cutter");
    }

    private static string? Reload(Chromium mail, string address, string subject)
    {
        mail.Open($"/mail/{address}");
        return mail.Shows(subject) ? subject : null;
    }
}
