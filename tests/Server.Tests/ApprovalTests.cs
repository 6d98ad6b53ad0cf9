using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>A page whose bookings wait for a yes.</summary>
public sealed class ApprovalTests : IAsyncLifetime
{
    private MailScene? _scene;

    private MailScene Scene => _scene!;

    public async ValueTask InitializeAsync() => _scene = await MailScene.MakeAsync();

    public async ValueTask DisposeAsync()
    {
        if (_scene is not null)
            await _scene.DisposeAsync();
    }

    [Fact]
    public async Task What_is_asked_keeps_its_time_and_the_link_in_the_mail_asks_before_it_does_anything()
    {
        var (page, path) = await AskAsync();
        (await Scene.World.Guest().StartsAsync(Scene.Ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(
            MailScene.Nine
        );
        var asked = await Scene.MailAsync(MailScene.Guest, "Requested: Talk");
        asked.Calendar.ShouldBeNull();
        (await Scene.SeeAsync(path)).GetProperty("waitsUntil").GetString().ShouldBe("2026-12-08T07:00:00Z");
        (await Scene.MessagesAsync(MessageKind.ReminderForGuest)).ShouldBeEmpty();

        var link = await AnswerLinkAsync();
        var seen = await Scene.SeeAsync(link);
        (seen.GetProperty("guestName").GetString(), seen.GetProperty("desk").GetString()).ShouldBe(
            ("Ottilie Wren", $"Desk of {Scene.Ada.Desk}")
        );
        // A machine that follows links accepts nothing.
        (await Scene.SeeAsync(link)).GetProperty("waitsUntil").ValueKind.ShouldBe(JsonValueKind.String);
        await (await Scene.World.Guest().PostAsJsonAsync(link + "/accept", new { })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await Scene.MailAsync(MailScene.Guest, "Talk: Tuesday")).Method.ShouldBe("REQUEST");
        (await Scene.SeeAsync(path)).GetProperty("waitsUntil").ValueKind.ShouldBe(JsonValueKind.Null);
        (await Scene.MessagesAsync(MessageKind.ReminderForHost)).ShouldNotBeEmpty();
        (
            await (await Scene.World.Guest().PostAsJsonAsync(link + "/decline", new { word = "" })).ReadAsync(
                HttpStatusCode.Conflict
            )
        )
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:answered");
        (
            await Scene.World.Guest().PostAsJsonAsync("/api/public/answers/nobody-knows/accept", new { })
        ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await Scene.MessagesAsync(MessageKind.AskedForHost))
            .Any(row => row.Text.Contains(link.Split("/")[^1], StringComparison.Ordinal))
            .ShouldBeFalse();
    }

    [Fact]
    public async Task It_is_declined_with_a_word_and_other_times_and_its_own_is_free_again()
    {
        var (page, path) = await AskAsync();
        var id = (await Scene.RowAsync()).GetProperty("id").GetGuid();
        (
            await (
                await Scene.Ada.PostAsync(
                    $"/api/bookings/{id}/decline",
                    new { word = "", offered = Enumerable.Repeat(MailScene.Ten, 7) }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["offered"]);
        (
            await (
                await Scene.Ada.PostAsync(
                    $"/api/bookings/{id}/decline",
                    new { word = "", offered = new[] { "2026-12-01T09:00:00Z" } }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["offered"]);
        await (
            await Scene.Ada.PostAsync(
                $"/api/bookings/{id}/decline",
                new { word = "The crane is booked.", offered = new[] { MailScene.Ten, MailScene.HalfPastNine } }
            )
        ).ReadAsync(HttpStatusCode.NoContent);
        var told = await Scene.MailAsync(MailScene.Guest, "Not possible: Talk");
        told.Text.ShouldContain("The crane is booked.");
        told.Text.ShouldContain(
            "Tuesday, 8 December, 09:30–10:00 (08:30–09:00 Dublin)\nTuesday, 8 December, 10:00–10:30 (09:00–09:30 Dublin)"
        );
        (await Scene.SeeAsync(path)).GetProperty("cancelledBy").GetString().ShouldBe("declined");
        (await Scene.World.Guest().StartsAsync(Scene.Ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(
            MailScene.Nine
        );
    }

    [Fact]
    public async Task A_lapse_frees_the_time_and_tells_both()
    {
        var (_, path) = await AskAsync();
        var link = await AnswerLinkAsync();
        Scene.World.Clock.Advance(Duration.FromHours(24));
        // A deadline is one, whether or not anybody has come by to carry it out.
        (await Scene.World.Guest().PostAsJsonAsync(link + "/accept", new { })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await Scene.MailAsync(MailScene.Guest, "No answer: Talk")).Text.ShouldContain("It is not booked.");
        (await Scene.MailAsync(Scene.AdasAddress, "Not answered: Ottilie Wren")).ShouldNotBeNull();
        (await Scene.SeeAsync(path)).GetProperty("cancelledBy").GetString().ShouldBe("lapsed");
        (await Scene.World.LookAsync(db => db.Commitments.IgnoreQueryFilters().CountAsync())).ShouldBe(0);
        (await Scene.MessagesAsync(MessageKind.LapsedForGuest)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task Of_a_yes_a_no_and_a_guest_who_takes_it_back_at_once_one_counts()
    {
        await AskAsync();
        var link = await AnswerLinkAsync();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .SelectMany(_ =>
                    new[]
                    {
                        Scene.World.Guest().PostAsJsonAsync(link + "/accept", new { }),
                        Scene.World.Guest().PostAsJsonAsync(link + "/decline", new { word = "" }),
                    }
                )
        );
        answers.Count(answer => answer.StatusCode == HttpStatusCode.NoContent).ShouldBe(1);
        answers.Count(answer => answer.StatusCode == HttpStatusCode.Conflict).ShouldBe(7);
        (await Scene.MessagesAsync(MessageKind.BookedForGuest, MessageKind.DeclinedForGuest)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task What_waits_can_be_moved_and_taken_back_by_its_guest_whatever_the_page_says_of_cancelling()
    {
        var (_, path) = await AskAsync(draft => draft.Changes = ChangeRules.Usual with { MayCancel = false });
        await (await Scene.MoveAsync(path, MailScene.Ten)).ReadAsync(HttpStatusCode.NoContent);
        (await Scene.SeeAsync(path)).GetProperty("waitsUntil").ValueKind.ShouldBe(JsonValueKind.String);
        (await Scene.MessagesAsync(MessageKind.AskedForGuest)).Count.ShouldBe(2);
        await (await Scene.World.Guest().PostAsJsonAsync(path + "/cancel", new { word = "" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        var id = (await Scene.Ada.GetAsync("/api/bookings?when=cancelled"))
            .GetProperty("rows")[0]
            .GetProperty("id")
            .GetGuid();
        (await (await Scene.Ada.PostAsync($"/api/bookings/{id}/accept", new { })).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("title")
            .GetString()
            .ShouldBe("The guest withdrew it.");
    }

    [Fact]
    public async Task It_waits_no_longer_than_until_the_time_it_is_moved_to()
    {
        var page = await Scene.Ada.PublishAsync(draft => draft.ApprovalHours = 72);
        var path = await Scene.BookAsync(page, MailScene.Ten);
        (await Scene.SeeAsync(path)).GetProperty("waitsUntil").GetString().ShouldBe(MailScene.Ten);
        await (await Scene.MoveAsync(path, MailScene.Nine)).ReadAsync(HttpStatusCode.NoContent);
        (await Scene.SeeAsync(path)).GetProperty("waitsUntil").GetString().ShouldBe(MailScene.Nine);
    }

    private async Task<(string Page, string Path)> AskAsync(Action<PageDraft>? change = null)
    {
        var page = await Scene.Ada.PublishAsync(draft =>
        {
            draft.ApprovalHours = 24;
            change?.Invoke(draft);
        });
        return (page, await Scene.BookAsync(page));
    }

    private async Task<string> AnswerLinkAsync()
    {
        var mail = await Scene.MailAsync(Scene.AdasAddress, "To answer: Ottilie Wren, Talk");
        return "/api/public/answers/"
            + mail
                .Text.Split('\n')
                .Single(line => line.Contains("/answer/", StringComparison.Ordinal))
                .Trim()
                .Split('/')[^1];
    }
}
