using LooseLantern.Server.Data.Model;
using LooseLantern.StandIns.Mail;
using MailKit.Net.Smtp;
using static Server.Tests.GuestScene;

namespace Server.Tests;

/// <summary>What guests answer to a letter comes to them, and to what they booked by it.</summary>
public sealed class LetterAnswerTests
{
    private const string Email = "ottilie@wren.example";

    [Fact]
    public async Task An_answer_stands_with_its_guest_and_is_told_once_to_who_wrote()
    {
        await using var scene = await MailScene.MakeAsync();
        var (guest, letter) = await WriteAsync(scene);
        letter.AnswersTo.ShouldStartWith("l.");
        var answer = MailScene.Mail($"Ottilie Wren <{Email}>", letter.AnswersTo, "Rather in spring.");
        answer.MessageId = "spring@wren.example";
        await scene.SendAsync(answer);
        await scene.SendAsync(answer);
        var told = await scene.MailAsync(scene.AdasAddress, "A reply: Ottilie Wren, A talk?");
        told.Text.ShouldContain("Rather in spring.");
        told.Text.ShouldContain($"/work/guests/{guest}");
        (await scene.MessagesAsync(MessageKind.RepliedForSender)).ShouldHaveSingleItem();
        var came = (await scene.Ada.HistoryAsync(guest)).Single(one => one.Text("kind") == "mailIn");
        came.Text("text").ShouldBe("Rather in spring.");
        (await scene.Ada.GetAsync($"/api/guests/{guest}/data.json"))
            .GetProperty("mailReceived")[0]
            .Text("text")
            .ShouldBe("Rather in spring.");

        // Of a machine's nobody is told, and what is for no letter of ours is refused at the door.
        var away = MailScene.Mail(Email, letter.AnswersTo, "I am at sea.");
        away.Headers.Add("Auto-Submitted", "auto-replied");
        await scene.SendAsync(away);
        (await scene.Ada.HistoryAsync(guest)).Count(one => one.Text("kind") == "mailIn").ShouldBe(2);
        (await scene.MessagesAsync(MessageKind.RepliedForSender)).ShouldHaveSingleItem();
        await Should.ThrowAsync<SmtpCommandException>(() =>
            scene.SendAsync(MailScene.Mail(Email, letter.AnswersTo.Replace("@", "0@"), "hello"))
        );
    }

    [Fact]
    public async Task An_answer_to_what_was_booked_by_it_comes_to_the_booking_and_its_hosts()
    {
        await using var scene = await MailScene.MakeAsync();
        var (guest, letter) = await WriteAsync(scene);
        var address = "/api/public/links/" + MailScene.SecretIn(letter, "/times/");
        await scene.SendAsync(MailScene.Mail(Email, letter.AnswersTo, "I look at it tonight."));
        await (
            await scene
                .World.Guest()
                .PostAsJsonAsync(
                    address + "/bookings",
                    new
                    {
                        start = MailScene.Ten,
                        duration = 30,
                        zone = "Europe/Dublin",
                        answers = new { },
                    }
                )
        ).ReadAsync(HttpStatusCode.Created);
        await scene.SendAsync(MailScene.Mail(Email, letter.AnswersTo, "Is there a crane?"));
        // What came before it was booked stands there too.
        (await scene.DetailAsync())
            .GetProperty("incoming")
            .EnumerateArray()
            .Select(mail => mail.Text("text"))
            .ShouldBe(["Is there a crane?", "I look at it tonight."]);
        (await scene.MessagesAsync(MessageKind.RepliedForSender)).ShouldHaveSingleItem().Text.ShouldContain("tonight");
        var told = (await scene.MessagesAsync(MessageKind.RepliedForHost)).ShouldHaveSingleItem();
        (told.BookingId, told.Text.Contains("Is there a crane?")).ShouldBe(((await scene.RowAsync()).Id(), true));
        (await scene.Ada.HistoryAsync(guest)).Count(one => one.Text("kind") == "mailIn").ShouldBe(2);
    }

    [Fact]
    public async Task The_times_of_a_link_that_are_mailed_are_answered_alike()
    {
        await using var scene = await MailScene.MakeAsync();
        var (link, _) = await scene.Ada.SendLinkAsync(draft => draft.Guests = [new("Ottilie Wren", Email)]);
        await (await scene.Ada.PostAsync($"/api/links/{link}/mail", new { word = "" })).ReadAsync(HttpStatusCode.OK);
        var mail = await scene.MailAsync(Email, "Times for you");
        await scene.SendAsync(MailScene.Mail(Email, mail.AnswersTo, "None of them, sorry."));
        (await scene.MailAsync(scene.AdasAddress, "A reply")).Text.ShouldContain("None of them, sorry.");
        (await scene.Ada.HistoryAsync((await scene.Ada.GuestAsync("Ottilie Wren")).Id()))
            .Select(one => one.Text("kind"))
            .ShouldContain("mailIn");
    }

    private static async Task<(Guid Guest, StoredMail Letter)> WriteAsync(MailScene scene)
    {
        var guest = (await scene.Ada.AddGuestAsync(Form("Ottilie Wren", [Email]))).Id();
        await (
            await scene.Ada.PostAsync(
                "/api/letters/send",
                new
                {
                    guestId = guest,
                    subject = "A talk?",
                    body = "{{ times }}\n\n{{ link }}",
                    offer = new { kind = "pattern", id = await scene.Ada.PatternAsync() },
                },
                "a press"
            )
        ).ReadAsync(HttpStatusCode.OK);
        return (guest, await scene.MailAsync(Email, "A talk?"));
    }
}
