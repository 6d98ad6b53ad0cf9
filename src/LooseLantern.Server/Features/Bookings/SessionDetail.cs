using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>One of a session's guests with what they answered.</summary>
/// <param name="Answers">In the order of the session's questions; empty where there is none.</param>
public sealed record SessionGuest(BookingRow Row, IReadOnlyList<Companion> Companions, IReadOnlyList<string> Answers);

/// <summary>A session with everybody who comes to it.</summary>
/// <param name="Coming">How many people come, of so many places.</param>
/// <param name="Questions">Everything that any of its guests was asked, in words.</param>
/// <param name="Guests">Whose bookings stand, in the order they booked.</param>
/// <param name="Cancelled">Whose bookings are cancelled.</param>
/// <param name="FirstDate">First local date in the page's zone that it may be moved to.</param>
public sealed record SessionDetail(
    Instant Now,
    Guid Id,
    Instant Start,
    Instant End,
    Guid PageId,
    bool IsOfLink,
    string Page,
    string Place,
    string Zone,
    IReadOnlyList<string> Hosts,
    int Places,
    int Coming,
    bool MayChange,
    LocalDate FirstDate,
    LocalDate LastDate,
    IReadOnlyList<string> Questions,
    IReadOnlyList<SessionGuest> Guests,
    IReadOnlyList<BookingRow> Cancelled
);

/// <summary>Gathers what is known of one session.</summary>
public sealed class SessionDetails(LanternDb db, BookingRows rows, IClock clock)
{
    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task<SessionDetail> OfAsync(Guid id, CancellationToken ct)
    {
        var session = await db
            .Sessions.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Page)
            .Include(row => row.Hosts)
                .ThenInclude(host => host.Host)
            .AsSplitQuery()
            .FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("session");
        var all = await BookingRows
            .Whole(db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled]).AsNoTracking())
            .Where(row => row.SessionId == id)
            .OrderBy(row => row.BookedAt)
            .ThenBy(row => row.Id)
            .ToListAsync(ct);
        var (now, page) = (clock.GetCurrentInstant(), session.Page!);
        var standing = all.FindAll(row => row.CancelledAt is null);
        var seen = await rows.OfAsync(standing, withOutside: true, now, ct);
        // By their key, since a page may ask in other words by now; what it asks no more is told, too.
        var questions = page
            .Questions.Select(question => (question.Key, question.Words))
            .Concat(standing.SelectMany(row => row.Answers).Select(answer => (answer.Key, answer.Words)))
            .DistinctBy(question => question.Key)
            .Where(question => standing.Exists(row => row.Answers.Any(answer => answer.Key == question.Key)))
            .ToList();
        var (first, last) = PageRulesOf.DatesToAsk(page, now.InZone(DateTimeZoneProviders.Tzdb[page.Zone]).Date);
        return new SessionDetail(
            now,
            id,
            session.Time.LowerBound,
            session.Time.UpperBound,
            page.Id,
            page.Offer is not null,
            page.Title,
            page.Place,
            page.Zone,
            [.. session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!.Name)],
            page.Places,
            standing.Sum(row => row.Party),
            seen.Count > 0 && seen.TrueForAll(row => row.MayChange),
            first,
            last,
            questions.ConvertAll(question => question.Words),
            [
                .. standing.Zip(seen, (booking, row) =>
                    new SessionGuest(
                        row,
                        booking.Companions,
                        questions.ConvertAll(question =>
                            booking.Answers.FirstOrDefault(answer => answer.Key == question.Key)?.Text ?? ""
                        )
                    )
                ),
            ],
            await rows.OfAsync(all.FindAll(row => row.CancelledAt is not null), withOutside: false, now, ct)
        );
    }
}
