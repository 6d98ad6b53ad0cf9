namespace Browser.Tests;

/// <summary>The board: painted, moved, stretched and erased by mouse, touch and keyboard, and read.</summary>
public sealed class BoardTests(Site site) : IClassFixture<Site>
{
    private const string Marit = "Marit Oakes, Tuesday 8 December";

    [Fact]
    public void Office_hours_are_painted_published_moved_stretched_and_erased_by_the_mouse()
    {
        using var browser = Open("/work/board?from=2026-12-08&weeks=1");
        browser.DragInLane(Marit, 10 * 60, 11 * 60);
        browser.AwaitText("Office hours of Marit Oakes");
        browser.AwaitText("Tuesday 8 December, 10:00–11:00");
        browser.Press("Publish");
        browser.AwaitText("Give the page a title that guests will read");
        browser.Type("Title, as guests read it", "Ask the yard");
        browser.Type("Minutes of an opening", "20");
        browser.Press("Publish");
        browser.AwaitText("Published. Guests can book at");
        browser.AwaitTitle("Ask the yard, office hours, 10:00 to 11:00");
        Starts("ask-the-yard").ShouldBe(["Tuesday, 10:00", "Tuesday, 10:20", "Tuesday, 10:40"]);

        browser.DragInLane(Marit, 10 * 60 + 30, 14 * 60);
        browser.AwaitTitle("Ask the yard, office hours, 13:30 to 14:30");
        browser.AwaitText("is where you put it");
        browser.Press("Undo");
        browser.AwaitTitle("Ask the yard, office hours, 10:00 to 11:00");

        // By its end, to twelve; then a day on, in the same lane of the next day.
        browser.DragInLane(Marit, 11 * 60 - 2, 12 * 60);
        browser.AwaitTitle("Ask the yard, office hours, 10:00 to 12:00");
        browser.DragInLane(Marit, 11 * 60, 11 * 60, to: "Marit Oakes, Wednesday 9 December");
        browser.Find(
            "[aria-label='Marit Oakes, Wednesday 9 December'] [title='Ask the yard, office hours, 10:00 to 12:00']"
        );
        Starts("ask-the-yard")
            .ShouldBe([
                "Wednesday, 10:00",
                "Wednesday, 10:20",
                "Wednesday, 10:40",
                "Wednesday, 11:00",
                "Wednesday, 11:20",
                "Wednesday, 11:40",
            ]);

        // The last block of a page stays.
        browser.PressInLane("Marit Oakes, Wednesday 9 December", 11 * 60);
        browser.Press("Erase Ask the yard, office hours, 10:00 to 12:00");
        browser.AwaitText("This is the last block of its page.");
    }

    [Fact]
    public void Of_hours_that_repeat_one_can_be_erased_or_all_moved()
    {
        using var browser = Open("/work/board?from=2026-12-10&weeks=2");
        const string first = "Piet Lund, Thursday 10 December";
        const string second = "Piet Lund, Thursday 17 December";
        browser.AwaitTitle("Office hours at the bench, office hours, 13:00 to 15:00");
        browser.PressInLane(first, 14 * 60);
        browser.Press("Erase Office hours at the bench, office hours, 13:00 to 15:00");
        browser.AwaitText("Erase only this one, or all of them?");
        browser.Press("Only this one");
        browser.AwaitText("Erased from “Office hours at the bench”.");
        browser.Await(
            b =>
                b.All($"[aria-label='{first}'] [data-piece]").Count == 0
                && b.All($"[aria-label='{second}'] [data-piece]").Count == 1
                    ? "one"
                    : null,
            "only the second"
        );

        browser.DragInLane(second, 14 * 60, 13 * 60 + 30);
        browser.AwaitText("Only this one, or all of them?");
        browser.Press("All of them");
        browser.AwaitTitle("Office hours at the bench, office hours, 12:30 to 14:30");
        Starts("bench-hours").ShouldContain("Thursday, 12:30");
    }

    [Fact]
    public void A_block_comes_each_day_of_a_week_far_ahead_and_one_booking_closes_no_other_opening()
    {
        using var browser = Open("/work/board?from=2027-02-08&weeks=1");
        browser.DragInLane("Marit Oakes, Monday 8 February", 13 * 60, 15 * 60);
        browser.Type("Title, as guests read it", "Knot hour");
        browser.AwaitText("4 openings would become 3");
        browser.Choose("How often", "Every day");
        browser.SetDate("Last date", "2027-02-05");
        browser.Press("Publish");
        browser.AwaitText("choose a last date from then on");
        browser.SetDate("Last date", "2027-02-12");
        browser.Press("Publish");
        browser.AwaitText("Published.");
        browser.Find(
            "[aria-label='Marit Oakes, Friday 12 February'] [title^='Knot hour, office hours, 13:00 to 15:00']"
        );

        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater-commissions/knot-hour");
        guest.Click(guest.Find("[data-week='2027-02-08']"));
        int Open_() => guest.All("button[data-start^='2027-02']").Count;
        guest.Await(_ => Open_() == 20 ? "all" : null, "all openings of the week");
        guest.Click(guest.Find("button[data-start='2027-02-09T12:30:00Z']"));
        guest.Type("Your name", "Ingrid Sall");
        guest.Type("Your email", "ingrid@sall-sloops.example");
        guest.Click(guest.Find("form button[type=submit]"));
        guest.AwaitText("You’re booked");
        guest.Open("/brackwater-commissions/knot-hour");
        guest.Click(guest.Find("[data-week='2027-02-08']"));
        guest.Await(_ => Open_() == 19 ? "all others" : null, "all other openings of the week");
    }

    [Fact]
    public void One_lane_is_shown_by_one_press_and_a_bar_leads_to_its_booking()
    {
        using var browser = Open("/work/board");
        browser.Press("only Piet Lund");
        browser.AwaitNone("only Piet Lund");
        browser.Await(b => b.All("[data-lane^='2026'][aria-label^='Marit']").Count == 0 ? "gone" : null, "other lanes");
        browser.SetDate("Go to a date", "2026-12-07");
        browser.PressInLane("Piet Lund, Monday 7 December", 9 * 60);
        browser.AwaitText("Sail fitting in the loft, Monday, 7 December 2026, 08:45 – 09:15");
        browser.Press("Open");
        browser.Await(
            b => b.Path.StartsWith("/work/bookings/", StringComparison.Ordinal) ? "there" : null,
            "the booking behind the bar"
        );
    }

    [Fact]
    public void A_booking_is_moved_on_the_board_by_keyboard_and_by_the_mouse()
    {
        using var browser = new Chromium(site.Address);
        browser.SignInToDemo();
        browser.Open("/work/board");
        browser.AwaitText("Anselm Park");
        // From the start of the axis to half past ten, and in.
        browser.KeysInLane("Tomasz Reed, Tuesday 8 December", [.. Enumerable.Repeat(Keys.ArrowRight, 40)]);
        browser.Await(
            b =>
            {
                if (b.Find("[data-test=pointed]").Text.Contains("booked, 10:30 to 12:00", StringComparison.Ordinal))
                    return "on it";
                b.Keyboard(Keys.ArrowLeft);
                return null;
            },
            "the bar of the survey"
        );
        browser.Keyboard(Keys.Enter);
        browser.AwaitText("Hull survey on the slip, Tuesday, 8 December 2026, 10:30 – 12:00");
        browser.Press("Move");
        browser.AwaitText("Its openings are lit below");
        browser.Await(b => b.All("[data-lit]").Count > 0 ? "lit" : null, "openings on the board");
        browser.AccessibilityFaults().ShouldBeEmpty();
        // By the mouse it goes to the opening that is nearest to where it is dropped.
        browser.DragInLane("Tomasz Reed, Tuesday 8 December", 11 * 60 + 30, 15 * 60 + 35);
        browser.AwaitText("14:30: the guest is told once it is moved");
        browser.Press("Don’t move it");
        browser.AwaitNone("Earlier opening");

        browser.Press("Move");
        browser.AwaitText("Its openings are lit below");
        browser.Keyboard(Keys.ArrowRight);
        browser.AwaitText("11:00: the guest is told once it is moved");
        browser.Keyboard(Keys.ArrowRight);
        browser.Keyboard(Keys.ArrowLeft);
        var chosen = browser.Await(
            b =>
                b.All("[data-main]")
                    .Select(one => one.Text)
                    .FirstOrDefault(text => text.StartsWith("Move to", StringComparison.Ordinal)),
            "where it is to go"
        );
        browser.Press(chosen);
        browser.AwaitText("Moved.");
        browser.AwaitNoText("Tuesday, 8 December 2026, 10:30 – 12:00");

        browser.Press("Close");
        browser.AwaitNone("Move");
    }

    [Fact]
    public void A_block_is_offered_whole_every_week_and_stretches_as_one()
    {
        using var browser = Open("/work/board?from=2026-12-08&weeks=2");
        browser.DragInLane("Marit Oakes, Friday 11 December", 13 * 60, 15 * 60);
        browser.Type("Title, as guests read it", "Afternoon afloat");
        browser.Press("One opening for the whole length");
        browser.Choose("How often", "Every week");
        browser.Press("Publish");
        browser.AwaitText("Published.");
        browser.Find(
            "[aria-label='Marit Oakes, Friday 18 December'] [title='Afternoon afloat, office hours, 13:00 to 15:00']"
        );
        browser.DragInLane("Marit Oakes, Friday 11 December", 15 * 60 - 2, 16 * 60);
        browser.Press("All of them");
        browser.Find(
            "[aria-label='Marit Oakes, Friday 18 December'] [title='Afternoon afloat, office hours, 13:00 to 16:00']"
        );
        Starts("afternoon-afloat").ShouldBe(["Friday, 13:00"]);
    }

    [Fact]
    public void Everything_works_by_keyboard()
    {
        using var browser = Open("/work/board?from=2026-12-14&weeks=1");
        const string monday = "Rosalind Achebe, Monday 14 December";
        // The place in the lane starts an hour into the board, at eight: five quarters on, light, an hour, and end.
        browser.KeysInLane(
            monday,
            [.. Enumerable.Repeat(Keys.ArrowRight, 8), Keys.Space, .. Enumerable.Repeat(Keys.ArrowRight, 4), Keys.Space]
        );
        browser.AwaitText("Monday 14 December, 10:00–11:00");
        browser.Type("Title, as guests read it", "Bench trial");
        browser.Press("Save as draft");
        browser.AwaitText("Saved as a draft at");
        browser.AwaitTitle("Bench trial, a draft, 10:00 to 11:00");

        browser.KeysInLane(monday, [.. Enumerable.Repeat(Keys.ArrowRight, 8), Keys.Alt + Keys.ArrowRight]);
        browser.AwaitTitle("Bench trial, a draft, 10:15 to 11:15");
        browser.KeysInLane(monday, [.. Enumerable.Repeat(Keys.ArrowRight, 9), Keys.Shift + Keys.ArrowRight]);
        browser.AwaitTitle("Bench trial, a draft, 10:15 to 11:30");
        browser.KeysInLane(monday, [.. Enumerable.Repeat(Keys.ArrowRight, 9), Keys.Delete]);
        browser.AwaitText("This is the last block of its page.");

        // Esc leaves off, and nothing is painted; down leads to the next lane.
        browser.KeysInLane(monday, Keys.Space, Keys.ArrowRight, Keys.Escape, Keys.ArrowDown);
        browser.AwaitNone("Publish");
        browser.Await(
            b => b.Focused("aria-label") == "Sunniva Dale, Monday 14 December" ? "there" : null,
            "the next lane"
        );
    }

    [Fact]
    public void A_finger_paints_on_a_phone()
    {
        using var browser = Open("/work/board?from=2026-12-15&weeks=1", 390);
        browser.TouchInLane("Marit Oakes, Tuesday 15 December", 13 * 60, 15 * 60);
        browser.AwaitText("Office hours of Marit Oakes");
        browser.AwaitText("Tuesday 15 December, 13:00–15:00");
        browser.Type("Title, as guests read it", "Pontoon talk");
        browser.Press("Save as draft");
        browser.AwaitTitle("Pontoon talk, a draft, 13:00 to 15:00");

        // A bar goes along with the finger; a mere touch picks it, to be erased.
        const string tuesday = "Marit Oakes, Tuesday 15 December";
        browser.TouchInLane(tuesday, 14 * 60, 11 * 60);
        browser.AwaitTitle("Pontoon talk, a draft, 10:00 to 12:00");
        browser.TouchInLane(tuesday, 11 * 60, 11 * 60);
        browser.Press("Erase Pontoon talk, a draft, 10:00 to 12:00");
        browser.AwaitText("This is the last block of its page.");
    }

    [Fact]
    public void What_lies_where_is_said_with_its_calendar_and_lanes_can_be_chosen()
    {
        using var browser = Open("/work/board?from=2026-12-08&weeks=1");
        browser.PressInLane("Rosalind Achebe, Tuesday 8 December", 14 * 60);
        browser.AwaitText("Tuesday 8 December, Rosalind Achebe: Interviews, busy, 13:00 to 15:00, Work");
        // Ivo lets Marit offer his time, but not read his calendar.
        browser.PressInLane("Ivo Brandt, Thursday 10 December", 11 * 60);
        browser.AwaitText("Thursday 10 December, Ivo Brandt: busy, whole day, Work");

        foreach (
            var name in new[]
            {
                "Anselm Park",
                "Boat crane",
                "Ivo Brandt",
                "Keziah Moon",
                "Odile Farrow",
                "School room",
                "Slip 2",
                "Sunniva Dale",
                "Tomasz Reed",
                "Marit Oakes",
            }
        )
            browser.Press(name);
        browser.Choose("A lane for all together", "when all are free");
        // Piet and Rosalind: she from nine, away from 13 to 15; he to 11:30 and from twelve.
        browser.Find("[aria-label='All free, Tuesday 8 December'] [title='all free, 12:00 to 13:00']");
        browser.Choose("A lane for all together", "when any is free");
        browser.Find("[aria-label='Any free, Tuesday 8 December']");
        browser.ChooseZone("Second time zone", "St Johns");
        browser.AwaitText("03:30");
        browser.Choose("How many weeks", "8 weeks");
        browser.Find("[aria-label='Piet Lund, Monday 1 February']");
        browser.Press("Piet Lund");
        browser.Press("Rosalind Achebe");
        browser.AwaitText("Choose above whose time to show.");
    }

    private Chromium Open(string path, int width = 1280)
    {
        var browser = new Chromium(site.Address, width, width < 600 ? 844 : 800);
        browser.SignInToDemo();
        browser.Open(path);
        browser.Find("[data-lane]");
        return browser;
    }

    /// <summary>The openings a guest sees on a page of the service desk or whichever desk has it.</summary>
    private string[] Starts(string page)
    {
        using var guest = new Chromium(site.Address, 390, 844);
        guest.Open("/brackwater/" + page);
        if (
            guest.Await(
                b =>
                    b.All("button[data-start]").Count > 0 ? "open"
                    : b.Shows("nothing at this address") ? "not there"
                    : null,
                "the page"
            ) == "not there"
        )
        {
            guest.Open("/brackwater-commissions/" + page);
            guest.Find("button[data-start]");
        }

        return [.. guest.All("button[data-start]").Select(button => button.GetAttribute("aria-label")!)];
    }
}
