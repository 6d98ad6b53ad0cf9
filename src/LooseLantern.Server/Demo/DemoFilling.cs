using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.SignUp;
using LooseLantern.Server.Features.Team;
using LooseLantern.Server.Features.Workspaces;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>
/// Fills an empty database with the demo, through the same services that people use. Everything is relative to the day
/// it is loaded, so it never looks stale.
/// </summary>
public static class DemoFilling
{
    private const string FirstDesk = "brackwater";

    private const long OneAtATime = 0x4c616e7465726e;

    /// <summary>Loads the demo unless it is there. What an interrupted start left of it is taken away first.</summary>
    public static async Task FillOnceAsync(IServiceProvider services, CancellationToken ct)
    {
        await using var guard = services.CreateAsyncScope();
        var db = guard.ServiceProvider.GetRequiredService<LanternDb>();
        await db.Database.OpenConnectionAsync(ct);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_lock({OneAtATime})", ct);
        try
        {
            if (
                await db
                    .Desks.IgnoreQueryFilters()
                    .AsNoTracking()
                    .FirstOrDefaultAsync(desk => desk.Address == FirstDesk, ct) is
                { } first
            )
            {
                var isWhole = await db
                    .Pages.IgnoreQueryFilters()
                    .AnyAsync(
                        page =>
                            page.DeskId == first.Id
                            && page.Address == DemoPages.Last
                            && page.State == PageState.Published,
                        ct
                    );
                if (isWhole)
                {
                    guard.ServiceProvider.GetRequiredService<Tenant>().Enter(first.WorkspaceId);
                    await DemoCalendars.FollowAsync(guard.ServiceProvider, ct);
                    return;
                }

                await db
                    .Workspaces.IgnoreQueryFilters()
                    .Where(workspace => workspace.Id == first.WorkspaceId)
                    .ExecuteDeleteAsync(ct);
            }

            await using var scope = services.CreateAsyncScope();
            await FillAsync(scope.ServiceProvider, ct);
        }
        finally
        {
            await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_unlock({OneAtATime})", CancellationToken.None);
        }
    }

    private static async Task FillAsync(IServiceProvider services, CancellationToken ct)
    {
        // To the minute, so that a start at a chosen time makes the same demo whether it takes one second or three.
        var now = Instant.FromUnixTimeSeconds(
            services.GetRequiredService<IClock>().GetCurrentInstant().ToUnixTimeSeconds() / 60 * 60
        );
        var today = now.InZone(DateTimeZoneProviders.Tzdb[DemoPeople.Zone]).Date;

        var marit = await services
            .GetRequiredService<SigningUp>()
            .OpenAsync(
                new SignUpRequest(
                    "Brackwater Boatworks",
                    DemoPeople.Zone,
                    "Marit Oakes",
                    Mailbox("marit"),
                    DemoPeople.Password,
                    "Service desk",
                    FirstDesk
                ),
                link: null,
                ct
            );
        await services.GetRequiredService<SigningUp>().ProveAsync(marit, now - Duration.FromDays(90), ct);

        var hosts = new Dictionary<string, Guid>();
        var team = services.GetRequiredService<TeamBuilding>();
        foreach (var host in DemoPeople.Hosts)
        {
            var person = await team.AddPersonAsync(
                new NewPerson(host.Name, Mailbox(host.Key), DemoPeople.Password, host.Zone),
                ct
            );
            var added = await team.AddHostAsync(new NewHost(host.Name, host.Zone, host.Hours), person, ct);
            hosts[host.Key] = added.Id;
            team.Let(added, marit.Id);
        }

        await DemoCalendars.JoinAsync(services, hosts, today, ct);
        Forget(services);
        await DemoTeam.AddAsync(services, hosts, today, ct);

        await services
            .GetRequiredService<WorkspaceEditing>()
            .ChangeAsync(new WorkspaceForm("Brackwater Boatworks", DemoPeople.Zone, Kinds: DemoPages.Kinds), ct);
        var desks = services.GetRequiredService<DeskMaking>();
        await desks.MakeAsync("brackwater-commissions", "Commissions desk", ct);
        await desks.MakeAsync("brackwater-school", "Yard hand school", ct);
        var deskIds = await services
            .GetRequiredService<LanternDb>()
            .Desks.ToDictionaryAsync(desk => desk.Address, desk => desk.Id, ct);

        foreach (var (address, form) in DemoPages.Desks)
            await services.GetRequiredService<DeskEditing>().ChangeAsync(deskIds[address], form, ct);

        var editing = services.GetRequiredService<PageEditing>();
        var published = new List<Page>();
        Page? last = null;
        var asked = Guid.Empty;
        foreach (var page in DemoPages.All)
        {
            SeatForm[] lineUp =
            [
                .. page.Seats.Select(seat => new SeatForm([.. seat.Select(host => hosts[host])], SeatFill.Balanced)),
            ];
            var made = await editing.CreateAsync(page.Form(deskIds[page.Desk], lineUp, today), ct);
            if (made.Address == DemoPages.Asked)
                asked = made.Id;
            if (made.Address == DemoPages.Last)
                last = made;
            else if (page.Published)
                published.AddRange(
                    Enumerable.Repeat(await editing.PublishAsync(made.Id, made.Version, ct), page.Turns)
                );
        }

        Forget(services);
        await BookAsync(services, published, now, ct);
        Forget(services);
        await AskAsync(services, asked, ct);
        await DemoGroup.FillAsync(services, published, ct);
        await DemoGuests.AddAsync(services, now, ct);
        await DemoLinks.AddAsync(services, hosts, deskIds, marit, now, ct);
        await DemoLetters.AddAsync(services, hosts, deskIds, now, ct);
        await DemoGuests.NoteAsync(services, now, ct);
        await editing.PublishAsync(last!.Id, last.Version, ct);
    }

    /// <summary>
    /// Lets go of the rows that are written: one context writes all of the demo, and each save would look through
    /// everything before it.
    /// </summary>
    private static void Forget(IServiceProvider services) =>
        services.GetRequiredService<LanternDb>().ChangeTracker.Clear();

    /// <summary>
    /// Guests book as time goes on: each asks the page what is open on a day of the last five weeks and takes one of
    /// the times.
    /// </summary>
    private static async Task BookAsync(IServiceProvider services, List<Page> pages, Instant now, CancellationToken ct)
    {
        // A guest's turn, spread by a fixed recurrence so that the demo is the same each time.
        var turn = 7;
        for (var daysAgo = 35; daysAgo >= 0; daysAgo--)
        {
            var clock = new StoppedClock(now - Duration.FromDays(daysAgo));
            var unrolling = ActivatorUtilities.CreateInstance<CalendarUnrolling>(services, clock);
            var inputs = ActivatorUtilities.CreateInstance<OpeningsInputs>(services, unrolling, clock);
            var reserving = ActivatorUtilities.CreateInstance<TimeReserving>(
                services,
                ActivatorUtilities.CreateInstance<WishedPages>(services, inputs),
                ActivatorUtilities.CreateInstance<SessionFinding>(services, inputs, clock),
                ActivatorUtilities.CreateInstance<BookingWriting>(services, clock)
            );

            for (var of = 0; of < (daysAgo % 7 == 3 ? 3 : 1 + daysAgo % 2); of++)
            {
                turn = (turn * 37 + 11) % 997;
                var page = pages[turn % pages.Count];
                var guest = DemoPeople.Guests[turn % DemoPeople.Guests.Length];
                var rules = inputs.Rules(page);
                var day = clock.GetCurrentInstant().InZone(rules.Zone).Date;
                var duration = page.Durations[turn % page.Durations.Length];

                var openings = OpeningsComputation.Openings(
                    await inputs.ReadAsync(rules, day, day.PlusDays(12), duration, ct)
                );
                if (openings.Count == 0)
                    continue;
                var chosen = openings[turn * 13 % openings.Count];
                await reserving.BookAsync(
                    new BookingWish(page.Id, chosen.Start, duration, guest.Name, guest.Email, guest.Zone)
                    {
                        OneMore = true,
                    },
                    $"demo-{daysAgo}-{of}",
                    ct
                );
                Forget(services);
            }
        }
    }

    /// <summary>Somebody asks for a time that waits for a yes.</summary>
    private static async Task AskAsync(IServiceProvider services, Guid pageId, CancellationToken ct)
    {
        var inputs = services.GetRequiredService<OpeningsInputs>();
        var page = await services
            .GetRequiredService<PageEditing>()
            .Whole()
            .AsNoTracking()
            .SingleAsync(row => row.Id == pageId, ct);
        var rules = inputs.Rules(page);
        var from = inputs.Today(rules).PlusDays(7);
        if (await inputs.OpeningsAsync(rules, from, from.PlusDays(14), page.Durations[0], ct) is not [{ } first, ..])
            return;
        var guest = DemoPeople.Guests[5];
        await services
            .GetRequiredService<TimeReserving>()
            .BookAsync(
                new BookingWish(pageId, first.Start, page.Durations[0], guest.Name, guest.Email, guest.Zone),
                "demo-asked",
                ct
            );
    }

    private static string Mailbox(string name) => $"{name}@brackwater.example";
}
