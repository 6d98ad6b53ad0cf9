using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;

namespace LooseLantern.Server.Features.Replies;

/// <summary>The letter that mail answers.</summary>
public sealed record AnsweredLetter(Guid MessageId, Guid WorkspaceId);

/// <summary>
/// Takes mail that came to a letter's own address: keeps it with the guest and whatever they booked by the letter's
/// link, and tells the team of it once.
/// </summary>
public sealed class LetterAnswers(
    LanternDb db,
    Tenant tenant,
    PostWriting post,
    PostWords words,
    PostLimits limits,
    IClock clock
)
{
    /// <summary>The letter whose address it is; null for nobody's.</summary>
    public static async Task<AnsweredLetter?> FindAsync(LanternDb db, string user, CancellationToken ct)
    {
        if (!user.StartsWith(ReplyAddresses.LettersPrefix, StringComparison.OrdinalIgnoreCase) || user.Length > 100)
            return null;
        var hash = PrivateLinks.Hash(user[ReplyAddresses.LettersPrefix.Length..].ToLowerInvariant());
        return await db
            .Messages.IgnoreQueryFilters()
            .Where(row => row.ReplySecretHash == hash)
            .Select(row => new AnsweredLetter(row.Id, row.WorkspaceId))
            .FirstOrDefaultAsync(ct);
    }

    /// <summary>Takes it, once: the same mail again is known by its Message-ID.</summary>
    /// <exception cref="TooManyRepliesException">The letter's address has as many of this hour as it takes. Nothing is
    /// kept; its sender's server asks again later.</exception>
    public async Task TakeAsync(AnsweredLetter to, MimeMessage mail, CancellationToken ct)
    {
        tenant.Enter(to.WorkspaceId);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // One after the other; a letter that is just being erased with its guest is waited for.
        if (
            await db
                .Messages.FromSql($"SELECT * FROM messages WHERE id = {to.MessageId} FOR NO KEY UPDATE")
                .AsNoTracking()
                .FirstOrDefaultAsync(ct)
            is not { } letter
        )
            return;
        var (fingerprint, now) = (ReceivedMail.FingerprintOf(mail), clock.GetCurrentInstant());
        if (await db.Incoming.AnyAsync(row => row.MessageId == letter.Id && row.Fingerprint == fingerprint, ct))
            return;
        var since = now - PostLimits.Hour;
        if (
            await db.Incoming.CountAsync(row => row.MessageId == letter.Id && row.ReceivedAt > since, ct)
            >= limits.RepliesAnHour
        )
            throw new TooManyRepliesException();
        var sender = mail.From.Mailboxes.FirstOrDefault();
        var taken = new IncomingMail
        {
            WorkspaceId = to.WorkspaceId,
            MessageId = letter.Id,
            ReceivedAt = now,
            FromName = ReceivedMail.Short(sender?.Name ?? "", 200),
            FromEmail = ReceivedMail.Short(sender?.Address ?? "", 320),
            Subject = ReceivedMail.Short(mail.Subject ?? "", 400),
            Text = ReceivedMail.TextOf(mail, comment: null),
            Meaning = MailMeaning.Words,
            Fingerprint = fingerprint,
        };
        db.Incoming.Add(taken);
        await db.SaveChangesAsync(ct);
        if (!ReceivedMail.IsAutomatic(mail) && !await IsOfTeamAsync(taken.FromEmail, ct))
        {
            await TellAsync(letter, taken, ct);
            await db.SaveChangesAsync(ct);
        }

        await transaction.CommitAsync(ct);
    }

    /// <summary>The hosts of what the guest booked by it; else who wrote it, or else who keeps the guest.</summary>
    private async Task TellAsync(Message letter, IncomingMail taken, CancellationToken ct)
    {
        var (email, now) = (GuestEmail.KeyOf(letter.ToEmail), taken.ReceivedAt);
        var booking = letter.LinkId is null
            ? null
            : await db
                .Bookings.Where(row =>
                    row.Session!.PageId == letter.LinkId
                    && (row.GuestEmail.ToLower() == email || row.BookerEmail.ToLower() == email)
                    && row.Session.Time.UpperBound > now
                )
                .Select(row => (Guid?)row.Id)
                .FirstOrDefaultAsync(ct);
        if (booking is { } id)
        {
            await post.TellAsync([id], new Telling(Occasion.Replied) { Reply = taken }, ct);
            return;
        }

        var guest = await db
            .GuestEmails.Where(row => row.Key == email)
            .Join(db.Guests, row => row.GuestId, one => one.Id, (_, one) => new { one.Id, one.KeeperId })
            .FirstOrDefaultAsync(ct);
        var person = await PersonAsync(letter.WrittenBy, ct) ?? await PersonAsync(guest?.KeeperId, ct);
        if (person is null)
            return;
        var reader = Reader.Of(person);
        var told = PostDraft.Of(
            letter.WorkspaceId,
            letter.FromName,
            MessageKind.RepliedForSender,
            reader,
            PostTemplates.Write(
                MessageKind.RepliedForSender,
                reader.Language,
                new Dictionary<string, string>
                {
                    ["writer"] = PostInserts.Harmless(taken.FromName.Length > 0 ? taken.FromName : taken.FromEmail),
                    ["subject"] = letter.Subject,
                    ["word"] = PostInserts.Harmless(taken.Text),
                    ["link"] = words.Link(guest is null ? "/work/post" : $"/work/guests/{guest.Id:D}"),
                }
            ),
            now
        );
        told.PersonId = person.Id;
        db.Messages.Add(told);
    }

    private async Task<Person?> PersonAsync(Guid? id, CancellationToken ct) =>
        id is null
            ? null
            : await db.Users.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id && row.LeftAt == null, ct);

    private async Task<bool> IsOfTeamAsync(string address, CancellationToken ct) =>
        await db.Users.AnyAsync(person => person.NormalizedEmail == address.ToUpperInvariant(), ct);
}
