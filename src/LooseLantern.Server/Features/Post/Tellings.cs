using System.Text.Json;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Says, in the transaction of a change to bookings, that it is to be told; and writes the messages of it once that is
/// committed, so that nobody waits for words under a lock. Messages say what was so at the change: whoever is about to
/// change the same bookings again, or the words of their page, has what waits written first.
/// </summary>
public sealed class Tellings(
    LanternDb db,
    Tenant tenant,
    PostWriting post,
    Actor actor,
    WorkSignals signals,
    IClock clock
)
{
    public static readonly DueKind Writes = new(
        TimeSpan.FromMilliseconds(500),
        Duration.FromMinutes(1),
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE tellings SET working_until = {until} WHERE id IN (
                        SELECT id FROM tellings WHERE working_until IS NULL OR working_until <= {now} ORDER BY id LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING id, workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<Tellings>().WriteAsync(id, ct)
    )
    {
        EndsWhatItTook = true,
    };

    /// <summary>Saved with what the caller saves next.</summary>
    /// <param name="bookingIds">All of sessions of this page; none leaves nothing to tell.</param>
    public void Add(Guid pageId, IReadOnlyCollection<Guid> bookingIds, Telling telling)
    {
        if (bookingIds.Count > 0)
            db.Tellings.Add(Row(pageId, bookingIds, telling));
    }

    /// <summary>Saved with what else a round trip of the caller's writes.</summary>
    public void Add(RoundTrip trip, Guid pageId, IReadOnlyCollection<Guid> bookingIds, Telling telling) =>
        trip.Insert(Row(pageId, bookingIds, telling));

    private TellingRow Row(Guid pageId, IReadOnlyCollection<Guid> bookingIds, Telling telling) =>
        new()
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            PageId = pageId,
            BookingIds = [.. bookingIds],
            Telling = telling with
            {
                At = clock.GetCurrentInstant(),
                Teller = actor.Person?.Id,
                ActId = db.Act?.Id,
                WaitsUntil = db.Act?.Until,
            },
        };

    /// <summary>
    /// Writes all that waits to be told in the workspace at hand, for who is about to read it, or to change what it
    /// speaks of.
    /// </summary>
    /// <param name="pageId">Of one page alone; null for all.</param>
    public async Task WriteAllAsync(Guid? pageId, CancellationToken ct)
    {
        var ids = await db
            .Tellings.Where(row => pageId == null || row.PageId == pageId)
            .OrderBy(row => row.Id)
            .Select(row => row.Id)
            .ToListAsync(ct);
        foreach (var id in ids)
            await WriteAsync(id, ct);
    }

    /// <summary>Writes the messages of one, within the caller's transaction where there is one.</summary>
    public async Task WriteAsync(Guid id, CancellationToken ct)
    {
        await using var own = db.Database.CurrentTransaction is null
            ? await db.Database.BeginTransactionAsync(ct)
            : null;
        var trip = new RoundTrip(db);
        // Two of one page take turns: reminders of a group hang on its first guest. Whoever holds the page's own lock
        // may wait here, and nobody who waits here takes that one.
        trip.Ask(
            $"SELECT pg_advisory_xact_lock(hashtextextended('telling ' || page_id, 0)) FROM tellings WHERE id = {id}",
            _ => 0
        );
        var gone = trip.Ask($"DELETE FROM tellings WHERE id = {id} RETURNING booking_ids, telling", row =>
            (Bookings: row.GetFieldValue<Guid[]>(0), Telling: row.GetString(1))
        );
        await trip.RunAsync(ct);
        // Somebody else wrote it meanwhile.
        if (gone.Rows is not [var (bookings, telling)])
            return;
        var told = JsonSerializer.Deserialize<Telling>(telling, Json.Options)!;
        // Whoever changes them further is the end of what could be taken back: what waits for that waits no longer.
        await UndoMail.LetGoAsync(db, bookings, told.ActId, clock.GetCurrentInstant(), ct);
        await post.TellAsync(bookings, told, ct);
        UndoMail.Keep(db, told);
        await db.SaveChangesAsync(ct);
        if (own is null)
            return;
        await own.CommitAsync(ct);
        signals.Messages.Wake();
    }
}

/// <summary>Writes the messages of what is to be told.</summary>
public sealed class TellingWriter(
    IServiceScopeFactory scopes,
    WorkSignals signals,
    IClock clock,
    ILogger<TellingWriter> logger
) : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        DueWork.RunAsync(Tellings.Writes, scopes, clock, logger, stoppingToken, signals.Tellings);
}
