using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using LooseLantern.Testing;
using Npgsql;
using Server.Tests;
using Server.Tests.Faults;

namespace LooseLantern.Bench.Requests;

/// <summary>
/// What is measured: the server as a process, as it is run, on a PostgreSQL that keeps what it said it keeps; a mail
/// server; a workspace with 50 pages of one to three of 20 hosts, each with a calendar that is kept here.
/// </summary>
internal sealed class Yard : IAsyncDisposable
{
    public const int PageCount = 50;
    private const int HostCount = 20;

    /// <summary>The hours of each day of a page.</summary>
    public static readonly object[] Day = [new { from = "08:00", to = "18:00" }];

    private readonly FaultCluster _cluster;
    private readonly StandIn _standIn;
    private readonly FaultServer _server;

    private Yard(FaultCluster cluster, StandIn standIn)
    {
        (_cluster, _standIn) = (cluster, standIn);
        const string any = "100000000";
        var port = FreePorts.One();
        _server = new FaultServer(
            port,
            new Dictionary<string, string>
            {
                ["ConnectionStrings:Lantern"] = cluster.ConnectionString,
                ["Clock:At"] = "2026-12-07T08:00+01:00",
                ["PublicAddress"] = $"http://127.0.0.1:{port}",
                ["Post:Host"] = "127.0.0.1",
                ["Post:Port"] = standIn.MailPort.ToString(CultureInfo.InvariantCulture),
                ["Post:Tls"] = "false",
                ["webroot"] = Environment.GetEnvironmentVariable("LANTERN_WEB") ?? "",
                ["Limits:Reads"] = any,
                ["Limits:Writes"] = any,
                ["Limits:SignIns"] = any,
                ["Limits:FirstDayMails"] = any,
                ["Limits:ProveFrom"] = "0",
                ["Logging:LogLevel:Default"] = "None",
            }
        );
        Http = new HttpClient(new SocketsHttpHandler { MaxConnectionsPerServer = 512, UseCookies = false })
        {
            BaseAddress = new Uri($"http://127.0.0.1:{port}"),
            Timeout = TimeSpan.FromMinutes(2),
        };
    }

    /// <summary>A guest's browser, without cookies.</summary>
    public HttpClient Http { get; }

    public string ConnectionString => _cluster.ConnectionString;

    public Coordinator Ada { get; private set; } = null!;

    /// <summary>Addresses of pages, by number.</summary>
    public List<string> Pages { get; } = [];

    public List<Guid> Hosts { get; } = [];

    /// <summary>Ada's, which is kept here.</summary>
    public Guid Calendar { get; private set; }

    /// <summary>Of the page of a pool of three that everybody wants at once.</summary>
    public string Crowded { get; private set; } = "";

    public static async Task<Yard> OpenAsync()
    {
        var yard = new Yard(await FaultCluster.StartAsync(), await StandIn.StartAsync(demo: null));
        yard._server.Start();
        await yard._server.ReadyAsync();
        await yard.FillAsync();
        return yard;
    }

    public async Task<T> AskAsync<T>(string sql)
    {
        await using var connection = new NpgsqlConnection(ConnectionString);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        return (T)(await command.ExecuteScalarAsync())!;
    }

    public async Task DoAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(ConnectionString);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }

    public async Task<HttpResponseMessage> BookAsync(string page, DateTime start, int guest) =>
        await Http.PostAsJsonAsync(
            $"/api/public/desks/{Ada.Desk}/pages/{page}/bookings",
            new
            {
                start = start.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture),
                duration = 30,
                zone = "Europe/Copenhagen",
                guest = new { name = $"Guest {guest}", email = $"guest{guest}@wren.example" },
            }
        );

    public async ValueTask DisposeAsync()
    {
        Http.Dispose();
        _server.Dispose();
        await _standIn.DisposeAsync();
        await _cluster.DisposeAsync();
    }

    private async Task FillAsync()
    {
        var browser = new HttpClient(new SocketsHttpHandler()) { BaseAddress = Http.BaseAddress };
        Ada = new Coordinator(browser, "yard");
        (await Ada.PostAsync("/api/sign-up/links", new { email = "ada@yard.example" })).EnsureSuccessStatusCode();
        var mail = await Outside.AwaitAsync(
            () => Task.FromResult(_standIn.Mail.Mails("ada@yard.example").FirstOrDefault()),
            "the sign-up's mail"
        );
        (
            await Ada.PostAsync(
                "/api/sign-up",
                new
                {
                    workspace = "Yard",
                    zone = "Europe/Copenhagen",
                    name = "Ada Wharf",
                    email = "",
                    password = "harbour at first light",
                    deskName = "Yard",
                    deskAddress = "yard",
                    link = MailScene.SecretIn(mail, "/start/"),
                }
            )
        ).EnsureSuccessStatusCode();
        Ada.ForgetToken();
        await Ada.LearnAsync();
        // It is not its first day, on which each mail to a stranger is counted.
        await DoAsync("UPDATE workspaces SET mail_opened_at = '2026-11-01'");
        Hosts.Add(Ada.HostId);
        Calendar = (await Ada.GetAsync("/api/calendars"))
            .EnumerateArray()
            .First(one => one.GetProperty("kind").GetString() == "builtIn")
            .GetProperty("id")
            .GetGuid();
        while (Hosts.Count < HostCount)
        {
            var answer = await Ada.PostAsync(
                "/api/hosts",
                new
                {
                    kind = "room",
                    name = $"Slip {Hosts.Count}",
                    zone = "Europe/Copenhagen",
                    hoursId = (Guid?)null,
                }
            );
            Hosts.Add((await answer.ReadAsync(HttpStatusCode.Created)).GetProperty("id").GetGuid());
        }

        for (var i = 0; i < PageCount; i++)
        {
            Guid[] pool = [.. Enumerable.Range(0, 1 + (i % 3)).Select(at => Hosts[(i + (7 * at)) % HostCount])];
            Pages.Add(await PublishAsync(pool));
        }

        Crowded = await PublishAsync(Hosts[..3].ToArray());
    }

    private Task<string> PublishAsync(Guid[] pool) =>
        Ada.PublishAsync(draft =>
            (draft.Day, draft.Seats, draft.AheadDays, draft.Address) = (Day, [pool], 300, World.Unique("talk"))
        );
}
