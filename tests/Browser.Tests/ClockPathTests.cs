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
        guest.AwaitText("Los Angeles, 11:0");
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
        guest.AwaitText("Copenhagen, 08:0");
        guest.Open("/brackwater-commissions/design-review");
        guest.AwaitText("Copenhagen, 08:0");

        guest.Open("/brackwater/hull-survey");
        guest.AwaitText("Copenhagen, 08:0");
        guest.Press("Tuesday, 09:00");
        guest.Named("Reserve 09:00 on Tuesday (00:00 in Los Angeles)");
    }

    [Fact]
    public void Over_the_clock_change_of_one_side_the_pair_of_hours_is_that_of_the_day()
    {
        const string Address = "rowan@tidewater-boats.example";
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Design review");
        coordinator.Choose("Booking window", "no end date");
        coordinator.Press("Publish 1 change");
        coordinator.AwaitText("Published. Guests see it as it is now.");

        // From 14 March 2027 clocks in Los Angeles are forward, from 28 March those in Copenhagen, too.
        using var guest = new Chromium(site.Address, 390, 844, zone: "America/Los_Angeles", language: "en-US");
        guest.Open("/brackwater-commissions/design-review");
        Turn(guest, "2027-03-15");
        guest.Click(guest.Await(b => b.All("button[data-start^='2027-03-1']").FirstOrDefault(), "an opening"));
        var press = guest.Await(
            b => b.All("form button[type=submit]").FirstOrDefault(one => one.Text.Contains("Reserve", Words)),
            "the press that reserves"
        );
        HoursApart(press.Text).ShouldBe(8);
        guest.Type("Your name", "Rowan Tidewater");
        guest.Type("Your email", Address);
        Answer(guest);
        guest.Press(press.Text);
        guest.AwaitText("You’re booked");
        using var mail = new Chromium(site.Calendars);
        mail.Open("/mail");
        mail.Await(b => Reload(b, Address, "Design review:"), "the mail");
        mail.AwaitText("Times in Los Angeles (UTC-7) / Copenhagen (UTC+1)");

        guest.Press("Move this booking");
        guest.AwaitText("Choose another time");
        Turn(guest, "2027-04-05");
        guest.Click(guest.Await(b => b.All("button[data-start^='2027-04']").FirstOrDefault(), "a time in April"));
        var move = guest.Await(
            b => b.All("button").FirstOrDefault(one => one.Text.StartsWith("Move to", Words)),
            "the press that moves it"
        );
        HoursApart(move.Text).ShouldBe(9);
        guest.Click(move);
        guest.AwaitText("Your booking has a new time.");
        mail.Await(b => Reload(b, Address, "Moved: Design review"), "the mail that it was moved");
        mail.AwaitText("Times in Los Angeles (UTC-7) / Copenhagen (UTC+2)");
    }

    private static void Turn(Chromium guest, string monday) => guest.Click(guest.Find($"button[data-week='{monday}']"));

    /// <summary>"Reserve 1:00 AM on Monday (10:00 AM in Copenhagen)" is nine hours apart.</summary>
    private static int HoursApart(string press)
    {
        var hours = System
            .Text.RegularExpressions.Regex.Matches(press, @"(\d+):\d\d ([AP])M")
            .Select(match =>
                (int.Parse(match.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture) % 12)
                + (match.Groups[2].Value == "P" ? 12 : 0)
            )
            .ToList();
        return (hours[1] - hours[0] + 24) % 24;
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
