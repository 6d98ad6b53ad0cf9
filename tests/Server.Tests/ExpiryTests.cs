using System.Text.RegularExpressions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Features.Team;

namespace Server.Tests;

/// <summary>What is good for a while is good until just before that is over, and not after.</summary>
public sealed class ExpiryTests : IAsyncLifetime
{
    private static readonly Duration ASecond = Duration.FromSeconds(1);

    private MailScene? _scene;

    private MailScene Scene => _scene!;

    public async ValueTask InitializeAsync() => _scene = await MailScene.MakeAsync();

    public async ValueTask DisposeAsync()
    {
        if (_scene is not null)
            await _scene.DisposeAsync();
    }

    [Fact]
    public async Task A_link_to_a_new_password()
    {
        var open = new Coordinator(Scene.World.Browser(), Scene.Ada.Desk);
        await open.PostAsync("/api/password-resets", new { email = Scene.AdasAddress });
        var mail = await Scene.MailAsync(Scene.AdasAddress, "A new password");
        var path = "/api/password-resets/" + Regex.Match(mail.Text, @"/reset/(\S+)").Groups[1].Value;

        Scene.World.Clock.Advance(PasswordResetting.Validity - ASecond);
        (await (await open.PostAsync(path, new { password = "short" })).FaultsAsync()).Keys.ShouldBe(["password"]);
        Scene.World.Clock.Advance(ASecond);
        (await open.PostAsync(path, new { password = "lanterns along a wet quay" })).StatusCode.ShouldBe(
            HttpStatusCode.Gone
        );
    }

    [Fact]
    public async Task An_invitation_to_the_team()
    {
        var invitation = await (
            await Scene.Ada.PostAsync("/api/invitations", Server.Tests.Scene.Invitation("bo"))
        ).ReadAsync(HttpStatusCode.Created);
        var path = "/api" + invitation.GetProperty("path").GetString();

        Scene.World.Clock.Advance(Inviting.Validity - ASecond);
        (await Scene.World.Guest().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.OK);
        Scene.World.Clock.Advance(ASecond);
        (await Scene.World.Guest().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.Gone);
        var joining = new
        {
            name = "Bo Keel",
            password = "harbour at first light",
            zone = "Europe/Lisbon",
            letInviter = true,
        };
        (await new Coordinator(Scene.World.Browser(), "").PostAsync(path, joining)).StatusCode.ShouldBe(
            HttpStatusCode.Gone
        );
    }

    [Fact]
    public async Task A_mailed_code()
    {
        var page = await Scene.Ada.PublishAsync(draft =>
            draft.Details = PageDetails.Usual with { After = new Afterwards("", "", false, ProvesEmail: true) }
        );
        (await BookAsync(MailScene.Nine, code: null)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var sent = (await Scene.MessagesAsync(MessageKind.CodeForGuest)).ShouldHaveSingleItem();
        var code = Regex.Match((await Scene.MailAsync(MailScene.Guest, "")).Text, @"\b\d{6}\b").Value;
        sent.Text.ShouldNotContain(code);

        Scene.World.Clock.Advance(EmailProof.Validity - ASecond);
        (await BookAsync(MailScene.Nine, code)).StatusCode.ShouldBe(HttpStatusCode.Created);
        Scene.World.Clock.Advance(ASecond);
        (await BookAsync(MailScene.Ten, code)).IsSuccessStatusCode.ShouldBeFalse();

        Task<HttpResponseMessage> BookAsync(string start, string? code) =>
            Scene
                .World.Guest()
                .PostAsJsonAsync(
                    $"/api/public/desks/{Scene.Ada.Desk}/pages/{page}/bookings",
                    new
                    {
                        start,
                        duration = 30,
                        zone = "Europe/Dublin",
                        guest = new { name = "Ottilie Wren", email = MailScene.Guest },
                        answers = new { },
                        code,
                    }
                );
    }
}
