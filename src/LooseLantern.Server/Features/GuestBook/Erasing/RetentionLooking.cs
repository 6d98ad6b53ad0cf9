using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <param name="Last">The end of their last booking; of who never booked, when they were last written to or of.</param>
/// <param name="Due">From when on they are erased.</param>
public sealed record RetainedGuest(Guid Id, string Name, Instant Last, Instant Due);

/// <summary>
/// Tells whose time is over by a workspace's rules. A guest is kept until the time of every kind they booked is over,
/// and for ever where one of these kinds has none; and as long as a booking is to come or a link can still be used.
/// </summary>
public sealed class RetentionLooking(LanternDb db, Tenant tenant)
{
    /// <summary>Guests by when they are due, the first first, up to so many; and how many there are in all.</summary>
    /// <param name="until">Those who are due by then.</param>
    /// <param name="of">One guest alone; null for all.</param>
    public async Task<(IReadOnlyList<RetainedGuest> First, int All)> DueAsync(
        GuestRetention rules,
        Instant now,
        Instant until,
        int most,
        Guid? of,
        CancellationToken ct
    )
    {
        if (rules.IsEver)
            return ([], 0);
        var trip = new RoundTrip(db);
        var found = trip.Ask(
            Sql,
            new Dictionary<string, object>
            {
                ["workspace"] = tenant.WorkspaceId!.Value,
                ["kinds"] = rules.Kinds.Select(kind => kind.Kind).ToArray(),
                ["months"] = rules.Kinds.Select(kind => kind.Months).ToArray(),
                ["without"] = rules.WithoutBooking ?? -1,
                ["now"] = now,
                ["until"] = until,
                ["most"] = most,
                ["all"] = of is null,
                ["of"] = of ?? Guid.Empty,
            },
            row =>
                (
                    new RetainedGuest(
                        row.GetGuid(0),
                        row.GetString(1),
                        row.GetFieldValue<Instant>(2),
                        row.GetFieldValue<Instant>(3)
                    ),
                    All: row.GetInt32(4)
                )
        );
        await trip.RunAsync(ct);
        return ([.. found.Rows.Select(row => row.Item1)], found.Rows.Count == 0 ? 0 : found.Rows[0].All);
    }

    // Guests of each booking first, so that bookings are gone through once, however many guests there are.
    private const string Sql = """
        WITH kinds AS (SELECT * FROM unnest(@kinds, @months) AS k (kind, months)),
        theirs AS (
            SELECT b.guest_id AS guest, b.session_id, b.cancelled_at FROM bookings b
                WHERE b.workspace_id = @workspace AND b.guest_id IS NOT NULL AND (@all OR b.guest_id = @of)
            UNION ALL SELECT b.booker_id, b.session_id, b.cancelled_at FROM bookings b
                WHERE b.workspace_id = @workspace AND b.booker_id IS NOT NULL AND (@all OR b.booker_id = @of)),
        booked AS (
            SELECT t.guest, max(upper(s.time)) AS last, bool_and(k.months IS NOT NULL) AS ends,
                max(upper(s.time) + make_interval(months => k.months)) AS due, bool_or(t.cancelled_at IS NULL AND upper(s.time) > @now) AS to_come
            FROM theirs t JOIN sessions s ON s.id = t.session_id JOIN pages p ON p.id = s.page_id
                LEFT JOIN kinds k ON lower(k.kind) = lower(coalesce(p.details->'naming'->>'kind', ''))
            GROUP BY t.guest),
        dated AS (
            SELECT g.id, g.name, coalesce(b.last, n.last) AS last,
                CASE WHEN b.guest IS NULL THEN CASE WHEN @without >= 0 THEN n.last + make_interval(months => @without) END
                    WHEN b.ends THEN b.due END AS due
            FROM guests g LEFT JOIN booked b ON b.guest = g.id
                LEFT JOIN LATERAL (
                    SELECT greatest(g.made_at, (SELECT max(l.made_at) FROM link_guests o JOIN links l ON l.id = o.link_id WHERE o.guest_id = g.id),
                        (SELECT max(c.at) FROM guest_notes c WHERE c.guest_id = g.id)) AS last) n ON b.guest IS NULL
            WHERE g.workspace_id = @workspace AND g.merged_into IS NULL AND NOT coalesce(b.to_come, false) AND (@all OR g.id = @of))
        SELECT d.id, d.name, d.last, d.due, (count(*) OVER ())::int FROM dated d
        WHERE d.due <= @until
            AND NOT EXISTS (SELECT 1 FROM link_guests o JOIN links l ON l.id = o.link_id WHERE o.guest_id = d.id AND l.takes_more AND l.ends_at > @now)
        ORDER BY d.due, d.id LIMIT @most
        """;
}
