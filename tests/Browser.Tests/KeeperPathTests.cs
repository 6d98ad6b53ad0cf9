namespace Browser.Tests;

/// <summary>A lead goes to who keeps them, and to the pool where that one is away.</summary>
public sealed class KeeperPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_lead_goes_to_its_keeper_and_when_that_one_is_away_to_the_pool()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Press("New page");
        marit.Type("Title, as guests read it", "Commission talk");
        marit.Type("Place", "Loft");
        marit.Choose("Add a host to seat 1", "Odile Farrow");
        marit.Choose("Add a host to seat 1", "Anselm Park");
        marit.Press("Remove Marit Oakes from seat 1");
        marit.Press("in this order");
        marit.Choose("Keepers in seat 1", "the guest’s keeper first");
        marit.AwaitText("a guest gets their keeper where free");
        marit.AwaitText("Add a question to choose new guests’ keepers by their answers.");
        marit.Press("The hosts’ hours");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Publish");
        marit.AwaitText("Nothing to publish");
        marit.Press("Share");
        marit.Press("For one guest");
        marit.Type("Guest’s name", "Leander Frost");
        marit.Type("Guest’s email", "leander@frost-yachts.example");
        marit.Press("Make the address");
        var address = new Uri(marit.Field("Address for Leander Frost").GetAttribute("value")!).PathAndQuery;

        marit.Open("/work/guests/new");
        marit.Type("Name", "Leander Frost");
        marit.Type("Email", "leander@frost-yachts.example");
        marit.Choose("Keeper", "Anselm Park");
        marit.Press("Save guest");
        marit.AwaitText("Added by the team");

        // On Tuesday both are free, and Odile would be first; on Thursday Anselm, who keeps Leander, is away all day.
        Book(address, "2026-12-08T10:");
        Book(address, "2026-12-10");
        marit.Open("/work/bookings?search=Leander");
        marit.AwaitText("Commission talk");
        var hosts = marit.Await(
            b =>
                b.All("td:nth-last-child(2)").Select(cell => cell.Text).Where(text => text.Length > 0).ToList()
                    is { Count: 2 } found
                    ? found
                    : null,
            "two bookings"
        );
        hosts.ShouldBe(["Anselm Park", "Odile Farrow"]);
    }

    private void Book(string address, string start)
    {
        using var guest = new Chromium(site.Address, 390, 844, zone: "America/Los_Angeles");
        guest.Open(address);
        guest.Click(guest.Find($"button[data-start^='{start}']"));
        // As everybody reads it.
        guest.AwaitText("Odile Farrow or Anselm Park");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
    }
}
