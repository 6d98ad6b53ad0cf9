using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>A guest in the list.</summary>
/// <param name="Email">The one that is written to; empty where there is none.</param>
/// <param name="Keeper">Who keeps them; empty for nobody.</param>
/// <param name="Next">The start of their next appointment; null for none.</param>
/// <param name="Last">The start of their last one; null for none.</param>
/// <param name="Bookings">How many of their bookings stand.</param>
/// <param name="OffersOut">How many of their links are out, of which a time can be taken.</param>
public sealed record GuestRow(
    Guid Id,
    string Name,
    string Email,
    string Organisation,
    string Phone,
    string Keeper,
    string? Zone,
    GuestSource Source,
    Instant MadeAt,
    Instant? Next,
    Instant? Last,
    int Bookings,
    int OffersOut,
    IReadOnlyDictionary<Guid, string> Fields
);

/// <param name="Total">How many there are in all, of which Rows is one run; 10,001 stands for more.</param>
/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record GuestList(Instant Now, int Total, IReadOnlyList<GuestRow> Rows, string? Before, string? After);

/// <summary>Lists of guests, by name or the latest first.</summary>
public sealed class GuestLists(LanternDb db, GuestFinding finding, IClock clock)
{
    /// <exception cref="Refusal">400 for a place that was never told of, or a condition that asks for what is not
    /// there.</exception>
    public async Task<GuestList> ReadAsync(GuestFilter filter, ListPlace place, CancellationToken ct)
    {
        var found = await finding.OfAsync(filter, ct);
        var all = found.IsWhole ? "found g WHERE true" : found.From;
        var block =
            filter.Order == GuestOrder.Newest
                ? new ListBlock(all, "g.made_at", "g.id", Latest: true)
                : new ListBlock(all, "g.name_key", "g.id", Kind: ListKeyKind.Text);
        var once = found.IsWhole ? $"SELECT g.id, g.name_key, g.made_at FROM {found.From}" : null;
        var run = await ListRuns.ReadAsync(db, [block], all, found.Values, place, ct, once);
        var rows = await RowsAsync(run.Ids, ct);
        return new GuestList(clock.GetCurrentInstant(), run.Total, rows, run.Before, run.After);
    }

    /// <summary>The guests of these ids as rows, in this order.</summary>
    public async Task<IReadOnlyList<GuestRow>> RowsAsync(IReadOnlyList<Guid> ids, CancellationToken ct)
    {
        var (now, array, trip) = (clock.GetCurrentInstant(), ids.ToArray(), new RoundTrip(db));
        var asked = trip.Ask(
            $"""
            SELECT g.id, g.name, coalesce(m.email, ''), g.organisation, g.phone, coalesce(k.name, ''), g.zone, g.source, g.made_at,
                b.next, b.last, coalesce(b.bookings, 0)::int, coalesce(o.offers, 0)::int, g.fields::text
            FROM unnest({array}) WITH ORDINALITY AS asked(id, place)
            JOIN guests g ON g.id = asked.id
            LEFT JOIN "AspNetUsers" k ON k.id = g.keeper_id
            LEFT JOIN LATERAL (SELECT e.email FROM guest_emails e WHERE e.guest_id = g.id ORDER BY e.place, e.key LIMIT 1) m ON true
            LEFT JOIN LATERAL (
                SELECT min(lower(s.time)) FILTER (WHERE upper(s.time) > {now}) AS next,
                    max(lower(s.time)) FILTER (WHERE upper(s.time) <= {now}) AS last, count(*) AS bookings
                FROM bookings b JOIN sessions s ON s.id = b.session_id WHERE b.guest_id = g.id AND b.cancelled_at IS NULL) b ON true
            LEFT JOIN LATERAL (
                SELECT count(DISTINCT l.id) AS offers FROM link_guests lg JOIN links l ON l.id = lg.link_id
                WHERE lg.guest_id = g.id AND l.takes_more AND l.ends_at > {now} AND (l.out_at IS NOT NULL OR l.given_at IS NOT NULL)) o ON true
            ORDER BY asked.place
            """,
            row => new GuestRow(
                row.GetGuid(0),
                row.GetString(1),
                row.GetString(2),
                row.GetString(3),
                row.GetString(4),
                row.GetString(5),
                row.IsDBNull(6) ? null : row.GetString(6),
                Enum.Parse<GuestSource>(row.GetString(7)),
                row.GetFieldValue<Instant>(8),
                row.IsDBNull(9) ? null : row.GetFieldValue<Instant>(9),
                row.IsDBNull(10) ? null : row.GetFieldValue<Instant>(10),
                row.GetInt32(11),
                row.GetInt32(12),
                System.Text.Json.JsonSerializer.Deserialize<Dictionary<Guid, string>>(row.GetString(13), Json.Options)!
            )
        );
        if (array.Length > 0)
            await trip.RunAsync(ct);
        return array.Length > 0 ? asked.Rows : [];
    }
}
