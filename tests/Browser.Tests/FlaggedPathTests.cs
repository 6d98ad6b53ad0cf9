namespace Browser.Tests;

/// <summary>What screening flagged is seen on the guest, and called off with a letter.</summary>
public sealed class FlaggedPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_flagged_booking_is_seen_on_its_guest_and_called_off_kindly()
    {
        using (var guest = new Chromium(site.Address, 390, 844))
        {
            guest.Open("/brackwater-commissions/first-talk");
            guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
            guest.Type("Your name", "Gudrun Ballast");
            guest.Type("Your email", "gudrun@ballast.example");
            guest.Click(guest.Field("Work"));
            guest.Click(guest.Find("form button[type=submit]"));
            guest.AwaitText("You’re booked");
        }

        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/bookings");
        marit.Press("Flagged");
        marit.AwaitText("A working boat: ask Anselm about the classification first.");
        marit.AwaitText("What is she for?");
        marit.AwaitText("Dear Gudrun,");
        marit.Type("Letter", "Dear {{ nobody }}");
        marit.AwaitText("There is no blank {{ nobody }}");
        marit.Type(
            "Letter",
            "Dear {{ first_name }},\n\nwe build for pleasure alone. {{ day }} is off.\n\n{{ workspace }}"
        );
        marit.AwaitText("we build for pleasure alone. ");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Gudrun Ballast");
        marit.AwaitText("Flagged:");
        marit.Press("Gudrun Ballast");
        marit.AwaitText("Flagged:");
        marit.AwaitText("A first talk about a new boat");

        marit.Open("/work/bookings/flagged");
        // Nobody is called off who was not chosen.
        marit.AwaitText("Call off 0 bookings");
        marit.Click(marit.Field("Call off the booking of Gudrun Ballast"));
        marit.Press("Call off 1 booking");
        marit.AwaitText("1 booking called off.");
        marit.AwaitText("No flagged bookings");
        using var mail = new Chromium(site.Calendars);
        mail.AwaitMail("gudrun@ballast.example", "About your booking: A first talk about a new boat");
        mail.AwaitText("this is not the right appointment for you");
    }
}
