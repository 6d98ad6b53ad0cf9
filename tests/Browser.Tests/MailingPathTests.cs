namespace Browser.Tests;

/// <summary>One offer to four guests, followed until two have booked.</summary>
public sealed class MailingPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void A_letter_to_four_from_a_pasted_list_two_book_one_is_asked_again_and_the_fourths_link_ends()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/guests");
        marit.Press("Mailings");
        marit.Press("New mailing");
        marit.Type(
            "Paste a list",
            "Edda Krog, edda@krog.example, Copenhagen\nFinlo Ray, finlo@ray.example, Los Angeles\nTora Lind, tora@lind.example, Atlantis\nWilf Teller, wilf@teller.example,"
        );
        marit.Press("Add these");
        marit.AwaitText("3 guests");
        marit.AwaitText("Line 3, “Atlantis”: Write a time zone");
        marit.Type("Paste a list", "Tora Lind, tora@lind.example, Dublin\nWilf Teller, wilf@teller.example,");
        marit.Press("Add these");
        marit.AwaitText("4 guests");
        marit.AwaitNoText("Atlantis");

        marit.Choose("Start from", "First talk about a commission");
        marit.AwaitText("openings for 4 people.");
        marit.AwaitText("Dear Edda,");
        marit.Press("Next letter");
        marit.AwaitText("Times in Los Angeles");
        // What is written is not lost by a press elsewhere.
        marit.Press("Links");
        marit.AwaitText("Discard changes?");
        marit.Press("Keep editing");
        marit.Press("Change this letter alone");
        marit.Type("Subject for Finlo Ray alone", "Finlo, a talk?");
        marit.Await(b => b.Find("article h3").Text == "Finlo, a talk?" ? "shown" : null, "the own subject");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Send 4 letters");
        marit.AwaitText("4 sent, 0 booked, 4 silent,");
        var mailing = marit.Path;

        using var mail = new Chromium(site.Calendars);
        Book(mail, "edda@krog.example", "A talk about your new boat", "Europe/Copenhagen");
        Book(mail, "finlo@ray.example", "Finlo, a talk?", "America/Los_Angeles");
        marit.Open(mailing);
        marit.AwaitText("4 sent, 2 booked, 2 silent,");
        // The fourth's link ends.
        marit.Press("Wilf Teller: Link");
        marit.Press("Revoke");
        marit.Press("Revoke it");
        marit.AwaitText("revoked");
        marit.Open(mailing);
        marit.AwaitText("4 sent, 2 booked, 1 silent, 1 over,");
        marit.Press("Ask 1 silent guest again");
        marit.AwaitText("1 silent guest asked again.");
        marit.AccessibilityFaults().ShouldBeEmpty();
        mail.AwaitMail("tora@lind.example", "Still open: Talk about your new boat");
        foreach (var box in new[] { "edda@krog.example", "finlo@ray.example", "wilf@teller.example" })
        {
            mail.Open("/mail/" + box);
            mail.AwaitText("boat");
            mail.Shows("Still open").ShouldBeFalse();
        }

        marit.Open("/work/guests/mailings");
        marit.AwaitText("4 sent, 2 booked, 1 silent, 1 over,");
    }

    private void Book(Chromium mail, string box, string subject, string zone)
    {
        var address = mail.AwaitLink(box, subject, "/times/");
        using var guest = new Chromium(site.Address, 390, 844, zone: zone);
        guest.Open(address);
        guest.Click(guest.Await(b => b.All("button[data-start]").FirstOrDefault(), "an opening"));
        guest.Find("input[type=tel]").SendKeys("+45 20 10 10 10");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
    }
}
