namespace Browser.Tests;

/// <summary>From a saved letter to a guest who books by the link it made.</summary>
public sealed class LetterPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_letter_is_saved_filled_in_for_a_guest_sent_and_booked_from()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/guests");
        marit.Press("Letters");
        marit.Press("New letter");
        marit.Type("Name", "Call about a boat");
        marit.Type("Subject", "A call, {{ first_name }}?");
        marit.Type("Letter", "Dear {{ name }}");
        marit.Press("Save letter");
        marit.AwaitText("There is no blank {{ name }}");
        marit.Type(
            "Letter",
            "Dear {{ first_name }} of {{ organisation }},\n\n{{ times }}\n\n{{ link }}\n\n{{ sender }}"
        );
        marit.Choose("Its link starts from", "Commission talk");
        marit.Click(marit.Field("For the whole team"));
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Save letter");
        marit.AwaitText("the team’s");

        marit.Open("/work/guests/new");
        marit.Type("Name", "Theodora Plum");
        marit.Type("Email", "theodora@plum-yachts.example");
        marit.Press("Save guest");
        marit.AwaitText("Added by the team");
        marit.Press("Write");
        marit.Choose("Start from", "Call about a boat");
        marit.AwaitText("Nothing is known for {{ organisation }}.");
        marit.Type("Letter", "Dear {{ first_name }},\n\n{{ times }}\n\n{{ link }}\n\n{{ sender }}");
        marit.AwaitNoText("Nothing is known for");
        marit.AwaitText("Dear Theodora,");
        marit.AwaitText("Talk about your new boat (30 min)");
        marit.Choose("With", "Odile Farrow");
        marit.Press("Formatted");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Send letter");
        marit.AwaitText("A call, Theodora?");
        marit.AwaitText("Talk about your new boat");

        using var mail = new Chromium(site.Calendars);
        var address = mail.AwaitLink("theodora@plum-yachts.example", "A call, Theodora?", "/times/");
        using var guest = new Chromium(site.Address, 390, 844, zone: "America/Los_Angeles");
        guest.Open(address);
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        guest.Find("input[type=tel]").SendKeys("+1 213 555 0177");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
        marit.Open(marit.Path);
        marit.AwaitText("Booked: Talk about your new boat");
    }
}
