using LooseLantern.Server.Data;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <summary>Where guests stand in rows, so that all of it can be erased.</summary>
/// <param name="Guests">They themselves, and all who turned out to be one of them.</param>
/// <param name="Keys">The keys of their emails.</param>
/// <param name="Names">All they are called anywhere.</param>
/// <param name="Bookings">Of theirs, and what they booked for others.</param>
/// <param name="Brought">Bookings of others, who bring them along.</param>
/// <param name="Sessions">Of all these bookings.</param>
/// <param name="OwnLinks">Links for nobody else.</param>
/// <param name="SharedLinks">Links for others, too.</param>
public sealed record GuestTraces(
    Guid[] Guests,
    string[] Keys,
    string[] Names,
    Guid[] Bookings,
    Guid[] Brought,
    Guid[] Sessions,
    Guid[] OwnLinks,
    Guid[] SharedLinks
)
{
    /// <summary>Reads where they stand now.</summary>
    /// <param name="ids">Guests of the workspace; who is not there leaves no trace.</param>
    public static async Task<GuestTraces> ReadAsync(
        LanternDb db,
        Guid workspace,
        IReadOnlyCollection<Guid> ids,
        CancellationToken ct
    )
    {
        var values = new Dictionary<string, object> { ["workspace"] = workspace, ["ids"] = ids.ToArray() };
        var trip = new RoundTrip(db);
        var guests = trip.Ask($"{Theirs} SELECT id FROM theirs ORDER BY id", values, row => row.GetGuid(0));
        var keys = trip.Ask(
            $"{Theirs} SELECT e.key FROM guest_emails e WHERE e.guest_id IN (SELECT id FROM theirs) ORDER BY e.key",
            values,
            row => row.GetString(0)
        );
        var bookings = trip.Ask(
            $"""
            {Theirs} SELECT b.id, b.session_id FROM bookings b
            WHERE b.guest_id IN (SELECT id FROM theirs) OR b.booker_id IN (SELECT id FROM theirs) ORDER BY b.id
            """,
            values,
            row => (Id: row.GetGuid(0), Session: row.GetGuid(1))
        );
        var brought = trip.Ask(
            $"""
            {Theirs} SELECT DISTINCT b.id, b.session_id FROM bookings b, jsonb_array_elements(b.companions) AS one
            WHERE b.workspace_id = @workspace AND b.companions <> '[]'
                AND lower(btrim(one->>'email')) IN (SELECT e.key FROM guest_emails e WHERE e.guest_id IN (SELECT id FROM theirs))
            ORDER BY b.id
            """,
            values,
            row => (Id: row.GetGuid(0), Session: row.GetGuid(1))
        );
        var links = trip.Ask(
            $"""
            {Theirs} SELECT l.link_id, bool_and(l.guest_id IN (SELECT id FROM theirs)) FROM link_guests l
            WHERE l.link_id IN (SELECT t.link_id FROM link_guests t WHERE t.guest_id IN (SELECT id FROM theirs))
            GROUP BY l.link_id ORDER BY l.link_id
            """,
            values,
            row => (Id: row.GetGuid(0), IsOwn: row.GetBoolean(1))
        );
        var names = trip.Ask(
            $"""
            {Theirs} SELECT DISTINCT btrim(name) FROM (
                SELECT g.name FROM guests g WHERE g.id IN (SELECT id FROM theirs)
                UNION ALL SELECT b.guest_name FROM bookings b WHERE b.guest_id IN (SELECT id FROM theirs)
                UNION ALL SELECT b.booker_name FROM bookings b WHERE b.booker_id IN (SELECT id FROM theirs)
                UNION ALL SELECT k.guests->l.place->>'name' FROM link_guests l JOIN links k ON k.id = l.link_id WHERE l.guest_id IN (SELECT id FROM theirs)
                UNION ALL SELECT one->>'name' FROM bookings b, jsonb_array_elements(b.companions) AS one
                    WHERE b.workspace_id = @workspace AND b.companions <> '[]'
                        AND lower(btrim(one->>'email')) IN (SELECT e.key FROM guest_emails e WHERE e.guest_id IN (SELECT id FROM theirs))
            ) AS called (name) WHERE length(btrim(name)) > 1
            """,
            values,
            row => row.GetString(0)
        );
        await trip.RunAsync(ct);
        return new GuestTraces(
            [.. guests.Rows],
            [.. keys.Rows],
            [.. names.Rows],
            [.. bookings.Rows.Select(row => row.Id)],
            [.. brought.Rows.Select(row => row.Id)],
            [.. bookings.Rows.Concat(brought.Rows).Select(row => row.Session).Distinct()],
            [.. links.Rows.Where(row => row.IsOwn).Select(row => row.Id)],
            [.. links.Rows.Where(row => !row.IsOwn).Select(row => row.Id)]
        );
    }

    public Guid[] Links => [.. OwnLinks, .. SharedLinks];

    /// <summary>
    /// Locks all of it once the pages of its links are locked, guests last as everywhere: whoever books for one of them
    /// just now waits, or is waited for.
    /// </summary>
    public void Lock(RoundTrip trip)
    {
        var links = Links;
        trip.Do($"SELECT 1 FROM links WHERE id = ANY({links}) ORDER BY id FOR NO KEY UPDATE");
        Guid[] bookings = [.. Bookings, .. Brought];
        trip.Do($"SELECT 1 FROM bookings WHERE id = ANY({bookings}) ORDER BY id FOR NO KEY UPDATE");
        trip.Do($"SELECT 1 FROM guests WHERE id = ANY({Guests}) ORDER BY id FOR UPDATE");
    }

    /// <summary>Whether nothing of it changed between two readings.</summary>
    public bool IsAs(GuestTraces other) =>
        Guests.SequenceEqual(other.Guests)
        && Keys.SequenceEqual(other.Keys)
        && Bookings.SequenceEqual(other.Bookings)
        && Brought.SequenceEqual(other.Brought)
        && OwnLinks.SequenceEqual(other.OwnLinks)
        && SharedLinks.SequenceEqual(other.SharedLinks);

    private const string Theirs = """
        WITH RECURSIVE theirs (id) AS (
            SELECT g.id FROM guests g WHERE g.workspace_id = @workspace AND g.id = ANY(@ids)
            UNION SELECT g.id FROM guests g JOIN theirs t ON g.merged_into = t.id)
        """;
}
