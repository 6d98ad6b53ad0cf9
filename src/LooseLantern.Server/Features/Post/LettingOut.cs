using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <param name="All">Whether all of it does, since the workspace may not mail guests now.</param>
/// <param name="For">The addresses of those who had such a mail within the hour.</param>
public sealed record WaitingMail(bool All, IReadOnlyList<string> For);

/// <summary>
/// Decides, as a message is about to be sent, whether it may go out yet. Nobody can have us write to strangers in
/// masses: a workspace must have an owner with a proven address, for its first day it mails so many strangers an hour,
/// and whoever is brought along has one such mail an hour. What may not go yet waits; nothing is dropped.
/// </summary>
public sealed class LettingOut(LanternDb db, PostSettings settings, PostLimits limits, IClock clock)
{
    // A proof frees what waits at once; this only finds what it missed.
    private static readonly Duration LooksAgainAfter = Duration.FromMinutes(10);

    /// <summary>Whether any owner of the workspace at hand has proven an address, so that it mails strangers.</summary>
    public static Task<bool> IsOpenAsync(LanternDb db, CancellationToken ct) =>
        db.Users.AnyAsync(person => person.IsOwner && person.LeftAt == null && person.EmailProvenAt != null, ct);

    /// <summary>What mail about a booking waits, of the workspace at hand.</summary>
    public static async Task<WaitingMail> WaitingAsync(LanternDb db, Guid bookingId, CancellationToken ct)
    {
        var held = await db
            .Messages.Where(row => row.BookingId == bookingId && row.State == MessageState.Due && row.HeldBack != null)
            .Select(row => new { row.ToEmail, row.HeldBack })
            .ToListAsync(ct);
        return new WaitingMail(
            held.Exists(row => row.HeldBack != MessageHold.OftenToOne) || !await IsOpenAsync(db, ct),
            [.. held.Where(row => row.HeldBack == MessageHold.OftenToOne).Select(row => row.ToEmail).Distinct()]
        );
    }

    /// <summary>
    /// Whether a stranger can be mailed now, of the workspace at hand: what would wait is not asked for.
    /// </summary>
    public async Task<bool> MayBeAskedAsync(CancellationToken ct)
    {
        // All mail waits for a mail server there.
        if (settings.Host is null)
            return true;
        var since = clock.GetCurrentInstant() - PostLimits.Hour;
        var facts = await db
            .Workspaces.Select(workspace => new
            {
                workspace.MailOpenedAt,
                IsOpen = db.Users.Any(person =>
                    person.IsOwner && person.LeftAt == null && person.EmailProvenAt != null
                ),
                Sent = db.Messages.Count(row => row.LetOutAt > since),
            })
            .SingleAsync(ct);
        return facts.IsOpen && (!IsNew(facts.MailOpenedAt) || facts.Sent < limits.FirstDayMails);
    }

    private bool IsNew(Instant? openedAt) => openedAt + PostLimits.FirstDay > clock.GetCurrentInstant();

    /// <summary>Lets it out, or puts it off with the reason; saved either way.</summary>
    /// <param name="message">Of the workspace at hand, tracked.</param>
    public async Task<bool> LetsOutAsync(Message message, CancellationToken ct)
    {
        // Counted already: it is only being tried again.
        if (message.LetOutAt is not null)
            return true;
        var (now, email) = (clock.GetCurrentInstant(), message.ToEmail.ToUpperInvariant());
        var facts = await db
            .Workspaces.Select(workspace => new
            {
                workspace.MailOpenedAt,
                IsOpen = db.Users.Any(person =>
                    person.IsOwner && person.LeftAt == null && person.EmailProvenAt != null
                ),
                IsOwner = db
                    .Users.Where(person => person.NormalizedEmail == email && person.LeftAt == null)
                    .Select(person => (bool?)person.IsOwner)
                    .FirstOrDefault(),
            })
            .SingleAsync(ct);
        if (!facts.IsOpen && facts.IsOwner != true)
        {
            PutOff(message, MessageHold.Unproven, now + LooksAgainAfter);
            await db.SaveChangesAsync(ct);
            return false;
        }

        var isOfFirstDay = facts.IsOwner is null && IsNew(facts.MailOpenedAt);
        if (!isOfFirstDay && !IsForCompanion(message.Kind))
        {
            message.HeldBack = null;
            return true;
        }

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // Several are sent at once, by several servers: each is counted before the next is.
        if (isOfFirstDay && await UntilOfFirstDayAsync(message.WorkspaceId, now, ct) is { } later)
            PutOff(message, MessageHold.FirstDay, later);
        else if (IsForCompanion(message.Kind) && await UntilOfCompanionAsync(message, now, ct) is { } next)
            PutOff(message, MessageHold.OftenToOne, next);
        else
            (message.HeldBack, message.LetOutAt) = (null, now);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return message.HeldBack is null;
    }

    private static void PutOff(Message message, MessageHold why, Instant until) =>
        (message.HeldBack, message.DueAt, message.SendingUntil) = (why, until, null);

    /// <summary>When the next may go; null where one may now.</summary>
    private async Task<Instant?> UntilOfFirstDayAsync(Guid workspaceId, Instant now, CancellationToken ct)
    {
        await LockAsync(workspaceId.ToString("N"), ct);
        var since = now - PostLimits.Hour;
        var last = await db
            .Messages.Where(row => row.LetOutAt > since)
            .OrderByDescending(row => row.LetOutAt)
            .Select(row => row.LetOutAt)
            .Take(limits.FirstDayMails)
            .ToListAsync(ct);
        return last.Count < limits.FirstDayMails ? null : last[^1] + PostLimits.Hour;
    }

    private async Task<Instant?> UntilOfCompanionAsync(Message message, Instant now, CancellationToken ct)
    {
        await LockAsync(EmailAddress.KeyOf(message.ToEmail), ct);
        var (since, email) = (now - limits.CompanionPause, message.ToEmail.ToUpperInvariant());
        // Of all workspaces: whoever is mailed does not care whose mail it is.
        var last = await db
            .Messages.IgnoreQueryFilters()
            .Where(row =>
                row.LetOutAt > since
                && row.ToEmail.ToUpper() == email
                && (row.Kind == MessageKind.BookedForCompanion || row.Kind == MessageKind.CancelledForCompanion)
            )
            .MaxAsync(row => row.LetOutAt, ct);
        return last + limits.CompanionPause;
    }

    private static bool IsForCompanion(MessageKind kind) =>
        kind is MessageKind.BookedForCompanion or MessageKind.CancelledForCompanion;

    private Task LockAsync(string key, CancellationToken ct) =>
        db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtextextended({"let-out " + key}, 0))", ct);
}
