using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Committing;

/// <summary>What a link lets be taken, asked and noted under the lock of its page.</summary>
public sealed class LinkTaking(LanternDb db, EventWishes wishes, IClock clock)
{
    /// <summary>The link of a page; null for a page of a desk.</summary>
    /// <exception cref="Refusal">410 where it is revoked or ended, 409 where it took all that it takes.</exception>
    public async Task<AvailabilityLink?> HoldToAsync(Page page, CancellationToken ct)
    {
        if (page.Offer is null)
            return null;
        var link = await db.Links.SingleAsync(row => row.Id == page.Id, ct);
        var (facts, today) = (
            await FactsAsync(link, ct),
            clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb[page.Zone]).Date
        );
        if (LinkStanding.MayBeTaken(facts, today))
            return link;
        throw facts switch
        {
            { RevokedAt: not null } => new Refusal(
                StatusCodes.Status410Gone,
                "revoked",
                "These times were taken back.",
                "Ask whoever sent them to you for others."
            ),
            _ when facts.Booked >= facts.Takes => new Refusal(
                StatusCodes.Status409Conflict,
                "link-taken",
                "A time was taken by this link already.",
                "Load it again to see which."
            ),
            _ => new Refusal(
                StatusCodes.Status410Gone,
                "ended",
                "These times are not offered any more.",
                "Ask whoever sent them to you for others."
            ),
        };
    }

    /// <summary>
    /// A time of it became a booking: what it held gives way, all of it where nothing more is to be taken, else what
    /// lies there.
    /// </summary>
    public async Task TakenAsync(AvailabilityLink link, Session session, CancellationToken ct)
    {
        var facts = await FactsAsync(link, ct);
        var isLast = facts.Booked + 1 >= facts.Takes;
        var holds = db.Commitments.Where(row => row.HolderId == link.Id && (isLast || row.Span.Overlaps(session.Time)));
        var ids = await holds.Select(row => row.Id).ToListAsync(ct);
        if (isLast)
            link.HoldUntil = null;
        if (ids.Count == 0)
            return;
        await wishes.ReleasedAsync(ids, ct);
        // At once, since the constraint looks at each row as it is written.
        await db.Commitments.Where(row => ids.Contains(row.Id)).ExecuteDeleteAsync(ct);
    }

    public async Task<LinkFacts> FactsAsync(AvailabilityLink link, CancellationToken ct)
    {
        var cancelled = await db
            .Bookings.IgnoreQueryFilters([LanternDb.Standing])
            .Where(row => row.Session!.PageId == link.Id)
            .Select(row => row.CancelledAt != null)
            .ToListAsync(ct);
        return FactsOf(link, cancelled.Count(isCancelled => !isCancelled), cancelled.Count(isCancelled => isCancelled));
    }

    /// <param name="standing">How many of its bookings stand.</param>
    /// <param name="cancelled">How many do not.</param>
    public static LinkFacts FactsOf(AvailabilityLink link, int standing, int cancelled) =>
        new(
            link.OutAt,
            link.RevokedAt,
            link.LastOpenedAt,
            link.EndsOn,
            link.Takes,
            standing + (link.Reopens ? 0 : cancelled),
            standing
        );
}
