using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// What is written once for guests reaches them wherever they look: page, mail, calendar and reminder.
/// </summary>
public class ArrivingWordsTests(World world)
{
    private const string Bring = "Bring **oilskins** and:\n\n* boots\n* the [tide table](https://yard.example/tides)";

    private static PageDetails Details =>
        PageDetails.Usual with
        {
            Place = PageDetails.Usual.Place with { Directions = "# By bus\nLine 4 to *Slip Road*." },
            After = PageDetails.Usual.After with { Words = "Park on the grass." },
        };

    private async Task<Dictionary<MessageKind, Message>> ToldAsync(Coordinator ada) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), async db =>
            (await db.Messages.AsNoTracking().OrderBy(row => row.Id).ToListAsync())
                .GroupBy(row => row.Kind)
                .ToDictionary(kind => kind.Key, kind => kind.Last())
        );

    [Fact]
    public async Task They_stand_in_the_confirmation_the_calendar_the_reminder_and_on_the_private_link()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => (draft.Description, draft.Details) = (Bring, Details));
        var made = await (await world.Guest().BookAsync(ada.Desk, page, LinkDraft.Nine)).ReadAsync(
            HttpStatusCode.Created
        );
        var told = await ToldAsync(ada);
        foreach (var kind in new[] { MessageKind.BookedForGuest, MessageKind.ReminderForGuest })
        {
            told[kind]
                .Text.ShouldContain("Bring oilskins and:\n\n- boots\n- the tide table (https://yard.example/tides)");
            told[kind].Text.ShouldContain("How to get there:\nBy bus\nLine 4 to Slip Road.");
            told[kind].Text.ShouldContain("Park on the grass.");
        }

        var description = MailScene.Property(told[MessageKind.BookedForGuest].Calendar!, "DESCRIPTION");
        description.ShouldContain(@"Bring oilskins and:\n\n- boots\n- the tide table (https://yard.example/tides)");
        description.ShouldContain("Line 4 to Slip Road.");
        description.ShouldContain("Park on the grass.");
        // What is for guests is no part of what hosts are told.
        told[MessageKind.BookedForHost].Text.ShouldNotContain("oilskins");

        var path = "/api/public/bookings/" + made.GetProperty("path").GetString()!.Split('/')[^1];
        var seen = await world.Guest().GetFromJsonAsync<JsonElement>(path);
        seen.GetProperty("description").GetString()!.ShouldContain("<strong>oilskins</strong>");
    }

    [Fact]
    public async Task Each_is_left_out_of_mail_and_calendar_by_its_switch_and_stays_a_token_of_own_words()
    {
        var ada = await world.SignUpAsync();
        var post = PagePost.Usual with
        {
            SaysDescription = false,
            SaysDirections = false,
            SaysAfterwards = false,
            Reminder = new OwnWords("Soon", "{{ directions }}\n{{ afterwards }}"),
        };
        var page = await ada.PublishAsync(draft =>
            (draft.Description, draft.Details, draft.Post) = (Bring, Details, post)
        );
        await (await world.Guest().BookAsync(ada.Desk, page, LinkDraft.Nine)).ReadAsync(HttpStatusCode.Created);
        var told = await ToldAsync(ada);
        var booked = told[MessageKind.BookedForGuest];
        foreach (var words in new[] { "oilskins", "How to get there", "Slip Road", "on the grass" })
        {
            booked.Text.ShouldNotContain(words);
            MailScene.Unfolded(booked.Calendar!).ShouldNotContain(words);
        }

        told[MessageKind.ReminderForGuest].Text.ShouldStartWith("By bus\nLine 4 to Slip Road.\nPark on the grass.");
    }

    [Fact]
    public async Task A_guest_reads_what_a_page_says_on_cancelling_before_reserving()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            draft.Changes = ChangeRules.Usual with { CancelWords = "Free until the evening before." }
        );
        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{page}"))
            .GetProperty("cancelWords")
            .GetString()
            .ShouldBe("Free until the evening before.");
    }

    [Theory]
    [InlineData("Bring **a coat**, *two* _gloves_ and __boots__.", "Bring a coat, two gloves and boots.")]
    [InlineData("2 * 3 * 4 and snake_case_name", "2 * 3 * 4 and snake_case_name")]
    [InlineData("## Parking\n+ left\n  * of the crane", "Parking\n- left\n  - of the crane")]
    [InlineData(
        "<https://yard.example> or [https://a.example](https://a.example)",
        "https://yard.example or https://a.example"
    )]
    [InlineData(@"Not \*bold\*", "Not *bold*")]
    [InlineData("1. first\n2. second", "1. first\n2. second")]
    [InlineData("", "")]
    public void Markdown_reads_well_as_text(string markdown, string text) => Markdown.ToText(markdown).ShouldBe(text);
}
