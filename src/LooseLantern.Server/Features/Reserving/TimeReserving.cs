using LooseLantern.Core;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// The one way to commit hosts' time. In one transaction it locks the page and then all eligible hosts in order of id,
/// computes anew, chooses hosts, writes the session (or joins one with room), its bookings and commitments, and leaves
/// the messages to send. Locks come first because inserts that only run into the exclusion constraint end in deadlocks
/// when many guests want one time; the constraint beneath is what holds if this is ever wrong.
/// </summary>
public sealed class TimeReserving(
    LanternDb db,
    PageEditing pages,
    OpeningsLoader loader,
    AssignmentLoading assignments,
    PrivateLinks links,
    ReplyAddresses replies,
    PostWriting post,
    EventWishes wishes,
    CalendarLooking looking,
    HostLocks hostLocks,
    LinkTaking taking,
    IClock clock
)
{
    private const int NearestOffered = 6;
    private const int DaysLookedThrough = 28;

    /// <param name="idempotencyKey">The same key with the same wish answers with the same booking; null for
    /// none.</param>
    /// <exception cref="Refusal"> 404 when no such page is published, 400 for a duration it does not offer, 422 for a
    /// key used for another wish, 409 with the nearest openings left when the time is not open (any more). Nothing is
    /// written then.
    /// </exception>
    public async Task<Booked> BookAsync(BookingWish wish, string? idempotencyKey, CancellationToken ct)
    {
        var rules = loader.Rules(await OpenAsync(wish, ct));
        var day = wish.Start.InZone(rules.Zone).Date;
        var (first, last) = rules.Rules.Window.Within(day, day, loader.Today(rules));
        if (first <= last)
        {
            await looking.FreshenAsync(rules.HostIds, ct);
            await loader.PrepareAsync(rules, day, day, wish.Duration, ct);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        try
        {
            return await BookLockedAsync(wish, idempotencyKey, transaction, ct)
                ?? throw await GoneAsync(wish, transaction, ct);
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: CommitmentRow.NoDoubleBooking })
        {
            throw await GoneAsync(wish, transaction, ct);
        }
    }

    private async Task<Booked?> BookLockedAsync(
        BookingWish wish,
        string? key,
        IDbContextTransaction transaction,
        CancellationToken ct
    )
    {
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM pages WHERE id = {wish.PageId} FOR UPDATE", ct);
        db.ChangeTracker.Clear();
        if (key is not null && await MadeBeforeAsync(wish, key, ct) is { } before)
            return before;

        var page = await OpenAsync(wish, ct);
        var link = await taking.RequireAsync(page, ct);
        var rules = loader.Rules(page);
        if (!page.Durations.Contains(wish.Duration))
            throw Refusal.Invalid("duration", Phrase.Of("durations", ("durations", page.Durations)));

        await RequireBelowMostOpenAsync(page, wish, ct);

        await hostLocks.TakeAsync(page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId), ct);

        var day = wish.Start.InZone(rules.Zone).Date;
        var input = await loader.LoadAsync(rules, day, day, wish.Duration, ct);
        var session = await JoinedAsync(input, wish, ct) ?? await NewAsync(input, wish, page, ct);
        if (session is null)
            return null;

        if (link is not null)
            await taking.TakenAsync(link, page, session, ct);
        var booked = Write(wish, session, page, key);
        await wishes.ForSessionAsync(session, ct);
        await db.SaveChangesAsync(ct);
        await post.TellAsync(
            [booked.BookingId],
            new Telling(page.ApprovalHours is null ? Occasion.Booked : Occasion.Asked),
            ct
        );
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return booked;
    }

    /// <summary>Under the page's lock, so that bookings of one guest at one moment are all counted.</summary>
    private async Task RequireBelowMostOpenAsync(Page page, BookingWish wish, CancellationToken ct)
    {
        if (page.Details.MostOpen is not { } most)
            return;
        var (now, email) = (clock.GetCurrentInstant(), wish.GuestEmail.ToUpperInvariant());
        var open = await db.Bookings.CountAsync(
            booking =>
                booking.Session!.PageId == page.Id
                && booking.GuestEmail.ToUpper() == email
                && booking.Session.Time.UpperBound > now,
            ct
        );
        if (open < most)
            return;
        throw new Refusal(StatusCodes.Status422UnprocessableEntity, "most-open");
    }

    /// <summary>The session of a group page that still has room then, or null.</summary>
    private async Task<Session?> JoinedAsync(OpeningsInput input, BookingWish wish, CancellationToken ct)
    {
        if (OpeningsComputation.SessionToJoin(input, wish.Start) is not { } id)
            return null;
        var sessionId = Guid.Parse(id);
        return await db.Sessions.Include(session => session.Hosts).SingleAsync(session => session.Id == sessionId, ct);
    }

    /// <summary>
    /// A session of its own with a host in each seat and their time committed, or null where the time is not open.
    /// </summary>
    private async Task<Session?> NewAsync(OpeningsInput input, BookingWish wish, Page page, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var facts = await assignments.FactsAsync(page, wish.Start, new Meeting(wish.GuestEmail), now, ct);
        // Whoever holds the time for a link keeps it.
        var holders = input.AsHolder is { } link
            ? input
                .Hosts.Where(host => host.Commitments.Any(row => row.Holder == link && row.Start == wish.Start))
                .Select(host => host.Id)
                .ToHashSet()
            : [];
        if (holders.Count > 0)
            facts = facts with { Keep = holders };
        if (Assignment.For(input, wish.Start, facts) is not { } hosts)
            return null;

        var time = new Span(wish.Start, wish.Start + Duration.FromMinutes(wish.Duration));
        var id = Guid.CreateVersion7();
        var session = new Session
        {
            Id = id,
            WorkspaceId = page.WorkspaceId,
            PageId = page.Id,
            Time = time.ToRange(),
            Uid = id.ToString(),
        };
        db.Sessions.Add(session);
        Seating.Seat(db, session, [], [.. hosts.Select(Guid.Parse)], page, now);
        return session;
    }

    private Booked Write(BookingWish wish, Session session, Page page, string? key)
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
            GuestZone = wish.GuestZone,
            GuestLanguage = wish.GuestLanguage,
            Answers = wish.Answers,
            Flags = wish.Flags,
            Companions = wish.Companions,
            BookedAt = now,
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

        if (key is not null)
        {
            db.BookingKeys.Add(
                new BookingKey
                {
                    WorkspaceId = session.WorkspaceId,
                    PageId = session.PageId,
                    Key = key,
                    RequestHash = wish.Hash(),
                    BookingId = booking.Id,
                }
            );
        }

        return new Booked(booking.Id, secret.Secret, session.Time.ToSpan(), IsNew: true);
    }

    /// <summary>
    /// The page as guests have it. Of a link the team books what no guest was sent yet, too; what became of one that is
    /// closed is asked later.
    /// </summary>
    private async Task<Page> OpenAsync(BookingWish wish, CancellationToken ct) =>
        await pages
            .Whole()
            .AsNoTracking()
            .FirstOrDefaultAsync(
                page =>
                    page.Id == wish.PageId
                    && (
                        page.State == PageState.Published
                        || (page.Offer != null && (wish.ByTeam || page.State == PageState.Archived))
                    ),
                ct
            )
        ?? throw Refusal.NotFound("page");

    private async Task<Booked?> MadeBeforeAsync(BookingWish wish, string key, CancellationToken ct)
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
            .Bookings.IgnoreQueryFilters([LanternDb.Standing])
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

    private async Task<Refusal> GoneAsync(BookingWish wish, IDbContextTransaction transaction, CancellationToken ct)
    {
        await transaction.RollbackAsync(ct);
        db.ChangeTracker.Clear();

        var rules = loader.Rules(await OpenAsync(wish, ct));
        var from = LocalDate.Max(
            loader.Today(rules),
            wish.Start.InZone(rules.Zone).Date.PlusDays(-DaysLookedThrough / 2)
        );
        var left = await loader.OpeningsAsync(rules, from, from.PlusDays(DaysLookedThrough), wish.Duration, ct);
        return new Refusal(StatusCodes.Status409Conflict, "opening-gone")
        {
            More = { ["nearest"] = NearestOpenings.To(wish.Start, left, NearestOffered) },
        };
    }
}
