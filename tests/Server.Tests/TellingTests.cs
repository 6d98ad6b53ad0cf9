using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Npgsql;

namespace Server.Tests;

/// <summary>Messages are written after the answer, and say what was so at the change all the same.</summary>
public class TellingTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private const string Ten = "2026-12-08T09:00:00Z";

    [Fact]
    public async Task Who_booked_is_told_in_the_words_of_then_though_others_are_published_before_they_are_written()
    {
        var ada = await world.SignUpAsync();
        var made = await (
            await ada.PostAsync("/api/pages", ada.Draft(draft => draft.Title = "Hull talk").Form())
        ).ReadAsync(HttpStatusCode.Created);
        var id = made.GetProperty("id").GetGuid();
        var published = await (await ada.PostAsync($"/api/pages/{id}/publish", new { version = 1 })).ReadAsync(
            HttpStatusCode.OK
        );
        var address = published.GetProperty("path").GetString()!.Split('/')[^1];
        var form = ada.Draft(draft => (draft.Title, draft.Address) = ("Keel talk", address)).Form();
        Task<HttpResponseMessage> publishing;
        await using (var held = await HeldUpAsync(id))
        {
            (await world.Guest().BookAsync(ada.Desk, address, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
            await (await ada.PutAsync($"/api/pages/{id}", new { version = 2, form })).ReadAsync(HttpStatusCode.OK);
            publishing = ada.PostAsync($"/api/pages/{id}/publish", new { version = 3 });
            // Whoever writes messages waits, and whoever publishes waits for that; or else it is published already.
            await Outside.AwaitAsync(
                async () => publishing.IsCompleted || await WaitingForAsync(held) >= 2,
                "the one who publishes to wait"
            );
        }

        await (await publishing).ReadAsync(HttpStatusCode.OK);
        var subject = await SubjectAsync(ada, MessageKind.BookedForGuest);
        subject.ShouldContain("Hull talk");
        subject.ShouldNotContain("Keel talk");
    }

    [Fact]
    public async Task Who_moves_at_once_is_told_of_both_times()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var booked = await (await world.Guest().BookAsync(ada.Desk, page, Nine)).ReadAsync(HttpStatusCode.Created);
        (
            await world.Guest().PostAsJsonAsync(GroupScene.ApiOf(booked) + "/move", new { start = Ten })
        ).IsSuccessStatusCode.ShouldBeTrue();
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var texts = await world.WithinAsync(workspace, db =>
            db.Messages.OrderBy(row => row.Id).Where(row => row.PersonId == null).Select(row => row.Text).ToListAsync()
        );
        texts[0].ShouldContain("09:00–09:30");
        texts[0].ShouldNotContain("10:00–10:30");
        texts.ShouldContain(text => text.Contains("10:00–10:30", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_server_that_stops_ends_what_it_took_to_tell_and_leaves_it_to_nobody()
    {
        await using var own = new World();
        await own.InitializeAsync();
        var ada = await own.SignUpAsync();
        var address = await ada.PublishAsync();
        var page = await own.LookAsync(db => db.Pages.IgnoreQueryFilters().Select(row => row.Id).SingleAsync());
        Task stopping;
        await using (var held = await HeldUpAsync(page, own.ConnectionString))
        {
            (await own.Guest().BookAsync(ada.Desk, address, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
            await Outside.AwaitAsync(async () => await WaitingForAsync(held) >= 1, "the writer of messages to wait");
            stopping = own.App.Services.GetRequiredService<IHost>().StopAsync(TestContext.Current.CancellationToken);
            own.App.Services.GetRequiredService<IHostApplicationLifetime>()
                .ApplicationStopping.IsCancellationRequested.ShouldBeTrue();
        }

        await stopping;
        await using var asked = NpgsqlDataSource.Create(own.ConnectionString);
        await using var count = asked.CreateCommand(
            "SELECT (SELECT count(*) FROM tellings) * 100 + count(*) FROM messages WHERE kind = 'BookedForGuest'"
        );
        (await count.ExecuteScalarAsync(TestContext.Current.CancellationToken)).ShouldBe(1L);
    }

    [Fact]
    public async Task What_could_not_be_written_is_tried_again_at_once_and_told_once()
    {
        await using var own = new World();
        await own.InitializeAsync();
        var ada = await own.SignUpAsync();
        var page = await ada.PublishAsync();
        // Whatever is rolled back, a sequence goes on.
        await own.LookAsync(db =>
            db.Database.ExecuteSqlRawAsync(
                """
                CREATE SEQUENCE tries;
                CREATE FUNCTION fail_once() RETURNS trigger LANGUAGE plpgsql AS $$
                    BEGIN IF nextval('tries') = 1 THEN RAISE EXCEPTION 'not yet'; END IF; RETURN NEW; END $$;
                CREATE TRIGGER fails_once BEFORE INSERT ON messages FOR EACH ROW EXECUTE FUNCTION fail_once();
                """
            )
        );
        (await own.Guest().BookAsync(ada.Desk, page, Nine)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (
            await own.LookAsync(db =>
                db.Messages.IgnoreQueryFilters().CountAsync(row => row.Kind == MessageKind.BookedForGuest)
            )
        ).ShouldBe(1);
    }

    [Fact]
    public async Task Work_beside_requests_begins_piece_by_piece_while_somebody_waits_and_at_once_while_nobody_does()
    {
        var (pace, ct) = (new WorkPace(), TestContext.Current.CancellationToken);
        for (var i = 0; i < 8; i++)
            pace.TakeTurnAsync(ct).IsCompletedSuccessfully.ShouldBeTrue();
        using (pace.Answering())
        {
            using var first = await pace.TakeTurnAsync(ct);
            pace.TakeTurnAsync(ct).IsCompleted.ShouldBeFalse();
        }
    }

    [Fact]
    public async Task Few_pieces_of_work_are_done_at_once_where_somebody_may_ask_again_soon()
    {
        var (pace, ct) = (new WorkPace(), TestContext.Current.CancellationToken);
        pace.Answering().Dispose();
        var first = await pace.TakeTurnAsync(ct);
        using var second = await pace.TakeTurnAsync(ct);
        var third = pace.TakeTurnAsync(ct);
        third.IsCompleted.ShouldBeFalse();
        first!.Dispose();
        // Its place is free; what waits for somebody outside gives its own back by itself.
        using var next = await third;
        using var last = await pace.TakeTurnAsync(ct);
    }

    private async Task<string> SubjectAsync(Coordinator ada, MessageKind kind) =>
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.Messages.Where(row => row.Kind == kind).Select(row => row.Subject).SingleAsync()
        );

    /// <summary>Whoever writes messages of the page's bookings waits until this is disposed.</summary>
    private async Task<NpgsqlConnection> HeldUpAsync(Guid pageId, string? where = null)
    {
        var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(where ?? world.ConnectionString) { Pooling = false }.ConnectionString
        );
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(
            "SELECT pg_advisory_lock(hashtextextended('telling ' || $1::text, 0))",
            connection
        );
        command.Parameters.Add(new NpgsqlParameter { Value = pageId });
        await command.ExecuteNonQueryAsync();
        return connection;
    }

    private static async Task<long> WaitingForAsync(NpgsqlConnection held)
    {
        await using var command = new NpgsqlCommand(
            """
            SELECT count(*) FROM pg_locks w JOIN pg_locks h USING (locktype, database, classid, objid, objsubid)
            WHERE h.granted AND NOT w.granted AND h.pid = pg_backend_pid()
            """,
            held
        );
        return (long)(await command.ExecuteScalarAsync())!;
    }
}
