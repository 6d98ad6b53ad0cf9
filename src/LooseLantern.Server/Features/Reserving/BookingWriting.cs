using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>What a guest has already, asked in a round trip that others may share.</summary>
/// <param name="Open">How many bookings to come, in the workspace and on the page; nothing where nobody counts.</param>
/// <param name="InSessions">The sessions of the page at that time that they are in.</param>
/// <param name="IsKeyUsed">Whether the key of the request was used before.</param>
public sealed record GuestAsked(Asked<(int All, int Here)>? Open, Asked<Guid>? InSessions, Asked<bool>? IsKeyUsed);

/// <summary>Writes a booking of a session, with what is to be told of it and to stand in calendars.</summary>
public sealed class BookingWriting(
    LanternDb db,
    PrivateLinks links,
    ReplyAddresses replies,
    EventWishes wishes,
    Tellings tellings,
    IClock clock
)
{
    /// <summary>
    /// Asks under the lock of the guest's address, so that bookings of one guest at one moment are all counted. What
    /// the team books or offers by a link, it wants.
    /// </summary>
    public GuestAsked Ask(RoundTrip trip, BookingWish wish, Page page, string? key)
    {
        var (workspace, email) = (page.WorkspaceId, wish.ContactEmail.ToUpperInvariant());
        var isCounted = email.Length > 0 && !wish.ByTeam && page.Offer is null;
        var end = wish.Start + Duration.FromMinutes(wish.Duration);
        return new GuestAsked(
            isCounted
                ? trip.Ask(
                    $"""
                    SELECT count(*)::int, (count(*) FILTER (WHERE s.page_id = {page.Id}))::int
                    FROM bookings b JOIN sessions s ON s.id = b.session_id
                    WHERE b.workspace_id = {workspace} AND b.cancelled_at IS NULL AND upper(s.time) > {clock.GetCurrentInstant()}
                        AND (upper(b.guest_email) = {email} OR (b.booker_email <> '' AND upper(b.booker_email) = {email}))
                    """,
                    row => (row.GetInt32(0), row.GetInt32(1))
                )
                : null,
            email.Length > 0 && page.Places > 1
                ? trip.Ask(
                    $"""
                    SELECT s.id FROM sessions s JOIN bookings b ON b.session_id = s.id
                    WHERE s.workspace_id = {workspace} AND s.page_id = {page.Id} AND s.time && {new Span(
                        wish.Start,
                        end
                    ).ToRange()}
                        AND b.cancelled_at IS NULL AND (upper(b.guest_email) = {email} OR upper(b.booker_email) = {email})
                    """,
                    row => row.GetGuid(0)
                )
                : null,
            key is null
                ? null
                : trip.Ask(
                    $"SELECT EXISTS (SELECT 1 FROM booking_keys WHERE page_id = {page.Id} AND key = {key})",
                    row => row.GetBoolean(0)
                )
        );
    }

    /// <summary>What the key was answered with before; null where it was not used.</summary>
    /// <exception cref="Refusal">422 where it was used for another wish.</exception>
    public async Task<Booked?> MadeBeforeAsync(BookingWish wish, string key, CancellationToken ct)
    {
        var known = await db
            .BookingKeys.AsNoTracking()
            .FirstOrDefaultAsync(row => row.PageId == wish.PageId && row.Key == key, ct);
        if (known is null)
            return null;
        if (!known.RequestHash.AsSpan().SequenceEqual(wish.Hash()))
        {
            throw new Refusal(StatusCodes.Status422UnprocessableEntity, "key-used");
        }

        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Session)
            .SingleAsync(row => row.Id == known.BookingId, ct);
        return new Booked(
            booking.Id,
            links.Reveal(booking.ProtectedSecret),
            booking.Session!.Time.ToSpan(),
            IsNew: false
        );
    }

    /// <summary>What is locked while the bookings of one guest are counted.</summary>
    public static string GuestKey(BookingWish wish) =>
        wish.ContactEmail.Length == 0 ? $"{wish.PageId:N}" : $"guest {EmailAddress.KeyOf(wish.ContactEmail)}";

    /// <exception cref="Refusal">422 where the guest has as many bookings to come as the page lets one have, or the
    /// workspace.</exception>
    public static void RequireBelowMostOpen(Page page, int mostOfWorkspace, GuestAsked asked)
    {
        if (asked.Open?.Row is not var (all, here))
            return;
        if (here >= (page.Details.MostOpen ?? PageDetails.UsualMostOpen))
            throw new Refusal(StatusCodes.Status422UnprocessableEntity, "most-open");
        if (all >= mostOfWorkspace)
            throw new Refusal(StatusCodes.Status422UnprocessableEntity, "most-open", "most-open.everywhere");
    }

    /// <summary>
    /// Who is in the session already is asked whether one more place is meant, so that a second press takes none.
    /// </summary>
    /// <exception cref="Refusal">409 where the address books this session again.</exception>
    public static void RequireFirst(Session session, GuestAsked asked)
    {
        if (asked.InSessions?.Rows.Contains(session.Id) == true)
            throw new Refusal(StatusCodes.Status409Conflict, "booked-already");
    }

    /// <summary>Writes the session where it is new, its bookings and what is told of them.</summary>
    /// <param name="trip">In which it is written; the caller makes it.</param>
    /// <returns>That of the guest who asked.</returns>
    public Booked Write(RoundTrip trip, BookingWish wish, FoundSession found, KeptPage kept, string? key)
    {
        var (page, session) = (kept.Page, found.Session);
        if (found.New.Count > 0)
            Write(trip, session, found.New);
        // Who said nothing of their own reads by the workspace's clock.
        var clockForm = wish.GuestClock ?? kept.Workspace.Clock;
        var made = new Dictionary<BookingWish, Booked>(ReferenceEqualityComparer.Instance);
        // Guests are found as their bookings are written: in one order, so that two groups never wait for one another.
        foreach (var one in EachOf(wish).OrderBy(one => GuestEmail.KeyOf(one.GuestEmail), StringComparer.Ordinal))
        {
            made[one] = Write(trip, one, found, page, clockForm);
            NewKeepers.Give(trip, made[one].BookingId, page, session, one.Answers);
            FieldsFilling.Fill(
                trip,
                made[one].BookingId,
                GuestFieldValues.Of(page.Questions, one.Answers, kept.Workspace.GuestFields)
            );
        }

        var booked = made[wish];
        var all = made.Values.Select(one => one.BookingId).OrderBy(id => id != booked.BookingId).ToList();
        if (key is not null)
            Keep(trip, key, wish, session, booked);
        tellings.Add(trip, page.Id, all, new Telling(page.ApprovalHours is null ? Occasion.Booked : Occasion.Asked));
        wishes.ForSession(trip, session);
        return booked;
    }

    /// <summary>The wish of the guest who asked, and those of the others who come by it.</summary>
    private static IEnumerable<BookingWish> EachOf(BookingWish wish) =>
        wish
            .Others.Select(other =>
                wish with
                {
                    GuestName = other.Name,
                    GuestEmail = other.Email,
                    Answers = [],
                    Companions = [],
                    Party = 1,
                }
            )
            .Prepend(wish);

    private static void Write(RoundTrip trip, Session session, IReadOnlyList<CommitmentRow> commitments)
    {
        trip.Insert(session);
        foreach (var host in session.Hosts)
            trip.Insert(host);
        foreach (var commitment in commitments)
            trip.Insert(commitment);
    }

    private Booked Write(RoundTrip trip, BookingWish wish, FoundSession found, Page page, ClockForm? clockForm)
    {
        var session = found.Session;
        var now = clock.GetCurrentInstant();
        var (secret, reply) = (links.Create(), replies.Create());
        var answer = page.ApprovalHours is null ? null : links.Create();
        var booking = new Booking
        {
            WorkspaceId = session.WorkspaceId,
            SessionId = session.Id,
            GuestName = wish.GuestName,
            GuestEmail = wish.GuestEmail,
            Party = wish.Party,
            BookerName = wish.Booker?.Name ?? "",
            BookerEmail = wish.Booker?.Email ?? "",
            MailTo = wish.Booker?.MailTo ?? MailGoesTo.Guest,
            IsAmongOurselves = wish.IsAmongOurselves,
            GuestZone = wish.GuestZone,
            GuestLanguage = wish.GuestLanguage,
            GuestClock = clockForm,
            Answers = wish.Answers,
            Flags = wish.Flags,
            Companions = wish.Companions,
            BookedAt = now,
            BookedBy = wish.BookedBy,
            CountsKeeper = found.CountsKeeper,
            SecretHash = secret.Hash,
            ProtectedSecret = secret.Protected,
            ReplySecretHash = reply.Hash,
            ProtectedReplySecret = reply.Protected,
            WaitsUntil = page.ApprovalHours is { } hours
                ? Instant.Min(now + Duration.FromHours(hours), session.Time.LowerBound)
                : null,
            AnswerSecretHash = answer?.Hash,
            ProtectedAnswerSecret = answer?.Protected,
        };
        trip.Insert(booking);
        return new Booked(booking.Id, secret.Secret, session.Time.ToSpan(), IsNew: true);
    }

    private static void Keep(RoundTrip trip, string key, BookingWish wish, Session session, Booked booked) =>
        trip.Insert(
            new BookingKey
            {
                WorkspaceId = session.WorkspaceId,
                PageId = session.PageId,
                Key = key,
                RequestHash = wish.Hash(),
                BookingId = booked.BookingId,
            }
        );
}
