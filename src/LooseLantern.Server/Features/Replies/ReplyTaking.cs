using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;

namespace LooseLantern.Server.Features.Replies;

/// <summary>Whom mail comes to.</summary>
/// <param name="Owner">Whose address it is, of those who were mailed about the booking; null for the guest's.</param>
public sealed record ReplyAddressee(Guid BookingId, Guid WorkspaceId, string? Owner);

/// <summary>One address got more mail within the hour than people write.</summary>
public sealed class TooManyRepliesException : Exception;

/// <summary>
/// Takes mail that came to a booking's own address: keeps it, and where it answers the invitation, notes the answer on
/// the booking. No answer changes the booking itself; people do that.
/// </summary>
public sealed class ReplyTaking(
    LanternDb db,
    Tenant tenant,
    TimeLocks locks,
    PostWriting post,
    PostLimits limits,
    IClock clock
)
{
    /// <summary>The booking whose address it is; null for nobody's.</summary>
    public static async Task<ReplyAddressee?> FindAsync(
        LanternDb db,
        ReplyAddresses addresses,
        string user,
        CancellationToken ct
    )
    {
        if (user.StartsWith(ReplyAddresses.OthersPrefix, StringComparison.OrdinalIgnoreCase))
            return await FindOtherAsync(db, addresses, user.ToLowerInvariant(), ct);
        if (!user.StartsWith("b.", StringComparison.OrdinalIgnoreCase) || user.Length > 100)
            return null;
        var hash = PrivateLinks.Hash(user[2..].ToLowerInvariant());
        var found = await db
            .Bookings.IgnoreQueryFilters()
            .Where(row => row.ReplySecretHash == hash)
            .Select(row => new { row.Id, row.WorkspaceId })
            .FirstOrDefaultAsync(ct);
        return found is null ? null : new ReplyAddressee(found.Id, found.WorkspaceId, null);
    }

    private static async Task<ReplyAddressee?> FindOtherAsync(
        LanternDb db,
        ReplyAddresses addresses,
        string user,
        CancellationToken ct
    )
    {
        if (user.Split('.') is not [_, var id, var mark] || !Guid.TryParseExact(id, "N", out var bookingId))
            return null;
        var found = await db
            .Bookings.IgnoreQueryFilters()
            .Where(row => row.Id == bookingId)
            .Select(row => new { row.WorkspaceId, row.ProtectedReplySecret })
            .FirstOrDefaultAsync(ct);
        if (found is null)
            return null;
        var mailed = await db
            .Messages.IgnoreQueryFilters()
            .Where(message => message.BookingId == bookingId && message.WorkspaceId == found.WorkspaceId)
            .Select(message => message.ToEmail)
            .Distinct()
            .ToListAsync(ct);
        return addresses.OwnerOf(found.ProtectedReplySecret, mark, mailed) is { } owner
            ? new ReplyAddressee(bookingId, found.WorkspaceId, owner)
            : null;
    }

    /// <summary>Takes it, once: the same mail again is known by its Message-ID.</summary>
    /// <exception cref="TooManyRepliesException">The booking's addresses have as many of this hour as they take.
    /// Nothing is kept; its sender's server asks again later.</exception>
    public async Task TakeAsync(ReplyAddressee to, MimeMessage mail, CancellationToken ct)
    {
        var (bookingId, workspaceId) = (to.BookingId, to.WorkspaceId);
        tenant.Enter(workspaceId);
        var (calendar, fingerprint) = (ReceivedMail.CalendarOf(mail), ReceivedMail.FingerprintOf(mail));
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // A move that is under way ends first: an answer to the time before it is none to the time after.
        await locks.TakeAsync(new TimeLock { PageOfBooking = bookingId }, ct);
        if (await db.Incoming.AnyAsync(row => row.BookingId == bookingId && row.Fingerprint == fingerprint, ct))
            return;
        // Each is told to people; whoever writes more than anybody would is asked to come later.
        var since = clock.GetCurrentInstant() - PostLimits.Hour;
        if (
            await db.Incoming.CountAsync(row => row.BookingId == bookingId && row.ReceivedAt > since, ct)
            >= limits.RepliesAnHour
        )
            throw new TooManyRepliesException();
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .Include(row => row.Session!)
                .ThenInclude(session => session.Page)
            .SingleAsync(row => row.Id == bookingId, ct);
        var sender = mail.From.Mailboxes.FirstOrDefault();
        var (answer, fault, isGuests) = Understand(calendar, booking, to.Owner, clock.GetCurrentInstant());
        var taken = new IncomingMail
        {
            WorkspaceId = workspaceId,
            BookingId = bookingId,
            ReceivedAt = clock.GetCurrentInstant(),
            FromName = ReceivedMail.Short(sender?.Name ?? "", 200),
            FromEmail = ReceivedMail.Short(sender?.Address ?? "", 320),
            Subject = ReceivedMail.Short(mail.Subject ?? "", 400),
            Text = ReceivedMail.TextOf(mail, answer?.Comment),
            Calendar = calendar is { Length: <= AnswerFile.MostCharacters } ? CutText.Kept(calendar) : null,
            Meaning = MeaningOf(answer),
            NotUnderstood = fault,
            WishStart = answer?.Wish?.Start,
            WishEnd = answer?.Wish?.End,
            Fingerprint = fingerprint,
        };
        if (answer is not null && isGuests)
            Note(booking, answer, taken.ReceivedAt);
        db.Incoming.Add(taken);
        await db.SaveChangesAsync(ct);
        if (
            taken.Meaning is MailMeaning.Declines or MailMeaning.Wishes or MailMeaning.Words
            && booking.CancelledAt is null
            && !ReceivedMail.IsAutomatic(mail)
            && !await IsOfTeamAsync(taken.FromEmail, ct)
        )
        {
            await post.TellAsync([bookingId], new Telling(Occasion.Replied) { Reply = taken }, ct);
            await db.SaveChangesAsync(ct);
        }

        await transaction.CommitAsync(ct);
    }

    /// <summary>
    /// What its calendar part says, why it can't be taken as an answer, and whether it is the guest's own.
    /// </summary>
    private static (InvitationAnswer? Answer, string? Fault, bool IsGuests) Understand(
        string? calendar,
        Booking booking,
        string? owner,
        Instant now
    )
    {
        if (calendar is null)
            return (null, null, false);
        try
        {
            var answer = AnswerFile.Read(calendar);
            // A host whose calendars can only be read has the session in it, and answers that.
            if (answer.Uid != booking.Uid && answer.Uid != booking.Session!.Uid)
                return (null, "It answers another booking than the one whose address it came to.", false);
            if (owner is not null)
                return EmailAddress.AreSame(answer.Attendee, owner)
                    ? (answer, null, false)
                    : (null, $"It answers for {answer.Attendee}, but came to the address of {owner}.", false);
            if (!ReplyAddresses.IsGuests(booking, answer.Attendee))
                return (null, $"It answers for {answer.Attendee}, who is not the guest.", false);
            if (answer.Uid != booking.Uid)
                return (null, "It answers the appointment of the hosts and not the guest’s.", false);

            if (booking.CancelledAt is not null)
                return (null, "It answers the invitation to a booking that is cancelled.", false);
            if (answer.Sequence < booking.Sequence)
                return (null, "It answers an older invitation, from before the booking was changed.", false);
            if (answer.Sequence == booking.Sequence && answer.Stamp < booking.AnswerStamp)
                return (null, "It was given before the answer that counts, and came late.", false);
            if (answer.Wish is not { } wish)
                return (answer, null, true);
            if (wish.IsEmpty)
                return (null, "It asks for a time that has no length.", false);
            // Told with its time, and no wish that could be granted by one press.
            return IsWithinDates(wish, booking.Session!.Page!, now)
                ? (answer, null, true)
                : (answer, "It asks for a time outside the dates of the page.", false);
        }
        catch (AnswerException e)
        {
            return (null, e.Message, false);
        }
    }

    private static bool IsWithinDates(Span wish, Page page, Instant now)
    {
        var zone = DateTimeZoneProviders.Tzdb[page.Zone];
        var (first, last) = PageRulesOf.DatesToAsk(page, now.InZone(zone).Date);
        var date = wish.Start.InZone(zone).Date;
        return wish.Start > now && date >= first && date <= last;
    }

    private static void Note(Booking booking, InvitationAnswer answer, Instant now)
    {
        if (answer.Kind == AnswerKind.Counter)
            (booking.WishStart, booking.WishEnd) = (answer.Wish!.Value.Start, answer.Wish.Value.End);
        else
        {
            booking.Reply = answer.Kind switch
            {
                AnswerKind.Accepted => GuestReply.Accepted,
                AnswerKind.Tentative => GuestReply.Tentative,
                _ => GuestReply.Declined,
            };
            (booking.WishStart, booking.WishEnd) = (null, null);
        }

        (booking.RepliedAt, booking.AnswerStamp) = (now, answer.Stamp);
    }

    private static MailMeaning MeaningOf(InvitationAnswer? answer) =>
        answer?.Kind switch
        {
            AnswerKind.Accepted => MailMeaning.Accepts,
            AnswerKind.Tentative => MailMeaning.AcceptsTentatively,
            AnswerKind.Declined => MailMeaning.Declines,
            AnswerKind.Counter => MailMeaning.Wishes,
            _ => MailMeaning.Words,
        };

    private async Task<bool> IsOfTeamAsync(string address, CancellationToken ct) =>
        await db.Users.AnyAsync(person => person.NormalizedEmail == address.ToUpperInvariant(), ct);
}
