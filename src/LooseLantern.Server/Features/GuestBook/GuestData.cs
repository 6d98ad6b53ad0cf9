using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

/// <param name="For">Whom it was booked for, where the guest booked for somebody else; else empty.</param>
public sealed record GuestDataBooking(
    string Page,
    Instant Start,
    Instant End,
    string Zone,
    string For,
    string Name,
    string Email,
    Instant BookedAt,
    Instant? CancelledAt,
    string CancelWord,
    IReadOnlyList<GivenAnswer> Answers,
    IReadOnlyList<Companion> Companions,
    IReadOnlyList<string> Flags,
    BookingOutcome Outcome,
    IReadOnlyList<GuestDataNote> Notes
);

public sealed record GuestDataNote(Instant At, string By, string Text);

public sealed record GuestDataLink(
    string Title,
    Instant MadeAt,
    LocalDate EndsOn,
    LinkState State,
    string Notes,
    IReadOnlyList<LinkGuest> Guests,
    IReadOnlyList<GuestTimes> Suits,
    IReadOnlyList<GuestDataWish> Wishes
);

public sealed record GuestDataWish(Instant Start, Instant End, string Words, string By, Instant At);

public sealed record GuestDataMail(Instant At, string From, string To, string Subject, string Text);

/// <summary>All that is kept of one guest, for themselves to read.</summary>
/// <param name="Fields">By the fields' names.</param>
/// <param name="Links">Made for them.</param>
/// <param name="MailSent">To them; private links in it are masked.</param>
/// <param name="MailReceived">About their bookings, and in answer to letters.</param>
public sealed record GuestDataFile(
    string Name,
    IReadOnlyList<string> Emails,
    string Organisation,
    string Phone,
    string? Zone,
    string? Language,
    ClockForm? Clock,
    string Keeper,
    IReadOnlyDictionary<string, string> Fields,
    GuestSource Source,
    Instant KnownSince,
    IReadOnlyList<GuestDataNote> Notes,
    IReadOnlyList<GuestDataBooking> Bookings,
    IReadOnlyList<GuestDataLink> Links,
    IReadOnlyList<GuestDataMail> MailSent,
    IReadOnlyList<GuestDataMail> MailReceived
);

/// <summary>Gathers all that is kept of one guest, as they may ask for.</summary>
public sealed class GuestData(LanternDb db, GuestDetails details, Tellings tellings)
{
    /// <exception cref="Hosting.Refusal">404 where there is none.</exception>
    public async Task<GuestDataFile> OfAsync(Guid id, CancellationToken ct)
    {
        // What is still to be told is mail of theirs, too.
        await tellings.WriteAllAsync(null, ct);
        var detail = await details.OfAsync(id, ct);
        id = detail.Id;
        var names = (await db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct)).ToDictionary(
            field => field.Id,
            field => field.Name
        );
        var bookings = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Session!.Page)
            .Where(row => row.GuestId == id || row.BookerId == id)
            .OrderBy(row => row.BookedAt)
            .ToListAsync(ct);
        var bookingIds = bookings.ConvertAll(row => row.Id);
        var notes = (
            await db
                .BookingNotes.AsNoTracking()
                .Where(row => bookingIds.Contains(row.BookingId))
                .OrderBy(row => row.At)
                .ToListAsync(ct)
        ).ToLookup(row => row.BookingId);
        var keys = detail.Emails.Select(GuestEmail.KeyOf).ToList();
        return new GuestDataFile(
            detail.Name,
            detail.Emails,
            detail.Organisation,
            detail.Phone,
            detail.Zone,
            detail.Language,
            detail.Clock,
            detail.KeeperName,
            detail
                .Fields.Where(field => names.ContainsKey(field.Key))
                .ToDictionary(field => names[field.Key], field => field.Value),
            detail.Source,
            detail.MadeAt,
            await db
                .GuestNotes.AsNoTracking()
                .Where(row => row.GuestId == id)
                .OrderBy(row => row.At)
                .Select(row => new GuestDataNote(row.At, row.PersonName, row.Text))
                .ToListAsync(ct),
            bookings.ConvertAll(row => BookingOf(row, id, notes[row.Id])),
            await LinksAsync(id, detail.Name, keys, ct),
            await db
                .Messages.AsNoTracking()
                .Where(row => row.PersonId == null && keys.Contains(row.ToEmail.ToLower()))
                .OrderBy(row => row.WrittenAt)
                .Select(row => new GuestDataMail(
                    row.SentAt ?? row.WrittenAt,
                    row.FromName,
                    row.ToEmail,
                    row.Subject,
                    PostInserts.Masked(row.Text)
                ))
                .ToListAsync(ct),
            await MailReceivedAsync(bookings, keys, ct)
        );
    }

    private static GuestDataBooking BookingOf(Booking row, Guid guest, IEnumerable<BookingNote> notes) =>
        new(
            row.Session!.Page!.Title,
            row.Session.Time.LowerBound,
            row.Session.Time.UpperBound,
            row.Session.Page.Zone,
            row.GuestId == guest ? "" : row.GuestName,
            row.GuestId == guest ? row.GuestName : row.BookerName,
            row.GuestId == guest ? row.GuestEmail : row.BookerEmail,
            row.BookedAt,
            row.CancelledAt,
            row.CancelWord,
            row.Answers,
            row.Companions,
            row.Flags,
            row.Outcome,
            [.. notes.Select(note => new GuestDataNote(note.At, note.PersonName, note.Text))]
        );

    /// <summary>Of a link for several, what the others said is theirs.</summary>
    private async Task<IReadOnlyList<GuestDataLink>> LinksAsync(
        Guid guest,
        string name,
        List<string> keys,
        CancellationToken ct
    )
    {
        var ids = db.LinkGuests.Where(row => row.GuestId == guest).Select(row => row.LinkId);
        var links = await db
            .Links.AsNoTracking()
            .Include(link => link.Page)
            .Include(link => link.Wishes)
            .Where(link => ids.Contains(link.Id))
            .OrderBy(link => link.MadeAt)
            .AsSplitQuery()
            .ToListAsync(ct);
        bool IsTheirs(string called, string email) =>
            email.Length > 0
                ? keys.Contains(GuestEmail.KeyOf(email))
                : called.Equals(name, StringComparison.OrdinalIgnoreCase);
        return links.ConvertAll(link => new GuestDataLink(
            link.Page!.Title,
            link.MadeAt,
            link.EndsOn,
            link.State,
            link.Notes,
            [.. link.Guests.Where(one => IsTheirs(one.Name, one.Email))],
            [.. link.Suits.Where(one => IsTheirs(one.Name, one.Email))],
            [
                .. link
                    .Wishes.Where(wish => link.Guests.Count < 2 || IsTheirs(wish.By, ""))
                    .OrderBy(wish => wish.At)
                    .Select(wish => new GuestDataWish(wish.Start, wish.End, wish.Words, wish.By, wish.At)),
            ]
        ));
    }

    private async Task<IReadOnlyList<GuestDataMail>> MailReceivedAsync(
        List<Booking> bookings,
        List<string> keys,
        CancellationToken ct
    )
    {
        var ids = bookings.ConvertAll(row => (Guid?)row.Id);
        var letters = db
            .Messages.Where(row => row.PersonId == null && keys.Contains(row.ToEmail.ToLower()))
            .Select(row => (Guid?)row.Id);
        return await db
            .Incoming.AsNoTracking()
            .Where(row => ids.Contains(row.BookingId) || letters.Contains(row.MessageId))
            .OrderBy(row => row.ReceivedAt)
            .Select(row => new GuestDataMail(row.ReceivedAt, row.FromEmail, "", row.Subject, row.Text))
            .ToListAsync(ct);
    }
}
