using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Server.Tests;

/// <summary>What guests are answered from memory is what the rows say, whatever changed them and whenever.</summary>
public class KeptOpeningsTests
{
    private const int Changes = 60;

    /// <summary>Compared, after each of many random changes, with what a slow reference makes of the rows.</summary>
    [Fact]
    public async Task Two_servers_answer_what_the_rows_say_after_any_change_and_at_any_time()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var world = own.World;
        await using var second = new LanternApp(world.ConnectionString, world.Clock) { OnlyAnswers = true };
        var ada = await world.SignUpAsync();
        var hours = await ada.PostAsync("/api/hours", Scene.Hours("Shop", [new { from = "09:00", to = "17:00" }]));
        var shop = (await hours.ReadAsync(HttpStatusCode.Created)).GetProperty("id").GetGuid();
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Hosts.ExecuteUpdateAsync(set => set.SetProperty(host => host.HoursId, shop))
        );
        var (page, id) = await PublishedAsync(ada, draft =>
            (draft.HoursMode, draft.Notice, draft.Places, draft.DailyCap) = ("both", 60, 2, 5)
        );
        HttpClient[] guests = [world.Guest(), second.CreateDefaultClient()];
        var random = new Random(18);
        var booked = new List<string>();
        for (var step = 0; step < Changes; step++)
        {
            var what = await ChangeAsync(world, ada, page, id, random, booked);
            foreach (var query in Queries)
            {
                var expected = await ReferenceAsync(world, ada, id, query);
                foreach (var guest in guests)
                    (
                        await guest.GetStringAsync($"/api/public/desks/{ada.Desk}/pages/{page}/openings?{query}")
                    ).ShouldBe(expected, $"after {what}, change {step}");
            }
        }

        booked.Count.ShouldBeGreaterThan(5);
    }

    [Fact]
    public async Task An_answer_that_is_so_still_is_not_sent_again()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var ada = await own.World.SignUpAsync();
        var page = await ada.PublishAsync();
        var path = $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from=2026-12-07&to=2026-12-20";
        var guest = own.World.Guest();
        var first = await guest.GetAsync(path);
        first.Headers.CacheControl!.NoCache.ShouldBeTrue();
        async Task<HttpResponseMessage> AgainAsync()
        {
            var request = new HttpRequestMessage(HttpMethod.Get, path);
            request.Headers.IfNoneMatch.Add(first.Headers.ETag!);
            return await guest.SendAsync(request);
        }

        var same = await AgainAsync();
        same.StatusCode.ShouldBe(HttpStatusCode.NotModified);
        (await same.Content.ReadAsByteArrayAsync()).ShouldBeEmpty();

        (await guest.BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(HttpStatusCode.Created);
        var changed = await AgainAsync();
        changed.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await changed.Content.ReadAsStringAsync()).ShouldNotContain("2026-12-08T08:00:00Z");
    }

    private static readonly string[] Queries =
    [
        "from=2026-12-07&to=2026-12-13",
        "from=2026-12-07&to=2026-12-20&zone=America/Los_Angeles",
        "from=2026-12-08&to=2026-12-08&party=2",
    ];

    private static async Task<(string Address, Guid Id)> PublishedAsync(Coordinator ada, Action<PageDraft> change)
    {
        var address = await ada.PublishAsync(change);
        var id = (await ada.PagesAsync())
            .EnumerateArray()
            .Single(page => page.GetProperty("path").GetString()!.EndsWith("/" + address, StringComparison.Ordinal))
            .GetProperty("id")
            .GetGuid();
        return (address, id);
    }

    /// <summary>From the rows alone: nothing is kept on this way.</summary>
    private static async Task<string> ReferenceAsync(World world, Coordinator ada, Guid pageId, string query)
    {
        await using var scope = world.App.Services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<Tenant>().Enter(await world.WorkspaceOfAsync(ada.Desk));
        var page = await scope
            .ServiceProvider.GetRequiredService<PageEditing>()
            .Whole()
            .AsNoTracking()
            .SingleAsync(row => row.Id == pageId);
        var parts = query.Split('&').Select(part => part.Split('=')).ToDictionary(part => part[0], part => part[1]);
        var asked = OpeningsQuery.Read(parts["from"], parts["to"], null, page, parts.GetValueOrDefault("party"));
        var inputs = scope.ServiceProvider.GetRequiredService<OpeningsInputs>();
        var openings = await inputs.OpeningsAsync(
            inputs.Rules(page, asked.Party),
            asked.From,
            asked.To,
            asked.Duration,
            CancellationToken.None
        );
        return JsonSerializer.Serialize(
            OpeningsAnswer.Of(page, asked, openings, parts.GetValueOrDefault("zone")),
            Json.Options
        );
    }

    /// <summary>Something that moves openings, by a request, by work beside requests, or in a row.</summary>
    private static async Task<string> ChangeAsync(
        World world,
        Coordinator ada,
        string page,
        Guid pageId,
        Random random,
        List<string> booked
    )
    {
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        Task RowsAsync(Func<LanternDb, Task<int>> change) => world.WithinAsync(workspace, change);
        var minutes = random.Next(5, 60);
        switch (random.Next(11))
        {
            case 0 or 1 or 2:
                var starts = await world.Guest().StartsAsync(ada.Desk, page, "2026-12-07", "2026-12-20");
                if (starts.Length == 0)
                    return "nothing";
                var start = starts[random.Next(starts.Length)];
                var answer = await world
                    .Guest()
                    .BookAsync(ada.Desk, page, start, email: $"g{booked.Count}@wren.example");
                booked.Add(GroupScene.ApiOf(await answer.ReadAsync(HttpStatusCode.Created)));
                return $"a booking at {start}";
            case 3 when booked.Count > 0:
                await world.Guest().PostAsJsonAsync(booked[random.Next(booked.Count)] + "/cancel", new { word = "" });
                return "a booking is cancelled";
            case 4:
                await RowsAsync(db =>
                    db.Hosts.Where(host => host.Id == ada.HostId)
                        .ExecuteUpdateAsync(set => set.SetProperty(host => host.DailyCap, random.Next(1, 4)))
                );
                return "a host's cap";
            case 5:
                await RowsAsync(db =>
                    db.Pages.Where(row => row.Id == pageId)
                        .ExecuteUpdateAsync(set => set.SetProperty(row => row.Notice, random.Next(0, 600)))
                );
                return "a page's notice";
            case 6:
                world.Clock.AdvanceMinutes(minutes);
                return $"{minutes} minutes";
            case 7:
                var day = $"202612{random.Next(8, 12):00}T";
                await (
                    await ada.JoinCalendarAsync(
                        Scene.CalendarWith($"survey {minutes}", $"{day}080000Z", $"{day}08{minutes:00}00Z")
                    )
                ).ReadAsync(HttpStatusCode.Created);
                return "a calendar is joined";
            case 8:
                var until = $"[{{\"from\": \"09:00\", \"to\": \"{random.Next(10, 18)}:00\"}}]";
                await RowsAsync(db =>
                    db.Database.ExecuteSqlAsync(
                        $"UPDATE hours SET version = version + 1, document = jsonb_set(document, ARRAY['week', 'tue'], {until}::jsonb) WHERE is_named AND workspace_id = {workspace}"
                    )
                );
                return "a host's hours";
            case 9:
                await RowsAsync(db =>
                    db.Calendars.ExecuteUpdateAsync(set => set.SetProperty(row => row.IsAsked, random.Next(2) == 0))
                );
                return "calendars are asked, or not";
            default:
                var at = Instant.FromUtc(2026, 12, random.Next(8, 12), random.Next(8, 11), 0);
                await RowsAsync(db =>
                {
                    db.Commitments.Add(
                        new CommitmentRow
                        {
                            WorkspaceId = workspace,
                            HostId = ada.HostId,
                            HolderId = Guid.NewGuid(),
                            Kind = LooseLantern.Core.Openings.CommitmentKind.Hold,
                            Span = new LooseLantern.Core.Span(at, at + Duration.FromMinutes(1)).ToRange(),
                            BufferBefore = 0,
                            BufferAfter = 0,
                            HeldUntil = world.Clock.GetCurrentInstant() + Duration.FromMinutes(minutes),
                        }
                    );
                    return TryAsync(db);
                });
                return $"time is held for {minutes} minutes";
        }
    }

    /// <summary>Of two holds at one time the database refuses the second; then nothing changed.</summary>
    private static async Task<int> TryAsync(LanternDb db)
    {
        try
        {
            return await db.SaveChangesAsync();
        }
        catch (DbUpdateException)
        {
            return 0;
        }
    }
}
