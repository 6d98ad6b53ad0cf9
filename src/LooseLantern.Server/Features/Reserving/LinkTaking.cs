using LooseLantern.Core;
using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>What was booked by a link and what it holds, asked in a round trip that others may share.</summary>
/// <param name="Cancelled">Of each of its sessions whether it was cancelled.</param>
/// <param name="Holds">Its commitments to held time.</param>
public sealed record LinkAsked(Asked<bool> Cancelled, Asked<(Guid Id, Span Span)> Holds);

/// <summary>What a link lets be taken, asked and noted under the lock of its page.</summary>
public sealed class LinkTaking(LanternDb db, EventWishes wishes, IClock clock)
{
    public static LinkAsked Ask(RoundTrip trip, Guid workspaceId, Guid linkId) =>
        new(
            // A time that several take together counts once.
            trip.Ask(
                $"SELECT cancelled_at IS NOT NULL FROM sessions WHERE workspace_id = {workspaceId} AND page_id = {linkId}",
                row => row.GetBoolean(0)
            ),
            trip.Ask(
                $"SELECT id, lower(span), upper(span) FROM commitments WHERE workspace_id = {workspaceId} AND holder_id = {linkId}",
                row => (row.GetGuid(0), new Span(row.GetFieldValue<Instant>(1), row.GetFieldValue<Instant>(2)))
            )
        );

    /// <summary>The link of a page; null for a page of a desk.</summary>
    /// <exception cref="Refusal">410 where it is revoked or ended, 409 where it took all that it takes.</exception>
    public async Task<AvailabilityLink?> RequireAsync(Page page, CancellationToken ct)
    {
        if (page.Offer is null)
            return null;
        var link = await db.Links.SingleAsync(row => row.Id == page.Id, ct);
        var now = clock.GetCurrentInstant();
        if (link.Course.MayBeTakenAt(now))
            return link;
        throw link switch
        {
            { RevokedAt: not null } => new Refusal(StatusCodes.Status410Gone, "revoked"),
            _ when now < link.EndsAt => new Refusal(StatusCodes.Status409Conflict, "link-taken"),
            _ => new Refusal(StatusCodes.Status410Gone, "ended"),
        };
    }

    /// <summary>Of a link by which each of several guests takes a time of their own, nobody takes two.</summary>
    /// <exception cref="Refusal">409 where this one has one.</exception>
    public async Task RequireOwnTurnAsync(AvailabilityLink link, BookingWish wish, CancellationToken ct)
    {
        if (link.Together || link.Guests.Count < 2)
            return;
        var (name, email) = (wish.GuestName, wish.GuestEmail.ToUpperInvariant());
        var hasOne = await db.Bookings.AnyAsync(
            row => row.Session!.PageId == link.Id && row.GuestName == name && row.GuestEmail.ToUpper() == email,
            ct
        );
        if (hasOne)
            throw new Refusal(StatusCodes.Status409Conflict, "link-yours-taken");
    }

    /// <summary>
    /// A time of it became a booking: what it held gives way, all of it where nothing more is to be taken, else what
    /// lies there.
    /// </summary>
    /// <param name="trip">Before what is written of the session, since the constraint looks at each row as it
    /// comes.</param>
    /// <param name="asked">Under the locks, before the session was added.</param>
    public void Taken(RoundTrip trip, AvailabilityLink link, Page page, Session session, LinkAsked asked)
    {
        var before = FactsOf(link, asked.Cancelled.Rows);
        var facts = before with { Booked = before.Booked + 1, NotCancelled = before.NotCancelled + 1 };
        link.Settle(LinkCourses.CourseOf(facts, ZoneOf(page)));
        var isLast = facts.Booked >= facts.Takes;
        if (isLast)
            link.HoldUntil = null;
        var ids = asked
            .Holds.Rows.Where(hold => isLast || hold.Span.Meets(session.Time.ToSpan()))
            .Select(hold => hold.Id)
            .ToArray();
        if (ids.Length == 0)
            return;
        wishes.Released(trip, ids);
        trip.Do($"DELETE FROM commitments WHERE id = ANY({ids})");
    }

    /// <summary>
    /// Keeps where a link stands, within the caller's transaction, once one of its bookings has ended or a guest has
    /// opened it; a page of a desk has no such thing.
    /// </summary>
    public async Task SettleAsync(Guid pageId, CancellationToken ct)
    {
        // Of two who change it at once neither undoes what the other wrote.
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM links WHERE id = {pageId} FOR NO KEY UPDATE", ct);
        if (await db.Links.Include(row => row.Page).SingleOrDefaultAsync(row => row.Id == pageId, ct) is not { } link)
            return;
        await SettleAsync(link, ct);
        await db.SaveChangesAsync(ct);
    }

    /// <param name="link">With its page. It is not saved.</param>
    public async Task SettleAsync(AvailabilityLink link, CancellationToken ct) =>
        link.Settle(LinkCourses.CourseOf(await FactsAsync(link, ct), ZoneOf(link.Page!)));

    /// <summary>Where one stands by which nothing can be booked yet, as it is not saved.</summary>
    public void SettleNew(AvailabilityLink link) =>
        link.Settle(LinkCourses.CourseOf(FactsOf(link, []), ZoneOf(link.Page!)));

    private static DateTimeZone ZoneOf(Page page) => DateTimeZoneProviders.Tzdb[page.Zone];

    private async Task<LinkFacts> FactsAsync(AvailabilityLink link, CancellationToken ct) =>
        FactsOf(
            link,
            await db
                .Sessions.IgnoreQueryFilters([LanternDb.NotCancelled])
                .Where(row => row.PageId == link.Id)
                .Select(row => row.CancelledAt != null)
                .ToListAsync(ct)
        );

    private static LinkFacts FactsOf(AvailabilityLink link, IReadOnlyList<bool> cancelled)
    {
        var notCancelled = cancelled.Count(isCancelled => !isCancelled);
        return new LinkFacts(
            link.OutAt,
            link.RevokedAt,
            link.LastOpenedAt,
            link.EndsOn,
            link.Takes,
            link.Reopens ? notCancelled : cancelled.Count,
            notCancelled
        );
    }
}
