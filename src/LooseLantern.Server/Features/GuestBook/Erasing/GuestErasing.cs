using System.Text;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <summary>Something that has to end before its guest is erased.</summary>
/// <param name="Id">Of the booking or link.</param>
/// <param name="Start">Of the booking; null for a link.</param>
public sealed record StillOpen(Guid Id, string Title, Instant? Start);

/// <summary>What erasing a guest would take away, and what it waits for.</summary>
/// <param name="Bookings">That are over or cancelled: they stay, of nobody.</param>
/// <param name="ToCome">Bookings to be cancelled first.</param>
/// <param name="Links">All that were made for them.</param>
/// <param name="Usable">Links to be revoked or deleted first.</param>
/// <param name="Mails">That went to them, came from them, or told the team of their bookings.</param>
/// <param name="Waiting">How many of the mails have not gone out yet, and won't.</param>
public sealed record ErasingView(
    string Name,
    int Version,
    int Bookings,
    IReadOnlyList<StillOpen> ToCome,
    int Links,
    IReadOnlyList<StillOpen> Usable,
    int Mails,
    int Waiting,
    int Notes
);

/// <summary>Erases guests: whatever is kept says afterwards what was, and of nobody.</summary>
public sealed class GuestErasing(
    LanternDb db,
    Tenant tenant,
    GuestDetails details,
    Tellings tellings,
    ErasedRows rows,
    ErasureList list,
    SessionTexts texts,
    TimeLocks locks,
    RecordKeeping record,
    IClock clock
)
{
    private const int MostTries = 3;

    private Guid Workspace => tenant.WorkspaceId!.Value;

    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task<ErasingView> LookAsync(Guid id, CancellationToken ct)
    {
        var guest = await details.FindAsync(id, ct);
        await tellings.WriteAllAsync(null, ct);
        var traces = await GuestTraces.ReadAsync(db, Workspace, [guest.Id], ct);
        var (toCome, usable) = await StillOpenAsync(traces, ct);
        var trip = new RoundTrip(db);
        var counts = trip.Ask(
            $"""
            SELECT (SELECT count(*)::int FROM guest_notes WHERE guest_id = ANY({traces.Guests})),
                (SELECT count(*)::int FROM incoming_mail WHERE booking_id = ANY({traces.Bookings})),
                count(*)::int, count(*) FILTER (WHERE state = 'Due' AND due_at <= {clock.GetCurrentInstant()})::int
            FROM messages WHERE workspace_id = {Workspace}
                AND (booking_id = ANY({traces.Bookings}) OR (person_id IS NULL AND lower(btrim(to_email)) = ANY({traces.Keys})))
            """,
            row => (Notes: row.GetInt32(0), In: row.GetInt32(1), Out: row.GetInt32(2), Waiting: row.GetInt32(3))
        );
        await trip.RunAsync(ct);
        var counted = counts.Row;
        return new ErasingView(
            guest.Name,
            guest.Version,
            traces.Bookings.Length - toCome.Count,
            toCome,
            traces.Links.Length,
            usable,
            counted.In + counted.Out,
            counted.Waiting,
            counted.Notes
        );
    }

    /// <summary>Erases one, as somebody of the team asks for.</summary>
    /// <exception cref="Refusal">404 where there is none; 409 where they were changed since they were looked at, or
    /// have something to come.</exception>
    public async Task EraseAsync(Guid id, int version, CancellationToken ct)
    {
        var guest = await details.FindAsync(id, ct);
        if (guest.Version != version)
            throw GuestEditing.ChangedMeanwhile();
        await EraseAsync([guest.Id], isAsked: true, ct);
    }

    /// <summary>Erases several, all of them or none.</summary>
    /// <param name="isAsked">Whether it is new; what is only done again, after a database was restored, is not put off
    /// by what they have to come.</param>
    /// <exception cref="Refusal">409 where one of them has something to come, or was changed again and
    /// again.</exception>
    public async Task EraseAsync(IReadOnlyCollection<Guid> ids, bool isAsked, CancellationToken ct)
    {
        for (var tries = 1; ; tries++)
        {
            // Who still has to be told is told, before it is forgotten who that is.
            await tellings.WriteAllAsync(null, ct);
            if (await TryAsync(ids, isAsked, tries == MostTries, ct))
                break;
        }

        await list.WriteOutAsync(ct);
    }

    /// <returns>Whether it is done; else somebody booked for one of them, or changed one, meanwhile.</returns>
    private async Task<bool> TryAsync(IReadOnlyCollection<Guid> ids, bool isAsked, bool isLast, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var traces = await GuestTraces.ReadAsync(db, Workspace, ids, ct);
        await locks.TakeAsync(new TimeLock { Pages = traces.Links }, ct);
        var trip = new RoundTrip(db);
        traces.Lock(trip);
        await trip.RunAsync(ct);
        if (!traces.IsAs(await GuestTraces.ReadAsync(db, Workspace, ids, ct)))
            return isLast ? throw GuestEditing.ChangedMeanwhile() : false;
        var now = clock.GetCurrentInstant();
        if (isAsked)
        {
            // Under the locks: what is booked or made from now on is somebody else's.
            var (toCome, usable) = await StillOpenAsync(traces, ct);
            if (toCome.Count + usable.Count > 0)
                throw new Refusal(StatusCodes.Status409Conflict, "guest-still-open");
            foreach (var id in ids.Intersect(traces.Guests))
                record.Note(id, $"Erased {RecordWords.Guest}");
            await list.AddAsync(traces.Guests, now, ct);
            await db.SaveChangesAsync(ct);
        }

        await rows.EraseAsync(Workspace, traces, now, ct);
        await EraseFromCalendarsAsync(traces.Sessions, ct);
        await transaction.CommitAsync(ct);
        return true;
    }

    /// <summary>
    /// What is kept of hosts' calendars says it anew at once; the calendars themselves follow as their servers answer.
    /// </summary>
    private async Task EraseFromCalendarsAsync(Guid[] sessions, CancellationToken ct)
    {
        var written = await db
            .WrittenEvents.AsNoTracking()
            .Where(row => row.SessionId != null && sessions.Contains(row.SessionId.Value) && row.Path != null)
            .ToListAsync(ct);
        foreach (var row in written)
        {
            var resource = await db.CalendarResources.FirstOrDefaultAsync(
                one => one.CalendarId == row.CalendarId && one.Path == row.Path,
                ct
            );
            if (resource is null)
                continue;
            if (await texts.OfAsync(row, ct) is { } session)
                resource.Body = Encoding.UTF8.GetBytes(SessionFile.Write(session));
            else
                db.CalendarResources.Remove(resource);
        }

        await db.SaveChangesAsync(ct);
    }

    private async Task<(IReadOnlyList<StillOpen> ToCome, IReadOnlyList<StillOpen> Usable)> StillOpenAsync(
        GuestTraces traces,
        CancellationToken ct
    )
    {
        var now = clock.GetCurrentInstant();
        var links = traces.Links;
        var trip = new RoundTrip(db);
        var toCome = trip.Ask(
            $"""
            SELECT b.id, p.title, lower(s.time) FROM bookings b JOIN sessions s ON s.id = b.session_id JOIN pages p ON p.id = s.page_id
            WHERE b.id = ANY({traces.Bookings}) AND b.cancelled_at IS NULL AND upper(s.time) > {now} ORDER BY s.time, b.id
            """,
            row => new StillOpen(row.GetGuid(0), row.GetString(1), row.GetFieldValue<Instant>(2))
        );
        var usable = trip.Ask(
            $"""
            SELECT l.id, p.title FROM links l JOIN pages p ON p.id = l.id
            WHERE l.id = ANY({links}) AND l.takes_more AND l.ends_at > {now} ORDER BY l.made_at, l.id
            """,
            row => new StillOpen(row.GetGuid(0), row.GetString(1), null)
        );
        await trip.RunAsync(ct);
        return (toCome.Rows, usable.Rows);
    }
}
