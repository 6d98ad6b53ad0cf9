using System.Net.Http.Headers;
using System.Text;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>What can't be done is refused with a reason, and never fails.</summary>
public sealed class RefusedTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";

    [Theory]
    [InlineData("text/plain")]
    [InlineData("application/x-www-form-urlencoded")]
    public async Task Another_content_type_is_refused_with_the_one_that_is_read(string type)
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var answer = await world
            .Guest()
            .PostAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new StringContent("{}", Encoding.UTF8, type)
            );
        var problem = await answer.ReadAsync(HttpStatusCode.UnsupportedMediaType);
        problem.GetProperty("detail").GetString().ShouldBe("Send application/json.");

        var upload = await (await ada.PutAsync("/api/me/portrait", new { })).ReadAsync(
            HttpStatusCode.UnsupportedMediaType
        );
        upload.GetProperty("detail").GetString().ShouldBe("Send multipart/form-data.");
    }

    [Fact]
    public async Task A_field_that_nobody_reads_is_named_and_nothing_is_written()
    {
        var ada = await world.SignUpAsync();
        (
            await (
                await ada.PutAsync(
                    "/api/workspace",
                    new
                    {
                        name = "Changed",
                        zone = "Europe/Copenhagen",
                        closesAfterHours = 24,
                        closesAfter = 12,
                    }
                )
            ).FaultsAsync()
        ).ShouldContainKey("closesAfter");
        (await ada.GetAsync("/api/me")).ToString().ShouldNotContain("Changed");
    }

    [Fact]
    public async Task An_upload_that_breaks_off_is_refused()
    {
        var ada = await world.SignUpAsync();
        await ada.GetAsync("/api/me");
        var whole = "--cut\r\nContent-Disposition: form-data; name=\"file\"; filename=\"a.png\"\r\n\r\nhalf of";
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(whole));
        content.Headers.ContentType = MediaTypeHeaderValue.Parse("multipart/form-data; boundary=cut");
        var problem = await (await ada.SendAsync(HttpMethod.Put, "/api/me/portrait", content)).ReadAsync(
            HttpStatusCode.BadRequest
        );
        problem.GetProperty("type").GetString().ShouldBe("urn:loose-lantern:cut-short");
    }

    [Fact]
    public async Task Of_several_who_publish_one_version_at_once_one_does_and_the_others_are_told()
    {
        var ada = await world.SignUpAsync();
        for (var round = 0; round < 3; round++)
        {
            var page = await (await ada.PostAsync("/api/pages", ada.Draft().Form())).ReadAsync(HttpStatusCode.Created);
            var path = $"/api/pages/{page.GetProperty("id").GetGuid()}/publish";
            var answers = await Task.WhenAll(
                Enumerable.Range(0, 6).Select(_ => ada.PostAsync(path, new { version = 1 }))
            );
            answers.Count(answer => answer.StatusCode == HttpStatusCode.OK).ShouldBe(1);
            answers.Count(answer => answer.StatusCode == HttpStatusCode.Conflict).ShouldBe(5);
        }
    }

    [Fact]
    public async Task A_page_that_is_not_published_takes_no_move_by_its_private_link()
    {
        var ada = await world.SignUpAsync();
        var address = await ada.PublishAsync();
        var made = await (await world.Guest().BookAsync(ada.Desk, address, Nine)).ReadAsync(HttpStatusCode.Created);
        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        await (await ada.PostAsync($"/api/pages/{id}/unpublish", new { version = 2 })).ReadAsync(HttpStatusCode.OK);

        var path = "/api/public" + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/");
        var problem = await (
            await world.Guest().PostAsJsonAsync(path + "/move", new { start = "2026-12-08T09:00:00Z" })
        ).ReadAsync(HttpStatusCode.Conflict);
        problem.GetProperty("phrase").GetProperty("key").GetString().ShouldBe("not-open.moving");
        (await world.Guest().GetFromJsonAsync<JsonElement>(path)).GetProperty("start").GetString().ShouldBe(Nine);
        // It stands, and can be given up.
        (await world.Guest().PostAsJsonAsync(path + "/cancel", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task What_a_guest_does_in_the_browser_of_somebody_signed_in_is_done_by_the_guest()
    {
        var ada = await world.SignUpAsync();
        var address = await ada.PublishAsync();
        var before = await RecordAsync(ada);
        var made = await (await ada.Http.BookAsync(ada.Desk, address, Nine)).ReadAsync(HttpStatusCode.Created);
        var path = "/api/public" + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/");
        await (await ada.Http.PostAsJsonAsync(path + "/move", new { start = "2026-12-08T09:00:00Z" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        await (await ada.Http.PostAsJsonAsync(path + "/cancel", new { })).ReadAsync(HttpStatusCode.NoContent);
        (await RecordAsync(ada)).ShouldBe(before);
    }

    [Fact]
    public async Task Over_TLS_browsers_are_told_to_come_by_nothing_else()
    {
        var client = world.App.CreateDefaultClient(new Uri("https://book.lantern.example"));
        var answer = await client.GetAsync("/health/live");
        answer.Headers.GetValues("Strict-Transport-Security").Single().ShouldBe("max-age=31536000");
        (await world.Guest().GetAsync("/health/live")).Headers.Contains("Strict-Transport-Security").ShouldBeFalse();
    }

    [Fact]
    public async Task A_network_watches_as_many_screens_as_are_told_and_further_ones_are_refused_until_one_ends()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        await using var few = new LanternApp(world.ConnectionString, world.Clock) { OnlyAnswers = true, Streams = 2 };
        var path = $"/api/public/desks/{ada.Desk}/pages/{page}/changes";
        using var guest = few.CreateClient();
        using var one = await OpenAsync();
        using var another = await OpenAsync();
        using (var third = await OpenAsync())
        {
            third.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
            third.Headers.RetryAfter!.Delta.ShouldBe(TimeSpan.FromSeconds(30));
        }

        one.StatusCode.ShouldBe(HttpStatusCode.OK);
        another.Dispose();
        await Outside.AwaitAsync(
            async () =>
            {
                using var again = await OpenAsync();
                return again.StatusCode == HttpStatusCode.OK;
            },
            "the place that was given back"
        );

        Task<HttpResponseMessage> OpenAsync() => guest.GetAsync(path, HttpCompletionOption.ResponseHeadersRead);
    }

    [Fact]
    public async Task While_the_database_is_away_all_is_refused_with_when_to_ask_again_and_then_goes_on_by_itself()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var (gate, connection) = TcpGate.Before(world.ConnectionString);
        await using var _ = gate;
        await using var app = new LanternApp(connection, world.Clock) { OnlyAnswers = true };
        using var guest = app.CreateDefaultClient(new GuestWords());
        var path = $"/api/public/desks/{ada.Desk}/pages/{page}";
        (await guest.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.OK);

        gate.Close();
        var refused = await guest.GetAsync(path);
        refused.Headers.RetryAfter!.Delta.ShouldBe(TimeSpan.FromSeconds(5));
        (await refused.ReadAsync(HttpStatusCode.ServiceUnavailable))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:away");
        (await guest.BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
        (await guest.GetAsync("/health/ready")).StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
        // The screen stands all the same, to say so.
        (await guest.GetStringAsync($"/{ada.Desk}/{page}")).ShouldContain("kit.start");

        gate.Open();
        (await guest.BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
    }

    [Fact]
    public async Task A_clock_of_its_own_goes_on_from_what_was_done_last()
    {
        await using var own = await OwnWorlds.TakeAsync();
        own.World.Clock.Advance(Duration.FromDays(3));
        var ada = await own.World.SignUpAsync();
        var page = await ada.PublishAsync();
        (await own.World.Guest().BookAsync(ada.Desk, page, "2026-12-11T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );

        var earlier = LooseLantern.Server.Hosting.StartedClock.At(World.Now);
        await using var app = new LanternApp(own.World.ConnectionString, earlier);
        _ = app.Server;
        earlier
            .GetCurrentInstant()
            .ShouldBeInRange(
                World.Now + Duration.FromDays(3),
                World.Now + Duration.FromDays(3) + Duration.FromMinutes(5)
            );

        var later = LooseLantern.Server.Hosting.StartedClock.At(World.Now + Duration.FromDays(9));
        await using var next = new LanternApp(own.World.ConnectionString, later);
        _ = next.Server;
        later.GetCurrentInstant().ShouldBeGreaterThanOrEqualTo(World.Now + Duration.FromDays(9));
    }

    private async Task<int> RecordAsync(Coordinator ada) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db => db.Record.CountAsync());
}
