namespace Browser.Tests;

/// <summary>Guests as the team keeps them: known by themselves, brought in by a file, made one of two.</summary>
public sealed class GuestBookPathTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void Who_books_is_known_noted_of_edited_found_and_gets_a_link()
    {
        using var marit = new Chromium(site.Address);
        using var guest = new Chromium(site.Address, 390, 844, zone: "America/Halifax");
        guest.Open("/brackwater/sail-fitting");
        guest.Find("button[data-start]").Click();
        guest.Type("Your name", "Philomena Gale");
        guest.Type("Your email", "philomena@gale-boats.example");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");

        marit.SignInToDemo();
        marit.Press("Guests");
        marit.AwaitText("Adaora Nwosu-Pike");
        marit.Type("Search guests", "gale-boats");
        marit.AwaitNoText("Adaora Nwosu-Pike");
        marit.Press("Philomena Gale");
        marit.AwaitText("First booked");
        marit.AwaitText("Booked: Sail fitting in the loft");
        // Both clocks: Halifax is five hours behind.
        marit.AwaitText("in Halifax)");

        marit.Type("A note, for your team alone", "Asks for the loft in the morning.");
        marit.Press("Add note");
        marit.AwaitText("Note, Marit Oakes");
        marit.Press("Edit");
        marit.Type("Organisation", "Gale Boats");
        marit.Type("Phone", "ring me");
        marit.Choose("Keeper", "Ivo Brandt");
        marit.Press("Save guest");
        marit.AwaitText("Write a phone number");
        marit.Type("Phone", "+1 902 555 0177");
        marit.Press("Save guest");
        marit.AwaitText("+1 902 555 0177");
        marit.AwaitText("Ivo Brandt");
        marit.AccessibilityFaults().ShouldBeEmpty();

        marit.Press("New link");
        marit.Field("Guest’s name").GetAttribute("value").ShouldBe("Philomena Gale");
        marit.Field("Guest’s email").GetAttribute("value").ShouldBe("philomena@gale-boats.example");

        // A choice is saved for the team, and shows whom it is about.
        marit.Open("/work/guests");
        marit.Choose("Whose guests they are", "Ivo Brandt");
        marit.Choose("Which appointments they have", "an appointment to come");
        marit.AwaitText("Philomena Gale");
        marit.AwaitNoText("Adaora Nwosu-Pike");
        marit.Press("Save this view");
        marit.Type("Name", "Ivo’s to come");
        marit.Press("Save view");
        marit.Named("Delete view “Ivo’s to come”");
        marit.Press("Everybody");
        marit.AwaitText("Adaora Nwosu-Pike");
        marit.Press("Ivo’s to come");
        marit.AwaitNoText("Adaora Nwosu-Pike");
        marit.AwaitText("Philomena Gale");
        marit.AccessibilityFaults().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_file_with_faults_comes_in_without_them_and_is_undone()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("lantern-guests").FullName, "boat-show.csv");
        await File.WriteAllTextAsync(
            file,
            """
            Who;E-Mail;Tidszone;Boat
            Perpetua Lund;perpetua@lund-skibe.example;Copenhagen;Skylark
            Osbert Finch;osbert@nowhere;Atlantis;Gannet
            Ottilie Wren;ottilie@wren-charters.example;;
            """,
            TestContext.Current.CancellationToken
        );
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/guests");
        marit.Press("Import");
        marit.Field("CSV or vCard file").SendKeys(file);
        marit.AwaitText("3 rows");
        marit.AwaitText("Row 3, Tidszone: Atlantis Write a time zone");
        // Who is called what stands in a column that has no usual name.
        marit.AwaitText("ottilie@wren-charters.example");
        marit.Choose("What Who is", "Name");
        marit.AwaitText("Perpetua Lund");
        marit.AwaitText("something is wrong with 1 row");
        marit.Named("Import 1 guest").GetAttribute("disabled").ShouldNotBeNull();
        marit.Click(marit.Field("Leave these rows out and import the others"));
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Import 1 guest");
        marit.AwaitText("Imported: 1 new guest, 0 changed, 1 left out.");
        marit.Press("See guests");
        marit.AwaitText("Perpetua Lund");
        marit.AwaitNoText("Osbert Finch");

        marit.Press("Import");
        marit.Press("Undo import of boat-show.csv");
        marit.AwaitText("undone");
        marit.Open("/work/guests?search=Perpetua");
        marit.AwaitText("No guest is like that");
    }

    [Fact]
    public void Two_who_are_one_are_merged_after_a_look_and_parted_again()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/guests?search=ottilie%40wren-charters");
        marit.Press("Ottilie Wren");
        marit.AwaitText("Perhaps the same person");
        marit.Press("Merge with Ottilie Wren, ottilie@wren-and-wren.example");
        marit.AwaitText("becomes part of Ottilie Wren, with 1 email");
        marit.Click(marit.Field("Wren And Wren"));
        marit.Press("Merge guests");
        marit.AwaitText("ottilie@wren-and-wren.example");
        marit.AwaitText("Wren And Wren");
        marit.AwaitText("Merged guests");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Undo merge with Ottilie Wren");
        marit.AwaitText("Perhaps the same person");
        marit.AwaitText("Wren Charters");
        marit.Press("Different people");
        marit.AwaitNoText("Perhaps the same person");
    }

    [Fact]
    public void A_guest_is_erased_once_nothing_is_to_come_and_found_nowhere()
    {
        using var marit = new Chromium(site.Address);
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater/sail-fitting");
        guest.Find("button[data-start]").Click();
        guest.Type("Your name", "Zephyrine Quince");
        guest.Type("Your email", "zephyrine@quince.example");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");

        marit.SignInToDemo();
        marit.Open("/work/guests?search=Zephyrine");
        marit.Press("Zephyrine Quince");
        marit.Press("Erase this guest");
        marit.AwaitText("Cancel or revoke these first");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Close");
        marit.Open("/work/bookings?search=Zephyrine");
        marit.Press("Cancel the booking of Zephyrine Quince");
        marit.Press("Cancel the booking");
        marit.AwaitNone("Cancel the booking of Zephyrine Quince");

        marit.Open("/work/guests?search=Zephyrine");
        marit.Press("Zephyrine Quince");
        marit.Press("Erase this guest");
        marit.AwaitText("1 booking stays, without name");
        marit.Named("Erase guest").GetAttribute("disabled").ShouldNotBeNull();
        marit.Click(marit.Field("I understand that this can’t be undone"));
        marit.Press("Erase guest");
        marit.AwaitText("Adaora Nwosu-Pike");
        marit.Open("/work/guests?search=Zephyrine");
        marit.AwaitText("No guest is like that");
        foreach (var list in new[] { "/work/bookings", "/work/bookings?when=cancelled", "/work/post" })
        {
            marit.Open($"{list}{(list.Contains('?') ? '&' : '?')}search=Quince");
            marit.AwaitText("Nothing matches “Quince”");
        }

        guest.Open(guest.Path);
        guest.AwaitNoText("Zephyrine");
    }

    [Fact]
    public void How_long_guests_are_kept_is_said_and_whom_that_erases_is_seen_first()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/guests");
        marit.Press("Retention");
        marit.AwaitText("Nobody tonight, nobody within 30 days");
        marit.Type("Surveys and fittings", "soon");
        marit.Press("Preview");
        marit.AwaitText("Say 1 to 240 months");
        marit.Type("Surveys and fittings", "1");
        marit.Type("Commissions", "1");
        marit.Type("School", "1");
        marit.Type("Links, and pages without a kind", "1");
        marit.Press("Preview");
        marit.AwaitNoText("nobody within 30 days");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Type("Never booked", "240");
        foreach (
            var kind in new[] { "Surveys and fittings", "Commissions", "School", "Links, and pages without a kind" }
        )
            marit.Type(kind, "");
        marit.Press("Save");
        marit.AwaitText("Saved.");
    }
}
