namespace LooseLantern.Server.Data.Migrations;

/// <summary>
/// The triggers by which every booking and every name on a link has its guest, whatever writes it. A guest is known by
/// the email; without one, by the name on the same link, or by the name and who booked for them.
/// </summary>
internal static class GuestTriggers
{
    public const string Sql = """
        -- Whoever is not known is made; of whoever is, what is blank is filled in, and nothing is written over. Rows of
        -- guests are written last in any transaction, after the locks of pages and hosts, and in the order of emails.
        CREATE FUNCTION guest_of(
            of_workspace uuid, called text, mail text, booker text, of_link uuid,
            in_zone text, in_language text, by_clock text, known_from text, seen timestamptz)
        RETURNS uuid LANGUAGE plpgsql AS $$
        DECLARE
            mail_key text := lower(btrim(mail));
            called_key text := lower(btrim(called));
            known uuid;
        BEGIN
            IF mail_key <> '' THEN
                SELECT e.guest_id INTO known FROM guest_emails e
                    WHERE e.workspace_id = of_workspace AND e.key = mail_key;
            ELSIF booker <> '' THEN
                SELECT COALESCE(g.merged_into, g.id) INTO known FROM guests g
                    WHERE g.workspace_id = of_workspace AND g.booker_key = lower(btrim(booker)) AND g.name_key = called_key
                    ORDER BY g.id LIMIT 1;
            END IF;
            IF known IS NULL AND of_link IS NOT NULL THEN
                SELECT g.id INTO known FROM link_guests l JOIN guests g ON g.id = l.guest_id
                    WHERE l.link_id = of_link AND g.name_key = called_key
                        AND (mail_key = '' OR NOT EXISTS (SELECT 1 FROM guest_emails e WHERE e.guest_id = g.id))
                    ORDER BY l.place LIMIT 1;
                IF known IS NOT NULL AND mail_key <> '' THEN
                    INSERT INTO guest_emails (workspace_id, key, guest_id, email, place)
                        VALUES (of_workspace, mail_key, known, btrim(mail), 0) ON CONFLICT DO NOTHING;
                END IF;
            END IF;
            IF known IS NOT NULL THEN
                -- Who is just being merged is waited for, and whoever merges waits for this transaction.
                SELECT COALESCE(g.merged_into, g.id) INTO known FROM guests g WHERE g.id = known FOR KEY SHARE;
            END IF;
            IF known IS NULL THEN
                known := gen_random_uuid();
                INSERT INTO guests (id, workspace_id, name, organisation, phone, zone, language, clock, fields, source,
                        made_at, version, booker_key, not_same)
                    VALUES (known, of_workspace, btrim(called), '', '', NULLIF(in_zone, ''), in_language, by_clock, '{}',
                        known_from, seen, 1, CASE WHEN mail_key = '' THEN lower(btrim(booker)) ELSE '' END, '{}');
                IF mail_key <> '' THEN
                    INSERT INTO guest_emails (workspace_id, key, guest_id, email, place)
                        VALUES (of_workspace, mail_key, known, btrim(mail), 0) ON CONFLICT DO NOTHING;
                    IF NOT FOUND THEN
                        -- Another transaction made them meanwhile; it has ended, or the statement above would wait.
                        DELETE FROM guests WHERE id = known;
                        SELECT e.guest_id INTO known FROM guest_emails e
                            WHERE e.workspace_id = of_workspace AND e.key = mail_key;
                    END IF;
                END IF;
                RETURN known;
            END IF;
            UPDATE guests g SET zone = COALESCE(g.zone, NULLIF(in_zone, '')),
                    language = COALESCE(g.language, in_language), clock = COALESCE(g.clock, by_clock)
                WHERE g.id = known AND ((g.zone IS NULL AND in_zone <> '')
                    OR (g.language IS NULL AND in_language IS NOT NULL) OR (g.clock IS NULL AND by_clock IS NOT NULL));
            RETURN known;
        END $$;

        -- What a browser tells is of who sat before it: of the booker, where somebody booked for somebody else.
        CREATE FUNCTION find_guests() RETURNS trigger LANGUAGE plpgsql AS $$
        DECLARE
            is_for_another boolean := NEW.booker_email <> '';
            of_page uuid := (SELECT page_id FROM sessions WHERE id = NEW.session_id);
        BEGIN
            IF is_for_another AND NEW.booker_id IS NULL THEN
                NEW.booker_id := guest_of(NEW.workspace_id, NEW.booker_name, NEW.booker_email, '', NULL,
                    NEW.guest_zone, NEW.guest_language, NEW.guest_clock, 'Booking', NEW.booked_at);
            END IF;
            IF NEW.guest_id IS NULL THEN
                NEW.guest_id := guest_of(NEW.workspace_id, NEW.guest_name, NEW.guest_email, NEW.booker_email, of_page,
                    CASE WHEN is_for_another THEN '' ELSE NEW.guest_zone END,
                    CASE WHEN is_for_another THEN NULL ELSE NEW.guest_language END,
                    CASE WHEN is_for_another THEN NULL ELSE NEW.guest_clock END, 'Booking', NEW.booked_at);
            END IF;
            RETURN NEW;
        END $$;
        CREATE TRIGGER finds_guests BEFORE INSERT ON bookings FOR EACH ROW
            WHEN (NOT NEW.is_among_ourselves) EXECUTE FUNCTION find_guests();

        -- A name that was only on this link, and that nothing else hangs on, goes when it is taken off.
        CREATE FUNCTION find_link_guests() RETURNS trigger LANGUAGE plpgsql AS $$
        DECLARE
            one record;
            former uuid[] := ARRAY(SELECT guest_id FROM link_guests WHERE link_id = NEW.id);
            known uuid;
            now_there uuid[] := '{}';
            places int[] := '{}';
        BEGIN
            FOR one IN SELECT guest->>'name' AS name, guest->>'email' AS email, place
                FROM jsonb_array_elements(NEW.guests) WITH ORDINALITY AS given(guest, place)
                ORDER BY lower(guest->>'email'), place
            LOOP
                known := guest_of(NEW.workspace_id, one.name, one.email, '', NEW.id, NEW.guest_zone, NEW.guest_language,
                    NULL, 'Link', NEW.made_at);
                now_there := now_there || known;
                places := places || (one.place - 1)::int;
            END LOOP;
            DELETE FROM link_guests WHERE link_id = NEW.id;
            INSERT INTO link_guests (workspace_id, link_id, place, guest_id)
                SELECT NEW.workspace_id, NEW.id, p, g FROM unnest(places, now_there) AS there(p, g);
            DELETE FROM guests g WHERE g.id = ANY(former) AND g.id <> ALL(now_there) AND g.source = 'Link' AND g.version = 1
                AND NOT EXISTS (SELECT 1 FROM link_guests l WHERE l.guest_id = g.id)
                AND NOT EXISTS (SELECT 1 FROM bookings b WHERE b.guest_id = g.id OR b.booker_id = g.id)
                AND NOT EXISTS (SELECT 1 FROM guest_notes n WHERE n.guest_id = g.id)
                AND NOT EXISTS (SELECT 1 FROM guest_merges m WHERE m.undone_at IS NULL AND g.id IN (m.kept_id, m.gone_id));
            RETURN NULL;
        END $$;
        CREATE TRIGGER finds_guests AFTER INSERT ON links FOR EACH ROW EXECUTE FUNCTION find_link_guests();
        CREATE TRIGGER finds_new_guests AFTER UPDATE ON links FOR EACH ROW
            -- Who is just being erased is not to be known anew.
            WHEN (OLD.guests IS DISTINCT FROM NEW.guests AND current_setting('lantern.erasing', true) IS DISTINCT FROM 'on')
            EXECUTE FUNCTION find_link_guests();

        CREATE INDEX ix_guests_words ON guests
            USING gin ((name || E'\n' || organisation || E'\n' || phone) gin_trgm_ops);
        CREATE INDEX ix_guest_emails_words ON guest_emails USING gin (key gin_trgm_ops);
        """;
}
