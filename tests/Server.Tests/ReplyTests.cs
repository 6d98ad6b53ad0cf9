using LooseLantern.Server.Data.Model;
using MailKit.Net.Smtp;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace Server.Tests;

/// <summary>What guests' calendars, and guests themselves, answer by mail.</summary>
public sealed class ReplyTests : IAsyncLifetime
{
    private MailScene? _scene;

    private MailScene Scene => _scene!;

    public async ValueTask InitializeAsync() => _scene = await MailScene.MakeAsync();

    public async ValueTask DisposeAsync()
    {
        if (_scene is not null)
            await _scene.DisposeAsync();
    }

    [Fact]
    public async Task Accepting_and_declining_from_nothing_but_the_invitation_change_what_the_team_sees()
    {
        var path = await Scene.BookAsync(await Scene.Ada.PublishAsync());
        var invited = await Scene.MailAsync(MailScene.Guest, "Talk");
        (await Scene.AnswerAsync(invited, MailScene.Guest, "accepted")).ShouldContain("Your answer went to");
        await ReplyAsync("accepted");
        // Nobody is woken by a yes.
        (await Scene.MessagesAsync(MessageKind.RepliedForHost)).ShouldBeEmpty();

        await Scene.AnswerAsync(invited, MailScene.Guest, "tentative");
        await ReplyAsync("tentative");
        await Scene.AnswerAsync(invited, MailScene.Guest, "declined", word: "The boat is sold.");
        await ReplyAsync("declined");
        (await Scene.MailAsync(Scene.AdasAddress, "Invitation declined: Ottilie Wren")).Text.ShouldContain(
            "The boat is sold."
        );
        // The booking itself is changed by people alone.
        (await Scene.SeeAsync(path)).GetProperty("cancelledAt").ValueKind.ShouldBe(JsonValueKind.Null);
        var incoming = (await Scene.DetailAsync())
            .GetProperty("incoming")
            .EnumerateArray()
            .Select(mail => mail.GetProperty("meaning").GetString())
            .ToList();
        incoming.ShouldBe(["declines", "acceptsTentatively", "accepts"]);

        // A move asks anew; an answer to the former time is kept and counts for nothing.
        await (await Scene.MoveAsync(path, MailScene.Ten)).ReadAsync(HttpStatusCode.NoContent);
        await ReplyAsync("none");
        await Scene.AnswerAsync(invited, MailScene.Guest, "accepted", word: "old");
        await Outside.AwaitAsync(
            async () => (await Scene.DetailAsync()).GetProperty("incoming").GetArrayLength() == 4,
            "the fourth answer"
        );
        (await Scene.DetailAsync())
            .GetProperty("incoming")[0]
            .GetProperty("notUnderstood")
            .GetString()!
            .ShouldContain("older invitation");
        await ReplyAsync("none");
    }

    [Fact]
    public async Task A_counter_is_a_wish_that_the_team_can_grant()
    {
        await Scene.BookAsync(await Scene.Ada.PublishAsync());
        var invited = await Scene.MailAsync(MailScene.Guest, "Talk");
        await Scene.AnswerAsync(
            invited,
            MailScene.Guest,
            "counter",
            "2026-12-08T09:00",
            "Half an hour with the bank first."
        );
        await Outside.AwaitAsync(
            async () => (await Scene.RowAsync()).GetProperty("wishStart").ValueKind != JsonValueKind.Null,
            "the wish"
        );
        var row = await Scene.RowAsync();
        row.GetProperty("wishStart").GetString().ShouldBe(MailScene.Ten);
        row.GetProperty("start").GetString().ShouldBe(MailScene.Nine);
        (await Scene.MailAsync(Scene.AdasAddress, "Another time preferred")).Text.ShouldContain(
            "Preferred: Tuesday, 8 December, 10:00"
        );
        await (
            await Scene.Ada.PostAsync(
                $"/api/bookings/{row.GetProperty("id").GetGuid()}/move",
                new { start = MailScene.Ten }
            )
        ).ReadAsync(HttpStatusCode.NoContent);
        (await Scene.RowAsync()).GetProperty("wishStart").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task An_answer_that_was_overtaken_by_a_later_one_counts_for_nothing()
    {
        await Scene.BookAsync(await Scene.Ada.PublishAsync());
        var invited = await Scene.MailAsync(MailScene.Guest, "Talk");
        var (to, uid) = (Organizer(invited.Calendar!), MailScene.Property(invited.Calendar!, "UID"));
        await Scene.SendAsync(
            MailScene.Mail(MailScene.Guest, to, "no", Answer(uid, MailScene.Guest, "DECLINED", "20261207T100000Z"))
        );
        await ReplyAsync("declined");
        await Scene.SendAsync(
            MailScene.Mail(MailScene.Guest, to, "yes", Answer(uid, MailScene.Guest, "ACCEPTED", "20261207T095959Z"))
        );
        await Outside.AwaitAsync(
            async () => (await Scene.DetailAsync()).GetProperty("incoming").GetArrayLength() == 2,
            "the answer that came late"
        );
        (await Scene.DetailAsync())
            .GetProperty("incoming")[0]
            .GetProperty("notUnderstood")
            .GetString()!
            .ShouldContain("before the answer that counts");
        await ReplyAsync("declined");
        await Scene.SendAsync(
            MailScene.Mail(
                MailScene.Guest,
                to,
                "after all",
                Answer(uid, MailScene.Guest, "ACCEPTED", "20261207T100001Z")
            )
        );
        await ReplyAsync("accepted");
    }

    [Theory]
    [InlineData("2036-12-08T09:00")]
    [InlineData("2026-12-06T09:00")]
    public async Task A_time_outside_the_dates_of_the_page_is_told_and_is_no_wish_to_grant(string time)
    {
        await Scene.BookAsync(await Scene.Ada.PublishAsync());
        var invited = await Scene.MailAsync(MailScene.Guest, "Talk");
        await Scene.AnswerAsync(invited, MailScene.Guest, "counter", time, "Then, please.");
        (await Scene.MailAsync(Scene.AdasAddress, "Another time preferred")).Text.ShouldContain("Then, please.");
        (await Scene.RowAsync()).GetProperty("wishStart").ValueKind.ShouldBe(JsonValueKind.Null);
        (await Scene.DetailAsync())
            .GetProperty("incoming")[0]
            .GetProperty("notUnderstood")
            .GetString()!
            .ShouldContain("outside the dates");
    }

    [Fact]
    public async Task What_answers_for_another_booking_or_another_person_is_kept_and_changes_nothing()
    {
        var page = await Scene.Ada.PublishAsync();
        await Scene.BookAsync(page);
        await Scene.BookAsync(page, MailScene.Ten, "hanako@mori-sail.example", "Hanako Mori");
        var (mine, hers) = (
            await Scene.MailAsync(MailScene.Guest, "Talk"),
            await Scene.MailAsync("hanako@mori-sail.example", "Talk")
        );
        var myAddress = Organizer(mine.Calendar!);
        var (myUid, herUid) = (MailScene.Property(mine.Calendar!, "UID"), MailScene.Property(hers.Calendar!, "UID"));
        string[] strange =
        [
            Answer(herUid, MailScene.Guest, "DECLINED"),
            Answer(myUid, "eve@elsewhere.example", "DECLINED"),
            Answer(myUid, MailScene.Guest, "PERHAPS"),
            "BEGIN:VCALENDAR\nEND:VCALENDAR",
            "nothing at all",
            Answer(myUid, MailScene.Guest, "DECLINED").Replace("METHOD:REPLY", "METHOD:PUBLISH"),
            Answer(myUid, MailScene.Guest, "DECLINED") + new string('x', 300_000),
        ];
        foreach (var calendar in strange)
            await Scene.SendAsync(MailScene.Mail(MailScene.Guest, myAddress, "see within", calendar));
        await Scene.SendAsync(MailScene.Mail(MailScene.Guest, myAddress, "I come by boat; is there a berth?"));
        var workspace = await Scene.World.WorkspaceOfAsync(Scene.Ada.Desk);
        var kept = await Outside.AwaitAsync(
            async () =>
                await Scene.World.WithinAsync(workspace, db => db.Incoming.OrderBy(row => row.Id).ToListAsync())
                    is { Count: 8 } all
                    ? all
                    : null,
            "all eight kept"
        );
        kept.ShouldAllBe(row => row.Meaning == MailMeaning.Words);
        kept.Take(7).ShouldAllBe(row => row.NotUnderstood != null);
        kept[7].NotUnderstood.ShouldBeNull();
        (await Scene.World.WithinAsync(workspace, db => db.Bookings.ToListAsync())).ShouldAllBe(booking =>
            booking.Reply == GuestReply.None
        );
        (await Scene.MailAsync(Scene.AdasAddress, "A reply: Ottilie Wren")).ShouldNotBeNull();
    }

    [Fact]
    public async Task A_large_file_is_named_and_not_kept_a_mail_that_comes_twice_is_kept_once_and_what_is_for_nobody_is_refused()
    {
        await Scene.BookAsync(await Scene.Ada.PublishAsync());
        var address = Organizer((await Scene.MailAsync(MailScene.Guest, "Talk")).Calendar!);
        var mail = MailScene.Mail(MailScene.Guest, address, "The plan of the hull.");
        mail.Body = new Multipart("mixed")
        {
            mail.Body!,
            new MimePart("application", "pdf")
            {
                Content = new MimeContent(new MemoryStream(new byte[7 * 1024 * 1024])),
                FileName = "hull.pdf",
                ContentDisposition = new ContentDisposition("attachment"),
                ContentTransferEncoding = ContentEncoding.Base64,
            },
        };
        await Scene.SendAsync(mail);
        await Scene.SendAsync(mail);
        var incoming = (await Scene.DetailAsync()).GetProperty("incoming");
        incoming.GetArrayLength().ShouldBe(1);
        incoming[0]
            .GetProperty("text")
            .GetString()!
            .ShouldBe("The plan of the hull.\n\n(A file came along and was not kept: hull.pdf)");

        var huge = MailScene.Mail(MailScene.Guest, address, new string('x', 16 * 1024 * 1024));
        await Should.ThrowAsync<Exception>(() => Scene.SendAsync(huge));
        await Should.ThrowAsync<SmtpCommandException>(() =>
            Scene.SendAsync(
                MailScene.Mail(MailScene.Guest, $"b.{new string('0', 32)}@{StandIn.RepliesDomain}", "hello")
            )
        );
        await Should.ThrowAsync<SmtpCommandException>(() =>
            Scene.SendAsync(MailScene.Mail(MailScene.Guest, "somebody@elsewhere.example", "pass it on"))
        );
        (await Scene.DetailAsync()).GetProperty("incoming").GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task A_machine_that_answers_wakes_nobody_and_so_does_the_team_itself()
    {
        await Scene.BookAsync(await Scene.Ada.PublishAsync());
        var address = Organizer((await Scene.MailAsync(MailScene.Guest, "Talk")).Calendar!);
        var away = MailScene.Mail(MailScene.Guest, address, "I am at sea until Monday.");
        away.Headers.Add("Auto-Submitted", "auto-replied");
        await Scene.SendAsync(away);
        await Scene.SendAsync(MailScene.Mail(Scene.AdasAddress, address, "Noted."));
        (await Scene.DetailAsync()).GetProperty("incoming").GetArrayLength().ShouldBe(2);
        (await Scene.MessagesAsync(MessageKind.RepliedForHost)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Whom_a_guest_brings_along_answers_for_themselves()
    {
        var path = await Scene.BookAsync(await Scene.Ada.PublishAsync());
        await (
            await Scene
                .World.Guest()
                .PutAsJsonAsync(
                    path + "/companions",
                    new { people = new[] { new { name = "Bram Wren", email = "bram@wren-charters.example" } } }
                )
        ).ReadAsync(HttpStatusCode.NoContent);
        var invited = await Scene.MailAsync("bram@wren-charters.example", "You’re invited along");
        await Scene.AnswerAsync(invited, "bram@wren-charters.example", "declined");
        (await Scene.MailAsync(Scene.AdasAddress, "Invitation declined: Bram Wren")).ShouldNotBeNull();
        (await Scene.RowAsync()).GetProperty("reply").GetString().ShouldBe("none");

        // Each by an address of their own, and for nobody else.
        var guests = await Scene.MailAsync(MailScene.Guest, "Talk");
        var (his, hers) = (Organizer(invited.Calendar!), Organizer(guests.Calendar!));
        his.ShouldNotBe(hers);
        his.Split('@')[0].Length.ShouldBeLessThanOrEqualTo(64);
        var uid = MailScene.Property(guests.Calendar!, "UID");
        await Scene.SendAsync(
            MailScene.Mail("bram@wren-charters.example", his, "for her", Answer(uid, MailScene.Guest, "DECLINED"))
        );
        await Scene.SendAsync(
            MailScene.Mail(MailScene.Guest, hers, "for him", Answer(uid, "bram@wren-charters.example", "ACCEPTED"))
        );
        await Outside.AwaitAsync(
            async () => (await Scene.DetailAsync()).GetProperty("incoming").GetArrayLength() == 3,
            "both kept"
        );
        var faults = (await Scene.DetailAsync())
            .GetProperty("incoming")
            .EnumerateArray()
            .Select(mail => mail.GetProperty("notUnderstood").GetString() ?? "")
            .ToList();
        faults.ShouldContain(fault => fault.Contains("came to the address of bram@wren-charters.example"));
        faults.ShouldContain(fault => fault.Contains("who is not the guest"));
        (await Scene.RowAsync()).GetProperty("reply").GetString().ShouldBe("none");
        // An address that nobody was given is nobody's.
        await Should.ThrowAsync<SmtpCommandException>(() =>
            Scene.SendAsync(MailScene.Mail(MailScene.Guest, his.Replace("@", "0@"), "hello"))
        );
    }

    private Task ReplyAsync(string reply) =>
        Outside.AwaitAsync(
            async () => (await Scene.RowAsync()).GetProperty("reply").GetString() == reply,
            $"the reply {reply}"
        );

    private static string Organizer(string calendar) => MailScene.Property(calendar, "ORGANIZER").Split("mailto:")[^1];

    private static string Answer(string uid, string attendee, string status, string stamp = "20261207T080000Z") =>
        $"BEGIN:VCALENDAR\nVERSION:2.0\nMETHOD:REPLY\nBEGIN:VEVENT\n{uid}\nSEQUENCE:0\nDTSTAMP:{stamp}\nDTSTART:20261208T080000Z\nDTEND:20261208T083000Z\nATTENDEE;PARTSTAT={status}:mailto:{attendee}\nEND:VEVENT\nEND:VCALENDAR\n";
}
