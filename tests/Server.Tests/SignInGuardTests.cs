using LooseLantern.Server.Features.SignIn;

namespace Server.Tests;

/// <summary>What stands between a sign-in and who guesses, and what does not stand in its owner's way.</summary>
public sealed class SignInGuardTests(World world)
{
    private const string Right = "harbour at first light";

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Of_a_hundred_who_guess_at_once_eight_are_let_try_whether_or_not_anybody_has_the_address(
        bool isKnown
    )
    {
        var email = isKnown
            ? $"ada@{(await world.SignUpAsync()).Desk}.example"
            : $"{World.Unique("nobody")}@nowhere.example";
        var guesser = new Coordinator(world.Browser(), "");
        await guesser.PostAsync("/api/sign-in", new { email = "first@nowhere.example", password = "x" });

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 100)
                .Select(n => guesser.PostAsync("/api/sign-in", new { email, password = $"guess {n}" }))
        );

        answers.Count(answer => answer.StatusCode == HttpStatusCode.Unauthorized).ShouldBe(SignInTries.Most);
        answers.Count(answer => answer.StatusCode == HttpStatusCode.TooManyRequests).ShouldBe(100 - SignInTries.Most);
    }

    [Fact]
    public async Task What_others_try_shuts_out_nobody_who_comes_with_the_right_password_from_a_known_browser()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var ada = await own.World.SignUpAsync();
        var email = $"ada@{ada.Desk}.example";
        await ada.PostAsync("/api/sign-out", new { });
        ada.ForgetToken();
        var other = new Coordinator(own.World.Browser(), "");
        for (var n = 0; n < SignInTries.Most; n++)
            await SignInAsync(other, email, "a wrong one");

        var refused = await SignInAsync(other, email, Right);
        (await refused.ReadAsync(HttpStatusCode.TooManyRequests))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:locked");
        refused.Headers.RetryAfter!.Delta.ShouldBe(TimeSpan.FromMinutes(5));
        (await SignInAsync(ada, email, Right)).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        // It is closed for five minutes from the last try that was let through, however often it is knocked at.
        own.World.Clock.AdvanceSeconds(299);
        (await SignInAsync(other, email, Right)).StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        own.World.Clock.AdvanceSeconds(1);
        (await SignInAsync(other, email, Right)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task A_known_browser_has_no_more_tries_than_any_other()
    {
        var ada = await world.SignUpAsync();
        var email = $"ada@{ada.Desk}.example";
        await ada.PostAsync("/api/sign-out", new { });
        ada.ForgetToken();
        for (var n = 0; n < SignInTries.Most; n++)
            (await SignInAsync(ada, email, "a wrong one")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await SignInAsync(ada, email, Right)).StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
    }

    [Theory]
    [InlineData("harbourside")]
    [InlineData("password123456")]
    [InlineData("aaaaaaaaaaaaaaaa")]
    [InlineData("Bo Quayside 2026")]
    [InlineData("Quayside Moorings")]
    public async Task A_password_that_is_soon_guessed_is_refused(string password)
    {
        var bo = new Coordinator(world.Browser(), "");
        var faults = await (
            await bo.PostAsync(
                "/api/sign-up",
                new
                {
                    workspace = "Quayside Moorings",
                    zone = "UTC",
                    name = "Bo Quayside",
                    email = $"{World.Unique("bo")}@quayside.example",
                    password,
                    deskName = "Moorings",
                    deskAddress = World.Unique("moorings"),
                }
            )
        ).FaultsAsync();
        faults["password"].ShouldContain("soon guessed");
    }

    [Fact]
    public async Task A_second_factor_ends_all_other_sign_ins_once_it_is_on()
    {
        var ada = await world.SignUpAsync();
        var elsewhere = new Coordinator(world.Browser(), ada.Desk);
        (await SignInAsync(elsewhere, $"ada@{ada.Desk}.example", Right)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var key = (
            await (await ada.PostAsync("/api/me/second-factor/start", new { password = Right })).ReadAsync(
                HttpStatusCode.OK
            )
        )
            .GetProperty("key")
            .GetString()!;
        (await elsewhere.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);

        await (await ada.PostAsync("/api/me/second-factor/confirm", new { code = Totp.Code(key, 0) })).ReadAsync(
            HttpStatusCode.OK
        );
        (await elsewhere.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await ada.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task One_network_tries_so_many_addresses_a_minute()
    {
        await using var app = new LanternApp(world.ConnectionString, world.Clock) { OnlyAnswers = true, SignIns = 3 };
        var guesser = new Coordinator(app.CreateClient(), "");
        for (var n = 0; n < 3; n++)
            (await SignInAsync(guesser, $"somebody{n}@{World.Unique("x")}.example", "x")).StatusCode.ShouldBe(
                HttpStatusCode.Unauthorized
            );
        var refused = await SignInAsync(guesser, "one-more@nowhere.example", "x");
        refused.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        refused.Headers.RetryAfter.ShouldNotBeNull();
    }

    private static Task<HttpResponseMessage> SignInAsync(Coordinator who, string email, string password) =>
        who.PostAsync("/api/sign-in", new { email, password });
}
