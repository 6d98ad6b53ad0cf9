using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>A guest reserves an opening over HTTP.</summary>
public class BookingTests(World world)
{
    [Fact]
    public async Task A_list_goes_out_as_a_table_in_its_order_and_no_cell_is_a_formula()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        await world.Guest().BookAsync(ada.Desk, page, "2026-12-09T08:00:00Z", name: "=HYPERLINK(1)");
        await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z", name: "Bryn, of Ashby");
        var csv = await ada.Http.GetStringAsync("/api/bookings/export.csv");
        var lines = csv.Trim().Split("\r\n");
        lines.Length.ShouldBe(3);
        lines[0].ShouldStartWith("Start,End,Time zone,Starts (UTC),Page,Hosts,Guest,Email,");
        lines[1].ShouldStartWith("2026-12-08 09:00,2026-12-08 09:30,Europe/Copenhagen,2026-12-08T08:00:00Z,Talk,");
        lines[1].ShouldContain("\"Bryn, of Ashby\"");
        lines[2].ShouldNotContain(",=HYPERLINK");
        (await ada.Http.GetStringAsync("/api/bookings/export.csv?search=bryn")).Trim().Split("\r\n").Length.ShouldBe(2);
        (await ada.Http.GetStringAsync("/api/bookings/export.csv?when=past")).Trim().Split("\r\n").Length.ShouldBe(1);
    }

    private const string Nine = "2026-12-08T08:00:00Z";
    private const string HalfPastNine = "2026-12-08T08:30:00Z";

    [Fact]
    public async Task A_reserved_opening_is_gone_and_stands_in_the_list_the_hosts_time_and_the_guests_hand()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var guest = world.Guest();
        (await guest.StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldBe([
            Nine,
            HalfPastNine,
            "2026-12-08T09:00:00Z",
            "2026-12-08T09:30:00Z",
            "2026-12-08T10:00:00Z",
            "2026-12-08T10:30:00Z",
        ]);

        var made = await (await guest.BookAsync(ada.Desk, page, Nine)).ReadAsync(HttpStatusCode.Created);

        (await guest.StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(Nine);
        var row = (await ada.GetAsync("/api/bookings")).GetProperty("rows")[0];
        row.GetProperty("guestName").GetString().ShouldBe("Ottilie Wren");
        row.GetProperty("start").GetString().ShouldBe(Nine);
        var bars = (await ada.GetAsync("/api/board?from=2026-12-08&days=1"))
            .GetProperty("days")[0]
            .GetProperty("lanes")[0]
            .GetProperty("bars");
        bars.EnumerateArray()
            .Single(bar => bar.GetProperty("kind").GetString() == "booked")
            .GetProperty("fromMinute")
            .GetInt32()
            .ShouldBe(9 * 60);

        var link = new Uri(made.GetProperty("link").GetString()!).AbsolutePath;
        link.ShouldBe(made.GetProperty("path").GetString());
        var secret = link.Split('/')[^1];
        var kept = await guest.GetFromJsonAsync<JsonElement>($"/api/public/bookings/{secret}");
        kept.GetProperty("start").GetString().ShouldBe(Nine);
        kept.GetProperty("guestEmail").GetString().ShouldBe("ottilie@wren-charters.example");
    }

    [Fact]
    public async Task The_calendar_file_of_a_booking_is_iCalendar_with_its_time_and_link()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var made = await (await world.Guest().BookAsync(ada.Desk, page, Nine)).ReadAsync(HttpStatusCode.Created);

        var file = await world
            .Guest()
            .GetAsync(
                "/api/public"
                    + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/")
                    + "/calendar.ics"
            );

        file.Content.Headers.ContentType!.MediaType.ShouldBe("text/calendar");
        var text = await file.Content.ReadAsStringAsync();
        text.ShouldStartWith("BEGIN:VCALENDAR\r\n");
        text.ShouldContain("DTSTART:20261208T080000Z");
        text.ShouldContain("DTEND:20261208T083000Z");
        text.Replace("\r\n ", "").ShouldContain("URL:" + made.GetProperty("link").GetString());
    }

    [Fact]
    public async Task Fifty_at_once_for_one_opening_one_gets_it_and_the_others_hear_what_is_left()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 50)
                .Select(i =>
                    world
                        .Guest()
                        .BookAsync(
                            ada.Desk,
                            page,
                            Nine,
                            name: $"Guest {i}",
                            email: $"guest{i}@wren-charters.example",
                            key: $"race-{i}"
                        )
                )
        );

        answers.Count(answer => answer.StatusCode == HttpStatusCode.Created).ShouldBe(1);
        answers.Count(answer => answer.StatusCode == HttpStatusCode.Conflict).ShouldBe(49);
        var lost = await answers
            .First(answer => answer.StatusCode == HttpStatusCode.Conflict)
            .ReadAsync(HttpStatusCode.Conflict);
        lost.GetProperty("nearest")[0].GetProperty("start").GetString().ShouldBe("2026-12-07T10:30:00Z");
        lost.GetProperty("nearest")
            .EnumerateArray()
            .Select(opening => opening.GetProperty("start").GetString())
            .ShouldContain(HalfPastNine);
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (await world.WithinAsync(workspace, db => db.Bookings.CountAsync())).ShouldBe(1);
        (await world.WithinAsync(workspace, db => db.Commitments.CountAsync())).ShouldBe(1);
        (
            await world.WithinAsync(workspace, db =>
                db.Messages.CountAsync(row =>
                    row.Kind != MessageKind.ReminderForGuest && row.Kind != MessageKind.ReminderForHost
                )
            )
        ).ShouldBe(2);
    }

    [Fact]
    public async Task Fifty_at_once_for_two_pages_of_one_host_never_book_the_host_twice()
    {
        var ada = await world.SignUpAsync();
        var pages = new[] { await ada.PublishAsync(), await ada.PublishAsync(draft => draft.Step = 15) };

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 50)
                .Select(i =>
                    world
                        .Guest()
                        .BookAsync(
                            ada.Desk,
                            pages[i % 2],
                            i % 4 < 2 ? Nine : HalfPastNine,
                            email: $"guest{i}@wren-charters.example"
                        )
                )
        );

        answers
            .Select(answer => answer.StatusCode)
            .Distinct()
            .Order()
            .ShouldBe([HttpStatusCode.Created, HttpStatusCode.Conflict]);
        answers.Count(answer => answer.StatusCode == HttpStatusCode.Created).ShouldBe(2);
    }

    [Fact]
    public async Task The_same_key_answers_with_the_same_booking_also_when_both_come_at_once()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();

        var answers = await Task.WhenAll(
            Enumerable.Range(0, 8).Select(_ => world.Guest().BookAsync(ada.Desk, page, Nine, key: "one-and-the-same"))
        );

        var links = new HashSet<string?>();
        foreach (var answer in answers)
            links.Add((await answer.ReadAsync(HttpStatusCode.Created)).GetProperty("link").GetString());
        links.Count.ShouldBe(1);
        (await ada.GetAsync("/api/bookings")).GetProperty("total").GetInt32().ShouldBe(1);
    }

    [Fact]
    public async Task What_only_the_constraint_finds_is_told_as_a_time_that_is_gone_and_nothing_is_written()
    {
        var (ada, eve) = (await world.SignUpAsync(), await world.SignUpAsync());
        var page = await ada.PublishAsync();
        // Of another workspace, so that nobody here sees it.
        await using (var connection = new Npgsql.NpgsqlConnection(world.ConnectionString))
        {
            await connection.OpenAsync();
            await using var taken = new Npgsql.NpgsqlCommand(
                """
                INSERT INTO commitments (id, workspace_id, host_id, holder_id, kind, span, buffer_before, buffer_after)
                SELECT gen_random_uuid(), h.workspace_id, $1, gen_random_uuid(), 'Booking', tstzrange($3, $3 + interval '30 min'), 0, 0
                FROM hosts h WHERE h.id = $2
                """,
                connection
            )
            {
                Parameters =
                {
                    new() { Value = ada.HostId },
                    new() { Value = eve.HostId },
                    new() { Value = DateTimeOffset.Parse(Nine, null).UtcDateTime },
                },
            };
            (await taken.ExecuteNonQueryAsync()).ShouldBe(1);
        }

        var refused = await world.Guest().BookAsync(ada.Desk, page, Nine);
        (await refused.ReadAsync(HttpStatusCode.Conflict)).GetProperty("nearest").GetArrayLength().ShouldBePositive();
        (await ada.GetAsync("/api/bookings")).GetRawText().ShouldNotContain("Kofi");
        (await world.Guest().BookAsync(ada.Desk, page, HalfPastNine)).StatusCode.ShouldBe(HttpStatusCode.Created);
    }

    [Fact]
    public async Task A_key_used_for_another_booking_is_refused()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, page, Nine, key: "mine")).StatusCode.ShouldBe(HttpStatusCode.Created);

        var other = await world.Guest().BookAsync(ada.Desk, page, HalfPastNine, key: "mine");

        (await other.ReadAsync(HttpStatusCode.UnprocessableEntity))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:key-used");
    }

    [Theory]
    [InlineData("2026-12-08T08:10:00Z")] // off the grid
    [InlineData("2026-12-08T11:00:00Z")] // after hours
    [InlineData("2026-12-07T06:00:00Z")] // past
    [InlineData("2027-03-01T08:00:00Z")] // beyond the window
    public async Task A_time_that_is_no_opening_is_refused_and_nothing_is_written(string start)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();

        (await world.Guest().BookAsync(ada.Desk, page, start)).StatusCode.ShouldBe(HttpStatusCode.Conflict);

        (await ada.GetAsync("/api/bookings")).GetProperty("total").GetInt32().ShouldBe(0);
        (await ada.GetAsync("/api/bookings?when=past")).GetProperty("total").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task Buffers_of_both_sides_are_kept_around_a_booking()
    {
        var ada = await world.SignUpAsync();
        var wide = await ada.PublishAsync(draft =>
        {
            draft.BufferBefore = 20;
            draft.BufferAfter = 40;
        });
        var plain = await ada.PublishAsync();
        (await world.Guest().BookAsync(ada.Desk, wide, "2026-12-08T09:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );

        // 10:00 to 10:30 local is taken; 20 before and 40 after are kept free whichever page asks.
        (await world.Guest().StartsAsync(ada.Desk, plain, "2026-12-08", "2026-12-08")).ShouldBe([
            Nine,
            "2026-12-08T10:30:00Z",
        ]);
    }

    [Theory]
    [InlineData("guest.email", "not an address")]
    [InlineData("guest.email", "two@a.example, three@b.example")]
    [InlineData("guest.email", "line\nbreak@a.example")]
    [InlineData("guest.name", "  ")]
    [InlineData("guest.name", "Ottilie\r\nBcc: all@a.example")]
    public async Task A_bad_field_is_named_with_its_mend(string field, string value)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();

        var answer =
            field == "guest.name"
                ? await world.Guest().BookAsync(ada.Desk, page, Nine, name: value)
                : await world.Guest().BookAsync(ada.Desk, page, Nine, email: value);

        (await answer.FaultsAsync()).Keys.ShouldBe([field]);
    }

    [Fact]
    public async Task Every_fault_is_named_at_once()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var answer = await world
            .Guest()
            .PostAsJsonAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new
                {
                    start = Nine,
                    duration = 30,
                    zone = "Mars/Base",
                    guest = new { name = "", email = "x" },
                    answers = new { colour = "red" },
                }
            );
        (await answer.FaultsAsync()).Keys.Order().ShouldBe(["answers.colour", "guest.email", "guest.name", "zone"]);
    }

    [Theory]
    [InlineData(
        "{\"start\":\"tomorrow\",\"duration\":30,\"zone\":\"UTC\",\"guest\":{\"name\":\"A\",\"email\":\"a@b.example\"}}",
        "start"
    )]
    [InlineData(
        "{\"start\":\"2026-12-08T08:00:00Z\",\"duration\":\"30\",\"zone\":\"UTC\",\"guest\":{\"name\":\"A\",\"email\":\"a@b.example\"}}",
        "duration"
    )]
    [InlineData(
        "{\"start\":\"2026-12-08T08:00:00Z\",\"duration\":30,\"zone\":\"UTC\",\"guest\":{\"email\":\"a@b.example\"}}",
        "guest.name"
    )]
    [InlineData(
        "{\"start\":\"2026-12-08T08:00:00Z\",\"duration\":30,\"guest\":{\"name\":\"A\",\"email\":\"a@b.example\"}}",
        "zone"
    )]
    [InlineData(
        "{\"start\":\"2026-12-08T08:00:00Z\",\"duration\":30,\"zone\":\"UTC\",\"guest\":{\"name\":null,\"email\":\"a@b.example\"}}",
        "guest.name"
    )]
    public async Task A_value_of_the_wrong_kind_is_named(string body, string field)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var answer = await world
            .Guest()
            .PostAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new StringContent(body, System.Text.Encoding.UTF8, "application/json")
            );
        (await answer.FaultsAsync()).Keys.ShouldBe([field]);
    }

    [Fact]
    public async Task A_duration_that_the_page_does_not_offer_is_refused()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Durations = [30, 60]);
        (await (await world.Guest().BookAsync(ada.Desk, page, Nine, duration: 45)).FaultsAsync())["duration"]
            .ShouldContain("30, 60");
    }

    [Fact]
    public async Task A_guessed_private_link_opens_nothing() =>
        (await world.Guest().GetAsync("/api/public/bookings/AAAAAAAAAAAAAAAAAAAAAAAA")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );

    [Fact]
    public async Task The_secret_of_a_link_is_not_in_the_database()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var made = await (await world.Guest().BookAsync(ada.Desk, page, Nine)).ReadAsync(HttpStatusCode.Created);
        var secret = made.GetProperty("path").GetString()!.Split('/')[^1];
        Convert.FromBase64String(secret.Replace('-', '+').Replace('_', '/')).Length.ShouldBeGreaterThanOrEqualTo(16);

        var rows = await world.LookAsync(db =>
            db.Database.SqlQuery<string>($"SELECT to_jsonb(bookings)::text AS \"Value\" FROM bookings").ToListAsync()
        );
        rows.ShouldNotBeEmpty();
        rows.ShouldAllBe(row => !row.Contains(secret));
    }
}
