using System.Globalization;

namespace Server.Tests;

/// <summary>
/// Odd requests to every route, signed in, signed out and of another workspace: none fails, and none of them reads or
/// changes what is another workspace's. LANTERN_FUZZ sets how many (2,000 unless set), LANTERN_FUZZ_SEED which.
/// </summary>
public sealed class FuzzTests
{
    private const string Secret = "Zinnia Quillfeather";

    private static readonly string[] Untouched =
    [
        "/api/pages",
        "/api/bookings",
        "/api/links",
        "/api/calendars",
        "/api/hours",
        "/api/hosts",
        "/api/desks",
        "/api/people",
        "/api/me/profile",
    ];

    [Fact]
    public async Task No_odd_request_fails_or_reaches_another_workspace()
    {
        var count = Setting("LANTERN_FUZZ", 2000);
        var seed = Setting("LANTERN_FUZZ_SEED", Random.Shared.Next());
        await using var own = await OwnWorlds.TakeAsync();
        var (ada, eve, cy) = (
            await own.World.SignUpAsync(),
            await own.World.SignUpAsync(),
            await own.World.SignUpAsync()
        );
        foreach (var one in (Coordinator[])[ada, eve, cy])
            await FillAsync(own.World, one, one == eve ? "Ottilie Wren" : Secret);
        var before = await SeenAsync(cy);
        var ids = before
            .Concat(await SeenAsync(ada))
            .SelectMany(IdsIn)
            .Concat([ada.Desk, cy.Desk, .. await AddressesAsync(ada), .. await AddressesAsync(cy)])
            .Distinct()
            .ToList();

        var fuzzing = new Fuzzing(seed, ids);
        var guest = new Coordinator(own.World.App.CreateClient(), "");
        var done = 0;
        for (var n = 0; n < count; n++)
        {
            var route = fuzzing.Route();
            var who = ((Coordinator[])[ada, eve, guest])[fuzzing.Next(3)];
            using var request = fuzzing.Request(route);
            var told = $"seed {seed}, request {n}: {request.Method} {request.RequestUri}";
            using var answer = await who.SendAsync(request);
            ((int)answer.StatusCode).ShouldBeLessThan(500, told + " " + await SentAsync(request));
            done += answer.IsSuccessStatusCode ? 1 : 0;
            if (answer.Content.Headers.ContentType?.MediaType == "text/event-stream")
                continue;
            var text = await answer.Content.ReadAsStringAsync();
            if (who != ada)
                text.ShouldNotContain(Secret, Case.Insensitive, told);
            if (answer.StatusCode is >= HttpStatusCode.BadRequest and not HttpStatusCode.NotFound)
                answer.Content.Headers.ContentType?.MediaType.ShouldBe("application/problem+json", told);
            // A request may sign somebody in as somebody else, who is another then.
            if (
                route.Path is "/api/sign-up" or "/api/sign-in"
                || route.Path.StartsWith("/api/join", StringComparison.Ordinal)
            )
                who.ForgetToken();
        }

        // Requests that are all turned away at the door would show nothing.
        done.ShouldBeGreaterThan(count / 20);
        (await SeenAsync(cy)).ShouldBe(before, $"seed {seed}");
    }

    private static async Task FillAsync(World world, Coordinator one, string name)
    {
        var page = await one.PublishAsync();
        (
            await world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/desks/{one.Desk}/pages/{page}/bookings",
                    new
                    {
                        start = "2026-12-08T08:00:00Z",
                        duration = 30,
                        zone = "Europe/Copenhagen",
                        guest = new { name, email = "zinnia@wren.example" },
                        answers = new { },
                    }
                )
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        await one.SendLinkAsync(draft => draft.Picked = [LinkDraft.Friday]);
    }

    private static async Task<string[]> SeenAsync(Coordinator one) =>
        await Task.WhenAll(Untouched.Select(async path => (await one.GetAsync(path)).ToString()));

    private static async Task<IEnumerable<string>> AddressesAsync(Coordinator one) =>
        (await one.PagesAsync()).EnumerateArray().Select(page => page.GetProperty("path").GetString()!.Split('/')[^1]);

    private static IEnumerable<string> IdsIn(string text) =>
        System
            .Text.RegularExpressions.Regex.Matches(text, "[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}")
            .Select(match => match.Value);

    private static async Task<string> SentAsync(HttpRequestMessage request)
    {
        var text = request.Content is null ? "" : await request.Content.ReadAsStringAsync();
        return text.Length <= 2000 ? text : text[..2000];
    }

    private static int Setting(string name, int usual) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), CultureInfo.InvariantCulture, out var set) ? set : usual;
}
