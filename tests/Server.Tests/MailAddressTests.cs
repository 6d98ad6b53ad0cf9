using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// Addresses that can't be mailed are refused with a mend; what gets through all the same fails alone.
/// </summary>
public class MailAddressTests(World world)
{
    private const string Plain = "plain letters";

    [Fact]
    public async Task Where_the_mail_server_is_not_known_to_take_other_letters_they_are_refused_by_every_form()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        const string Soren = "søren@wren.example";
        (await (await world.Guest().BookAsync(ada.Desk, page, MailScene.Nine, email: Soren)).FaultsAsync())[
            "guest.email"
        ]
            .ShouldContain(Plain);
        (
            await (
                await world
                    .Guest()
                    .BookAsync(ada.Desk, page, MailScene.Nine, bookedFor: new { name = "S", email = Soren })
            ).FaultsAsync()
        ).Keys.ShouldContain("for.email");
        (
            await (
                await ada.PostAsync(
                    "/api/invitations",
                    new
                    {
                        name = "Søren",
                        email = Soren,
                        roles = new
                        {
                            isOwner = false,
                            isCoordinator = true,
                            isHost = false,
                        },
                    }
                )
            ).FaultsAsync()
        )["email"].ShouldContain(Plain);
        var path = await BookAsync(ada, page, "bo@blåvand.example");
        (
            await (
                await world
                    .Guest()
                    .PutAsJsonAsync(path + "/companions", new { people = new[] { new { name = "", email = Soren } } })
            ).FaultsAsync()
        )["people[0].email"]
            .ShouldContain(Plain);
        (
            await (await world.Guest().BookAsync(ada.Desk, page, MailScene.Ten, email: "a.@x.example")).FaultsAsync()
        ).Keys.ShouldBe(["guest.email"]);
    }

    [Fact]
    public async Task A_server_that_takes_them_is_written_to_and_a_domain_goes_out_in_ASCII()
    {
        await using var scene = await MailScene.MakeAsync();
        var page = await scene.Ada.PublishAsync();
        await scene.BookAsync(page, MailScene.Nine, "bo@blåvand.example");
        (await scene.MailAsync("bo@xn--blvand-jua.example", "Talk")).Method.ShouldBe("REQUEST");
        await scene.BookAsync(page, MailScene.Ten, "søren@wren.example");
        (await scene.MailAsync("søren@wren.example", "Talk")).Method.ShouldBe("REQUEST");
    }

    [Fact]
    public async Task A_message_that_cannot_be_sent_fails_alone_and_is_not_tried_for_ever()
    {
        await using var scene = await MailScene.MakeAsync();
        var page = await scene.Ada.PublishAsync();
        var path = await scene.BookAsync(page);
        await scene.MailAsync(MailScene.Guest, "Talk");
        // As from before addresses were checked.
        foreach (var odd in (string[])["no address at all", "a.@x.example", "\"\"@@"])
        {
            await scene.World.LookAsync(db =>
                db.Bookings.IgnoreQueryFilters().ExecuteUpdateAsync(set => set.SetProperty(row => row.GuestEmail, odd))
            );
            (
                await scene.MoveAsync(
                    path,
                    odd.StartsWith('a') ? MailScene.Nine
                        : odd.StartsWith('n') ? MailScene.Ten
                        : MailScene.HalfPastNine
                )
            ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
            var failed = await Outside.AwaitAsync(
                async () =>
                    (await scene.MessagesAsync(MessageKind.MovedForGuest)).Find(row =>
                        row.ToEmail == odd && row.State == MessageState.Failed
                    ),
                $"the mail to “{odd}” to fail"
            );
            failed.Attempts.ShouldBeLessThanOrEqualTo(1);
            failed.Fault.ShouldNotBeNullOrEmpty();
        }

        // The others are not held up by them.
        (await scene.MailAsync(scene.AdasAddress, "Moved: ")).ShouldNotBeNull();
    }

    [Fact]
    public async Task What_a_mail_server_does_not_offer_is_its_fault_and_no_messages()
    {
        await using var standIn = await StandIn.StartAsync(demo: null);
        var server = new MailServer(
            new PostSettings("127.0.0.1", standIn.MailPort, null, null, Tls: true, "a@yard.example", "", "", null),
            new MailReach()
        );
        var fault = await Should.ThrowAsync<Exception>(() => server.GreetAsync(TestContext.Current.CancellationToken));
        PostFaults.IsOfServer(fault).ShouldBeTrue();
    }

    [Fact]
    public async Task A_message_that_could_not_be_written_is_not_sent_again_without_words()
    {
        var ada = await world.SignUpAsync();
        await BookAsync(ada, await ada.PublishAsync(), "ottilie@wren.example");
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var id = await world.WithinAsync(workspace, async db =>
        {
            var message = await db.Messages.FirstAsync(row => row.Kind == MessageKind.BookedForGuest);
            await db
                .Messages.Where(row => row.Id == message.Id)
                .ExecuteUpdateAsync(set =>
                    set.SetProperty(row => row.Text, "").SetProperty(row => row.State, MessageState.Failed)
                );
            return message.Id;
        });
        (await (await ada.PostAsync($"/api/post/{id}/again", new { })).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("title")
            .GetString()
            .ShouldBe("This message could not be written.");
    }

    private async Task<string> BookAsync(Coordinator ada, string page, string email) =>
        "/api/public"
        + (
            await (await world.Guest().BookAsync(ada.Desk, page, MailScene.Nine, email: email)).ReadAsync(
                HttpStatusCode.Created
            )
        )
            .GetProperty("path")
            .GetString()!
            .Replace("/booking/", "/bookings/", StringComparison.Ordinal);
}
