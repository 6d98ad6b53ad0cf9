using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>A mail that came to the booking's own address, or to that of a letter it was booked by.</summary>
/// <param name="NotUnderstood">Why its calendar part changed nothing; null where it did, or where there is
/// none.</param>
public sealed record IncomingView(
    Guid Id,
    Instant ReceivedAt,
    string FromName,
    string FromEmail,
    string Subject,
    string Text,
    MailMeaning Meaning,
    string? NotUnderstood,
    Instant? WishStart,
    Instant? WishEnd
);

/// <summary>What was done to the booking, and by whom.</summary>
public sealed record DoneView(Instant At, string By, string What);

/// <summary>A host of the booking.</summary>
/// <param name="IsAdded">Whether they came along beside the page's line-up, and may be let go.</param>
public sealed record SeatedHost(Guid Id, string Name, HostKind Kind, bool IsAdded);

/// <summary>One booking with all that is known of it.</summary>
/// <param name="Post">Messages about it, the latest first.</param>
/// <param name="FirstDate">First local date in the page's zone that it may be moved to.</param>
/// <param name="MayNote">Whether the person who asks may note what became of it, and write to the guest.</param>
public sealed record BookingDetail(
    Instant Now,
    BookingRow Row,
    IReadOnlyList<GivenAnswer> Answers,
    IReadOnlyList<Companion> Companions,
    string HostWords,
    LocalDate FirstDate,
    LocalDate LastDate,
    IReadOnlyList<IncomingView> Incoming,
    IReadOnlyList<PostRow> Post,
    IReadOnlyList<DoneView> Done,
    IReadOnlyList<BookingNoteView> Notes,
    IReadOnlyList<SeatedHost> Hosts,
    bool MayNote
);

/// <summary>Gathers what is known of one booking.</summary>
public sealed class BookingDetails(
    LanternDb db,
    BookingRows rows,
    BookingNotes notes,
    Allowances allowances,
    Tellings tellings,
    IClock clock
)
{
    private const int Most = 100;

    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task<BookingDetail> OfAsync(Guid id, CancellationToken ct)
    {
        await tellings.WriteAllAsync(null, ct);
        var booking = await BookingRows
            .Whole(db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled]).AsNoTracking())
            .FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("booking");
        var (now, page) = (clock.GetCurrentInstant(), booking.Session!.Page!);
        var emails = new[] { booking.GuestEmail, booking.BookerEmail }
            .Where(email => email.Length > 0)
            .Select(GuestEmail.KeyOf)
            .ToList();
        // Answers to the letter whose link was taken came before there was a booking, or beside it.
        var letters = db
            .Messages.Where(row => row.LinkId == page.Id && emails.Contains(row.ToEmail.ToLower()))
            .Select(row => (Guid?)row.Id);
        var incoming = await db
            .Incoming.AsNoTracking()
            .Where(row => row.BookingId == id || letters.Contains(row.MessageId))
            .OrderByDescending(row => row.ReceivedAt)
            .ThenByDescending(row => row.Id)
            .Take(Most)
            .ToListAsync(ct);
        var post = await db
            .Messages.AsNoTracking()
            .Where(row => row.BookingId == id)
            .OrderByDescending(row => row.WrittenAt)
            .ThenByDescending(row => row.Id)
            .Take(Most)
            .ToListAsync(ct);
        var done = await db
            .Record.AsNoTracking()
            .Where(row => row.SubjectId == id)
            .OrderByDescending(row => row.At)
            .Take(Most)
            .ToListAsync(ct);
        var said = await RecordWords.SaidAsync(db, done, ct);
        var (first, last) = PageRulesOf.DatesToAsk(page, now.InZone(DateTimeZoneProviders.Tzdb[page.Zone]).Date);
        return new BookingDetail(
            now,
            (await rows.OfAsync([booking], booking.CancelledAt is null, now, ct))[0],
            booking.Answers,
            booking.Companions,
            page.Post.HostWords,
            first,
            last,
            incoming.ConvertAll(row => new IncomingView(
                row.Id,
                row.ReceivedAt,
                row.FromName,
                row.FromEmail,
                row.Subject,
                row.Text,
                row.Meaning,
                row.NotUnderstood,
                row.WishStart,
                row.WishEnd
            )),
            post.ConvertAll(PostEndpoints.RowOf),
            [.. done.Select((row, at) => new DoneView(row.At, row.PersonName, said[at]))],
            await notes.ListAsync(id, ct),
            await HostsAsync(booking.Session!, ct),
            (await allowances.HostsAsync(Allowance.Move, ct)).IsSupersetOf(
                booking.Session.Hosts.Select(host => host.HostId)
            )
        );
    }

    private async Task<IReadOnlyList<SeatedHost>> HostsAsync(Session session, CancellationToken ct)
    {
        var seats = await db
            .Pages.Where(page => page.Id == session.PageId)
            .Select(page => page.Seats.Count)
            .SingleAsync(ct);
        return
        [
            .. session
                .Hosts.OrderBy(row => row.Seat)
                .Select(row => new SeatedHost(row.HostId, row.Host!.Name, row.Host.Kind, row.Seat >= seats)),
        ];
    }
}
