using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Undo;

/// <summary>The mail of what can be taken back: it waits until it can't.</summary>
internal static class UndoMail
{
    /// <summary>
    /// What was just written of this telling, and is not saved yet, goes out once nothing can be taken back any more.
    /// </summary>
    public static void Keep(LanternDb db, Telling telling) => Keep(db, telling.ActId, telling.WaitsUntil);

    /// <summary>The same of what was written by the act at hand, if there is one.</summary>
    public static void Keep(LanternDb db) => Keep(db, db.Act?.Id, db.Act?.Until);

    private static void Keep(LanternDb db, Guid? act, Instant? until)
    {
        if (act is null || until is not { } end)
            return;
        foreach (var entry in db.ChangeTracker.Entries<Message>().Where(entry => entry.State == EntityState.Added))
            (entry.Entity.ActId, entry.Entity.DueAt) = (act, Instant.Max(entry.Entity.DueAt, end));
    }

    /// <summary>
    /// Mail of earlier acts on these bookings goes out now: they changed further, so that nothing is taken back.
    /// </summary>
    /// <param name="except">The act that changes them.</param>
    public static Task LetGoAsync(LanternDb db, Guid[] bookingIds, Guid? except, Instant now, CancellationToken ct) =>
        db.Database.ExecuteSqlAsync(
            $"""
            UPDATE messages m SET due_at = {now}
            FROM undo_acts a
            WHERE m.booking_id = ANY({bookingIds}) AND m.state = 'Due' AND m.due_at > {now}
                AND a.id = m.act_id AND a.id IS DISTINCT FROM {except} AND a.undone_at IS NULL AND m.due_at = a.until
            """,
            ct
        );
}
