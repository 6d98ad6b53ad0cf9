using LooseLantern.Server.Features.Team;
using LooseLantern.Server.Tenancy;
using Microsoft.Extensions.DependencyInjection;

namespace Server.Tests;

/// <summary>A host without the coordinator's role sees the work and changes none of it.</summary>
public class PermissionTests(World world)
{
    [Fact]
    public async Task A_host_reads_but_does_not_change()
    {
        var ada = await world.SignUpAsync();
        await ada.PublishAsync();
        var page = (await ada.GetAsync("/api/pages"))[0].GetProperty("id").GetGuid();
        var calendar = await (await ada.JoinCalendarAsync("BEGIN:VCALENDAR\nEND:VCALENDAR\n")).ReadAsync(HttpStatusCode.Created);
        var host = await SignInHostAsync(ada.Desk);

        foreach (var path in new[] { "/api/pages", $"/api/pages/{page}", "/api/bookings", "/api/calendars", "/api/board", "/api/hosts", "/api/desks" })
            (await host.Http.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.OK, path);

        var draft = ada.Draft();
        HttpResponseMessage[] refused =
        [
            await host.PostAsync("/api/pages", draft.Form()),
            await host.PutAsync($"/api/pages/{page}", new { version = 2, form = draft.Form() }),
            await host.PostAsync($"/api/pages/{page}/publish", new { version = 2 }),
            await host.PostAsync($"/api/pages/{page}/unpublish", new { version = 2 }),
            await host.JoinCalendarAsync("BEGIN:VCALENDAR\nEND:VCALENDAR\n", ada.HostId),
            await host.ReplaceCalendarAsync(calendar.GetProperty("id").GetGuid(), "BEGIN:VCALENDAR\nEND:VCALENDAR\n"),
            await host.DeleteAsync($"/api/calendars/{calendar.GetProperty("id").GetGuid()}"),
        ];
        foreach (var answer in refused)
            (await answer.ReadAsync(HttpStatusCode.Forbidden)).GetProperty("type").GetString().ShouldBe("urn:loose-lantern:not-allowed");
    }

    private async Task<Coordinator> SignInHostAsync(string desk)
    {
        var email = $"host@{desk}.example";
        await using (var scope = world.App.Services.CreateAsyncScope())
        {
            scope.ServiceProvider.GetRequiredService<Tenant>().Enter(await world.WorkspaceOfAsync(desk));
            await scope.ServiceProvider.GetRequiredService<TeamBuilding>().AddPersonAsync(new NewPerson("Bo Keel", email, "a long password"), TestContext.Current.CancellationToken);
        }

        var host = new Coordinator(world.App.CreateClient(), desk);
        (await host.PostAsync("/api/sign-in", new { email, password = "a long password" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        host.ForgetToken();
        return host;
    }
}
