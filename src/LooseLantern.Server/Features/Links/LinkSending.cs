using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>Sends links out by mail.</summary>
public sealed class LinkSending(
    LanternDb db,
    LinkEditing editing,
    LinkPost post,
    RecordKeeping record,
    Actor actor,
    IClock clock
)
{
    /// <param name="key">The same key again sends nothing twice; null for none.</param>
    public async Task SendAsync(Guid id, MessageKind kind, string word, string? key, CancellationToken ct)
    {
        IdempotencyKeys.Require(key);
        await post.RequireSendingAsync(await editing.GetAsync(id, ct), word, ct);
        var link = await editing.SendOutAsync(id, ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // One press after the other, so that what was sent by the same key is seen.
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM links WHERE id = {id} FOR NO KEY UPDATE", ct);
        var before = link.SentBy;
        link.SentBy = actor.Person?.Id ?? before;
        var isSent = await post.SendAsync(link, kind, word, actor.Person?.Name ?? link.Page!.Desk!.Name, key, ct);
        if (!isSent)
            link.SentBy = before;
        if (isSent && kind == MessageKind.LinkAgainForGuest)
        {
            (link.AskedAgainAt, link.AskedAgain) = (clock.GetCurrentInstant(), link.AskedAgain + 1);
            record.Note(id, $"Asked again: “{link.Page!.Title}”", LinkEditing.HostsOf(link));
        }

        UndoMail.Keep(db);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }
}
