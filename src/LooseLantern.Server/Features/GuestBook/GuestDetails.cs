using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.GuestBook.Erasing;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>Which fact of a guest something is said of.</summary>
public enum GuestFact
{
    Name,
    Zone,
    Language,
    Phone,

    /// <summary>One of the workspace's own fields.</summary>
    Field,
}

/// <summary>
/// What a booking or a link says otherwise than the team knows it. Anybody may have typed it, so it stands beside.
/// </summary>
/// <param name="BookingId">The latest booking that says so.</param>
/// <param name="Field">Which field, where it is one; else null.</param>
public sealed record SaidOtherwise(GuestFact Fact, string Value, Guid BookingId, Instant At, Guid? Field);

/// <summary>Another guest who may be the same.</summary>
public sealed record LikelyDouble(
    Guid Id,
    string Name,
    string Email,
    string Organisation,
    bool SameName,
    bool SamePhone
);

/// <summary>What screening noted of a booking of theirs that stands.</summary>
public sealed record GuestFlag(string Flag, Guid BookingId, string Page, Instant Start);

/// <param name="Name">Of the one who was merged into this one.</param>
/// <param name="By">Who said that they are one.</param>
public sealed record MergeView(Guid Id, string Name, Instant At, string By);

/// <summary>A guest as their screen has them.</summary>
/// <param name="Emails">The first is the one that is written to.</param>
/// <param name="KeeperName">Empty where nobody keeps them.</param>
/// <param name="BookerEmail">Who booked for them, where they have no email; else empty.</param>
/// <param name="Bookings">How many stand, to come and past; cancelled ones are not counted.</param>
/// <param name="Offers">How many links were made for them.</param>
/// <param name="ErasedFrom">When they are erased by the rules for how long guests are kept; null where they are
/// not.</param>
/// <param name="Flags">The latest first.</param>
public sealed record GuestDetail(
    Guid Id,
    int Version,
    string Name,
    IReadOnlyList<string> Emails,
    string Organisation,
    string Phone,
    string? Zone,
    string? Language,
    ClockForm? Clock,
    Guid? KeeperId,
    string KeeperName,
    IReadOnlyDictionary<Guid, string> Fields,
    GuestSource Source,
    Instant MadeAt,
    string BookerEmail,
    int Bookings,
    int Offers,
    int Notes,
    IReadOnlyList<SaidOtherwise> Said,
    IReadOnlyList<LikelyDouble> Doubles,
    IReadOnlyList<MergeView> Merges,
    Instant? ErasedFrom,
    IReadOnlyList<GuestFlag> Flags
);

/// <summary>Gathers what is known of one guest.</summary>
public sealed class GuestDetails(LanternDb db, RetentionLooking retention, IClock clock)
{
    private const int MostDoubles = 5;
    private const int MostBookings = 50;
    private const int MostFlags = 10;

    /// <exception cref="Refusal">404 where there is none; one who was merged leads to whom they turned out to
    /// be.</exception>
    public async Task<GuestDetail> OfAsync(Guid id, CancellationToken ct)
    {
        var guest = await FindAsync(id, ct);
        id = guest.Id;
        var keeper = guest.KeeperId is { } keeperId
            ? await db.Users.Where(row => row.Id == keeperId).Select(row => row.Name).FirstOrDefaultAsync(ct)
            : null;
        var counted = await CountAsync(guest, ct);
        return new GuestDetail(
            id,
            guest.Version,
            guest.Name,
            [.. guest.Emails.OrderBy(email => email.Place).ThenBy(email => email.Key).Select(email => email.Email)],
            guest.Organisation,
            guest.Phone,
            guest.Zone,
            guest.Language,
            guest.Clock,
            guest.KeeperId,
            keeper ?? "",
            guest.Fields,
            guest.Source,
            guest.MadeAt,
            guest.Emails.Count == 0 ? guest.BookerKey : "",
            counted.Bookings,
            counted.Offers,
            counted.Notes,
            await SaidAsync(guest, ct),
            counted.Doubles,
            counted.Merges,
            await ErasedFromAsync(id, ct),
            counted.Flags
        );
    }

    private async Task<Instant?> ErasedFromAsync(Guid id, CancellationToken ct)
    {
        var rules = await db.Workspaces.AsNoTracking().Select(row => row.GuestRetention).SingleAsync(ct);
        var now = clock.GetCurrentInstant();
        var (due, _) = await retention.DueAsync(rules, now, Instant.MaxValue, 1, id, ct);
        return due.Count == 0 ? null : due[0].Due;
    }

    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task<Guest> FindAsync(Guid id, CancellationToken ct)
    {
        var seen = new HashSet<Guid>();
        while (seen.Add(id))
        {
            var guest = await db
                .Guests.AsNoTracking()
                .Include(row => row.Emails)
                .FirstOrDefaultAsync(row => row.Id == id, ct)
                ?? throw Refusal.NotFound("guest");
            if (guest.MergedInto is not { } other)
                return guest;
            id = other;
        }

        throw Refusal.NotFound("guest");
    }

    private async Task<(
        int Bookings,
        int Offers,
        int Notes,
        IReadOnlyList<LikelyDouble> Doubles,
        IReadOnlyList<MergeView> Merges,
        IReadOnlyList<GuestFlag> Flags
    )> CountAsync(Guest guest, CancellationToken ct)
    {
        var trip = new RoundTrip(db);
        var counts = trip.Ask(
            $"""
            SELECT (SELECT count(*)::int FROM bookings WHERE guest_id = {guest.Id} AND cancelled_at IS NULL),
                (SELECT count(DISTINCT link_id)::int FROM link_guests WHERE guest_id = {guest.Id}),
                (SELECT count(*)::int FROM guest_notes WHERE guest_id = {guest.Id})
            """,
            row => (row.GetInt32(0), row.GetInt32(1), row.GetInt32(2))
        );
        var doubles = trip.Ask(
            $"""
            SELECT o.id, o.name, coalesce((SELECT e.email FROM guest_emails e WHERE e.guest_id = o.id ORDER BY e.place, e.key LIMIT 1), ''),
                o.organisation, o.name_key = {guest.NameKey}, o.phone_key <> '' AND o.phone_key = {guest.PhoneKey}
            FROM guests o
            WHERE o.workspace_id = {guest.WorkspaceId} AND o.id <> {guest.Id} AND o.merged_into IS NULL
                AND o.id <> ALL({guest.NotSame})
                AND (o.name_key = {guest.NameKey} OR (o.phone_key <> '' AND o.phone_key = {guest.PhoneKey}))
            ORDER BY o.made_at, o.id LIMIT {MostDoubles}
            """,
            row => new LikelyDouble(
                row.GetGuid(0),
                row.GetString(1),
                row.GetString(2),
                row.GetString(3),
                row.GetBoolean(4),
                row.GetBoolean(5)
            )
        );
        var merges = trip.Ask(
            $"""
            SELECT m.id, g.name, m.at, m.person_name FROM guest_merges m JOIN guests g ON g.id = m.gone_id
            WHERE m.kept_id = {guest.Id} AND m.undone_at IS NULL ORDER BY m.at DESC
            """,
            row => new MergeView(row.GetGuid(0), row.GetString(1), row.GetFieldValue<Instant>(2), row.GetString(3))
        );
        var flags = trip.Ask(
            $"""
            SELECT flag, b.id, p.title, lower(s.time)
            FROM bookings b JOIN sessions s ON s.id = b.session_id JOIN pages p ON p.id = s.page_id, unnest(b.flags) AS flag
            WHERE b.guest_id = {guest.Id} AND b.cancelled_at IS NULL AND cardinality(b.flags) > 0
            ORDER BY lower(s.time) DESC, b.id LIMIT {MostFlags}
            """,
            row => new GuestFlag(row.GetString(0), row.GetGuid(1), row.GetString(2), row.GetFieldValue<Instant>(3))
        );
        await trip.RunAsync(ct);
        var (bookings, offers, notes) = counts.Row;
        return (bookings, offers, notes, doubles.Rows, merges.Rows, flags.Rows);
    }

    private async Task<IReadOnlyList<SaidOtherwise>> SaidAsync(Guest guest, CancellationToken ct)
    {
        var bookings = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Where(row => row.GuestId == guest.Id)
            .OrderByDescending(row => row.BookedAt)
            .Take(MostBookings)
            .Select(row => new
            {
                row.Id,
                row.BookedAt,
                row.GuestName,
                row.GuestZone,
                row.GuestLanguage,
                row.BookerEmail,
                row.Answers,
                row.Session!.Page!.Questions,
            })
            .ToListAsync(ct);
        var fields = await db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct);
        var said = new List<SaidOtherwise>();
        foreach (var row in bookings)
        {
            Add(GuestFact.Name, row.GuestName.Trim(), guest.Name);
            // Of who sat before the browser, who may have been somebody else.
            if (row.BookerEmail.Length == 0)
            {
                Add(GuestFact.Zone, row.GuestZone, guest.Zone ?? row.GuestZone);
                Add(GuestFact.Language, row.GuestLanguage, guest.Language ?? row.GuestLanguage);
            }

            foreach (var answer in row.Answers.Where(one => one.Kind == Core.Questions.QuestionKind.Phone))
            {
                if (Digits(answer.Text) != guest.PhoneKey)
                    Add(GuestFact.Phone, answer.Text, "");
            }

            foreach (var (id, value) in GuestFieldValues.Of(row.Questions, row.Answers, fields))
                Add(GuestFact.Field, value, guest.Fields.GetValueOrDefault(id, ""), id);

            void Add(GuestFact fact, string value, string known, Guid? field = null)
            {
                if (
                    value.Length > 0
                    && !value.Equals(known, StringComparison.OrdinalIgnoreCase)
                    && !said.Exists(one =>
                        one.Fact == fact
                        && one.Field == field
                        && one.Value.Equals(value, StringComparison.OrdinalIgnoreCase)
                    )
                )
                    said.Add(new SaidOtherwise(fact, value, row.Id, row.BookedAt, field));
            }
        }

        return said;
    }

    private static string Digits(string text) => string.Concat(text.Where(char.IsAsciiDigit));
}
