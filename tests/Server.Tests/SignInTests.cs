namespace Server.Tests;

/// <summary>Signing up, in and out, and what is refused without.</summary>
public class SignInTests(World world)
{
    public static TheoryData<string, string> Closed() =>
        new()
        {
            { "GET", "/api/me" },
            { "GET", "/api/pages" },
            { "GET", "/api/bookings" },
            { "GET", "/api/calendars" },
            { "GET", "/api/board" },
            { "GET", "/api/hosts" },
            { "GET", "/api/desks" },
            { "POST", "/api/pages" },
            { "POST", "/api/calendars" },
            { "POST", "/api/pages/supply" },
        };

    [Theory, MemberData(nameof(Closed))]
    public async Task Without_a_sign_in_the_work_is_closed(string method, string path)
    {
        var answer = await world
            .Guest()
            .SendAsync(
                new HttpRequestMessage(new HttpMethod(method), path)
                {
                    Content = method == "POST" ? JsonContent.Create(new { }) : null,
                }
            );
        (await answer.ReadAsync(HttpStatusCode.Unauthorized))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:signed-out");
    }

    [Fact]
    public async Task A_change_without_the_token_is_refused()
    {
        var ada = await world.SignUpAsync();
        var answer = await ada.Http.PostAsJsonAsync("/api/pages", ada.Draft().Form());
        (await answer.ReadAsync(HttpStatusCode.BadRequest))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:token");
        (await ada.PagesAsync()).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Signing_out_ends_it_and_signing_in_begins_it_again()
    {
        var ada = await world.SignUpAsync();
        (await ada.PostAsync("/api/sign-out", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ada.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        ada.ForgetToken();
        (
            await ada.PostAsync(
                "/api/sign-in",
                new { email = $"ada@{ada.Desk}.example", password = "harbour at first light" }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ada.GetAsync("/api/me")).GetProperty("name").GetString().ShouldBe("Ada Wharf");
    }

    [Fact]
    public async Task Guessing_locks_the_sign_in_and_tells_nothing_of_who_exists()
    {
        var ada = await world.SignUpAsync();
        var email = $"ada@{ada.Desk}.example";
        await ada.PostAsync("/api/sign-out", new { });
        ada.ForgetToken();

        var unknown = await ada.PostAsync(
            "/api/sign-in",
            new { email = "nobody@nowhere.example", password = "harbour at first light" }
        );
        var wrong = await ada.PostAsync("/api/sign-in", new { email, password = "a wrong password" });
        (await unknown.ReadAsync(HttpStatusCode.Unauthorized))
            .GetProperty("title")
            .GetString()
            .ShouldBe((await wrong.ReadAsync(HttpStatusCode.Unauthorized)).GetProperty("title").GetString());

        for (var i = 0; i < 8; i++)
            await ada.PostAsync("/api/sign-in", new { email, password = "a wrong password" });
        (await ada.PostAsync("/api/sign-in", new { email, password = "harbour at first light" })).StatusCode.ShouldBe(
            HttpStatusCode.TooManyRequests
        );
    }

    [Fact]
    public async Task Signing_up_with_what_is_taken_is_refused_whole()
    {
        var ada = await world.SignUpAsync();
        var somebody = new Coordinator(world.App.CreateClient(), ada.Desk);
        object Request(string email, string desk, string password = "harbour at first light") =>
            new
            {
                workspace = "Other",
                zone = "UTC",
                name = "Bo",
                email,
                password,
                deskName = "Other",
                deskAddress = desk,
            };

        (
            await (await somebody.PostAsync("/api/sign-up", Request("bo@other.example", ada.Desk))).FaultsAsync()
        ).ShouldContainKey("deskAddress");
        (
            await (await somebody.PostAsync("/api/sign-up", Request("bo@other.example", "api"))).FaultsAsync()
        ).ShouldContainKey("deskAddress");
        (
            await (
                await somebody.PostAsync("/api/sign-up", Request($"ada@{ada.Desk}.example", World.Unique("desk")))
            ).FaultsAsync()
        ).ShouldContainKey("email");
        (
            await (
                await somebody.PostAsync("/api/sign-up", Request("bo@other.example", World.Unique("desk"), "short"))
            ).FaultsAsync()
        ).ShouldContainKey("password");

        // Nothing of it was kept: the same person can sign up once all is right.
        (
            await somebody.PostAsync("/api/sign-up", Request("bo@other.example", World.Unique("desk")))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }
}
