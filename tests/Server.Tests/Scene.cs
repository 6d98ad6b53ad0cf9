namespace Server.Tests;

/// <summary>A workspace with an owner, who lets others join as people do: by an invitation's link.</summary>
public sealed class Scene(World world, Coordinator owner)
{
    public const string EmptyCalendar = "BEGIN:VCALENDAR\nEND:VCALENDAR\n";

    public static readonly object AllGrants = new
    {
        mayOffer = true,
        mayBook = true,
        mayMove = true,
        seesTitles = true,
    };

    public static readonly object Room = new
    {
        kind = "room",
        name = "Slip 2",
        zone = "Europe/Copenhagen",
        hoursId = (Guid?)null,
    };

    public Coordinator Owner { get; } = owner;

    public Guid OwnerId => Owner.PersonId;

    public Guid LastPage { get; private set; }

    public static async Task<Scene> MakeAsync(World world) => new(world, await world.SignUpAsync());

    public static object Usual(int? duration = null) =>
        new
        {
            duration,
            bufferBefore = (int?)null,
            bufferAfter = (int?)null,
            notice = (int?)null,
            placeKind = (string?)null,
            place = (string?)null,
            reminders = (int[]?)null,
            language = (string?)null,
            clock = (string?)null,
        };

    public static object Hours(
        string name,
        object[]? day = null,
        object[]? changes = null,
        string zone = "Europe/Copenhagen"
    ) => new { name, document = Document(day, changes, zone) };

    /// <summary>Monday to Friday alike.</summary>
    public static object Document(object[]? day = null, object[]? changes = null, string zone = "Europe/Copenhagen")
    {
        day ??= [new { from = "09:00", to = "12:00" }];
        return new
        {
            zone,
            week = new
            {
                mon = day,
                tue = day,
                wed = day,
                thu = day,
                fri = day,
                sat = Array.Empty<object>(),
                sun = Array.Empty<object>(),
            },
            changes = changes ?? [],
        };
    }

    public static object Invitation(
        string name,
        bool isOwner = false,
        bool isCoordinator = false,
        bool isHost = true
    ) =>
        new
        {
            name,
            email = $"{World.Unique(name)}@yard.example",
            roles = new
            {
                isOwner,
                isCoordinator,
                isHost,
            },
        };

    public static string CalendarWith(
        string title,
        string start = "20261208T090000Z",
        string end = "20261208T100000Z"
    ) =>
        $"BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:{title}\nSUMMARY:{title}\nDTSTART:{start}\nDTEND:{end}\nEND:VEVENT\nEND:VCALENDAR\n";

    public static async Task<Guid> CalendarOfAsync(Coordinator host) =>
        (await (await host.JoinCalendarAsync(EmptyCalendar, host.HostId)).ReadAsync(HttpStatusCode.Created))
            .GetProperty("id")
            .GetGuid();

    /// <summary>Somebody new, who joined and is signed in.</summary>
    public async Task<Coordinator> JoinAsync(
        bool isOwner = false,
        bool isCoordinator = false,
        bool isHost = false,
        bool letInviter = false,
        string name = "Bo Keel"
    )
    {
        var invitation = await (
            await Owner.PostAsync(
                "/api/invitations",
                Invitation(name.Split(' ')[0].ToLowerInvariant(), isOwner, isCoordinator, isHost)
            )
        ).ReadAsync(HttpStatusCode.Created);
        var person = new Coordinator(world.Browser(), Owner.Desk);
        var joined = await person.PostAsync(
            "/api" + invitation.GetProperty("path").GetString(),
            new
            {
                name,
                password = "harbour at first light",
                zone = "Europe/Copenhagen",
                letInviter,
            }
        );
        await joined.ReadAsync(HttpStatusCode.NoContent);
        person.ForgetToken();
        await person.LearnAsync();
        return person;
    }

    public object PageOf(Coordinator who) => who.Draft().Form();

    /// <summary>
    /// A page of somebody's time, made by themselves or, where they may not, by the owner once they let them.
    /// </summary>
    public async Task<Guid> MakePageAsync(Coordinator of)
    {
        if (of != Owner)
            (await of.PutAsync($"/api/me/acting/{OwnerId}", AllGrants)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var made = await (await Owner.PostAsync("/api/pages", PageOf(of))).ReadAsync(HttpStatusCode.Created);
        return LastPage = made.GetProperty("id").GetGuid();
    }

    /// <summary>A booking of somebody's time, on a page that the owner makes.</summary>
    public async Task<Guid> BookingAsync(
        Coordinator of,
        int? approvalHours = null,
        string start = "2026-12-08T08:00:00Z"
    )
    {
        var page = await Owner.PublishAsync(draft => (draft.HostId, draft.ApprovalHours) = (of.HostId, approvalHours));
        (await world.Guest().BookAsync(Owner.Desk, page, start)).StatusCode.ShouldBe(HttpStatusCode.Created);
        // Others of theirs may be there, and what waits for a yes comes first.
        return (await of.GetAsync("/api/bookings"))
            .GetProperty("rows")
            .EnumerateArray()
            .First(row => row.Text("start") == start)
            .Id();
    }

    /// <summary>
    /// A booking of somebody's whose event they deleted in their calendar, as it waits for an answer.
    /// </summary>
    public async Task<Guid> DeletedEventAsync(Coordinator of)
    {
        await using var server = await OddServer.StartAsync();
        var calendar = (await of.JoinAccountAsync(server.Account(), "Odd"))[0];
        var page = await Owner.PublishAsync(draft => draft.HostId = of.HostId);
        (await world.Guest().BookAsync(Owner.Desk, page, "2026-12-08T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        await world.WrittenAsync(await world.WorkspaceOfAsync(Owner.Desk));
        server.Objects.Clear();
        (await world.LookOnAsync(await world.WorkspaceOfAsync(Owner.Desk), calendar)).ShouldBeTrue();
        return (await of.GetAsync("/api/bookings"))
            .GetProperty("rows")[0]
            .GetProperty("outside")[0]
            .GetProperty("id")
            .GetGuid();
    }

    public async Task<Guid> FreeHoursAsync() =>
        (await (await Owner.PostAsync("/api/hours", Hours("Nobody's"))).ReadAsync(HttpStatusCode.Created))
            .GetProperty("id")
            .GetGuid();

    public async Task<Guid> RoomAsync() =>
        (await (await Owner.PostAsync("/api/hosts", Room)).ReadAsync(HttpStatusCode.Created))
            .GetProperty("id")
            .GetGuid();

    public async Task<Guid> InviteAsync() =>
        (await (await Owner.PostAsync("/api/invitations", Invitation("eva"))).ReadAsync(HttpStatusCode.Created))
            .GetProperty("id")
            .GetGuid();

    public async Task<Guid> PersonAsync() => (await JoinAsync(isHost: true, name: "Cai Strand")).PersonId;
}
