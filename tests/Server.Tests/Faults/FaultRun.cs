using System.Globalization;
using LooseLantern.StandIns.Mail;

namespace Server.Tests.Faults;

/// <summary>A booking as its guest was told it is.</summary>
internal sealed record Kept(string Path, string Page, string Email)
{
    public required string Start { get; set; }

    public int Moves { get; set; }

    public bool IsCancelled { get; set; }

    /// <summary>What was answered by mail, and taken; null where nothing was, or it is not known.</summary>
    public string? Answer { get; set; }
}

/// <summary>
/// Guests and a coordinator who book, move, cancel, offer, hold, take and answer at random, while servers, the
/// database, the mail and the calendars fail in turn. Whoever gets no answer asks again, as a browser would.
/// </summary>
/// <param name="days">How many days ahead pages are open.</param>
internal sealed class FaultRun(FaultWorld world, int seed, int days)
{
    // Links offer until the middle of January.
    private const int DaysOfLinks = 24;

    private const int AtOnce = 6;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(90);

    private readonly List<Kept> _free = [];
    private readonly HttpClient _guest = world.Guest();

    /// <summary>All that anybody was told is booked.</summary>
    public List<Kept> All { get; } = [];

    public SortedDictionary<string, int> Done { get; } = new(StringComparer.Ordinal);

    /// <param name="count">How many operations.</param>
    /// <param name="faults">How many faults between them.</param>
    public async Task GoAsync(int count, int faults)
    {
        var (next, every) = (0, Math.Max(count / (faults + 1), 1));
        using var fault = new SemaphoreSlim(1);
        var failing = new List<Task>();
        async Task WorkAsync()
        {
            while (Interlocked.Increment(ref next) is var n && n <= count)
            {
                if (n % every == 0 && n / every <= faults)
                    lock (failing)
                        failing.Add(OneAfterAnotherAsync(n / every));
                await DoAsync(n);
            }
        }

        async Task OneAfterAnotherAsync(int n)
        {
            await fault.WaitAsync();
            try
            {
                await FailAsync(n, new Random(HashCode.Combine(seed, n, "fault".Length)));
            }
            finally
            {
                fault.Release();
            }
        }

        await Task.WhenAll(Enumerable.Range(0, AtOnce).Select(_ => Task.Run(WorkAsync)));
        await Task.WhenAll(failing);
    }

    private async Task DoAsync(int n)
    {
        var random = new Random(unchecked((seed * 1_000_003) + n));
        var dice = random.Next(100);
        var what =
            dice < 45 ? "book"
            : dice < 65 ? "move"
            : dice < 78 ? "cancel"
            : dice < 90 ? "link"
            : "answer";
        var how = what switch
        {
            "book" => await BookAsync(n, random),
            "move" => await WithOneAsync(random, kept => MoveAsync(kept, random)),
            "cancel" => await WithOneAsync(random, CancelAsync),
            "link" => await LinkAsync(n, random),
            _ => await WithOneAsync(random, kept => AnswerAsync(kept, random)),
        };
        lock (Done)
            Done[$"{what}: {how}"] = Done.GetValueOrDefault($"{what}: {how}") + 1;
    }

    private async Task<string> BookAsync(int n, Random random)
    {
        var page = world.Pages[random.Next(world.Pages.Length)];
        var starts = await StartsAsync($"/api/public/desks/yard/pages/{page}/openings", random, days - 4);
        if (starts.Length == 0)
            return "nothing open";
        var (start, email) = (starts[random.Next(starts.Length)], $"guest{n}@faults.example");
        var (answer, _) = await UntilAnsweredAsync(() =>
            Request(
                HttpMethod.Post,
                $"/api/public/desks/yard/pages/{page}/bookings",
                new
                {
                    start,
                    duration = 30,
                    zone = "Europe/Dublin",
                    guest = new { name = $"Guest {n}", email },
                },
                $"book-{seed}-{n}"
            )
        );
        return await KeepAsync(answer, page, email, start);
    }

    private async Task<string> LinkAsync(int n, Random random)
    {
        var email = $"guest{n}@faults.example";
        string address;
        var starts = await StartsAsync($"/api/public/desks/yard/pages/{world.Pages[0]}/openings", random, DaysOfLinks);
        if (starts.Length == 0)
            return "nothing open";
        string[] picked =
        [
            .. Enumerable
                .Range(0, 3)
                .Select(_ => starts[random.Next(starts.Length)])
                .Distinct()
                .Order(StringComparer.Ordinal),
        ];
        try
        {
            var (id, made) = await world.Ada.SendLinkAsync(draft =>
                (draft.Title, draft.Picked, draft.Until, draft.EndsOn, draft.Guests) = (
                    $"Survey {n}",
                    picked,
                    "2027-01-15",
                    "2027-01-15",
                    [new($"Guest {n}", email)]
                )
            );
            address = made;
            if (random.Next(2) == 0)
                await world.Ada.HoldAsync(id, "2027-01-01T12:00:00Z");
        }
        catch (Exception e) when (e is HttpRequestException or TaskCanceledException or ShouldAssertException)
        {
            // The coordinator sees that it failed, and looks at the list; here another one is made.
            return "not made";
        }

        if (random.Next(10) < 3)
            return "left out";
        var start = picked[random.Next(picked.Length)];
        var (answer, _) = await UntilAnsweredAsync(() =>
            Request(
                HttpMethod.Post,
                $"/api/public/links/{address}/bookings",
                new
                {
                    start,
                    duration = 30,
                    zone = "Europe/Dublin",
                },
                $"take-{seed}-{n}"
            )
        );
        return await KeepAsync(answer, "", email, start);
    }

    private async Task<string> KeepAsync(HttpResponseMessage answer, string page, string email, string start)
    {
        if (answer.StatusCode == HttpStatusCode.Conflict)
            return "gone";
        var made = await answer.ReadAsync(HttpStatusCode.Created);
        var path =
            "/api/public"
            + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/", StringComparison.Ordinal);
        made.GetProperty("start").GetString().ShouldBe(start);
        var kept = new Kept(path, page, email) { Start = start };
        lock (_free)
        {
            All.Add(kept);
            _free.Add(kept);
        }

        return "done";
    }

    private async Task<string> MoveAsync(Kept kept, Random random)
    {
        // One of a link moves within what the link offers.
        var starts = await StartsAsync(kept.Path + "/openings", random, kept.Page.Length == 0 ? DaysOfLinks : days - 4);
        if (starts.Length == 0)
            return "nothing open";
        var start = starts[random.Next(starts.Length)];
        if (start == kept.Start)
            return "stays";
        var (answer, isSure) = await UntilAnsweredAsync(() =>
            Request(HttpMethod.Post, kept.Path + "/move", new { start })
        );
        var isMoved = answer.StatusCode == HttpStatusCode.NoContent;
        if (!isMoved && !isSure)
            isMoved = (await SeeAsync(kept)).GetProperty("start").GetString() == start;
        if (!isMoved)
        {
            answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
            return "gone";
        }

        (kept.Start, kept.Moves, kept.Answer) = (start, kept.Moves + 1, null);
        return "done";
    }

    private async Task<string> CancelAsync(Kept kept)
    {
        var (answer, _) = await UntilAnsweredAsync(() =>
            Request(HttpMethod.Post, kept.Path + "/cancel", new { word = "" })
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        kept.IsCancelled = true;
        return "done";
    }

    /// <summary>On the mail server's screen, as from a calendar program; an invitation that is not there yet waits for
    /// another time.</summary>
    private async Task<string> AnswerAsync(Kept kept, Random random)
    {
        var invitation = world.StandIn.Mail.Mails(kept.Email).FirstOrDefault(mail => mail.Method == "REQUEST");
        if (invitation is null || kept.Moves > 0)
            return "no invitation";
        var answer = random.Next(2) == 0 ? "accepted" : "tentative";
        return await SendAnswerAsync(kept, invitation, answer) ? "done" : "not sent";
    }

    private async Task<bool> SendAnswerAsync(Kept kept, StoredMail invitation, string answer)
    {
        using var form = new FormUrlEncodedContent(
            new Dictionary<string, string>
            {
                ["answer"] = answer,
                ["start"] = "",
                ["word"] = "",
            }
        );
        using var screen = new HttpClient();
        // Whether one whose sending failed was taken all the same is not known.
        kept.Answer = null;
        var sent = await screen.PostAsync($"{world.StandIn.Address}/mail/{kept.Email}/{invitation.Id}/answer", form);
        var isSent = (await sent.Content.ReadAsStringAsync()).Contains("Your answer went to", StringComparison.Ordinal);
        if (isSent)
            kept.Answer = answer;
        return isSent;
    }

    public async Task<JsonElement> SeeAsync(Kept kept) =>
        await (await UntilAnsweredAsync(() => Request(HttpMethod.Get, kept.Path))).Answer.ReadAsync(HttpStatusCode.OK);

    private async Task<string[]> StartsAsync(string path, Random random, int within)
    {
        var from = new LocalDate(2026, 12, 8).PlusDays(random.Next(within));
        var (answer, _) = await UntilAnsweredAsync(() =>
            Request(
                HttpMethod.Get,
                $"{path}?from={from:uuuu-MM-dd}&to={from.PlusDays(2).ToString("uuuu-MM-dd", CultureInfo.InvariantCulture)}"
            )
        );
        if (answer.StatusCode == HttpStatusCode.Conflict)
            return [];
        return
        [
            .. (await answer.ReadAsync(HttpStatusCode.OK))
                .GetProperty("openings")
                .EnumerateArray()
                .Select(opening => opening.GetProperty("start").GetString()!),
        ];
    }

    /// <summary>Works with one booking that nobody else works with meanwhile.</summary>
    private async Task<string> WithOneAsync(Random random, Func<Kept, Task<string>> work)
    {
        Kept kept;
        lock (_free)
        {
            if (_free.Count == 0)
                return "none yet";
            var at = random.Next(_free.Count);
            kept = _free[at];
            _free.RemoveAt(at);
        }

        try
        {
            return await work(kept);
        }
        finally
        {
            if (!kept.IsCancelled)
            {
                lock (_free)
                    _free.Add(kept);
            }
        }
    }

    /// <summary>Asks until there is an answer that is none of something being away.</summary>
    /// <returns>Whether it was the answer to the first try, so that none before it can have been carried out.</returns>
    private async Task<(HttpResponseMessage Answer, bool IsSure)> UntilAnsweredAsync(Func<HttpRequestMessage> request)
    {
        using var patience = new CancellationTokenSource(Patience);
        for (var isSure = true; ; isSure = false)
        {
            try
            {
                var answer = await _guest.SendAsync(request(), patience.Token);
                if ((int)answer.StatusCode < 500)
                    return (answer, isSure);
            }
            catch (Exception e)
                when (e is HttpRequestException or IOException or TaskCanceledException
                    && !patience.IsCancellationRequested
                )
            {
                // Asked again.
            }

            await Task.Delay(150, patience.Token);
        }
    }

    private static HttpRequestMessage Request(HttpMethod method, string path, object? body = null, string? key = null)
    {
        var request = new HttpRequestMessage(method, path) { Content = body is null ? null : JsonContent.Create(body) };
        if (key is not null)
            request.Headers.Add("Idempotency-Key", key);
        return request;
    }

    private async Task FailAsync(int n, Random random)
    {
        var pause = TimeSpan.FromMilliseconds(random.Next(200, 1500));
        var what = (n - 1) % 7;
        var name = (string[])
            ["server", "database", "mail away", "calendars hang", "both servers", "mail slow", "calendars away"];
        lock (Done)
            Done[$"fault: {name[what]}"] = Done.GetValueOrDefault($"fault: {name[what]}") + 1;
        switch (what)
        {
            case 0:
                await world.Outages.DuringAsync(() => KillAsync([world.Servers[random.Next(2)]], pause));
                break;
            case 1:
                await world.Outages.DuringAsync(async () =>
                {
                    await world.Cluster.KillAsync();
                    await Task.Delay(pause);
                    await world.Cluster.StartAgainAsync();
                    foreach (var server in world.Servers)
                        await server.ReadyAsync();
                });
                break;
            case 2:
                world.Mail.Close();
                await Task.Delay(pause * 2);
                world.Mail.Open();
                break;
            case 3:
                await CalendarsAsync(calendar => calendar.Hangs = true, calendar => calendar.Hangs = false, pause * 2);
                break;
            case 4:
                await world.Outages.DuringAsync(() => KillAsync(world.Servers, pause));
                break;
            case 5:
                world.Mail.Delay = TimeSpan.FromMilliseconds(400);
                await Task.Delay(pause * 2);
                world.Mail.Delay = TimeSpan.Zero;
                break;
            default:
                await CalendarsAsync(
                    calendar => calendar.IsDown = true,
                    calendar => calendar.IsDown = false,
                    pause * 2
                );
                break;
        }
    }

    private static async Task KillAsync(FaultServer[] servers, TimeSpan pause)
    {
        foreach (var server in servers)
            server.Kill();
        await Task.Delay(pause);
        foreach (var server in servers)
            server.Start();
        foreach (var server in servers)
            await server.ReadyAsync();
    }

    private async Task CalendarsAsync(Action<OddServer> fail, Action<OddServer> mend, TimeSpan pause)
    {
        foreach (var calendar in world.Calendars)
            fail(calendar);
        await Task.Delay(pause);
        foreach (var calendar in world.Calendars)
            mend(calendar);
    }
}
