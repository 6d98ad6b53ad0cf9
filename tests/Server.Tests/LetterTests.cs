using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Letters;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using static Server.Tests.GuestScene;

namespace Server.Tests;

/// <summary>Letters with blanks are saved, filled in for a guest, and go out whole or not at all.</summary>
public sealed class LetterTests(World world)
{
    private const string Email = "ottilie@wren.example";

    private static object Letter(
        string name = "First talk",
        string subject = "A talk, {{ first_name }}?",
        string body = "Dear {{ first_name }},\n\n{{ times }}\n\n{{ link }}\n\n{{ sender }}",
        bool isTeams = false,
        Guid? pattern = null
    ) =>
        new
        {
            name,
            subject,
            body,
            isTeams,
            patternId = pattern,
        };

    [Fact]
    public async Task Own_letters_are_ones_own_and_those_of_the_team_everybodys()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isCoordinator: true);
        var own = await (await scene.Owner.PostAsync("/api/letters", Letter())).ReadAsync(HttpStatusCode.Created);
        var teams = await (await scene.Owner.PostAsync("/api/letters", Letter("Reminder", isTeams: true))).ReadAsync(
            HttpStatusCode.Created
        );
        Names(await bo.GetAsync("/api/letters")).ShouldBe(["Reminder"]);
        Names(await scene.Owner.GetAsync("/api/letters")).ShouldBe(["First talk", "Reminder"]);
        (await bo.DeleteAsync($"/api/letters/{own.Id()}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        var changed = await (
            await bo.PutAsync($"/api/letters/{teams.Id()}", new { version = 1, form = Letter("Again", isTeams: true) })
        ).ReadAsync(HttpStatusCode.OK);
        changed.GetProperty("version").GetInt32().ShouldBe(2);
        (
            await scene.Owner.PutAsync($"/api/letters/{teams.Id()}", new { version = 1, form = Letter(isTeams: true) })
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await bo.DeleteAsync($"/api/letters/{teams.Id()}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Names(await scene.Owner.GetAsync("/api/letters")).ShouldBe(["First talk"]);

        static IEnumerable<string> Names(JsonElement answer) =>
            answer.GetProperty("letters").EnumerateArray().Select(one => one.GetProperty("form").Text("name"));
    }

    [Theory]
    [InlineData("name", " ")]
    [InlineData("subject", "")]
    [InlineData("subject", "Two\nlines")]
    [InlineData("subject", "Free: {{ times }}")]
    [InlineData("subject", "{{ guest }}, a talk?")]
    [InlineData("body", "Dear {{ nobody }}")]
    [InlineData("body", "Dear {{ first_name")]
    [InlineData("body", "{% for i in (1..9) %}x{% endfor %}")]
    public async Task What_can_be_no_letter_is_named(string field, string value)
    {
        var ada = await world.SignUpAsync();
        var form = field switch
        {
            "name" => Letter(name: value),
            "subject" => Letter(subject: value),
            _ => Letter(body: value),
        };
        (await (await ada.PostAsync("/api/letters", form)).FaultsAsync()).Keys.ShouldBe([field]);
    }

    [Fact]
    public void Blanks_of_the_workspaces_own_fields_are_named_by_them()
    {
        var fields = new[]
        {
            new GuestField(Guid.NewGuid(), "Length in mètres", GuestFieldKind.Number, []),
            new GuestField(Guid.NewGuid(), "Link", GuestFieldKind.Text, []),
            new GuestField(Guid.NewGuid(), "2nd boat", GuestFieldKind.Text, []),
        };
        LetterBlanks.ByName(fields).Keys.ShouldBe(["length_in_metres", "field_link", "field_2nd_boat"]);
        LetterBlanks
            .NeededBy(
                "{{ a }}{% if b != \"\" %}{{ b }}{{ c }}{% else %}{{ d }}{% endif %}{{ e | default: \"x\" }}{{ a }}"
            )
            .ShouldBe(["a", "c", "d"]);
    }

    [Fact]
    public async Task A_letter_makes_its_link_is_shown_first_and_goes_out_once()
    {
        await using var scene = await MailScene.MakeAsync();
        var ada = scene.Ada;
        var pattern = await ada.PatternAsync();
        var guest = await ada.AddGuestAsync(Form("Ottilie Wren", [Email], zone: "Europe/Dublin", language: "de"));
        object Request(string until = "2026-12-11") =>
            new
            {
                guestId = guest.Id(),
                subject = "A talk, {{ first_name }}?",
                body = "Dear {{ first_name }},\n\n{{ times }}\n\n{{ link }}\n\nUntil {{ ends }}. {{ hosts }}, {{ desk }}",
                offer = new
                {
                    kind = "pattern",
                    id = pattern,
                    until,
                },
            };
        var preview = await (await ada.PostAsync("/api/letters/preview", Request())).ReadAsync(HttpStatusCode.OK);
        (preview.Text("subject"), preview.Text("to")).ShouldBe(("A talk, Ottilie?", Email));
        preview.GetProperty("openings").GetInt32().ShouldBeGreaterThan(0);
        preview.GetProperty("unfilled").GetArrayLength().ShouldBe(0);
        // In the guest's language and zone: nine in Copenhagen is eight in Dublin.
        preview.Text("text").ShouldContain("Dienstag");
        preview.Text("text").Split("Until ")[1].ShouldStartWith("Freitag, 11. Dezember 2026. Ada Wharf");
        preview.Text("html").ShouldContain("<li>");
        (await LinksAsync(ada)).ShouldBe(0);

        var sent = await (await ada.PostAsync("/api/letters/send", Request(), "one press")).ReadAsync(
            HttpStatusCode.OK
        );
        (await ada.PostAsync("/api/letters/send", Request(), "one press")).StatusCode.ShouldBe(HttpStatusCode.OK);
        // What that press sent is not handed over as a draft, too.
        (await ada.PostAsync("/api/letters/draft.eml", Request(), "one press")).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await LinksAsync(ada)).ShouldBe(1);
        var link = await ada.LinkAsync(sent.GetProperty("linkId").GetGuid());
        link.GetProperty("row").Text("state").ShouldBe("out");
        link.GetProperty("form").GetProperty("guests")[0].Text("email").ShouldBe(Email);
        var mail = await scene.MailAsync(Email, "A talk, Ottilie?");
        var address = mail.Text.Split('\n').Select(line => line.Trim()).Single(line => line.Contains("/times/"));
        (await scene.World.Guest().GetAsync("/api/public/links/" + address.Split('/')[^1])).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        mail.Html.ShouldContain($"href=\"{address}\"");
        // What is kept of it opens nothing, and the guest's line of time has it.
        (await scene.MessagesAsync(MessageKind.LetterForGuest)).ShouldHaveSingleItem().Text.ShouldNotContain(address);
        (await ada.HistoryAsync(guest.Id())).Select(one => one.Text("kind")).ShouldContain("mailOut");
    }

    [Fact]
    public async Task Nothing_goes_out_with_a_blank_unfilled_an_ended_link_or_nothing_open()
    {
        var ada = await world.SignUpAsync();
        var pattern = await ada.PatternAsync();
        var boat = (await FieldAsync(ada, "Boat"))[0].Id();
        var guest = await ada.AddGuestAsync(Form("Ottilie Wren", [Email]));
        Task<HttpResponseMessage> SendAsync(string body, object offer, string path = "send") =>
            ada.PostAsync(
                $"/api/letters/{path}",
                new
                {
                    guestId = guest.Id(),
                    subject = "Hello",
                    body,
                    offer,
                },
                Guid.NewGuid().ToString()
            );
        object none = new { kind = "nothing" };
        (await (await SendAsync("Dear {{ boat }}", none)).FaultsAsync())["body"].ShouldContain("{{ boat }}");
        (await (await SendAsync("{{ link }}", none, "draft.eml")).FaultsAsync())["body"].ShouldContain("{{ link }}");
        (await (await SendAsync("x", new { kind = "pattern", id = Guid.NewGuid() })).FaultsAsync()).Keys.ShouldBe([
            "offer.id",
        ]);
        (
            await (
                await SendAsync(
                    "x",
                    new
                    {
                        kind = "pattern",
                        id = pattern,
                        until = "2026-12-01",
                    }
                )
            ).FaultsAsync()
        ).ShouldNotBeEmpty();
        // Her weekend is closed.
        var closed = await (
            await SendAsync(
                "x",
                new
                {
                    kind = "pattern",
                    id = pattern,
                    until = "2026-12-07",
                }
            )
        ).ReadAsync(HttpStatusCode.Conflict);
        closed.Text("type").ShouldBe("urn:loose-lantern:none-left");
        var (link, _) = await ada.SendLinkAsync(draft => draft.Guests = [new("Ottilie Wren", Email)]);
        (await (await SendAsync("x", new { kind = "link", id = Guid.NewGuid() })).FaultsAsync()).Keys.ShouldBe([
            "offer.id",
        ]);
        await ada.PostAsync($"/api/links/{link}/revoke", new { });
        (await (await SendAsync("x", new { kind = "link", id = link })).ReadAsync(HttpStatusCode.Conflict))
            .Text("type")
            .ShouldBe("urn:loose-lantern:letter-link-over");
        (await LinksAsync(ada)).ShouldBe(1);
        (
            await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
                db.Messages.CountAsync(row => row.Kind == MessageKind.LetterForGuest)
            )
        ).ShouldBe(0);

        // Once the boat is known it goes.
        await ada.PutAsync(
            $"/api/guests/{guest.Id()}",
            new
            {
                version = 1,
                form = Form("Ottilie Wren", [Email], fields: new Dictionary<Guid, string> { [boat] = "Larkspur" }),
            }
        );
        (await SendAsync("Dear {{ boat }}", none)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var nameless = await ada.AddGuestAsync(Form("Wilf Teller"));
        (
            await (
                await ada.PostAsync(
                    "/api/letters/send",
                    new
                    {
                        guestId = nameless.Id(),
                        subject = "Hello",
                        body = "x",
                        offer = none,
                    },
                    "k"
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["guestId"]);
    }

    [Fact]
    public async Task A_link_that_the_guest_has_is_let_out_with_the_letter()
    {
        var ada = await world.SignUpAsync();
        var made = await ada.MakeLinkAsync(draft => draft.Guests = [new("Ottilie Wren", Email)]);
        var link = made.GetProperty("row").Id();
        var guest = await ada.GuestAsync("Ottilie Wren");
        (await ada.GetAsync($"/api/letters/choices?guest={guest.Id()}")).GetProperty("links")[0].Id().ShouldBe(link);
        var sent = await (
            await ada.PostAsync(
                "/api/letters/send",
                new
                {
                    guestId = guest.Id(),
                    subject = "About: {{ page }}",
                    body = "{{ times }}\n\n{{ link }}",
                    offer = new { kind = "link", id = link },
                },
                "one press"
            )
        ).ReadAsync(HttpStatusCode.OK);
        sent.GetProperty("linkId").GetGuid().ShouldBe(link);
        (await ada.LinkAsync(link)).GetProperty("row").Text("state").ShouldBe("out");
    }

    [Fact]
    public async Task A_page_is_offered_by_an_address_of_the_guests_own_and_a_draft_bears_it()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var id = (await ada.PagesAsync())[0].Id();
        var guest = await ada.AddGuestAsync(Form("Ottilie Wren", [Email]));
        var choices = await ada.GetAsync($"/api/letters/choices?guest={guest.Id()}");
        choices.GetProperty("pages")[0].Id().ShouldBe(id);
        var answer = await ada.PostAsync(
            "/api/letters/draft.eml",
            new
            {
                guestId = guest.Id(),
                subject = "About: {{ page }}",
                body = "Book here:\n{{ link }}",
                offer = new { kind = "page", id },
            },
            "one press"
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        var mail = await MimeMessage.LoadAsync(await answer.Content.ReadAsStreamAsync());
        (mail.Subject, mail.Headers["X-Unsent"], mail.To.Mailboxes.Single().Address).ShouldBe(
            ("About: Talk", "1", Email)
        );
        var secret = mail.TextBody!.Trim().Split("?for=")[1];
        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{page}?for={secret}"))
            .GetProperty("guest")
            .Text("email")
            .ShouldBe(Email);
    }

    private static async Task<IReadOnlyList<JsonElement>> FieldAsync(Coordinator ada, string name) =>
        [
            .. (
                await (
                    await ada.PutAsync(
                        "/api/guests/fields",
                        new[]
                        {
                            new
                            {
                                id = (Guid?)null,
                                name,
                                kind = "text",
                                options = Array.Empty<string>(),
                            },
                        }
                    )
                ).ReadAsync(HttpStatusCode.OK)
            ).EnumerateArray(),
        ];

    private static async Task<int> LinksAsync(Coordinator ada) =>
        (await ada.GetAsync("/api/links")).GetProperty("rows").GetArrayLength();
}
