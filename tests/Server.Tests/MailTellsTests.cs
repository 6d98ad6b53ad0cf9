using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// What mails say beside the time: who did it, where it is, what can be done about it, and who hears.
/// </summary>
public class MailTellsTests(World world)
{
    private async Task<List<Message>> AllAsync(Coordinator ada) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Messages.AsNoTracking().OrderBy(row => row.Id).ToListAsync()
        );

    private async Task<Message> OfAsync(Coordinator ada, MessageKind kind) =>
        (await AllAsync(ada)).Last(row => row.Kind == kind);

    private Task<JsonElement> BookAsync(Coordinator ada, string page) => AnsweredAsync(ada, page, []);

    private async Task<JsonElement> AnsweredAsync(
        Coordinator ada,
        string page,
        Dictionary<string, string> answers,
        string language = "en"
    )
    {
        using var guest = world.Guest();
        guest.DefaultRequestHeaders.AcceptLanguage.ParseAdd(language);
        return await (
            await guest.PostAsJsonAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new
                {
                    start = LinkDraft.Nine,
                    duration = 30,
                    zone = "Europe/Dublin",
                    guest = new { name = "Ottilie Wren", email = "ottilie@wren-charters.example" },
                    answers,
                }
            )
        ).ReadAsync(HttpStatusCode.Created);
    }

    [Theory]
    [InlineData("en", "By phone: we call you on +45 55 01 02 03. Have the drawings at hand")]
    [InlineData("de", "Telefonisch: Wir rufen Sie unter +45 55 01 02 03 an. Have the drawings at hand")]
    public async Task By_phone_the_guest_reads_which_number_rings_and_the_host_whom_to_ring(
        string language,
        string where
    )
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            (draft.PlaceKind, draft.Place) = ("phone", "Have the drawings at hand")
        );
        var number = new Dictionary<string, string> { [GuestQuestions.Number] = "+45 55 01 02 03" };
        await AnsweredAsync(ada, page, number, language);
        var booked = await OfAsync(ada, MessageKind.BookedForGuest);
        booked.Text.ShouldContain($"\n{where}\n");
        MailScene.Property(booked.Calendar!, "LOCATION").ShouldBe($"LOCATION:{where}");
        var host = await OfAsync(ada, MessageKind.BookedForHost);
        host.Text.ShouldContain("By phone: call Ottilie Wren on +45 55 01 02 03");
        MailScene
            .Property(host.Calendar!, "LOCATION")
            .ShouldBe("LOCATION:By phone: call Ottilie Wren on +45 55 01 02 03. Have the drawings at hand");
    }

    [Fact]
    public async Task Who_comes_along_is_not_told_that_they_are_called_nor_the_guests_number()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => (draft.PlaceKind, draft.Place) = ("phone", ""));
        var number = new Dictionary<string, string> { [GuestQuestions.Number] = "+45 55 01 02 03" };
        var made = await AnsweredAsync(ada, page, number);
        var path = "/api/public/bookings/" + made.GetProperty("path").GetString()!.Split('/')[^1];
        await (
            await world
                .Guest()
                .PutAsJsonAsync(
                    path + "/companions",
                    new { people = new[] { new { name = "Bram Wren", email = "bram@wren-charters.example" } } }
                )
        ).ReadAsync(HttpStatusCode.NoContent);
        var along = await OfAsync(ada, MessageKind.BookedForCompanion);
        along.Text.ShouldEndWith("\nBy phone");
        (along.Text + along.Calendar).ShouldNotContain("55 01");
        MailScene.Property(along.Calendar!, "LOCATION").ShouldBe("LOCATION:By phone");
    }

    [Fact]
    public async Task Where_guests_ring_they_read_our_number_and_by_video_the_address()
    {
        var ada = await world.SignUpAsync();
        var rings = await ada.PublishAsync(draft =>
            (draft.PlaceKind, draft.Place, draft.Details) = (
                "phone",
                "+45 55 09",
                PageDetails.Usual with
                {
                    Place = PageDetails.Usual.Place with { HostsRing = false },
                }
            )
        );
        await BookAsync(ada, rings);
        (await OfAsync(ada, MessageKind.BookedForGuest)).Text.ShouldContain("\nBy phone: call us on +45 55 09\n");
        var bo = await world.SignUpAsync();
        var video = await bo.PublishAsync(draft =>
            (draft.PlaceKind, draft.Place) = ("video", "https://rooms.example/yard")
        );
        await BookAsync(bo, video);
        MailScene
            .Property((await OfAsync(bo, MessageKind.BookedForGuest)).Calendar!, "LOCATION")
            .ShouldBe("LOCATION:By video: https://rooms.example/yard");
    }

    [Fact]
    public async Task Of_what_a_page_does_not_let_guests_do_nothing_is_said_but_whom_to_write_to()
    {
        var ada = await world.SignUpAsync();
        await BookAsync(ada, await ada.PublishAsync());
        var free = (await OfAsync(ada, MessageKind.BookedForGuest)).Text;
        free.ShouldContain("See, move or cancel your booking:");
        free.ShouldNotContain("write to");
        var bo = await world.SignUpAsync();
        await BookAsync(
            bo,
            await bo.PublishAsync(draft =>
                draft.Changes = ChangeRules.Usual with { MayMove = false, AskWhom = "the office, +45 55 10" }
            )
        );
        var bound = (await OfAsync(bo, MessageKind.BookedForGuest)).Text;
        bound.ShouldContain("See or cancel your booking:");
        bound.ShouldContain("To move it, write to the office, +45 55 10.");
    }

    [Fact]
    public async Task Who_booked_it_by_hand_is_named_to_guest_and_host_and_hosts_are_led_to_it()
    {
        var ada = await world.SignUpAsync();
        var (id, _) = await ada.SendLinkAsync();
        await (
            await ada.PostAsync($"/api/links/{id}/bookings", new { start = LinkDraft.Nine, duration = 30 })
        ).ReadAsync(HttpStatusCode.Created);
        (await OfAsync(ada, MessageKind.BookedForGuest)).Text.ShouldContain("Ada Wharf has booked this for you:");
        var host = await OfAsync(ada, MessageKind.BookedForHost);
        host.Text.ShouldContain("Ada Wharf has booked Hull survey, Larkspur for Ottilie Wren.");
        host.Text.ShouldContain($"/work/bookings/{host.BookingId:D}");
    }

    [Fact]
    public async Task Whoever_made_a_page_hears_of_its_bookings_until_they_switch_it_off()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isCoordinator: true);
        await (await scene.Owner.PutAsync($"/api/me/acting/{bo.PersonId}", Scene.AllGrants)).ReadAsync(
            HttpStatusCode.OK
        );
        var page = await bo.PublishAsync(draft =>
            draft.Seats = [
                [scene.Owner.HostId],
            ]
        );
        await BookAsync(scene.Owner, page);
        (await AllAsync(scene.Owner))
            .Where(row => row.Kind == MessageKind.BookedForHost)
            .Select(row => row.ToName)
            .ShouldBe(["Ada Wharf", "Bo Keel"]);
        (
            await bo.PutAsync("/api/me/notifications", Notifications.Usual with { Made = Notify.Never })
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        await (
            await world
                .Guest()
                .BookAsync(scene.Owner.Desk, page, LinkDraft.Ten, name: "Hanako Mori", email: "hanako@mori.example")
        ).ReadAsync(HttpStatusCode.Created);
        (await AllAsync(scene.Owner))
            .Count(row => row.Kind == MessageKind.BookedForHost && row.ToName == "Bo Keel")
            .ShouldBe(1);
    }

    [Fact]
    public async Task Whoever_made_a_page_hears_that_a_request_was_declined_by_its_host()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isCoordinator: true);
        await (await scene.Owner.PutAsync($"/api/me/acting/{bo.PersonId}", Scene.AllGrants)).ReadAsync(
            HttpStatusCode.OK
        );
        var page = await bo.PublishAsync(draft =>
            (draft.Seats, draft.ApprovalHours) = (
                [
                    [scene.Owner.HostId],
                ],
                24
            )
        );
        await BookAsync(scene.Owner, page);
        var id = (await scene.Owner.GetAsync("/api/bookings")).GetProperty("rows")[0].GetProperty("id").GetGuid();
        await (
            await scene.Owner.PostAsync($"/api/bookings/{id}/decline", new { word = "The crane is booked." })
        ).ReadAsync(HttpStatusCode.NoContent);
        var told = (await AllAsync(scene.Owner)).Where(row => row.Kind == MessageKind.DeclinedForHost).ToList();
        told.ShouldHaveSingleItem().ToName.ShouldBe("Bo Keel");
        told[0].Text.ShouldContain("The crane is booked.");
    }

    [Fact]
    public async Task A_subject_alone_or_a_text_alone_can_be_a_pages_own()
    {
        var ada = await world.SignUpAsync();
        var post = PagePost.Usual with
        {
            Booked = new OwnWords("See you, {{ first_name }}", ""),
            Reminder = new OwnWords("", "Bring boots."),
        };
        await BookAsync(ada, await ada.PublishAsync(draft => draft.Post = post));
        var booked = await OfAsync(ada, MessageKind.BookedForGuest);
        booked.Subject.ShouldBe("See you, Ottilie");
        booked.Text.ShouldStartWith("Hello Ottilie,\n\nyou’re booked: Talk");
        var reminder = await OfAsync(ada, MessageKind.ReminderForGuest);
        reminder.Subject.ShouldStartWith("Reminder: Talk, Tuesday, 8 December");
        reminder.Text.ShouldStartWith("Bring boots.");
    }

    [Theory]
    [InlineData("en", "Hello {{ first_name }},", "How to get there:")]
    [InlineData("da", "Hej {{ first_name }}", "Sådan finder du vej:")]
    public async Task Own_words_can_begin_with_ours_and_say_the_same(string language, string hello, string way)
    {
        var ada = await world.SignUpAsync();
        var ours = await ada.GetAsync($"/api/post-words?language={language}");
        var own = ours.GetProperty("booked").Deserialize<OwnWords>(JsonSerializerOptions.Web)!;
        own.Body.ShouldStartWith(hello);
        own.Body.Split(hello).Length.ShouldBe(2);
        var details = PageDetails.Usual with { Place = PageDetails.Usual.Place with { Directions = "By bus" } };
        var plain = await ada.PublishAsync(draft =>
            (draft.Address, draft.Details, draft.Description) = ("ours", details, "Bring boots.")
        );
        await AnsweredAsync(ada, plain, [], language);
        var said = await OfAsync(ada, MessageKind.BookedForGuest);
        said.Text.ShouldContain(way);
        var bo = await world.SignUpAsync();
        var copied = await bo.PublishAsync(draft =>
            (draft.Details, draft.Description, draft.Post) = (
                details,
                "Bring boots.",
                PagePost.Usual with
                {
                    Booked = own,
                }
            )
        );
        await AnsweredAsync(bo, copied, [], language);
        var again = await OfAsync(bo, MessageKind.BookedForGuest);
        (again.Subject, again.Text.Replace(bo.Desk, ada.Desk)).ShouldBe(
            (said.Subject, said.Text.Replace(ada.Desk, ada.Desk))
        );
    }

    [Fact]
    public async Task The_calendar_file_of_the_private_link_bears_the_words_of_the_invitation()
    {
        var ada = await world.SignUpAsync();
        var made = await BookAsync(
            ada,
            await ada.PublishAsync(draft =>
                (draft.PlaceKind, draft.Place, draft.Description) = (
                    "inPerson",
                    "The old sail loft",
                    "Bring **boots**."
                )
            )
        );
        var secret = made.GetProperty("path").GetString()!.Split('/')[^1];
        var file = await world.Guest().GetStringAsync($"/api/public/bookings/{secret}/calendar.ics");
        MailScene.Property(file, "LOCATION").ShouldBe("LOCATION:The old sail loft");
        MailScene.Property(file, "DESCRIPTION").ShouldContain("Bring boots.");
        MailScene.Property(file, "DESCRIPTION").ShouldContain($"/booking/{secret}");
        MailScene.Property(file, "DESCRIPTION").ShouldNotContain("[[");
        var invitation = (await OfAsync(ada, MessageKind.BookedForGuest)).Calendar!;
        MailScene.Property(file, "SUMMARY").ShouldBe(MailScene.Property(invitation, "SUMMARY"));
    }

    [Fact]
    public async Task A_links_text_says_where_in_its_first_line()
    {
        var ada = await world.SignUpAsync();
        var text = await (
            await ada.PostAsync("/api/links/text", new { form = ada.Link().Form(), of = (Guid?)null })
        ).ReadAsync(HttpStatusCode.OK);
        text.GetProperty("text").GetString()!.ShouldStartWith("Hull survey, Larkspur (30 min), Slip 2\n");
    }
}

/// <summary>A room that is late is told of once it is there.</summary>
public sealed class LateRoomTests : IAsyncLifetime
{
    private MailScene? _scene;

    public async ValueTask InitializeAsync() => _scene = await MailScene.MakeAsync();

    public async ValueTask DisposeAsync() => await _scene!.DisposeAsync();

    [Fact]
    public async Task A_guest_whose_mail_went_out_without_the_room_gets_its_address_once()
    {
        var scene = _scene!;
        await scene.BookAsync(await scene.Ada.PublishAsync(draft => (draft.PlaceKind, draft.Place) = ("video", "")));
        await scene.MailAsync(MailScene.Guest, "Talk");
        // As where the provider was out of reach for so long that the mail could not wait.
        await scene.World.LookAsync(db =>
            db.VideoRooms.IgnoreQueryFilters()
                .ExecuteUpdateAsync(set =>
                    set.SetProperty(row => row.Link, (string?)null)
                        .SetProperty(row => row.DueAt, (Instant?)scene.World.Clock.GetCurrentInstant())
                )
        );
        var told = await scene.MailAsync(MailScene.Guest, "Your video room: Talk");
        told.Text.ShouldContain("/room/");
        MailScene.Property(told.Calendar!, "LOCATION").ShouldContain("/room/");
        (await scene.MessagesAsync(MessageKind.RoomForGuest)).Count.ShouldBe(1);
    }
}

/// <summary>An offer that goes out from somebody's own mail program.</summary>
public class LinkDraftMailTests(World world)
{
    [Fact]
    public async Task An_offer_can_be_had_as_a_draft_with_text_and_html_and_nothing_is_sent()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();
        var answer = await ada.Http.GetAsync($"/api/links/{id}/draft.eml?word=Which%20one%20suits%20you%3F");
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("message/rfc822");
        var mail = await MimeKit.MimeMessage.LoadAsync(await answer.Content.ReadAsStreamAsync());
        mail.To.ToString().ShouldBe("\"Ottilie Wren\" <ottilie@wren-charters.example>");
        mail.Subject.ShouldBe("Times for you: Hull survey, Larkspur");
        mail.Headers["X-Unsent"].ShouldBe("1");
        mail.TextBody!.ShouldContain("Which one suits you?");
        mail.TextBody!.ShouldContain("Hull survey, Larkspur (30 min), Slip 2");
        mail.TextBody!.ShouldContain(address);
        mail.HtmlBody!.ShouldContain($"{address}?at=2026-12-08T08:00:00Z");
        (
            await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
                Task.FromResult(db.Messages.Count(row => row.Kind == MessageKind.LinkForGuest))
            )
        ).ShouldBe(0);
    }

    [Fact]
    public async Task A_draft_has_no_address_that_could_go_out()
    {
        var ada = await world.SignUpAsync();
        var id = (await ada.MakeLinkAsync()).GetProperty("row").GetProperty("id").GetGuid();
        (await ada.Http.GetAsync($"/api/links/{id}/draft.eml")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }
}
