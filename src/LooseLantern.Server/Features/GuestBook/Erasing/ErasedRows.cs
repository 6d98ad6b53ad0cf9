using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Post;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <summary>
/// Takes guests out of every row that has them. Bookings, links and the record stay, and say what was, of nobody.
/// </summary>
public sealed class ErasedRows(LanternDb db, PrivateLinks secrets, ReplyAddresses replies)
{
    /// <summary>Within the caller's transaction, with all of it locked.</summary>
    public async Task EraseAsync(Guid workspace, GuestTraces traces, Instant now, CancellationToken ct)
    {
        var values = new Dictionary<string, object>
        {
            ["workspace"] = workspace,
            ["guests"] = traces.Guests,
            ["keys"] = traces.Keys,
            ["bookings"] = traces.Bookings,
            ["brought"] = traces.Brought,
            ["sessions"] = traces.Sessions,
            ["own"] = traces.OwnLinks,
            ["shared"] = traces.SharedLinks,
            ["emails"] = ErasedWords.OfEmails(traces.Keys),
            ["names"] = ErasedWords.OfNames(traces.Names),
            ["parts"] = ErasedWords.OfNamesAndParts(traces.Names),
            ["erased"] = ErasedWords.Guest,
            ["now"] = now,
        };
        var trip = new RoundTrip(db);
        trip.Do($"SELECT set_config('lantern.erasing', 'on', true)");
        foreach (var statement in Mail.Concat(Links).Concat(Words).Concat(Bookings))
            trip.Do(statement, values);
        NewSecrets(trip, traces.Bookings);
        foreach (var statement in Events.Concat(Guests))
            trip.Do(statement, values);
        await trip.RunAsync(ct);
    }

    private static readonly string[] Mail =
    [
        // What other guests of a session were written stays; names in it go below.
        """
            DELETE FROM messages WHERE workspace_id = @workspace
                AND (booking_id = ANY(@bookings) OR (person_id IS NULL AND lower(btrim(to_email)) = ANY(@keys)))
            """,
        $"""
            DELETE FROM messages WHERE workspace_id = @workspace AND booking_id IS NULL AND kind IN ('WishForMaker', 'SuitsForMaker')
                AND {ErasedWords.IsIn("text")}
            """,
        // It leads to the guest's page, by their id.
        """
            DELETE FROM messages m WHERE m.workspace_id = @workspace AND m.kind = 'RepliedForSender'
                AND EXISTS (SELECT 1 FROM unnest(@guests) AS of_guest (id) WHERE strpos(m.text, of_guest.id::text) > 0)
            """,
        $"""
            UPDATE messages m SET subject = {ErasedWords.Without("subject")}, text = {ErasedWords.Without("text")},
                html = {ErasedWords.Without("html")}, calendar = {ErasedWords.Without("calendar")}
            WHERE m.workspace_id = @workspace
                AND (m.booking_id IS NULL OR m.booking_id IN (SELECT b.id FROM bookings b WHERE b.session_id = ANY(@sessions)))
                AND ({ErasedWords.IsIn("subject")} OR {ErasedWords.IsIn("text")} OR {ErasedWords.IsIn(
                "coalesce(calendar, '')"
            )})
            """,
        """
            DELETE FROM incoming_mail WHERE workspace_id = @workspace
                AND (booking_id = ANY(@bookings) OR lower(btrim(from_email)) = ANY(@keys))
            """,
        "DELETE FROM email_codes WHERE workspace_id = @workspace AND email = ANY(@keys)",
        "DELETE FROM personal_addresses WHERE workspace_id = @workspace AND lower(btrim(email)) = ANY(@keys)",
    ];

    // Others' links of a mailing that went to them, too, which are called alike.
    private const string OfTheirMailings =
        "mailing_id IN (SELECT one.mailing_id FROM links one WHERE one.id = ANY(@own))";

    private static readonly string[] Links =
    [
        // Of a link for several, each keeps their place.
        """
            UPDATE links l SET guests = (
                    SELECT jsonb_agg(CASE WHEN t.place IS NULL THEN one.guest ELSE jsonb_build_object('name', @erased::text, 'email', '') END ORDER BY one.place)
                    FROM jsonb_array_elements(l.guests) WITH ORDINALITY AS one (guest, place)
                        LEFT JOIN link_guests t ON t.link_id = l.id AND t.place = one.place - 1 AND t.guest_id = ANY(@guests)),
                suits = coalesce((
                    SELECT jsonb_agg(suit) FROM jsonb_array_elements(l.suits) AS suit
                    WHERE NOT (lower(btrim(suit->>'email')) = ANY(@keys) OR (suit->>'email' = '' AND suit->>'name' ~ @names))), '[]')
            WHERE l.id = ANY(@own || @shared)
            """,
        "DELETE FROM wishes w WHERE w.link_id = ANY(@own) OR (w.link_id = ANY(@shared) AND w.by ~ @names)",
        $"""
            UPDATE links SET notes = {ErasedWords.Without("notes")}, started_from = {ErasedWords.Without(
                "started_from"
            )},
                topic = CASE WHEN topic ~* @names THEN 'erased' ELSE topic END
            WHERE id = ANY(@shared) OR ({OfTheirMailings} AND ({ErasedWords.IsIn("started_from")} OR topic ~* @names))
            """,
        $"""
            UPDATE links SET notes = '', topic = 'erased', started_from = {ErasedWords.Without(
                "started_from",
                "@parts"
            )} WHERE id = ANY(@own)
            """,
        $$"""
            UPDATE pages SET title = {{ErasedWords.Without(
                "title",
                "@parts"
            )}}, description = '', place = {{ErasedWords.Without("place", "@parts")}},
                post = jsonb_set(post, '{hostWords}', '""'), details = {{ErasedWords.Without(
                "details::text",
                "@parts"
            )}}::jsonb,
                questions = {{ErasedWords.Without("questions::text", "@parts")}}::jsonb, version = version + 1
            WHERE id = ANY(@own)
            """,
        $"""
            UPDATE pages SET title = {ErasedWords.Without("title")}, description = {ErasedWords.Without("description")},
                place = {ErasedWords.Without("place")}, post = {ErasedWords.Without(
                "post::text"
            )}::jsonb, version = version + 1
            WHERE (id = ANY(@shared) OR id IN (SELECT id FROM links WHERE {OfTheirMailings}))
                AND ({ErasedWords.IsIn("title")} OR {ErasedWords.IsIn("description")} OR {ErasedWords.IsIn(
                "place"
            )} OR {ErasedWords.IsIn("post::text")})
            """,
        "DELETE FROM link_guests WHERE guest_id = ANY(@guests)",
    ];

    private static readonly string[] Words =
    [
        // Whatever could be taken back has rows as they were.
        "DELETE FROM undo_acts WHERE workspace_id = @workspace",
        $"UPDATE record SET what = {ErasedWords.Without("what")} WHERE workspace_id = @workspace AND {ErasedWords.IsIn("what")}",
        $"UPDATE record SET what = {ErasedWords.Without("what", "@parts")} WHERE workspace_id = @workspace AND subject_id = ANY(@own)",
        $"""
            UPDATE saved_views SET name = {ErasedWords.Without("name")}, filter = {ErasedWords.Without(
                "filter::text"
            )}::jsonb
            WHERE workspace_id = @workspace AND ({ErasedWords.IsIn("name")} OR {ErasedWords.IsIn("filter::text")})
            """,
        $"""
            UPDATE mailings SET title = {ErasedWords.Without("title")}, started_from = {ErasedWords.Without(
                "started_from"
            )}
            WHERE workspace_id = @workspace AND ({ErasedWords.IsIn("title")} OR {ErasedWords.IsIn("started_from")})
            """,
        $"""
            UPDATE guest_imports SET file_name = {ErasedWords.Without("file_name")}
            WHERE workspace_id = @workspace AND {ErasedWords.IsIn("file_name")}
            """,
        // What is in a file that was only looked at can't be told; it is uploaded again where it is wanted.
        "DELETE FROM guest_imports WHERE workspace_id = @workspace AND state = 'Draft'",
        $"""
            UPDATE guest_notes SET text = {ErasedWords.Without("text")}
            WHERE workspace_id = @workspace AND guest_id <> ALL(@guests) AND text ~* @emails
            """,
        $"""
            UPDATE written_events SET hold_title = {ErasedWords.Without(
                "hold_title",
                "@parts"
            )}, wish = wish + 1, due_at = @now, attempts = 0
            WHERE workspace_id = @workspace AND hold_title <> '' AND {ErasedWords.IsIn("hold_title")}
            """,
    ];

    // Whom they booked for stays, with what was said of them.
    private static readonly string[] Bookings =
    [
        $"""
            UPDATE bookings SET answers = {ErasedWords.Without(
                "answers::text"
            )}::jsonb, cancel_word = {ErasedWords.Without("cancel_word")}
            WHERE id = ANY(@bookings) AND booker_id = ANY(@guests)
            """,
        """
            UPDATE bookings SET booker_name = @erased, booker_email = '', booker_id = NULL, mail_to = 'Guest'
            WHERE id = ANY(@bookings) AND booker_id = ANY(@guests)
            """,
        """
            UPDATE bookings SET guest_name = @erased, guest_email = '', guest_id = NULL, answers = '[]', flags = '{}', companions = '[]', cancel_word = ''
            WHERE id = ANY(@bookings) AND guest_id = ANY(@guests)
            """,
        """
            UPDATE bookings b SET companions = (
                SELECT jsonb_agg(CASE WHEN lower(btrim(one.companion->>'email')) = ANY(@keys)
                    THEN jsonb_build_object('name', @erased::text, 'email', '') ELSE one.companion END ORDER BY one.place)
                FROM jsonb_array_elements(b.companions) WITH ORDINALITY AS one (companion, place))
            WHERE b.id = ANY(@brought) AND b.companions <> '[]'
            """,
        "DELETE FROM booking_notes WHERE booking_id = ANY(@bookings)",
        $"""
            UPDATE booking_notes SET text = {ErasedWords.Without("text")}
            WHERE workspace_id = @workspace AND text ~* @emails
            """,
        "DELETE FROM booking_keys WHERE booking_id = ANY(@bookings)",
    ];

    private static readonly string[] Events =
    [
        // Also what is past, and whatever became of it there.
        """
            UPDATE written_events SET wish = wish + 1, due_at = @now, attempts = 0
            WHERE session_id = ANY(@sessions) AND is_wanted AND NOT is_left_off
            """,
    ];

    private static readonly string[] Guests =
    [
        "UPDATE guests SET booker_key = '' WHERE workspace_id = @workspace AND booker_key = ANY(@keys) AND id <> ALL(@guests)",
        """
            UPDATE guests g SET not_same = ARRAY(SELECT other FROM unnest(g.not_same) AS other WHERE other <> ALL(@guests))
            WHERE g.workspace_id = @workspace AND g.not_same && @guests
            """,
        "DELETE FROM guest_merges WHERE kept_id = ANY(@guests) OR gone_id = ANY(@guests)",
        "DELETE FROM guest_import_rows WHERE guest_id = ANY(@guests)",
        "DELETE FROM guest_notes WHERE guest_id = ANY(@guests)",
        "DELETE FROM guest_emails WHERE guest_id = ANY(@guests)",
        "UPDATE guests SET merged_into = NULL WHERE id = ANY(@guests) AND merged_into IS NOT NULL",
        "DELETE FROM guests WHERE id = ANY(@guests)",
    ];

    /// <summary>Whoever still has a private link, or the address for answers, has nothing by it any more.</summary>
    private void NewSecrets(RoundTrip trip, Guid[] bookings)
    {
        var links = bookings.Select(_ => secrets.Create()).ToList();
        var answers = bookings.Select(_ => replies.Create()).ToList();
        trip.Do(
            $"""
            UPDATE bookings b SET secret_hash = n.hash, protected_secret = n.protected, reply_secret_hash = n.reply, protected_reply_secret = n.protected_reply
            FROM unnest({bookings}, {links.Select(one => one.Hash).ToArray()}, {links
                .Select(one => one.Protected)
                .ToArray()}, {answers.Select(one => one.Hash).ToArray()}, {answers
                .Select(one => one.Protected)
                .ToArray()}) AS n (id, hash, protected, reply, protected_reply)
            WHERE b.id = n.id
            """
        );
    }
}
