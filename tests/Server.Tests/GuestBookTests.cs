using static Server.Tests.GroupScene;
using static Server.Tests.GuestScene;

namespace Server.Tests;

/// <summary>The team writes guests down, finds them, and makes one of two who are one.</summary>
public sealed class GuestBookTests(World world)
{
    [Fact]
    public async Task A_guest_is_written_down_with_all_that_is_known_and_changed()
    {
        var ada = await world.SignUpAsync();
        var fields = await FieldsAsync(
            ada,
            ("Boat", "text", []),
            ("Length", "number", []),
            ("Since", "date", []),
            ("Rig", "choice", ["Ketch", "Yawl"]),
            ("Member", "yesNo", [])
        );
        var values = new Dictionary<Guid, string>
        {
            [fields[0]] = "Larkspur",
            [fields[1]] = "12,5",
            [fields[2]] = "2019-04-01",
            [fields[3]] = "ketch",
            [fields[4]] = "YES",
        };
        var made = await ada.AddGuestAsync(
            Form(
                " Ottilie Wren ",
                ["ottilie@wren.example", "o@wren.example"],
                "Wren Charters",
                "+353 21 555 0101",
                "Europe/Dublin",
                "en",
                "h12",
                ada.PersonId,
                values
            )
        );
        made.Text("name").ShouldBe("Ottilie Wren");
        made.GetProperty("emails")[0].GetString().ShouldBe("ottilie@wren.example");
        (made.Text("organisation"), made.Text("phone"), made.Text("keeperName"), made.Text("clock")).ShouldBe(
            ("Wren Charters", "+353 21 555 0101", "Ada Wharf", "h12")
        );
        fields
            .Select(id => made.GetProperty("fields").GetProperty(id.ToString()).GetString()!)
            .ShouldBe(["Larkspur", "12.5", "2019-04-01", "Ketch", "yes"]);

        var changed = await (
            await ada.PutAsync(
                $"/api/guests/{made.Id()}",
                new { version = 1, form = Form("Ottilie Wren", ["o@wren.example"], phone: "") }
            )
        ).ReadAsync(HttpStatusCode.OK);
        changed.GetProperty("emails").EnumerateArray().Select(email => email.GetString()).ShouldBe(["o@wren.example"]);
        (changed.Text("phone"), changed.GetProperty("version").GetInt32()).ShouldBe(("", 2));
        (
            await ada.PutAsync($"/api/guests/{made.Id()}", new { version = 1, form = Form("Somebody") })
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task Each_fault_is_named_and_nothing_is_written()
    {
        var ada = await world.SignUpAsync();
        var fields = await FieldsAsync(
            ada,
            ("Length", "number", []),
            ("Since", "date", []),
            ("Rig", "choice", ["Ketch"]),
            ("Member", "yesNo", [])
        );
        var values = fields.ToDictionary(id => id, _ => "soon");
        (
            await (
                await ada.PostAsync(
                    "/api/guests",
                    Form(
                        " ",
                        ["nobody", "o@wren.example", "O@wren.example"],
                        new string('x', 200),
                        "ring me",
                        "Mars/Base",
                        "tlh"
                    )
                )
            ).FaultsAsync()
        )
            .Keys.Order()
            .ShouldBe(["emails", "emails[0]", "language", "name", "organisation", "phone", "zone"]);
        (await (await ada.PostAsync("/api/guests", Form("Ottilie", fields: values))).FaultsAsync())
            .Keys.Order()
            .ShouldBe(fields.Select(id => $"fields.{id}").Order());
        (
            await (await ada.PostAsync("/api/guests", Form("Ottilie", keeper: Guid.NewGuid()))).FaultsAsync()
        ).Keys.ShouldBe(["keeperId"]);
        (await ada.GuestsAsync()).Names().ShouldBeEmpty();
    }

    [Fact]
    public async Task One_email_is_one_guests()
    {
        var ada = await world.SignUpAsync();
        await ada.AddGuestAsync(Form("Ottilie Wren", ["ottilie@wren.example"]));
        var refused = await (await ada.PostAsync("/api/guests", Form("Osric", ["Ottilie@Wren.example"]))).ReadAsync(
            HttpStatusCode.Conflict
        );
        refused.Text("title").ShouldContain("Ottilie Wren");
        (await ada.GuestsAsync()).Names().ShouldBe(["Ottilie Wren"]);
    }

    [Fact]
    public async Task The_list_is_found_by_words_filtered_and_read_run_by_run()
    {
        var ada = await world.SignUpAsync();
        var bo = await new Scene(world, ada).JoinAsync(isCoordinator: true);
        var fields = await FieldsAsync(ada, ("Length", "number", []), ("Rig", "choice", ["Ketch", "Yawl"]));
        Dictionary<Guid, string> Of(string length, string rig) => new() { [fields[0]] = length, [fields[1]] = rig };
        await ada.AddGuestAsync(
            Form(
                "Ottilie Wren",
                ["ottilie@wren.example"],
                "Wren Charters",
                keeper: bo.PersonId,
                fields: Of("9", "Ketch")
            )
        );
        await ada.AddGuestAsync(
            Form("Barnaby Quill", ["b@quill.example"], phone: "555 0102", fields: Of("12.5", "Yawl"), language: "da")
        );
        await ada.AddGuestAsync(Form("Hanako Mori"));

        async Task<IReadOnlyList<string>> ShownAsync(object filter) => (await ada.GuestsAsync(filter)).Names();
        (await ShownAsync(new { })).ShouldBe(["Barnaby Quill", "Hanako Mori", "Ottilie Wren"]);
        (await ShownAsync(new { order = "newest" })).ShouldBe(["Hanako Mori", "Barnaby Quill", "Ottilie Wren"]);
        (await ShownAsync(new { search = "wren char" })).ShouldBe(["Ottilie Wren"]);
        (await ShownAsync(new { search = "QUILL.ex" })).ShouldBe(["Barnaby Quill"]);
        (await ShownAsync(new { search = "0102 barn" })).ShouldBe(["Barnaby Quill"]);
        (await ShownAsync(new { search = "%" })).ShouldBeEmpty();
        (await ShownAsync(new { keeper = bo.PersonId })).ShouldBe(["Ottilie Wren"]);
        (await ShownAsync(new { withoutKeeper = true })).ShouldBe(["Barnaby Quill", "Hanako Mori"]);
        (await ShownAsync(new { withoutEmail = true })).ShouldBe(["Hanako Mori"]);
        (await ShownAsync(new { language = "da" })).ShouldBe(["Barnaby Quill"]);
        (await ShownAsync(new { offers = "none" })).Count.ShouldBe(3);
        (
            await ShownAsync(
                new
                {
                    fields = new[]
                    {
                        new
                        {
                            field = fields[0],
                            test = "from",
                            value = "10",
                        },
                    },
                }
            )
        ).ShouldBe(["Barnaby Quill"]);
        (
            await ShownAsync(
                new
                {
                    fields = new[]
                    {
                        new
                        {
                            field = fields[0],
                            test = "to",
                            value = "9",
                        },
                    },
                }
            )
        ).ShouldBe(["Ottilie Wren"]);
        (
            await ShownAsync(
                new
                {
                    fields = new[]
                    {
                        new
                        {
                            field = fields[1],
                            test = "is",
                            value = "yawl",
                        },
                    },
                }
            )
        ).ShouldBe(["Barnaby Quill"]);
        (await ShownAsync(new { fields = new[] { new { field = fields[1], test = "blank" } } })).ShouldBe([
            "Hanako Mori",
        ]);
        (await ShownAsync(new { fields = new[] { new { field = fields[1], test = "filled" } } })).ShouldBe([
            "Barnaby Quill",
            "Ottilie Wren",
        ]);
        (
            await (
                await ada.PostAsync(
                    "/api/guests/list",
                    new
                    {
                        fields = new[]
                        {
                            new
                            {
                                field = fields[0],
                                test = "from",
                                value = "long",
                            },
                        },
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["fields"]);

        var first = await ada.GuestsAsync(query: "?take=2");
        first.Names().ShouldBe(["Barnaby Quill", "Hanako Mori"]);
        first.GetProperty("total").GetInt32().ShouldBe(3);
        (await ada.GuestsAsync(query: $"?take=2&after={Uri.EscapeDataString(first.Text("after"))}"))
            .Names()
            .ShouldBe(["Ottilie Wren"]);
        (await (await ada.PostAsync("/api/guests/list?after=nonsense", new { })).FaultsAsync()).Keys.ShouldBe([
            "after",
        ]);
    }

    [Fact]
    public async Task Odd_choices_are_refused_by_their_field_or_find_nobody()
    {
        var ada = await world.SignUpAsync();
        (await ada.GuestsAsync(new { search = "\u0000 nobody\n" })).Names().ShouldBeEmpty();
        (await (await ada.PostAsync("/api/guests/list", new { language = "tlh" })).FaultsAsync()).Keys.ShouldBe([
            "language",
        ]);
        (
            await (await ada.PostAsync("/api/guests/list", new { fields = new object?[] { null } })).FaultsAsync()
        ).Keys.ShouldBe(["fields"]);
        (await (await ada.PutAsync("/api/guests/fields", new object?[] { null })).FaultsAsync()).Keys.ShouldBe([
            "fields",
        ]);
        (await ada.PostAsync("/api/guests", Form("Ottilie", [null!]))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task Guests_are_chosen_by_what_they_have_booked()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren");
        var gone = await scene.BookAsync("Osric Pell");
        await (await world.Guest().PostAsJsonAsync(gone + "/cancel", new { })).ReadAsync(HttpStatusCode.NoContent);
        (await scene.Ada.GuestsAsync(new { appointments = "toCome" })).Names().ShouldBe(["Ottilie Wren"]);
        (await scene.Ada.GuestsAsync(new { appointments = "none" })).Names().ShouldBe(["Osric Pell"]);
        (await scene.Ada.GuestsAsync(new { appointments = "past" })).Names().ShouldBeEmpty();
        (await scene.Ada.GuestsAsync(new { notSince = "2026-12-01" })).Names().ShouldBeEmpty();
        var row = (await scene.Ada.GuestsAsync()).GetProperty("rows")[1];
        (row.Text("name"), row.Text("next")).ShouldBe(("Ottilie Wren", Nine));
    }

    [Fact]
    public async Task A_choice_is_saved_for_the_team_replaced_by_name_and_removed()
    {
        var ada = await world.SignUpAsync();
        var bo = await new Scene(world, ada).JoinAsync(isHost: true);
        foreach (var appointments in new[] { "past", "none" })
            (
                await ada.PutAsync("/api/guests/views", new { name = "Gone quiet", filter = new { appointments } })
            ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var view = (await bo.GetAsync("/api/guests/views")).EnumerateArray().ShouldHaveSingleItem();
        (view.Text("name"), view.GetProperty("filter").Text("appointments")).ShouldBe(("Gone quiet", "none"));
        (
            await (await ada.PutAsync("/api/guests/views", new { name = " ", filter = new { } })).FaultsAsync()
        ).Keys.ShouldBe(["name"]);
        (await ada.DeleteAsync($"/api/guests/views/{view.Id()}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ada.DeleteAsync($"/api/guests/views/{view.Id()}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Two_who_are_one_become_one_and_are_two_again()
    {
        var scene = await MakeAsync(world);
        var ada = scene.Ada;
        await scene.BookAsync("Ottilie Wren");
        (
            await world.Guest().BookAsync(ada.Desk, scene.Page, Ten, name: "Ottilie Wren", email: "o@wren.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        var (one, other) = (
            await ByEmailAsync(ada, "ottilie@harbour.example"),
            await ByEmailAsync(ada, "o@wren.example")
        );
        one.GetProperty("doubles").EnumerateArray().Select(row => row.Id()).ShouldBe([other.Id()]);
        (await ada.GuestsAsync(new { doubles = true })).Names().Count.ShouldBe(2);
        other = await ChangedAsync(
            ada,
            other,
            Form("Ottilie Q. Wren", ["o@wren.example"], "Wren Charters", zone: "Asia/Tokyo")
        );
        await ada.PostAsync($"/api/guests/{other.Id()}/notes", new { text = "Rings." });

        var merged = await (
            await ada.PostAsync(
                $"/api/guests/{one.Id()}/merge",
                new
                {
                    other = other.Id(),
                    version = 1,
                    otherVersion = 2,
                    take = new[] { "name" },
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        // What one lacked comes over, what was chosen too, and what was known else stands.
        (merged.Text("name"), merged.Text("organisation"), merged.Text("zone")).ShouldBe(
            ("Ottilie Q. Wren", "Wren Charters", "Europe/Dublin")
        );
        merged
            .GetProperty("emails")
            .EnumerateArray()
            .Select(email => email.GetString())
            .ShouldBe(["ottilie@harbour.example", "o@wren.example"]);
        (merged.GetProperty("bookings").GetInt32(), merged.GetProperty("notes").GetInt32()).ShouldBe((2, 1));
        (await ada.GuestsAsync()).Names().ShouldBe(["Ottilie Q. Wren"]);
        // Who was looking at the other one is led to the one.
        (await ada.GetAsync($"/api/guests/{other.Id()}")).Id().ShouldBe(one.Id());
        (
            await world
                .Guest()
                .BookAsync(ada.Desk, scene.Page, "2026-12-09T08:00:00Z", name: "Ottilie", email: "o@wren.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        await ChangedAsync(
            ada,
            await ada.GetAsync($"/api/guests/{one.Id()}"),
            Form(
                "Ottilie Q. Wren",
                ["ottilie@harbour.example", "o@wren.example"],
                "Wren & Co",
                zone: "Europe/Dublin",
                language: "en"
            )
        );

        var merge = (await ada.GetAsync($"/api/guests/{one.Id()}")).GetProperty("merges")[0].Id();
        (await (await ada.PostAsync($"/api/guests/merges/{merge}/undo", new { })).ReadAsync(HttpStatusCode.OK))
            .Id()
            .ShouldBe(other.Id());
        var (first, second) = (
            await ada.GetAsync($"/api/guests/{one.Id()}"),
            await ada.GetAsync($"/api/guests/{other.Id()}")
        );
        // What was changed since stays; all else is as it was, and what came in by the email meanwhile is the other's.
        (first.Text("name"), first.Text("organisation"), first.GetProperty("bookings").GetInt32()).ShouldBe(
            ("Ottilie Wren", "Wren & Co", 1)
        );
        (
            second.Text("name"),
            second.Text("organisation"),
            second.GetProperty("bookings").GetInt32(),
            second.GetProperty("notes").GetInt32()
        ).ShouldBe(("Ottilie Q. Wren", "Wren Charters", 2, 1));
        second.GetProperty("emails")[0].GetString().ShouldBe("o@wren.example");
        (await ada.PostAsync($"/api/guests/merges/{merge}/undo", new { })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task Two_who_only_look_alike_are_kept_apart()
    {
        var ada = await world.SignUpAsync();
        var one = await ada.AddGuestAsync(Form("Ottilie Wren", phone: "+353 (21) 555 0101"));
        var other = await ada.AddGuestAsync(Form("O. Wren", phone: "+353 21 5550101"));
        (await ada.GetAsync($"/api/guests/{one.Id()}"))
            .GetProperty("doubles")[0]
            .GetProperty("samePhone")
            .GetBoolean()
            .ShouldBeTrue();
        (await ada.PostAsync($"/api/guests/{other.Id()}/keep-apart", new { other = one.Id() })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ada.GetAsync($"/api/guests/{one.Id()}")).GetProperty("doubles").GetArrayLength().ShouldBe(0);
        (await ada.GuestsAsync(new { doubles = true })).Names().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_merge_of_what_was_changed_meanwhile_or_of_one_with_themselves_is_refused()
    {
        var ada = await world.SignUpAsync();
        var (one, other) = (await ada.AddGuestAsync(Form("Ottilie")), await ada.AddGuestAsync(Form("Wren")));
        (
            await ada.PostAsync(
                $"/api/guests/{one.Id()}/merge",
                new
                {
                    other = other.Id(),
                    version = 1,
                    otherVersion = 7,
                    take = Array.Empty<string>(),
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (
            await (
                await ada.PostAsync(
                    $"/api/guests/{one.Id()}/merge",
                    new
                    {
                        other = one.Id(),
                        version = 1,
                        otherVersion = 1,
                        take = Array.Empty<string>(),
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["other"]);
        (await ada.GuestsAsync()).Names().Count.ShouldBe(2);
    }

    [Fact]
    public async Task A_note_is_changed_by_who_wrote_it_and_deleted_by_an_owner_too()
    {
        var ada = await world.SignUpAsync();
        var bo = await new Scene(world, ada).JoinAsync(isHost: true);
        var guest = (await ada.AddGuestAsync(Form("Ottilie"))).Id();
        var his = (
            await (await bo.PostAsync($"/api/guests/{guest}/notes", new { text = "Rings." })).ReadAsync(
                HttpStatusCode.OK
            )
        ).Id();
        var hers = (
            await (await ada.PostAsync($"/api/guests/{guest}/notes", new { text = "Writes." })).ReadAsync(
                HttpStatusCode.OK
            )
        ).Id();
        (await bo.PutAsync($"/api/guests/{guest}/notes/{hers}", new { text = "No." })).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        (await bo.DeleteAsync($"/api/guests/{guest}/notes/{hers}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await bo.PutAsync($"/api/guests/{guest}/notes/{his}", new { text = "Rings late." })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ada.HistoryAsync(guest)).Single(row => row.Text("by") == "Bo Keel").Text("text").ShouldBe("Rings late.");
        (await ada.DeleteAsync($"/api/guests/{guest}/notes/{his}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await (await ada.PostAsync($"/api/guests/{guest}/notes", new { text = " " })).FaultsAsync()).Keys.ShouldBe([
            "text",
        ]);
    }

    [Fact]
    public async Task Fields_are_checked_kept_by_id_and_taken_away_with_their_values()
    {
        var ada = await world.SignUpAsync();
        var fields = await FieldsAsync(ada, ("Boat", "text", []), ("Rig", "choice", ["Ketch"]));
        await ada.AddGuestAsync(Form("Ottilie", fields: fields.ToDictionary(id => id, _ => "Ketch")));
        object Field(Guid? id, string name, string kind, string[] options) =>
            new
            {
                id,
                name,
                kind,
                options,
            };
        (
            await (
                await ada.PutAsync(
                    "/api/guests/fields",
                    new[]
                    {
                        Field(fields[0], "Boat", "number", []),
                        Field(null, "Rig", "choice", []),
                        Field(null, " ", "text", []),
                        Field(null, "rig", "text", []),
                    }
                )
            ).FaultsAsync()
        )
            .Keys.Order()
            .ShouldBe(["fields[0].kind", "fields[1].name", "fields[1].options", "fields[2].name", "fields[3].name"]);
        var left = await (
            await ada.PutAsync("/api/guests/fields", new[] { Field(fields[1], "Rigging", "choice", ["Ketch", "Yawl"]) })
        ).ReadAsync(HttpStatusCode.OK);
        left.EnumerateArray()
            .Select(row => (row.Id(), row.Text("name"), row.GetProperty("filled").GetInt32()))
            .ShouldBe([(fields[1], "Rigging", 1)]);
        (await ada.GuestAsync("Ottilie"))
            .GetProperty("fields")
            .EnumerateObject()
            .Select(field => field.Name)
            .ShouldBe([fields[1].ToString()]);
    }

    [Fact]
    public async Task The_record_says_who_by_the_name_they_have_now()
    {
        var ada = await world.SignUpAsync();
        var guest = await ada.AddGuestAsync(Form("Ottilie Wren"));
        await ChangedAsync(ada, guest, Form("Ottilie Q. Wren"));
        (await ada.GetAsync($"/api/record?subject={guest.Id()}"))
            .EnumerateArray()
            .Select(line => line.Text("what"))
            .ShouldBe(["Changed what is known of Ottilie Q. Wren", "Added Ottilie Q. Wren to the guests"]);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Guests_of_who_leaves_are_the_heirs_or_nobodys(bool hasHeir)
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        await scene.Owner.AddGuestAsync(Form("Ottilie Wren", keeper: bo.PersonId));
        (
            await scene.Owner.PostAsync(
                $"/api/people/{bo.PersonId}/leave",
                new { toHostId = hasHeir ? scene.Owner.HostId : (Guid?)null }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await scene.Owner.GuestAsync("Ottilie Wren")).Text("keeperName").ShouldBe(hasHeir ? "Ada Wharf" : "");
    }

    private static async Task<JsonElement> ChangedAsync(Coordinator who, JsonElement guest, object form) =>
        await (
            await who.PutAsync(
                $"/api/guests/{guest.Id()}",
                new { version = guest.GetProperty("version").GetInt32(), form }
            )
        ).ReadAsync(HttpStatusCode.OK);

    private static async Task<JsonElement> ByEmailAsync(Coordinator who, string email) =>
        await who.GetAsync(
            $"/api/guests/{(await who.GuestsAsync(new { search = email })).GetProperty("rows")[0].Id()}"
        );

    private static async Task<Guid[]> FieldsAsync(
        Coordinator who,
        params (string Name, string Kind, string[] Options)[] fields
    ) => [.. (
                await (
                    await who.PutAsync(
                        "/api/guests/fields",
                        fields.Select(field => new
                        {
                            id = (Guid?)null,
                            name = field.Name,
                            kind = field.Kind,
                            options = field.Options,
                        })
                    )
                ).ReadAsync(HttpStatusCode.OK)
            ).EnumerateArray().Select(row => row.Id())];
}
