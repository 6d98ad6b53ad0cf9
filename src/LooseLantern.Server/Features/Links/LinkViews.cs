using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Committing;
using LooseLantern.Server.Features.Pages;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>What was booked by a link.</summary>
public sealed record LinkBookingView(Guid Id, string Guest, Instant Start, Instant End, bool IsCancelled);

/// <summary>A time that is held for a link.</summary>
/// <param name="Hosts">On whose calendars.</param>
public sealed record HeldView(Instant Start, Instant End, Instant? Until, IReadOnlyList<string> Hosts);

public sealed record WishView(Guid Id, Instant Start, Instant End, string Words, Instant At);

/// <summary>A link in a list.</summary>
/// <param name="Hosts">Of each seat.</param>
/// <param name="WaitsSince">Since when its guest is waited for; null where nobody is.</param>
/// <param name="NoneLeft">Whether nothing of it is open any more, though it is out.</param>
public sealed record LinkRow(
    Guid Id,
    LinkState State,
    string Title,
    IReadOnlyList<string> Guests,
    IReadOnlyList<IReadOnlyList<string>> Hosts,
    string MadeBy,
    Instant MadeAt,
    Instant? OutAt,
    Instant? FirstOpenedAt,
    Instant? LastOpenedAt,
    int Opened,
    Instant? WaitsSince,
    int AskedAgain,
    int Held,
    Instant? HoldUntil,
    bool NoneLeft,
    int Wishes,
    LocalDate EndsOn,
    string Zone,
    string Path,
    bool IsAmongOurselves,
    IReadOnlyList<LinkBookingView> Bookings
);

/// <summary>A link as its screen has it.</summary>
/// <param name="Address">Whole.</param>
public sealed record LinkView(
    LinkRow Row,
    int Version,
    string Address,
    LinkForm Form,
    IReadOnlyList<HeldView> Holds,
    IReadOnlyList<WishView> Wishes
);

/// <param name="Total">How many there are in all, of which Rows is one run.</param>
public sealed record LinkList(Instant Now, int Total, IReadOnlyList<LinkRow> Rows);

/// <summary>Links as their screens have them, in a fixed number of queries.</summary>
public sealed class LinkViews(
    LanternDb db,
    PageEditing pages,
    LinkAddresses addresses,
    Post.SiteAddress site,
    IClock clock
)
{
    /// <summary>What waits longest first, then drafts, then what is over, latest first.</summary>
    /// <param name="state">Null for all.</param>
    /// <param name="search">In titles, guests, notes and what they were started from.</param>
    public async Task<LinkList> ListAsync(LinkState? state, string? search, int skip, int take, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var found = (await StandingsAsync(db.LinksContaining(search ?? ""), now, ct))
            .Where(one => state is null || one.State == state)
            .OrderBy(one => one.WaitsSince ?? Instant.MaxValue)
            .ThenBy(one => one.State)
            .ThenByDescending(one => one.MadeAt)
            .ToList();
        var ids = found.Skip(skip).Take(take).Select(one => one.Id).ToList();
        var links = await db
            .Links.Include(link => link.Wishes)
            .AsNoTracking()
            .Where(link => ids.Contains(link.Id))
            .AsSplitQuery()
            .ToListAsync(ct);
        return new LinkList(now, found.Count, [.. (await OfAsync(links, ct)).OrderBy(row => ids.IndexOf(row.Id))]);
    }

    /// <summary>
    /// Where each of them stands. It is told from facts as elsewhere, of all of them, since those who wait longest are
    /// the oldest.
    /// </summary>
    private async Task<List<Standing>> StandingsAsync(
        IQueryable<AvailabilityLink> asked,
        Instant now,
        CancellationToken ct
    )
    {
        var links = await asked.AsNoTracking().Select(link => new { Link = link, link.Page!.Zone }).ToListAsync(ct);
        var bookings = await db
            .Bookings.IgnoreQueryFilters([LanternDb.Standing])
            .Where(booking => db.Links.Any(link => link.Id == booking.Session!.PageId))
            .GroupBy(booking => booking.Session!.PageId)
            .Select(group => new
            {
                group.Key,
                Standing = group.Count(booking => booking.CancelledAt == null),
                Cancelled = group.Count(booking => booking.CancelledAt != null),
            })
            .ToDictionaryAsync(group => group.Key, ct);
        return links.ConvertAll(row =>
        {
            var counts = bookings.GetValueOrDefault(row.Link.Id);
            var (facts, today) = (
                LinkTaking.FactsOf(row.Link, counts?.Standing ?? 0, counts?.Cancelled ?? 0),
                now.InZone(DateTimeZoneProviders.Tzdb[row.Zone]).Date
            );
            return new Standing(
                row.Link.Id,
                LinkStanding.Of(facts, today),
                LinkStanding.WaitsSince(facts, today, row.Link.AskedAgainAt),
                row.Link.MadeAt
            );
        });
    }

    /// <param name="link">With its page, whole, and its wishes.</param>
    public async Task<LinkView> OfAsync(AvailabilityLink link, CancellationToken ct)
    {
        var row = (await OfAsync([link], ct))[0];
        var now = clock.GetCurrentInstant();
        var holds = await db
            .Commitments.AsNoTracking()
            .Where(held => held.HolderId == link.Id && held.HeldUntil > now)
            .Join(
                db.Hosts,
                held => held.HostId,
                host => host.Id,
                (held, host) =>
                    new
                    {
                        held.Span,
                        held.HeldUntil,
                        host.Name,
                    }
            )
            .ToListAsync(ct);
        var secret = addresses.Reveal(link.ProtectedSecret);
        return new LinkView(
            row,
            link.Page!.Version,
            site.Value + LinkAddresses.Path(link.Topic, secret),
            LinkFilling.FormOf(link),
            [
                .. holds
                    .GroupBy(held => (held.Span.LowerBound, held.Span.UpperBound))
                    .OrderBy(group => group.Key)
                    .Select(group => new HeldView(
                        group.Key.LowerBound,
                        group.Key.UpperBound,
                        group.First().HeldUntil,
                        [.. group.Select(held => held.Name).Order()]
                    )),
            ],
            [
                .. link
                    .Wishes.OrderBy(wish => wish.Start)
                    .Select(wish => new WishView(wish.Id, wish.Start, wish.End, wish.Words, wish.At)),
            ]
        );
    }

    private async Task<IReadOnlyList<LinkRow>> OfAsync(IReadOnlyList<AvailabilityLink> links, CancellationToken ct)
    {
        var ids = links.Select(link => link.Id).ToList();
        var now = clock.GetCurrentInstant();
        var whole = await pages
            .Whole()
            .AsNoTracking()
            .Where(page => ids.Contains(page.Id))
            .ToDictionaryAsync(page => page.Id, ct);
        var bookings = (
            await db
                .Bookings.IgnoreQueryFilters([LanternDb.Standing])
                .AsNoTracking()
                .Where(booking => ids.Contains(booking.Session!.PageId))
                .Select(booking => new
                {
                    booking.Session!.PageId,
                    View = new LinkBookingView(
                        booking.Id,
                        booking.GuestName,
                        booking.Session.Time.LowerBound,
                        booking.Session.Time.UpperBound,
                        booking.CancelledAt != null
                    ),
                })
                .ToListAsync(ct)
        ).ToLookup(row => row.PageId, row => row.View);
        var held = await db
            .Commitments.Where(row => ids.Contains(row.HolderId) && row.HeldUntil > now)
            .GroupBy(row => row.HolderId)
            .Select(group => new { group.Key, Count = group.Select(row => row.Span).Distinct().Count() })
            .ToDictionaryAsync(group => group.Key, group => group.Count, ct);
        var makers = links.Select(link => link.MadeBy).OfType<Guid>().Distinct().ToList();
        var names = await db
            .Users.Where(person => makers.Contains(person.Id))
            .ToDictionaryAsync(person => person.Id, person => person.Name, ct);
        return
        [
            .. links.Select(link =>
            {
                var page = whole[link.Id];
                var own = bookings[link.Id].OrderBy(booking => booking.Start).ToList();
                var facts = LinkTaking.FactsOf(
                    link,
                    own.Count(booking => !booking.IsCancelled),
                    own.Count(booking => booking.IsCancelled)
                );
                var today = now.InZone(DateTimeZoneProviders.Tzdb[page.Zone]).Date;
                return new LinkRow(
                    link.Id,
                    LinkStanding.Of(facts, today),
                    page.Title,
                    [.. link.Guests.Select(guest => guest.Name)],
                    PageView.SeatNames(page),
                    link.MadeBy is { } maker ? names.GetValueOrDefault(maker, "") : "",
                    link.MadeAt,
                    link.OutAt,
                    link.FirstOpenedAt,
                    link.LastOpenedAt,
                    link.Opened,
                    LinkStanding.WaitsSince(facts, today, link.AskedAgainAt),
                    link.AskedAgain,
                    held.GetValueOrDefault(link.Id),
                    held.ContainsKey(link.Id) ? link.HoldUntil : null,
                    link.NoneLeftAt is not null && LinkStanding.IsOpen(facts, today),
                    link.Wishes.Count,
                    link.EndsOn,
                    page.Zone,
                    LinkAddresses.Path(link.Topic, addresses.Reveal(link.ProtectedSecret)),
                    link.IsAmongOurselves,
                    own
                );
            }),
        ];
    }

    private sealed record Standing(Guid Id, LinkState State, Instant? WaitsSince, Instant MadeAt);
}
