using LooseLantern.Core.Questions;
using static Server.Tests.GroupScene;
using static Server.Tests.GuestScene;

namespace Server.Tests;

/// <summary>Whoever books or gets a link is known from then on, once, whatever they call themselves.</summary>
public sealed class KnownGuestTests(World world)
{
    [Fact]
    public async Task Who_books_is_known_with_zone_and_language_and_the_second_time_is_the_same()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren");
        var guest = await scene.Ada.GuestAsync("Ottilie Wren");
        guest
            .GetProperty("emails")
            .EnumerateArray()
            .Select(email => email.GetString())
            .ShouldBe(["ottilie@harbour.example"]);
        (guest.Text("zone"), guest.Text("language"), guest.Text("source")).ShouldBe(("Europe/Dublin", "en", "booking"));

        (
            await world
                .Guest()
                .BookAsync(scene.Ada.Desk, scene.Page, Ten, name: "O. Wren", email: "OTTILIE@harbour.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        var list = await scene.Ada.GuestsAsync();
        list.Names().ShouldBe(["Ottilie Wren"]);
        list.GetProperty("rows")[0].GetProperty("bookings").GetInt32().ShouldBe(2);
        // What the second one says is not written over what is known, and not lost.
        var said = (await scene.Ada.GuestAsync("Ottilie Wren"))
            .GetProperty("said")
            .EnumerateArray()
            .ShouldHaveSingleItem();
        (said.Text("fact"), said.Text("value")).ShouldBe(("name", "O. Wren"));
    }

    [Fact]
    public async Task What_was_blank_is_filled_in_by_a_booking_and_what_was_known_stands()
    {
        var scene = await MakeAsync(world);
        await scene.Ada.AddGuestAsync(Form("Ottilie Wren", ["ottilie@harbour.example"], language: "de"));
        await scene.BookAsync("Somebody Else");
        await world
            .Guest()
            .BookAsync(scene.Ada.Desk, scene.Page, Nine, name: "Ottilie", email: "ottilie@harbour.example");
        var guest = await scene.Ada.GuestAsync("Ottilie Wren");
        (guest.Text("zone"), guest.Text("language"), guest.Text("source")).ShouldBe(("Europe/Dublin", "de", "hand"));
        guest
            .GetProperty("said")
            .EnumerateArray()
            .Select(said => (said.Text("fact"), said.Text("value")))
            .ShouldBe([("name", "Ottilie"), ("language", "en")]);
    }

    [Fact]
    public async Task Two_bookings_at_one_moment_make_one_guest()
    {
        var scene = await MakeAsync(world, places: 40);
        var tries = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(i =>
                    world
                        .Guest()
                        .BookAsync(
                            scene.Ada.Desk,
                            scene.Page,
                            $"2026-12-{8 + i:00}T08:00:00Z",
                            name: "Ottilie Wren",
                            email: "ottilie@harbour.example"
                        )
                )
        );
        tries.ShouldAllBe(answer => answer.StatusCode == HttpStatusCode.Created);
        var row = (await scene.Ada.GuestsAsync()).GetProperty("rows").EnumerateArray().ShouldHaveSingleItem();
        row.GetProperty("bookings").GetInt32().ShouldBe(4);
    }

    [Fact]
    public async Task Links_made_at_one_moment_for_somebody_new_make_one_guest()
    {
        var ada = await world.SignUpAsync();
        await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => ada.MakeLinkAsync(draft => draft.Picked = [])));
        var row = (await ada.GuestsAsync()).GetProperty("rows").EnumerateArray().ShouldHaveSingleItem();
        (await ada.GetAsync($"/api/guests/{row.Id()}")).GetProperty("offers").GetInt32().ShouldBe(6);
    }

    [Fact]
    public async Task Who_is_booked_for_without_an_email_is_a_guest_of_their_own_and_known_again()
    {
        var scene = await MakeAsync(world, change: draft =>
            draft.Details = LooseLantern.Server.Data.Model.PageDetails.Usual with { ForOthers = true }
        );
        foreach (var at in new[] { Nine, Ten })
            (
                await world
                    .Guest()
                    .BookAsync(
                        scene.Ada.Desk,
                        scene.Page,
                        at,
                        name: "Anselm Holt",
                        email: "anselm@harbour.example",
                        bookedFor: new { name = "Ida Holt", mailTo = "booker" }
                    )
            ).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await scene.Ada.GuestsAsync()).Names().ShouldBe(["Anselm Holt", "Ida Holt"]);
        var ida = await scene.Ada.GuestAsync("Ida Holt");
        (ida.GetProperty("bookings").GetInt32(), ida.Text("bookerEmail")).ShouldBe((2, "anselm@harbour.example"));
        // The browser was the booker's.
        (ida.Text("zone"), (await scene.Ada.GuestAsync("Anselm Holt")).Text("zone")).ShouldBe(("", "Europe/Dublin"));
        (await scene.Ada.HistoryAsync((await scene.Ada.GuestAsync("Anselm Holt")).Id()))
            .Where(row => row.Text("kind") == "booked")
            .Select(row => row.Text("for"))
            .ShouldBe(["Ida Holt", "Ida Holt"]);
    }

    [Fact]
    public async Task A_links_guest_is_known_and_who_takes_it_without_having_had_an_email_is_the_same()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync(draft => draft.Guests = [new("Wilf Teller", "")]);
        var wilf = await ada.GuestAsync("Wilf Teller");
        wilf.GetProperty("emails").GetArrayLength().ShouldBe(0);
        (wilf.GetProperty("offers").GetInt32(), wilf.Text("source")).ShouldBe((1, "link"));
        (await world.Guest().TakeAsync(address, LinkDraft.Nine, email: "wilf@teller.example")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        var after = await ada.GuestAsync("Wilf Teller");
        (after.Id(), after.GetProperty("bookings").GetInt32()).ShouldBe((wilf.Id(), 1));
        after.GetProperty("emails")[0].GetString().ShouldBe("wilf@teller.example");
    }

    [Fact]
    public async Task A_name_that_was_only_on_a_link_goes_when_it_is_taken_off()
    {
        var ada = await world.SignUpAsync();
        var made = await ada.MakeLinkAsync(draft => draft.Guests = [new("Wilf Tellr", "")]);
        var id = made.GetProperty("row").Id();
        (
            await ada.PutAsync(
                $"/api/links/{id}",
                new { version = 1, form = ada.Link(draft => draft.Guests = [new("Wilf Teller", "")]).Form() }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ada.GuestsAsync()).Names().ShouldBe(["Wilf Teller"]);
    }

    [Fact]
    public async Task A_time_among_ourselves_has_no_guest()
    {
        var ada = await world.SignUpAsync();
        await ada.MakeLinkAsync(draft => (draft.Guests, draft.IsAmongOurselves) = ([], true));
        (await ada.GuestsAsync()).Names().ShouldBeEmpty();
    }

    [Fact]
    public async Task Another_workspace_knows_another_guest_by_the_same_email()
    {
        var (one, other) = (await MakeAsync(world), await MakeAsync(world));
        await one.BookAsync("Ottilie Wren");
        (await other.Ada.GuestsAsync()).Names().ShouldBeEmpty();
        await other.BookAsync("Ottilie Wren");
        var guest = await one.Ada.GuestAsync("Ottilie Wren");
        (await other.Ada.Http.GetAsync($"/api/guests/{guest.Id()}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await other.Ada.GuestAsync("Ottilie Wren")).Id().ShouldNotBe(guest.Id());
    }

    [Fact]
    public async Task All_that_happened_stands_in_one_line_of_time()
    {
        var scene = await MakeAsync(world);
        var path = await scene.BookAsync("Ottilie Wren");
        await (await world.Guest().PostAsJsonAsync(path + "/move", new { start = Ten })).ReadAsync(
            HttpStatusCode.NoContent
        );
        var guest = (await scene.Ada.GuestAsync("Ottilie Wren")).Id();
        await (await scene.Ada.PostAsync($"/api/guests/{guest}/notes", new { text = "Rings before noon." })).ReadAsync(
            HttpStatusCode.OK
        );
        await (await world.Guest().PostAsJsonAsync(path + "/cancel", new { word = "Ill" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        var events = await scene.Ada.HistoryAsync(guest);
        events
            .Select(row => row.Text("kind"))
            .Where(kind => kind != "mailOut")
            .Order()
            .ShouldBe(["booked", "cancelled", "known", "moved", "noted"]);
        var moved = events.Single(row => row.Text("kind") == "moved");
        (moved.Text("was"), moved.Text("start"), moved.Text("by")).ShouldBe((Nine, Ten, ""));
        events.Single(row => row.Text("kind") == "booked").Text("start").ShouldBe(Nine);
        events.Count(row => row.Text("kind") == "mailOut").ShouldBe(3);
        var note = events.Single(row => row.Text("kind") == "noted");
        (note.Text("text"), note.Text("by"), note.GetProperty("isYours").GetBoolean()).ShouldBe(
            ("Rings before noon.", "Ada Wharf", true)
        );
    }

    [Fact]
    public async Task All_that_is_kept_of_one_guest_is_a_file_for_them()
    {
        var scene = await MakeAsync(world);
        var path = await scene.BookAsync("Ottilie Wren");
        await scene.BookAsync("Osric Pell");
        var (_, address) = await scene.Ada.SendLinkAsync(draft =>
            draft.Guests = [new("Ottilie Wren", "ottilie@harbour.example"), new("Osric Pell", "osric@harbour.example")]
        );
        var guest = (await scene.Ada.GuestAsync("Ottilie Wren")).Id();
        await scene.Ada.PostAsync($"/api/guests/{guest}/notes", new { text = "Rings before noon." });
        var text = await scene.Ada.Http.GetStringAsync($"/api/guests/{guest}/data.json");
        text.ShouldContain("Rings before noon.");
        // Nothing of anybody else, and nothing that opens a link.
        text.ShouldNotContain("osric", Case.Insensitive);
        text.ShouldNotContain(path.Split('/')[^1]);
        text.ShouldNotContain(address);
        var file = JsonDocument.Parse(text).RootElement;
        file.GetProperty("bookings")[0].Text("start").ShouldBe(Nine);
        file.GetProperty("links").GetArrayLength().ShouldBe(1);
        file.GetProperty("mailSent")[0].Text("to").ShouldBe("ottilie@harbour.example");
        file.GetProperty("mailSent")[0].Text("text").ShouldContain("Hello Ottilie");
    }

    [Fact]
    public async Task A_long_line_of_time_is_read_run_by_run()
    {
        var ada = await world.SignUpAsync();
        var guest = (await ada.AddGuestAsync(Form("Ottilie Wren"))).Id();
        for (var i = 0; i < 60; i++)
            (await ada.PostAsync($"/api/guests/{guest}/notes", new { text = $"Note {i}" })).Dispose();
        var first = await ada.GetAsync($"/api/guests/{guest}/history");
        var second = await ada.GetAsync(
            $"/api/guests/{guest}/history?before={Uri.EscapeDataString(first.Text("earlier"))}"
        );
        first
            .GetProperty("events")
            .EnumerateArray()
            .Concat(second.GetProperty("events").EnumerateArray())
            .Where(row => row.Text("kind") == "noted")
            .Select(row => row.Text("text"))
            .Distinct()
            .Count()
            .ShouldBe(60);
        second.GetProperty("earlier").ValueKind.ShouldBe(JsonValueKind.Null);
        (await (await ada.Http.GetAsync($"/api/guests/{guest}/history?before=soon")).FaultsAsync()).Keys.ShouldBe([
            "before",
        ]);
    }

    [Fact]
    public async Task Offers_show_when_they_were_made_sent_and_opened()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync();
        (await world.Guest().PostAsync($"/api/public/links/{address}/opened", null)).EnsureSuccessStatusCode();
        var guest = (await ada.GuestAsync("Ottilie Wren")).Id();
        (await ada.HistoryAsync(guest))
            .Select(row => row.Text("kind"))
            .Order()
            .ShouldBe(["known", "offerMade", "offerOpened", "offerOut"], ignoreOrder: true);
        (await ada.GuestsAsync(new { offers = "out" })).Names().ShouldBe(["Ottilie Wren"]);
    }

    [Fact]
    public async Task An_answer_fills_a_blank_field_and_never_writes_over_what_is_known()
    {
        var ada = await world.SignUpAsync();
        var length = (
            await (
                await ada.PutAsync(
                    "/api/guests/fields",
                    new[]
                    {
                        new
                        {
                            id = (Guid?)null,
                            name = "Length",
                            kind = "number",
                            options = Array.Empty<string>(),
                        },
                    }
                )
            ).ReadAsync(HttpStatusCode.OK)
        )[0].Id();
        var page = await ada.PublishAsync(draft =>
            draft.Questions = [
                new Question("long", QuestionKind.Short, "How long is she?", "", false, [], "", length),
                new Question("mind", QuestionKind.Short, "What is it about?", "", false, [], ""),
            ]
        );
        async Task<string> AnswerAsync(string at, string answer)
        {
            var made = await (
                await world
                    .Guest()
                    .PostAsJsonAsync(
                        $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                        new
                        {
                            start = at,
                            duration = 30,
                            zone = "Europe/Dublin",
                            guest = new { name = "Ottilie Wren", email = "ottilie@wren.example" },
                            answers = new { @long = answer, mind = "Keel" },
                        }
                    )
            ).ReadAsync(HttpStatusCode.Created);
            return GroupScene.ApiOf(made);
        }

        // What is no number is kept as an answer alone.
        var first = await AnswerAsync(Nine, "very");
        (await ada.GuestAsync("Ottilie Wren")).GetProperty("fields").EnumerateObject().ShouldBeEmpty();
        // A later answer fills it as the first would have.
        (
            await world
                .Guest()
                .PutAsJsonAsync(first + "/answers", new { answers = new { @long = "12,5", mind = "Keel" } })
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ada.GuestAsync("Ottilie Wren")).GetProperty("fields").Text(length.ToString()).ShouldBe("12.5");
        await AnswerAsync("2026-12-09T08:00:00Z", "14");
        var guest = await ada.GuestAsync("Ottilie Wren");
        guest.GetProperty("fields").Text(length.ToString()).ShouldBe("12.5");
        var said = guest.GetProperty("said").EnumerateArray().ShouldHaveSingleItem();
        (said.Text("fact"), said.Text("value"), said.GetProperty("field").GetGuid()).ShouldBe(("field", "14", length));
        // Asked of the guest's history, both are there in their own words.
        (await ada.HistoryAsync(guest.Id()))
            .Where(row => row.Text("kind") == "booked")
            .SelectMany(row => row.GetProperty("answers").EnumerateArray().Select(one => one.Text("text")))
            .ShouldBe(["14", "Keel", "12,5", "Keel"]);
    }
}
