using System.Text;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.GuestBook.Erasing;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using static Server.Tests.GroupScene;
using static Server.Tests.GuestScene;

namespace Server.Tests;

/// <summary>Who is erased is found nowhere any more, and what happened stays said, of nobody.</summary>
public sealed class ErasingTests(World world)
{
    private const string Quillon = "Quillon Farthing";
    private const string Email = "quillon@farthing.example";
    private static readonly LinkGuest OnLink = new(Quillon, Email);
    private static readonly string[] Words = ["uillon", "arthing", "Boathook Lane"];

    [Fact]
    public async Task Nothing_of_who_is_erased_is_left_in_the_database_or_in_hosts_calendars()
    {
        await using var own = await OwnWorlds.TakeAsync();
        await using var scene = await WritingScene.MakeAsync(own.World, places: 4);
        var ada = scene.Ada;
        await own.World.FillAsync(scene);
        var quillon = await ada.GuestAsync(Quillon);
        (await TracesAsync(own.World)).Count.ShouldBeGreaterThan(15);
        scene.Server.Objects.Values.ShouldContain(text => text.Contains("arthing"));

        own.World.Clock.Advance(Duration.FromDays(30));
        (await EraseAsync(ada, quillon)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        // A look at a host's calendar may read what still stands there, until it is written anew.
        (await TracesAsync(own.World))
            .Where(trace => !trace.StartsWith("calendar_resources", StringComparison.Ordinal))
            .ShouldBeEmpty();
        await scene.SettledAsync();
        scene.Server.Objects.Values.ShouldNotBeEmpty();
        scene.Server.Objects.Values.ShouldNotContain(text => text.Contains("arthing"));
        scene.Server.Objects.Values.ShouldContain(text => text.Contains("Erased guest"));
        (await TracesAsync(own.World)).ShouldBeEmpty();

        // What happened stays.
        (await ada.Http.GetAsync($"/api/guests/{quillon.Id()}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var bookings = (await ada.GetAsync("/api/bookings?when=past")).GetProperty("rows").EnumerateArray().ToList();
        bookings.ConvertAll(row => row.Text("guestName")).Order().ShouldBe(["Bryn Ashby", "Erased guest"]);
        (await ada.GetAsync("/api/record"))
            .EnumerateArray()
            .Select(line => line.Text("what"))
            .ShouldContain("Erased a guest");
        (await File.ReadAllTextAsync(own.World.Erasures)).ShouldNotContain("arthing");
    }

    [Fact]
    public async Task While_something_is_to_come_nobody_is_erased_and_it_is_told_what()
    {
        var scene = await MakeAsync(world);
        var path = await scene.BookAsync(Quillon);
        var (link, _) = await scene.Ada.SendLinkAsync(draft =>
            draft.Guests = [new(Quillon, EmailOf(Quillon)), new("Bryn Ashby", "bryn@ashby.example")]
        );
        var guest = await scene.Ada.GuestAsync(Quillon);
        var look = await scene.Ada.GetAsync($"/api/guests/{guest.Id()}/erasing");
        (look.GetProperty("toCome")[0].Text("title"), look.GetProperty("usable")[0].Text("title")).ShouldBe(
            ("Talk", "Hull survey, Larkspur")
        );
        (look.GetProperty("bookings").GetInt32(), look.GetProperty("links").GetInt32()).ShouldBe((0, 1));
        (await (await EraseAsync(scene.Ada, guest)).ReadAsync(HttpStatusCode.Conflict))
            .Text("type")
            .ShouldBe("urn:loose-lantern:guest-still-open");

        (await world.Guest().PostAsJsonAsync(path + "/cancel", new { })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await EraseAsync(scene.Ada, guest)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await scene.Ada.PostAsync($"/api/links/{link}/revoke", new { })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await scene.Ada.PostAsync($"/api/guests/{guest.Id()}/erase", new { version = 7 })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await EraseAsync(scene.Ada, guest)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        // The private link opens nothing any more, and the other guest of the link is as before.
        (await world.Guest().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await scene.Ada.GuestsAsync()).Names().ShouldBe(["Bryn Ashby"]);
        (await scene.Ada.LinkAsync(link))
            .GetProperty("form")
            .GetProperty("guests")
            .EnumerateArray()
            .Select(one => one.Text("name"))
            .ShouldBe(["Erased guest", "Bryn Ashby"]);
    }

    [Fact]
    public async Task Whom_they_booked_for_and_who_has_the_same_name_stay_as_they_are()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var scene = await MakeAsync(own.World, change: draft =>
            draft.Details = PageDetails.Usual with { ForOthers = true }
        );
        (
            await own
                .World.Guest()
                .BookAsync(
                    scene.Ada.Desk,
                    scene.Page,
                    Nine,
                    name: Quillon,
                    email: Email,
                    bookedFor: new { name = "Ida Holt", mailTo = "booker" }
                )
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        await scene.TryAsync(Quillon, at: Ten);
        var mails = await scene.MessagesAsync(MessageKind.BookedForGuest);
        mails.Count.ShouldBe(2);
        own.World.Clock.Advance(Duration.FromDays(10));

        var rows = (await scene.Ada.GuestsAsync(new { search = Email })).GetProperty("rows");
        var guest = await scene.Ada.GetAsync($"/api/guests/{rows[0].Id()}");
        (await EraseAsync(scene.Ada, guest)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await scene.Ada.GuestsAsync()).Names().ShouldBe(["Ida Holt", Quillon]);
        var left = (await scene.MessagesAsync(MessageKind.BookedForGuest)).ShouldHaveSingleItem();
        (left.ToName, left.Text).ShouldBe((Quillon, mails.Single(mail => mail.Id == left.Id).Text));
        (await scene.Ada.GuestAsync("Ida Holt")).Text("bookerEmail").ShouldBe("");
        // Who books again is somebody new.
        own.World.Clock.Reset(World.Now);
        (
            await own
                .World.Guest()
                .BookAsync(scene.Ada.Desk, scene.Page, "2026-12-09T08:00:00Z", name: "Q.", email: Email)
        ).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await scene.Ada.GuestAsync("Q.")).Id().ShouldNotBe(guest.Id());
    }

    [Fact]
    public async Task A_restored_database_forgets_again_who_was_erased_since_its_backup()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var ada = await own.World.SignUpAsync();
        var workspace = await own.World.WorkspaceOfAsync(ada.Desk);
        await ada.AddGuestAsync(Form("Osric Pell", ["osric@pell.example"]));
        await ada.AddGuestAsync(Form(Quillon, [Email]));
        await ada.AddGuestAsync(Form("Bryn Ashby", ["bryn@ashby.example"]));
        var nameless = await ada.AddGuestAsync(Form("Wilf Teller"));
        var at = own.World.Clock.GetCurrentInstant();
        // One of a workspace that is not here, one who became a guest only afterwards, and one known by the id alone.
        await File.AppendAllLinesAsync(
            own.World.Erasures,
            new[]
            {
                Line(workspace, Guid.NewGuid(), at, Email),
                Line(Guid.NewGuid(), Guid.NewGuid(), at, "osric@pell.example"),
                Line(workspace, Guid.NewGuid(), at - Duration.FromDays(1), "bryn@ashby.example"),
                Line(workspace, nameless.Id(), at),
            }
        );
        (await ErasureReplaying.RunAsync(own.World.App.Services, default)).ShouldBe(2);
        (await ada.GuestsAsync()).Names().ShouldBe(["Bryn Ashby", "Osric Pell"]);
        (await ErasureReplaying.RunAsync(own.World.App.Services, default)).ShouldBe(0);

        // And what is erased here stands in the file, once, whatever somebody broke off in writing there.
        await File.AppendAllTextAsync(own.World.Erasures, "{\"id\":\n");
        (await EraseAsync(ada, await ada.GuestAsync("Osric Pell"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await ErasureReplaying.RunAsync(own.World.App.Services, default);
        (await File.ReadAllLinesAsync(own.World.Erasures)).Length.ShouldBe(6);

        static string Line(Guid workspace, Guid guest, Instant at, params string[] emails) =>
            JsonSerializer.Serialize(
                new ErasureLine(
                    Guid.NewGuid(),
                    workspace,
                    guest,
                    [.. emails.Select(email => ErasureList.HashOf(workspace, email))],
                    at
                ),
                LooseLantern.Server.Hosting.Json.Options
            );
    }

    [Fact]
    public async Task Guests_are_kept_as_long_as_the_kinds_they_booked_say_and_it_is_told_beforehand()
    {
        await using var own = await OwnWorlds.TakeAsync();
        var ada = await own.World.SignUpAsync();
        var workspace = await own.World.WorkspaceOfAsync(ada.Desk);
        (
            await ada.PutAsync(
                "/api/workspace",
                new
                {
                    name = "Pier",
                    zone = "Europe/Copenhagen",
                    kinds = new[] { "Surveys", "School" },
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var survey = await ada.PublishAsync(draft => (draft.Address, draft.Details) = ("survey", OfKind("Surveys")));
        var school = await ada.PublishAsync(draft => (draft.Address, draft.Details) = ("school", OfKind("School")));
        await BookAsync(survey, Nine, "Bryn Ashby");
        await BookAsync(survey, Ten, "Osric Pell");
        await BookAsync(school, "2026-12-09T08:00:00Z", "Osric Pell");
        await BookAsync(survey, "2026-12-10T08:00:00Z", "Imke Sandvig");
        await ada.AddGuestAsync(Form("Never Booked"));

        object Rules(int? survey, int? school = null, int? without = null) =>
            new
            {
                kinds = new[] { ("Surveys", survey), ("School", school) }
                    .Where(rule => rule.Item2 is not null)
                    .Select(rule => new { kind = rule.Item1, months = rule.Item2 }),
                withoutBooking = without,
            };
        (await (await ada.PutAsync("/api/guests/retention", Rules(0, 241, 0))).FaultsAsync())
            .Keys.Order()
            .ShouldBe(["kinds[0].months", "kinds[1].months", "withoutBooking"]);
        (
            await (
                await ada.PutAsync(
                    "/api/guests/retention",
                    new { kinds = new[] { new { kind = "Tours", months = 3 } }, withoutBooking = (int?)null }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["kinds[0].kind"]);

        own.World.Clock.Advance(Duration.FromDays(100));
        // Nothing is saved by looking.
        var look = await (await ada.PostAsync("/api/guests/retention/preview", Rules(3, null, 2))).ReadAsync(
            HttpStatusCode.OK
        );
        (look.GetProperty("tonight").GetInt32(), look.GetProperty("soon").GetInt32()).ShouldBe((3, 3));
        await RunAsync();
        (await ada.GuestsAsync()).Names().Count.ShouldBe(4);

        // Who can still use a link is kept.
        var (link, _) = await ada.SendLinkAsync(draft =>
        {
            draft.Guests = [new("Imke Sandvig", EmailOf("Imke Sandvig"))];
            (draft.Picked, draft.Until, draft.EndsOn) = (["2027-03-30T08:00:00Z"], "2027-03-30", "2027-03-30");
        });
        await (await ada.PutAsync("/api/guests/retention", Rules(3))).ReadAsync(HttpStatusCode.OK);
        var detail = await ada.GuestAsync("Bryn Ashby");
        detail.Text("erasedFrom").ShouldStartWith("2027-03-08");
        (await ada.GuestAsync("Osric Pell")).GetProperty("erasedFrom").ValueKind.ShouldBe(JsonValueKind.Null);
        await RunAsync();
        (await ada.GuestsAsync()).Names().ShouldBe(["Imke Sandvig", "Never Booked", "Osric Pell"]);
        await ada.PostAsync($"/api/links/{link}/revoke", new { });
        await (await ada.PutAsync("/api/guests/retention", Rules(3, 4, 2))).ReadAsync(HttpStatusCode.OK);
        await RunAsync();
        (await ada.GuestsAsync()).Names().ShouldBe(["Osric Pell"]);
        own.World.Clock.Advance(Duration.FromDays(30));
        await RunAsync();
        (await ada.GuestsAsync()).Names().ShouldBeEmpty();

        async Task BookAsync(string page, string start, string name) =>
            (
                await own.World.Guest().BookAsync(ada.Desk, page, start, name: name, email: EmailOf(name))
            ).StatusCode.ShouldBe(HttpStatusCode.Created);
        async Task RunAsync()
        {
            await using var scope = own.World.App.Services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<Tenant>().Enter(workspace);
            await scope.ServiceProvider.GetRequiredService<RetentionRunning>().RunAsync(default);
        }
        static PageDetails OfKind(string kind) => PageDetails.Usual with { Naming = new PageNaming("", kind, null) };
    }

    /// <summary>Erases a guest as they were looked at.</summary>
    private static Task<HttpResponseMessage> EraseAsync(Coordinator who, JsonElement guest) =>
        who.PostAsync($"/api/guests/{guest.Id()}/erase", new { version = guest.GetProperty("version").GetInt32() });

    /// <summary>Where any of the words stands, table by table and column by column, also in bytes.</summary>
    private static async Task<IReadOnlyList<string>> TracesAsync(World world)
    {
        await using var connection = new NpgsqlConnection(world.ConnectionString);
        await connection.OpenAsync();
        var columns = new List<(string Table, string Column, bool IsBytes)>();
        await using (var command = connection.CreateCommand())
        {
            command.CommandText =
                "SELECT table_name, column_name, data_type = 'bytea' FROM information_schema.columns WHERE table_schema = 'public'";
            await using var reader = await command.ExecuteReaderAsync();
            while (await reader.ReadAsync())
                columns.Add((reader.GetString(0), reader.GetString(1), reader.GetBoolean(2)));
        }

        var traces = new List<string>();
        foreach (var (table, column, isBytes) in columns)
        {
            var text = isBytes ? $"encode(\"{column}\", 'escape')" : $"\"{column}\"::text";
            await using var command = connection.CreateCommand();
            command.CommandText = $"SELECT {text} FROM \"{table}\" WHERE {text} ~ '{string.Join('|', Words)}' LIMIT 1";
            if (await command.ExecuteScalarAsync() is string found)
                traces.Add($"{table}.{column}: {found[..Math.Min(found.Length, 300)]}");
        }

        return traces;
    }
}

/// <summary>A guest of whom there is something everywhere.</summary>
internal static class ErasingScene
{
    private const string Quillon = "Quillon Farthing";
    private const string Email = "quillon@farthing.example";

    public static async Task FillAsync(this World world, WritingScene scene)
    {
        var ada = scene.Ada;
        var group = new GroupScene(world, ada, scene.Page);
        var booked = await world
            .Guest()
            .BookAsync(ada.Desk, scene.Page, Nine, name: Quillon, email: Email, key: "once");
        var path = ApiOf(await booked.ReadAsync(HttpStatusCode.Created));
        (await group.BringAsync(path, null, "nell@farthing.example")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var other = await group.BookAsync("Bryn Ashby");
        (await group.BringAsync(other, null, "q@farthing.example")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await world.Guest().PostAsJsonAsync(path + "/move", new { start = Ten })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

        var quillon = await ada.GuestAsync(Quillon);
        var twin = await ada.AddGuestAsync(
            Form("Q. Farthing", ["q@farthing.example"], "Farthing Boathooks", "+45 33 12 12 12", fields: [])
        );
        (await ada.MergeAsync(quillon.Id(), twin.Id())).StatusCode.ShouldBe(HttpStatusCode.OK);
        (
            await ada.PostAsync($"/api/guests/{quillon.Id()}/notes", new { text = "Quillon lives in Boathook Lane." })
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        var bryn = await ada.GuestAsync("Bryn Ashby");
        await ada.PostAsync($"/api/guests/{bryn.Id()}/notes", new { text = $"Ask {Email} about the mooring." });
        await ada.PutAsync("/api/guests/views", new { name = "Of Quillon Farthing", filter = new { search = Email } });
        await ada.PutAsync(
            "/api/bookings/views",
            new { name = "For Quillon Farthing", filter = new { search = Email } }
        );
        foreach (var row in (await ada.GetAsync("/api/bookings")).GetProperty("rows").EnumerateArray())
            await ada.PostAsync(
                $"/api/bookings/{row.Id()}/notes",
                new { text = row.Text("guestName") == Quillon ? "Lives in Boathook Lane." : $"Ask {Email}." }
            );

        // A link of their own, with all that can be said on one, and one with somebody else.
        var (link, address) = await ada.SendLinkAsync(draft =>
        {
            (draft.Title, draft.Notes, draft.HostWords) = ("Survey with Quillon", "Farthing pays.", "Quillon rings.");
            draft.Guests = [new(Quillon, Email)];
            draft.Picked = ["2026-12-10T08:00:00Z", "2026-12-10T09:00:00Z"];
        });
        await WishAsync(world, address, "Rather at Boathook Lane", "");
        (await ada.PostAsync($"/api/links/{link}/mail", new { word = "Dear Quillon" })).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        await ada.HoldAsync(link);
        var (shared, both) = await ada.SendLinkAsync(draft =>
        {
            (draft.Title, draft.Notes) = ("Talk with Quillon Farthing", "Quillon Farthing and Bryn");
            draft.Guests = [new(Quillon, Email), new("Bryn Ashby", EmailOf("Bryn Ashby"))];
            draft.Picked = ["2026-12-14T08:00:00Z"];
        });
        await WishAsync(world, both, "Later", Quillon);
        foreach (var one in new[] { link, shared })
            (await ada.PostAsync($"/api/links/{one}/revoke", new { })).StatusCode.ShouldBe(HttpStatusCode.OK);
        var page = (await ada.PagesAsync())[0].Id();
        (
            await ada.PostAsync($"/api/pages/{page}/personal-addresses", new { name = Quillon, email = Email })
        ).StatusCode.ShouldBe(HttpStatusCode.OK);

        // A mailing to both, with words of their own, that somebody answers for them.
        var pattern = await (
            await ada.PostAsync(
                "/api/links/patterns",
                new
                {
                    name = "For Quillon Farthing",
                    form = ada.Link(draft => (draft.By, draft.Title, draft.Guests) = ("free", "Survey of a hull", []))
                        .Form(),
                }
            )
        ).ReadAsync(HttpStatusCode.OK);
        var mailing = await (
            await ada.PostAsync(
                "/api/mailings",
                new
                {
                    subject = "A talk?",
                    body = "Dear {{ guest }}: {{ link }}",
                    offer = new
                    {
                        kind = "pattern",
                        id = pattern.Id(),
                        until = "2026-12-11",
                    },
                    guests = new[]
                    {
                        new
                        {
                            name = Quillon,
                            email = Email,
                            own = (object?)new { subject = "For Quillon", body = "Still Boathook Lane? {{ link }}" },
                        },
                        new
                        {
                            name = "Bryn Ashby",
                            email = EmailOf("Bryn Ashby"),
                            own = (object?)null,
                        },
                    },
                },
                "mailing"
            )
        ).ReadAsync(HttpStatusCode.Created);
        // What is the team's own is theirs to name.
        (await ada.DeleteAsync($"/api/links/patterns/{pattern.Id()}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        // Files: one that came in, one that was only looked at.
        var csv = Encoding.UTF8.GetBytes($"Name;E-Mail;Phone\n{Quillon};{Email};+45 33 12 12 13\n");
        for (var i = 0; i < 2; i++)
        {
            var look = await (await ada.UploadAsync(HttpMethod.Post, "/api/guests/imports", csv)).ReadAsync(
                HttpStatusCode.OK
            );
            if (i == 0)
                await (await ada.PostAsync($"/api/guests/imports/{look.Id()}/run", new { })).ReadAsync(
                    HttpStatusCode.OK
                );
        }

        await scene.SettledAsync();
        await scene.LookOnAsync();
        var workspace = scene.Workspace;
        await world.WithinAsync(workspace, async db =>
        {
            var booking = await db.Bookings.FirstAsync(row => row.GuestName == Quillon);
            (booking.Answers, booking.Flags) = (
                [
                    new GivenAnswer(
                        "where",
                        "Where is she?",
                        LooseLantern.Core.Questions.QuestionKind.Short,
                        "Boathook Lane"
                    ),
                ],
                ["Boathook Lane is far"]
            );
            db.Incoming.Add(
                new IncomingMail
                {
                    WorkspaceId = workspace,
                    BookingId = booking.Id,
                    ReceivedAt = World.Now,
                    FromName = Quillon,
                    FromEmail = Email,
                    Subject = "Boathook Lane",
                    Text = "Yours, Quillon",
                    Meaning = MailMeaning.Words,
                    Fingerprint = [1],
                }
            );
            var letter = await db.Messages.SingleAsync(row => row.MailingId == mailing.Id() && row.ToEmail == Email);
            db.Incoming.Add(
                new IncomingMail
                {
                    WorkspaceId = workspace,
                    MessageId = letter.Id,
                    ReceivedAt = World.Now,
                    FromName = "The yard",
                    FromEmail = "yard@elsewhere.example",
                    Subject = "Re: For Quillon",
                    Text = "Boathook Lane it is",
                    Meaning = MailMeaning.Words,
                    Fingerprint = [2],
                }
            );
            var daily = await db.Messages.AsNoTracking().FirstAsync(row => row.PersonId != null);
            db.Messages.Add(
                new Message
                {
                    WorkspaceId = workspace,
                    Kind = MessageKind.Daily,
                    PersonId = daily.PersonId,
                    ToName = daily.ToName,
                    ToEmail = daily.ToEmail,
                    MessageId = "daily@lantern.example",
                    WrittenAt = World.Now,
                    DueAt = World.Now,
                    State = MessageState.Sent,
                    FromName = "Pier",
                    Subject = "Your day with Quillon Farthing",
                    Text = $"9:00 Quillon Farthing, {Email}",
                    Html = $"<p>9:00 Quillon Farthing, <a href=\"mailto:quillon%40farthing.example\">{Email}</a></p>",
                }
            );
            db.Messages.Add(
                new Message
                {
                    WorkspaceId = workspace,
                    Kind = MessageKind.RepliedForSender,
                    PersonId = daily.PersonId,
                    ToName = daily.ToName,
                    ToEmail = daily.ToEmail,
                    MessageId = "reply@lantern.example",
                    WrittenAt = World.Now,
                    DueAt = World.Now,
                    State = MessageState.Sent,
                    FromName = "Pier",
                    Subject = "A reply: The yard",
                    Text = $"Boathook Lane it is\n\nhttps://lantern.example/work/guests/{quillon.Id():D}",
                    Html = "<p>Boathook Lane it is</p>",
                }
            );
            return await db.SaveChangesAsync();
        });
        (
            await world.WithinAsync(workspace, db => db.Messages.CountAsync(row => row.ToEmail == Email))
        ).ShouldBeGreaterThan(2);
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db => db.Database.ExecuteSqlAsync(
                $"""
                WITH act AS (INSERT INTO undo_acts (id, workspace_id, person_id, at, until, whole)
                    SELECT gen_random_uuid(), workspace_id, id, now(), now(), '' FROM "AspNetUsers" WHERE id = {ada.PersonId}
                    RETURNING id, workspace_id)
                INSERT INTO undo_rows (workspace_id, act_id, of, key, before)
                    SELECT b.workspace_id, act.id, 'bookings', jsonb_build_object(), to_jsonb(b) FROM act JOIN bookings b USING (workspace_id)
                """
            ));
    }

    private static async Task WishAsync(World world, string address, string words, string by) =>
        (
            await world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/links/{address}/wishes",
                    new
                    {
                        starts = new[] { "2026-12-16T09:00:00Z" },
                        words,
                        by,
                    }
                )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
}
