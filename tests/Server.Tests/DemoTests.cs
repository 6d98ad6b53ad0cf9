using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Demo;
using LooseLantern.Server.Features.Bookings;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime.Testing;

namespace Server.Tests;

/// <summary>The demo is loaded once, whole, and for the day it is started on.</summary>
public sealed class DemoTests : IAsyncLifetime
{
    private static readonly FakeClock Clock = new(Instant.FromUtc(2027, 3, 26, 10, 0));

    private TestDatabase? _database;

    public async ValueTask InitializeAsync() => _database = await TestDatabase.CreateAsync();

    public ValueTask DisposeAsync() => _database!.DisposeAsync();

    [Fact]
    public async Task Starting_again_adds_nothing_and_an_interrupted_start_is_made_good()
    {
        var first = await StartAsync();
        first.Desks.ShouldBe(3);
        first.Pages.ShouldBe(11);
        // One in each state, one of them with its times held on two calendars.
        first.Links.ShouldBe(6);
        first.Held.ShouldBe(8);
        first.Calendars.ShouldBe(22);
        first.Bookings.ShouldBeGreaterThan(30);
        first.Upcoming.ShouldBeInRange(5, first.Bookings - 10);

        (await StartAsync()).ShouldBe(first);

        // The last page is published last of all: while it is a draft the demo is not whole.
        (
            await StartAsync(beforehand: db =>
                db.Pages.IgnoreQueryFilters()
                    .Where(page => page.Address == "launch-day")
                    .ExecuteUpdateAsync(set => set.SetProperty(page => page.State, PageState.Draft))
            )
        ).ShouldBe(first);
    }

    [Fact]
    public async Task Large_it_has_more_of_everything_once_and_all_of_it_can_be_read()
    {
        var small = await StartAsync();
        await using var app = new LanternApp(_database!.ConnectionString, Clock);
        var size = new LargeDemoSize(Hosts: 5, Pages: 9, Bookings: 60, Links: 40);
        await LargeDemo.FillOnceAsync(app.Services, size, TestContext.Current.CancellationToken);
        await LargeDemo.FillOnceAsync(app.Services, size, TestContext.Current.CancellationToken);
        var large = await StartAsync();
        (large.Pages, large.Links, large.Bookings).ShouldBe((small.Pages + 9, small.Links + 40, small.Bookings + 60));

        var marit = new Coordinator(app.CreateClient(), "brackwater");
        (
            await marit.PostAsync("/api/sign-in", new { email = "marit@brackwater.example", password = "lantern-demo" })
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        marit.ForgetToken();
        (await marit.GetAsync("/api/links?state=out")).GetProperty("total").GetInt32().ShouldBeGreaterThanOrEqualTo(2);
        (await marit.GetAsync("/api/bookings")).GetProperty("rows").GetArrayLength().ShouldBeGreaterThan(10);
        var guest = app.CreateClient();
        (await guest.GetStringAsync("/brackwater/berth-3")).ShouldContain("Survey at berth 3");
        // What is booked is open to nobody else, and each guest has a private link.
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
        var booked = db.Bookings.IgnoreQueryFilters().Where(row => row.GuestEmail.EndsWith("@guests.example"));
        var booking = await booked.FirstAsync();
        var secret = scope.ServiceProvider.GetRequiredService<PrivateLinks>().Reveal(booking.ProtectedSecret);
        (await guest.GetAsync($"/api/public/bookings/{secret}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        // Nothing was booked at a time to come, and each guest was told.
        (await booked.CountAsync(row => row.BookedAt > Clock.GetCurrentInstant())).ShouldBe(0);
        (await db.Messages.IgnoreQueryFilters().CountAsync(row => row.ToEmail.EndsWith("@guests.example"))).ShouldBe(
            60
        );
    }

    private async Task<(
        int Workspaces,
        int Desks,
        int Pages,
        int Calendars,
        int Bookings,
        int Upcoming,
        int Links,
        int Held
    )> StartAsync(Func<LanternDb, Task>? beforehand = null)
    {
        if (beforehand is not null)
        {
            await using var old = new LanternApp(_database!.ConnectionString, Clock);
            await using var scope = old.Services.CreateAsyncScope();
            await beforehand(scope.ServiceProvider.GetRequiredService<LanternDb>());
        }

        // Its calendars as they were before any booking was written to them.
        await using var standIn = await StandIn.StartAsync("2027-03-26");
        await using var app = new LanternApp(_database!.ConnectionString, Clock, demo: true, standIn: standIn);
        (await app.CreateClient().GetAsync("/api/public/desks/brackwater/pages/hull-survey")).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        await using var looking = app.Services.CreateAsyncScope();
        var db = looking.ServiceProvider.GetRequiredService<LanternDb>();
        var now = Clock.GetCurrentInstant();
        return (
            await db.Workspaces.IgnoreQueryFilters().CountAsync(),
            await db.Desks.IgnoreQueryFilters().CountAsync(),
            await db.Pages.IgnoreQueryFilters().CountAsync(page => page.Offer == null),
            await db.Calendars.IgnoreQueryFilters().CountAsync(),
            await db.Bookings.IgnoreQueryFilters().CountAsync(),
            await db.Sessions.IgnoreQueryFilters().CountAsync(session => session.Time.LowerBound > now),
            await db.Links.IgnoreQueryFilters().CountAsync(),
            await db.Commitments.IgnoreQueryFilters().CountAsync(row => row.HeldUntil > now)
        );
    }
}
