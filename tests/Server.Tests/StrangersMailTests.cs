using LooseLantern.Server.Data.Model;
using MailKit.Net.Smtp;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>How much mail goes to people who never asked us for any, and what becomes of what may not go yet.</summary>
public sealed class StrangersMailTests
{
    private static readonly string[] FiveStarts = ["08:00", "08:30", "09:00", "09:30", "10:00"];

    [Fact]
    public async Task Before_an_owner_has_proven_an_address_only_owners_are_mailed_and_everybody_is_told()
    {
        await using var scene = await MailScene.MakeAsync(MailLimits.None, isProven: false);
        var ada = scene.Ada;
        var path = await scene.BookAsync(await ada.PublishAsync());
        await scene.MailAsync(scene.AdasAddress, "New: Ottilie Wren");
        var held = await HeldAsync(scene, MessageHold.Unproven, 1);
        held.Single().ToEmail.ShouldBe(MailScene.Guest);
        (await scene.SeeAsync(path)).GetProperty("mailWaits").GetBoolean().ShouldBeTrue();
        (await ada.GetAsync("/api/me")).GetProperty("mailWaits").GetBoolean().ShouldBeTrue();
        (await ada.GetAsync("/api/post"))
            .GetProperty("rows")
            .EnumerateArray()
            .Count(row => row.GetProperty("heldBack").GetString() == "unproven")
            .ShouldBe(1);

        // What comes of it waits too, in its order.
        (await scene.World.Guest().PostAsJsonAsync(path + "/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        await scene.MailAsync(scene.AdasAddress, "Cancelled: Ottilie Wren");
        scene.Box(MailScene.Guest).ShouldBeEmpty();

        var proven = await (await ProveAsync(scene)).ReadAsync(HttpStatusCode.OK);
        proven.GetProperty("waiting").GetInt32().ShouldBe(2);
        await scene.MailAsync(MailScene.Guest, "Cancelled");
        scene.Box(MailScene.Guest).Select(mail => mail.Method).ShouldBe(["CANCEL", "REQUEST"]);
        (await scene.SeeAsync(path)).GetProperty("mailWaits").GetBoolean().ShouldBeFalse();
        (await ada.GetAsync("/api/me")).GetProperty("mailWaits").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task A_link_that_proves_an_address_works_once_and_few_are_out_at_a_time()
    {
        await using var scene = await MailScene.MakeAsync(MailLimits.None, isProven: false);
        var proof = await ProofAsync(scene);
        (await scene.Ada.PostAsync("/api/me/address-proof", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await scene.Ada.PostAsync("/api/me/address-proof", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await scene.Ada.PostAsync("/api/me/address-proof", new { })).StatusCode.ShouldBe(
            HttpStatusCode.TooManyRequests
        );
        var guest = new Coordinator(scene.World.Browser(), "");
        (await guest.PostAsync("/api/address-proofs/nobodys", new { })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await guest.PostAsync(proof, new { })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await guest.PostAsync(proof, new { })).StatusCode.ShouldBe(HttpStatusCode.Gone);
        // Who needs none gets none.
        (await scene.Ada.PostAsync("/api/me/address-proof", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await scene.MessagesAsync(MessageKind.ProveAddress)).Count.ShouldBe(3);
    }

    [Fact]
    public async Task A_mailed_link_works_in_a_browser_that_is_signed_in_elsewhere()
    {
        await using var scene = await MailScene.MakeAsync(MailLimits.None, isProven: false);
        var proof = await ProofAsync(scene);
        var eve = await scene.World.SignUpAsync();
        (await eve.PostAsync(proof, new { })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await scene.Ada.GetAsync("/api/me")).GetProperty("mailWaits").GetBoolean().ShouldBeFalse();

        (await eve.PostAsync("/api/password-resets", new { email = scene.AdasAddress })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        var mail = await scene.MailAsync(scene.AdasAddress, "A new password");
        var secret = MailScene.SecretIn(mail, "/reset/");
        (
            await eve.PostAsync($"/api/password-resets/{secret}", new { password = "lanterns along a wet quay" })
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task On_its_first_day_a_workspace_mails_so_many_strangers_an_hour_and_the_others_wait()
    {
        await using var scene = await MailScene.MakeAsync(new MailLimits(FirstDayMails: 3), isProven: false);
        (await ProveAsync(scene)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var page = await scene.Ada.PublishAsync();
        var paths = new List<string>();
        foreach (var (start, i) in FiveStarts.Select((start, i) => (start, i)))
            paths.Add(await scene.BookAsync(page, $"2026-12-08T{start}:00Z", $"guest{i}@wren.example"));
        var held = await HeldAsync(scene, MessageHold.FirstDay, 2);
        var waiting = held.Select(row => row.ToEmail).ToHashSet();
        // The team is not made of strangers.
        await Outside.AwaitAsync(
            () =>
                Task.FromResult(
                    scene
                        .Box(scene.AdasAddress)
                        .Count(mail => mail.Subject.StartsWith("New:", StringComparison.Ordinal)) == 5
                ),
            "five mails to the host"
        );
        for (var i = 0; i < 5; i++)
            (await scene.SeeAsync(paths[i]))
                .GetProperty("mailWaits")
                .GetBoolean()
                .ShouldBe(waiting.Contains($"guest{i}@wren.example"));

        scene.World.Clock.Advance(Duration.FromHours(1));
        foreach (var address in waiting)
            await scene.MailAsync(address, "Talk");
        (await HeldAsync(scene, MessageHold.FirstDay, 0)).ShouldBeEmpty();
        Enumerable
            .Range(0, 5)
            .Sum(i =>
                scene
                    .Box($"guest{i}@wren.example")
                    .Count(mail => !mail.Subject.StartsWith("Reminder", StringComparison.Ordinal))
            )
            .ShouldBe(5);
    }

    [Fact]
    public async Task After_its_first_day_a_workspace_mails_as_many_as_come()
    {
        await using var scene = await MailScene.MakeAsync(new MailLimits(FirstDayMails: 1));
        var page = await scene.Ada.PublishAsync();
        foreach (var (start, i) in FiveStarts.Select((start, i) => (start, i)))
            await scene.BookAsync(page, $"2026-12-08T{start}:00Z", $"guest{i}@wren.example");
        for (var i = 0; i < 5; i++)
            await scene.MailAsync($"guest{i}@wren.example", "Talk");
    }

    [Fact]
    public async Task Of_many_who_are_brought_along_ten_are_mailed_and_each_once_an_hour()
    {
        await using var scene = await MailScene.MakeAsync(new MailLimits(CompanionMinutes: 60));
        var page = await scene.Ada.PublishAsync(draft => draft.Changes = ChangeRules.Usual with { MostBrought = 12 });
        var path = await scene.BookAsync(page);
        var people = Enumerable.Range(0, 12).Select(i => new { name = "", email = $"along{i}@wren.example" }).ToArray();
        (await scene.World.Guest().PutAsJsonAsync(path + "/companions", new { people })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        for (var i = 0; i < 10; i++)
            await scene.MailAsync($"along{i}@wren.example", "You’re invited along");
        (await scene.SeeAsync(path)).GetProperty("companions").GetArrayLength().ShouldBe(12);
        (await scene.SeeAsync(path)).GetProperty("mostMailed").GetInt32().ShouldBe(10);

        (await scene.SeeAsync(path)).GetProperty("mailWaitsFor").GetArrayLength().ShouldBe(0);
        (await scene.World.Guest().PostAsJsonAsync(path + "/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await HeldAsync(scene, MessageHold.OftenToOne, 10)).ShouldAllBe(row =>
            row.Kind == MessageKind.CancelledForCompanion
        );
        (await scene.SeeAsync(path)).GetProperty("mailWaitsFor").GetArrayLength().ShouldBe(10);
        scene.World.Clock.Advance(Duration.FromHours(1));
        for (var i = 0; i < 10; i++)
            await scene.MailAsync($"along{i}@wren.example", "Cancelled");
        (
            await scene.World.LookAsync(db =>
                db.Messages.IgnoreQueryFilters().CountAsync(row => row.ToEmail == "along11@wren.example")
            )
        ).ShouldBe(0);
    }

    [Fact]
    public async Task A_reply_address_takes_twenty_mails_an_hour_and_asks_for_the_others_later()
    {
        await using var scene = await MailScene.MakeAsync();
        await scene.BookAsync(await scene.Ada.PublishAsync());
        var invited = await scene.MailAsync(MailScene.Guest, "Talk");
        var address = MailScene.Property(invited.Calendar!, "ORGANIZER").Split("mailto:")[^1];
        for (var i = 0; i < 20; i++)
            await scene.SendAsync(MailScene.Mail(MailScene.Guest, address, $"Word {i}."));
        var refused = await Should.ThrowAsync<SmtpCommandException>(() =>
            scene.SendAsync(MailScene.Mail(MailScene.Guest, address, "One more."))
        );
        ((int)refused.StatusCode).ShouldBe(452);
        scene.World.Clock.Advance(Duration.FromHours(1));
        await scene.SendAsync(MailScene.Mail(MailScene.Guest, address, "One more."));
        (await scene.World.LookAsync(db => db.Incoming.IgnoreQueryFilters().CountAsync())).ShouldBe(21);
    }

    /// <summary>Asks for a link that proves the owner's address, and returns where it is taken up.</summary>
    private static async Task<string> ProofAsync(MailScene scene)
    {
        (await scene.Ada.PostAsync("/api/me/address-proof", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var mail = await scene.MailAsync(scene.AdasAddress, "Is this your address?");
        return $"/api/address-proofs/{MailScene.SecretIn(mail, "/prove/")}";
    }

    private static async Task<HttpResponseMessage> ProveAsync(MailScene scene) =>
        await new Coordinator(scene.World.Browser(), "").PostAsync(await ProofAsync(scene), new { });

    private static Task<List<Message>> HeldAsync(MailScene scene, MessageHold why, int count) =>
        Outside.AwaitAsync(
            async () =>
                await scene.World.LookAsync(db =>
                    db.Messages.IgnoreQueryFilters().AsNoTracking().Where(row => row.HeldBack == why).ToListAsync()
                )
                    is var held
                && held.Count == count
                    ? held
                    : null,
            $"{count} held back"
        )!;
}
