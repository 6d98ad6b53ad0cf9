using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Letters;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>Mailings as their screens have them: told by how each guest stands now.</summary>
public sealed class MailingViews(
    LanternDb db,
    Tenant tenant,
    PageEditing pages,
    PageReading reading,
    LetterOffering offering,
    IClock clock
)
{
    private const int MostLeft = 20;

    // Whoever has a link stands as that does; whoever has an address of a page has booked it since, or has not.
    private const string Guests = """
        SELECT m.id AS mailing_id, lg.guest_id, l.guests->0->>'name' AS name, l.guests->0->>'email' AS email, l.id AS link_id,
            first.id AS message_id, l.first_opened_at AS opened_at, booked.id AS booking_id, booked.start, l.asked_again,
            CASE WHEN booked.id IS NOT NULL THEN 'Booked'
                WHEN (CASE WHEN l.ends_at <= @now THEN l.state_then ELSE l.state END) NOT IN ('Out', 'Opened') THEN 'Over'
                WHEN first.state = 'Failed' THEN 'Failed'
                WHEN l.suits <> '[]' OR EXISTS (SELECT 1 FROM wishes w WHERE w.link_id = l.id)
                    OR EXISTS (SELECT 1 FROM sessions s WHERE s.page_id = l.id)
                    OR EXISTS (SELECT 1 FROM messages sent JOIN incoming_mail i ON i.message_id = sent.id WHERE sent.link_id = l.id)
                    THEN 'Answered'
                WHEN l.first_opened_at IS NOT NULL THEN 'Opened' ELSE 'Unopened' END AS standing
        FROM mailings m
            JOIN links l ON l.mailing_id = m.id
            LEFT JOIN link_guests lg ON lg.link_id = l.id AND lg.place = 0
            LEFT JOIN messages first ON first.mailing_id = m.id AND first.link_id = l.id
            LEFT JOIN LATERAL (
                SELECT b.id, lower(s.time) AS start FROM sessions s JOIN bookings b ON b.session_id = s.id
                WHERE s.page_id = l.id AND b.cancelled_at IS NULL ORDER BY lower(s.time), b.id LIMIT 1) booked ON true
        WHERE m.id = ANY(@mailings)
        UNION ALL
        SELECT m.id, e.guest_id, first.to_name, first.to_email, NULL, first.id, NULL, booked.id, booked.start, again.times::int,
            CASE WHEN booked.id IS NOT NULL THEN 'Booked'
                WHEN p.state <> 'Published' THEN 'Over'
                WHEN first.state = 'Failed' THEN 'Failed'
                WHEN EXISTS (SELECT 1 FROM bookings b JOIN sessions s ON s.id = b.session_id
                        WHERE s.page_id = m.page_id AND e.guest_id IN (b.guest_id, b.booker_id) AND b.booked_at >= m.sent_at)
                    OR EXISTS (SELECT 1 FROM incoming_mail i JOIN messages sent ON sent.id = i.message_id
                        WHERE sent.id = first.id OR (sent.again_of = first.id))
                    THEN 'Answered'
                ELSE 'Unopened' END
        FROM mailings m
            JOIN pages p ON p.id = m.page_id
            JOIN messages first ON first.mailing_id = m.id AND first.again_of IS NULL
            LEFT JOIN guest_emails e ON e.workspace_id = m.workspace_id AND e.key = lower(btrim(first.to_email))
            LEFT JOIN LATERAL (SELECT count(*) AS times FROM messages sent WHERE sent.again_of = first.id) again ON true
            LEFT JOIN LATERAL (
                SELECT b.id, lower(s.time) AS start FROM bookings b JOIN sessions s ON s.id = b.session_id
                WHERE s.page_id = m.page_id AND e.guest_id IN (b.guest_id, b.booker_id) AND b.cancelled_at IS NULL
                    AND b.booked_at >= m.sent_at
                ORDER BY lower(s.time), b.id LIMIT 1) booked ON true
        WHERE m.id = ANY(@mailings)
        """;

    /// <summary>The latest first.</summary>
    /// <exception cref="Refusal">400 for a place that was never told of.</exception>
    public async Task<MailingList> ListAsync(ListPlace place, CancellationToken ct)
    {
        const string All = "mailings m WHERE m.workspace_id = @workspace";
        var run = await ListRuns.ReadAsync(
            db,
            [new ListBlock(All, "m.sent_at", "m.id", Latest: true)],
            All,
            new Dictionary<string, object> { ["workspace"] = tenant.WorkspaceId!.Value },
            place,
            ct
        );
        var rows = await RowsAsync(run.Ids, ct);
        return new MailingList(clock.GetCurrentInstant(), run.Total, rows, run.Before, run.After);
    }

    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task<MailingDetail> OfAsync(Guid id, CancellationToken ct)
    {
        var row = (await RowsAsync([id], ct)).FirstOrDefault() ?? throw Refusal.NotFound("mailing");
        var guests = await GuestsAsync(id, ct);
        return new MailingDetail(clock.GetCurrentInstant(), row, guests);
    }

    /// <summary>Each guest of a mailing as they stand now, by name.</summary>
    public async Task<IReadOnlyList<MailingGuestRow>> GuestsAsync(Guid id, CancellationToken ct)
    {
        var trip = new RoundTrip(db);
        var asked = trip.Ask(
            $"""
            SELECT guest_id, name, email, link_id, message_id, standing, opened_at, booking_id, start, asked_again
            FROM ({Guests}) g ORDER BY lower(name), email, link_id, message_id
            """,
            ValuesOf([id]),
            row => new MailingGuestRow(
                row.IsDBNull(0) ? null : row.GetGuid(0),
                row.GetString(1),
                row.GetString(2),
                row.IsDBNull(3) ? null : row.GetGuid(3),
                row.IsDBNull(4) ? null : row.GetGuid(4),
                Enum.Parse<MailingStanding>(row.GetString(5)),
                row.IsDBNull(6) ? null : row.GetFieldValue<Instant>(6),
                row.IsDBNull(7) ? null : row.GetGuid(7),
                row.IsDBNull(8) ? null : row.GetFieldValue<Instant>(8),
                row.GetInt32(9)
            )
        );
        await trip.RunAsync(ct);
        return asked.Rows;
    }

    private async Task<IReadOnlyList<MailingRow>> RowsAsync(IReadOnlyList<Guid> ids, CancellationToken ct)
    {
        if (ids.Count == 0)
            return [];
        var mailings = await db
            .Mailings.AsNoTracking()
            .Where(row => ids.Contains(row.Id))
            .Select(row => new
            {
                Mailing = row,
                By = db.Users.Where(person => person.Id == row.MadeBy).Select(person => person.Name).FirstOrDefault(),
            })
            .ToDictionaryAsync(row => row.Mailing.Id, ct);
        var trip = new RoundTrip(db);
        var counted = trip.Ask(
            $"""
            SELECT mailing_id, count(*) FILTER (WHERE standing = 'Booked')::int, count(*) FILTER (WHERE standing = 'Answered')::int,
                count(*) FILTER (WHERE standing IN ('Opened', 'Unopened'))::int, count(*) FILTER (WHERE standing = 'Failed')::int,
                count(*) FILTER (WHERE standing = 'Over')::int,
                (array_agg(link_id) FILTER (WHERE standing IN ('Opened', 'Unopened')))[1]
            FROM ({Guests}) g GROUP BY mailing_id
            """,
            ValuesOf(ids),
            row =>
                (
                    Id: row.GetGuid(0),
                    Counts: Enumerable.Range(1, 5).Select(row.GetInt32).ToArray(),
                    Link: row.IsDBNull(6) ? (Guid?)null : row.GetGuid(6)
                )
        );
        await trip.RunAsync(ct);
        var by = counted.Rows.ToDictionary(row => row.Id);
        var rows = new List<MailingRow>();
        foreach (var id in ids)
        {
            if (!mailings.TryGetValue(id, out var one))
                continue;
            // Nobody is left to count where all of its guests are erased.
            var (counts, link) = by.TryGetValue(id, out var found) ? (found.Counts, found.Link) : (new int[5], null);
            var page = await PageAsync(one.Mailing, link, ct);
            rows.Add(
                new MailingRow(
                    id,
                    one.Mailing.Title,
                    one.Mailing.StartedFrom,
                    one.By ?? "",
                    one.Mailing.SentAt,
                    one.Mailing.AskedAgainAt,
                    one.Mailing.Sent,
                    counts[0],
                    counts[1],
                    counts[2],
                    counts[3],
                    counts[4],
                    page is not null && counts[2] > 0 ? (await offering.SupplyAsync(page, MostLeft, ct))?.Room : null,
                    page?.Zone ?? "UTC"
                )
            );
        }

        return rows;
    }

    /// <summary>What is still offered by it, whole; null where nobody is silent.</summary>
    /// <param name="link">Of one of the silent; null where nobody is, or where a page is offered.</param>
    private async Task<Page?> PageAsync(Mailing mailing, Guid? link, CancellationToken ct) =>
        mailing.PageId is { } id ? (await reading.OfAsync(id, ct))?.Page
        : link is null ? null
        : await pages.Whole().AsNoTracking().FirstOrDefaultAsync(row => row.Id == link, ct);

    private Dictionary<string, object> ValuesOf(IReadOnlyList<Guid> ids) =>
        new() { ["mailings"] = ids.ToArray(), ["now"] = clock.GetCurrentInstant() };
}
