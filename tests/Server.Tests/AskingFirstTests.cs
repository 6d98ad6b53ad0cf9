using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using static Server.Tests.LinkDraft;

namespace Server.Tests;

/// <summary>
/// A link whose guest is asked first. Its host is open from 9 to 12 and 13 to 17 in Copenhagen; today is Monday 7
/// December 2026.
/// </summary>
public sealed class AskingFirstTests(World world)
{
    private const string Half = "2026-12-08T08:30:00Z";
    private const string Noon = "2026-12-08T11:00:00Z";

    [Fact]
    public async Task Nothing_of_ours_is_shown_and_no_time_can_be_taken_unasked()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync(draft => draft.By = "asked");
        var guest = world.Guest();

        var asks = (await guest.GetFromJsonAsync<JsonElement>(Of(address))).GetProperty("asks");
        asks.GetProperty("until").GetString().ShouldBe("2026-12-18");
        asks.GetProperty("earliest").GetString().ShouldBe("2026-12-06T23:00:00Z");
        asks.GetProperty("latest").GetString().ShouldBe("2026-12-18T23:00:00Z");
        (await guest.GetFromJsonAsync<JsonElement>(Of(address) + "/openings?from=2026-12-07&to=2026-12-18&duration=30"))
            .GetProperty("openings")
            .GetArrayLength()
            .ShouldBe(0);
        (await (await guest.TakeAsync(address, Nine)).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:asked-first");
    }

    [Fact]
    public async Task What_suits_is_crossed_with_the_line_up_as_it_is_painted()
    {
        var ada = await world.SignUpAsync();
        var (_, address) = await ada.SendLinkAsync(draft => draft.By = "asked");
        async Task<int[]> FitsAsync(params (string, string)[] stretches) =>
            [
                .. (
                    await (
                        await world
                            .Guest()
                            .PostAsJsonAsync(Of(address) + "/suited-times/fits", new { stretches = Shape(stretches) })
                    ).ReadAsync(HttpStatusCode.OK)
                )
                    .GetProperty("counts")
                    .EnumerateArray()
                    .Select(count => count.GetInt32()),
            ];
        // Between 9 and 10:30 three of half an hour begin; the host's midday hour has none.
        (await FitsAsync((Nine, "2026-12-08T09:30:00Z"), (Noon, "2026-12-08T12:00:00Z"))).ShouldBe([3, 0]);
        // What a calendar takes meanwhile fits no more.
        var (_, other) = await ada.SendLinkAsync();
        (await world.Guest().TakeAsync(other, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await FitsAsync((Nine, "2026-12-08T09:30:00Z"))).ShouldBe([2]);
    }

    [Fact]
    public async Task Whoever_sent_it_is_told_and_books_the_best_that_fits_with_one_press()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => draft.By = "asked");

        var answer = await SendAsync(address, [(Half, Ten), ("2026-12-10T08:00:00Z", "2026-12-10T11:00:00Z")]);
        answer.GetProperty("booked").ValueKind.ShouldBe(JsonValueKind.Null);

        var told = (await MessagesAsync(ada)).ShouldHaveSingleItem();
        told.Subject.ShouldBe("Times that suit: Hull survey, Larkspur, Ottilie Wren");
        told.Text.ShouldContain("Tuesday, 8 December");
        told.Text.ShouldContain("Mornings are best.");
        var waiting = (await ada.LinkAsync(id)).GetProperty("row");
        waiting.GetProperty("suits").GetInt32().ShouldBe(1);
        waiting.GetProperty("waitsSince").ValueKind.ShouldBe(JsonValueKind.Null, "it is the guest who waits now");
        var seen = (await ada.GetAsync($"/api/links/{id}/suited-times"))[0];
        seen.GetProperty("guest").GetProperty("name").GetString().ShouldBe("Ottilie Wren");
        var fits = seen.GetProperty("fits").EnumerateArray().ToList();
        fits.Select(fit => fit.GetProperty("start").GetString()).ShouldContain(Half);
        fits.ShouldAllBe(fit => fit.GetProperty("why").GetArrayLength() > 0);

        var best = fits[0].GetProperty("start").GetString();
        await (
            await ada.PostAsync(
                $"/api/links/{id}/bookings",
                new
                {
                    start = best,
                    duration = 30,
                    guests = new[] { new { name = "Ottilie Wren", email = "ottilie@wren-charters.example" } },
                }
            )
        ).ReadAsync(HttpStatusCode.Created);
        var row = (await ada.LinkAsync(id)).GetProperty("row");
        row.GetProperty("state").GetString().ShouldBe("booked");
        row.GetProperty("bookings")[0].GetProperty("start").GetString().ShouldBe(best);
    }

    [Fact]
    public async Task Sent_anew_the_latest_counts_and_the_same_again_tells_nobody_twice()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => draft.By = "asked");
        await SendAsync(address, [(Half, Ten)]);
        await SendAsync(address, [(Half, Ten)]);
        (await MessagesAsync(ada)).Count.ShouldBe(1);
        await SendAsync(address, [(Nine, Half)]);
        (await MessagesAsync(ada)).Count.ShouldBe(2);
        (await ada.GetAsync($"/api/links/{id}/suited-times"))
            .EnumerateArray()
            .ShouldHaveSingleItem()
            .GetProperty("fits")
            .EnumerateArray()
            .Select(fit => fit.GetProperty("start").GetString())
            .ShouldBe([Nine]);
    }

    [Fact]
    public async Task The_best_that_fits_is_booked_by_itself_where_the_link_says_so_and_once_by_one_press()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => (draft.By, draft.BooksByItself) = ("asked", true));
        var booked = (await SendAsync(address, [(Half, "2026-12-08T09:00:00Z")], key: "press")).GetProperty("booked");
        booked.GetProperty("start").GetString().ShouldBe(Half);
        var path = booked.GetProperty("path").GetString()!;
        (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/bookings/{path["/booking/".Length..]}"))
            .GetProperty("guestName")
            .GetString()
            .ShouldBe("Ottilie Wren");
        (await SendAsync(address, [(Half, "2026-12-08T09:00:00Z")], key: "press"))
            .GetProperty("booked")
            .GetProperty("path")
            .GetString()
            .ShouldBe(path);
        var row = (await ada.LinkAsync(id)).GetProperty("row");
        row.GetProperty("bookings").GetArrayLength().ShouldBe(1);
        // The booking tells by itself; nobody has to choose.
        (await MessagesAsync(ada)).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_the_link_asks_is_answered_before_a_time_is_booked_by_itself()
    {
        var ada = await world.SignUpAsync();
        var boat = new Question("boat", QuestionKind.Short, "Which boat?", "", IsNeeded: true, [], "");
        var (id, address) = await ada.SendLinkAsync(draft =>
            (draft.By, draft.BooksByItself, draft.Questions) = ("asked", true, [boat])
        );
        async Task<HttpResponseMessage> AnswerAsync(object answers) =>
            await world
                .Guest()
                .PostAsJsonAsync(
                    Of(address) + "/suited-times",
                    new
                    {
                        stretches = Shape([(Half, Ten)]),
                        zone = "Europe/Dublin",
                        answers,
                    }
                );
        (await (await AnswerAsync(new { })).FaultsAsync()).Keys.ShouldBe(["answers.boat"]);
        (await ada.GetAsync($"/api/links/{id}/suited-times")).GetArrayLength().ShouldBe(0);
        var booked = await (await AnswerAsync(new { boat = "Larkspur" })).ReadAsync(HttpStatusCode.OK);
        booked.GetProperty("booked").GetProperty("start").GetString().ShouldNotBeNull();
    }

    [Fact]
    public async Task The_length_that_the_guest_chose_is_ranked_and_booked()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => (draft.By, draft.Durations) = ("asked", [30, 60]));
        Task<HttpResponseMessage> LongAsync(string of, int duration) =>
            world
                .Guest()
                .PostAsJsonAsync(
                    Of(of) + "/suited-times",
                    new
                    {
                        stretches = Shape([(Half, "2026-12-08T09:45:00Z")]),
                        zone = "Europe/Dublin",
                        duration,
                    }
                );
        await (await LongAsync(address, 60)).ReadAsync(HttpStatusCode.OK);
        var fit = (await ada.GetAsync($"/api/links/{id}/suited-times"))[0].GetProperty("fits")[0];
        (fit.GetProperty("start").GetString(), fit.GetProperty("end").GetString()).ShouldBe(
            (Half, "2026-12-08T09:30:00Z")
        );
        (await (await LongAsync(address, 45)).FaultsAsync()).Keys.ShouldBe(["duration"]);

        var (_, byItself) = await ada.SendLinkAsync(draft =>
            (draft.By, draft.Durations, draft.BooksByItself) = ("asked", [30, 60], true)
        );
        var booked = (await (await LongAsync(byItself, 60)).ReadAsync(HttpStatusCode.OK)).GetProperty("booked");
        booked.GetProperty("end").GetString().ShouldBe("2026-12-08T09:30:00Z");
    }

    [Fact]
    public async Task Who_has_a_time_of_their_own_already_is_told_and_takes_no_second_one()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft =>
            (draft.By, draft.BooksByItself, draft.Together, draft.Guests) = (
                "asked",
                true,
                false,
                [new("Ottilie Wren", "ottilie@wren-charters.example"), new("Osric Pell", "osric@pell.example")]
            )
        );
        Task<HttpResponseMessage> AsOttilieAsync() =>
            world
                .Guest()
                .PostAsJsonAsync(
                    Of(address) + "/suited-times",
                    new
                    {
                        stretches = Shape([(Half, "2026-12-08T11:00:00Z")]),
                        zone = "Europe/Dublin",
                        guest = 0,
                    }
                );
        await (await AsOttilieAsync()).ReadAsync(HttpStatusCode.OK);
        (await (await AsOttilieAsync()).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:link-yours-taken");
        (await ada.LinkAsync(id)).GetProperty("row").GetProperty("bookings").GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task Where_nothing_fits_nothing_is_booked_and_whoever_sent_it_is_told()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => (draft.By, draft.BooksByItself) = ("asked", true));
        (await SendAsync(address, [(Noon, "2026-12-08T12:00:00Z")]))
            .GetProperty("booked")
            .ValueKind.ShouldBe(JsonValueKind.Null);
        (await MessagesAsync(ada)).Count.ShouldBe(1);
        (await ada.GetAsync($"/api/links/{id}/suited-times"))[0].GetProperty("fits").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_field_that_is_wrong_is_named_and_nothing_is_kept()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync(draft => (draft.By, draft.Guests) = ("asked", []));
        async Task<string[]> FaultsAsync(object body) =>
            [
                .. (
                    await (await world.Guest().PostAsJsonAsync(Of(address) + "/suited-times", body)).ReadAsync(
                        HttpStatusCode.BadRequest
                    )
                )
                    .GetProperty("errors")
                    .EnumerateObject()
                    .SelectMany(field => field.Value.EnumerateArray().Select(mend => $"{field.Name}: {mend}")),
            ];
        (
            await FaultsAsync(
                new
                {
                    stretches = Array.Empty<object>(),
                    zone = "Nowhere",
                    name = "",
                    email = "osric",
                    words = new string('x', 1001),
                }
            )
        ).Select(fault => fault.Split(':')[0]).Order().ShouldBe(["email", "name", "stretches", "words", "zone"]);
        async Task<string> StretchFaultAsync(params (string, string)[] stretches) =>
            (
                await FaultsAsync(
                    new
                    {
                        stretches = Shape(stretches),
                        zone = "Europe/Dublin",
                        name = "Osric Pell",
                        email = "osric@pell.example",
                    }
                )
            ).ShouldHaveSingleItem();
        (await StretchFaultAsync((Ten, Nine))).ShouldContain("end after it begins");
        (await StretchFaultAsync((Nine, Friday))).ShouldContain("within one day");
        (await StretchFaultAsync(("2026-12-20T08:00:00Z", "2026-12-20T09:00:00Z"))).ShouldContain("dates");
        (await StretchFaultAsync([.. Enumerable.Repeat((Nine, Ten), 41)])).ShouldContain("40");
        (await ada.GetAsync($"/api/links/{id}/suited-times")).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_link_that_shows_times_or_is_over_asks_nobody()
    {
        var ada = await world.SignUpAsync();
        var (_, shows) = await ada.SendLinkAsync();
        (await world.Guest().GetFromJsonAsync<JsonElement>(Of(shows)))
            .GetProperty("asks")
            .ValueKind.ShouldBe(JsonValueKind.Null);
        (await PostAsync(shows, [(Nine, Ten)])).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var (id, over) = await ada.SendLinkAsync(draft => draft.By = "asked");
        await (await ada.PostAsync($"/api/links/{id}/revoke", new { })).ReadAsync(HttpStatusCode.OK);
        (await PostAsync(over, [(Nine, Ten)])).StatusCode.ShouldBe(HttpStatusCode.Gone);
    }

    [Fact]
    public async Task Its_mail_asks_and_lists_no_times()
    {
        var ada = await world.SignUpAsync();
        var (id, _) = await ada.SendLinkAsync(draft => draft.By = "asked");
        await (await ada.PostAsync($"/api/links/{id}/mail", new { word = "" })).ReadAsync(HttpStatusCode.OK);
        var mail = (await MessagesAsync(ada, MessageKind.LinkForGuest)).ShouldHaveSingleItem();
        mail.Subject.ShouldBe("Which times suit you? Hull survey, Larkspur");
        mail.Text.ShouldContain("Tell us here:");
        mail.Text.ShouldNotContain("open for you");
        mail.Text.ShouldNotContain("Nothing is open");
    }

    private static string Of(string address) => $"/api/public/links/{address}";

    private static object[] Shape((string From, string To)[] stretches) =>
        [.. stretches.Select(stretch => new { start = stretch.From, end = stretch.To })];

    private Task<HttpResponseMessage> PostAsync(string address, (string, string)[] stretches, string? key = null)
    {
        var guest = world.Guest();
        if (key is not null)
            guest.DefaultRequestHeaders.Add("Idempotency-Key", key);
        return guest.PostAsJsonAsync(
            Of(address) + "/suited-times",
            new
            {
                stretches = Shape(stretches),
                zone = "Europe/Dublin",
                words = "Mornings are best.",
            }
        );
    }

    private async Task<JsonElement> SendAsync(string address, (string, string)[] stretches, string? key = null) =>
        await (await PostAsync(address, stretches, key)).ReadAsync(HttpStatusCode.OK);

    private async Task<List<Message>> MessagesAsync(Coordinator of, MessageKind kind = MessageKind.SuitsForMaker) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(of.Desk), db =>
            db.Messages.AsNoTracking().Where(row => row.Kind == kind).ToListAsync()
        );
}
