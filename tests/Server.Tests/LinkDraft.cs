using LooseLantern.Core.Links;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Tenancy;
using Microsoft.Extensions.DependencyInjection;

namespace Server.Tests;

/// <summary>
/// A link as it is sent, with what a test does not care about filled in: times in the morning, for one guest.
/// </summary>
public sealed class LinkDraft
{
    public const string Nine = "2026-12-08T08:00:00Z";
    public const string Ten = "2026-12-08T09:00:00Z";
    public const string Eleven = "2026-12-09T10:00:00Z";
    public const string Friday = "2026-12-11T08:00:00Z";

    public string Title { get; set; } = "Hull survey, Larkspur";

    public Guid DeskId { get; set; }

    /// <summary>The hosts of each seat.</summary>
    public Guid[][] Seats { get; set; } = [];

    public string Keeper { get; set; } = "counts";

    public string By { get; set; } = "picked";

    public string[] Picked { get; set; } = [Nine, Ten, Eleven, Friday];

    public PaintedTime[] Painted { get; set; } = [];

    public string[] Days { get; set; } = [];

    public int FromMinute { get; set; }

    public int ToMinute { get; set; } = 24 * 60;

    public string Until { get; set; } = "2026-12-18";

    public string EndsOn { get; set; } = "2026-12-18";

    public int? MostShown { get; set; }

    public string? From { get; set; }

    public int[] Durations { get; set; } = [30];

    public int Notice { get; set; }

    public int Step { get; set; } = 30;

    public Guid[] Overridden { get; set; } = [];

    public LinkGuest[] Guests { get; set; } = [new("Ottilie Wren", "ottilie@wren-charters.example")];

    public string GuestZone { get; set; } = "Europe/Dublin";

    public string GuestLanguage { get; set; } = "en";

    public int Takes { get; set; } = 1;

    public bool Together { get; set; } = true;

    public bool BooksByItself { get; set; }

    public bool Reopens { get; set; } = true;

    public bool LeavesFree { get; set; }

    public bool IsAmongOurselves { get; set; }

    public string Notes { get; set; } = "";

    public string HostWords { get; set; } = "";

    public string Topic { get; set; } = "";

    public InvitedAlong[] AlsoInvited { get; set; } = [];

    public Question[] Questions { get; set; } = [];

    public LinkText Text { get; set; } = LinkText.Usual;

    public object Form() =>
        new
        {
            title = Title,
            deskId = DeskId,
            description = "",
            placeKind = "inPerson",
            place = "Slip 2",
            times = Times(),
            guests = Guests,
            guestZone = GuestZone,
            guestLanguage = GuestLanguage,
            details = new
            {
                lead = 0,
                alsoInvited = AlsoInvited,
                hostWords = HostWords,
                notes = Notes,
                leavesFree = LeavesFree,
                takes = Takes,
                reopens = Reopens,
                endsOn = EndsOn,
                topic = Topic,
                text = Text,
                startedFrom = "",
                isAmongOurselves = IsAmongOurselves,
                hostsRing = true,
                questions = Questions,
                together = Together,
                booksByItself = BooksByItself,
            },
        };

    public object Times() =>
        new
        {
            zone = "Europe/Copenhagen",
            lineUp = Seats.Select(hosts => new
            {
                hostIds = hosts,
                fill = "inOrder",
                keeper = Keeper,
            }),
            durations = Durations,
            step = Step,
            bufferBefore = 0,
            bufferAfter = 0,
            notice = Notice,
            offer = new
            {
                by = By,
                picked = Picked,
                painted = Painted,
                days = Days,
                fromMinute = FromMinute,
                toMinute = ToMinute,
                until = Until,
                mostShown = MostShown,
                from = From,
            },
            overridden = Overridden,
            calendars = Array.Empty<object>(),
        };
}

/// <summary>Links over HTTP, as coordinators make them and guests take them.</summary>
internal static class LinkCalls
{
    public static LinkDraft Link(this Coordinator maker, Action<LinkDraft>? change = null)
    {
        var draft = new LinkDraft
        {
            DeskId = maker.DeskId,
            Seats =
            [
                [maker.HostId],
            ],
        };
        change?.Invoke(draft);
        return draft;
    }

    /// <summary>A draft.</summary>
    public static async Task<JsonElement> MakeLinkAsync(this Coordinator maker, Action<LinkDraft>? change = null) =>
        await (await maker.PostAsync("/api/links", maker.Link(change).Form())).ReadAsync(HttpStatusCode.Created);

    /// <summary>Has the server look whether anything is left of a link.</summary>
    public static async Task LookAtLinkAsync(this World world, Guid workspace, Guid id)
    {
        await using var scope = world.App.Services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<Tenant>().Enter(workspace);
        await scope.ServiceProvider.GetRequiredService<LinkWatching>().LookAsync(id, CancellationToken.None);
    }

    /// <summary>A link that is out, with its last part of the address.</summary>
    public static async Task<(Guid Id, string Address)> SendLinkAsync(
        this Coordinator maker,
        Action<LinkDraft>? change = null
    )
    {
        var made = await maker.MakeLinkAsync(change);
        var id = made.GetProperty("row").GetProperty("id").GetGuid();
        var sent = await (await maker.PostAsync($"/api/links/{id}/out", new { })).ReadAsync(HttpStatusCode.OK);
        return (id, sent.GetProperty("address").GetString()!.Split('/')[^1]);
    }

    public static async Task<JsonElement> LinkAsync(this Coordinator maker, Guid id) =>
        await maker.GetAsync($"/api/links/{id}");

    public static Task<HttpResponseMessage> HoldAsync(
        this Coordinator maker,
        Guid id,
        string? until = "2026-12-08T17:00:00Z"
    ) => maker.PutAsync($"/api/links/{id}/hold", new { until });

    public static Task<HttpResponseMessage> TakeAsync(
        this HttpClient client,
        string address,
        string start,
        int duration = 30,
        string? name = null,
        string? email = null,
        string? key = null,
        int? guest = null,
        bool notMe = false
    )
    {
        var request = new HttpRequestMessage(HttpMethod.Post, $"/api/public/links/{address}/bookings")
        {
            Content = JsonContent.Create(
                new
                {
                    start,
                    duration,
                    zone = "Europe/Dublin",
                    name,
                    email,
                    guest,
                    notMe,
                    answers = new { },
                }
            ),
        };
        if (key is not null)
            request.Headers.Add("Idempotency-Key", key);
        return client.SendAsync(request);
    }

    public static async Task<string[]> LinkStartsAsync(
        this HttpClient guest,
        string address,
        string from = "2026-12-07",
        string to = "2026-12-20",
        int duration = 30
    ) =>
        [
            .. (
                await guest.GetFromJsonAsync<JsonElement>(
                    $"/api/public/links/{address}/openings?from={from}&to={to}&duration={duration}"
                )
            )
                .GetProperty("openings")
                .EnumerateArray()
                .Select(opening => opening.GetProperty("start").GetString()!),
        ];
}
