using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>Writes a booking of a session, with the messages and calendar entries that go with it.</summary>
public sealed class BookingWriting(
    LanternDb db,
    PrivateLinks links,
    ReplyAddresses replies,
    EventWishes wishes,
    PostWriting post,
    IClock clock
)
{
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

    /// <summary>
    /// Under the lock of the guest's address, so that bookings of one guest at one moment are all counted. What the
    /// team books or offers by a link, it wants.
    /// </summary>
    /// <exception cref="Refusal">422 where the guest has as many bookings to come as the page lets one have, or the
    /// workspace.</exception>
    public async Task RequireBelowMostOpenAsync(Page page, BookingWish wish, CancellationToken ct)
    {
        var (now, email) = (clock.GetCurrentInstant(), wish.ContactEmail.ToUpperInvariant());
        if (email.Length == 0 || wish.ByTeam || page.Offer is not null)
            return;
        var open = await db
            .Workspaces.Select(workspace => new
            {
                Most = workspace.MostOpen,
                All = db.Bookings.Count(booking =>
                    (booking.GuestEmail.ToUpper() == email || booking.BookerEmail.ToUpper() == email)
                    && booking.Session!.Time.UpperBound > now
                ),
                Here = db.Bookings.Count(booking =>
                    (booking.GuestEmail.ToUpper() == email || booking.BookerEmail.ToUpper() == email)
                    && booking.Session!.PageId == page.Id
                    && booking.Session.Time.UpperBound > now
                ),
            })
            .SingleAsync(ct);
        if (open.Here >= (page.Details.MostOpen ?? PageDetails.UsualMostOpen))
            throw new Refusal(StatusCodes.Status422UnprocessableEntity, "most-open");
        if (open.All >= open.Most)
            throw new Refusal(StatusCodes.Status422UnprocessableEntity, "most-open", "most-open.everywhere");
    }

    /// <summary>
    /// Who is in the session already is asked whether one more place is meant, so that a second press takes none.
    /// </summary>
    /// <exception cref="Refusal">409 where the address books this session again.</exception>
    public async Task RequireFirstAsync(Session session, BookingWish wish, CancellationToken ct)
    {
        var email = wish.ContactEmail.ToUpperInvariant();
        var isIn =
            email.Length > 0
            && await db.Bookings.AnyAsync(
                row =>
                    row.SessionId == session.Id
                    && (row.GuestEmail.ToUpper() == email || row.BookerEmail.ToUpper() == email),
                ct
            );
        if (isIn)
            throw new Refusal(StatusCodes.Status409Conflict, "booked-already");
    }

    /// <summary>Saves the session, its bookings and what is told of them.</summary>
    /// <returns>That of the guest who asked.</returns>
    public async Task<Booked> WriteAsync(
        BookingWish wish,
        Session session,
        Page page,
        string? key,
        CancellationToken ct
    )
    {
        // Who said nothing of their own reads by the workspace's clock.
        var clockForm = wish.GuestClock
            ?? (await db.Workspaces.AsNoTracking().Select(workspace => workspace.Usual).SingleAsync(ct)).Clock;
        var booked = Write(wish, session, page, clockForm);
        var all = wish
            .Others.Select(other =>
                Write(
                    wish with
                    {
                        GuestName = other.Name,
                        GuestEmail = other.Email,
                        Answers = [],
                        Companions = [],
                        Party = 1,
                    },
                    session,
                    page,
                    clockForm
                ).BookingId
            )
            .Prepend(booked.BookingId)
            .ToList();
        if (key is not null)
            Keep(key, wish, session, booked);
        await wishes.ForSessionAsync(session, ct);
        await db.SaveChangesAsync(ct);
        await post.TellAsync(all, new Telling(page.ApprovalHours is null ? Occasion.Booked : Occasion.Asked), ct);
        await db.SaveChangesAsync(ct);
        return booked;
    }

    private Booked Write(BookingWish wish, Session session, Page page, ClockForm? clockForm)
    {
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
        db.Bookings.Add(booking);
        return new Booked(booking.Id, secret.Secret, session.Time.ToSpan(), IsNew: true);
    }

    private void Keep(string key, BookingWish wish, Session session, Booked booked) =>
        db.BookingKeys.Add(
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
