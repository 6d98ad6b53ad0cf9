using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>What goes out about bookings, read in the boxes of a mail server that stands in for others'.</summary>
public sealed class PostTests : IAsyncLifetime
{
    private const string Nine = "2026-12-08T08:00:00Z";

    private OwnWorld? _own;

    private World World => _own!.World;

    private StandIn StandIn => _own!.StandIn;

    public async ValueTask InitializeAsync() => _own = await OwnWorlds.TakeAsync();

    public async ValueTask DisposeAsync()
    {
        if (_own is not null)
            await _own.DisposeAsync();
    }

    [Fact]
    public async Task A_guest_is_invited_and_the_host_is_told_each_once_and_in_their_own_zone()
    {
        var ada = await World.SignUpAsync();
        var page = await ada.PublishAsync();
        var link = await BookAsync(ada, page, "Ottilie Wren", "ottilie@wren-charters.example");
        var mail = await OnlyAsync("ottilie@wren-charters.example");

        mail.Subject.ShouldBe("Talk: Tuesday, 8 December, 09:00–09:30 (08:00–08:30 Dublin)");
        mail.Text.ShouldContain("Hello Ottilie,");
        mail.Text.ShouldContain(link);
        mail.Method.ShouldBe("REQUEST");
        var calendar = Unfolded(mail.Calendar!);
        calendar.ShouldContain("METHOD:REQUEST");
        calendar.ShouldContain("DTSTART:20261208T080000Z");
        calendar.ShouldMatch(
            @"ORGANIZER;CN=Ada Wharf;EMAIL=ada@desk-\d+\.example:mailto:b\.[0-9a-f]{32}@replies\.loose-lantern\.example"
        );
        calendar.ShouldMatch(
            "ATTENDEE;CN=Ottilie Wren;.*PARTSTAT=NEEDS-ACTION.*RSVP=TRUE:mailto:ottilie@wren-charters.example"
        );
        calendar.ShouldContain("BEGIN:VALARM");
        calendar.ShouldContain(link);

        var toHost = await OnlyAsync($"ada@{ada.Desk}.example");
        toHost.Subject.ShouldBe("New: Ottilie Wren, Talk, Tuesday, 8 December, 09:00–09:30 (08:00–08:30 Dublin)");
        // Nothing of hers can be written, so she is invited as any attendee.
        toHost.Method.ShouldBe("REQUEST");
        toHost.Text.ShouldNotContain(link);
        (
            await World.LookAsync(db =>
                db.Messages.IgnoreQueryFilters()
                    .Where(message =>
                        message.Kind != MessageKind.ReminderForGuest && message.Kind != MessageKind.ReminderForHost
                    )
                    .ToListAsync()
            )
        ).ShouldAllBe(message => message.State == MessageState.Sent && message.Attempts == 1);
    }

    [Fact]
    public async Task A_guest_reads_in_their_language_and_on_a_group_page_of_nobody_else()
    {
        var ada = await World.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Places = 3);
        await BookAsync(ada, page, "Imke Sandvig", "imke@sandvig.example", "de-AT,de;q=0.9,en;q=0.5");
        await BookAsync(ada, page, "Eskil Ronne", "eskil@ronne.example", "sv, da;q=0.8");
        var imke = await OnlyAsync("imke@sandvig.example");
        imke.Text.ShouldContain("Guten Tag Imke,");
        imke.Text.ShouldContain("Dienstag, 8. Dezember");
        var eskil = await OnlyAsync("eskil@ronne.example");
        eskil.Text.ShouldContain("Hej Eskil");
        (eskil.Text + eskil.Calendar).ShouldNotContain("Imke");
        (eskil.Text + eskil.Calendar).ShouldNotContain("sandvig");
    }

    [Fact]
    public async Task Cancelled_by_its_guest_the_time_is_free_everybody_is_told_and_the_link_says_what_became_of_it()
    {
        var ada = await World.SignUpAsync();
        var page = await ada.PublishAsync();
        var link = await BookAsync(ada, page, "Ottilie Wren", "ottilie@wren-charters.example");
        await OnlyAsync("ottilie@wren-charters.example");
        var path = "/api/public/bookings/" + link.Split('/')[^1];
        (
            await (
                await World.Guest().PostAsJsonAsync(path + "/cancel", new { word = new string('x', 1001) })
            ).FaultsAsync()
        ).Keys.ShouldBe(["word"]);

        (await World.Guest().PostAsJsonAsync(path + "/cancel", new { word = "The boat is sold." })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await World.Guest().PostAsJsonAsync(path + "/cancel", new { word = "Again." })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await World.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldContain(Nine);
        var told = (await BoxAsync("ottilie@wren-charters.example", 2))[0];
        told.Method.ShouldBe("CANCEL");
        var (first, last) = (
            Unfolded((await BoxAsync("ottilie@wren-charters.example", 2))[1].Calendar!),
            Unfolded(told.Calendar!)
        );
        last.ShouldContain("STATUS:CANCELLED");
        last.ShouldContain("SEQUENCE:1");
        Uid(last).ShouldBe(Uid(first));
        (await BoxAsync($"ada@{ada.Desk}.example", 2))[0].Text.ShouldContain("The boat is sold.");

        var booking = await World.Guest().GetFromJsonAsync<JsonElement>(path);
        booking.GetProperty("cancelledBy").GetString().ShouldBe("guest");
        (await World.Guest().GetAsync(path + "/calendar.ics")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await ada.GetAsync("/api/bookings")).GetProperty("total").GetInt32().ShouldBe(0);
        var row = (await ada.GetAsync("/api/bookings?when=cancelled")).GetProperty("rows")[0];
        row.GetProperty("cancelWord").GetString().ShouldBe("The boat is sold.");
        (await ada.GetAsync("/api/board?from=2026-12-08&days=1")).ToString().ShouldNotContain("Ottilie");
    }

    [Fact]
    public async Task One_of_a_group_who_cancels_leaves_the_others_and_the_hosts_time_as_they_are()
    {
        var ada = await World.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Places = 2);
        var link = await BookAsync(ada, page, "Ottilie Wren", "ottilie@wren-charters.example");
        await BookAsync(ada, page, "Hanako Mori", "hanako@mori-sail.example");
        (await World.Guest().StartsAsync(ada.Desk, page, "2026-12-08", "2026-12-08")).ShouldNotContain(Nine);
        await World.Guest().PostAsJsonAsync($"/api/public/bookings/{link.Split('/')[^1]}/cancel", new { word = "" });
        var openings = await World
            .Guest()
            .GetFromJsonAsync<JsonElement>(
                $"/api/public/desks/{ada.Desk}/pages/{page}/openings?from=2026-12-08&to=2026-12-08&duration=30"
            );
        openings.GetProperty("openings")[0].GetProperty("placesLeft").GetInt32().ShouldBe(1);
        (await World.LookAsync(db => db.Commitments.IgnoreQueryFilters().CountAsync())).ShouldBe(1);
        (await ada.GetAsync("/api/bookings")).GetProperty("total").GetInt32().ShouldBe(1);
        await OnlyAsync("hanako@mori-sail.example");
    }

    [Fact]
    public async Task A_coordinator_cancels_with_a_word_where_the_host_lets_them_and_a_time_can_be_booked_again_at_once()
    {
        var scene = new Scene(World, await World.SignUpAsync());
        var bo = await scene.JoinAsync(isCoordinator: true, isHost: true);
        var page = await scene.Owner.PublishAsync();
        await BookAsync(scene.Owner, page, "Ottilie Wren", "ottilie@wren-charters.example");
        var id = (await bo.GetAsync("/api/bookings")).GetProperty("rows")[0].GetProperty("id").GetGuid();
        (await bo.PostAsync($"/api/bookings/{id}/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        (await scene.Owner.PutAsync($"/api/me/acting/{bo.PersonId}", Scene.AllGrants)).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        (
            await bo.PostAsync(
                $"/api/bookings/{id}/cancel",
                new { word = "The slip is flooded.\n\n\n\nhttps://elsewhere.example" }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await bo.PostAsync($"/api/bookings/{id}/cancel", new { word = "" })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await BoxAsync("ottilie@wren-charters.example", 2))[0].Text.ShouldContain("The slip is flooded.");
        var cancelled = await World.LookAsync(db =>
            db.Messages.IgnoreQueryFilters().SingleAsync(row => row.Kind == MessageKind.CancelledForGuest)
        );
        cancelled.Text.ShouldNotContain("\n\n\n");
        // Of addresses only ours can be pressed, whatever somebody typed.
        cancelled.Html.ShouldNotContain("href=\"https://elsewhere");
        cancelled.Html.ShouldContain($"href=\"http://localhost/{scene.Owner.Desk}/{page}\"");
        await BookAsync(scene.Owner, page, "Hanako Mori", "hanako@mori-sail.example");
        (await scene.Owner.GetAsync($"/api/record?subject={id}"))
            .ToString()
            .ShouldContain("Cancelled the booking of Ottilie Wren");
    }

    [Fact]
    public async Task Cancelled_while_it_is_booked_again_a_time_is_given_to_one_alone()
    {
        var ada = await World.SignUpAsync();
        var page = await ada.PublishAsync();
        var link = await BookAsync(ada, page, "Ottilie Wren", "ottilie@wren-charters.example");
        var path = $"/api/public/bookings/{link.Split('/')[^1]}/cancel";
        var all = await Task.WhenAll(
            Enumerable
                .Range(0, 12)
                .Select(n =>
                    n % 3 == 0
                        ? World.Guest().PostAsJsonAsync(path, new { word = "" })
                        : World.Guest().BookAsync(ada.Desk, page, Nine, email: $"g{n}@yard.example")
                )
        );
        all.ShouldAllBe(answer =>
            answer.StatusCode == HttpStatusCode.NoContent
            || answer.StatusCode == HttpStatusCode.Created
            || answer.StatusCode == HttpStatusCode.Conflict
        );
        (await World.LookAsync(db => db.Commitments.IgnoreQueryFilters().CountAsync())).ShouldBe(
            all.Count(answer => answer.StatusCode == HttpStatusCode.Created)
        );
    }

    [Fact]
    public async Task Post_shows_each_message_without_its_secrets_and_sends_again()
    {
        var ada = await World.SignUpAsync();
        var page = await ada.PublishAsync();
        var link = await BookAsync(ada, page, "Ottilie Wren", "ottilie@wren-charters.example");
        await OnlyAsync("ottilie@wren-charters.example");
        await SentAsync();
        var list = await ada.GetAsync("/api/post?state=sent&search=ottilie@");
        list.GetProperty("total").GetInt32().ShouldBe(1);
        var id = list.GetProperty("rows")[0].GetProperty("id").GetGuid();
        var view = (await ada.GetAsync($"/api/post/{id}")).ToString();
        view.ShouldContain("Hello Ottilie");
        view.ShouldContain("REQUEST");
        var secret = link.Split('/')[^1];
        view.ShouldNotContain(secret);
        view.ShouldNotContain("@replies.");
        (
            await World.LookAsync(db =>
                db.Messages.IgnoreQueryFilters().Select(row => row.Text + row.Html + row.Calendar).ToListAsync()
            )
        ).ShouldAllBe(text => !text.Contains(secret));

        (await ada.PostAsync($"/api/post/{id}/again", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await SentAsync();
        // The same message: whoever knows its Message-ID has it once.
        StandIn.Mail.Mails("ottilie@wren-charters.example").Count.ShouldBe(1);
        (await (await World.SignUpAsync()).Http.GetAsync($"/api/post/{id}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    [Fact]
    public async Task Mail_that_a_server_refuses_for_good_is_failed_and_what_it_only_can_not_take_now_is_sent_later()
    {
        var ada = await World.SignUpAsync();
        var page = await ada.PublishAsync();
        await BookAsync(ada, page, "Nobody Home", "nobody@bounce.example");
        var failed = await Outside.AwaitAsync(
            async () => await RowAsync("nobody@bounce.example") is { State: MessageState.Failed } row ? row : null,
            "the refusal"
        );
        failed.Fault!.ShouldContain("refuses it");
        (await (await ada.Http.GetAsync("/api/post?state=lost")).FaultsAsync()).Keys.ShouldBe(["state"]);
        (await ada.GetAsync("/api/post?state=failed"))
            .GetProperty("rows")[0]
            .GetProperty("toEmail")
            .GetString()
            .ShouldBe("nobody@bounce.example");

        // The port answers nobody for a while.
        await StandIn.StopAsync();
        (
            await World.Guest().BookAsync(ada.Desk, page, "2026-12-08T09:00:00Z", email: "later@yard.example")
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        var waiting = await Outside.AwaitAsync(
            async () => await RowAsync("later@yard.example") is { Attempts: 1 } row ? row : null,
            "the first try"
        );
        waiting.State.ShouldBe(MessageState.Due);
        waiting.DueAt.ShouldBe(World.Clock.GetCurrentInstant() + Duration.FromSeconds(30));
        await StandIn.StartAgainAsync();
        World.Clock.AdvanceSeconds(31);
        await OnlyAsync("later@yard.example");
    }

    [Fact]
    public async Task A_name_smuggles_nothing_into_a_mail()
    {
        var ada = await World.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Title = "Talk <b>now</b>");
        (await World.Guest().BookAsync(ada.Desk, page, Nine, name: "Eve\r\nBcc: all@yard.example")).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        await BookAsync(ada, page, "[[private-link]] {{ link }} <img src=x>", "eve@yard.example");
        await SentAsync();
        var message = (
            await World.LookAsync(db =>
                db.Messages.IgnoreQueryFilters().SingleAsync(row => row.Kind == MessageKind.BookedForHost)
            )
        );
        message.Html.ShouldContain("&lt;img src=x&gt;");
        message.Html.ShouldNotContain("<img");
        message.Subject.ShouldContain("{{ link }}");
        StandIn.Mail.Mails($"ada@{ada.Desk}.example").Single().Text.ShouldContain("[ [private-link]]");
    }

    [Fact]
    public async Task A_server_that_dies_is_asked_again_with_the_same_message_and_one_that_dies_after_it_took_it_is_not()
    {
        await using var dying = new DyingMailServer();
        await using var scene = await MailScene.MakeAsync(dying.Port);
        await scene.BookAsync(await scene.Ada.PublishAsync());
        async Task<Message> InvitationAsync() => (await scene.MessagesAsync(MessageKind.BookedForGuest)).Single();
        await Outside.AwaitAsync(
            async () => await InvitationAsync() is { Attempts: 1, Fault: not null },
            "the first try to fail"
        );
        scene.World.Clock.Advance(Duration.FromSeconds(31));
        await Outside.AwaitAsync(async () => (await InvitationAsync()).State == MessageState.Sent, "the second try");
        scene.World.Clock.Advance(Duration.FromMinutes(10));
        await Outside.AwaitAsync(
            async () => (await scene.MessagesAsync(MessageKind.BookedForHost)).Single().State == MessageState.Sent,
            "the other message"
        );
        var sent = dying.To(MailScene.Guest);
        sent.Select(mail => mail.IsTaken).ShouldBe([false, true]);
        sent.Select(mail => mail.MessageId).Distinct().Count().ShouldBe(1);
    }

    private async Task<string> BookAsync(
        Coordinator ada,
        string page,
        string name,
        string email,
        string? language = null
    )
    {
        var request = new HttpRequestMessage(HttpMethod.Post, $"/api/public/desks/{ada.Desk}/pages/{page}/bookings")
        {
            Content = JsonContent.Create(
                new
                {
                    start = Nine,
                    duration = 30,
                    zone = "Europe/Dublin",
                    guest = new { name, email },
                    answers = new { },
                }
            ),
        };
        if (language is not null)
            request.Headers.TryAddWithoutValidation("Accept-Language", language);
        return (await (await World.Guest().SendAsync(request)).ReadAsync(HttpStatusCode.Created))
            .GetProperty("link")
            .GetString()!;
    }

    private Task<Message?> RowAsync(string address) =>
        World.LookAsync(db =>
            db.Messages.IgnoreQueryFilters().OrderBy(row => row.Id).FirstOrDefaultAsync(row => row.ToEmail == address)
        );

    private Task SentAsync() =>
        Outside.AwaitAsync(
            async () =>
                !await World.LookAsync(db =>
                    db.Messages.IgnoreQueryFilters()
                        .AnyAsync(row =>
                            row.State == MessageState.Due
                            && row.Kind != MessageKind.ReminderForGuest
                            && row.Kind != MessageKind.ReminderForHost
                        )
                ),
            "all to be sent"
        );

    private async Task<IReadOnlyList<LooseLantern.StandIns.Mail.StoredMail>> BoxAsync(string address, int count) =>
        await Outside.AwaitAsync(
            () => Task.FromResult(StandIn.Mail.Mails(address) is { } mails && mails.Count == count ? mails : null),
            $"{count} mails to {address}"
        );

    private async Task<LooseLantern.StandIns.Mail.StoredMail> OnlyAsync(string address) =>
        (await BoxAsync(address, 1))[0];

    private static string Unfolded(string text) => text.ReplaceLineEndings("\n").Replace("\n ", "");

    private static string Uid(string calendar) =>
        calendar.Split('\n').Single(line => line.StartsWith("UID:", StringComparison.Ordinal));
}
