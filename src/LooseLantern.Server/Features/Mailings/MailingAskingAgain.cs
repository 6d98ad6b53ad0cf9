using LooseLantern.Server.Data;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Letters;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>Asks those of a mailing again who are silent; whoever booked or answered is not written to.</summary>
public sealed class MailingAskingAgain(
    LanternDb db,
    Tenant tenant,
    MailingViews views,
    MailingOffered offered,
    MailingAgainPost post,
    RecordKeeping record,
    WorkSignals signals,
    Actor actor,
    IClock clock
)
{
    /// <param name="word">Of whoever asks, in the place of ours; may be empty.</param>
    /// <param name="key">Of the press; the same again asks nobody twice, also after another press.</param>
    /// <exception cref="Refusal">400 where the word is too long; 404; 409 where nobody is silent, or nothing is
    /// left.</exception>
    public async Task AskAsync(Guid id, string word, string key, CancellationToken ct)
    {
        IdempotencyKeys.Require(key);
        if (word.Length > LinkPost.MostOfAWord)
            throw Refusal.Invalid("word", Phrase.Of("too-long", ("most", LinkPost.MostOfAWord)));
        var press = PressIds.Of(tenant.WorkspaceId!.Value, actor.Required.Id, $"again {id}", key);
        var mailing = await db.Mailings.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("mailing");
        if (mailing.Presses.Contains(press))
            return;
        // What is open is looked up before anything is locked: who books by one of the links is not to wait for that.
        var offer = await offered.OfAsync(mailing, await SilentAsync(id, ct), ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await PressIds.TakeTurnAsync(db, id, ct);
        mailing = await db.Mailings.SingleAsync(row => row.Id == id, ct);
        if (mailing.Presses.Contains(press))
            return;
        // Whoever books at this moment is waited for, and is not silent then.
        await db.Database.ExecuteSqlAsync(
            $"SELECT 1 FROM links WHERE mailing_id = {id} ORDER BY id FOR NO KEY UPDATE",
            ct
        );
        var silent = await SilentAsync(id, ct);
        if (offer.Page is { } page)
            await post.AskByPageAsync(page, silent, word, ct);
        else
            await post.AskByLinksAsync(silent, offer.ByLink, word, ct);
        (mailing.AskedAgainAt, mailing.Presses) = (clock.GetCurrentInstant(), [.. mailing.Presses, press]);
        record.Note(id, $"Asked {silent.Count} {(silent.Count == 1 ? "guest" : "guests")} again: “{mailing.Title}”");
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        signals.Messages.Wake();
    }

    /// <exception cref="Refusal">409 where nobody is silent.</exception>
    private async Task<List<MailingGuestRow>> SilentAsync(Guid id, CancellationToken ct)
    {
        var silent = (await views.GuestsAsync(id, ct))
            .Where(guest => guest.Standing is MailingStanding.Opened or MailingStanding.Unopened)
            .ToList();
        return silent.Count > 0 ? silent : throw new Refusal(StatusCodes.Status409Conflict, "mailing-none-silent");
    }
}
