using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// What a page sends, in words of its own; video rooms; and mail to people of the team that speaks of no booking.
/// </summary>
public sealed class PagePostTests : IAsyncLifetime
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
    public async Task Own_words_are_filled_in_and_always_bear_the_private_link()
    {
        var post = PagePost.Usual with
        {
            Booked = new OwnWords(
                "{{ first_name }} of {{ company }}: {{ day }}",
                "See you at {{ time }} with {{ hosts }}.\n\n{{ links }}"
            ),
            EventTitle = "{{ page }} ({{ guest }})",
            EventText = "Bring oilskins.",
            HostWords = "Check the mooring fee.",
            Links = [new PostLink("How to get here", "https://yard.example/way")],
        };
        var path = await Scene.BookAsync(await Scene.Ada.PublishAsync(draft => draft.Post = post));
        var mail = await Scene.MailAsync(MailScene.Guest, "Ottilie of wren-charters.example: Tuesday, 8 December");
        mail.Text.ShouldContain("See you at 09:00–09:30 (08:00–08:30 Dublin) with Ada Wharf.");
        mail.Text.ShouldContain("How to get here\nhttps://yard.example/way");
        mail.Text.ShouldContain("/booking/" + path.Split('/')[^1]);
        mail.Text.ShouldNotContain("mooring fee");
        MailScene.Property(mail.Calendar!, "SUMMARY").ShouldBe("SUMMARY:Talk (Ottilie Wren)");
        MailScene.Property(mail.Calendar!, "DESCRIPTION").ShouldStartWith(@"DESCRIPTION:Bring oilskins.\nhttp");
        MailScene.Property(mail.Calendar!, "DESCRIPTION").ShouldContain(path.Split('/')[^1]);
        (await Scene.MailAsync(Scene.AdasAddress, "New: Ottilie Wren, Talk")).Text.ShouldContain(
            "Check the mooring fee."
        );
    }

    [Theory]
    [InlineData("{{ (1..100000000) }}", "Ranges")]
    [InlineData("{{ guest | append: guest | append: guest }}", "append")]
    [InlineData("{{ guest | replace: \"w\", guest }}", "replace")]
    [InlineData("{% for n in (1..9) %}{{ n }}{% endfor %}", "")]
    public async Task What_makes_much_out_of_little_is_no_word_of_a_mail(string body, string word)
    {
        var post = PagePost.Usual with { Booked = new OwnWords("Hello", body) };
        var faults = await (
            await Scene.Ada.PostAsync("/api/pages", Scene.Ada.Draft(draft => draft.Post = post).Form())
        ).FaultsAsync();
        faults["post.booked.body"].ShouldContain(word);
    }

    [Fact]
    public async Task What_would_be_more_than_a_mail_with_long_values_is_refused_when_it_is_saved()
    {
        var post = PagePost.Usual with
        {
            Booked = new OwnWords("Hello", string.Concat(Enumerable.Repeat("{{ description }}", 40))),
        };
        (
            await (
                await Scene.Ada.PostAsync("/api/pages", Scene.Ada.Draft(draft => draft.Post = post).Form())
            ).FaultsAsync()
        )["post.booked.body"]
            .ShouldContain("more than a mail is");
    }

    [Fact]
    public async Task Own_words_that_fail_all_the_same_are_told_and_the_guest_has_mail_in_ours()
    {
        var page = await Scene.Ada.PublishAsync();
        var workspace = await Scene.World.WorkspaceOfAsync(Scene.Ada.Desk);
        // As if it had been saved before ranges were refused.
        await Scene.World.WithinAsync(workspace, async db =>
        {
            var row = await db.Pages.SingleAsync();
            row.Post = row.Post with { Booked = new OwnWords("Hello", "{{ (1..100000000) }}") };
            return await db.SaveChangesAsync();
        });
        await Scene.BookAsync(page);
        (await Scene.MailAsync(MailScene.Guest, "Talk")).Text.ShouldContain("/booking/");
        (await Scene.Ada.GetAsync("/api/post?search=Ottilie")).ToString().ShouldContain("could not be filled in");
    }

    [Theory]
    [InlineData("[")]
    [InlineData("> ")]
    [InlineData("- ")]
    public async Task Words_nested_deeper_than_can_be_shown_are_refused(string nested)
    {
        var deep = string.Concat(Enumerable.Repeat(nested, 900));
        var faults = await (
            await Scene.Ada.PostAsync("/api/pages", Scene.Ada.Draft(draft => draft.Description = deep + "x").Form())
        ).FaultsAsync();
        faults["description"].ShouldContain("too deep");
    }

    [Fact]
    public void What_is_put_in_is_never_taken_for_an_insert_itself()
    {
        var values = new LooseLantern.Server.Features.Post.InsertValues(
            "secret",
            "r@x.example",
            "own",
            "[[private-link]]",
            ""
        );
        LooseLantern
            .Server.Features.Post.PostInserts.PutIn("[[room-link]] and [[private-link]]", values)
            .ShouldBe("[[private-link]] and secret");
    }

    [Fact]
    public async Task A_token_that_nobody_knows_is_refused_by_its_name_and_nothing_is_saved()
    {
        async Task<Dictionary<string, string>> TryAsync(PagePost post) =>
            await (
                await Scene.Ada.PostAsync("/api/pages", Scene.Ada.Draft(draft => draft.Post = post).Form())
            ).FaultsAsync();
        (await TryAsync(PagePost.Usual with { Booked = new OwnWords("Hello", "Dear {{ nickname }}, {{ day }}") }))[
            "post.booked.body"
        ]
            .ShouldBe("There is no placeholder {{ nickname }}; choose from the list.");
        (await TryAsync(PagePost.Usual with { Reminder = new OwnWords("{{ day", "x") })).Keys.ShouldBe([
            "post.reminder.subject",
        ]);
        (await TryAsync(PagePost.Usual with { EventText = "{% if own_secret %}x{% endif %}" })).Keys.ShouldBe([
            "post.eventText",
        ]);
        (
            await TryAsync(PagePost.Usual with { EventText = "{% for i in (1..2000000000) %}x{% endfor %}" })
        ).Keys.ShouldBe(["post.eventText"]);
        (await TryAsync(PagePost.Usual with { Links = [new PostLink("Here", "javascript:alert(1)")] })).Keys.ShouldBe([
            "post.links[0].address",
        ]);
        (await Scene.Ada.PagesAsync()).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_page_sends_plain_mail_or_none()
    {
        await Scene.BookAsync(
            await Scene.Ada.PublishAsync(draft => draft.Post = PagePost.Usual with { ToGuests = GuestMail.Plain })
        );
        (await Scene.MailAsync(MailScene.Guest, "Talk")).Calendar.ShouldBeNull();
        await Scene.BookAsync(
            await Scene.Ada.PublishAsync(draft => draft.Post = PagePost.Usual with { ToGuests = GuestMail.None }),
            MailScene.Ten,
            "hanako@mori-sail.example",
            "Hanako Mori"
        );
        await Scene.MailAsync(Scene.AdasAddress, "New: Hanako Mori, Talk");
        (
            await Scene.World.LookAsync(db =>
                db.Messages.IgnoreQueryFilters().CountAsync(row => row.ToEmail == "hanako@mori-sail.example")
            )
        ).ShouldBe(0);
    }

    [Fact]
    public async Task Files_go_along_and_too_many_or_too_large_ones_are_refused()
    {
        var made = await (await Scene.Ada.PostAsync("/api/pages", Scene.Ada.Draft().Form())).ReadAsync(
            HttpStatusCode.Created
        );
        var id = made.GetProperty("id").GetGuid();
        var file = await (await Scene.Ada.AddPageFileAsync(id, "plan.txt", "The slip is on the left.")).ReadAsync(
            HttpStatusCode.Created
        );
        (await (await Scene.Ada.AddPageFileAsync(id, "empty.txt", "")).FaultsAsync()).Keys.ShouldBe(["file"]);
        (
            await (
                await Scene.Ada.AddPageFileAsync(id, "large.txt", new string('x', 3 * 1024 * 1024 + 1))
            ).FaultsAsync()
        ).Keys.ShouldBe(["file"]);
        var published = await (await Scene.Ada.PostAsync($"/api/pages/{id}/publish", new { version = 1 })).ReadAsync(
            HttpStatusCode.OK
        );
        await Scene.BookAsync(published.GetProperty("path").GetString()!.Split('/')[^1]);
        (await Scene.MailAsync(MailScene.Guest, "Talk")).Files.ShouldBe(["plan.txt"]);
        var message = (await Scene.MessagesAsync(MessageKind.BookedForGuest)).Single();
        (await Scene.Ada.GetAsync($"/api/post/{message.Id}")).GetProperty("files")[0].GetString().ShouldBe("plan.txt");
        for (var i = 0; i < 4; i++)
            await (await Scene.Ada.AddPageFileAsync(id, $"more{i}.txt", "x")).ReadAsync(HttpStatusCode.Created);
        (await (await Scene.Ada.AddPageFileAsync(id, "sixth.txt", "x")).FaultsAsync()).Keys.ShouldBe(["file"]);
        await (await Scene.Ada.DeleteAsync($"/api/pages/{id}/files/{file.GetProperty("id").GetGuid()}")).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await Scene.Ada.GetAsync($"/api/pages/{id}/files")).GetArrayLength().ShouldBe(4);
    }

    [Fact]
    public async Task A_preview_shows_the_latest_booking_or_a_made_up_one_and_no_secret()
    {
        var made = await (await Scene.Ada.PostAsync("/api/pages", Scene.Ada.Draft().Form())).ReadAsync(
            HttpStatusCode.Created
        );
        var id = made.GetProperty("id").GetGuid();
        var post = PagePost.Usual with { Booked = new OwnWords("For {{ guest }}", "Hi {{ first_name }}: {{ link }}") };
        async Task<JsonElement> ShowAsync(string mail) =>
            await (await Scene.Ada.PostAsync($"/api/pages/{id}/post-preview", new { post, mail })).ReadAsync(
                HttpStatusCode.OK
            );
        (await ShowAsync("booked")).GetProperty("isMadeUp").GetBoolean().ShouldBeTrue();
        var published = await (await Scene.Ada.PostAsync($"/api/pages/{id}/publish", new { version = 1 })).ReadAsync(
            HttpStatusCode.OK
        );
        var path = await Scene.BookAsync(published.GetProperty("path").GetString()!.Split('/')[^1]);
        var shown = await ShowAsync("booked");
        (shown.GetProperty("isMadeUp").GetBoolean(), shown.GetProperty("subject").GetString()).ShouldBe(
            (false, "For Ottilie Wren")
        );
        shown.ToString().ShouldNotContain(path.Split('/')[^1]);
        (await ShowAsync("moved"))
            .GetProperty("subject")
            .GetString()
            .ShouldBe("Moved: Talk, Tuesday, 8 December, 09:00–09:30 (08:00–08:30 Dublin)");
        var bad = await Scene.Ada.PostAsync(
            $"/api/pages/{id}/post-preview",
            new { post = post with { EventTitle = "{{ nickname }}" }, mail = "booked" }
        );
        (await bad.FaultsAsync()).Keys.ShouldBe(["eventTitle"]);
    }

    [Fact]
    public async Task A_video_room_is_made_moved_and_ended_with_its_booking()
    {
        var path = await Scene.BookAsync(
            await Scene.Ada.PublishAsync(draft => (draft.PlaceKind, draft.Place) = ("video", ""))
        );
        var mail = await Scene.MailAsync(MailScene.Guest, "Talk");
        var room = mail
            .Text.Split('\n')
            .Single(line => line.Contains("/room/", StringComparison.Ordinal))
            .Trim()
            .Split(' ')[0];
        MailScene.Property(mail.Calendar!, "LOCATION").ShouldBe("LOCATION:" + room);
        var seen = await Scene.SeeAsync(path);
        (seen.GetProperty("roomLink").GetString(), seen.GetProperty("roomCode").GetString()!.Length).ShouldBe(
            (room, 6)
        );
        await DoorAsync(room, "08:00 to 08:30");
        await (await Scene.MoveAsync(path, MailScene.Ten)).ReadAsync(HttpStatusCode.NoContent);
        await DoorAsync(room, "09:00 to 09:30");
        (await Scene.MailAsync(MailScene.Guest, "Moved: Talk")).Text.ShouldContain(room);
        await (await Scene.World.Guest().PostAsJsonAsync(path + "/cancel", new { word = "" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        await DoorAsync(room, "This room is closed.");
    }

    [Fact]
    public async Task A_new_password_comes_by_a_link_that_works_once_and_nobody_learns_who_has_a_sign_in()
    {
        var open = new Coordinator(Scene.World.Browser(), Scene.Ada.Desk);
        (await open.PostAsync("/api/password-resets", new { email = "nobody@nowhere.example" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await open.PostAsync("/api/password-resets", new { email = "nonsense" })).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        for (var i = 0; i < 5; i++)
            (await open.PostAsync("/api/password-resets", new { email = Scene.AdasAddress })).StatusCode.ShouldBe(
                HttpStatusCode.NoContent
            );
        // Worked off after it was answered.
        await Outside.AwaitAsync(
            async () => (await Scene.MessagesAsync(MessageKind.PasswordReset)).Count >= 3,
            "the mails that were asked for"
        );
        var mail = await Scene.MailAsync(Scene.AdasAddress, "A new password");
        var secret = mail
            .Text.Split('\n')
            .Single(line => line.Contains("/reset/", StringComparison.Ordinal))
            .Trim()
            .Split('/')[^1];
        (await Scene.MessagesAsync(MessageKind.PasswordReset)).ShouldAllBe(row =>
            !row.Text.Contains(secret) && !row.Html.Contains(secret)
        );
        (
            await (await open.PostAsync($"/api/password-resets/{secret}", new { password = "short" })).FaultsAsync()
        ).Keys.ShouldBe(["password"]);
        var both = await Task.WhenAll(
            open.PostAsync($"/api/password-resets/{secret}", new { password = "lanterns along a wet quay" }),
            open.PostAsync($"/api/password-resets/{secret}", new { password = "lanterns along a wet quay" })
        );
        both.Select(answer => answer.StatusCode).Order().ShouldBe([HttpStatusCode.NoContent, HttpStatusCode.Gone]);
        // Whoever was signed in is signed out, and the old password is none.
        (await Scene.Ada.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (
            await open.PostAsync("/api/password-resets/nobody-knows", new { password = "lanterns along a wet quay" })
        ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (
            await open.PostAsync(
                "/api/sign-in",
                new { email = Scene.AdasAddress, password = "lanterns along a wet quay" }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task Who_is_invited_to_the_team_gets_the_link_by_mail_and_the_post_shows_it_masked()
    {
        var invitation = await (
            await Scene.Ada.PostAsync("/api/invitations", Server.Tests.Scene.Invitation("bo"))
        ).ReadAsync(HttpStatusCode.Created);
        var mail = await Scene.MailAsync(invitation.GetProperty("email").GetString()!, "invites you");
        mail.Text.ShouldContain(invitation.GetProperty("path").GetString()!);
        var id = (await Scene.Ada.GetAsync("/api/post")).GetProperty("rows")[0].GetProperty("id").GetGuid();
        (await Scene.Ada.GetAsync($"/api/post/{id}"))
            .ToString()
            .ShouldNotContain(invitation.GetProperty("path").GetString()!.Split('/')[^1]);
    }

    private Task DoorAsync(string room, string says) =>
        Outside.AwaitAsync(
            async () =>
                (await (await Scene.ScreenAsync(room)).Content.ReadAsStringAsync()).Contains(
                    says,
                    StringComparison.Ordinal
                ),
            $"“{says}” at the door"
        );
}
