namespace LooseLantern.Server.Data.Migrations;

/// <summary>
/// Indexes by expressions, which lists of what grows are ordered and found by (<see cref="ListRuns"/>). Each statement
/// that is to use one has the same expression in it.
/// </summary>
internal static class ListIndexes
{
    public const string Sql = """
        CREATE INDEX ix_sessions_start ON sessions (workspace_id, lower("time"), id) WHERE cancelled_at IS NULL;
        CREATE INDEX ix_bookings_waiting ON bookings (workspace_id, session_id)
            WHERE cancelled_at IS NULL AND (waits_until IS NOT NULL OR wish_start IS NOT NULL OR reply = 'Declined');
        CREATE INDEX ix_bookings_flagged ON bookings (guest_id) WHERE cancelled_at IS NULL AND cardinality(flags) > 0;
        CREATE INDEX ix_written_events_outside ON written_events (workspace_id, session_id) WHERE outside <> 'None';
        CREATE INDEX ix_bookings_ended ON bookings (workspace_id, cancelled_at, id) WHERE cancelled_at IS NOT NULL;
        CREATE INDEX ix_bookings_newest ON bookings (workspace_id, booked_at, session_id) WHERE cancelled_at IS NULL;
        CREATE INDEX ix_bookings_by_guest ON bookings (workspace_id, lower(guest_name), session_id) WHERE cancelled_at IS NULL;
        CREATE INDEX ix_bookings_words ON bookings
            USING gin ((guest_name || E'\n' || guest_email || E'\n' || booker_name || E'\n' || booker_email) gin_trgm_ops);
        -- Among the pages of thousands of links.
        CREATE INDEX ix_pages_of_desks ON pages (workspace_id, desk_id, title, id) WHERE offer IS NULL;
        CREATE INDEX ix_pages_title ON pages USING gin (title gin_trgm_ops);
        CREATE INDEX ix_messages_words ON messages USING gin ((to_name || E'\n' || to_email || E'\n' || subject) gin_trgm_ops);
        -- What was written to a guest.
        CREATE INDEX ix_messages_reader ON messages (workspace_id, lower(to_email)) WHERE person_id IS NULL;
        CREATE INDEX ix_links_words ON links
            USING gin ((notes || E'\n' || started_from || E'\n' || CAST(guests AS text)) gin_trgm_ops);
        """;
}
