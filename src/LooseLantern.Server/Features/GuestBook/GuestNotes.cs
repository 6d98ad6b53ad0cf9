using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

public sealed record NoteForm(string Text)
{
    public const int Most = 4000;

    /// <summary>Without blanks around it.</summary>
    /// <exception cref="Refusal">400 for nothing, or too much.</exception>
    public string Checked()
    {
        var text = Text.Trim();
        return text.Length is 0 or > Most || text.Any(c => char.IsControl(c) && c is not '\n' and not '\t')
            ? throw Refusal.Invalid("text", Phrase.Of("guest-note", ("most", Most)))
            : text;
    }
}

/// <summary>What the team notes of guests. Who wrote a note changes it, and owners may delete any.</summary>
public sealed class GuestNotes(LanternDb db, GuestEditing editing, Actor actor, IClock clock)
{
    /// <exception cref="Refusal">400 for nothing, or too much; 404 where there is no such guest.</exception>
    public async Task<Guid> AddAsync(Guid guestId, NoteForm form, CancellationToken ct)
    {
        var text = form.Checked();
        var guest = await editing.FindAsync(guestId, ct);
        var note = new GuestNote
        {
            WorkspaceId = guest.WorkspaceId,
            GuestId = guest.Id,
            PersonId = actor.Required.Id,
            PersonName = actor.Required.Name,
            At = clock.GetCurrentInstant(),
            Text = text,
        };
        db.GuestNotes.Add(note);
        await db.SaveChangesAsync(ct);
        return note.Id;
    }

    /// <exception cref="Refusal">403 for who did not write it.</exception>
    public async Task ChangeAsync(Guid guestId, Guid id, NoteForm form, CancellationToken ct)
    {
        var text = form.Checked();
        var note = await FindAsync(guestId, id, ct);
        if (note.PersonId != actor.Required.Id)
            throw NotYours();
        (note.Text, note.ChangedAt) = (text, clock.GetCurrentInstant());
        await db.SaveChangesAsync(ct);
    }

    /// <exception cref="Refusal">403 for who neither wrote it nor owns the workspace.</exception>
    public async Task RemoveAsync(Guid guestId, Guid id, CancellationToken ct)
    {
        var note = await FindAsync(guestId, id, ct);
        if (note.PersonId != actor.Required.Id && !actor.Required.IsOwner)
            throw NotYours();
        db.GuestNotes.Remove(note);
        await db.SaveChangesAsync(ct);
    }

    private async Task<GuestNote> FindAsync(Guid guestId, Guid id, CancellationToken ct) =>
        await db.GuestNotes.FirstOrDefaultAsync(row => row.Id == id && row.GuestId == guestId, ct)
        ?? throw Refusal.NotFound("note");

    private static Refusal NotYours() => new(StatusCodes.Status403Forbidden, "not-yours");
}
