namespace Browser.Tests;

/// <summary>Pages with several hosts, and sessions that several guests share.</summary>
public sealed class LineUpPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_guest_takes_a_place_in_a_group_session_and_the_next_one_sees_one_less()
    {
        using var first = new Chromium(site.Address, 390, 844);
        first.Open("/brackwater-school/safety-morning");
        first.Press("Thursday, 09:00 7 left");
        first.Type("Your name", "Imke Sandvig");
        first.Type("Your email", "imke@sandvig-sejl.example");
        first.Press("Reserve 09:00 on Thursday");
        first.AwaitText("You’re booked");

        using var second = new Chromium(site.Address, 390, 844);
        second.Open("/brackwater-school/safety-morning");
        second.Press("Thursday, 09:00 6 left");
        second.Type("Your name", "Eskil Ronne");
        second.Type("Your email", "eskil@ronne-baade.example");
        second.Press("Reserve 09:00 on Thursday");
        second.AwaitText("You’re booked");

        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Board");
        coordinator.Find("[title$=\"Imke Sandvig, Eskil Ronne, booked, 09:00 to 11:00, Safety morning\"]");
    }

    [Fact]
    public void A_page_of_a_panel_keeps_its_line_up_over_a_change_and_hands_out_its_case_file()
    {
        using var coordinator = new Chromium(site.Address);
        coordinator.SignInToDemo();
        coordinator.Press("Yard hand interview");
        coordinator.Named("Remove Piet Lund from seat 3");
        coordinator.Type("Place", "Loft over the boat store");
        coordinator.Press("Publish 1 change");
        coordinator.AwaitText("Published. Guests see it as it is now.");
        coordinator.ReadLink("Case file").ShouldContain("\"lineup\"");

        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater-school/yard-hand");
        guest.AwaitText("Rosalind Achebe, Anselm Park, and Piet Lund or Tomasz Reed");
        guest.AwaitText("Loft over the boat store");
    }
}
