using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook.Importing;

/// <summary>An import in the list of them.</summary>
/// <param name="Made">How many guests came in by it.</param>
/// <param name="LeftOut">How many rows were left out, since something was wrong with them.</param>
public sealed record ImportRow(
    Guid Id,
    string FileName,
    string By,
    ImportState State,
    Instant At,
    int Made,
    int Changed,
    int Unchanged,
    int LeftOut
);

/// <summary>Lists imports, and takes one back as a whole.</summary>
public sealed class ImportUndoing(LanternDb db, RecordKeeping record, IClock clock)
{
    private const int MostListed = 30;
    private const int MostNamed = 5;

    public static ImportRow RowOf(GuestImport import) =>
        new(
            import.Id,
            import.FileName,
            import.PersonName,
            import.State,
            import.DoneAt ?? import.MadeAt,
            import.Made,
            import.Changed,
            import.Unchanged,
            import.LeftOut
        );

    /// <summary>Those that came in, the latest first.</summary>
    public async Task<IReadOnlyList<ImportRow>> ListAsync(CancellationToken ct) =>
        (
            await db
                .GuestImports.AsNoTracking()
                .Where(row => row.State != ImportState.Draft)
                .OrderByDescending(row => row.DoneAt)
                .Take(MostListed)
                .Select(row => new ImportRow(
                    row.Id,
                    row.FileName,
                    row.PersonName,
                    row.State,
                    row.DoneAt ?? row.MadeAt,
                    row.Made,
                    row.Changed,
                    row.Unchanged,
                    row.LeftOut
                ))
                .ToListAsync(ct)
        );

    /// <summary>Guests who came in by it go, and the others are as they were before.</summary>
    /// <exception cref="Refusal">404 where there is none, 409 where it is not in, or where somebody changed a guest,
    /// booked, or got a link since; the first of them are named.</exception>
    public async Task UndoAsync(Guid id, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM guest_imports WHERE id = {id} FOR NO KEY UPDATE", ct);
        var import = await db.GuestImports.FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("import");
        if (import.State != ImportState.Done)
            throw new Refusal(StatusCodes.Status409Conflict, "import-not-in");
        // Whoever books for one of them just now is waited for, or waits.
        await db.Database.ExecuteSqlAsync(
            $"""
            SELECT 1 FROM guests g JOIN guest_import_rows r ON r.guest_id = g.id WHERE r.import_id = {id}
            ORDER BY g.id FOR UPDATE OF g
            """,
            ct
        );
        await RequireUnchangedAsync(id, import.DoneAt!.Value, ct);
        await db.Database.ExecuteSqlAsync(
            $"""
            DELETE FROM guest_notes n USING guest_import_rows r WHERE r.import_id = {id} AND n.guest_id = r.guest_id
                AND n.at = {import.DoneAt.Value};
            DELETE FROM guest_emails e USING guest_import_rows r, unnest(r.emails) AS came(key)
                WHERE r.import_id = {id} AND e.workspace_id = r.workspace_id AND e.key = came.key AND e.guest_id = r.guest_id;
            UPDATE guests g SET name = r.before->>'name', organisation = r.before->>'organisation', phone = r.before->>'phone',
                zone = r.before->>'zone', language = r.before->>'language', keeper_id = CAST(r.before->>'keeperId' AS uuid),
                fields = r.before->'fields', version = g.version + 1
                FROM guest_import_rows r WHERE r.import_id = {id} AND r.guest_id = g.id AND r.before IS NOT NULL;
            CREATE TEMP TABLE came_in ON COMMIT DROP AS
                SELECT guest_id FROM guest_import_rows WHERE import_id = {id} AND before IS NULL;
            DELETE FROM guest_import_rows WHERE import_id = {id};
            DELETE FROM guests g USING came_in c WHERE g.id = c.guest_id
            """,
            ct
        );
        (import.State, import.UndoneAt) = (ImportState.Undone, clock.GetCurrentInstant());
        record.Note(id, $"Took back the import of “{import.FileName}”");
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    private async Task RequireUnchangedAsync(Guid id, Instant doneAt, CancellationToken ct)
    {
        var trip = new RoundTrip(db);
        var changed = trip.Ask(
            $"""
            SELECT g.name FROM guest_import_rows r JOIN guests g ON g.id = r.guest_id
            WHERE r.import_id = {id} AND (g.version <> r.version OR g.merged_into IS NOT NULL
                OR EXISTS (SELECT 1 FROM guest_merges m WHERE m.undone_at IS NULL AND m.kept_id = g.id AND m.at >= {doneAt})
                OR EXISTS (SELECT 1 FROM guest_notes n WHERE n.guest_id = g.id AND n.at > {doneAt})
                OR EXISTS (SELECT 1 FROM guest_emails e WHERE e.guest_id = g.id AND r.before IS NULL AND e.key <> ALL(r.emails))
                OR EXISTS (SELECT 1 FROM bookings b WHERE (b.guest_id = g.id OR b.booker_id = g.id)
                    AND (r.before IS NULL OR b.booked_at > {doneAt}))
                OR EXISTS (SELECT 1 FROM link_guests o JOIN links l ON l.id = o.link_id WHERE o.guest_id = g.id
                    AND (r.before IS NULL OR l.made_at > {doneAt})))
            ORDER BY g.name_key, g.id LIMIT {MostNamed + 1}
            """,
            row => row.GetString(0)
        );
        await trip.RunAsync(ct);
        if (changed.Rows.Count == 0)
            return;
        throw new Refusal(
            StatusCodes.Status409Conflict,
            "import-changed",
            Phrase.Of("import-changed", ("names", changed.Rows.Take(MostNamed).ToList()))
        );
    }
}
