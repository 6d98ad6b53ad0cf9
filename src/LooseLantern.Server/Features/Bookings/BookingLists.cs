using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

public enum WhichBookings
{
    /// <summary>A session that is under way is still to come.</summary>
    ToCome,

    Past,

    Cancelled,
}

/// <param name="Total">How many appointments there are in all, of which Rows is one run; of the cancelled, how many
/// bookings. 10,001 stands for more than ten thousand.</param>
/// <param name="Rows">All bookings of a group session stand together.</param>
/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record BookingList(Instant Now, int Total, IReadOnlyList<BookingRow> Rows, string? Before, string? After);

/// <summary>
/// Lists of bookings: those that wait for an answer first, then upcoming ones soonest first; past and cancelled ones
/// latest first. A group session is one appointment, however many come to it.
/// </summary>
public sealed class BookingLists(LanternDb db, Tenant tenant, BookingRows rows, IClock clock)
{
    // As the index ix_bookings_words has it.
    private const string Words =
        "(b.guest_name || E'\\n' || b.guest_email || E'\\n' || b.booker_name || E'\\n' || b.booker_email)";

    private const string ByTitle = """
        SELECT f.id FROM pages p JOIN sessions f ON f.page_id = p.id AND f.workspace_id = p.workspace_id
        WHERE p.workspace_id = @workspace AND p.title ILIKE @like
        """;

    private const string ByWords =
        $"SELECT b.session_id FROM bookings b WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL AND {Words} ILIKE @like";

    // As the index ix_bookings_waiting has it.
    private const string Waiting = """
        (SELECT b.session_id FROM bookings b WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL
            AND (b.waits_until IS NOT NULL OR b.wish_start IS NOT NULL OR b.reply = 'Declined')
        UNION SELECT w.session_id FROM written_events w WHERE w.workspace_id = @workspace AND w.outside <> 'None' AND w.session_id IS NOT NULL)
        """;

    /// <param name="search">In what guests and bookers are called, their addresses, and titles of pages; null or blank
    /// for all.</param>
    /// <exception cref="Refusal">400 for a place that was never told of.</exception>
    public async Task<BookingList> ReadAsync(WhichBookings which, string? search, ListPlace place, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var like = string.IsNullOrWhiteSpace(search) ? null : Hosting.Words.Containing(search);
        var values = new Dictionary<string, object>
        {
            ["workspace"] = tenant.WorkspaceId!.Value,
            ["now"] = now,
            ["like"] = like ?? "",
        };
        // What is searched for is found once, with all that its order goes by.
        var isOfBookings = which == WhichBookings.Cancelled;
        var searched =
            like is null ? null
            : isOfBookings ? $"SELECT b.id, b.cancelled_at FROM {AllOf(which, isSearched: true)}"
            : $"SELECT s.id, s.time FROM {AllOf(which, isSearched: true)}";
        var all =
            searched is null ? AllOf(which, isSearched: false)
            : isOfBookings ? "found b WHERE true"
            : "found s WHERE true";
        var run = await ListRuns.ReadAsync(db, Blocks(which, all), all, values, place, ct, searched);
        var places = run.Ids.Select((id, index) => (id, index)).ToDictionary(pair => pair.id, pair => pair.index);
        var found = await BookingRows.Whole(Of(which, run.Ids, like)).ToListAsync(ct);
        return new BookingList(
            now,
            run.Total,
            await rows.OfAsync(
                [
                    .. found
                        .OrderBy(row => places[which == WhichBookings.Cancelled ? row.Id : row.SessionId])
                        .ThenBy(row => row.BookedAt)
                        .ThenBy(row => row.Id),
                ],
                which == WhichBookings.ToCome,
                now,
                ct
            ),
            run.Before,
            run.After
        );
    }

    private IQueryable<Booking> Of(WhichBookings which, IReadOnlyList<Guid> ids, string? like)
    {
        if (which == WhichBookings.Cancelled)
            return db
                .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
                .AsNoTracking()
                .Where(row => ids.Contains(row.Id));
        var bookings = db.Bookings.AsNoTracking().Where(row => ids.Contains(row.SessionId));
        // Of a group only who was searched for.
        return like is null
            ? bookings
            : bookings.Where(row =>
                EF.Functions.ILike(row.GuestName, like, "\\")
                || EF.Functions.ILike(row.GuestEmail, like, "\\")
                || EF.Functions.ILike(row.BookerName, like, "\\")
                || EF.Functions.ILike(row.BookerEmail, like, "\\")
                || EF.Functions.ILike(row.Session!.Page!.Title, like, "\\")
            );
    }

    private static string AllOf(WhichBookings which, bool isSearched)
    {
        var byWords = isSearched ? $" AND s.id IN ({ByWords} UNION ALL {ByTitle})" : "";
        var standing = $"sessions s WHERE s.workspace_id = @workspace AND s.cancelled_at IS NULL{byWords}";
        return which switch
        {
            WhichBookings.Cancelled => "bookings b WHERE b.workspace_id = @workspace AND b.cancelled_at IS NOT NULL"
                + (isSearched ? $" AND ({Words} ILIKE @like OR b.session_id IN ({ByTitle}))" : ""),
            WhichBookings.Past => $"{standing} AND lower(s.time) <= @now AND upper(s.time) <= @now",
            // No session is longer: the index by starts leads to those that are not over.
            _ =>
                $"{standing} AND lower(s.time) > @now - interval '{PageLimits.MostDurationMinutes} minutes' AND upper(s.time) > @now",
        };
    }

    private static List<ListBlock> Blocks(WhichBookings which, string all) =>
        which switch
        {
            WhichBookings.Cancelled => [new(all, "b.cancelled_at", "b.id", Latest: true)],
            WhichBookings.Past => [new(all, "lower(s.time)", "s.id", Latest: true)],
            _ =>
            [
                new($"{all} AND s.id IN {Waiting}", "lower(s.time)", "s.id"),
                new($"{all} AND s.id NOT IN {Waiting}", "lower(s.time)", "s.id"),
            ],
        };
}
