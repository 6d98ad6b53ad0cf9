using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using static Server.Tests.GroupScene;

namespace Server.Tests;

/// <summary>A group session is one thing for the team: one row, one screen, moved or cancelled as a whole.</summary>
public sealed class SessionTests(World world)
{
    [Fact]
    public async Task A_session_is_one_appointment_of_the_list_with_its_people_together()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren");
        await scene.BookAsync("Prosper Dunn", at: Ten);
        await scene.BookAsync("Osric Pell", party: 2);

        var list = await scene.Ada.GetAsync("/api/bookings");
        list.GetProperty("total").GetInt32().ShouldBe(2);
        list.GetProperty("rows")
            .EnumerateArray()
            .Select(row => row.GetProperty("guestName").GetString())
            .ShouldBe(["Ottilie Wren", "Osric Pell", "Prosper Dunn"]);
        var first = await scene.Ada.GetAsync("/api/bookings?take=1");
        first.GetProperty("rows").EnumerateArray().Select(row => row.GetProperty("party").GetInt32()).ShouldBe([1, 2]);
        var second = await scene.Ada.GetAsync($"/api/bookings?take=1&after={first.GetProperty("after").GetString()}");
        second.GetProperty("rows").EnumerateArray().ShouldHaveSingleItem();
        // Who looks for somebody gets them alone.
        (await scene.Ada.GetAsync("/api/bookings?search=osric"))
            .GetProperty("rows")
            .EnumerateArray()
            .ShouldHaveSingleItem();
    }

    [Fact]
    public async Task Its_screen_has_everybody_the_count_and_the_answers_and_so_has_the_table()
    {
        var scene = await MakeAsync(world, change: draft =>
            draft.Questions = [new Question("boat", QuestionKind.Short, "Which boat?", "", IsNeeded: false, [], "")]
        );
        await BookAsync(scene, "Ottilie Wren", "=1+1");
        await BookAsync(scene, "Osric Pell", "The \"Larkspur\", red");
        var id = await scene.SessionAsync();

        var session = await scene.Ada.GetAsync($"/api/sessions/{id}");
        (session.GetProperty("coming").GetInt32(), session.GetProperty("places").GetInt32()).ShouldBe((2, 4));
        session.GetProperty("questions")[0].GetString().ShouldBe("Which boat?");
        session.GetProperty("guests")[1].GetProperty("answers")[0].GetString().ShouldBe("The \"Larkspur\", red");

        var file = await scene.Ada.Http.GetAsync($"/api/sessions/{id}/guests.csv");
        file.Content.Headers.ContentType!.MediaType.ShouldBe("text/csv");
        var lines = (await file.Content.ReadAsStringAsync()).Split("\r\n");
        lines[0].TrimStart('\uFEFF').ShouldBe("Guest,Email,People,Brings,Booked by,Their email,Booked at,Which boat?");
        // No program takes what a guest typed for a formula.
        lines[1].ShouldEndWith(",\"'=1+1\"");
        lines[2].ShouldEndWith(",\"The \"\"Larkspur\"\", red\"");
        var stranger = await world.SignUpAsync();
        (await stranger.Http.GetAsync($"/api/sessions/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task It_is_cancelled_as_a_whole_and_each_guest_is_told_and_the_team_once()
    {
        var scene = await MakeAsync(world);
        var path = await scene.BookAsync("Ottilie Wren");
        await scene.BookAsync("Osric Pell");
        var id = await scene.SessionAsync();

        (
            await scene.Ada.PostAsync($"/api/sessions/{id}/cancel", new { word = "The hall is flooded." })
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        var told = await scene.MessagesAsync(MessageKind.CancelledForGuest);
        told.Select(mail => mail.ToEmail).ShouldBe(["osric@harbour.example", "ottilie@harbour.example"]);
        told.ShouldAllBe(mail =>
            mail.Text.Contains("The hall is flooded.") && mail.Text.Contains($"/{scene.Ada.Desk}/{scene.Page}")
        );
        (await scene.MessagesAsync(MessageKind.CancelledForHost))
            .ShouldHaveSingleItem()
            .Subject.ShouldStartWith("Cancelled: Ottilie Wren, Osric Pell, Talk");
        (await world.Guest().GetFromJsonAsync<JsonElement>(path))
            .GetProperty("cancelledAt")
            .ValueKind.ShouldBe(JsonValueKind.String);
        (await scene.OpenAsync())[0].ShouldBe((Nine, 4));
        // A second press tells nobody anything.
        (await scene.Ada.PostAsync($"/api/sessions/{id}/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await scene.MessagesAsync(MessageKind.CancelledForGuest)).Count.ShouldBe(2);
    }

    [Fact]
    public async Task It_moves_as_a_whole_to_when_its_hosts_are_free_and_everybody_is_told_once()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren", party: 2);
        await scene.BookAsync("Osric Pell");
        await scene.BookAsync("Prosper Dunn", at: Ten);
        var id = await scene.SessionAsync();

        var open = (await scene.Ada.GetAsync($"/api/sessions/{id}/openings?from=2026-12-08&to=2026-12-08"))
            .GetProperty("openings")
            .EnumerateArray()
            .Select(opening => opening.GetProperty("start").GetString())
            .ToList();
        open.ShouldNotContain(Nine);
        open.ShouldNotContain(Ten);
        (await scene.Ada.PostAsync($"/api/sessions/{id}/move", new { start = Ten })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await scene.Ada.PostAsync($"/api/sessions/{id}/move", new { start = open[^1] })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

        (await scene.MessagesAsync(MessageKind.MovedForGuest)).Count.ShouldBe(2);
        (await scene.MessagesAsync(MessageKind.MovedForHost))
            .ShouldHaveSingleItem()
            .Subject.ShouldStartWith("Moved: Ottilie Wren, Osric Pell, Talk");
        (await scene.Ada.GetAsync($"/api/sessions/{id}")).GetProperty("start").GetString().ShouldBe(open[^1]);
    }

    [Fact]
    public async Task Words_go_to_each_guest_alone_and_a_second_press_sends_none()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren");
        await scene.BookAsync("Osric Pell");
        var path = $"/api/sessions/{await scene.SessionAsync()}/words";

        (await (await scene.Ada.PostAsync(path, new { word = " " })).FaultsAsync()).Keys.ShouldBe(["word"]);
        for (var press = 0; press < 2; press++)
            await (await scene.Ada.PostAsync(path, new { word = "Bring <b>boots</b>." }, "press")).ReadAsync(
                HttpStatusCode.OK
            );

        var mails = await scene.MessagesAsync(MessageKind.WordsForGuest);
        mails.Select(mail => mail.ToEmail).ShouldBe(["osric@harbour.example", "ottilie@harbour.example"]);
        mails[0].Text.ShouldContain("Bring <b>boots</b>.");
        mails[0].Html.ShouldContain("Bring &lt;b&gt;boots&lt;/b&gt;.");
        mails[0].Text.ShouldNotContain("Ottilie");
        mails[0].Subject.ShouldStartWith("About Talk, ");
    }

    [Fact]
    public async Task Its_host_is_reminded_once_with_everybodys_names()
    {
        var scene = await MakeAsync(world);
        await scene.BookAsync("Ottilie Wren");
        await scene.BookAsync("Osric Pell");
        var gone = await scene.BookAsync("Prosper Dunn");
        (await world.Guest().PostAsJsonAsync(gone + "/cancel", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        var reminders = await scene.MessagesAsync(MessageKind.ReminderForHost);
        reminders.Select(mail => mail.DueAt).Distinct().Count().ShouldBe(reminders.Count);
        reminders.ShouldNotBeEmpty();
        reminders.ShouldAllBe(mail => mail.Subject.Contains("Ottilie Wren, Osric Pell, Talk"));
    }

    private async Task BookAsync(GroupScene scene, string name, string boat) =>
        await (
            await world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/desks/{scene.Ada.Desk}/pages/{scene.Page}/bookings",
                    new
                    {
                        start = Nine,
                        duration = 30,
                        zone = "Europe/Dublin",
                        guest = new { name, email = EmailOf(name) },
                        answers = new { boat },
                    }
                )
        ).ReadAsync(HttpStatusCode.Created);
}
