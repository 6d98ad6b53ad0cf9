using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Pages;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>What was booked by a link.</summary>
/// <param name="CancelledBy">Null for one that stands.</param>
public sealed record LinkBookingView(
    Guid Id,
    Guid SessionId,
    string Guest,
    Instant Start,
    Instant End,
    CancelledBy? CancelledBy
);

/// <summary>A time that is held for a link.</summary>
/// <param name="Hosts">On whose calendars.</param>
public sealed record HeldView(Instant Start, Instant End, Instant? Until, IReadOnlyList<string> Hosts);

/// <param name="By">Who wrote it; empty where nobody gave a name.</param>
public sealed record WishView(Guid Id, Instant Start, Instant End, string Words, Instant At, string By);

/// <summary>A link in a list.</summary>
/// <param name="Hosts">Of each seat.</param>
/// <param name="GivenAt">When its times were given out as text, without its address.</param>
/// <param name="WaitsSince">Since when its guest is waited for; null where nobody is.</param>
/// <param name="Suits">How many guests who were asked first have said which times suit them.</param>
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
    Instant? GivenAt,
    Instant? FirstOpenedAt,
    Instant? LastOpenedAt,
    int Opened,
    Instant? WaitsSince,
    int AskedAgain,
    int Held,
    Instant? HoldUntil,
    bool NoneLeft,
    int Wishes,
    int Suits,
    LocalDate EndsOn,
    string Zone,
    string? Path,
    bool IsAmongOurselves,
    IReadOnlyList<LinkBookingView> Bookings
);

/// <summary>A link as its screen has it.</summary>
/// <param name="Address">Whole; null for a draft, whose address leads nowhere yet.</param>
public sealed record LinkView(
    LinkRow Row,
    int Version,
    string? Address,
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
    Hosting.PublicAddress site,
    IClock clock
)
{
    /// <summary>What waits longest first, then drafts, then what is over, latest first.</summary>
    /// <param name="state">Null for all.</param>
    /// <param name="search">In titles, guests, notes and what they were started from.</param>
    public async Task<LinkList> ListAsync(LinkState? state, string? search, int skip, int take, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        // Core told where each stands when it last changed; one that is over by now stands as it said of then.
        var found = db.LinksContaining(search ?? "")
            .Select(link => new
            {
                link.Id,
                link.MadeAt,
                State = link.EndsAt <= now ? link.StateThen : link.State,
                Since = link.AskedAgainAt ?? link.OutAt,
            })
            .Where(one => state == null || one.State == state);
        var total = await found.CountAsync(ct);
        var ids = await found
            .OrderBy(one =>
                one.State == LinkState.Out || one.State == LinkState.Opened ? 0
                : one.State == LinkState.Draft ? 1
                : one.State == LinkState.Booked ? 2
                : one.State == LinkState.Ended ? 3
                : 4
            )
            .ThenBy(one => one.State == LinkState.Out || one.State == LinkState.Opened ? one.Since : null)
            .ThenByDescending(one => one.MadeAt)
            .ThenBy(one => one.Id)
            .Skip(skip)
            .Take(take)
            .Select(one => one.Id)
            .ToListAsync(ct);
        var links = await db
            .Links.Include(link => link.Wishes)
            .AsNoTracking()
            .Where(link => ids.Contains(link.Id))
            .AsSplitQuery()
            .ToListAsync(ct);
        return new LinkList(now, total, [.. (await OfAsync(links, ct)).OrderBy(row => ids.IndexOf(row.Id))]);
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
        return new LinkView(
            row,
            link.Page!.Version,
            PathOf(link) is { } path ? site.Value + path : null,
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
                    .Select(wish => new WishView(wish.Id, wish.Start, wish.End, wish.Words, wish.At, wish.By)),
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
                .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
                .AsNoTracking()
                .Where(booking => ids.Contains(booking.Session!.PageId))
                .Select(booking => new
                {
                    booking.Session!.PageId,
                    View = new LinkBookingView(
                        booking.Id,
                        booking.SessionId,
                        booking.GuestName,
                        booking.Session.Time.LowerBound,
                        booking.Session.Time.UpperBound,
                        booking.CancelledBy
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
                var course = link.Course;
                return new LinkRow(
                    link.Id,
                    course.StateAt(now),
                    page.Title,
                    [.. link.Guests.Select(guest => guest.Name)],
                    PageView.SeatNames(page),
                    link.MadeBy is { } maker ? names.GetValueOrDefault(maker, "") : "",
                    link.MadeAt,
                    link.OutAt,
                    link.GivenAt,
                    link.FirstOpenedAt,
                    link.LastOpenedAt,
                    link.Opened,
                    // Guests who said what suits them wait for us.
                    link.Suits.Count >= Math.Max(1, link.Guests.Count)
                        ? null
                        : course.WaitsSinceAt(now, link.OutAt, link.AskedAgainAt),
                    link.AskedAgain,
                    held.GetValueOrDefault(link.Id),
                    held.ContainsKey(link.Id) ? link.HoldUntil : null,
                    link.NoneLeftAt is not null && course.IsOpenAt(now),
                    link.Wishes.Count,
                    link.Suits.Count,
                    link.EndsOn,
                    page.Zone,
                    PathOf(link),
                    link.IsAmongOurselves,
                    own
                );
            }),
        ];
    }

    /// <summary>From the root of the site; null for a draft.</summary>
    private string? PathOf(AvailabilityLink link) =>
        link.OutAt is null ? null : LinkAddresses.Path(link.Topic, addresses.Reveal(link.ProtectedSecret));
}
