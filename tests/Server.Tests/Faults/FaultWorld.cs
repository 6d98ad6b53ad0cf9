using System.Globalization;

namespace Server.Tests.Faults;

/// <summary>
/// Two servers on one database, with a mail server and two hosts' calendars: all of which can be killed, stopped or
/// made slow.
/// </summary>
internal sealed class FaultWorld : IAsyncDisposable
{
    private readonly int _days;

    private FaultWorld(FaultCluster cluster, StandIn standIn, OddServer[] calendars, int days)
    {
        (Cluster, StandIn, Calendars, _days) = (cluster, standIn, calendars, days);
        Mail = new TcpGate("127.0.0.1", standIn.MailPort);
        int[] ports = [FreePorts.One(), FreePorts.One()];
        Servers =
        [
            .. ports.Select(
                (port, i) => new FaultServer(port, Settings(ports[0], i == 0 ? standIn.AnswersPort : null))
            ),
        ];
        Outages = new Outages(Servers);
    }

    public FaultCluster Cluster { get; }

    public StandIn StandIn { get; }

    /// <summary>One host's each.</summary>
    public OddServer[] Calendars { get; }

    public TcpGate Mail { get; }

    public FaultServer[] Servers { get; }

    public Outages Outages { get; }

    public Coordinator Ada { get; private set; } = null!;

    public Coordinator Bo { get; private set; } = null!;

    /// <summary>Pages: of one host, of either of the two, and of groups of three.</summary>
    public string[] Pages { get; private set; } = [];

    /// <param name="days">How many days ahead pages are open.</param>
    public static async Task<FaultWorld> StartAsync(int days)
    {
        var world = new FaultWorld(
            await FaultCluster.StartAsync(),
            await StandIn.StartAsync(demo: null),
            [await OddServer.StartAsync(), await OddServer.StartAsync()],
            days
        );
        // Both at once: whichever is first makes the tables, and the other waits for that.
        foreach (var server in world.Servers)
            server.Start();
        foreach (var server in world.Servers)
            await server.ReadyAsync();

        await world.OpenAsync();
        return world;
    }

    /// <summary>A browser of nobody, at one server or the other.</summary>
    public HttpClient Guest() =>
        new(Outages, disposeHandler: false)
        {
            BaseAddress = new Uri("http://127.0.0.1:1"),
            Timeout = TimeSpan.FromSeconds(30),
        };

    public async ValueTask DisposeAsync()
    {
        foreach (var server in Servers)
            server.Dispose();
        Outages.Dispose();
        await Mail.DisposeAsync();
        await StandIn.DisposeAsync();
        foreach (var calendar in Calendars)
            await calendar.DisposeAsync();
        await Cluster.DisposeAsync();
    }

    private Dictionary<string, string> Settings(int publicPort, int? answersPort)
    {
        const string Any = "1000000";
        var settings = new Dictionary<string, string>
        {
            ["ConnectionStrings:Lantern"] = Cluster.ConnectionString,
            ["Clock:At"] = "2026-12-07T08:00+01:00",
            ["PublicAddress"] = $"http://127.0.0.1:{publicPort}",
            ["Outside:Inside"] = "127.0.0.1",
            ["Outside:PatienceMilliseconds"] = "8000",
            ["Post:Host"] = "127.0.0.1",
            ["Post:Port"] = Mail.Port.ToString(CultureInfo.InvariantCulture),
            ["Post:Tls"] = "false",
            ["Post:RepliesDomain"] = StandIn.RepliesDomain,
            ["Limits:Reads"] = Any,
            ["Limits:Writes"] = Any,
            ["Limits:SignIns"] = Any,
            ["Limits:FirstDayMails"] = Any,
            ["Limits:ProveFrom"] = "0",
            ["Logging:LogLevel:Default"] = "None",
            ["Logging:LogLevel:LooseLantern"] = "None",
        };
        if (answersPort is { } port)
            settings["Post:RepliesPort"] = port.ToString(CultureInfo.InvariantCulture);
        return settings;
    }

    private async Task OpenAsync()
    {
        Ada = Person();
        (await Ada.PostAsync("/api/sign-up/links", new { email = "ada@yard.example" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        var mail = await Outside.AwaitAsync(
            () => Task.FromResult(StandIn.Mail.Mails("ada@yard.example").FirstOrDefault()),
            "the sign-up's mail"
        );
        var link = MailScene.SecretIn(mail, "/start/");
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
                    link,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Ada.ForgetToken();
        await Ada.LearnAsync();
        Bo = await JoinAsync();
        for (var i = 0; i < Calendars.Length; i++)
            await (i == 0 ? Ada : Bo).JoinAccountAsync(Calendars[i].Account(), "Odd");
        object[] day = [new { from = "08:00", to = "18:00" }];
        Pages =
        [
            await Ada.PublishAsync(draft => (draft.Day, draft.AheadDays) = (day, _days)),
            await Ada.PublishAsync(draft =>
                (draft.Day, draft.AheadDays, draft.Seats) = (
                    day,
                    _days,
                    [
                        [Ada.HostId, Bo.HostId],
                    ]
                )
            ),
            await Ada.PublishAsync(draft =>
                (draft.Day, draft.AheadDays, draft.Seats, draft.Places) = (
                    day,
                    _days,
                    [
                        [Bo.HostId],
                    ],
                    3
                )
            ),
        ];
    }

    private async Task<Coordinator> JoinAsync()
    {
        var invitation = await (
            await Ada.PostAsync(
                "/api/invitations",
                new
                {
                    name = "Bo",
                    email = "bo@yard.example",
                    roles = new
                    {
                        isOwner = false,
                        isCoordinator = false,
                        isHost = true,
                    },
                }
            )
        ).ReadAsync(HttpStatusCode.Created);
        var bo = Person();
        (
            await bo.PostAsync(
                "/api" + invitation.GetProperty("path").GetString(),
                new
                {
                    name = "Bo Keel",
                    password = "harbour at first light",
                    zone = "Europe/Copenhagen",
                    letInviter = true,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        bo.ForgetToken();
        await bo.LearnAsync();
        return bo;
    }

    private Coordinator Person() =>
        new(
            new HttpClient(new Cookies(Outages), disposeHandler: false)
            {
                BaseAddress = new Uri("http://127.0.0.1:1"),
                Timeout = TimeSpan.FromSeconds(30),
            },
            "yard"
        );

    /// <summary>A browser's cookies, whichever server they came from.</summary>
    private sealed class Cookies(HttpMessageHandler inner) : DelegatingHandler(inner)
    {
        private static readonly Uri Site = new("http://127.0.0.1/");

        private readonly CookieContainer _kept = new();

        protected override async Task<HttpResponseMessage> SendAsync(
            HttpRequestMessage request,
            CancellationToken cancellationToken
        )
        {
            if (_kept.GetCookieHeader(Site) is { Length: > 0 } header)
                request.Headers.Add("Cookie", header);
            var answer = await base.SendAsync(request, cancellationToken);
            if (answer.Headers.TryGetValues("Set-Cookie", out var set))
            {
                foreach (var cookie in set)
                    _kept.SetCookies(Site, cookie);
            }

            return answer;
        }
    }
}
