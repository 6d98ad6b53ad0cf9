using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>A booking gets another time, by its guest's private link or by the team.</summary>
public sealed class MovingTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private const string HalfPastNine = "2026-12-08T08:30:00Z";
    private const string Ten = "2026-12-08T09:00:00Z";

    [Fact]
    public async Task A_guest_moves_and_one_transaction_frees_the_one_time_and_takes_the_other()
    {
        await using var scene = await MailScene.MakeAsync();
        var page = await scene.Ada.PublishAsync(draft => (draft.Durations, draft.Step) = ([60], 30));
        var made = await (await scene.World.Guest().BookAsync(scene.Ada.Desk, page, Nine, duration: 60)).ReadAsync(
            HttpStatusCode.Created
        );
        var path = "/api/public" + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/");

        // Its own hour is in its own way on the page, and not in its own.
        (await scene.World.Guest().StartsAsync(scene.Ada.Desk, page, "2026-12-08", "2026-12-08", 60)).ShouldNotContain(
            HalfPastNine
        );
        var openings = await scene.SeeAsync(path + "/openings?from=2026-12-08&to=2026-12-08");
        var starts = openings
            .GetProperty("openings")
            .EnumerateArray()
            .Select(opening => opening.GetProperty("start").GetString())
            .ToList();
        starts.ShouldContain(HalfPastNine);
        starts.ShouldNotContain(Nine);

        var invited = await scene.MailAsync(MailScene.Guest, "Talk");
        await (await scene.MoveAsync(path, HalfPastNine)).ReadAsync(HttpStatusCode.NoContent);
        (await scene.SeeAsync(path)).GetProperty("start").GetString().ShouldBe(HalfPastNine);
        (await scene.World.Guest().StartsAsync(scene.Ada.Desk, page, "2026-12-08", "2026-12-08", 60)).ShouldNotContain(
            Nine
        );
        var moved = await scene.MailAsync(MailScene.Guest, "Moved: Talk");
        moved.Method.ShouldBe("REQUEST");
        MailScene.Property(moved.Calendar!, "UID").ShouldBe(MailScene.Property(invited.Calendar!, "UID"));
        MailScene.Property(moved.Calendar!, "SEQUENCE").ShouldBe("SEQUENCE:1");
        MailScene.Property(moved.Calendar!, "DTSTART").ShouldBe("DTSTART:20261208T083000Z");
        moved.Text.ShouldContain("Before, it was Tuesday, 8 December, 09:00–10:00 (08:00–09:00 Dublin)");
        (await scene.MailAsync(scene.AdasAddress, "Moved: Ottilie Wren")).Text.ShouldContain("09:30–10:30");
        var session = await scene.World.LookAsync(db => db.Sessions.IgnoreQueryFilters().SingleAsync());
        (await scene.World.LookAsync(db => db.Commitments.IgnoreQueryFilters().SingleAsync())).Span.ShouldBe(
            session.Time
        );
        // Asked again after a lost answer, it is where it is, and nobody is told twice.
        await (await scene.MoveAsync(path, HalfPastNine)).ReadAsync(HttpStatusCode.NoContent);
        (await scene.MessagesAsync(MessageKind.MovedForGuest)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_time_that_is_taken_is_refused_with_the_nearest_and_the_booking_stays()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var path = await BookAsync(ada, page, Nine);
        await BookAsync(ada, page, Ten);
        var gone = await (await MoveAsync(path, Ten)).ReadAsync(HttpStatusCode.Conflict);
        gone.GetProperty("nearest")
            .EnumerateArray()
            .Select(near => near.GetProperty("start").GetString())
            .ShouldContain(HalfPastNine);
        (await SeeAsync(path)).GetProperty("start").GetString().ShouldBe(Nine);
        (await (await MoveAsync(path, "2026-12-08T08:07:00Z")).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:opening-gone");
        (await world.Guest().PostAsJsonAsync(path + "/move", new { start = "soon" })).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (
            await world.Guest().PostAsJsonAsync("/api/public/bookings/nobody-knows/move", new { start = Ten })
        ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Many_who_move_to_one_time_or_book_it_at_once_get_it_once()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Day = [new { from = "09:00", to = "17:00" }]);
        var paths = new List<string>();
        for (var i = 0; i < 8; i++)
            paths.Add(
                await BookAsync(
                    ada,
                    page,
                    Instant.FromUtc(2026, 12, 8, 8, 0).Plus(Duration.FromMinutes(30 * i)).ToString(),
                    $"early{i}@wren.example"
                )
            );
        const string Afternoon = "2026-12-08T14:00:00Z";
        var answers = await Task.WhenAll(
            paths
                .Select(path => MoveAsync(path, Afternoon))
                .Concat(
                    Enumerable
                        .Range(0, 8)
                        .Select(i => world.Guest().BookAsync(ada.Desk, page, Afternoon, email: $"late{i}@wren.example"))
                )
        );
        answers.Count(answer => answer.IsSuccessStatusCode).ShouldBe(1);
        answers.Count(answer => answer.StatusCode == HttpStatusCode.Conflict).ShouldBe(15);
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (
            await world.WithinAsync(workspace, db =>
                db.Sessions.CountAsync(session => session.Time.LowerBound == Instant.FromUtc(2026, 12, 8, 14, 0))
            )
        ).ShouldBe(1);
        (await world.WithinAsync(workspace, db => db.Commitments.CountAsync())).ShouldBe(
            await world.WithinAsync(workspace, db => db.Sessions.CountAsync())
        );
    }

    [Fact]
    public async Task What_a_page_lets_its_guests_do_ends_when_it_says_and_names_whom_to_ask()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            draft.Changes = ChangeRules.Usual with
            {
                MoveUntil = 24 * 60 + 61,
                CancelUntil = 24 * 60 + 61,
                CancelWords = "The slip is paid for all the same.",
                AskWhom = "Ring the yard, 555 0100.",
            }
        );
        var path = await BookAsync(ada, page, Nine);
        var seen = await SeeAsync(path);
        seen.GetProperty("moveUntil").GetString().ShouldBe("2026-12-07T06:59:00Z");
        seen.GetProperty("cancelWords").GetString().ShouldBe("The slip is paid for all the same.");
        var late = await (await MoveAsync(path, Ten)).ReadAsync(HttpStatusCode.Conflict);
        (late.GetProperty("type").GetString(), late.GetProperty("detail").GetString()).ShouldBe(
            ("urn:loose-lantern:too-late", "Ring the yard, 555 0100.")
        );
        (await world.Guest().PostAsJsonAsync(path + "/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await SeeAsync(path)).GetProperty("cancelledAt").ValueKind.ShouldBe(JsonValueKind.Null);
        // For the team it is not too late.
        var id = (await ada.GetAsync("/api/bookings")).GetProperty("rows")[0].GetProperty("id").GetGuid();
        (await ada.GetAsync($"/api/bookings/{id}/openings?from=2026-12-08&to=2026-12-08"))
            .ToString()
            .ShouldContain(Ten);
        await (await ada.PostAsync($"/api/bookings/{id}/move", new { start = Ten })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await SeeAsync(path)).GetProperty("start").GetString().ShouldBe(Ten);
        await (await ada.PostAsync($"/api/bookings/{id}/cancel", new { word = "" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await ada.PostAsync($"/api/bookings/{id}/move", new { start = Nine })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await SeeAsync(path)).GetProperty("cancelledBy").GetString().ShouldBe("team");
    }

    [Fact]
    public async Task On_a_group_page_one_leaves_and_the_others_stay()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Places = 3);
        var (first, second) = (
            await BookAsync(ada, page, Nine, "a@wren.example"),
            await BookAsync(ada, page, Nine, "b@wren.example")
        );
        var third = await BookAsync(ada, page, Ten, "c@wren.example");
        await (await MoveAsync(first, Ten)).ReadAsync(HttpStatusCode.NoContent);
        await (await MoveAsync(second, "2026-12-08T09:30:00Z")).ReadAsync(HttpStatusCode.NoContent);
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var sessions = await world.WithinAsync(workspace, db =>
            db.Sessions.Include(session => session.Bookings).OrderBy(session => session.Time.LowerBound).ToListAsync()
        );
        sessions
            .Select(session => (session.Time.LowerBound.ToString(), session.Bookings.Count))
            .ShouldBe([(Ten, 2), ("2026-12-08T09:30:00Z", 1)]);
        (await world.WithinAsync(workspace, db => db.Commitments.CountAsync())).ShouldBe(2);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
        (await SeeAsync(third)).GetProperty("start").GetString().ShouldBe(Ten);
    }

    [Fact]
    public async Task The_same_host_is_kept_where_the_page_wants_it_and_another_takes_over_where_they_are_not_free()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var page = await scene.Owner.PublishAsync(draft =>
            (draft.Seats, draft.Fill, draft.KeepsHosts) = (
                [
                    [scene.Owner.HostId, bo.HostId],
                ],
                "inOrder",
                true
            )
        );
        var own = await scene.Owner.PublishAsync();
        // The owner comes first in order; who is taken then lets the other in.
        (await world.Guest().BookAsync(scene.Owner.Desk, own, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var path = await BookAsync(scene.Owner, page, Nine);
        (await SeeAsync(path)).GetProperty("hosts")[0].GetString().ShouldBe("Bo Keel");
        await (await MoveAsync(path, Ten)).ReadAsync(HttpStatusCode.NoContent);
        (await SeeAsync(path)).GetProperty("hosts")[0].GetString().ShouldBe("Bo Keel");

        var bos = await scene.Owner.PublishAsync(draft => draft.HostId = bo.HostId);
        (await world.Guest().BookAsync(scene.Owner.Desk, bos, HalfPastNine)).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        await (await MoveAsync(path, HalfPastNine)).ReadAsync(HttpStatusCode.NoContent);
        (await SeeAsync(path)).GetProperty("hosts")[0].GetString().ShouldBe("Ada Wharf");
        var workspace = await world.WorkspaceOfAsync(scene.Owner.Desk);
        var told = await world.WithinAsync(workspace, db =>
            db.Messages.Where(row => row.Kind == MessageKind.GivenAwayForHost).SingleAsync()
        );
        told.ToName.ShouldBe("Bo Keel");
        told.Text.ShouldContain("Your time is free again.");
    }

    [Fact]
    public async Task Whom_a_guest_brings_along_is_invited_without_the_private_link_and_called_off_when_left_out()
    {
        await using var scene = await MailScene.MakeAsync();
        var page = await scene.Ada.PublishAsync(draft => draft.Changes = ChangeRules.Usual with { MostBrought = 2 });
        var path = await scene.BookAsync(page);
        Task<HttpResponseMessage> BringAsync(params object[] people) =>
            scene.World.Guest().PutAsJsonAsync(path + "/companions", new { people });
        var (bram, cora) = (
            new { name = "Bram Wren", email = "bram@wren-charters.example" },
            new { name = "", email = "cora@wren-charters.example" }
        );

        (await (await BringAsync(bram, new { name = "Eve", email = "nowhere" })).FaultsAsync()).Keys.ShouldBe([
            "people[1].email",
        ]);
        (
            await (await BringAsync(new { name = "Me", email = MailScene.Guest.ToUpperInvariant() })).FaultsAsync()
        ).Keys.ShouldBe(["people[0].email"]);
        (await (await BringAsync(bram, null!)).FaultsAsync()).Keys.ShouldBe(["people"]);
        (await (await BringAsync(bram, bram)).FaultsAsync()).Keys.ShouldBe(["people[1].email"]);
        (
            await (await BringAsync(bram, cora, new { name = "D", email = "d@wren.example" })).FaultsAsync()
        ).Keys.ShouldBe(["people"]);
        (await scene.SeeAsync(path)).GetProperty("companions").GetArrayLength().ShouldBe(0);

        await (await BringAsync(bram, cora)).ReadAsync(HttpStatusCode.NoContent);
        var invited = await scene.MailAsync("bram@wren-charters.example", "You’re invited along");
        invited.Method.ShouldBe("REQUEST");
        var secret = path.Split('/')[^1];
        (invited.Text + MailScene.Unfolded(invited.Calendar!)).ShouldNotContain(secret);
        MailScene.Unfolded(invited.Calendar!).ShouldContain("mailto:cora@wren-charters.example");
        await Outside.AwaitAsync(
            () =>
                Task.FromResult(
                    scene
                        .Box(scene.AdasAddress)
                        .Any(mail =>
                            mail.Text.Contains(
                                "Bringing Bram Wren (bram@wren-charters.example), cora@wren-charters.example",
                                StringComparison.Ordinal
                            )
                        )
                ),
            "the host to hear who comes"
        );
        (await scene.DetailAsync()).GetProperty("companions").GetArrayLength().ShouldBe(2);

        await (await BringAsync(cora)).ReadAsync(HttpStatusCode.NoContent);
        (await scene.MailAsync("bram@wren-charters.example", "Cancelled")).Method.ShouldBe("CANCEL");
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Who_cancelled_reads_the_time_that_was_theirs_wherever_the_others_go(bool byGuest)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Places = 3);
        var gone = await BookAsync(ada, page, Nine, "gone@wren.example");
        var path = await BookAsync(ada, page, Nine, "stays@wren.example");
        await (await world.Guest().PostAsJsonAsync(gone + "/cancel", new { word = "" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        if (byGuest)
            await (await MoveAsync(path, MailScene.Ten)).ReadAsync(HttpStatusCode.NoContent);
        else
        {
            var session = (await ada.GetAsync("/api/bookings"))
                .GetProperty("rows")[0]
                .GetProperty("sessionId")
                .GetGuid();
            await (await ada.PostAsync($"/api/sessions/{session}/move", new { start = MailScene.Ten })).ReadAsync(
                HttpStatusCode.NoContent
            );
        }

        (await SeeAsync(path)).GetProperty("start").GetString().ShouldBe(MailScene.Ten);
        var left = await SeeAsync(gone);
        left.GetProperty("start").GetString().ShouldBe(Nine);
        left.GetProperty("hosts").GetArrayLength().ShouldBe(1);
        (await world.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
    }

    private async Task<string> BookAsync(
        Coordinator ada,
        string page,
        string start,
        string email = "ottilie@wren-charters.example"
    )
    {
        var made = await (await world.Guest().BookAsync(ada.Desk, page, start, email: email)).ReadAsync(
            HttpStatusCode.Created
        );
        return "/api/public" + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/");
    }

    private Task<JsonElement> SeeAsync(string path) => world.Guest().GetFromJsonAsync<JsonElement>(path);

    private Task<HttpResponseMessage> MoveAsync(string path, string start) =>
        world.Guest().PostAsJsonAsync(path + "/move", new { start });
}
