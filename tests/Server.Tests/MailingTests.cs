using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using static Server.Tests.GuestScene;

namespace Server.Tests;

/// <summary>
/// One offer goes to several guests, each by a link and a letter of their own, and is told of as one.
/// </summary>
public sealed class MailingTests(World world)
{
    private const string Ottilie = "ottilie@wren.example";
    private const string Bryn = "bryn@ashby.example";
    private const string Wilf = "wilf@teller.example";

    private static object Guest(string name, string email, string zone = "", object? own = null) =>
        new
        {
            name,
            email,
            zone,
            language = "",
            own,
        };

    private static object Mailing(
        object offer,
        object[] guests,
        string body = "Dear {{ first_name }},\n\n{{ times }}\n\n{{ link }}"
    ) =>
        new
        {
            subject = "A talk, {{ first_name }}?",
            body,
            offer,
            guests,
        };

    private static object Of(Guid pattern, string until = "2026-12-08") =>
        new
        {
            kind = "pattern",
            id = pattern,
            until,
        };

    [Fact]
    public async Task Each_gets_a_link_and_a_letter_of_their_own_and_the_silent_alone_are_asked_again()
    {
        await using var scene = await MailScene.MakeAsync();
        var ada = scene.Ada;
        var pattern = await ada.PatternAsync();
        await ada.AddGuestAsync(Form("Bryn Ashby", [Bryn], language: "de"));
        object[] guests =
        [
            Guest("Ottilie Wren", Ottilie, "Europe/Dublin"),
            Guest("Bryn Ashby", Bryn),
            Guest(
                "Wilf Teller",
                Wilf,
                own: new { subject = "For you, {{ first_name }}", body = "Only you: {{ link }}" }
            ),
        ];
        var mailing = Mailing(Of(pattern), guests);
        var preview = await (await ada.PostAsync("/api/mailings/preview", new { mailing, show = 0 })).ReadAsync(
            HttpStatusCode.OK
        );
        var openings = preview.GetProperty("openings").GetInt32();
        openings.ShouldBeGreaterThan(3);
        preview.GetProperty("room").GetInt32().ShouldBe(3);
        preview.GetProperty("shown").Text("text").ShouldContain("Dublin");
        var letters = preview.GetProperty("letters").EnumerateArray().ToList();
        letters.ConvertAll(one => one.Text("subject")).ShouldBe(["A talk, Ottilie?", "A talk, Bryn?", "For you, Wilf"]);
        // Who is known is written to in their own language.
        letters.ConvertAll(one => one.Text("language")).ShouldBe(["en", "de", "en"]);
        letters
            .ConvertAll(one => one.GetProperty("guestId").ValueKind == JsonValueKind.Null)
            .ShouldBe([true, false, true]);
        (await ada.GetAsync("/api/links")).GetProperty("total").GetInt32().ShouldBe(0);

        var id = (
            await (await ada.PostAsync("/api/mailings", mailing, "one press")).ReadAsync(HttpStatusCode.Created)
        ).Id();
        (await (await ada.PostAsync("/api/mailings", mailing, "one press")).ReadAsync(HttpStatusCode.Created))
            .Id()
            .ShouldBe(id);
        (await scene.MessagesAsync(MessageKind.LetterForGuest)).Count.ShouldBe(3);
        var first = await scene.MailAsync(Ottilie, "A talk, Ottilie?");
        (await scene.MailAsync(Wilf, "For you, Wilf")).Text.ShouldStartWith("Only you: http");
        (await scene.MailAsync(Bryn, "A talk, Bryn?")).Text.ShouldContain("Dienstag");

        // All draw on the same times: what one takes is no more for the others.
        await TakeAsync(scene, first, "2026-12-08T08:00:00Z");
        (await BookAsync(scene, await scene.MailAsync(Bryn, "A talk"), "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        var row = (await ada.GetAsync("/api/mailings")).GetProperty("rows").EnumerateArray().ShouldHaveSingleItem();
        Counts(row).ShouldBe((3, 1, 0, 2));
        row.GetProperty("timesLeft").GetInt32().ShouldBeGreaterThan(0);
        var opened = await ada.GetAsync($"/api/mailings/{id}");
        Standings(opened).ShouldBe(["opened", "booked", "unopened"]);

        (await AskAgainAsync(ada, id, "again")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await AskAgainAsync(ada, id, "again")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await scene.MessagesAsync(MessageKind.LinkAgainForGuest))
            .Select(mail => mail.ToEmail)
            .Order()
            .ShouldBe([Bryn, Wilf]);
        (await scene.MailAsync(Wilf, "Still open")).Text.ShouldNotContain("09:00");
        scene.Box(Ottilie).ShouldNotContain(mail => mail.Subject.Contains("Still open"));

        // Who writes back is silent no more, and is told of once.
        await scene.SendAsync(
            MailScene.Mail(Wilf, (await scene.MailAsync(Wilf, "For you")).AnswersTo, "Next year, please.")
        );
        (await scene.MailAsync(scene.AdasAddress, "A reply")).Text.ShouldContain("Next year, please.");
        Standings(await ada.GetAsync($"/api/mailings/{id}")).ShouldBe(["opened", "booked", "answered"]);
        await TakeAsync(scene, await scene.MailAsync(Bryn, "A talk"), "2026-12-08T10:00:00Z");
        var nobody = await (await AskAgainAsync(ada, id, "once more")).ReadAsync(HttpStatusCode.Conflict);
        nobody.Text("type").ShouldBe("urn:loose-lantern:mailing-none-silent");
        (await scene.MessagesAsync(MessageKind.LinkAgainForGuest)).Count.ShouldBe(2);
    }

    [Fact]
    public async Task A_page_is_offered_by_addresses_and_a_booking_by_one_counts_for_its_guest()
    {
        await using var scene = await MailScene.MakeAsync();
        var ada = scene.Ada;
        var page = await ada.PublishAsync();
        var offer = new { kind = "page", id = (await ada.PagesAsync())[0].Id() };
        var id = (
            await (
                await ada.PostAsync(
                    "/api/mailings",
                    Mailing(
                        offer,
                        [Guest("Ottilie Wren", Ottilie), Guest("Bryn Ashby", Bryn)],
                        "Book here:\n{{ link }}"
                    ),
                    "k"
                )
            ).ReadAsync(HttpStatusCode.Created)
        ).Id();
        var secret = MailScene.SecretIn(await scene.MailAsync(Ottilie, "A talk"), "?for=");
        secret.ShouldContain($"{page}?for=");
        await scene.BookAsync(page, email: Ottilie);
        Standings(await ada.GetAsync($"/api/mailings/{id}")).ShouldBe(["unopened", "booked"]);
        (await AskAgainAsync(ada, id, "again")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var again = await scene.MailAsync(Bryn, "Still open");
        again.Text.ShouldContain("?for=");
        scene.Box(Ottilie).ShouldNotContain(mail => mail.Subject.Contains("Still open"));
        var detail = await ada.GetAsync($"/api/mailings/{id}");
        detail.GetProperty("guests")[0].GetProperty("askedAgain").GetInt32().ShouldBe(1);
        // An answer to the second letter is one to the mailing.
        await scene.SendAsync(MailScene.Mail(Bryn, again.AnswersTo, "In spring."));
        await Outside.AwaitAsync(
            async () => Standings(await ada.GetAsync($"/api/mailings/{id}"))[0] == "answered",
            "the answer"
        );
    }

    [Fact]
    public async Task Its_links_are_one_row_and_that_nothing_is_left_of_them_is_told_once()
    {
        var ada = await world.SignUpAsync();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var page = await ada.PublishAsync();
        // Half an hour of one Tuesday.
        var form = ada.Link(draft =>
            {
                (draft.By, draft.Picked, draft.Guests) = ("free", [], []);
                (draft.Days, draft.FromMinute, draft.ToMinute) = (["tuesday"], 9 * 60, (9 * 60) + 30);
            })
            .Form();
        var pattern = await (await ada.PostAsync("/api/links/patterns", new { name = "Nine", form })).ReadAsync(
            HttpStatusCode.OK
        );
        await (
            await ada.PostAsync(
                "/api/mailings",
                Mailing(Of(pattern.Id()), [Guest("Ottilie Wren", Ottilie), Guest("Bryn Ashby", Bryn)]),
                "k"
            )
        ).ReadAsync(HttpStatusCode.Created);
        var links = await ada.GetAsync("/api/links");
        (links.GetProperty("total").GetInt32(), links.GetProperty("mailings").GetInt32()).ShouldBe((0, 1));
        var found = (await ada.GetAsync("/api/links?search=bryn")).GetProperty("rows").EnumerateArray();
        found.ShouldHaveSingleItem().GetProperty("guests")[0].GetString().ShouldBe("Bryn Ashby");

        (await world.Guest().BookAsync(ada.Desk, page, LinkDraft.Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var ids = await world.WithinAsync(workspace, db => db.Links.Select(row => row.Id).ToListAsync());
        await Task.WhenAll(ids.Select(id => world.LookAtLinkAsync(workspace, id)));
        (await world.WithinAsync(workspace, db => db.Links.CountAsync(row => row.NoneLeftAt != null))).ShouldBe(2);
        var told = await world.WithinAsync(workspace, db =>
            db.Messages.Where(row => row.Kind == MessageKind.NoneLeftForMaker).ToListAsync()
        );
        told.ShouldHaveSingleItem().Text.ShouldContain("/work/guests/mailings/");
        var row = (await ada.GetAsync("/api/mailings")).GetProperty("rows")[0];
        row.GetProperty("timesLeft").GetInt32().ShouldBe(0);
    }

    [Theory]
    [InlineData("pattern")]
    [InlineData("page")]
    public async Task A_mail_that_asks_again_and_waits_is_dropped_once_its_guest_has_booked(string kind)
    {
        var ada = await world.SignUpAsync();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var page = await ada.PublishAsync();
        object offer =
            kind == "page" ? new { kind, id = (await ada.PagesAsync())[0].Id() } : Of(await ada.PatternAsync());
        var mailing = Mailing(offer, [Guest("Ottilie Wren", Ottilie), Guest("Bryn Ashby", Bryn)], "{{ link }}");
        var id = (await (await ada.PostAsync("/api/mailings", mailing, "k")).ReadAsync(HttpStatusCode.Created)).Id();
        (await AskAgainAsync(ada, id, "again")).StatusCode.ShouldBe(HttpStatusCode.OK);
        // Between, somebody else asks; the first press comes once more, as its answer was lost.
        (await AskAgainAsync(ada, id, "another")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await AskAgainAsync(ada, id, "again")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await AgainAsync()).Count.ShouldBe(4);

        if (kind == "page")
            (await world.Guest().BookAsync(ada.Desk, page, LinkDraft.Nine, email: Ottilie)).StatusCode.ShouldBe(
                HttpStatusCode.Created
            );
        else
        {
            var link = (await ada.GetAsync($"/api/mailings/{id}"))
                .GetProperty("guests")
                .EnumerateArray()
                .First(one => one.Text("email") == Ottilie)
                .GetProperty("linkId")
                .GetGuid();
            await (
                await ada.PostAsync($"/api/links/{link}/bookings", new { start = LinkDraft.Nine, duration = 30 })
            ).ReadAsync(HttpStatusCode.Created);
        }

        foreach (var message in await AgainAsync())
        {
            await using var scope = world.App.Services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<Tenant>().Enter(workspace);
            await scope.ServiceProvider.GetRequiredService<PostSending>().SendAsync(message.Id, CancellationToken.None);
        }

        (await AgainAsync()).ConvertAll(message => message.ToEmail).ShouldBe([Bryn, Bryn]);
        Task<List<Message>> AgainAsync() =>
            world.WithinAsync(workspace, db =>
                db.Messages.AsNoTracking().Where(row => row.Kind == MessageKind.LinkAgainForGuest).ToListAsync()
            );
    }

    [Fact]
    public async Task Another_workspace_has_nothing_of_it()
    {
        var (ada, cy) = (await world.SignUpAsync(), await world.SignUpAsync());
        var pattern = await ada.PatternAsync();
        var id = (
            await (
                await ada.PostAsync("/api/mailings", Mailing(Of(pattern), [Guest("Ottilie Wren", Ottilie)]), "k")
            ).ReadAsync(HttpStatusCode.Created)
        ).Id();
        (await cy.Http.GetAsync($"/api/mailings/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await AskAgainAsync(cy, id, "k")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await cy.GetAsync("/api/mailings")).GetProperty("total").GetInt32().ShouldBe(0);
        (
            await (await cy.PostAsync("/api/mailings", Mailing(Of(pattern), [Guest("O", Ottilie)]), "k")).FaultsAsync()
        ).Keys.ShouldBe(["offer.id"]);
        // A guest of ada's is nobody known here.
        (await (await cy.PostAsync("/api/mailings/guests", new { })).ReadAsync(HttpStatusCode.OK))
            .GetProperty("total")
            .GetInt32()
            .ShouldBe(0);
    }

    [Fact]
    public async Task A_mailing_goes_out_whole_or_not_at_all_and_each_fault_is_named()
    {
        var ada = await world.SignUpAsync();
        var pattern = await ada.PatternAsync();
        async Task<IEnumerable<string>> FaultsAsync(object mailing) =>
            (await (await ada.PostAsync("/api/mailings", mailing, Guid.NewGuid().ToString())).FaultsAsync()).Keys;
        object[] one = [Guest("Ottilie Wren", Ottilie)];
        (await FaultsAsync(Mailing(Of(pattern), []))).ShouldBe(["guests"]);
        (await FaultsAsync(Mailing(new { kind = "nothing" }, one))).ShouldBe(["offer.kind"]);
        (await FaultsAsync(Mailing(Of(pattern), [null!]))).ShouldBe(["guests[0].name"]);
        (
            await FaultsAsync(
                Mailing(Of(pattern), [Guest("", Ottilie), Guest("Bryn", "bryn"), Guest("O", "OTTILIE@wren.example")])
            )
        ).ShouldBe(["guests[0].name", "guests[1].email", "guests[2].email"]);
        (await FaultsAsync(Mailing(Of(pattern), [Guest("O", Ottilie, "Mars/Olympus")]))).ShouldBe(["guests[0].zone"]);
        (
            await FaultsAsync(
                Mailing(Of(pattern), [Guest("O", Ottilie, own: new { subject = "x", body = "{{ nobody }}" })])
            )
        ).ShouldBe(["guests[0].own.body"]);
        // Of one of them nothing is known for a blank: nobody gets a letter.
        await ada.AddGuestAsync(Form("Bryn Ashby", [Bryn], organisation: "Ashby & Sons"));
        (
            await FaultsAsync(
                Mailing(
                    Of(pattern),
                    [Guest("Bryn Ashby", Bryn), Guest("Ottilie Wren", Ottilie)],
                    "At {{ organisation }}: {{ link }}"
                )
            )
        ).ShouldBe(["guests[1]"]);
        // Her Monday is over.
        (await ada.PostAsync("/api/mailings", Mailing(Of(pattern, "2026-12-07"), one), "k")).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await ada.GetAsync("/api/mailings")).GetProperty("total").GetInt32().ShouldBe(0);
        (await ada.GetAsync("/api/links")).GetProperty("total").GetInt32().ShouldBe(0);
        (
            await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
                db.Messages.CountAsync(row => row.Kind == MessageKind.LetterForGuest)
            )
        ).ShouldBe(0);
    }

    [Fact]
    public async Task Guests_come_from_a_choice_or_from_a_pasted_list()
    {
        var ada = await world.SignUpAsync();
        await ada.AddGuestAsync(Form("Ottilie Wren", [Ottilie], zone: "Europe/Dublin"));
        await ada.AddGuestAsync(Form("Bryn Ashby", [Bryn]));
        await ada.AddGuestAsync(Form("Wilf Teller"));
        var all = await (await ada.PostAsync("/api/mailings/guests", new { })).ReadAsync(HttpStatusCode.OK);
        (all.GetProperty("total").GetInt32(), all.GetProperty("withoutEmail").GetInt32()).ShouldBe((3, 1));
        Listed(all).ShouldBe([("Bryn Ashby", Bryn, ""), ("Ottilie Wren", Ottilie, "Europe/Dublin")]);
        Listed(
                await (await ada.PostAsync("/api/mailings/guests", new { search = "wren" })).ReadAsync(
                    HttpStatusCode.OK
                )
            )
            .ShouldHaveSingleItem();

        foreach (
            var list in new[]
            {
                "Ottilie Wren, ottilie@wren.example, Los Angeles\nBryn Ashby, bryn@ashby.example,",
                "Name;Email;Time zone\nOttilie Wren;ottilie@wren.example;America/Los_Angeles\nBryn Ashby;bryn@ashby.example;",
                "Ottilie Wren\tottilie@wren.example\tLos Angeles\r\nBryn Ashby\tbryn@ashby.example\t\r\n",
            }
        )
            Listed(await PasteAsync(list))
                .ShouldBe([("Ottilie Wren", Ottilie, "America/Los_Angeles"), ("Bryn Ashby", Bryn, "")]);
        Listed(await PasteAsync("Ottilie Wren <ottilie@wren.example>, \"Ashby, Bryn\" <bryn@ashby.example>"))
            .ShouldBe([("Ottilie Wren", Ottilie, ""), ("Ashby, Bryn", Bryn, "")]);
        var faulty = await PasteAsync(
            "Ottilie Wren, ottilie@wren.example, Dublin\nBryn Ashby, bryn@ashby.example, Atlantis\nWilf Teller,,\nWren, ottilie@wren.example,"
        );
        Listed(faulty).ShouldHaveSingleItem();
        faulty
            .GetProperty("faults")
            .EnumerateArray()
            .Select(fault => fault.GetProperty("row").GetInt32())
            .ShouldBe([2, 3, 4]);
        (await (await ada.PostAsync("/api/mailings/pasted", new { text = " " })).FaultsAsync()).Keys.ShouldBe(["text"]);

        async Task<JsonElement> PasteAsync(string text) =>
            await (await ada.PostAsync("/api/mailings/pasted", new { text })).ReadAsync(HttpStatusCode.OK);
        static List<(string, string, string)> Listed(JsonElement answer) =>
            [
                .. answer
                    .GetProperty("guests")
                    .EnumerateArray()
                    .Select(one => (one.Text("name"), one.Text("email"), one.Text("zone"))),
            ];
    }

    private static Task<HttpResponseMessage> AskAgainAsync(Coordinator ada, Guid id, string key) =>
        ada.PostAsync($"/api/mailings/{id}/ask-again", new { word = "" }, key);

    private static async Task TakeAsync(MailScene scene, LooseLantern.StandIns.Mail.StoredMail mail, string start) =>
        await (await BookAsync(scene, mail, start)).ReadAsync(HttpStatusCode.Created);

    private static async Task<HttpResponseMessage> BookAsync(
        MailScene scene,
        LooseLantern.StandIns.Mail.StoredMail mail,
        string start
    )
    {
        var address = "/api/public/links/" + MailScene.SecretIn(mail, "/times/");
        await scene.World.Guest().PostAsync(address + "/opened", null);
        return await scene
            .World.Guest()
            .PostAsJsonAsync(
                address + "/bookings",
                new
                {
                    start,
                    duration = 30,
                    zone = "Europe/Copenhagen",
                    answers = new { },
                }
            );
    }

    private static (int, int, int, int) Counts(JsonElement row) =>
        (
            row.GetProperty("sent").GetInt32(),
            row.GetProperty("booked").GetInt32(),
            row.GetProperty("answered").GetInt32(),
            row.GetProperty("silent").GetInt32()
        );

    private static List<string> Standings(JsonElement detail) =>
        [.. detail.GetProperty("guests").EnumerateArray().Select(guest => guest.Text("standing"))];
}
