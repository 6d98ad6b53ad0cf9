using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>People join by a link, hold roles, and leave; rooms and things come and go.</summary>
public class TeamTests(World world)
{
    [Fact]
    public async Task Somebody_joins_by_a_link_once()
    {
        var scene = await Scene.MakeAsync(world);
        var invitation = await (
            await scene.Owner.PostAsync("/api/invitations", Scene.Invitation("bo", isCoordinator: true))
        ).ReadAsync(HttpStatusCode.Created);
        var path = "/api" + invitation.GetProperty("path").GetString();
        (await world.Guest().GetFromJsonAsync<JsonElement>(path)).GetProperty("by").GetString().ShouldBe("Ada Wharf");

        // Opened by two at once, it lets one in.
        var body = new
        {
            name = "Bo Keel",
            password = "harbour at first light",
            zone = "Europe/Lisbon",
            letInviter = true,
        };
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(_ => new Coordinator(world.Browser(), "").PostAsync(path, body))
        );
        answers.Count(answer => answer.StatusCode == HttpStatusCode.NoContent).ShouldBe(1);
        foreach (var late in answers.Where(answer => !answer.IsSuccessStatusCode))
            late.StatusCode.ShouldBe(HttpStatusCode.Gone);
        (await world.Guest().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.Gone);

        var bo = (await scene.Owner.GetAsync("/api/people"))
            .EnumerateArray()
            .Single(person => person.GetProperty("name").GetString() == "Bo Keel");
        bo.GetProperty("isCoordinator").GetBoolean().ShouldBeTrue();
        bo.GetProperty("zone").GetString().ShouldBe("Europe/Lisbon");
        // They let whoever invited act for them.
        (await scene.Owner.GetAsync("/api/hosts"))
            .EnumerateArray()
            .ShouldAllBe(host => host.GetProperty("mayOffer").GetBoolean());
        (await scene.Owner.GetAsync("/api/invitations")).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_weak_password_leaves_the_invitation_as_it_was()
    {
        var scene = await Scene.MakeAsync(world);
        var path =
            "/api"
            + (
                await (await scene.Owner.PostAsync("/api/invitations", Scene.Invitation("bo"))).ReadAsync(
                    HttpStatusCode.Created
                )
            )
                .GetProperty("path")
                .GetString();
        var bo = new Coordinator(world.Browser(), "");
        (
            await (
                await bo.PostAsync(
                    path,
                    new
                    {
                        name = "Bo",
                        password = "short",
                        zone = "Europe/Lisbon",
                        letInviter = false,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["password"]);
        (
            await (
                await bo.PostAsync(
                    path,
                    new
                    {
                        name = " ",
                        password = "harbour at first light",
                        zone = "x",
                        letInviter = false,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["name", "zone"]);
        (
            await bo.PostAsync(
                path,
                new
                {
                    name = "Bo",
                    password = "harbour at first light",
                    zone = "Europe/Lisbon",
                    letInviter = false,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task An_invitation_that_is_taken_back_or_names_somebody_who_is_there_opens_nothing()
    {
        var scene = await Scene.MakeAsync(world);
        var made = await (await scene.Owner.PostAsync("/api/invitations", Scene.Invitation("bo"))).ReadAsync(
            HttpStatusCode.Created
        );
        (await scene.Owner.DeleteAsync($"/api/invitations/{made.GetProperty("id").GetGuid()}")).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await world.Guest().GetAsync("/api" + made.GetProperty("path").GetString())).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );

        var roles = new
        {
            isOwner = false,
            isCoordinator = false,
            isHost = false,
        };
        (
            await (
                await scene.Owner.PostAsync(
                    "/api/invitations",
                    new
                    {
                        name = "",
                        email = "not one",
                        roles,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["name", "email", "roles"]);
        (
            await (
                await scene.Owner.PostAsync(
                    "/api/invitations",
                    new
                    {
                        name = "Ada",
                        email = $"ADA@{scene.Owner.Desk}.example",
                        roles = new
                        {
                            isOwner = true,
                            isCoordinator = false,
                            isHost = false,
                        },
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["email"]);
    }

    [Fact]
    public async Task Roles_count_from_the_next_request_on_and_an_owner_stays()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true);
        (await bo.PostAsync("/api/hosts", Scene.Room)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await (
            await scene.Owner.PutAsync(
                $"/api/people/{bo.PersonId}/roles",
                new
                {
                    isOwner = true,
                    isCoordinator = false,
                    isHost = false,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (await bo.PostAsync("/api/hosts", Scene.Room)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await bo.GetAsync("/api/me")).GetProperty("hostId").ValueKind.ShouldBe(JsonValueKind.Null);

        // Two owners who take the role from each other at once: one stays.
        var none = new
        {
            isOwner = false,
            isCoordinator = true,
            isHost = false,
        };
        var answers = await Task.WhenAll(
            bo.PutAsync(
                $"/api/people/{scene.OwnerId}/roles",
                new
                {
                    isOwner = false,
                    isCoordinator = true,
                    isHost = true,
                }
            ),
            scene.Owner.PutAsync($"/api/people/{bo.PersonId}/roles", none)
        );
        answers.Count(answer => answer.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        (await scene.Owner.GetAsync("/api/people"))
            .EnumerateArray()
            .Count(person => person.GetProperty("isOwner").GetBoolean())
            .ShouldBe(1);
        (
            await (
                await scene.Owner.PutAsync(
                    $"/api/people/{bo.PersonId}/roles",
                    new
                    {
                        isOwner = false,
                        isCoordinator = false,
                        isHost = false,
                    }
                )
                    is { StatusCode: HttpStatusCode.BadRequest } refused
                    ? refused
                    : await bo.PutAsync(
                        $"/api/people/{bo.PersonId}/roles",
                        new
                        {
                            isOwner = false,
                            isCoordinator = false,
                            isHost = false,
                        }
                    )
            ).FaultsAsync()
        ).Keys.ShouldBe(["isHost"]);
    }

    [Fact]
    public async Task A_host_with_a_seat_keeps_the_role_until_it_is_given_away()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        await (
            await scene.Owner.PostAsync(
                "/api/pages",
                scene
                    .Owner.Draft(page =>
                    {
                        page.HostId = bo.HostId;
                        page.Title = "Varnish";
                    })
                    .Form()
            )
        ).ReadAsync(HttpStatusCode.Created);
        var refused = await (
            await scene.Owner.PutAsync(
                $"/api/people/{bo.PersonId}/roles",
                new
                {
                    isOwner = false,
                    isCoordinator = true,
                    isHost = false,
                }
            )
        ).ReadAsync(HttpStatusCode.Conflict);
        refused.GetProperty("title").GetString()!.ShouldContain("Varnish");
        (await scene.Owner.GetAsync("/api/people"))
            .EnumerateArray()
            .Single(person => person.GetProperty("id").GetGuid() == bo.PersonId)
            .GetProperty("isCoordinator")
            .GetBoolean()
            .ShouldBeFalse();
    }

    [Fact]
    public async Task Who_leaves_hands_over_pages_and_bookings()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var page = await scene.Owner.PublishAsync(draft => draft.HostId = bo.HostId);
        foreach (var start in new[] { "2026-12-08T08:00:00Z", "2026-12-08T09:00:00Z" })
            (await world.Guest().BookAsync(scene.Owner.Desk, page, start)).StatusCode.ShouldBe(HttpStatusCode.Created);

        (
            await (
                await scene.Owner.PostAsync($"/api/people/{bo.PersonId}/leave", new { toHostId = (Guid?)null })
            ).ReadAsync(HttpStatusCode.Conflict)
        )
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:heir-needed");
        var done = await (
            await scene.Owner.PostAsync($"/api/people/{bo.PersonId}/leave", new { toHostId = scene.Owner.HostId })
        ).ReadAsync(HttpStatusCode.OK);
        (done.GetProperty("pages").GetInt32(), done.GetProperty("sessions").GetInt32()).ShouldBe((1, 2));

        var rows = (await scene.Owner.GetAsync("/api/bookings")).GetProperty("rows").EnumerateArray().ToList();
        rows.Count.ShouldBe(2);
        rows.ShouldAllBe(row => row.GetProperty("hosts")[0].GetString() == "Ada Wharf");
        // The time is the heir's now: no longer open there, and told to guests and heir in the same breath.
        (await world.Guest().StartsAsync(scene.Owner.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(
            "2026-12-08T08:00:00Z"
        );
        var workspace = await world.WorkspaceOfAsync(scene.Owner.Desk);
        (
            await world.WithinAsync(workspace, db =>
                db.Messages.CountAsync(message =>
                    message.Kind == LooseLantern.Server.Data.Model.MessageKind.HostChangedForGuest
                )
            )
        ).ShouldBe(2);
        (
            await world.WithinAsync(workspace, db => db.Commitments.Select(row => row.HostId).Distinct().ToListAsync())
        ).ShouldBe([scene.Owner.HostId]);

        // Signed out at once, and the address lets nobody in.
        (await bo.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await scene.Owner.GetAsync("/api/people")).GetArrayLength().ShouldBe(1);
        (await scene.Owner.GetAsync("/api/hosts")).GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task Where_the_heir_is_not_free_nothing_goes_over_and_each_clash_is_named()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var cai = await scene.JoinAsync(isHost: true, letInviter: true, name: "Cai Strand");
        var page = await scene.Owner.PublishAsync(draft => draft.HostId = bo.HostId);
        foreach (var start in new[] { "2026-12-08T08:00:00Z", "2026-12-08T09:00:00Z" })
            (await world.Guest().BookAsync(scene.Owner.Desk, page, start)).StatusCode.ShouldBe(HttpStatusCode.Created);
        await (await cai.JoinCalendarAsync(Scene.CalendarWith("Dentist"), cai.HostId)).ReadAsync(
            HttpStatusCode.Created
        );

        var refused = await (
            await scene.Owner.PostAsync($"/api/people/{bo.PersonId}/leave", new { toHostId = cai.HostId })
        ).ReadAsync(HttpStatusCode.Conflict);
        var clash = refused.GetProperty("clashes").EnumerateArray().ShouldHaveSingleItem();
        (clash.GetProperty("start").GetString(), clash.GetProperty("why").GetString()).ShouldBe(
            ("2026-12-08T09:00:00Z", "Cai Strand’s calendar is busy then")
        );
        (await bo.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await scene.Owner.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .ShouldAllBe(row => row.GetProperty("hosts")[0].GetString() == "Bo Keel");

        // The one that clashes goes to somebody else.
        var sessions = new Dictionary<Guid, Guid> { [clash.GetProperty("sessionId").GetGuid()] = scene.Owner.HostId };
        await (
            await scene.Owner.PostAsync($"/api/people/{bo.PersonId}/leave", new { toHostId = cai.HostId, sessions })
        ).ReadAsync(HttpStatusCode.OK);
        (await scene.Owner.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .Select(row => row.GetProperty("hosts")[0].GetString())
            .ShouldBe(["Cai Strand", "Ada Wharf"]);
    }

    [Fact]
    public async Task Who_is_off_the_team_is_never_booked_even_where_a_page_still_names_them()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var page = await scene.Owner.PublishAsync(draft => draft.HostId = bo.HostId);
        (await world.Guest().StartsAsync(scene.Owner.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotBeEmpty();
        await world.WithinAsync(await world.WorkspaceOfAsync(scene.Owner.Desk), db =>
            db.Hosts.Where(host => host.Id == bo.HostId)
                .ExecuteUpdateAsync(host => host.SetProperty(row => row.RetiredAt, World.Now))
        );

        (await world.Guest().StartsAsync(scene.Owner.Desk, page, "2026-12-08", "2026-12-08")).ShouldBeEmpty();
        (await world.Guest().BookAsync(scene.Owner.Desk, page, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
    }

    [Fact]
    public async Task Guests_who_book_while_somebody_leaves_are_with_whoever_is_there()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var page = await scene.Owner.PublishAsync(draft => draft.HostId = bo.HostId);
        string[] starts = ["08:00", "08:30", "09:00", "09:30", "10:00", "10:30"];
        var leaving = scene.Owner.PostAsync($"/api/people/{bo.PersonId}/leave", new { toHostId = scene.Owner.HostId });
        var booked = await Task.WhenAll(
            starts.Select(
                (start, i) =>
                    world
                        .Guest()
                        .BookAsync(scene.Owner.Desk, page, $"2026-12-08T{start}:00Z", email: $"guest{i}@wren.example")
            )
        );

        await (await leaving).ReadAsync(HttpStatusCode.OK);
        foreach (var answer in booked)
            answer.StatusCode.ShouldBeOneOf(HttpStatusCode.Created, HttpStatusCode.Conflict);
        var rows = (await scene.Owner.GetAsync("/api/bookings")).GetProperty("rows").EnumerateArray().ToList();
        rows.Count.ShouldBe(booked.Count(answer => answer.StatusCode == HttpStatusCode.Created));
        rows.ShouldAllBe(row => row.GetProperty("hosts")[0].GetString() == "Ada Wharf");
    }

    [Fact]
    public async Task The_last_owner_cannot_leave()
    {
        var scene = await Scene.MakeAsync(world);
        (
            await (
                await scene.Owner.PostAsync($"/api/people/{scene.OwnerId}/leave", new { toHostId = (Guid?)null })
            ).ReadAsync(HttpStatusCode.Conflict)
        )
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:last-owner");
    }

    [Fact]
    public async Task A_room_is_booked_like_anybody_and_goes_when_nothing_needs_it()
    {
        var scene = await Scene.MakeAsync(world);
        var room = await scene.RoomAsync();
        var page = await scene.Owner.PublishAsync(draft =>
        {
            draft.Title = "On the slip";
            draft.Seats =
            [
                [scene.Owner.HostId],
                [room],
            ];
        });
        var other = await scene.Owner.PublishAsync(draft => draft.HostId = room);
        (await world.Guest().BookAsync(scene.Owner.Desk, page, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        (await world.Guest().StartsAsync(scene.Owner.Desk, other, "2026-12-08", "2026-12-08")).ShouldNotContain(
            "2026-12-08T08:00:00Z"
        );
        (await (await scene.Owner.DeleteAsync($"/api/hosts/{room}")).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("title")
            .GetString()!
            .ShouldContain("On the slip");

        var crane = (
            await (
                await scene.Owner.PostAsync(
                    "/api/hosts",
                    new
                    {
                        kind = "thing",
                        name = "Crane",
                        zone = "Europe/Copenhagen",
                        hoursId = (Guid?)null,
                    }
                )
            ).ReadAsync(HttpStatusCode.Created)
        ).GetProperty("id").GetGuid();
        await (await scene.Owner.DeleteAsync($"/api/hosts/{crane}")).ReadAsync(HttpStatusCode.NoContent);
        (await scene.Owner.GetAsync("/api/hosts"))
            .EnumerateArray()
            .ShouldNotContain(host => host.GetProperty("id").GetGuid() == crane);
        (
            await (
                await scene.Owner.PostAsync(
                    "/api/hosts",
                    new
                    {
                        kind = "person",
                        name = "",
                        zone = "x",
                        hoursId = Guid.NewGuid(),
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["kind", "name", "zone"]);
        (
            await (
                await scene.Owner.PutAsync(
                    $"/api/hosts/{room}",
                    new
                    {
                        name = "Slip",
                        zone = "Europe/Copenhagen",
                        hoursId = (Guid?)null,
                        weight = 0,
                        dailyCap = 0,
                        weeklyCap = (int?)null,
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["weight", "dailyCap"]);
    }

    [Fact]
    public async Task Load_counts_sessions_by_week_beside_weights_caps_and_days_away()
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var page = await scene.Owner.PublishAsync(draft => draft.HostId = bo.HostId);
        foreach (var start in new[] { "2026-12-08T08:00:00Z", "2026-12-08T09:00:00Z", "2026-12-15T09:00:00Z" })
            (await world.Guest().BookAsync(scene.Owner.Desk, page, start)).StatusCode.ShouldBe(HttpStatusCode.Created);
        var hours = (await bo.OwnHostAsync()).GetProperty("hoursId").GetGuid();
        await (
            await bo.PutAsync(
                $"/api/hours/{hours}",
                new
                {
                    version = 1,
                    form = Scene.Hours(
                        "Bo",
                        changes:
                        [
                            new
                            {
                                from = "2026-12-16",
                                to = "2026-12-20",
                                open = Array.Empty<object>(),
                                name = "Leave",
                            },
                        ]
                    ),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        await (
            await bo.JoinCalendarAsync(
                "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:f\nSUMMARY:Fair\nDTSTART;VALUE=DATE:20261211\nEND:VEVENT\nEND:VCALENDAR\n"
            )
        ).ReadAsync(HttpStatusCode.Created);
        await (
            await scene.Owner.PutAsync(
                $"/api/hosts/{bo.HostId}",
                new
                {
                    name = (string?)null,
                    zone = (string?)null,
                    hoursId = hours,
                    weight = 3,
                    dailyCap = 4,
                    weeklyCap = 12,
                }
            )
        ).ReadAsync(HttpStatusCode.OK);

        var load = (await scene.Owner.GetAsync("/api/load?from=2026-12-07&weeks=2"))
            .GetProperty("hosts")
            .EnumerateArray()
            .Single(host => host.GetProperty("hostId").GetGuid() == bo.HostId);
        load.GetProperty("weeks")
            .EnumerateArray()
            .Select(week =>
                (
                    week.GetProperty("sessions").GetInt32(),
                    week.GetProperty("minutes").GetInt32(),
                    week.GetProperty("away").GetInt32()
                )
            )
            // The fair of Friday, then Wednesday to Friday: weekends are closed anyway.
            .ShouldBe([(2, 60, 1), (1, 30, 3)]);
        (
            load.GetProperty("share").GetDouble(),
            load.GetProperty("dailyCap").GetInt32(),
            load.GetProperty("weeklyCap").GetInt32()
        ).ShouldBe((0.75, 4, 12));
        (await (await scene.Owner.Http.GetAsync("/api/load?weeks=0")).FaultsAsync()).Keys.ShouldBe(["weeks"]);
    }
}
