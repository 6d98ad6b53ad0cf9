namespace LooseLantern.Server.Data.Migrations;

/// <summary>
/// The triggers that keep rows as they were for what can be taken back, and the function that takes an act back. Where
/// no act is under way a trigger costs a look at a setting.
/// </summary>
internal static class UndoTriggers
{
    private const string Keeping = """
        -- The columns of the primary key are told by the trigger.
        CREATE FUNCTION keep_for_undo() RETURNS trigger LANGUAGE plpgsql AS $$
        DECLARE
            was jsonb := CASE WHEN TG_OP <> 'INSERT' THEN to_jsonb(OLD) END;
            is_now jsonb := CASE WHEN TG_OP <> 'DELETE' THEN to_jsonb(NEW) END;
        BEGIN
            IF was IS DISTINCT FROM is_now THEN
                INSERT INTO undo_rows (workspace_id, act_id, of, key, before, after)
                    SELECT current_setting('lantern.act_workspace')::uuid, current_setting('lantern.act')::uuid, TG_TABLE_NAME,
                        jsonb_object_agg(k, coalesce(was, is_now) -> k), was, is_now
                    FROM unnest(TG_ARGV) k;
            END IF;
            RETURN NULL;
        END $$;
        """;

    private const string TakingBack = """
        -- Null where all of it is taken back; else the table of a row that somebody changed since: nothing must be
        -- committed then. Rows that were added go, but for sessions and bookings, which count as cancelled; rows that
        -- went come back; of those that were changed only the columns that were.
        CREATE FUNCTION take_back(taken uuid, at_time timestamptz) RETURNS text LANGUAGE plpgsql AS $$
        DECLARE
            kept record;
            matches text;
            columns text;
            changed text[];
            done int;
            -- What is noted beside: who looked at it, and when it is looked at next.
            beside text[] := ARRAY['check_due_at', 'opened', 'first_opened_at', 'last_opened_at', 'none_left_at'];
        BEGIN
            FOR kept IN
                SELECT of, key, min(id) AS first_id, max(id) AS last_id,
                    (array_agg(before ORDER BY id))[1] AS before, (array_agg(after ORDER BY id DESC))[1] AS after
                FROM undo_rows WHERE act_id = taken GROUP BY of, key
                -- What was added goes first: it may be in the way of what comes back.
                ORDER BY CASE WHEN (array_agg(before ORDER BY id))[1] IS NULL THEN 0
                    WHEN (array_agg(after ORDER BY id DESC))[1] IS NULL THEN 1 ELSE 2 END,
                    -- The last that was added or went is the first to go or come back: others may point to it.
                    CASE WHEN (array_agg(before ORDER BY id))[1] IS NULL THEN min(id) ELSE max(id) END DESC
            LOOP
                CONTINUE WHEN kept.before IS NOT DISTINCT FROM kept.after;
                SELECT string_agg(format('t.%1$I = k.%1$I', name), ' AND ') INTO matches FROM jsonb_object_keys(kept.key) name;
                IF kept.before IS NULL AND kept.of IN ('sessions', 'bookings') THEN
                    EXECUTE format('UPDATE %1$I t SET cancelled_at = $2, sequence = t.sequence + 1 %3$s
                        FROM jsonb_populate_record(NULL::%1$I, $1) k WHERE %2$s AND t.sequence = k.sequence AND t.cancelled_at IS NULL',
                        kept.of, matches, CASE kept.of WHEN 'bookings' THEN ', cancelled_by = ''Team''' ELSE '' END)
                        USING kept.after, at_time;
                ELSIF kept.before IS NULL THEN
                    EXECUTE format('DELETE FROM %1$I t USING jsonb_populate_record(NULL::%1$I, $1) k WHERE %2$s AND to_jsonb(t) - $2 = $1 - $2',
                        kept.of, matches) USING kept.after, beside;
                    GET DIAGNOSTICS done = ROW_COUNT;
                    IF done = 0 THEN
                        EXECUTE format('SELECT count(*) FROM %1$I t, jsonb_populate_record(NULL::%1$I, $1) k WHERE %2$s', kept.of, matches)
                            INTO done USING kept.after;
                        IF done > 0 THEN RETURN kept.of; END IF;
                    END IF;
                    -- It went with what it belongs to, or by somebody: it is gone.
                    CONTINUE;
                ELSIF kept.after IS NULL THEN
                    SELECT string_agg(quote_ident(name), ', ') INTO columns FROM jsonb_object_keys(kept.before) name;
                    EXECUTE format('INSERT INTO %1$I (%2$s) SELECT %2$s FROM jsonb_populate_record(NULL::%1$I, $1) ON CONFLICT DO NOTHING',
                        kept.of, columns) USING kept.before;
                ELSE
                    SELECT array_agg(name) INTO changed FROM jsonb_object_keys(kept.after) name
                        WHERE kept.before -> name IS DISTINCT FROM kept.after -> name AND name <> ALL (beside);
                    CONTINUE WHEN changed IS NULL;
                    -- What only ever counts up does so here, too: somebody may have been told of it.
                    SELECT string_agg(CASE WHEN name IN ('sequence', 'version') THEN format('%1$I = t.%1$I + 1', name)
                            ELSE format('%1$I = b.%1$I', name) END, ', ') INTO columns FROM unnest(changed) name;
                    EXECUTE format('UPDATE %1$I t SET %3$s FROM jsonb_populate_record(NULL::%1$I, $1) b, jsonb_populate_record(NULL::%1$I, $2) k
                        WHERE %2$s AND (SELECT bool_and(to_jsonb(t) -> name IS NOT DISTINCT FROM $2 -> name) FROM unnest($3) name)',
                        kept.of, matches, columns) USING kept.before, kept.after, changed;
                END IF;
                GET DIAGNOSTICS done = ROW_COUNT;
                IF done = 0 THEN RETURN kept.of; END IF;
            END LOOP;
            RETURN NULL;
        END $$;
        """;

    /// <summary>By table, the columns of its primary key.</summary>
    private static readonly (string Table, string Key)[] Kept =
    [
        ("sessions", "'id'"),
        ("session_hosts", "'session_id', 'host_id'"),
        ("bookings", "'id'"),
        ("booking_moves", "'id'"),
        ("commitments", "'id'"),
        ("pages", "'id'"),
        ("seats", "'id'"),
        ("seat_hosts", "'seat_id', 'host_id'"),
        ("blocks", "'id'"),
        ("page_editions", "'id'"),
        ("former_addresses", "'desk_id', 'address'"),
        ("links", "'id'"),
        ("link_guests", "'link_id', 'place'"),
    ];

    public static readonly string Sql = Keeping + TakingBack + string.Concat(
        Kept.Select(one =>
            $"""
            CREATE TRIGGER kept_for_undo AFTER INSERT OR UPDATE OR DELETE ON {one.Table} FOR EACH ROW
                WHEN (current_setting('lantern.act', true) <> '') EXECUTE FUNCTION keep_for_undo({one.Key});

            """
        )
    );
}
