using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Server.Tests;

/// <summary>Steps with calendars outside.</summary>
internal static class Outside
{
    public static string Event(string uid, string start, string end, string title = "Elsewhere", string more = "") =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//t//EN\r\nBEGIN:VEVENT\r\nUID:{uid}\r\nDTSTAMP:20261201T000000Z\r\nDTSTART:{start}\r\nDTEND:{end}\r\nSUMMARY:{title}\r\n{more}END:VEVENT\r\nEND:VCALENDAR\r\n";

    /// <summary>
    /// Joins calendars of an account to the person's own time; the first is the one bookings are written to.
    /// </summary>
    public static async Task<Guid[]> JoinAccountAsync(this Coordinator who, object account, params string[] names)
    {
        var found = await (await who.PostAsync("/api/calendars/account/find", account)).ReadAsync(HttpStatusCode.OK);
        var paths = names
            .Select(name =>
                found
                    .GetProperty("calendars")
                    .EnumerateArray()
                    .Single(calendar => calendar.GetProperty("name").GetString() == name)
                    .GetProperty("path")
                    .GetString()!
            )
            .ToArray();
        var joined = await (
            await who.PostAsync(
                "/api/calendars/account",
                new
                {
                    @for = new { hostId = who.HostId },
                    account,
                    calendars = paths,
                    writeTo = paths[0],
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        return
        [
            .. names.Select(name =>
                joined
                    .EnumerateArray()
                    .Single(calendar => calendar.GetProperty("name").GetString() == name)
                    .GetProperty("id")
                    .GetGuid()
            ),
        ];
    }

    public static async Task<Guid> JoinAddressAsync(this Coordinator who, string address) =>
        (
            await (
                await who.PostAsync("/api/calendars/address", new { @for = new { hostId = who.HostId }, address })
            ).ReadAsync(HttpStatusCode.Created)
        )
            .GetProperty("id")
            .GetGuid();

    public static async Task<JsonElement> LookAsync(this Coordinator who, Guid calendar) =>
        await (await who.PostAsync($"/api/calendars/{calendar}/look", new { })).ReadAsync(HttpStatusCode.OK);

    public static async Task<JsonElement> CalendarAsync(this Coordinator who, Guid calendar) =>
        (await who.GetAsync("/api/calendars"))
            .EnumerateArray()
            .Single(row => row.GetProperty("id").GetGuid() == calendar);

    /// <summary>
    /// Waits until something comes true that is done beside the request, such as an event being written.
    /// </summary>
    public static async Task<T> AwaitAsync<T>(Func<Task<T?>> look, string what)
        where T : notnull
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        while (true)
        {
            if (await look() is { } found && !found.Equals(false))
                return found;
            if (patience.IsCancellationRequested)
                throw new TimeoutException($"Waited in vain for {what}.");
            await Task.Delay(50, TestContext.Current.CancellationToken);
        }
    }

    /// <summary>Looks at a calendar as the watch does: for what changed since the last time.</summary>
    public static async Task<bool> LookOnAsync(this World world, Guid workspace, Guid calendar)
    {
        await using var scope = world.App.Services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<Tenant>().Enter(workspace);
        return await scope
            .ServiceProvider.GetRequiredService<CalendarLooking>()
            .LookAsync(calendar, whole: false, TestContext.Current.CancellationToken);
    }

    /// <summary>Waits until all that should be written is.</summary>
    public static Task WrittenAsync(this World world, Guid workspace) =>
        AwaitAsync(
            async () => !await world.WithinAsync(workspace, db => db.WrittenEvents.AnyAsync(row => row.DueAt != null)),
            "events to be written"
        );
}
