using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>A workspace is made by a mailed link, and nobody learns by asking who has a sign-in.</summary>
public sealed class SignUpTests
{
    [Fact]
    public async Task A_known_and_an_unknown_address_are_answered_alike_and_only_their_own_mail_tells()
    {
        await using var scene = await MailScene.MakeAsync();
        var (known, unknown) = (await AskAsync(scene, scene.AdasAddress), await AskAsync(scene, "bo@quay.example"));
        known.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        unknown.StatusCode.ShouldBe(known.StatusCode);
        (await unknown.Content.ReadAsStringAsync()).ShouldBe(await known.Content.ReadAsStringAsync());
        (await scene.MailAsync("bo@quay.example", "Make your workspace")).Text.ShouldContain("/start/");
        var told = await scene.MailAsync(scene.AdasAddress, "You have a sign-in already");
        told.Text.ShouldContain("/sign-in");
        told.Text.ShouldNotContain("/start/");
    }

    [Fact]
    public async Task The_link_makes_one_workspace_whose_owners_address_is_proven()
    {
        await using var scene = await MailScene.MakeAsync();
        (await AskAsync(scene, "Bo@quay.example")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var mail = await scene.MailAsync("Bo@quay.example", "Make your workspace");
        var link = MailScene.SecretIn(mail, "/start/");
        (await scene.World.Guest().GetFromJsonAsync<JsonElement>($"/api/sign-up/links/{link}"))
            .GetProperty("email")
            .GetString()
            .ShouldBe("Bo@quay.example");
        var bo = new Coordinator(scene.World.Browser(), "quay");
        (
            await (await bo.PostAsync("/api/sign-up", Form(link, email: "eve@quay.example"))).FaultsAsync()
        ).Keys.ShouldBe(["email"]);
        (await (await bo.PostAsync("/api/sign-up", Form(link, password: "short"))).FaultsAsync()).Keys.ShouldBe([
            "password",
        ]);
        (await (await bo.PostAsync("/api/sign-up", Form(null))).FaultsAsync()).Keys.ShouldBe(["link"]);
        (await bo.PostAsync("/api/sign-up", Form("nobodys"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        var pressed = await Task.WhenAll(
            Enumerable.Range(0, 3).Select(i => bo.PostAsync("/api/sign-up", Form(link, desk: $"quay-{i}")))
        );
        pressed.Count(answer => answer.StatusCode == HttpStatusCode.NoContent).ShouldBe(1);
        pressed.Count(answer => answer.StatusCode == HttpStatusCode.Gone).ShouldBe(2);
        bo.ForgetToken();
        (await bo.GetAsync("/api/me")).GetProperty("mailWaits").GetBoolean().ShouldBeFalse();
        (await scene.World.Guest().GetAsync($"/api/sign-up/links/{link}")).StatusCode.ShouldBe(HttpStatusCode.Gone);
        (
            await scene.World.LookAsync(db =>
                db.Users.IgnoreQueryFilters().Where(row => row.Email == "Bo@quay.example").ToListAsync()
            )
        )
            .ShouldHaveSingleItem()
            .EmailProvenAt.ShouldBe(World.Now);
    }

    [Fact]
    public async Task A_link_runs_out_and_few_are_out_at_a_time()
    {
        await using var scene = await MailScene.MakeAsync();
        // An address of its own: what is on its way as this ends would be read elsewhere as theirs.
        for (var i = 0; i < 5; i++)
            await AskAsync(scene, "many@quay.example");
        await AskAsync(scene, "last@quay.example");
        var link = MailScene.SecretIn(await scene.MailAsync("many@quay.example", "Make your workspace"), "/start/");
        await scene.MailAsync("last@quay.example", "Make your workspace");
        (
            await scene.World.LookAsync(db => db.Set<SignUpLink>().CountAsync(row => row.Email == "many@quay.example"))
        ).ShouldBe(3);
        scene.World.Clock.Advance(Duration.FromHours(2));
        (await scene.World.Guest().GetAsync($"/api/sign-up/links/{link}")).StatusCode.ShouldBe(HttpStatusCode.Gone);
        (await (await AskAsync(scene, "a.@x.example")).FaultsAsync()).Keys.ShouldBe(["email"]);
    }

    private static async Task<HttpResponseMessage> AskAsync(MailScene scene, string email) =>
        await new Coordinator(scene.World.Browser(), "").PostAsync("/api/sign-up/links", new { email });

    private static object Form(
        string? link,
        string email = "",
        string password = "seven ropes and a gull",
        string desk = "quay"
    ) =>
        new
        {
            workspace = "Quayside Moorings",
            zone = "UTC",
            name = "Bo Lund",
            email,
            password,
            deskName = "Moorings",
            deskAddress = desk,
            link,
        };
}
