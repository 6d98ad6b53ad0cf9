using System.Text;

namespace Server.Tests;

/// <summary>
/// Named hours: made, changed with what that does to pages, kept from being overwritten, and as files.
/// </summary>
public class HoursTests(World world)
{
    [Fact]
    public async Task A_change_says_what_it_does_to_each_page_before_and_after()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync(page =>
        {
            page.HoursMode = "hosts";
            page.Title = "Hull survey";
            page.AheadDays = 60;
        });
        await ada.PublishAsync(page =>
        {
            page.Title = "By its own hours";
            page.AheadDays = 60;
        });
        var hours = await OwnAsync(ada);
        hours.GetProperty("hosts")[0].GetProperty("name").GetString().ShouldBe("Ada Wharf");
        hours.GetProperty("pages").EnumerateArray().Select(page => page.GetString()).ShouldBe(["Hull survey"]);

        // 9 to 12 and 13 to 17 in half hours are 14 starts a day; without the afternoon of a Wednesday, twice within
        // four weeks, 8 are gone each time.
        object[] morning = [new { from = "09:00", to = "12:00" }];
        object[] whole = [.. morning, new { from = "13:00", to = "17:00" }];
        var document = Scene.Document(
            whole,
            [
                new
                {
                    from = "2026-12-09",
                    to = "2026-12-16",
                    open = morning,
                    name = "Stocktaking",
                    weekdays = new[] { "wed" },
                },
            ]
        );
        var tried = await (await ada.PostAsync($"/api/hours/{Id(hours)}/effects", new { document })).ReadAsync(
            HttpStatusCode.OK
        );
        tried.GetArrayLength().ShouldBe(1);
        Effect(tried[0]).ShouldBe(("Hull survey", 280, 264, 0, 16));
        (await OwnAsync(ada)).GetProperty("version").GetInt32().ShouldBe(1);

        var saved = await (
            await ada.PutAsync($"/api/hours/{Id(hours)}", new { version = 1, form = new { name = "Usual", document } })
        ).ReadAsync(HttpStatusCode.OK);
        Effect(saved.GetProperty("effects")[0]).ShouldBe(("Hull survey", 280, 264, 0, 16));
        saved.GetProperty("hours").GetProperty("version").GetInt32().ShouldBe(2);
        (
            await ada.PutAsync($"/api/hours/{Id(hours)}", new { version = 1, form = new { name = "Late", document } })
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await OwnAsync(ada)).GetProperty("name").GetString().ShouldBe("Usual");
    }

    [Fact]
    public async Task Only_the_weekdays_of_a_run_change()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.HoursMode = "hosts");
        var document = Scene.Document(
            changes:
            [
                new
                {
                    from = "2026-12-08",
                    to = "2026-12-20",
                    open = Array.Empty<object>(),
                    weekdays = new[] { "wed", "fri" },
                },
            ]
        );
        await (
            await ada.PutAsync(
                $"/api/hours/{Id(await OwnAsync(ada))}",
                new { version = 1, form = new { name = "Usual", document } }
            )
        ).ReadAsync(HttpStatusCode.OK);

        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-18"))
            .Select(start => start[8..10])
            .Distinct()
            .ShouldBe(["08", "10", "14", "15", "17"]);
    }

    public static TheoryData<string, object> Faults() =>
        new()
        {
            { "name", new { name = " ", document = Scene.Document() } },
            { "document.zone", Scene.Hours("A", zone: "Nowhere/Town") },
            { "document.week.mon[0].to", Scene.Hours("A", [new { from = "12:00", to = "09:00" }]) },
            {
                "document.week.tue[1].from",
                Scene.Hours("A", [new { from = "09:00", to = "12:00" }, new { from = "11:00", to = "13:00" }])
            },
            {
                "document.changes[0].to",
                Scene.Hours(
                    "A",
                    changes:
                    [
                        new
                        {
                            from = "2026-12-09",
                            to = "2026-12-08",
                            open = Array.Empty<object>(),
                        },
                    ]
                )
            },
            {
                "document.changes[0].to",
                Scene.Hours(
                    "A",
                    changes:
                    [
                        new
                        {
                            from = "2026-12-09",
                            to = "2036-12-08",
                            open = Array.Empty<object>(),
                        },
                    ]
                )
            },
            {
                "document.changes[0].open[0].to",
                Scene.Hours(
                    "A",
                    changes:
                    [
                        new
                        {
                            from = "2026-12-09",
                            to = "2026-12-09",
                            open = new[] { new { from = "10:00", to = "10:00" } },
                        },
                    ]
                )
            },
            // No Sunday lies between a Monday and the Wednesday after it.
            {
                "document.changes[0].weekdays",
                Scene.Hours(
                    "A",
                    changes:
                    [
                        new
                        {
                            from = "2026-12-07",
                            to = "2026-12-09",
                            open = Array.Empty<object>(),
                            weekdays = new[] { "sun" },
                        },
                    ]
                )
            },
            {
                "document.changes",
                Scene.Hours(
                    "A",
                    changes:
                    [
                        .. Enumerable.Repeat(
                            new
                            {
                                from = "2026-12-09",
                                to = "2026-12-09",
                                open = Array.Empty<object>(),
                            },
                            501
                        ),
                    ]
                )
            },
        };

    [Theory, MemberData(nameof(Faults), DisableDiscoveryEnumeration = true)]
    public async Task A_bad_field_is_named_and_nothing_is_saved(string field, object form)
    {
        var ada = await world.SignUpAsync();
        (await (await ada.PostAsync("/api/hours", form)).FaultsAsync()).Keys.ShouldContain(field);
        (
            await (await ada.PutAsync($"/api/hours/{Id(await OwnAsync(ada))}", new { version = 1, form })).FaultsAsync()
        ).Keys.ShouldContain(field);
        (await ada.GetAsync("/api/hours")).GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task Hours_that_somebody_has_stay_and_others_go()
    {
        var ada = await world.SignUpAsync();
        var own = Id(await OwnAsync(ada));
        (await (await ada.DeleteAsync($"/api/hours/{own}")).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("title")
            .GetString()!
            .ShouldContain("Ada Wharf");

        var winter = (
            await (await ada.PostAsync("/api/hours", Scene.Hours("Winter"))).ReadAsync(HttpStatusCode.Created)
        )
            .GetProperty("id")
            .GetGuid();
        await ada.PublishAsync(page =>
        {
            page.HoursMode = "hosts";
            page.Title = "Hull survey";
        });
        var did = await (await ada.PutAsync("/api/me/hours", new { hoursId = winter })).ReadAsync(HttpStatusCode.OK);
        // Mornings only: 14 starts a day become 6, on the twenty weekdays of four weeks.
        Effect(did[0]).ShouldBe(("Hull survey", 280, 120, 0, 160));
        (await ada.OwnHostAsync()).GetProperty("hoursId").GetGuid().ShouldBe(winter);
        await (await ada.DeleteAsync($"/api/hours/{own}")).ReadAsync(HttpStatusCode.NoContent);
        (await ada.Http.GetAsync($"/api/hours/{own}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task The_hours_of_a_page_are_not_among_the_named_ones()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync();
        (await ada.GetAsync("/api/hours")).GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task What_is_exported_reads_back_the_same()
    {
        var ada = await world.SignUpAsync();
        var document = Scene.Document(
            [new { from = "08:30", to = "12:00" }, new { from = "20:00", to = "24:00" }],
            [
                new
                {
                    from = "2026-12-24",
                    to = "2026-12-25",
                    open = Array.Empty<object>(),
                    name = "Yule",
                },
                new
                {
                    from = "2026-12-29",
                    to = "2026-12-29",
                    open = new[] { new { from = "10:00", to = "11:00" } },
                },
            ]
        );
        var made = await (await ada.PostAsync("/api/hours", new { name = "Winter", document })).ReadAsync(
            HttpStatusCode.Created
        );

        var file = await ada.Http.GetStringAsync($"/api/hours/{Id(made)}/availability");
        file.ShouldContain("BEGIN:VAVAILABILITY");
        var read = await (
            await ada.UploadAsync(
                HttpMethod.Post,
                "/api/hours/read",
                Encoding.UTF8.GetBytes(file),
                ("zone", "Europe/Dublin")
            )
        ).ReadAsync(HttpStatusCode.OK);
        JsonSerializer
            .Serialize(read.GetProperty("week"))
            .ShouldBe(JsonSerializer.Serialize(made.GetProperty("document").GetProperty("week")));
        read.GetProperty("zone").GetString().ShouldBe("Europe/Copenhagen");
        read.GetProperty("changes")
            .EnumerateArray()
            .Select(change => $"{change.GetProperty("from")}/{change.GetProperty("to")} {change.GetProperty("name")}")
            .ShouldBe(["2026-12-24/2026-12-25 Yule", "2026-12-29/2026-12-29 "]);
    }

    [Fact]
    public async Task Holidays_of_a_file_become_closed_days_and_the_rest_is_counted()
    {
        var ada = await world.SignUpAsync();
        var file =
            "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:y\nSUMMARY:Yule\nDTSTART;VALUE=DATE:20261224\nDTEND;VALUE=DATE:20261227\nEND:VEVENT\n"
            + "BEGIN:VEVENT\nUID:n\nSUMMARY:New year\nDTSTART;VALUE=DATE:20200101\nRRULE:FREQ=YEARLY\nEND:VEVENT\n"
            + "BEGIN:VEVENT\nUID:m\nSUMMARY:Meeting\nDTSTART:20261210T100000Z\nDTEND:20261210T110000Z\nEND:VEVENT\nBEGIN:VEVENT\nUID:b\nSUMMARY:Broken\nEND:VEVENT\nEND:VCALENDAR\n";
        var read = await (
            await ada.UploadAsync(
                HttpMethod.Post,
                "/api/hours/holidays",
                Encoding.UTF8.GetBytes(file),
                ("zone", "Europe/Copenhagen")
            )
        ).ReadAsync(HttpStatusCode.OK);

        read.GetProperty("changes")
            .EnumerateArray()
            .Select(change => $"{change.GetProperty("name")} {change.GetProperty("from")}/{change.GetProperty("to")}")
            .ShouldBe([
                "Yule 2026-12-24/2026-12-26",
                "New year 2027-01-01/2027-01-01",
                "New year 2028-01-01/2028-01-01",
            ]);
        read.GetProperty("changes")
            .EnumerateArray()
            .ShouldAllBe(change => change.GetProperty("open").GetArrayLength() == 0);
        read.GetProperty("skipped").GetInt32().ShouldBe(2);
    }

    [Theory]
    [InlineData("/api/hours/read", "no calendar at all", "begins with BEGIN:VCALENDAR")]
    [InlineData("/api/hours/read", "BEGIN:VCALENDAR\nEND:VCALENDAR\n", "There is no VAVAILABILITY")]
    [InlineData("/api/hours/holidays", "BEGIN:VCALENDAR\n", "The file ends before this VCALENDAR does")]
    public async Task A_file_that_cannot_be_read_is_refused_with_what_and_where(string path, string text, string fault)
    {
        var ada = await world.SignUpAsync();
        (
            await (
                await ada.UploadAsync(
                    HttpMethod.Post,
                    path,
                    Encoding.UTF8.GetBytes(text),
                    ("zone", "Europe/Copenhagen")
                )
            ).FaultsAsync()
        )["file"]
            .ShouldContain(fault);
    }

    [Fact]
    public async Task A_page_follows_a_named_set_whose_changes_count_on_it_and_leaves_the_set_as_it_is()
    {
        var ada = await world.SignUpAsync();
        object[] early = [new { from = "09:00", to = "10:00" }];
        var winter = await (await ada.PostAsync("/api/hours", Scene.Hours("Winter", early))).ReadAsync(
            HttpStatusCode.Created
        );
        (
            await (
                await ada.PostAsync("/api/pages", ada.Draft(draft => draft.HoursOf = Guid.NewGuid()).Form())
            ).FaultsAsync()
        ).Keys.ShouldBe(["times.hoursOf"]);
        var page = await ada.PublishAsync(draft => (draft.Title, draft.HoursOf) = ("Talk", Id(winter)));

        async Task<string> OpenAsync() =>
            string.Join(
                ' ',
                (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).Select(start =>
                    start[11..16]
                )
            );
        (await OpenAsync()).ShouldBe("08:00 08:30");
        object[] later = [new { from = "10:00", to = "11:00" }];
        var saved = await (
            await ada.PutAsync($"/api/hours/{Id(winter)}", new { version = 1, form = Scene.Hours("Winter", later) })
        ).ReadAsync(HttpStatusCode.OK);
        saved.GetProperty("effects")[0].GetProperty("title").GetString().ShouldBe("Talk");
        saved.GetProperty("effects")[0].GetProperty("gained").GetInt32().ShouldBeGreaterThan(0);
        (await OpenAsync()).ShouldBe("09:00 09:30");
        // What pages follow is not taken away under them, and a page that stops leaves it as it is.
        (await ada.DeleteAsync($"/api/hours/{Id(winter)}")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var row = (await ada.PagesAsync())[0];
        var view = await ada.GetAsync($"/api/pages/{row.GetProperty("id").GetGuid()}");
        var form = ada.Draft(draft =>
                (draft.Title, draft.Address) = ("Talk", view.GetProperty("path").GetString()!.Split('/')[^1])
            )
            .Form();
        var kept = await (
            await ada.PutAsync(
                $"/api/pages/{view.GetProperty("id").GetGuid()}",
                new { version = view.GetProperty("version").GetInt32(), form }
            )
        ).ReadAsync(HttpStatusCode.OK);
        await (
            await ada.PostAsync(
                $"/api/pages/{view.GetProperty("id").GetGuid()}/publish",
                new { version = kept.GetProperty("version").GetInt32() }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await OpenAsync()).Split(' ').Length.ShouldBe(6);
        (await ada.GetAsync($"/api/hours/{Id(winter)}"))
            .GetProperty("document")
            .GetProperty("week")
            .GetProperty("tue")[0]
            .GetProperty("from")
            .GetString()
            .ShouldBe("10:00");
    }

    private static async Task<JsonElement> OwnAsync(Coordinator who) => (await who.GetAsync("/api/hours"))[0];

    private static Guid Id(JsonElement row) => row.GetProperty("id").GetGuid();

    private static (string?, int, int, int, int) Effect(JsonElement effect) =>
        (
            effect.GetProperty("title").GetString(),
            effect.GetProperty("before").GetInt32(),
            effect.GetProperty("after").GetInt32(),
            effect.GetProperty("gained").GetInt32(),
            effect.GetProperty("lost").GetInt32()
        );
}
