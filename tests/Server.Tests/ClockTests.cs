using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// Where guest and place have different clocks, both are told, each by the clock that its reader reads. Messages are
/// read as they are written.
/// </summary>
public class ClockTests(World world)
{
    private const string LosAngeles = "America/Los_Angeles";

    private async Task<Dictionary<MessageKind, Message>> ToldAsync(Coordinator ada) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), async db =>
            (await db.Messages.AsNoTracking().OrderBy(row => row.Id).ToListAsync())
                .GroupBy(row => row.Kind)
                .ToDictionary(kind => kind.Key, kind => kind.Last())
        );

    private Task<HttpResponseMessage> BookAsync(
        Coordinator ada,
        string page,
        string start,
        string zone = LosAngeles,
        string? clock = null
    ) =>
        world
            .Guest()
            .PostAsJsonAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new
                {
                    start,
                    duration = 30,
                    zone,
                    clock,
                    guest = new { name = "Ottilie Wren", email = "ottilie@wren-charters.example" },
                }
            );

    [Fact]
    public async Task A_guest_elsewhere_reads_their_own_hour_first_and_the_host_theirs()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.PlaceKind = "video");
        var made = await (await BookAsync(ada, page, LinkDraft.Nine)).ReadAsync(HttpStatusCode.Created);
        var told = await ToldAsync(ada);
        told[MessageKind.BookedForGuest]
            .Subject.ShouldBe("Talk: Tuesday, 8 December, 00:00–00:30 (09:00–09:30 Copenhagen)");
        told[MessageKind.BookedForGuest].Text.ShouldContain("Times in Los Angeles (UTC-8) / Copenhagen (UTC+1)");
        told[MessageKind.ReminderForGuest].Text.ShouldContain("00:00–00:30 (09:00–09:30 Copenhagen)");
        told[MessageKind.BookedForHost]
            .Subject.ShouldBe("New: Ottilie Wren, Talk, Tuesday, 8 December, 09:00–09:30 (00:00–00:30 Los Angeles)");
        // Calendars show their own reader's hour; their text tells the other one.
        MailScene
            .Property(told[MessageKind.BookedForGuest].Calendar!, "DESCRIPTION")
            .ShouldStartWith(@"DESCRIPTION:Tuesday\, 8 December\, 00:00–00:30 (09:00–09:30 Copenhagen)\n");
        MailScene
            .Property(told[MessageKind.BookedForHost].Calendar!, "DESCRIPTION")
            .ShouldBe(@"DESCRIPTION:Ottilie Wren\, ottilie@wren-charters.example (00:00 in Los Angeles)");

        var path = "/api/public/bookings/" + made.GetProperty("path").GetString()!.Split('/')[^1];
        (
            await world.Guest().PostAsJsonAsync(path + "/move", new { start = "2026-12-09T08:30:00Z" })
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        told = await ToldAsync(ada);
        told[MessageKind.MovedForGuest].Text.ShouldContain("00:30–01:00 (09:30–10:00 Copenhagen)");
        told[MessageKind.MovedForGuest]
            .Text.ShouldContain("Before, it was Tuesday, 8 December, 00:00–00:30 (09:00–09:30 Copenhagen).");
        told[MessageKind.MovedForHost].Text.ShouldContain("09:30–10:00 (00:30–01:00 Los Angeles)");
        var seen = await world.Guest().GetFromJsonAsync<JsonElement>(path);
        (seen.GetProperty("zone").GetString(), seen.GetProperty("guestZone").GetString()).ShouldBe(
            ("Europe/Copenhagen", LosAngeles)
        );
    }

    [Fact]
    public async Task Both_clocks_are_those_of_the_day_when_only_one_of_them_has_changed()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => (draft.PlaceKind, draft.AheadDays) = ("video", 120));
        // America has changed its clocks, Europe has not yet: eight hours between them, not nine.
        await (await BookAsync(ada, page, "2027-03-16T08:00:00Z")).ReadAsync(HttpStatusCode.Created);
        (await ToldAsync(ada))[MessageKind.BookedForGuest]
            .Subject.ShouldBe("Talk: Tuesday, 16 March 2027, 01:00–01:30 (09:00–09:30 Copenhagen)");
    }

    [Fact]
    public async Task In_person_the_hour_at_the_place_comes_first_and_where_clocks_agree_there_is_one()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        await (await BookAsync(ada, page, LinkDraft.Nine)).ReadAsync(HttpStatusCode.Created);
        (await ToldAsync(ada))[MessageKind.BookedForGuest]
            .Subject.ShouldBe("Talk: Tuesday, 8 December, 09:00–09:30 (00:00–00:30 Los Angeles)");
        await (await BookAsync(ada, page, LinkDraft.Ten, "Europe/Paris")).ReadAsync(HttpStatusCode.Created);
        var told = await ToldAsync(ada);
        told[MessageKind.BookedForGuest].Subject.ShouldBe("Talk: Tuesday, 8 December, 10:00–10:30");
        told[MessageKind.BookedForHost].Subject.ShouldBe("New: Ottilie Wren, Talk, Tuesday, 8 December, 10:00–10:30");
    }

    [Fact]
    public async Task Until_when_an_answer_is_promised_is_by_the_clock_that_comes_first()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.ApprovalHours = 24);
        await (await BookAsync(ada, page, LinkDraft.Nine)).ReadAsync(HttpStatusCode.Created);
        // A day after it was asked for, and there it is an evening before still.
        (await ToldAsync(ada))[MessageKind.AskedForGuest].Text.ShouldContain("Tuesday, 8 December, 08:00");
    }

    [Fact]
    public async Task One_clock_for_one_reader_what_the_link_says_else_the_browsers_else_the_workspaces()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.PlaceKind = "video");
        var made = await (await BookAsync(ada, page, LinkDraft.Nine, "Europe/Paris", "h12")).ReadAsync(
            HttpStatusCode.Created
        );
        (await ToldAsync(ada))[MessageKind.BookedForGuest]
            .Subject.ShouldBe("Talk: Tuesday, 8 December, 9:00 am–9:30 am");
        var path = "/api/public/bookings/" + made.GetProperty("path").GetString()!.Split('/')[^1];
        (await world.Guest().GetFromJsonAsync<JsonElement>(path)).GetProperty("clock").GetString().ShouldBe("h12");

        var (_, address) = await ada.SendLinkAsync(draft => draft.Text = LinkText.Usual with { Clock = ClockForm.H12 });
        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/links/{address}"))
            .GetProperty("page")
            .GetProperty("clock")
            .GetString()
            .ShouldBe("h12");
        await (await world.Guest().TakeAsync(address, LinkDraft.Ten)).ReadAsync(HttpStatusCode.Created);
        (await ToldAsync(ada))[MessageKind.BookedForGuest].Subject.ShouldContain("10:00 am–10:30 am");

        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), async db =>
        {
            var workspace = await db.Workspaces.SingleAsync();
            workspace.Usual = workspace.Usual with { Clock = ClockForm.H12 };
            return await db.SaveChangesAsync();
        });
        await (await BookAsync(ada, page, "2026-12-09T09:00:00Z", "Europe/Paris")).ReadAsync(HttpStatusCode.Created);
        (await ToldAsync(ada))[MessageKind.BookedForGuest]
            .Subject.ShouldBe("Talk: Wednesday, 9 December, 10:00 am–10:30 am");
    }

    [Fact]
    public async Task A_link_opens_in_the_zone_its_guest_was_given_or_booked_in_before()
    {
        var ada = await world.SignUpAsync();
        async Task<string?> OpensInAsync(string zone)
        {
            var (_, address) = await ada.SendLinkAsync(draft => draft.GuestZone = zone);
            return (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/links/{address}"))
                .GetProperty("page")
                .GetProperty("guestZone")
                .GetString();
        }

        (await OpensInAsync("")).ShouldBe("");
        var page = await ada.PublishAsync(draft => draft.PlaceKind = "video");
        await (await BookAsync(ada, page, LinkDraft.Nine)).ReadAsync(HttpStatusCode.Created);
        (await OpensInAsync("")).ShouldBe(LosAngeles);
        (await OpensInAsync("Asia/Tokyo")).ShouldBe("Asia/Tokyo");
    }

    [Fact]
    public async Task What_a_guest_wishes_is_told_by_the_clock_they_named_it_by_too()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync();
        Task<HttpResponseMessage> WishAsync(string zone) =>
            world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/links/{address}/wishes",
                    new { starts = new[] { "2026-12-14T20:00:00Z" }, zone }
                );
        (await (await WishAsync("Nowhere/At_All")).FaultsAsync()).Keys.ShouldBe(["zone"]);
        (await WishAsync(LosAngeles)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ToldAsync(ada))[MessageKind.WishForMaker]
            .Text.ShouldContain("Monday, 14 December, 21:00–21:30 (12:00–12:30 Los Angeles)");
    }
}
