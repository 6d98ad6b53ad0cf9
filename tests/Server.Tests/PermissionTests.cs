namespace Server.Tests;

/// <summary>Every cell of the tables in docs/permissions.md, tried over HTTP.</summary>
public class PermissionTests(World world)
{
    private static readonly Dictionary<string, Func<Scene, Coordinator, Task<HttpResponseMessage>>> ByRole = new()
    {
        ["Read pages, bookings, post, calendars, hours, the board, the team, load and the record"] = (_, who) =>
            FirstRefusedAsync([
                .. new[]
                {
                    "pages",
                    "bookings",
                    "post",
                    "calendars",
                    "hours",
                    "board",
                    "hosts",
                    "people",
                    "desks",
                    "load",
                    "record",
                    "me/record",
                }.Select(path => who.Http.GetAsync("/api/" + path)),
            ]),
        ["Send a message again"] = async (scene, who) =>
        {
            await scene.BookingAsync(scene.Owner);
            var message = (await who.GetAsync("/api/post")).GetProperty("rows")[0].GetProperty("id").GetGuid();
            // Whoever may is told that it has not gone out at all yet.
            var answer = await who.PostAsync($"/api/post/{message}/again", new { });
            return answer.StatusCode == HttpStatusCode.Conflict ? new HttpResponseMessage(HttpStatusCode.OK) : answer;
        },
        // One after another: all of them are written to the same row.
        ["Change their own profile, defaults, notifications and password"] = async (_, who) =>
            await FirstRefusedAsync([
                Task.FromResult(
                    await who.PutAsync(
                        "/api/me/profile",
                        new
                        {
                            name = "Somebody Else",
                            line = "",
                            zone = "Europe/Lisbon",
                            language = "da",
                            clock = "h12",
                        }
                    )
                ),
                Task.FromResult(await who.PutAsync("/api/me/usual", Scene.Usual())),
                Task.FromResult(
                    await who.PutAsync("/api/me/notifications", LooseLantern.Server.Data.Model.Notifications.Usual)
                ),
                Task.FromResult(
                    await who.PutAsync(
                        "/api/me/password",
                        new { password = "harbour at first light", newPassword = "lanterns along a wet quay" }
                    )
                ),
            ]),
        ["See where they are signed in and sign out there"] = async (_, who) =>
            await who.DeleteAsync(
                $"/api/me/sign-ins/{(await who.GetAsync("/api/me/security")).GetProperty("signIns")[0].GetProperty("id").GetGuid()}"
            ),
        ["Make a page with their own time"] = (scene, who) => who.PostAsync("/api/pages", scene.PageOf(who)),
        ["Change a page with their own time"] = async (scene, who) =>
            await who.PutAsync(
                $"/api/pages/{await scene.MakePageAsync(who)}",
                new { version = 1, form = scene.PageOf(who) }
            ),
        ["Publish and unpublish a page with their own time"] = async (scene, who) =>
            await who.PostAsync($"/api/pages/{await scene.MakePageAsync(who)}/publish", new { version = 1 })
                is { IsSuccessStatusCode: true }
                ? await who.PostAsync($"/api/pages/{scene.LastPage}/unpublish", new { version = 2 })
                : await who.PostAsync($"/api/pages/{scene.LastPage}/unpublish", new { version = 1 }),
        ["Send files along with a page of their own time, and preview its mail"] = async (scene, who) =>
        {
            var page = await scene.MakePageAsync(who);
            return await FirstRefusedAsync(
                who.AddPageFileAsync(page, "plan.txt", "Bring the plan."),
                who.PostAsync(
                    $"/api/pages/{page}/post-preview",
                    new { post = LooseLantern.Server.Data.Model.PagePost.Usual, mail = "booked" }
                )
            );
        },
        ["Copy, archive, take back, export and import a page with their own time"] = async (scene, who) =>
        {
            var page = await scene.MakePageAsync(who);
            var file = await scene.Owner.Http.GetByteArrayAsync($"/api/pages/{page}/export");
            return await FirstRefusedAsync(
                who.PostAsync($"/api/pages/{page}/copy", new { }),
                who.Http.GetAsync($"/api/pages/{page}/export"),
                who.UploadAsync(HttpMethod.Post, "/api/pages/import", file),
                ArchiveAndTakeBackAsync(who, page)
            );
        },
        ["Give a page of their own time a picture, and one guest an address of it"] = async (scene, who) =>
        {
            var page = await scene.MakePageAsync(who);
            await scene.Owner.PostAsync($"/api/pages/{page}/publish", new { version = 1 });
            return await FirstRefusedAsync(
                who.UploadAsync(HttpMethod.Put, $"/api/pages/{page}/picture", DeskTests.Png(30, 30)),
                who.DeleteAsync($"/api/pages/{page}/picture"),
                who.PostAsync(
                    $"/api/pages/{page}/personal-addresses",
                    new { name = "Ottilie Wren", email = "ottilie@wren.example" }
                )
            );
        },
        ["Make, send out, hold, change, ask again by and revoke a link of their own time"] = async (scene, who) =>
        {
            (await who.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).Dispose();
            var id = (
                await scene.Owner.MakeLinkAsync(draft =>
                    draft.Seats = [
                        [who.HostId],
                    ]
                )
            ).GetProperty("row").GetProperty("id").GetGuid();
            var used = await FirstRefusedAsync(
                who.PostAsync("/api/links", who.Link().Form()),
                who.PostAsync($"/api/links/{id}/out", new { }),
                who.HoldAsync(id),
                who.PostAsync($"/api/links/{id}/ask-again", new { word = "" }),
                who.PostAsync($"/api/links/{id}/release", new { starts = new[] { LinkDraft.Nine } }),
                who.Http.GetAsync("/api/links"),
                who.Http.GetAsync("/api/links/beginnings")
            );
            return await FirstRefusedAsync(Task.FromResult(used), who.PostAsync($"/api/links/{id}/revoke", new { }));
        },
        ["Open, change and dress a desk"] = (scene, who) =>
            FirstRefusedAsync(
                who.PostAsync(
                    "/api/desks",
                    new
                    {
                        address = World.Unique("desk"),
                        name = "Another desk",
                        hostId = (Guid?)null,
                    }
                ),
                who.PutAsync($"/api/desks/{scene.Owner.DeskId}", DeskTests.Form()),
                who.UploadAsync(
                    HttpMethod.Put,
                    $"/api/desks/{scene.Owner.DeskId}/pictures/logo",
                    DeskTests.Png(30, 30)
                ),
                who.DeleteAsync($"/api/desks/{scene.Owner.DeskId}/pictures/logo")
            ),
        ["Read guests and what happened with them, and note something"] = async (scene, who) =>
        {
            var guest = await scene.GuestAsync();
            return await FirstRefusedAsync(
                who.PostAsync("/api/guests/list", new { }),
                who.Http.GetAsync($"/api/guests/{guest}"),
                who.Http.GetAsync($"/api/guests/{guest}/history"),
                who.Http.GetAsync("/api/guests/views"),
                who.Http.GetAsync("/api/guests/fields"),
                who.PostAsync($"/api/guests/{guest}/notes", new { text = "Rings." })
            );
        },
        ["Write guests down, change and merge them, and part them again"] = async (scene, who) =>
        {
            var (one, other) = (await scene.GuestAsync(), await scene.GuestAsync());
            var merged = await FirstRefusedAsync(
                Task.FromResult(await who.PostAsync("/api/guests", GuestScene.Form("Osric Pell"))),
                Task.FromResult(
                    await who.PutAsync(
                        $"/api/guests/{one}",
                        new { version = 1, form = GuestScene.Form("Ottilie Wren") }
                    )
                ),
                Task.FromResult(await who.PostAsync($"/api/guests/{one}/keep-apart", new { other })),
                Task.FromResult(await who.MergeAsync(one, other))
            );
            // Whoever may not merge is refused the parting of what an owner merged.
            if (!merged.IsSuccessStatusCode)
                (await scene.Owner.MergeAsync(one, other)).EnsureSuccessStatusCode();
            var merge = (await scene.Owner.GetAsync($"/api/guests/{one}")).GetProperty("merges")[0].Id();
            return await FirstRefusedAsync(
                Task.FromResult(merged),
                who.PostAsync($"/api/guests/merges/{merge}/undo", new { })
            );
        },
        ["Erase guests, and say how long they are kept"] = async (scene, who) =>
        {
            var guest = await scene.GuestAsync();
            var rules = new { kinds = Array.Empty<object>(), withoutBooking = (int?)null };
            return await FirstRefusedAsync(
                who.Http.GetAsync("/api/guests/retention"),
                who.PostAsync("/api/guests/retention/preview", rules),
                who.PutAsync("/api/guests/retention", rules),
                who.Http.GetAsync($"/api/guests/{guest}/erasing"),
                who.PostAsync($"/api/guests/{guest}/erase", new { version = 1 })
            );
        },
        ["Send one offer to several guests, and ask the silent again"] = async (scene, who) =>
        {
            await scene.Owner.PublishAsync();
            var mailing = new
            {
                subject = "Hello",
                body = "{{ link }}",
                offer = new { kind = "page", id = (await scene.Owner.PagesAsync())[0].Id() },
                guests = new[] { new { name = "Ottilie Wren", email = "ottilie@wren.example" } },
            };
            var sent = await who.PostAsync("/api/mailings", mailing, "a press");
            var id = sent.IsSuccessStatusCode ? (await sent.ReadAsync(HttpStatusCode.Created)).Id() : Guid.NewGuid();
            return await FirstRefusedAsync(
                Task.FromResult(sent),
                who.Http.GetAsync("/api/mailings"),
                who.PostAsync("/api/mailings/guests", new { }),
                who.PostAsync("/api/mailings/pasted", new { text = "Ottilie Wren, ottilie@wren.example" }),
                who.PostAsync("/api/mailings/preview", new { mailing, show = 0 }),
                who.PostAsync($"/api/mailings/{id}/ask-again", new { word = "" }, "a press")
            );
        },
        ["Export bookings"] = (_, who) =>
            FirstRefusedAsync(
                who.Http.GetAsync("/api/bookings/export.csv"),
                who.Http.GetAsync("/api/bookings/export.ics")
            ),
        ["Save a view of bookings, and delete it"] = async (scene, who) =>
        {
            var saved = await (
                await scene.Owner.PutAsync("/api/bookings/views", new { name = "All", filter = new { } })
            ).ReadAsync(HttpStatusCode.OK);
            return await FirstRefusedAsync(
                who.PutAsync("/api/bookings/views", new { name = "Mine", filter = new { } }),
                who.DeleteAsync($"/api/bookings/views/{saved.Id()}")
            );
        },
        ["Note something of a booking, and find anything by words"] = async (scene, who) =>
            await FirstRefusedAsync(
                who.PostAsync(
                    $"/api/bookings/{await scene.BookingAsync(scene.Owner)}/notes",
                    new { text = "Brings a dog." }
                ),
                who.Http.GetAsync("/api/find?words=dog")
            ),
        ["See flagged bookings"] = (_, who) => who.Http.GetAsync("/api/bookings/flagged"),
        ["Save letters, and write to guests"] = async (scene, who) =>
        {
            var guest = await scene.GuestAsync();
            var letter = new
            {
                guestId = guest,
                subject = "Hello",
                body = "Hello",
                offer = new { kind = "nothing" },
            };
            return await FirstRefusedAsync(
                who.Http.GetAsync("/api/letters"),
                who.Http.GetAsync($"/api/letters/choices?guest={guest}"),
                who.PostAsync("/api/letters/preview", letter),
                who.PostAsync("/api/letters/draft.eml", letter, "a press"),
                who.PostAsync(
                    "/api/letters",
                    new
                    {
                        name = "Hello",
                        subject = "Hello",
                        body = "Hello",
                        isTeams = true,
                        patternId = (Guid?)null,
                    }
                )
            );
        },
        ["Save a view of guests, and delete it"] = async (scene, who) =>
        {
            var saved = await (
                await scene.Owner.PutAsync("/api/guests/views", new { name = "All", filter = new { } })
            ).ReadAsync(HttpStatusCode.OK);
            return await FirstRefusedAsync(
                who.PutAsync("/api/guests/views", new { name = "Mine", filter = new { } }),
                who.DeleteAsync($"/api/guests/views/{saved.Id()}")
            );
        },
        ["Import guests, undo an import, export guests and all that is kept of one"] = async (scene, who) =>
        {
            var file = "Name,Email\nOsric,osric@pell.example"u8.ToArray();
            var look = await (await scene.Owner.UploadAsync(HttpMethod.Post, "/api/guests/imports", file)).ReadAsync(
                HttpStatusCode.OK
            );
            var run = await who.PostAsync($"/api/guests/imports/{look.Id()}/run", new { });
            if (!run.IsSuccessStatusCode)
                await scene.Owner.PostAsync($"/api/guests/imports/{look.Id()}/run", new { });
            return await FirstRefusedAsync(
                who.UploadAsync(HttpMethod.Post, "/api/guests/imports", file),
                Task.FromResult(run),
                who.Http.GetAsync("/api/guests/imports"),
                who.Http.GetAsync("/api/guests/export.csv"),
                who.Http.GetAsync("/api/guests/export.vcf"),
                who.Http.GetAsync($"/api/guests/{await scene.GuestAsync()}/data.json"),
                who.PostAsync($"/api/guests/imports/{look.Id()}/undo", new { })
            );
        },
        ["Change the fields that guests have"] = (_, who) => who.PutAsync("/api/guests/fields", Array.Empty<object>()),
        ["Download the case file of a page"] = async (scene, who) =>
            await who.Http.GetAsync($"/api/pages/{await scene.MakePageAsync(who)}/case"),
        ["Join a calendar of their own"] = (_, who) => who.JoinCalendarAsync(Scene.EmptyCalendar, who.HostId),
        ["Make named hours"] = (_, who) => who.PostAsync("/api/hours", Scene.Hours("Winter")),
        ["Change named hours that nobody has"] = async (scene, who) =>
            await who.PutAsync(
                $"/api/hours/{await scene.FreeHoursAsync()}",
                new { version = 1, form = Scene.Hours("Summer") }
            ),
        ["Take away named hours that nobody has"] = async (scene, who) =>
            await who.DeleteAsync($"/api/hours/{await scene.FreeHoursAsync()}"),
        ["Add a room or a thing"] = (_, who) => who.PostAsync("/api/hosts", Scene.Room),
        ["Change a room or a thing"] = async (scene, who) =>
            await who.PutAsync(
                $"/api/hosts/{await scene.RoomAsync()}",
                new
                {
                    name = "Slip 3",
                    zone = "Europe/Copenhagen",
                    hoursId = (Guid?)null,
                    weight = 1,
                    dailyCap = 4,
                    weeklyCap = (int?)null,
                }
            ),
        ["Take a room or a thing off the team"] = async (scene, who) =>
            await who.DeleteAsync($"/api/hosts/{await scene.RoomAsync()}"),
        ["Invite people and take invitations back"] = async (scene, who) =>
            await FirstRefusedAsync(
                who.PostAsync("/api/invitations", Scene.Invitation("new")),
                who.DeleteAsync($"/api/invitations/{await scene.InviteAsync()}")
            ),
        ["Change roles"] = async (scene, who) =>
            await who.PutAsync(
                $"/api/people/{await scene.PersonAsync()}/roles",
                new
                {
                    isOwner = false,
                    isCoordinator = true,
                    isHost = true,
                }
            ),
        ["Let somebody leave"] = async (scene, who) =>
            await who.PostAsync($"/api/people/{await scene.PersonAsync()}/leave", new { toHostId = (Guid?)null }),
        ["Change the workspace's name and zone"] = (_, who) =>
            who.PutAsync("/api/workspace", new { name = "Another Yard", zone = "Europe/Dublin" }),
        ["Change the workspace's defaults"] = (_, who) => who.PutAsync("/api/workspace/usual", Scene.Usual()),
        ["Go through the first run"] = (_, who) =>
            FirstRefusedAsync(
                who.PostAsync("/api/first-run/steps/zone", new { }),
                who.PostAsync("/api/first-run/end", new { })
            ),
    };

    private static async Task<HttpResponseMessage> ArchiveAndTakeBackAsync(Coordinator who, Guid page) =>
        await who.PostAsync($"/api/pages/{page}/archive", new { version = 1 }) is { IsSuccessStatusCode: true }
            ? await who.PostAsync($"/api/pages/{page}/restore", new { version = 2 })
            : await who.PostAsync($"/api/pages/{page}/restore", new { version = 1 });

    private static readonly Dictionary<
        string,
        Func<Scene, Coordinator, Coordinator, Task<HttpResponseMessage>>
    > OnAHost = new()
    {
        ["Offer their time on a page"] = (_, host, who) =>
            who.PostAsync("/api/pages", who.Draft(page => page.HostId = host.HostId).Form()),
        ["Offer their time by a link, and hold it"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            var id = (
                await scene.Owner.MakeLinkAsync(draft =>
                    draft.Seats = [
                        [host.HostId],
                    ]
                )
            ).GetProperty("row").GetProperty("id").GetGuid();
            return await FirstRefusedAsync(
                who.PostAsync(
                    "/api/links",
                    who.Link(draft =>
                            draft.Seats = [
                                [host.HostId],
                            ]
                        )
                        .Form()
                ),
                who.HoldAsync(id),
                who.PostAsync($"/api/links/{id}/out", new { })
            );
        },
        ["Book their time by hand, of a link"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            var id = (
                await scene.Owner.MakeLinkAsync(draft =>
                    draft.Seats = [
                        [host.HostId],
                    ]
                )
            ).GetProperty("row").GetProperty("id").GetGuid();
            return await who.PostAsync($"/api/links/{id}/bookings", new { start = LinkDraft.Nine, duration = 30 });
        },
        ["Join a calendar of theirs"] = (_, host, who) => who.JoinCalendarAsync(Scene.EmptyCalendar, host.HostId),
        ["Replace the file of a calendar of theirs"] = async (_, host, who) =>
            await who.ReplaceCalendarAsync(await Scene.CalendarOfAsync(host), Scene.EmptyCalendar),
        ["Choose whether a calendar of theirs is asked"] = async (_, host, who) =>
            await who.PutAsync(
                $"/api/calendars/{await Scene.CalendarOfAsync(host)}",
                new
                {
                    name = "Own",
                    isAsked = false,
                    tentativeCounts = true,
                }
            ),
        ["Join an address or an account of theirs"] = async (_, host, who) =>
        {
            // Whoever may join one is told that nothing is at this address.
            var answer = await who.PostAsync(
                "/api/calendars/address",
                new { @for = new { hostId = host.HostId }, address = "nowhere" }
            );
            return answer.StatusCode == HttpStatusCode.BadRequest ? new HttpResponseMessage(HttpStatusCode.OK) : answer;
        },
        ["Join a calendar that counts for them and others"] = async (scene, host, who) =>
            await who.UploadAsync(
                HttpMethod.Post,
                "/api/calendars",
                System.Text.Encoding.UTF8.GetBytes(Scene.EmptyCalendar),
                ("hostIds", $"{host.HostId},{await scene.RoomAsync()}")
            ),
        ["Choose which calendar their bookings are written to"] = (_, host, who) =>
            who.PutAsync($"/api/hosts/{host.HostId}/written-calendar", new { calendarId = (Guid?)null }),
        ["Write entries into the calendar they have here"] = async (_, host, who) =>
        {
            var kept = (await host.GetAsync("/api/calendars"))
                .EnumerateArray()
                .Single(row =>
                    row.GetProperty("hostId").ValueKind == JsonValueKind.String
                    && row.GetProperty("hostId").GetGuid() == host.HostId
                    && row.GetProperty("kind").GetString() == "builtIn"
                );
            return await who.PostAsync(
                $"/api/calendars/{kept.GetProperty("id").GetGuid()}/entries",
                new
                {
                    title = "Dentist",
                    start = "2026-12-08T09:00:00",
                    end = "2026-12-08T10:00:00",
                    wholeDay = false,
                    shows = "busy",
                    repeats = "once",
                    until = (string?)null,
                }
            );
        },
        ["Choose what becomes of a booking whose event they moved or deleted"] = async (scene, host, who) =>
        {
            var mayOffer = await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants);
            mayOffer.StatusCode.ShouldBe(HttpStatusCode.OK);
            return await who.PostAsync($"/api/written-events/{await scene.DeletedEventAsync(host)}/put-back", new { });
        },
        ["Take a calendar of theirs away"] = async (_, host, who) =>
            await who.DeleteAsync($"/api/calendars/{await Scene.CalendarOfAsync(host)}"),
        ["Change the hours that they alone have"] = async (_, host, who) =>
            await who.PutAsync(
                $"/api/hours/{(await host.OwnHostAsync()).GetProperty("hoursId").GetGuid()}",
                new { version = 1, form = Scene.Hours("Theirs") }
            ),
        ["Choose which hours are theirs"] = (_, host, who) =>
            who == host
                ? who.PutAsync("/api/me/hours", new { hoursId = (Guid?)null })
                : who.PutAsync(
                    $"/api/hosts/{host.HostId}",
                    new
                    {
                        name = (string?)null,
                        zone = (string?)null,
                        hoursId = (Guid?)null,
                        weight = 1,
                        dailyCap = (int?)null,
                        weeklyCap = (int?)null,
                    }
                ),
        ["Read what their events are called"] = async (_, host, who) =>
        {
            await (await host.JoinCalendarAsync(Scene.CalendarWith("Dentist"), host.HostId)).ReadAsync(
                HttpStatusCode.Created
            );
            var board = await who.GetAsync($"/api/board?host={host.HostId}");
            return new HttpResponseMessage(
                board.ToString().Contains("Dentist", StringComparison.Ordinal)
                    ? HttpStatusCode.OK
                    : HttpStatusCode.Forbidden
            );
        },
        ["Call off flagged bookings of theirs"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            var booking = await scene.BookingAsync(host);
            return await who.PostAsync(
                "/api/bookings/flagged/call-off",
                new
                {
                    bookings = new[] { booking },
                    subject = "Hello",
                    body = "Hello",
                }
            );
        },
        ["Cancel a booking of theirs"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            return await who.PostAsync($"/api/bookings/{await scene.BookingAsync(host)}/cancel", new { word = "" });
        },
        ["Move a booking of theirs"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            return await who.PostAsync(
                $"/api/bookings/{await scene.BookingAsync(host)}/move",
                new { start = "2026-12-08T09:00:00Z" }
            );
        },
        ["Note whether a guest of theirs came, and write to the guest"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            var booking = await scene.BookingAsync(host);
            var noted = await who.PutAsync($"/api/bookings/{booking}/outcome", new { outcome = "happened" });
            // Whoever may is told that it has not begun.
            return noted.StatusCode == HttpStatusCode.Conflict
                ? await who.PostAsync($"/api/bookings/{booking}/words", new { word = "Bring boots." }, key: "one")
                : noted;
        },
        ["Change who comes along with a guest of theirs"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            return await who.PutAsync(
                $"/api/bookings/{await scene.BookingAsync(host)}/companions",
                new { people = new[] { new { name = "", email = "tora@lind.example" } }, party = (int?)null }
            );
        },
        ["Find cover for them"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            var booking = (await scene.Owner.GetAsync($"/api/bookings/{await scene.BookingAsync(host)}")).GetProperty(
                "row"
            );
            return await who.PostAsync(
                "/api/covers",
                new
                {
                    away = new[] { host.HostId },
                    lines = new[]
                    {
                        new
                        {
                            session = booking.Text("sessionId"),
                            before = new[] { new { seat = 0, host = host.HostId } },
                            // A room's time is booked by whoever coordinates.
                            after = new[] { new { seat = 0, host = await scene.RoomAsync() } },
                        },
                    },
                }
            );
        },
        ["Give a booking of theirs to another"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            var booking = await scene.Owner.GetAsync($"/api/bookings/{await scene.BookingAsync(host)}");
            return await who.PostAsync(
                $"/api/sessions/{booking.GetProperty("row").Text("sessionId")}/hosts",
                new
                {
                    from = host.HostId,
                    // A room's time is booked by whoever coordinates.
                    to = await scene.RoomAsync(),
                    tellGuests = true,
                }
            );
        },
        ["Accept or decline what is asked of them"] = async (scene, host, who) =>
        {
            (await host.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
            return await FirstRefusedAsync(
                who.PostAsync($"/api/bookings/{await scene.BookingAsync(host, approvalHours: 24)}/accept", new { }),
                who.PostAsync(
                    $"/api/bookings/{await scene.BookingAsync(host, approvalHours: 24, start: "2026-12-09T08:00:00Z")}/decline",
                    new { word = "" }
                )
            );
        },
        ["Set their weight and caps"] = async (_, host, who) =>
            await who.PutAsync(
                $"/api/hosts/{host.HostId}",
                new
                {
                    name = (string?)null,
                    zone = (string?)null,
                    hoursId = (await host.OwnHostAsync()).GetProperty("hoursId").GetGuid(),
                    weight = 3,
                    dailyCap = 5,
                    weeklyCap = (int?)null,
                }
            ),
        // Everybody's choice is for their own time; that of another's can't even be asked for.
        ["Choose who acts for them"] = async (scene, host, who) =>
        {
            var answer = await who.PutAsync($"/api/me/acting/{scene.OwnerId}", Scene.AllGrants);
            var grants = await host.GetAsync("/api/me/acting");
            return grants
                .EnumerateArray()
                .Single(row => row.GetProperty("personId").GetGuid() == scene.OwnerId)
                .GetProperty("grant")
                .GetProperty("mayMove")
                .GetBoolean()
                ? answer
                : new HttpResponseMessage(HttpStatusCode.Forbidden);
        },
    };

    public static TheoryData<string, string, bool> RoleCells() => Cells("## By role");

    public static TheoryData<string, string, bool> HostCells() => Cells("## On a host's time");

    [Theory, MemberData(nameof(RoleCells))]
    public async Task What_a_role_may_do(string work, string role, bool may)
    {
        var scene = await Scene.MakeAsync(world);
        var who = role switch
        {
            "owner" => scene.Owner,
            "coordinator" => await scene.JoinAsync(isCoordinator: true, isHost: true),
            _ => await scene.JoinAsync(isHost: true),
        };
        Held(await ByRole[work](scene, who), may);
    }

    [Theory, MemberData(nameof(HostCells))]
    public async Task What_may_be_done_on_a_hosts_time(string work, string by, bool may)
    {
        var scene = await Scene.MakeAsync(world);
        var host = await scene.JoinAsync(isHost: true);
        var who = by switch
        {
            "the host" => host,
            "another host" => await scene.JoinAsync(isHost: true),
            _ => await scene.JoinAsync(isCoordinator: true, isHost: true),
        };
        if (by == "a coordinator they let")
            (await host.PutAsync($"/api/me/acting/{who.PersonId}", Scene.AllGrants)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
        Held(await OnAHost[work](scene, host, who), may);
    }

    [Fact]
    public void The_tables_and_the_tests_have_the_same_rows()
    {
        RoleCells().Select(row => row.Data.Item1).Distinct().ShouldBe(ByRole.Keys, ignoreOrder: true);
        HostCells().Select(row => row.Data.Item1).Distinct().ShouldBe(OnAHost.Keys, ignoreOrder: true);
    }

    private static void Held(HttpResponseMessage answer, bool may)
    {
        if (may)
            answer.IsSuccessStatusCode.ShouldBeTrue(
                $"{answer.StatusCode}: {answer.Content.ReadAsStringAsync().Result}"
            );
        else
            answer.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    private static async Task<HttpResponseMessage> FirstRefusedAsync(params Task<HttpResponseMessage>[] asked)
    {
        var answers = await Task.WhenAll(asked);
        return answers.FirstOrDefault(answer => !answer.IsSuccessStatusCode) ?? answers[0];
    }

    private static TheoryData<string, string, bool> Cells(string heading)
    {
        var lines = File.ReadAllLines(Path.Combine(Checkout.Root, "docs/permissions.md"))
            .SkipWhile(line => line != heading)
            .Skip(1)
            .TakeWhile(line => !line.StartsWith("## ", StringComparison.Ordinal))
            .Where(line => line.StartsWith('|'))
            .Select(Split)
            .ToList();
        var data = new TheoryData<string, string, bool>();
        foreach (var row in lines.Skip(2))
        {
            for (var column = 1; column < row.Length; column++)
                data.Add(row[0], lines[0][column], row[column] == "yes");
        }

        return data;

        static string[] Split(string line) => line.Trim('|').Split('|').Select(cell => cell.Trim()).ToArray();
    }
}
