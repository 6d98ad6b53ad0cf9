using LooseLantern.Server.Data;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <param name="Total">How many appointments there are in all, of which Rows is one run; of the cancelled, how many
/// bookings. 10,001 stands for more than ten thousand.</param>
/// <param name="Rows">All bookings of a group session stand together.</param>
/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record BookingList(Instant Now, int Total, IReadOnlyList<BookingRow> Rows, string? Before, string? After);

/// <summary>
/// Lists of bookings, as a <see cref="BookingFilter"/> chooses and orders them. A group session is one appointment,
/// however many come to it.
/// </summary>
public sealed class BookingLists(LanternDb db, BookingFinding finding, BookingRows rows, IClock clock)
{
    // As the index ix_bookings_waiting has it.
    private const string Waiting = """
        (SELECT b.session_id FROM bookings b WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL
            AND (b.waits_until IS NOT NULL OR b.wish_start IS NOT NULL OR b.reply = 'Declined')
        UNION SELECT w.session_id FROM written_events w WHERE w.workspace_id = @workspace AND w.outside <> 'None' AND w.session_id IS NOT NULL)
        """;

    /// <exception cref="Refusal">400 for a place that was never told of, or dates that are swapped.</exception>
    public async Task<BookingList> ReadAsync(BookingFilter filter, ListPlace place, CancellationToken ct)
    {
        var (now, found) = (clock.GetCurrentInstant(), await finding.OfAsync(filter, ct));
        var isCancelled = filter.When == WhichBookings.Cancelled;
        // What is looked for is found once, with what its order goes by.
        var once = found.IsKeyed ? $"SELECT {found.Id} AS id, {found.Key} AS key FROM {found.All}" : null;
        var all = once is null ? found.All : "found f WHERE true";
        var block = once is null
            ? new ListBlock(all, found.Key, found.Id, found.Latest, found.KeyKind)
            : new ListBlock(all, "f.key", "f.id", found.Latest, found.KeyKind);
        ListBlock[] blocks = filter is { When: WhichBookings.ToCome, Order: BookingOrder.Usual }
            ?
            [
                block with
                {
                    From = $"{all} AND {block.Id} IN {Waiting}",
                },
                block with
                {
                    From = $"{all} AND {block.Id} NOT IN {Waiting}",
                },
            ]
            : [block];
        var run = await ListRuns.ReadAsync(db, blocks, all, found.Values, place, ct, once);
        var places = run.Ids.Select((one, index) => (one, index)).ToDictionary(pair => pair.one, pair => pair.index);
        var bookings = isCancelled ? [.. run.Ids] : await BookingsOfAsync(run.Ids, found, ct);
        var read = await BookingRows
            .Whole(db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled]).AsNoTracking())
            .Where(row => bookings.Contains(row.Id))
            .ToListAsync(ct);
        return new BookingList(
            now,
            run.Total,
            await rows.OfAsync(
                [
                    .. read.OrderBy(row => places.GetValueOrDefault(isCancelled ? row.Id : row.SessionId, int.MaxValue))
                        .ThenBy(row => row.BookedAt)
                        .ThenBy(row => row.Id),
                ],
                !isCancelled && filter.When != WhichBookings.Past,
                now,
                ct
            ),
            run.Before,
            run.After
        );
    }

    /// <summary>Of a group only whom the filter chooses.</summary>
    private async Task<Guid[]> BookingsOfAsync(IReadOnlyList<Guid> sessions, FoundBookings found, CancellationToken ct)
    {
        var trip = new RoundTrip(db);
        var asked = trip.Ask(
            $"SELECT b.id FROM bookings b WHERE b.session_id = ANY(@sessions) AND b.cancelled_at IS NULL{found.OfBooking}",
            new Dictionary<string, object>(found.Values) { ["sessions"] = sessions.ToArray() },
            row => row.GetGuid(0)
        );
        await trip.RunAsync(ct);
        return [.. asked.Rows];
    }
}
