using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using static Server.Tests.MailScene;

namespace Server.Tests;

/// <summary>A host falls ill: their bookings go to others, or their guests have new times.</summary>
public sealed class CoverTests(World world)
{
    private const string Tuesday = "2026-12-08";

    [Fact]
    public async Task What_others_can_take_is_kept_the_rest_is_offered_anew_and_all_of_it_is_taken_back()
    {
        await using var scene = await MailScene.MakeAsync();
        var (ada, team) = (scene.Ada, await TeamAsync(scene.World, scene.Ada));
        await ada.LetMailWaitAsync();
        // At nine nobody else is there; at half past nine only Cai.
        await team.BusyAsync(team.Bo, "20261208T080000Z", "20261208T090000Z");
        await team.BusyAsync(team.Cai, "20261208T080000Z", "20261208T083000Z");
        await scene.BookAsync(team.Page);
        await scene.BookAsync(team.Page, HalfPastNine, "bryn@ashby.example", "Bryn Ashby");
        await scene.BookAsync(team.Page, Ten, "tora@lind.example", "Tora Lind");

        var plan = await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday });
        plan.GetProperty("isBest").GetBoolean().ShouldBeTrue();
        Told(plan).ShouldBe(["Ottilie Wren: -", "Bryn Ashby: Cai Strand", "Tora Lind: Bo Keel"]);
        plan.GetProperty("lines")[0]
            .GetProperty("why")
            .EnumerateArray()
            .Select(why => (why.Text("name"), why.Text("kind")))
            .ShouldBe([("Bo Keel", "busy"), ("Cai Strand", "busy")]);
        plan.GetProperty("loads")
            .EnumerateArray()
            .Select(load =>
                (load.Text("name"), load.GetProperty("before").GetInt32(), load.GetProperty("after").GetInt32())
            )
            .ShouldBe([("Ada Wharf", 3, 0), ("Bo Keel", 0, 1), ("Cai Strand", 0, 1)]);

        var form = FormOf(plan, ada.HostId, "We are sorry.");
        var letters = (await (await ada.PostAsync("/api/covers/letters", form)).ReadAsync(HttpStatusCode.OK))
            .EnumerateArray()
            .ToList();
        letters
            .ConvertAll(letter =>
                (letter.Text("name"), letter.GetProperty("kept").GetInt32(), letter.GetProperty("left").GetInt32())
            )
            .ShouldBe([("Ottilie Wren", 0, 1), ("Bryn Ashby", 1, 0), ("Tora Lind", 1, 0)]);
        letters[1].Text("text").ShouldContain("with Cai Strand");
        letters[0].Text("text").ShouldContain("We are sorry.");
        letters[0].Text("text").ShouldContain("Ada Wharf can’t be there, and nobody else is free then.");
        (await ada.GetAsync("/api/links")).GetProperty("rows").GetArrayLength().ShouldBe(0);

        var done = await (await ada.PostAsync("/api/covers", form)).ReadAsync(HttpStatusCode.OK);
        (
            done.GetProperty("kept").GetInt32(),
            done.GetProperty("left").GetInt32(),
            done.GetProperty("letters").GetInt32()
        ).ShouldBe((2, 1, 3));
        (await HostsAsync(ada)).ShouldBe(["Bryn Ashby: Cai Strand", "Tora Lind: Bo Keel"]);
        var link = (await ada.GetAsync("/api/links")).GetProperty("rows")[0];
        link.Text("state").ShouldBe("out");
        var mails = await scene.MessagesAsync(MessageKind.CoverForGuest);
        mails
            .Select(mail => mail.ToEmail)
            .Order()
            .ShouldBe(["bryn@ashby.example", MailScene.Guest, "tora@lind.example"]);
        mails.ShouldAllBe(mail => mail.SentAt == null && mail.DueAt == World.Now + Duration.FromMinutes(10));
        (await scene.MessagesAsync(MessageKind.HostChangedForGuest, MessageKind.CancelledForGuest)).ShouldBeEmpty();
        (await scene.MessagesAsync(MessageKind.GivenAwayForHost)).Count.ShouldBe(2);

        var act = (await ada.GetAsync("/api/undo"))[0];
        act.GetProperty("what")[0]
            .GetString()
            .ShouldBe("Found cover for Ada Wharf: 2 went to others, 1 is offered new times");
        // Three letters, and who has it no more and who has it now, in each of two bookings.
        act.GetProperty("mails").GetInt32().ShouldBeGreaterThan(3);
        await (await ada.PostAsync($"/api/undo/{act.Id()}", new { })).ReadAsync(HttpStatusCode.NoContent);
        (await HostsAsync(ada)).ShouldBe(["Ottilie Wren: Ada Wharf", "Bryn Ashby: Ada Wharf", "Tora Lind: Ada Wharf"]);
        (await ada.GetAsync("/api/links")).GetProperty("rows").GetArrayLength().ShouldBe(0);
        (await scene.MessagesAsync(MessageKind.CoverForGuest, MessageKind.GivenAwayForHost)).ShouldBeEmpty();
        (await scene.World.LookAsync(db => db.Commitments.IgnoreQueryFilters().CountAsync())).ShouldBe(3);
    }

    [Fact]
    public async Task After_ten_minutes_each_guest_has_one_letter_and_chooses_by_it()
    {
        await using var scene = await MailScene.MakeAsync();
        var (ada, team) = (scene.Ada, await TeamAsync(scene.World, scene.Ada));
        await ada.LetMailWaitAsync();
        await team.BusyAsync(team.Bo, "20261208T080000Z", "20261208T083000Z");
        await team.BusyAsync(team.Cai, "20261208T080000Z", "20261208T083000Z");
        await scene.BookAsync(team.Page);
        await scene.BookAsync(team.Page, Ten);
        var plan = await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday });
        await (await ada.PostAsync("/api/covers", FormOf(plan, ada.HostId))).ReadAsync(HttpStatusCode.OK);
        scene.World.Clock.Advance(Duration.FromMinutes(10));
        var mail = await scene.MailAsync(MailScene.Guest, "please choose another time");
        scene.Box(MailScene.Guest).Count(one => one.Subject.Contains("Talk", StringComparison.Ordinal)).ShouldBe(3);
        mail.Text.ShouldContain("Talk, Tuesday, 8 December, 10:00–10:30 (09:00–09:30 Dublin): with Bo Keel");
        mail.Text.ShouldContain("\nTalk, Tuesday, 8 December, 09:00–09:30 (08:00–08:30 Dublin)");
        var address = mail.Text.Split('\n').Single(line => line.Contains("/times/", StringComparison.Ordinal)).Trim();
        // One object is the mail's own, the other a file.
        (mail.Method, mail.Files).ShouldSatisfyAllConditions(
            one => one.Method.ShouldBe("REQUEST"),
            one => one.Files.ShouldBe(["appointment-2.ics"])
        );
        var link = await scene
            .World.Guest()
            .GetFromJsonAsync<JsonElement>("/api/public/links/" + new Uri(address).AbsolutePath.Split('/')[^1]);
        // Who is ill is not offered.
        link.GetProperty("state").GetString().ShouldBe("out");
        var offered = await scene.World.LookAsync(db =>
            db.Pages.IgnoreQueryFilters()
                .Where(page => page.Offer != null)
                .SelectMany(page => page.Seats.SelectMany(seat => seat.Hosts))
                .Select(host => host.HostId)
                .ToListAsync()
        );
        offered.ShouldBe([team.Bo.HostId, team.Cai.HostId], ignoreOrder: true);
    }

    [Fact]
    public async Task What_is_decided_by_hand_stays_and_two_at_once_are_refused()
    {
        var scene = await Scene.MakeAsync(world);
        var (ada, team) = (scene.Owner, await TeamAsync(world, scene.Owner));
        await BookAsync(ada, team.Page, Nine, "Ottilie Wren");
        await BookAsync(ada, team.Page, Nine, "Bryn Ashby", with: team.Bo);
        var away = new[] { ada.HostId, team.Bo.HostId };
        var plan = await PlanAsync(ada, new { away, from = Tuesday });
        // Only Cai is left, who takes the one or the other.
        plan.GetProperty("lines").EnumerateArray().Count(line => IsLeft(line)).ShouldBe(1);
        var left = plan.GetProperty("lines").EnumerateArray().Single(line => IsLeft(line));
        var why = left.GetProperty("why")[0];
        (why.Text("kind"), why.Text("name")).ShouldBe(("needed", "Cai Strand"));
        object Decided(JsonElement line) =>
            new { session = line.Text("session"), seats = new[] { new { seat = 0, host = team.Cai.HostId } } };
        var other = await PlanAsync(
            ada,
            new
            {
                away,
                from = Tuesday,
                decided = new[] { Decided(left) },
            }
        );
        other
            .GetProperty("lines")
            .EnumerateArray()
            .Single(line => !IsLeft(line))
            .Text("session")
            .ShouldBe(left.Text("session"));
        (
            await (
                await ada.PostAsync(
                    "/api/covers/plan",
                    new
                    {
                        away,
                        from = Tuesday,
                        decided = plan.GetProperty("lines").EnumerateArray().Select(Decided),
                    }
                )
            ).FaultsAsync()
        )["decided"].ShouldContain("Cai Strand can’t have both");
    }

    [Fact]
    public async Task Whatever_changed_meanwhile_stops_all_of_it()
    {
        var scene = await Scene.MakeAsync(world);
        var (ada, team) = (scene.Owner, await TeamAsync(world, scene.Owner));
        await BookAsync(ada, team.Page, Nine, "Ottilie Wren");
        await BookAsync(ada, team.Page, Ten, "Bryn Ashby");
        var form = FormOf(await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday }), ada.HostId);
        // Both of the others are booked at ten by now.
        await BookAsync(ada, team.Page, Ten, "Tora Lind", with: team.Bo);
        await BookAsync(ada, team.Page, Ten, "Osric Pell", with: team.Cai);
        (await (await ada.PostAsync("/api/covers", form)).ReadAsync(HttpStatusCode.Conflict))
            .Text("title")
            .ShouldContain("booked then");
        (await HostsAsync(ada)).ShouldContain("Ottilie Wren: Ada Wharf");
        (await HostsAsync(ada)).ShouldContain("Bryn Ashby: Ada Wharf");

        var before = form;
        form = FormOf(await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday }), ada.HostId);
        var answers = await Task.WhenAll(ada.PostAsync("/api/covers", form), ada.PostAsync("/api/covers", form));
        // The same press twice is one, and the other reads what the first one does.
        foreach (var answer in answers)
        {
            var done = await answer.ReadAsync(HttpStatusCode.OK);
            (done.GetProperty("left").GetInt32(), done.GetProperty("letters").GetInt32()).ShouldBe((1, 2));
        }

        // Something else of the same is none.
        (await ada.PostAsync("/api/covers", before)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await HostsAsync(ada)).Count.ShouldBe(3);
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (
            await world.WithinAsync(workspace, db =>
                db.Messages.CountAsync(message => message.Kind == MessageKind.CoverForGuest)
            )
        ).ShouldBe(2);
    }

    [Fact]
    public async Task Too_many_at_once_are_refused_with_the_day_until_which_they_are_few_enough()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        var page = await ada.PublishAsync(draft =>
        {
            draft.Address = "short";
            draft.Durations = [5];
            draft.Step = 5;
            draft.Details = draft.Details with { MostOpen = 100 };
        });
        await (
            await ada.PutAsync(
                "/api/workspace",
                new
                {
                    name = "Yard",
                    zone = "Europe/Copenhagen",
                    mostOpen = 1000,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        // 36 on Tuesday, and five on Wednesday.
        foreach (var at in Enumerable.Range(0, 41))
        {
            var start = Instant.FromUtc(2026, 12, at < 36 ? 8 : 9, 8, 0) + Duration.FromMinutes(5 * (at % 36));
            await (await world.Guest().BookAsync(ada.Desk, page, start.ToString(), duration: 5)).ReadAsync(
                HttpStatusCode.Created
            );
        }

        (
            await (
                await ada.PostAsync(
                    "/api/covers/plan",
                    new
                    {
                        away = new[] { ada.HostId },
                        from = Tuesday,
                        to = "2026-12-09",
                    }
                )
            ).FaultsAsync()
        )["to"].ShouldContain("41 bookings");
        (await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday }))
            .GetProperty("lines")
            .GetArrayLength()
            .ShouldBe(36);
        (
            await (await ada.PostAsync("/api/covers/plan", new { away = Array.Empty<Guid>() })).FaultsAsync()
        ).Keys.ShouldBe(["away"]);
    }

    [Fact]
    public async Task Nobody_is_given_work_who_does_not_let_it_and_nobodys_is_given_away()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var page = await ada.PublishAsync(draft =>
            (draft.Seats, draft.Fill) = (
                [
                    [ada.HostId, bo.HostId],
                ],
                "inOrder"
            )
        );
        var grants = new
        {
            mayOffer = true,
            mayBook = false,
            mayMove = true,
            seesTitles = true,
        };
        (await bo.PutAsync($"/api/me/acting/{ada.PersonId}", grants)).StatusCode.ShouldBe(HttpStatusCode.OK);
        await BookAsync(ada, page, Nine, "Ottilie Wren");
        var plan = await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday });
        plan.GetProperty("lines")[0].GetProperty("why")[0].Text("kind").ShouldBe("nobody");
        var line = plan.GetProperty("lines")[0];
        var forced = new
        {
            away = new[] { ada.HostId },
            lines = new[]
            {
                new
                {
                    session = line.Text("session"),
                    before = Seats(line.GetProperty("before")),
                    after = (object)new[] { new { seat = 0, host = bo.HostId } },
                },
            },
        };
        (await ada.PostAsync("/api/covers", forced)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (
            await bo.PostAsync("/api/covers/plan", new { away = new[] { ada.HostId }, from = Tuesday })
        ).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var stranger = await world.SignUpAsync();
        (await PlanAsync(stranger, new { away = new[] { ada.HostId }, from = Tuesday }))
            .GetProperty("lines")
            .GetArrayLength()
            .ShouldBe(0);
    }

    [Fact]
    public async Task Two_guests_of_one_address_have_a_letter_and_a_link_of_their_own()
    {
        var scene = await GroupScene.MakeAsync(world, 1, draft =>
            draft.Details = PageDetails.Usual with { ForOthers = true }
        );
        var ada = scene.Ada;
        foreach (var (name, start) in new[] { ("Ida Holt", Nine), ("Jon Holt", Ten) })
            await (
                await world
                    .Guest()
                    .BookAsync(
                        ada.Desk,
                        scene.Page,
                        start,
                        name: "Anselm Holt",
                        email: "anselm@harbour.example",
                        bookedFor: new { name, mailTo = "booker" }
                    )
            ).ReadAsync(HttpStatusCode.Created);
        var plan = await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday });
        Told(plan).ShouldBe(["Ida Holt: -", "Jon Holt: -"]);
        var form = FormOf(plan, ada.HostId);
        var letters = (await (await ada.PostAsync("/api/covers/letters", form)).ReadAsync(HttpStatusCode.OK))
            .EnumerateArray()
            .Select(letter => letter.Text("text"))
            .ToList();
        letters.Count.ShouldBe(2);
        letters[0].ShouldContain("For Ida Holt.");
        letters[1].ShouldContain("For Jon Holt.");
        // Nobody is left on the page but who can't come: its address is all there is to offer.
        letters[0].ShouldContain($"/{ada.Desk}/");
        await (await ada.PostAsync("/api/covers", form)).ReadAsync(HttpStatusCode.OK);
        (await ada.GetAsync("/api/links")).GetProperty("rows").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Where_clocks_differ_each_line_of_a_letter_says_which_it_is_by()
    {
        var scene = await Scene.MakeAsync(world);
        var (ada, team) = (scene.Owner, await TeamAsync(world, scene.Owner));
        var lisbon = await ada.PublishAsync(draft =>
            (draft.Seats, draft.Fill, draft.Zone, draft.Address) = (
                [
                    [ada.HostId, team.Bo.HostId],
                ],
                "inOrder",
                "Europe/Lisbon",
                "lisbon"
            )
        );
        await BookAsync(ada, team.Page, Nine, "Ottilie Wren");
        await BookAsync(ada, lisbon, Ten, "Ottilie Wren");
        var plan = await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday });
        var letter = (
            await (await ada.PostAsync("/api/covers/letters", FormOf(plan, ada.HostId))).ReadAsync(HttpStatusCode.OK)
        )[0]
            .Text("text");
        letter.ShouldContain("09:00–09:30 (08:00–08:30 Dublin) (Times in Copenhagen (UTC+1) / Dublin (UTC)): with");
        // The same clock as the guest's own.
        letter
            .Split('\n')
            .Single(line =>
                line.Contains("9:00–09:30", StringComparison.Ordinal)
                && !line.Contains("Copenhagen", StringComparison.Ordinal)
            )
            .ShouldContain("(Times in ");
    }

    [Fact]
    public async Task What_waits_for_a_yes_is_asked_for_anew_and_an_added_host_goes_by_the_usual_mail()
    {
        await using var scene = await MailScene.MakeAsync();
        var (ada, team) = (scene.Ada, await TeamAsync(scene.World, scene.Ada));
        var asked = await ada.PublishAsync(draft =>
            (draft.Seats, draft.Fill, draft.ApprovalHours, draft.Address) = (
                [
                    [ada.HostId, team.Bo.HostId],
                ],
                "inOrder",
                24,
                "asked"
            )
        );
        var bos = await ada.PublishAsync(draft => (draft.HostId, draft.Address) = (team.Bo.HostId, "bos"));
        await scene.BookAsync(asked);
        await scene.BookAsync(bos, Ten, "bryn@ashby.example", "Bryn Ashby");
        var bosSession = (await ada.GetAsync($"/api/bookings?host={team.Bo.HostId}"))
            .GetProperty("rows")[0]
            .Text("sessionId");
        await (
            await ada.PostAsync(
                $"/api/sessions/{bosSession}/hosts",
                new
                {
                    from = (Guid?)null,
                    to = ada.HostId,
                    tellGuests = false,
                }
            )
        ).ReadAsync(HttpStatusCode.NoContent);
        var plan = await PlanAsync(ada, new { away = new[] { ada.HostId }, from = Tuesday });
        Told(plan).ShouldBe(["Ottilie Wren: Bo Keel", "Bryn Ashby: Bo Keel"]);
        await (await ada.PostAsync("/api/covers", FormOf(plan, ada.HostId))).ReadAsync(HttpStatusCode.OK);
        (await scene.MessagesAsync(MessageKind.CoverForGuest)).ShouldBeEmpty();
        (await scene.MessagesAsync(MessageKind.AskedForGuest)).Count.ShouldBe(2);
        (await scene.MessagesAsync(MessageKind.HostChangedForGuest))
            .ShouldHaveSingleItem()
            .ToEmail.ShouldBe("bryn@ashby.example");
    }

    private sealed record Team(Coordinator Bo, Coordinator Cai, string Page)
    {
        public async Task BusyAsync(Coordinator host, string from, string until) =>
            await (await host.JoinCalendarAsync(Scene.CalendarWith("Dentist", from, until), host.HostId)).ReadAsync(
                HttpStatusCode.Created
            );
    }

    /// <summary>Three who can take the same: Ada first, as long as she is there.</summary>
    private static async Task<Team> TeamAsync(World world, Coordinator ada)
    {
        var scene = new Scene(world, ada);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var cai = await scene.JoinAsync(isHost: true, letInviter: true, name: "Cai Strand");
        var page = await ada.PublishAsync(draft =>
            (draft.Seats, draft.Fill) = (
                [
                    [ada.HostId, bo.HostId, cai.HostId],
                ],
                "inOrder"
            )
        );
        return new Team(bo, cai, page);
    }

    private async Task BookAsync(Coordinator ada, string page, string start, string name, Coordinator? with = null)
    {
        var email = name.Split(' ')[0].ToLowerInvariant() + "@guests.example";
        await (await world.Guest().BookAsync(ada.Desk, page, start, name: name, email: email)).ReadAsync(
            HttpStatusCode.Created
        );
        if (with is null)
            return;
        (await HostsAsync(ada)).ShouldContain($"{name}: {(await with.GetAsync("/api/me")).Text("name")}");
    }

    private static async Task<JsonElement> PlanAsync(Coordinator person, object request) =>
        await (await person.PostAsync("/api/covers/plan", request)).ReadAsync(HttpStatusCode.OK);

    private static object[] Seats(JsonElement seats) =>
        [
            .. seats
                .EnumerateArray()
                .Select(seat => new { seat = seat.GetProperty("seat").GetInt32(), host = seat.Text("host") }),
        ];

    private static object FormOf(JsonElement plan, Guid away, string word = "") =>
        new
        {
            away = new[] { away },
            word,
            lines = plan.GetProperty("lines")
                .EnumerateArray()
                .Select(line => new
                {
                    session = line.Text("session"),
                    before = Seats(line.GetProperty("before")),
                    after = IsLeft(line) ? null : Seats(line.GetProperty("after")),
                }),
        };

    private static bool IsLeft(JsonElement line) => line.GetProperty("after").ValueKind == JsonValueKind.Null;

    private static IReadOnlyList<string> Told(JsonElement plan) =>
        [
            .. plan.GetProperty("lines")
                .EnumerateArray()
                .Select(line =>
                    $"{line.GetProperty("guests")[0].GetString()}: {(IsLeft(line) ? "-" : line.GetProperty("after")[0].Text("name"))}"
                ),
        ];

    private static async Task<IReadOnlyList<string>> HostsAsync(Coordinator person) =>
        [
            .. (await person.GetAsync("/api/bookings"))
                .GetProperty("rows")
                .EnumerateArray()
                .Select(row => $"{row.Text("guestName")}: {row.GetProperty("hosts")[0].GetString()}"),
        ];
}
