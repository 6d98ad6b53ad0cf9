using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Server.Tests;

/// <summary>Nothing crosses from one workspace to another.</summary>
public class TenancyTests(World world)
{
    [Fact]
    public async Task What_one_workspace_has_another_can_neither_see_nor_use_nor_change()
    {
        var ada = await world.SignUpAsync();
        var address = await ada.PublishAsync();
        var page = (await ada.PagesAsync())[0];
        var id = page.GetProperty("id").GetGuid();
        var calendar = await (await ada.JoinCalendarAsync("BEGIN:VCALENDAR\nEND:VCALENDAR\n")).ReadAsync(
            HttpStatusCode.Created
        );
        (await world.Guest().BookAsync(ada.Desk, address, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        var eve = await world.SignUpAsync();

        (await eve.PagesAsync()).GetArrayLength().ShouldBe(0);
        (await eve.GetAsync("/api/calendars"))
            .EnumerateArray()
            .Select(row => row.GetProperty("kind").GetString())
            .ShouldBe(["builtIn"]);
        (await eve.GetAsync("/api/bookings")).GetProperty("total").GetInt32().ShouldBe(0);
        (await eve.GetAsync("/api/hosts")).GetArrayLength().ShouldBe(1);
        (await eve.GetAsync($"/api/board?host={ada.HostId}")).GetProperty("hosts").GetArrayLength().ShouldBe(0);

        foreach (var path in new[] { $"/api/pages/{id}", $"/api/pages/{id}/supply" })
            (await eve.Http.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await eve.PutAsync($"/api/pages/{id}", new { version = 2, form = eve.Draft().Form() })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await eve.PostAsync($"/api/pages/{id}/unpublish", new { version = 2 })).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await eve.DeleteAsync($"/api/calendars/{calendar.GetProperty("id").GetGuid()}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (
            await (
                await eve.PostAsync("/api/pages", eve.Draft(draft => draft.HostId = ada.HostId).Form())
            ).FaultsAsync()
        ).ShouldContainKey("times.lineUp[0].hostIds[0]");
        (
            await (
                await eve.PostAsync("/api/pages", eve.Draft(draft => draft.DeskId = ada.DeskId).Form())
            ).FaultsAsync()
        ).ShouldContainKey("deskId");
        (
            await (
                await eve.PostAsync(
                    "/api/pages/supply",
                    new { times = eve.Draft(draft => draft.HostId = ada.HostId).Times() }
                )
            ).FaultsAsync()
        ).ShouldContainKey("times.lineUp[0].hostIds[0]");
        (
            await (await eve.JoinCalendarAsync("BEGIN:VCALENDAR\nEND:VCALENDAR\n", ada.HostId)).FaultsAsync()
        ).ShouldContainKey("hostId");
        (await world.Guest().GetAsync($"/api/public/desks/{eve.Desk}/pages/{address}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    [Fact]
    public async Task Calendars_events_bookings_and_post_of_another_workspace_are_out_of_reach_whatever_their_ids()
    {
        var scene = await Scene.MakeAsync(world);
        var ada = scene.Owner;
        var written = await scene.DeletedEventAsync(ada);
        var booking = (await ada.GetAsync("/api/bookings")).GetProperty("rows")[0].GetProperty("id").GetGuid();
        var page = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var message = (await ada.GetAsync("/api/post")).GetProperty("rows")[0].GetProperty("id").GetGuid();
        var calendars = (await ada.GetAsync("/api/calendars"))
            .EnumerateArray()
            .ToDictionary(row => row.GetProperty("kind").GetString()!, row => row.GetProperty("id").GetGuid());
        var entry = new
        {
            title = "x",
            start = "2026-12-08T09:00:00",
            end = "2026-12-08T10:00:00",
            wholeDay = false,
            shows = "busy",
            repeats = "once",
            until = (string?)null,
        };
        var eve = await world.SignUpAsync();

        foreach (
            var answer in await Task.WhenAll(
                eve.PostAsync($"/api/written-events/{written}/put-back", new { }),
                eve.PostAsync($"/api/written-events/{written}/leave-off", new { }),
                eve.PostAsync($"/api/written-events/{written}/move", new { }),
                eve.PostAsync($"/api/bookings/{booking}/cancel", new { word = "" }),
                eve.Http.GetAsync($"/api/bookings/{booking}"),
                eve.PostAsync($"/api/bookings/{booking}/move", new { start = "2026-12-09T09:00:00Z" }),
                eve.Http.GetAsync($"/api/bookings/{booking}/openings?from=2026-12-08&to=2026-12-08"),
                eve.PostAsync($"/api/bookings/{booking}/accept", new { }),
                eve.PostAsync($"/api/bookings/{booking}/decline", new { word = "" }),
                eve.AddPageFileAsync(page, "x.txt", "x"),
                eve.PostAsync($"/api/pages/{page}/post-preview", new { post = PagePost.Usual, mail = "booked" }),
                eve.Http.GetAsync($"/api/post/{message}"),
                eve.PostAsync($"/api/post/{message}/again", new { }),
                eve.PostAsync($"/api/pages/{page}/publish", new { version = 2 }),
                eve.PostAsync($"/api/pages/{page}/discard", new { version = 2 }),
                eve.PostAsync($"/api/pages/{page}/archive", new { version = 2 }),
                eve.PostAsync($"/api/pages/{page}/copy", new { }),
                eve.PutAsync(
                    $"/api/pages/{page}/blocks",
                    new { version = 2, blocks = new { whole = false, list = Array.Empty<object>() } }
                ),
                eve.Http.GetAsync($"/api/pages/{page}/editions"),
                eve.Http.GetAsync($"/api/pages/{page}/export"),
                eve.Http.GetAsync($"/api/pages/{page}/text"),
                eve.Http.GetAsync($"/api/pages/{page}/looks"),
                eve.Http.GetAsync($"/api/pages/{page}/as-guest"),
                eve.Http.GetAsync($"/api/pages/{page}/as-guest/openings?from=2026-12-08&to=2026-12-08"),
                eve.Http.GetAsync($"/api/pages/{page}/picture"),
                eve.PostAsync($"/api/pages/{page}/personal-addresses", new { name = "x", email = "x@y.example" }),
                eve.UploadAsync(HttpMethod.Put, $"/api/pages/{page}/picture", DeskTests.Png(30, 30)),
                eve.PutAsync($"/api/desks/{ada.DeskId}", DeskTests.Form()),
                eve.UploadAsync(HttpMethod.Put, $"/api/desks/{ada.DeskId}/pictures/logo", DeskTests.Png(30, 30)),
                eve.PostAsync($"/api/calendars/{calendars["account"]}/look", new { }),
                eve.PutAsync($"/api/calendars/{calendars["account"]}/password", new { password = "x" }),
                eve.PutAsync(
                    $"/api/calendars/{calendars["account"]}",
                    new
                    {
                        name = "Mine",
                        isAsked = false,
                        tentativeCounts = false,
                    }
                ),
                eve.Http.GetAsync($"/api/calendars/{calendars["builtIn"]}/entries"),
                eve.PostAsync($"/api/calendars/{calendars["builtIn"]}/entries", entry),
                eve.PutAsync($"/api/hosts/{ada.HostId}/written-calendar", new { calendarId = (Guid?)null })
            )
        )
        {
            answer.StatusCode.ShouldBe(HttpStatusCode.NotFound, answer.RequestMessage!.RequestUri!.ToString());
        }

        var link = (await ada.SendLinkAsync(draft => draft.Picked = [LinkDraft.Friday])).Id;
        foreach (
            var answer in await Task.WhenAll(
                eve.Http.GetAsync($"/api/links/{link}"),
                eve.PutAsync($"/api/links/{link}", new { version = 2, form = eve.Link().Form() }),
                eve.PostAsync($"/api/links/{link}/out", new { }),
                eve.HoldAsync(link),
                eve.PostAsync($"/api/links/{link}/release", new { starts = new[] { LinkDraft.Friday } }),
                eve.PostAsync($"/api/links/{link}/mail", new { word = "" }),
                eve.PostAsync($"/api/links/{link}/ask-again", new { word = "" }),
                eve.PostAsync(
                    $"/api/links/{link}/bookings",
                    new
                    {
                        start = LinkDraft.Friday,
                        duration = 30,
                        guests = new[] { new { name = "x", email = "x@y.example" } },
                    }
                ),
                eve.PostAsync($"/api/links/{link}/revoke", new { }),
                eve.DeleteAsync($"/api/links/{link}"),
                eve.DeleteAsync($"/api/links/{link}/wishes/{Guid.NewGuid()}"),
                eve.PostAsync("/api/links/text", new { form = eve.Link().Form(), of = link })
            )
        )
        {
            answer.StatusCode.ShouldBe(HttpStatusCode.NotFound, answer.RequestMessage!.RequestUri!.ToString());
        }

        (await eve.GetAsync("/api/links")).GetProperty("total").GetInt32().ShouldBe(0);
        (await eve.GetAsync("/api/links/beginnings")).GetProperty("links").GetArrayLength().ShouldBe(0);
        (
            await (
                await eve.PostAsync(
                    "/api/links",
                    eve.Link(draft =>
                            draft.Seats = [
                                [ada.HostId],
                            ]
                        )
                        .Form()
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["times.lineUp[0].hostIds[0]"]);
        (
            await (
                await eve.PutAsync(
                    $"/api/hosts/{eve.HostId}/written-calendar",
                    new { calendarId = calendars["account"] }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["calendarId"]);
        (
            await (
                await eve.PostAsync(
                    "/api/pages",
                    eve.Draft(page =>
                            page.Calendars = [
                                new
                                {
                                    hostId = eve.HostId,
                                    asked = new[] { calendars["builtIn"] },
                                    writtenTo = (Guid?)null,
                                },
                            ]
                        )
                        .Form()
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["times.calendars[0].asked[0]"]);
        (await ada.GetAsync("/api/bookings"))
            .GetProperty("rows")[0]
            .GetProperty("outside")
            .GetArrayLength()
            .ShouldBe(1);
    }

    [Fact]
    public async Task Every_row_but_the_workspace_itself_bears_its_workspace_and_is_filtered_by_it()
    {
        var without = await world.LookAsync(db =>
            Task.FromResult(
                db.Model.GetEntityTypes()
                    .Where(type =>
                        !typeof(IBelongsToWorkspace).IsAssignableFrom(type.ClrType)
                        || type.GetDeclaredQueryFilters().Count == 0
                    )
                    .Select(type => type.ClrType.Name)
                    .Order()
                    .ToList()
            )
        );
        // Data Protection's keys are the site's; notes of changes name ids alone; Identity's three hang on a person; of
        // who tries to sign in or asks to sign up no workspace is known.
        without.ShouldBe([
            "DataProtectionKey",
            "FactChange",
            "IdentityUserClaim`1",
            "IdentityUserLogin`1",
            "IdentityUserToken`1",
            "SignInTriesRow",
            "SignUpLink",
            "Workspace",
        ]);
    }

    [Fact]
    public async Task Saving_a_row_of_another_workspace_throws()
    {
        var ada = await world.SignUpAsync();
        var eve = await world.SignUpAsync();
        var (own, other) = (await world.WorkspaceOfAsync(ada.Desk), await world.WorkspaceOfAsync(eve.Desk));

        await Should.ThrowAsync<InvalidOperationException>(() => world.WithinAsync(own, db =>
            {
                db.Desks.Add(
                    new Desk
                    {
                        WorkspaceId = other,
                        Address = World.Unique("desk"),
                        Name = "Smuggled",
                    }
                );
                return db.SaveChangesAsync();
            }));
    }

    [Fact]
    public async Task The_database_itself_refuses_a_double_booking()
    {
        var ada = await world.SignUpAsync();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        CommitmentRow Row(Guid holder, int fromHour, int toHour) =>
            new()
            {
                WorkspaceId = workspace,
                HostId = ada.HostId,
                HolderId = holder,
                Kind = CommitmentKind.Booking,
                BufferBefore = 0,
                BufferAfter = 0,
                Span = new LooseLantern.Core.Span(
                    Instant.FromUtc(2026, 12, 8, fromHour, 0),
                    Instant.FromUtc(2026, 12, 8, toHour, 0)
                ).ToRange(),
            };
        var (one, two) = (Guid.NewGuid(), Guid.NewGuid());
        Task<int> Save(params CommitmentRow[] rows) => world.WithinAsync(workspace, db =>
            {
                db.Commitments.AddRange(rows);
                return db.SaveChangesAsync();
            });

        await Save(Row(one, 8, 10), Row(one, 9, 11), Row(two, 11, 12));
        var refused = await Should.ThrowAsync<DbUpdateException>(() => Save(Row(two, 10, 11)));
        refused
            .InnerException.ShouldBeOfType<PostgresException>()
            .ConstraintName.ShouldBe(CommitmentRow.NoDoubleBooking);
    }
}
