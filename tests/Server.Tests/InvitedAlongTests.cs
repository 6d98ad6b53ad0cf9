using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// Who gets a page's invitations without their calendars being asked, and from whom invitations come.
/// </summary>
public class InvitedAlongTests(World world)
{
    [Fact]
    public async Task Who_is_also_invited_hears_of_each_booking_with_the_appointment_and_of_its_end()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            draft.Details = PageDetails.Usual with { AlsoInvited = [new InvitedAlong("Nils Aft", "nils@aft.example")] }
        );
        var booked = await (
            await world
                .Guest()
                .BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z", name: "Ottilie Wren", email: "ottilie@wren.example")
        ).ReadAsync(HttpStatusCode.Created);
        var invitation = (await ToNilsAsync(ada)).ShouldHaveSingleItem();
        (invitation.Kind, invitation.CalendarMethod).ShouldBe((MessageKind.BookedForHost, "REQUEST"));
        invitation.Calendar!.ShouldContain("mailto:nils@aft.example");
        invitation.Calendar!.ShouldContain("Ottilie Wren");
        // The guest reads nothing of who else is told.
        (await MessagesAsync(ada))
            .Where(message => message.ToEmail == "ottilie@wren.example")
            .ShouldAllBe(message => !(message.Calendar + message.Text).Contains("nils", StringComparison.Ordinal));

        var api =
            "/api/public"
            + booked.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/", StringComparison.Ordinal);
        (await world.Guest().PostAsJsonAsync(api + "/cancel", new { word = "" })).IsSuccessStatusCode.ShouldBeTrue();
        (await ToNilsAsync(ada))
            .Select(message => (message.Kind, message.CalendarMethod))
            .ShouldBe([(MessageKind.BookedForHost, "REQUEST"), (MessageKind.CancelledForHost, "CANCEL")]);
    }

    [Fact]
    public async Task What_waits_for_a_yes_is_told_along_only_once_it_stands()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            (draft.ApprovalHours, draft.Details) = (
                48,
                PageDetails.Usual with
                {
                    AlsoInvited = [new InvitedAlong("", "nils@aft.example")],
                }
            )
        );
        (await world.Guest().BookAsync(ada.Desk, page, "2026-12-09T08:00:00Z")).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
        (await ToNilsAsync(ada)).ShouldBeEmpty();
        var booking = (await ada.GetAsync("/api/bookings")).GetProperty("rows")[0].GetProperty("id").GetGuid();
        (await ada.PostAsync($"/api/bookings/{booking}/accept", new { })).IsSuccessStatusCode.ShouldBeTrue();
        (await ToNilsAsync(ada)).ShouldHaveSingleItem().CalendarMethod.ShouldBe("REQUEST");
    }

    [Fact]
    public async Task What_screening_flagged_stands_in_hosts_copies_and_in_no_guests()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
        {
            draft.Questions = [new Question("length", QuestionKind.Number, "How long?", "", IsNeeded: false, [], "")];
            draft.Details = PageDetails.Usual with
            {
                AlsoInvited = [new InvitedAlong("", "nils@aft.example")],
                Screening =
                [
                    new ScreeningRule(
                        [new ScreenCondition("length", ScreenTest.Over, "9")],
                        All: true,
                        ScreenAct.Flag,
                        "Bring the ladder",
                        ""
                    ),
                ],
            };
        });
        var answer = await world
            .Guest()
            .PostAsJsonAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new
                {
                    start = "2026-12-08T08:00:00Z",
                    duration = 30,
                    zone = "Europe/Copenhagen",
                    guest = new { name = "Ottilie Wren", email = "ottilie@wren.example" },
                    answers = new { length = "12" },
                }
            );
        answer.StatusCode.ShouldBe(HttpStatusCode.Created);
        var messages = await MessagesAsync(ada);
        messages.Single(message => message.ToEmail == "nils@aft.example").Calendar!.ShouldContain("Bring the ladder");
        messages
            .Where(message => message.ToEmail == "ottilie@wren.example")
            .ShouldAllBe(message => !(message.Calendar + message.Text).Contains("ladder", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(0, "Ada Wharf")]
    [InlineData(1, "Bo Keel")]
    public async Task Invitations_come_from_the_seat_that_leads(int lead, string name)
    {
        var scene = await Scene.MakeAsync(world);
        var bo = await scene.JoinAsync(isHost: true, letInviter: true);
        var page = await scene.Owner.PublishAsync(draft =>
            (draft.Seats, draft.Details) = (
                [
                    [scene.Owner.HostId],
                    [bo.HostId],
                ],
                PageDetails.Usual with
                {
                    Lead = lead,
                }
            )
        );
        (
            await world.Guest().BookAsync(scene.Owner.Desk, page, "2026-12-08T08:00:00Z", email: "ottilie@wren.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        var invitation = (await MessagesAsync(scene.Owner)).Single(message =>
            message.Kind == MessageKind.BookedForGuest
        );
        invitation
            .Calendar!.Split('\n')
            .Single(line => line.StartsWith("ORGANIZER", StringComparison.Ordinal))
            .ShouldContain(name);
    }

    private async Task<List<Message>> ToNilsAsync(Coordinator ada) =>
        [.. (await MessagesAsync(ada)).Where(message => message.ToEmail == "nils@aft.example")];

    private async Task<List<Message>> MessagesAsync(Coordinator ada)
    {
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        return await world.WithinAsync(workspace, db =>
            db.Messages.AsNoTracking().OrderBy(message => message.WrittenAt).ThenBy(message => message.Id).ToListAsync()
        );
    }
}
