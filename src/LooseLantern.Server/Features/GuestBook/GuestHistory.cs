using System.Text.Json;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

public enum GuestEventKind
{
    /// <summary>The team came to know of them.</summary>
    Known,
    Noted,

    /// <summary>A link was made for them.</summary>
    OfferMade,
    OfferOut,
    OfferOpened,
    OfferRevoked,

    /// <summary>Asked for a time that was not among the openings of a link.</summary>
    Wished,

    /// <summary>Named the times that suit them.</summary>
    Suited,
    Booked,
    Moved,
    Cancelled,

    /// <summary>Their calendar answered to the invitation.</summary>
    Answered,
    MailOut,
    MailIn,
    Merged,
}

/// <summary>An answer they gave, in one line.</summary>
public sealed record EventAnswer(string Question, string Text);

/// <summary>One thing that happened with a guest.</summary>
/// <param name="Id">Of the note, link, booking or message it is about; null where it is about none.</param>
/// <param name="Title">What the page or link is called, or the subject of a mail; may be empty.</param>
/// <param name="Text">Words: of a note, a wish, a mail that came, or whoever cancelled; may be empty.</param>
/// <param name="By">Who of the team did it; empty for the guest, and for what happens by itself.</param>
/// <param name="For">Whom the guest booked it for, where that is somebody else.</param>
/// <param name="Start">The time it is about, as it was then; null for none.</param>
/// <param name="Was">Of a move, when it started before.</param>
/// <param name="Zone">IANA id of the place's zone; null where it is about no time.</param>
/// <param name="State">Of a mail that went out.</param>
/// <param name="Reply">Of an answer to the invitation.</param>
/// <param name="IsOver">Whether the booking does not stand any more.</param>
/// <param name="IsYours">Whether the person who asks wrote the note.</param>
public sealed record GuestEvent(
    GuestEventKind Kind,
    Instant At,
    Guid? Id,
    string Title,
    string Text,
    string By,
    string For,
    Instant? Start,
    Instant? Was,
    string? Zone,
    MessageState? State,
    GuestReply? Reply,
    CancelledBy? CancelledBy,
    bool IsOver,
    bool IsYours,
    IReadOnlyList<EventAnswer> Answers
);

/// <param name="Earlier">What is asked for next, as <c>before</c>; null where this was all.</param>
public sealed record GuestHistoryRun(Instant Now, IReadOnlyList<GuestEvent> Events, string? Earlier);

/// <summary>Everything that happened with a guest in one line of time, the latest first.</summary>
public sealed class GuestHistory(
    LanternDb db,
    GuestDetails details,
    ActingFor.Actor actor,
    Tellings tellings,
    IClock clock
)
{
    private const int Most = 50;

    // Each part has the same columns, in the order of the record's; a part is cut off by itself, so that no more rows
    // are put in order than are shown.
    private static readonly string[] Parts =
    [
        """
            SELECT 'Known' AS kind, g.made_at AS at, g.id, NULL::uuid AS about, '' AS title, lower(g.source) AS text, '' AS by, '' AS for_whom,
                NULL::timestamptz AS start, NULL::timestamptz AS was, NULL AS zone, NULL AS state, NULL AS reply, NULL AS cancelled_by,
                false AS is_over, NULL::uuid AS person, NULL::jsonb AS answers
            FROM guests g WHERE g.id = @guest
            """,
        """
            SELECT 'Noted', n.at, n.id, n.id, '', n.text, n.person_name, '', NULL, NULL, NULL, NULL, NULL, NULL, false, n.person_id, NULL
            FROM guest_notes n WHERE n.guest_id = @guest
            """,
        $"{OfLinks("OfferMade", "l.made_at", by: "made_by")} WHERE lg.guest_id = @guest",
        $"{OfLinks("OfferOut", "coalesce(l.out_at, l.given_at)", by: "sent_by")} WHERE lg.guest_id = @guest AND coalesce(l.out_at, l.given_at) IS NOT NULL",
        $"{OfLinks("OfferOpened", "l.first_opened_at")} WHERE lg.guest_id = @guest AND l.first_opened_at IS NOT NULL",
        $"{OfLinks("OfferRevoked", "l.revoked_at")} WHERE lg.guest_id = @guest AND l.revoked_at IS NOT NULL",
        """
            SELECT DISTINCT ON (w.id) 'Wished', w.at, w.id, l.id, p.title, w.words, '', w.by, w.start, NULL::timestamptz, p.zone, NULL, NULL, NULL,
                false, NULL::uuid, NULL::jsonb
            FROM link_guests lg JOIN links l ON l.id = lg.link_id JOIN pages p ON p.id = l.id JOIN wishes w ON w.link_id = l.id
            WHERE lg.guest_id = @guest
            """,
        """
            SELECT DISTINCT ON (l.id, suited->>'at') 'Suited', CAST(suited->>'at' AS timestamptz), l.id, l.id, p.title, suited->>'words', '', '',
                NULL::timestamptz, NULL::timestamptz, p.zone, NULL, NULL, NULL, false, NULL::uuid, NULL::jsonb
            FROM link_guests lg JOIN links l ON l.id = lg.link_id JOIN pages p ON p.id = l.id
                JOIN guests g ON g.id = lg.guest_id, jsonb_array_elements(l.suits) AS suited
            WHERE lg.guest_id = @guest AND (lower(suited->>'name') = g.name_key
                OR lower(suited->>'email') IN (SELECT e.key FROM guest_emails e WHERE e.guest_id = @guest))
            """,
        $"""
            {OfBookings(
                "Booked",
                "b.booked_at",
                start: "coalesce((SELECT m.was FROM booking_moves m WHERE m.booking_id = b.id ORDER BY m.at, m.id LIMIT 1), lower(s.time))",
                by: "k.name",
                answers: "b.answers"
            )}
            LEFT JOIN "AspNetUsers" k ON k.id = b.booked_by WHERE {Theirs}
            """,
        $"""
            SELECT 'Moved', m.at, m.id, b.id, p.title, '', CASE WHEN m.by_guest THEN '' ELSE 'team' END, {ForWhom}, m.now, m.was, p.zone, NULL, NULL,
                NULL, b.cancelled_at IS NOT NULL, NULL, NULL
            FROM bookings b JOIN booking_moves m ON m.booking_id = b.id JOIN sessions s ON s.id = b.session_id JOIN pages p ON p.id = s.page_id
            WHERE {Theirs}
            """,
        $"""
            {OfBookings("Cancelled", "b.cancelled_at", text: "b.cancel_word", cancelledBy: "b.cancelled_by")}
            WHERE {Theirs} AND b.cancelled_at IS NOT NULL
            """,
        $"""
            {OfBookings("Answered", "b.replied_at", reply: "b.reply")} WHERE {Theirs} AND b.replied_at IS NOT NULL
            """,
        """
            SELECT 'MailOut', coalesce(m.sent_at, m.written_at), m.id, m.id, m.subject, '', '', '', NULL, NULL, NULL, m.state, NULL, NULL, false,
                NULL, NULL
            FROM guest_emails e JOIN messages m ON m.workspace_id = e.workspace_id AND lower(m.to_email) = e.key
            WHERE e.guest_id = @guest AND m.person_id IS NULL AND (m.state <> 'Due' OR m.due_at <= @now)
            """,
        $"""
            SELECT 'MailIn', i.received_at, i.id, b.id, i.subject, left(i.text, 600), '', '', NULL, NULL, NULL, NULL, NULL, NULL, false, NULL, NULL
            FROM bookings b JOIN incoming_mail i ON i.booking_id = b.id WHERE {Theirs}
            """,
        """
            SELECT 'MailIn', i.received_at, i.id, NULL, i.subject, left(i.text, 4000), '', '', NULL, NULL, NULL, NULL, NULL, NULL, false, NULL, NULL
            FROM guest_emails e JOIN messages m ON m.workspace_id = e.workspace_id AND lower(m.to_email) = e.key
                JOIN incoming_mail i ON i.message_id = m.id
            WHERE e.guest_id = @guest AND m.person_id IS NULL
            """,
        """
            SELECT 'Merged', m.at, m.id, NULL, g.name, '', m.person_name, '', NULL, NULL, NULL, NULL, NULL, NULL, false, NULL, NULL
            FROM guest_merges m JOIN guests g ON g.id = m.gone_id WHERE m.kept_id = @guest AND m.undone_at IS NULL
            """,
    ];

    private const string Theirs = "(b.guest_id = @guest OR b.booker_id = @guest)";

    private const string ForWhom =
        "CASE WHEN b.booker_id = @guest AND b.guest_id IS DISTINCT FROM @guest THEN b.guest_name ELSE '' END";

    /// <param name="before">Where the run before ended, as it told; null for the latest.</param>
    /// <exception cref="Refusal">400 for a place that was never told of, 404 where there is no such guest.</exception>
    public async Task<GuestHistoryRun> ReadAsync(Guid id, string? before, CancellationToken ct)
    {
        var guest = await details.FindAsync(id, ct);
        await tellings.WriteAllAsync(null, ct);
        var place = before is null
            ? (EventPlace?)null
            : EventPlace.Read(before) ?? throw Refusal.Invalid("before", "list-place");
        var now = clock.GetCurrentInstant();
        var values = new Dictionary<string, object>
        {
            ["guest"] = guest.Id,
            ["now"] = now,
            ["until"] = place?.At ?? now + Duration.FromDays(36_500),
            ["until_id"] = place?.Id ?? Guid.Empty,
            ["most"] = Most + 1,
        };
        // The first part names the columns.
        var sql = $"""
            SELECT * FROM ({string.Join("\nUNION ALL\n", Parts.Select(part => $"({part})"))}) AS happened
            WHERE (at, id) < (@until, @until_id) ORDER BY at DESC, id DESC LIMIT @most
            """;
        var trip = new RoundTrip(db);
        var asked = trip.Ask(sql, values, row =>
            (Place: new EventPlace(row.GetFieldValue<Instant>(1), row.GetGuid(2)), Event: Read(row))
        );
        await trip.RunAsync(ct);
        var rows = asked.Rows.Take(Most).ToList();
        return new GuestHistoryRun(
            now,
            rows.ConvertAll(row => row.Event),
            asked.Rows.Count > Most ? rows[^1].Place.ToString() : null
        );
    }

    private GuestEvent Read(Npgsql.NpgsqlDataReader row)
    {
        var person = row.IsDBNull(15) ? (Guid?)null : row.GetGuid(15);
        return new GuestEvent(
            Enum.Parse<GuestEventKind>(row.GetString(0)),
            row.GetFieldValue<Instant>(1),
            row.IsDBNull(3) ? null : row.GetGuid(3),
            row.GetString(4),
            row.IsDBNull(5) ? "" : row.GetString(5),
            row.IsDBNull(6) ? "" : row.GetString(6),
            row.GetString(7),
            row.IsDBNull(8) ? null : row.GetFieldValue<Instant>(8),
            row.IsDBNull(9) ? null : row.GetFieldValue<Instant>(9),
            row.IsDBNull(10) ? null : row.GetString(10),
            Named<MessageState>(row, 11),
            Named<GuestReply>(row, 12),
            Named<CancelledBy>(row, 13),
            row.GetBoolean(14),
            person is not null && person == actor.Person?.Id,
            row.IsDBNull(16)
                ? []
                :
                [
                    .. JsonSerializer
                        .Deserialize<List<GivenAnswer>>(row.GetString(16), Json.Options)!
                        .Select(answer => new EventAnswer(
                            answer.Words,
                            answer.Kind == QuestionKind.YesNo ? answer.Text : answer.Text.Replace('\n', ',')
                        )),
                ]
        );
    }

    private static T? Named<T>(Npgsql.NpgsqlDataReader row, int column)
        where T : struct, Enum => row.IsDBNull(column) ? null : Enum.Parse<T>(row.GetString(column));

    private static string OfLinks(string kind, string at, string? by = null) =>
        $"""
            SELECT DISTINCT ON (l.id) '{kind}', {at}, l.id, l.id, p.title, '', {(
                by is null ? "''" : $"(SELECT k.name FROM \"AspNetUsers\" k WHERE k.id = l.{by})"
            )}, '',
                NULL::timestamptz, NULL::timestamptz, NULL, NULL, NULL, NULL, false, NULL::uuid, NULL::jsonb
            FROM link_guests lg JOIN links l ON l.id = lg.link_id JOIN pages p ON p.id = l.id
            """;

    private static string OfBookings(
        string kind,
        string at,
        string start = "lower(s.time)",
        string text = "''",
        string by = "''",
        string reply = "NULL",
        string cancelledBy = "NULL",
        string answers = "NULL::jsonb"
    ) =>
        $"""
            SELECT '{kind}', {at}, b.id, b.id, p.title, {text}, {by}, {ForWhom}, {start}, NULL::timestamptz, p.zone, NULL, {reply}, {cancelledBy},
                b.cancelled_at IS NOT NULL, NULL::uuid, {answers}
            FROM bookings b JOIN sessions s ON s.id = b.session_id JOIN pages p ON p.id = s.page_id
            """;

    /// <summary>Where an event stands in the line of time.</summary>
    private readonly record struct EventPlace(Instant At, Guid Id)
    {
        public static EventPlace? Read(string text)
        {
            var parts = text.Split('_');
            return
                parts.Length == 2
                && NodaTime.Text.InstantPattern.ExtendedIso.Parse(parts[0]) is { Success: true } at
                && Guid.TryParse(parts[1], out var id)
                ? new EventPlace(at.Value, id)
                : null;
        }

        public override string ToString() => $"{NodaTime.Text.InstantPattern.ExtendedIso.Format(At)}_{Id:D}";
    }
}
