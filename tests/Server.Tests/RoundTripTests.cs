namespace Server.Tests;

/// <summary>
/// What requests cost the database: the same number of round trips however many hosts or times there are, and few of
/// them while locks are held.
/// </summary>
public class RoundTripTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private const string Ten = "2026-12-08T09:00:00Z";
    private const string Eleven = "2026-12-08T10:00:00Z";

    // Npgsql tells of no COMMIT.
    private const int Commit = 1;

    [Fact]
    public async Task A_booking_costs_the_same_for_one_host_and_for_fifty()
    {
        using var trips = new RoundTrips();
        var one = await BookedAsync(trips, 1);
        var fifty = await BookedAsync(trips, 50);
        fifty.Count.ShouldBe(one.Count);
        one.Count.ShouldBe(3);
        UnderLocks(one).Count.ShouldBe(2);
    }

    [Fact]
    public async Task A_move_costs_the_same_for_one_host_and_for_fifty()
    {
        using var trips = new RoundTrips();
        var one = await MovedAsync(trips, 1);
        var fifty = await MovedAsync(trips, 50);
        fifty.Count.ShouldBe(one.Count);
        (UnderLocks(one).Count + Commit).ShouldBe(8);
    }

    [Fact]
    public async Task A_time_of_a_link_costs_the_same_for_one_host_and_for_fifty()
    {
        using var trips = new RoundTrips();
        var one = await TakenAsync(trips, 1);
        var fifty = await TakenAsync(trips, 50);
        fifty.Count.ShouldBe(one.Count);
        UnderLocks(one).Count.ShouldBe(3);
    }

    [Fact]
    public async Task A_hold_of_twenty_times_costs_what_one_of_a_single_time_does()
    {
        using var trips = new RoundTrips();
        var one = Writing(await HeldAsync(trips, 1));
        var twenty = Writing(await HeldAsync(trips, 20));
        twenty.Count.ShouldBe(one.Count, string.Join("\n", [.. one, "", .. twenty]));
    }

    [Fact]
    public async Task A_pages_first_answer_costs_the_same_for_one_host_and_for_fifty()
    {
        using var trips = new RoundTrips();
        var one = await OpenedAsync(trips, 1);
        var fifty = await OpenedAsync(trips, 50);
        fifty.Count.ShouldBe(one.Count);
        one.Count.ShouldBe(7, string.Join("\n", one));
    }

    private async Task<IReadOnlyList<string>> OpenedAsync(RoundTrips trips, int hosts)
    {
        var (ada, page) = await PageAsync(hosts);
        var guest = world.Guest();
        // The first finds nothing that is kept.
        await guest.GetStringAsync($"/{ada.Desk}/{page}");
        return await trips.OfAsync(
            guest,
            new HttpRequestMessage(HttpMethod.Get, $"/{ada.Desk}/{page}"),
            HttpStatusCode.OK
        );
    }

    /// <summary>From the locks to the last that is written; what is shown afterwards is read without locks.</summary>
    private static IReadOnlyList<string> Writing(IReadOnlyList<string> asked)
    {
        var last = asked
            .Index()
            .Last(one =>
                one.Item.Contains("INSERT", StringComparison.Ordinal)
                || one.Item.Contains("UPDATE", StringComparison.Ordinal)
            );
        return UnderLocks([.. asked.Take(last.Index + 1)]);
    }

    [Fact]
    public async Task Openings_that_nothing_changed_cost_one_question()
    {
        using var trips = new RoundTrips();
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var path = $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from=2026-12-07&to=2026-12-20";
        var guest = world.Guest();
        (await guest.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await trips.OfAsync(guest, new HttpRequestMessage(HttpMethod.Get, path), HttpStatusCode.OK)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task One_change_of_a_links_form_costs_one_load_of_facts_for_one_host_and_for_twelve()
    {
        using var trips = new RoundTrips();
        var one = await ReckonedAsync(trips, 1);
        var twelve = await ReckonedAsync(trips, 12);
        twelve.Count.ShouldBe(one.Count, string.Join("\n", [.. one, "", .. twelve]));
        twelve.Count(asked => asked.Contains("JOIN calendar_entries", StringComparison.Ordinal)).ShouldBe(1);
    }

    /// <summary>From the locks on.</summary>
    private static IReadOnlyList<string> UnderLocks(IReadOnlyList<string> asked) =>
        [.. asked.SkipWhile(statement => !statement.Contains("FOR NO KEY UPDATE", StringComparison.Ordinal))];

    private async Task<(Coordinator Ada, string Page)> PageAsync(int hosts)
    {
        var ada = await world.SignUpAsync();
        var pool = await PoolAsync(ada, hosts);
        return (ada, await ada.PublishAsync(draft => draft.Seats = [pool]));
    }

    private static async Task<Guid[]> PoolAsync(Coordinator ada, int hosts)
    {
        var ids = new List<Guid> { ada.HostId };
        while (ids.Count < hosts)
            ids.Add(
                (await (await ada.PostAsync("/api/hosts", Scene.Room)).ReadAsync(HttpStatusCode.Created))
                    .GetProperty("id")
                    .GetGuid()
            );
        return [.. ids];
    }

    private async Task<IReadOnlyList<string>> BookedAsync(RoundTrips trips, int hosts)
    {
        var (ada, page) = await PageAsync(hosts);
        var guest = world.Guest();
        // The first finds nothing that is kept.
        (await guest.BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        return await trips.OfAsync(
            guest,
            Post(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new
                {
                    start = Ten,
                    duration = 30,
                    zone = "Europe/Copenhagen",
                    guest = new { name = "Kofi Anand", email = "kofi@wren.example" },
                }
            ),
            HttpStatusCode.Created
        );
    }

    private async Task<IReadOnlyList<string>> MovedAsync(RoundTrips trips, int hosts)
    {
        var (ada, page) = await PageAsync(hosts);
        var guest = world.Guest();
        var booked = await (await guest.BookAsync(ada.Desk, page, Nine)).ReadAsync(HttpStatusCode.Created);
        var path = GroupScene.ApiOf(booked) + "/move";
        // What the booking is to be told is told before it is moved.
        await ada.GetAsync("/api/post");
        (await guest.SendAsync(Post(path, new { start = Ten }))).IsSuccessStatusCode.ShouldBeTrue();
        await ada.GetAsync("/api/post");
        return await trips.OfAsync(guest, Post(path, new { start = Eleven }), HttpStatusCode.NoContent);
    }

    private async Task<IReadOnlyList<string>> TakenAsync(RoundTrips trips, int hosts)
    {
        var ada = await world.SignUpAsync();
        var pool = await PoolAsync(ada, hosts);
        var (_, address) = await ada.SendLinkAsync(draft =>
            (draft.Seats, draft.Takes, draft.Picked) = ([pool], 3, [Nine, Ten, Eleven])
        );
        var guest = world.Guest();
        await (await guest.TakeAsync(address, Nine, name: "Kofi Anand", email: "kofi@wren.example")).ReadAsync(
            HttpStatusCode.Created
        );
        return await trips.OfAsync(
            guest,
            Post(
                $"/api/public/links/{address}/bookings",
                new
                {
                    start = Ten,
                    duration = 30,
                    zone = "Europe/Dublin",
                    name = "Ottilie Wren",
                    email = "ottilie@wren.example",
                    answers = new { },
                }
            ),
            HttpStatusCode.Created
        );
    }

    private async Task<IReadOnlyList<string>> HeldAsync(RoundTrips trips, int times)
    {
        var ada = await world.SignUpAsync();
        var starts = Enumerable
            .Range(0, times)
            .Select(at => Instant.FromUtc(2026, 12, 8 + (at / 6), 8, 0).Plus(Duration.FromMinutes(30 * (at % 6))))
            .Select(start => start.ToString())
            .ToArray();
        var (id, _) = await ada.SendLinkAsync(draft => draft.Picked = starts);
        var request = new HttpRequestMessage(HttpMethod.Put, $"/api/links/{id}/hold")
        {
            Content = JsonContent.Create(new { until = "2026-12-07T17:00:00Z" }),
        };
        return await trips.OfAsync(ada.SendAsync, request, HttpStatusCode.OK);
    }

    private async Task<IReadOnlyList<string>> ReckonedAsync(RoundTrips trips, int hosts)
    {
        var ada = await world.SignUpAsync();
        var link = ada.Link();
        link.Seats = [await PoolAsync(ada, hosts)];
        var body = new { form = link.Form(), of = (Guid?)null };
        // Hours are kept from the first time on.
        (await ada.PostAsync("/api/links/reckoning", body)).StatusCode.ShouldBe(HttpStatusCode.OK);
        return await trips.OfAsync(ada.SendAsync, Post("/api/links/reckoning", body), HttpStatusCode.OK);
    }

    private static HttpRequestMessage Post(string path, object body) =>
        new(HttpMethod.Post, path)
        {
            Content = JsonContent.Create(body, options: LooseLantern.Server.Hosting.Json.Options),
        };
}
