using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <param name="IsMine">Whether the person who asks wrote it, and may change it.</param>
public sealed record BookingNoteView(
    Guid Id,
    Instant At,
    string By,
    bool IsMine,
    bool MayRemove,
    Instant? ChangedAt,
    string Text
);

/// <summary>
/// What the team notes of bookings, which no guest sees. Who wrote a note changes it, and owners may delete any.
/// </summary>
public sealed class BookingNotes(LanternDb db, Actor actor, IClock clock)
{
    private const int Most = 100;

    /// <summary>The oldest first.</summary>
    public async Task<IReadOnlyList<BookingNoteView>> ListAsync(Guid bookingId, CancellationToken ct)
    {
        var me = actor.Required;
        return
        [
            .. (
                await db
                    .BookingNotes.AsNoTracking()
                    .Where(row => row.BookingId == bookingId)
                    .OrderBy(row => row.At)
                    .ThenBy(row => row.Id)
                    .Take(Most)
                    .ToListAsync(ct)
            ).Select(row => new BookingNoteView(
                row.Id,
                row.At,
                row.PersonName,
                row.PersonId == me.Id,
                row.PersonId == me.Id || me.IsOwner,
                row.ChangedAt,
                row.Text
            )),
        ];
    }

    /// <exception cref="Refusal">400 for nothing, or too much; 404 where there is no such booking.</exception>
    public async Task AddAsync(Guid bookingId, NoteForm form, CancellationToken ct)
    {
        var text = form.Checked();
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .FirstOrDefaultAsync(row => row.Id == bookingId, ct)
            ?? throw Refusal.NotFound("booking");
        if (await db.BookingNotes.CountAsync(row => row.BookingId == bookingId, ct) >= Most)
            throw Refusal.Invalid("text", Phrase.Of("notes-too-many", ("most", Most)));
        db.BookingNotes.Add(
            new BookingNote
            {
                WorkspaceId = booking.WorkspaceId,
                BookingId = booking.Id,
                PersonId = actor.Required.Id,
                PersonName = actor.Required.Name,
                At = clock.GetCurrentInstant(),
                Text = text,
            }
        );
        await db.SaveChangesAsync(ct);
    }

    /// <exception cref="Refusal">403 for who did not write it.</exception>
    public async Task ChangeAsync(Guid bookingId, Guid id, NoteForm form, CancellationToken ct)
    {
        var text = form.Checked();
        var note = await FindAsync(bookingId, id, ct);
        if (note.PersonId != actor.Required.Id)
            throw NotYours();
        (note.Text, note.ChangedAt) = (text, clock.GetCurrentInstant());
        await db.SaveChangesAsync(ct);
    }

    /// <exception cref="Refusal">403 for who neither wrote it nor owns the workspace.</exception>
    public async Task RemoveAsync(Guid bookingId, Guid id, CancellationToken ct)
    {
        var note = await FindAsync(bookingId, id, ct);
        if (note.PersonId != actor.Required.Id && !actor.Required.IsOwner)
            throw NotYours();
        db.BookingNotes.Remove(note);
        await db.SaveChangesAsync(ct);
    }

    private async Task<BookingNote> FindAsync(Guid bookingId, Guid id, CancellationToken ct) =>
        await db.BookingNotes.FirstOrDefaultAsync(row => row.Id == id && row.BookingId == bookingId, ct)
        ?? throw Refusal.NotFound("note");

    private static Refusal NotYours() => new(StatusCodes.Status403Forbidden, "not-yours");
}
