using LooseLantern.Server.Data;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>A choice of bookings as SQL.</summary>
/// <param name="All">The tables after FROM, then WHERE with whatever must hold: of sessions "s", or bookings
/// "b".</param>
/// <param name="Id">The column of their ids.</param>
/// <param name="OfBooking">What must hold of each booking "b" of a session; empty where all of it is shown.</param>
/// <param name="IsKeyed">Whether it is read once, with what it is ordered by as "key".</param>
/// <param name="Key">What it is ordered by.</param>
public sealed record FoundBookings(
    string All,
    string Id,
    string OfBooking,
    IReadOnlyDictionary<string, object> Values,
    bool IsKeyed,
    string Key,
    ListKeyKind KeyKind,
    bool Latest
);

/// <summary>Says what a choice of bookings is in SQL: for lists, views and files.</summary>
public sealed class BookingFinding(LanternDb db, Tenant tenant, Actor actor, IClock clock)
{
    // As the index ix_bookings_words has it; {b} is the booking.
    private const string Words =
        "({b}.guest_name || E'\\n' || {b}.guest_email || E'\\n' || {b}.booker_name || E'\\n' || {b}.booker_email)";

    private const string ByTitle = """
        SELECT f.id FROM pages p JOIN sessions f ON f.page_id = p.id AND f.workspace_id = p.workspace_id
        WHERE p.workspace_id = @workspace AND p.title ILIKE @like
        """;

    private static readonly string ByWords =
        $"SELECT b.session_id FROM bookings b WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL AND {Of("b", Words)} ILIKE @like";

    /// <exception cref="Refusal">400 for dates that are swapped.</exception>
    public async Task<FoundBookings> OfAsync(BookingFilter filter, CancellationToken ct)
    {
        var values = new Dictionary<string, object>
        {
            ["workspace"] = tenant.WorkspaceId!.Value,
            ["now"] = clock.GetCurrentInstant(),
            ["like"] = string.IsNullOrWhiteSpace(filter.Search) ? "" : Hosting.Words.Containing(filter.Search),
        };
        var isSearched = !string.IsNullOrWhiteSpace(filter.Search);
        var ofBooking = OfBooking(filter, values);
        var ofSession = await OfSessionAsync(filter, values, ct);
        var shown = ofBooking + (isSearched ? $" AND ({Words} ILIKE @like OR {{b}}.session_id IN ({ByTitle}))" : "");
        var (key, kind, latest) = KeyOf(filter);
        if (filter.When == WhichBookings.Cancelled)
            return new FoundBookings(
                $"bookings b JOIN sessions s ON s.id = b.session_id JOIN pages p ON p.id = s.page_id WHERE b.workspace_id = @workspace AND b.cancelled_at IS NOT NULL{Of("b", shown)}{ofSession}",
                "b.id",
                "",
                values,
                isSearched || ofBooking.Length + ofSession.Length > 0 || filter.Order != BookingOrder.Usual,
                key,
                kind,
                latest
            );
        // Words are found by their indexes first; what else must hold of a booking is looked at with them.
        var byWords = isSearched ? $" AND s.id IN ({ByWords} UNION ALL {ByTitle})" : "";
        var standing = $"s.cancelled_at IS NULL{When(filter.When)}{ofSession}";
        if (filter.Order is BookingOrder.Newest or BookingOrder.Guest)
            return new FoundBookings(
                isSearched
                    ? FirstOfFound(filter.Order, ofBooking, standing)
                    : FirstOfEach(filter.Order, ofBooking, standing),
                "b.session_id",
                Of("b", shown),
                values,
                isSearched,
                key,
                kind,
                latest
            );

        var ofThese =
            ofBooking.Length == 0
                ? ""
                : $"SELECT b.session_id FROM bookings b WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL{Of("b", shown)}";
        // Of flags the planner does not know how few there are.
        if (ofThese.Length > 0)
            ofThese = filter.Flagged ? $" AND s.id = ANY(ARRAY({ofThese}))" : $" AND s.id IN ({ofThese})";
        var paged = filter.Order == BookingOrder.Page ? " JOIN pages p ON p.id = s.page_id" : "";
        return new FoundBookings(
            $"sessions s{paged} WHERE s.workspace_id = @workspace AND {standing}{byWords}{ofThese}",
            "s.id",
            Of("b", shown),
            values,
            isSearched,
            key,
            kind,
            latest
        );
    }

    /// <summary>
    /// Of each session the booking that its place in the order goes by: along the index of the order, it is the first.
    /// </summary>
    private static string FirstOfEach(BookingOrder order, string ofBooking, string standing)
    {
        var (by, way) = order == BookingOrder.Newest ? ("{b}.booked_at", ">") : ("lower({b}.guest_name)", "<");
        return $"""
            bookings b JOIN sessions s ON s.id = b.session_id
            WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL{Of("b", ofBooking)} AND {standing}
                AND NOT EXISTS (SELECT 1 FROM bookings o WHERE o.session_id = b.session_id AND o.cancelled_at IS NULL{Of(
                "o",
                ofBooking
            )}
                    AND ({Of("o", by)}, o.id) {way} ({Of("b", by)}, b.id))
            """;
    }

    /// <summary>The same among those in which the words stand.</summary>
    private static string FirstOfFound(BookingOrder order, string ofBooking, string standing)
    {
        var by = order == BookingOrder.Newest ? "b.booked_at DESC" : "lower(b.guest_name)";
        return $"""
            (SELECT DISTINCT ON (b.session_id) b.session_id, b.booked_at, b.guest_name
            FROM bookings b JOIN sessions s ON s.id = b.session_id
            WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL{Of("b", ofBooking)} AND {standing}
                AND b.id IN (SELECT w.id FROM bookings w WHERE w.workspace_id = @workspace AND {Of(
                "w",
                Words
            )} ILIKE @like
                    UNION ALL SELECT t.id FROM bookings t WHERE t.session_id IN ({ByTitle}))
            ORDER BY b.session_id, {by}) b WHERE true
            """;
    }

    /// <summary>The condition of the booking that the SQL calls so.</summary>
    private static string Of(string booking, string condition) => condition.Replace("{b}", booking);

    private static string When(WhichBookings when) =>
        when switch
        {
            WhichBookings.Past => " AND lower(s.time) <= @now AND upper(s.time) <= @now",
            // No session is longer: the index by starts leads to those that are not over.
            WhichBookings.ToCome =>
                $" AND lower(s.time) > @now - interval '{PageLimits.MostDurationMinutes} minutes' AND upper(s.time) > @now",
            _ => "",
        };

    private static (string Key, ListKeyKind Kind, bool Latest) KeyOf(BookingFilter filter)
    {
        var isCancelled = filter.When == WhichBookings.Cancelled;
        return filter.Order switch
        {
            BookingOrder.Soonest => ("lower(s.time)", ListKeyKind.Instant, false),
            BookingOrder.Latest => ("lower(s.time)", ListKeyKind.Instant, true),
            BookingOrder.Newest => ("b.booked_at", ListKeyKind.Instant, true),
            BookingOrder.Guest => ("lower(b.guest_name)", ListKeyKind.Text, false),
            BookingOrder.Page => ("lower(p.title)", ListKeyKind.Text, false),
            _ when isCancelled => ("b.cancelled_at", ListKeyKind.Instant, true),
            _ => ("lower(s.time)", ListKeyKind.Instant, filter.When != WhichBookings.ToCome),
        };
    }

    /// <summary>What must hold of the booking {b}.</summary>
    private static string OfBooking(BookingFilter filter, Dictionary<string, object> values)
    {
        var sql = filter.State switch
        {
            BookingState.Asked => " AND {b}.waits_until IS NOT NULL",
            BookingState.Confirmed => " AND {b}.waits_until IS NULL",
            BookingState.Moved =>
                " AND {b}.id IN (SELECT m.booking_id FROM booking_moves m WHERE m.workspace_id = @workspace)",
            BookingState.Happened => " AND {b}.outcome = 'Happened'",
            BookingState.Missed => " AND {b}.outcome = 'Missed'",
            BookingState.NotNoted => " AND {b}.outcome = 'None'",
            _ => "",
        };
        if (filter.Guest is { } guest)
        {
            values["guest"] = guest;
            sql += " AND ({b}.guest_id = @guest OR {b}.booker_id = @guest)";
        }

        if (filter.WithoutKeeper)
            sql +=
                " AND {b}.guest_id IN (SELECT g.id FROM guests g WHERE g.workspace_id = @workspace AND g.keeper_id IS NULL)";
        else if (filter.Keeper is { } keeper)
        {
            values["keeper"] = keeper;
            sql +=
                " AND {b}.guest_id IN (SELECT g.id FROM guests g WHERE g.workspace_id = @workspace AND g.keeper_id = @keeper)";
        }

        if (filter.Flagged)
            sql += " AND cardinality({b}.flags) > 0";
        return sql;
    }

    private async Task<string> OfSessionAsync(
        BookingFilter filter,
        Dictionary<string, object> values,
        CancellationToken ct
    )
    {
        var sql = filter.State == BookingState.NotNoted ? " AND upper(s.time) <= @now" : "";
        if (filter.Page is { } page)
        {
            values["page"] = page;
            sql += " AND s.page_id = @page";
        }

        if (filter.Kind.Length > 0)
        {
            values["kind"] = filter.Kind;
            sql +=
                " AND s.page_id IN (SELECT q.id FROM pages q WHERE q.workspace_id = @workspace AND q.details #>> '{naming,kind}' = @kind)";
        }

        if (filter.Host is { } host)
        {
            values["host"] = host;
            sql += " AND s.id IN (SELECT h.session_id FROM session_hosts h WHERE h.host_id = @host)";
        }

        if (filter.From is null && filter.To is null)
            return sql;
        if (filter.To < filter.From)
            throw Refusal.Invalid("to", "dates-swapped");
        var zone = await ReadersZone.OfAsync(db, actor, ct);
        if (filter.From is { } from)
        {
            values["from"] = from.AtStartOfDayInZone(zone).ToInstant();
            sql += " AND lower(s.time) >= @from";
        }

        if (filter.To is { } to)
        {
            values["until"] = to.PlusDays(1).AtStartOfDayInZone(zone).ToInstant();
            sql += " AND lower(s.time) < @until";
        }

        return sql;
    }
}
