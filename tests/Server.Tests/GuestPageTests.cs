using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;

namespace Server.Tests;

/// <summary>What a page says to guests, and what becomes of what they answer.</summary>
public class GuestPageTests(World world)
{
    private static readonly Question Length = new(
        "length",
        QuestionKind.Number,
        "How long?",
        "",
        IsNeeded: false,
        [],
        ""
    );

    [Fact]
    public async Task A_screened_guest_reads_the_coordinators_words_and_nothing_is_reserved()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            (draft.Questions, draft.Details) = (
                [Length],
                PageDetails.Usual with
                {
                    Screening =
                    [
                        new ScreeningRule(
                            [new ScreenCondition("length", ScreenTest.Over, "24")],
                            All: true,
                            ScreenAct.DontBook,
                            "Please ring the yard.",
                            ""
                        ),
                        new ScreeningRule(
                            [new ScreenCondition("length", ScreenTest.Over, "20")],
                            All: true,
                            ScreenAct.GoElsewhere,
                            "Long ones go there.",
                            "https://yard.example/long"
                        ),
                        new ScreeningRule(
                            [new ScreenCondition("length", ScreenTest.Over, "15")],
                            All: true,
                            ScreenAct.Flag,
                            "Bring the long ladder.",
                            ""
                        ),
                    ],
                }
            )
        );

        var stopped = await (await BookAsync(ada, page, "25")).ReadAsync(HttpStatusCode.UnprocessableEntity);
        (
            stopped.GetProperty("type").GetString(),
            stopped.GetProperty("detail").GetString(),
            stopped.GetProperty("goTo").ValueKind
        ).ShouldBe(("urn:loose-lantern:screened", "Please ring the yard.", JsonValueKind.Null));
        (await (await BookAsync(ada, page, "21")).ReadAsync(HttpStatusCode.UnprocessableEntity))
            .GetProperty("goTo")
            .GetString()
            .ShouldBe("https://yard.example/long");
        (await ada.GetAsync("/api/bookings")).GetProperty("rows").GetArrayLength().ShouldBe(0);

        async Task<IEnumerable<string?>> FlagsAsync() =>
            (await ada.GetAsync("/api/bookings"))
                .GetProperty("rows")[0]
                .GetProperty("flags")
                .EnumerateArray()
                .Select(flag => flag.GetString());
        var booked = await (await BookAsync(ada, page, "16")).ReadAsync(HttpStatusCode.Created);
        (await FlagsAsync()).ShouldBe(["Bring the long ladder."]);
        // What the team reads keeps to the answers; what is reserved stays reserved.
        foreach (var (length, flags) in new[] { ("12", Array.Empty<string>()), ("30", ["Bring the long ladder."]) })
        {
            var path =
                "/api/public"
                + booked.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/", StringComparison.Ordinal);
            (
                await world.Guest().PutAsJsonAsync(path + "/answers", new { answers = new { length } })
            ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
            (await FlagsAsync()).ShouldBe(flags);
        }
    }

    [Fact]
    public async Task Markdown_is_shown_and_nothing_in_it_runs()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            draft.Description =
                "# Bring\n\n- **boots** <script>alert(1)</script>\n- [a map](https://yard.example) [x](javascript:alert(1)) <img src=x onerror=alert(1)>"
        );
        var html = (await GuestAsync(ada, page)).GetProperty("description").GetString()!;
        html.ShouldContain("<strong>boots</strong>");
        html.ShouldContain("""<a href="https://yard.example" target="_blank" rel="noopener nofollow">a map</a>""");
        html.ShouldNotContain("<script");
        html.ShouldNotContain("<img");
        html.ShouldNotContain("href=\"javascript");
        html.ShouldNotContain("<h1");
    }

    [Fact]
    public async Task Words_for_afterwards_are_told_to_nobody_before()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            draft.Details = PageDetails.Usual with
            {
                After = new Afterwards("The gate’s code is *4711*.", "https://yard.example/after", OffersAnother: true),
                Place = new PlaceDetail("Over the bridge.", HostsRing: true),
            }
        );
        (await GuestAsync(ada, page)).GetRawText().ShouldNotContain("4711");

        var booked = await (await BookAsync(ada, page)).ReadAsync(HttpStatusCode.Created);
        booked.GetProperty("goTo").GetString().ShouldBe("https://yard.example/after");
        var booking = await world
            .Guest()
            .GetFromJsonAsync<JsonElement>(
                "/api/public"
                    + booked
                        .GetProperty("path")
                        .GetString()!
                        .Replace("/booking/", "/bookings/", StringComparison.Ordinal)
            );
        booking.GetProperty("words").GetString().ShouldBe("<p>The gate’s code is <em>4711</em>.</p>");
        booking.GetProperty("directions").GetString().ShouldBe("<p>Over the bridge.</p>");
        booking.GetProperty("offersAnother").GetBoolean().ShouldBeTrue();
    }

    [Fact]
    public async Task Nobody_is_sent_on_who_gets_no_mail()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            (draft.Post, draft.Details) = (
                PagePost.Usual with
                {
                    ToGuests = GuestMail.None,
                },
                PageDetails.Usual with
                {
                    After = new Afterwards("", "https://yard.example/after", false),
                }
            )
        );
        (await (await BookAsync(ada, page)).ReadAsync(HttpStatusCode.Created))
            .GetProperty("goTo")
            .ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task Hosts_who_ring_are_given_a_number()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.PlaceKind = "phone");
        (await (await BookAsync(ada, page)).FaultsAsync()).Keys.ShouldBe([$"answers.{GuestQuestions.Number}"]);
        var wish = Wish(answers: new Dictionary<string, string> { [GuestQuestions.Number] = "+45 55 01 02 03" });
        (
            await world.Guest().PostAsJsonAsync($"/api/public/desks/{ada.Desk}/pages/{page}/bookings", wish)
        ).StatusCode.ShouldBe(HttpStatusCode.Created);

        var rung = await ada.PublishAsync(draft =>
            (draft.PlaceKind, draft.Details) = (
                "phone",
                PageDetails.Usual with
                {
                    Place = new PlaceDetail("", HostsRing: false),
                }
            )
        );
        (await GuestAsync(ada, rung)).GetProperty("questions").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Who_else_is_coming_is_brought_along_and_invited()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            draft.Questions = [
                new Question("who", QuestionKind.Others, "Who else is coming?", "", IsNeeded: false, [], ""),
            ]
        );
        Task<HttpResponseMessage> AskAsync(string who) =>
            world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                    Wish(answers: new() { ["who"] = who })
                );
        (await (await AskAsync("nils\nada@wren.example")).FaultsAsync()).Keys.ShouldBe(["answers.who"]);
        (await (await AskAsync("a@b.example\nc@d.example\ne@f.example\ng@h.example")).FaultsAsync())["answers.who"]
            .ShouldBe("Bring 3 people along at the most.");

        var booked = await (await AskAsync("nils@aft.example\nOTTILIE@wren.example\nNils@aft.example")).ReadAsync(
            HttpStatusCode.Created
        );
        var api =
            "/api/public"
            + booked.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/", StringComparison.Ordinal);
        var booking = await world.Guest().GetFromJsonAsync<JsonElement>(api);
        booking
            .GetProperty("companions")
            .EnumerateArray()
            .Select(one => one.GetProperty("email").GetString())
            .ShouldBe(["nils@aft.example"]);
        booking.GetProperty("questions").GetArrayLength().ShouldBe(0);
        (await ada.GetAsync("/api/post"))
            .GetProperty("rows")
            .EnumerateArray()
            .Select(row => row.GetProperty("kind").GetString())
            .ShouldContain("bookedForCompanion");
    }

    [Fact]
    public async Task A_number_to_ring_can_be_changed_later_like_any_answer()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.PlaceKind = "phone");
        var booked = await (
            await world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                    Wish(answers: new() { [GuestQuestions.Number] = "+45 55 01 02 03" })
                )
        ).ReadAsync(HttpStatusCode.Created);
        var api =
            "/api/public"
            + booked.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/", StringComparison.Ordinal);
        (
            await world
                .Guest()
                .PutAsJsonAsync(
                    api + "/answers",
                    new { answers = new Dictionary<string, string> { [GuestQuestions.Number] = "+45 55 99 99 99" } }
                )
        ).IsSuccessStatusCode.ShouldBeTrue();
        (await world.Guest().GetFromJsonAsync<JsonElement>(api))
            .GetProperty("answers")[0]
            .GetProperty("text")
            .GetString()
            .ShouldBe("+45 55 99 99 99");
    }

    [Fact]
    public async Task A_page_that_does_not_tell_names_nobody()
    {
        var ada = await world.SignUpAsync();
        var shown = await GuestAsync(ada, await ada.PublishAsync());
        shown.GetProperty("hosts")[0].GetProperty("name").GetString().ShouldBe("Ada Wharf");
        var quiet = await GuestAsync(
            ada,
            await ada.PublishAsync(draft =>
                draft.Details = PageDetails.Usual with { Face = PageDetails.Usual.Face with { ShowsHosts = false } }
            )
        );
        quiet.GetRawText().ShouldNotContain("Ada Wharf");
    }

    [Fact]
    public async Task Portraits_are_shown_only_where_the_page_shows_its_hosts()
    {
        var ada = await world.SignUpAsync();
        var png = DeskTests.Png(64, 64);
        (await ada.UploadAsync(HttpMethod.Put, "/api/me/portrait", png)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var page = await ada.PublishAsync();
        var portrait = (await GuestAsync(ada, page)).GetProperty("hosts")[0].GetProperty("portrait").GetString()!;
        (await world.Guest().GetAsync(portrait)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var quiet = await ada.PublishAsync(draft =>
            draft.Details = PageDetails.Usual with { Face = PageDetails.Usual.Face with { ShowsHosts = false } }
        );
        (await world.Guest().GetAsync(portrait.Replace(page, quiet, StringComparison.Ordinal))).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    [Fact]
    public async Task A_page_offers_from_one_date_to_another_or_without_an_end()
    {
        var ada = await world.SignUpAsync();
        var dated = await ada.PublishAsync(draft =>
            draft.Window = new PageWindow(WindowKind.Dates, new LocalDate(2026, 12, 9), new LocalDate(2026, 12, 10))
        );
        var shown = await GuestAsync(ada, dated);
        (shown.GetProperty("firstDate").GetString(), shown.GetProperty("lastDate").GetString()).ShouldBe(
            ("2026-12-09", "2026-12-10")
        );
        (await OpeningsAsync(ada, dated, "2026-12-07", "2026-12-20")).ShouldBe(12);
        var over = await GuestAsync(
            ada,
            await ada.PublishAsync(draft =>
                draft.Window = new PageWindow(WindowKind.Dates, new LocalDate(2026, 11, 1), new LocalDate(2026, 11, 9))
            )
        );
        (over.GetProperty("firstDate").GetString(), over.GetProperty("lastDate").GetString()).ShouldBe(
            ("2026-12-07", "2026-12-07")
        );
        var open = await ada.PublishAsync(draft => draft.Window = new PageWindow(WindowKind.Open, null, null));
        (await OpeningsAsync(ada, open, "2027-11-01", "2027-11-01")).ShouldBe(6);
    }

    [Fact]
    public async Task One_guest_has_no_more_bookings_to_come_than_the_page_lets()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Details = PageDetails.Usual with { MostOpen = 2 });
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 5)
                .Select(i =>
                    BookAsync(
                        ada,
                        page,
                        start: $"2026-12-{(i < 4 ? 8 + i : 14):00}T08:00:00Z",
                        email: i % 2 == 0 ? "o@wren.example" : "O@Wren.example"
                    )
                )
        );
        answers.Count(answer => answer.StatusCode == HttpStatusCode.Created).ShouldBe(2);
        foreach (var refused in answers.Where(answer => answer.StatusCode != HttpStatusCode.Created))
            (await refused.ReadAsync(HttpStatusCode.UnprocessableEntity))
                .GetProperty("type")
                .GetString()
                .ShouldBe("urn:loose-lantern:most-open");
        (await BookAsync(ada, page, start: "2026-12-15T08:00:00Z", email: "another@wren.example")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
    }

    [Fact]
    public async Task Who_asks_too_much_from_one_address_waits()
    {
        await using var database = await TestDatabase.CreateAsync();
        await using var app = new LanternApp(database.ConnectionString, new NodaTime.Testing.FakeClock(World.Now))
        {
            Limits = (5, 2),
        };
        var guest = app.CreateClient();
        var reads = new List<HttpStatusCode>();
        for (var i = 0; i < 7; i++)
            reads.Add((await guest.GetAsync("/api/public/desks/nobody/pages/nothing")).StatusCode);
        reads.ShouldBe([
            .. Enumerable.Repeat(HttpStatusCode.NotFound, 5),
            .. Enumerable.Repeat(HttpStatusCode.TooManyRequests, 2),
        ]);
        for (var i = 0; i < 2; i++)
            (
                await guest.PostAsJsonAsync("/api/public/desks/nobody/pages/nothing/bookings", Wish())
            ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var refused = await guest.PostAsJsonAsync("/api/public/desks/nobody/pages/nothing/bookings", Wish());
        (await refused.ReadAsync(HttpStatusCode.TooManyRequests))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:too-many");
        refused.Headers.RetryAfter.ShouldNotBeNull();
        // What is no guest's route goes on.
        (await guest.GetAsync("/health/live")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private static object Wish(
        string start = "2026-12-08T08:00:00Z",
        string email = "ottilie@wren.example",
        Dictionary<string, string>? answers = null
    ) =>
        new
        {
            start,
            duration = 30,
            zone = "Europe/Copenhagen",
            guest = new { name = "Ottilie Wren", email },
            answers = answers ?? [],
        };

    private Task<HttpResponseMessage> BookAsync(
        Coordinator ada,
        string page,
        string? length = null,
        string start = "2026-12-08T08:00:00Z",
        string email = "ottilie@wren.example"
    ) =>
        world
            .Guest()
            .PostAsJsonAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                Wish(start, email, length is null ? null : new() { ["length"] = length })
            );

    private Task<JsonElement> GuestAsync(Coordinator ada, string page) =>
        world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{page}");

    private async Task<int> OpeningsAsync(Coordinator ada, string page, string from, string to) =>
        (
            await world
                .Guest()
                .GetFromJsonAsync<JsonElement>(
                    $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from={from}&to={to}"
                )
        )
            .GetProperty("openings")
            .GetArrayLength();
}
