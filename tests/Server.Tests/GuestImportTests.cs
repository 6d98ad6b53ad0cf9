using System.Globalization;
using System.Text;
using static Server.Tests.GroupScene;
using static Server.Tests.GuestScene;

namespace Server.Tests;

/// <summary>Guests come in by files, whole or not at all, and go out as they came.</summary>
public sealed class GuestImportTests(World world)
{
    private static readonly byte[] Usual = Encoding.UTF8.GetBytes(
        """
        Name;E-Mail;Firma;Telefon;Tidszone;Sprog;Rig
        Ottilie Wren;ottilie@wren.example;Wren Charters;+353 21 555 0101;Dublin;English;Ketch
        Osric Pell;osric@pell.example;;;Europe/Dublin;en;yawl
        Imke Sandvig;imke@sandvig.example;Sandvig Sejl;;Copenhagen;dansk;
        """
    );

    [Fact]
    public async Task A_file_is_looked_at_first_and_then_comes_in_and_goes_again()
    {
        var ada = await world.SignUpAsync();
        var rig = await RigAsync(ada);
        await ada.AddGuestAsync(Form("O. Wren", ["ottilie@wren.example"], phone: "555"));

        var look = await LookAsync(ada, Usual);
        (look.Text("encoding"), look.Text("separator")).ShouldBe(("utf-8", ";"));
        Meanings(look).ShouldBe(["name", "email", "organisation", "phone", "zone", "language", "field"]);
        Counts(look).ShouldBe((2, 1, 0, 0));
        (await ada.GuestsAsync()).Names().ShouldBe(["O. Wren"]);

        var done = await RunAsync(ada, look);
        (done.GetProperty("made").GetInt32(), done.GetProperty("changed").GetInt32()).ShouldBe((2, 1));
        (await ada.GuestsAsync()).Names().ShouldBe(["Imke Sandvig", "O. Wren", "Osric Pell"]);
        var imke = await ada.GuestAsync("Imke Sandvig");
        (imke.Text("zone"), imke.Text("language"), imke.Text("source")).ShouldBe(("Europe/Copenhagen", "da", "import"));
        // What was known stands; what was blank is filled in.
        var wren = await ada.GuestAsync("O. Wren");
        (wren.Text("phone"), wren.Text("organisation"), wren.GetProperty("fields").Text(rig.ToString())).ShouldBe(
            ("555", "Wren Charters", "Ketch")
        );
        (await ada.GuestAsync("Osric Pell")).GetProperty("fields").Text(rig.ToString()).ShouldBe("Yawl");
        Counts(await LookAsync(ada, Usual)).ShouldBe((0, 0, 3, 0));

        (await ada.PostAsync($"/api/guests/imports/{look.Id()}/undo", new { })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ada.GuestsAsync()).Names().ShouldBe(["O. Wren"]);
        wren = await ada.GuestAsync("O. Wren");
        (wren.Text("phone"), wren.Text("organisation"), wren.GetProperty("fields").EnumerateObject().Count()).ShouldBe(
            ("555", "", 0)
        );
        (await ada.PostAsync($"/api/guests/imports/{look.Id()}/undo", new { })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await ada.GetAsync("/api/guests/imports"))[0].Text("state").ShouldBe("undone");
    }

    [Fact]
    public async Task Every_fault_is_told_with_its_row_and_nothing_comes_in_unless_they_are_left_out()
    {
        var ada = await world.SignUpAsync();
        await RigAsync(ada);
        var file = Encoding.UTF8.GetBytes(
            """
            Name,Email,Phone,Time zone,Language,Keeper,Rig
            Ottilie,ottilie@wren.example,,,,,
            ,,,,,,Ketch
            Osric,nobody,ring me,Atlantis,tlh,Somebody,Raft
            Second Ottilie,OTTILIE@wren.example,,,,,
            Fine,fine@boat.example,,,,Ada Wharf,
            """
        );
        var look = await LookAsync(ada, file);
        look.GetProperty("faults")
            .EnumerateArray()
            .Select(fault => (fault.GetProperty("row").GetInt32(), fault.Text("column")))
            .ShouldBe([
                (3, ""),
                (4, "Email"),
                (4, "Phone"),
                (4, "Time zone"),
                (4, "Language"),
                (4, "Keeper"),
                (4, "Rig"),
                (5, ""),
            ]);
        Counts(look).ShouldBe((2, 0, 0, 3));
        (await ada.PostAsync($"/api/guests/imports/{look.Id()}/run", new { })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await ada.GuestsAsync()).Names().ShouldBeEmpty();

        (await RunAsync(ada, look, new { leaveOutFaulty = true })).GetProperty("leftOut").GetInt32().ShouldBe(3);
        (await ada.GuestsAsync()).Names().ShouldBe(["Fine", "Ottilie"]);
        (await ada.GuestAsync("Fine")).Text("keeperName").ShouldBe("Ada Wharf");
        (await ada.PostAsync($"/api/guests/imports/{look.Id()}/run", new { })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
    }

    [Fact]
    public async Task Columns_are_chosen_and_remembered_for_the_next_file()
    {
        var ada = await world.SignUpAsync();
        var file = "Who,Where to write\nOttilie,ottilie@wren.example"u8.ToArray();
        var look = await LookAsync(ada, file);
        Meanings(look).ShouldBe(["nothing", "email"]);
        object[] columns = [new { meaning = "organisation" }, new { meaning = "email" }];
        var preview = await (
            await ada.PostAsync($"/api/guests/imports/{look.Id()}/preview", new { columns })
        ).ReadAsync(HttpStatusCode.OK);
        var sample = preview.GetProperty("samples")[0];
        (sample.Text("name"), sample.Text("organisation")).ShouldBe(("ottilie", "Ottilie"));
        object[] twice = [new { meaning = "email" }, new { meaning = "email" }];
        (
            await (
                await ada.PostAsync($"/api/guests/imports/{look.Id()}/preview", new { columns = twice })
            ).FaultsAsync()
        ).Keys.ShouldBe(["columns[1]"]);
        await RunAsync(ada, look, new { columns });
        Meanings(await LookAsync(ada, "Where to write,Who\nosric@pell.example,Pell"u8.ToArray()))
            .ShouldBe(["email", "organisation"]);
    }

    [Fact]
    public async Task What_is_known_is_replaced_or_left_where_that_is_chosen()
    {
        var ada = await world.SignUpAsync();
        await ada.AddGuestAsync(Form("O. Wren", ["ottilie@wren.example"], phone: "555"));
        var file = "Name,Email,Phone,Note\nOttilie Wren,ottilie@wren.example,,Rings."u8.ToArray();
        var look = await LookAsync(ada, file);
        var left = await (
            await ada.PostAsync($"/api/guests/imports/{look.Id()}/preview", new { known = "leave" })
        ).ReadAsync(HttpStatusCode.OK);
        Counts(left).ShouldBe((0, 0, 1, 0));
        await RunAsync(ada, look, new { known = "replace" });
        var guest = await ada.GuestAsync("Ottilie Wren");
        (guest.Text("phone"), guest.GetProperty("notes").GetInt32()).ShouldBe(("555", 1));
        // With all that came in by it, notes too.
        (await ada.PostAsync($"/api/guests/imports/{look.Id()}/undo", new { })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        guest = await ada.GuestAsync("O. Wren");
        guest.GetProperty("notes").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task An_import_is_not_undone_once_somebody_changed_or_booked_what_came_in()
    {
        var scene = await MakeAsync(world);
        var look = await LookAsync(
            scene.Ada,
            "Name,Email\nOttilie,ottilie@harbour.example\nOsric,osric@harbour.example"u8.ToArray()
        );
        await RunAsync(scene.Ada, look);
        await scene.BookAsync("Ottilie");
        var refused = await (await scene.Ada.PostAsync($"/api/guests/imports/{look.Id()}/undo", new { })).ReadAsync(
            HttpStatusCode.Conflict
        );
        refused.Text("title").ShouldContain("Ottilie");
        (await scene.Ada.GuestsAsync()).Names().ShouldBe(["Osric", "Ottilie"]);
    }

    [Fact]
    public async Task Two_rows_about_one_guest_are_told_and_one_of_them_comes_in()
    {
        var ada = await world.SignUpAsync();
        await ada.AddGuestAsync(Form("Ottilie Wren", ["ottilie@wren.example", "o@wren.example"]));
        await ada.AddGuestAsync(Form("Hanako Mori"));
        var look = await LookAsync(
            ada,
            "Name,Email,Phone\nO,ottilie@wren.example,555 0101\nO,o@wren.example,555 0102\nHanako Mori,,555 0103\nHanako Mori,,555 0104"u8.ToArray()
        );
        look.GetProperty("faults")
            .EnumerateArray()
            .Select(fault => (fault.GetProperty("row").GetInt32(), fault.Text("mend")))
            .ShouldBe([
                (3, "Another row is about the same guest. Keep one of them."),
                (5, "Another row is about the same guest. Keep one of them."),
            ]);
        await RunAsync(ada, look, new { leaveOutFaulty = true });
        (await ada.GuestAsync("Ottilie Wren")).Text("phone").ShouldBe("555 0101");
        (await ada.GuestAsync("Hanako Mori")).Text("phone").ShouldBe("555 0103");
    }

    [Fact]
    public async Task Cards_come_in_too()
    {
        var ada = await world.SignUpAsync();
        var look = await LookAsync(
            ada,
            Encoding.UTF8.GetBytes(
                "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ottilie Wren\r\nEMAIL:ottilie@wren.example\r\nEMAIL:o@wren.example\r\nTEL:+353 21 555 0101\r\nTZ:Europe/Dublin\r\nEND:VCARD\r\n"
            )
        );
        look.GetProperty("isCards").GetBoolean().ShouldBeTrue();
        await RunAsync(ada, look);
        var guest = await ada.GuestAsync("Ottilie Wren");
        guest
            .GetProperty("emails")
            .EnumerateArray()
            .Select(email => email.GetString())
            .ShouldBe(["ottilie@wren.example", "o@wren.example"]);
        (guest.Text("phone"), guest.Text("zone")).ShouldBe(("+353 21 555 0101", "Europe/Dublin"));
    }

    [Fact]
    public async Task What_goes_out_comes_in_again_as_it_was()
    {
        var ada = await world.SignUpAsync();
        var rig = await RigAsync(ada);
        await ada.AddGuestAsync(
            Form(
                "=Ottilie; \"Wren\"",
                ["ottilie@wren.example", "o@wren.example"],
                "Wren, Charters",
                "+353 21 555 0101",
                "Europe/Dublin",
                "en",
                null,
                ada.PersonId,
                new() { [rig] = "Ketch" }
            )
        );
        await ada.AddGuestAsync(Form("Zoë Ängström"));
        var table = await ada.Http.GetByteArrayAsync("/api/guests/export.csv");
        Encoding.UTF8.GetString(table).ShouldNotContain("\n=");
        Counts(await LookAsync(ada, table)).ShouldBe((0, 0, 2, 0));
        var cards = await ada.Http.GetByteArrayAsync(
            "/api/guests/export.vcf?filter=" + Uri.EscapeDataString("""{"search":"wren"}""")
        );
        var look = await LookAsync(ada, cards);
        look.GetProperty("rows").GetInt32().ShouldBe(1);
        look.GetProperty("samples")[0].Text("name").ShouldBe("=Ottilie; \"Wren\"");
        (await (await ada.Http.GetAsync("/api/guests/export.csv?filter=odd")).FaultsAsync()).Keys.ShouldBe(["filter"]);

        // In another workspace it makes them, but for what only the first has.
        var bo = await world.SignUpAsync();
        var there = await LookAsync(bo, table);
        there.GetProperty("faults").EnumerateArray().Select(fault => fault.Text("column")).ShouldBe(["Keeper"]);
    }

    [Fact]
    public async Task What_is_no_table_is_refused_by_the_file()
    {
        var ada = await world.SignUpAsync();
        foreach (
            var bytes in new[]
            {
                Array.Empty<byte>(),
                [0x89, 0x50, 0, 0, 1, 0xFF],
                "BEGIN:VCARD\nVERSION:2.1\nEND:VCARD"u8.ToArray(),
            }
        )
            (await (await UploadAsync(ada, bytes)).FaultsAsync()).Keys.ShouldBe(["file"]);
        var look = await LookAsync(ada, Usual);
        (
            await (
                await ada.PostAsync($"/api/guests/imports/{look.Id()}/preview", new { encoding = "klingon" })
            ).FaultsAsync()
        ).Keys.ShouldBe(["encoding"]);
        (
            await (
                await ada.PostAsync($"/api/guests/imports/{look.Id()}/preview", new { separator = "x" })
            ).FaultsAsync()
        ).Keys.ShouldBe(["separator"]);
        (await ada.PostAsync($"/api/guests/imports/{Guid.NewGuid()}/run", new { })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        var bo = await world.SignUpAsync();
        (await bo.PostAsync($"/api/guests/imports/{look.Id()}/run", new { })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    [Fact]
    public async Task A_file_larger_than_a_calendar_may_be_comes_in_and_one_over_20_mb_is_refused()
    {
        var ada = await world.SignUpAsync();
        var text = new StringBuilder("Name,Email,Note\n");
        for (var i = 0; i < 3000; i++)
            text.Append(CultureInfo.InvariantCulture, $"Guest {i},guest{i}@boat.example,{new string('n', 2000)}\n");
        var look = await LookAsync(ada, Encoding.UTF8.GetBytes(text.ToString()));
        (await RunAsync(ada, look)).GetProperty("made").GetInt32().ShouldBe(3000);
        (await ada.PostAsync($"/api/guests/imports/{look.Id()}/undo", new { })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ada.GuestsAsync()).GetProperty("total").GetInt32().ShouldBe(0);
        (await (await UploadAsync(ada, new byte[(20 * 1024 * 1024) + 1])).FaultsAsync()).Keys.ShouldBe(["file"]);
    }

    private static Task<HttpResponseMessage> UploadAsync(Coordinator who, byte[] bytes) =>
        who.UploadAsync(HttpMethod.Post, "/api/guests/imports", bytes);

    private static async Task<JsonElement> LookAsync(Coordinator who, byte[] bytes) =>
        await (await UploadAsync(who, bytes)).ReadAsync(HttpStatusCode.OK);

    private static async Task<JsonElement> RunAsync(Coordinator who, JsonElement look, object? form = null) =>
        await (await who.PostAsync($"/api/guests/imports/{look.Id()}/run", form ?? new { })).ReadAsync(
            HttpStatusCode.OK
        );

    private static (int New, int Changed, int Unchanged, int Faulty) Counts(JsonElement preview) =>
        (
            preview.GetProperty("new").GetInt32(),
            preview.GetProperty("changed").GetInt32(),
            preview.GetProperty("unchanged").GetInt32(),
            preview.GetProperty("faulty").GetInt32()
        );

    private static IEnumerable<string> Meanings(JsonElement preview) =>
        preview.GetProperty("columns").EnumerateArray().Select(column => column.GetProperty("choice").Text("meaning"));

    private static async Task<Guid> RigAsync(Coordinator who) => (
            await (
                await who.PutAsync(
                    "/api/guests/fields",
                    new[]
                    {
                        new
                        {
                            id = (Guid?)null,
                            name = "Rig",
                            kind = "choice",
                            options = new[] { "Ketch", "Yawl" },
                        },
                    }
                )
            ).ReadAsync(HttpStatusCode.OK)
        )[0].Id();
}
