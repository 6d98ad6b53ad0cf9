namespace LooseLantern.Server.Data.Migrations;

/// <summary>
/// The triggers that write <c>fact_changes</c>, whatever changes a row: a request, work beside it, or somebody at a
/// console. Each note is written once a transaction; notes of two transactions never wait for one another.
/// </summary>
internal static class FactChangeTriggers
{
    public const string Sql = """
        -- Not in plain SQL, which would be planned anew for each row.
        CREATE FUNCTION note_fact(changed uuid, what smallint) RETURNS void LANGUAGE plpgsql AS $$
        BEGIN
            IF changed IS NOT NULL THEN
                INSERT INTO fact_changes (of, kind) VALUES (changed, what) ON CONFLICT DO NOTHING;
            END IF;
        END $$;

        -- Rows that are a thing of their own.
        CREATE FUNCTION note_itself() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            PERFORM note_fact(CASE WHEN TG_OP = 'DELETE' THEN OLD.id ELSE NEW.id END, 0::smallint);
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_change AFTER UPDATE ON workspaces FOR EACH ROW
            WHEN (OLD IS DISTINCT FROM NEW) EXECUTE FUNCTION note_itself();
        CREATE TRIGGER notes_change AFTER UPDATE ON desks FOR EACH ROW
            WHEN (OLD IS DISTINCT FROM NEW) EXECUTE FUNCTION note_itself();
        CREATE TRIGGER notes_change AFTER UPDATE ON hosts FOR EACH ROW
            WHEN (OLD IS DISTINCT FROM NEW) EXECUTE FUNCTION note_itself();
        CREATE TRIGGER notes_change AFTER UPDATE ON hours FOR EACH ROW
            WHEN (OLD IS DISTINCT FROM NEW) EXECUTE FUNCTION note_itself();
        CREATE TRIGGER notes_gone AFTER DELETE ON desks FOR EACH ROW EXECUTE FUNCTION note_itself();

        -- Of a page its desk is noted too: another page is found at an address from now on.
        CREATE FUNCTION note_page() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            IF TG_OP <> 'INSERT' THEN
                PERFORM note_fact(OLD.id, 0::smallint);
                PERFORM note_fact(OLD.desk_id, 0::smallint);
            END IF;
            IF TG_OP <> 'DELETE' THEN
                PERFORM note_fact(NEW.desk_id, 0::smallint);
            END IF;
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_change AFTER INSERT OR DELETE ON pages FOR EACH ROW EXECUTE FUNCTION note_page();
        CREATE TRIGGER notes_update AFTER UPDATE ON pages FOR EACH ROW
            WHEN (OLD IS DISTINCT FROM NEW) EXECUTE FUNCTION note_page();

        -- What belongs to a page.
        CREATE FUNCTION note_of_page() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            IF TG_OP <> 'INSERT' THEN PERFORM note_fact(OLD.page_id, 0::smallint); END IF;
            IF TG_OP <> 'DELETE' THEN PERFORM note_fact(NEW.page_id, 0::smallint); END IF;
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_change AFTER INSERT OR UPDATE OR DELETE ON seats
            FOR EACH ROW EXECUTE FUNCTION note_of_page();
        CREATE TRIGGER notes_change AFTER INSERT OR UPDATE OR DELETE ON blocks
            FOR EACH ROW EXECUTE FUNCTION note_of_page();
        CREATE TRIGGER notes_change AFTER INSERT OR UPDATE OR DELETE ON former_addresses
            FOR EACH ROW EXECUTE FUNCTION note_of_page();

        CREATE FUNCTION note_seat() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            PERFORM note_fact((SELECT page_id FROM seats
                WHERE id = CASE WHEN TG_OP = 'DELETE' THEN OLD.seat_id ELSE NEW.seat_id END), 0::smallint);
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_change AFTER INSERT OR UPDATE OR DELETE ON seat_hosts
            FOR EACH ROW EXECUTE FUNCTION note_seat();

        -- What takes a host's time.
        CREATE FUNCTION note_time() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            IF TG_OP <> 'INSERT' THEN PERFORM note_fact(OLD.host_id, 1::smallint); END IF;
            IF TG_OP <> 'DELETE' THEN PERFORM note_fact(NEW.host_id, 1::smallint); END IF;
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_change AFTER INSERT OR UPDATE OR DELETE ON commitments
            FOR EACH ROW EXECUTE FUNCTION note_time();
        CREATE TRIGGER notes_change AFTER INSERT OR UPDATE OR DELETE ON calendar_hosts
            FOR EACH ROW EXECUTE FUNCTION note_time();

        -- Thousands of entries come at once: noted by statement.
        CREATE FUNCTION note_entries() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            IF TG_OP <> 'INSERT' THEN
                INSERT INTO fact_changes (of, kind) SELECT DISTINCT host_id, 1 FROM old_rows ON CONFLICT DO NOTHING;
            END IF;
            IF TG_OP <> 'DELETE' THEN
                INSERT INTO fact_changes (of, kind) SELECT DISTINCT host_id, 1 FROM new_rows ON CONFLICT DO NOTHING;
            END IF;
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_new AFTER INSERT ON calendar_entries
            REFERENCING NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_entries();
        CREATE TRIGGER notes_change AFTER UPDATE ON calendar_entries
            REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_entries();
        CREATE TRIGGER notes_gone AFTER DELETE ON calendar_entries
            REFERENCING OLD TABLE AS old_rows FOR EACH STATEMENT EXECUTE FUNCTION note_entries();

        -- A calendar is looked at all the time; that is news only after so long that it may have counted as too old.
        CREATE FUNCTION note_calendar() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            INSERT INTO fact_changes (of, kind) SELECT host_id, 1 FROM calendar_hosts WHERE calendar_id = NEW.id
                ON CONFLICT DO NOTHING;
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_change AFTER UPDATE ON calendars FOR EACH ROW
            WHEN ((OLD.name, OLD.is_asked, OLD.tentative_counts, OLD.read_range, OLD.unreachable_since, OLD.refresh_seconds)
                IS DISTINCT FROM
                (NEW.name, NEW.is_asked, NEW.tentative_counts, NEW.read_range, NEW.unreachable_since, NEW.refresh_seconds)
                OR NEW.looked_at >= OLD.looked_at + interval '1 hour' OR NEW.looked_at < OLD.looked_at)
            EXECUTE FUNCTION note_calendar();

        -- Sessions of a page, and how many come to them.
        CREATE FUNCTION note_session() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            PERFORM note_fact(CASE WHEN TG_OP = 'DELETE' THEN OLD.page_id ELSE NEW.page_id END, 1::smallint);
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_change AFTER INSERT OR UPDATE OR DELETE ON sessions
            FOR EACH ROW EXECUTE FUNCTION note_session();
        CREATE FUNCTION note_booking() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            IF TG_OP <> 'INSERT' THEN
                PERFORM note_fact((SELECT page_id FROM sessions WHERE id = OLD.session_id), 1::smallint);
            END IF;
            IF TG_OP <> 'DELETE' THEN
                PERFORM note_fact((SELECT page_id FROM sessions WHERE id = NEW.session_id), 1::smallint);
            END IF;
            RETURN NULL;
        END $$;
        CREATE TRIGGER notes_change AFTER INSERT OR DELETE ON bookings FOR EACH ROW EXECUTE FUNCTION note_booking();
        CREATE TRIGGER notes_update AFTER UPDATE ON bookings FOR EACH ROW
            WHEN ((OLD.session_id, OLD.party, OLD.cancelled_at) IS DISTINCT FROM (NEW.session_id, NEW.party, NEW.cancelled_at))
            EXECUTE FUNCTION note_booking();
        """;
}
