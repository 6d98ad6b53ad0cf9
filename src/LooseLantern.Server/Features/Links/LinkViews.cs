using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
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

/// <param name="Total">How many there are in all, of which Rows is one run; 10,001 stands for more.</param>
/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
/// <param name="Mailings">How many mailings there are, whose links are listed only where words are searched.</param>
public sealed record LinkList(
    Instant Now,
    int Total,
    IReadOnlyList<LinkRow> Rows,
    string? Before,
    string? After,
    int Mailings
);

/// <summary>Links as their screens have them, in a fixed number of queries.</summary>
public sealed class LinkViews(
    LanternDb db,
    Tenancy.Tenant tenant,
    LinkAddresses addresses,
    Hosting.PublicAddress site,
    IClock clock
)
{
    // Core told where each stands when it last changed; one that is over by now stands as it said of then.
    private const string StateNow = "CASE WHEN l.ends_at <= @now THEN l.state_then ELSE l.state END";

    /// <summary>What waits longest first, then drafts, then what is over, latest first.</summary>
    /// <param name="state">Null for all.</param>
    /// <param name="search">In titles, guests, notes and what they were started from.</param>
    /// <exception cref="Hosting.Refusal">400 for a place that was never told of.</exception>
    public async Task<LinkList> ListAsync(LinkState? state, string? search, ListPlace place, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var (words, values) = LinkSearch.Containing(search ?? "");
        var all = $"{(words.Length > 0 ? "found" : "links")} l WHERE l.workspace_id = @workspace";
        // Those of a mailing are told of as one, by its row among the mailings.
        if (words.Length == 0)
            all += " AND l.mailing_id IS NULL";
        if (state is { } asked)
            all += $" AND {StateNow} = '{asked}'";
        var run = await ListRuns.ReadAsync(
            db,
            [
                // Nothing that is over waits.
                new(
                    $"{all} AND l.ends_at > @now AND l.state IN ('Out', 'Opened')",
                    "coalesce(l.asked_again_at, l.out_at, l.made_at)",
                    "l.id"
                ),
                .. new[] { LinkState.Draft, LinkState.Booked, LinkState.Ended, LinkState.Revoked }.Select(
                    one => new ListBlock(
                        $"{all} AND (l.state = '{one}' OR l.state_then = '{one}') AND {StateNow} = '{one}'",
                        "l.made_at",
                        "l.id",
                        Latest: true
                    )
                ),
            ],
            all,
            new Dictionary<string, object>(values) { ["workspace"] = tenant.WorkspaceId!.Value, ["now"] = now },
            place,
            ct,
            words.Length == 0
                ? null
                : $"""
                SELECT l.id, l.workspace_id, l.mailing_id, l.state, l.state_then, l.ends_at, l.asked_again_at, l.out_at, l.made_at
                FROM links l WHERE l.workspace_id = @workspace{words}
                """
        );
        var links = await db
            .Links.Include(link => link.Wishes)
            .AsNoTracking()
            .Where(link => run.Ids.Contains(link.Id))
            .AsSplitQuery()
            .ToListAsync(ct);
        var rows = (await OfAsync(links, ct)).ToDictionary(row => row.Id);
        return new LinkList(
            now,
            run.Total,
            [.. run.Ids.Where(rows.ContainsKey).Select(id => rows[id])],
            run.Before,
            run.After,
            await db.Mailings.CountAsync(ct)
        );
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
        // Only what a row tells: whole pages have a dozen tables.
        var told = await db
            .Pages.AsNoTracking()
            .Where(page => ids.Contains(page.Id))
            .Select(page => new
            {
                page.Id,
                page.Title,
                page.Zone,
                Seats = page
                    .Seats.OrderBy(seat => seat.Position)
                    .Select(seat => seat.Hosts.OrderBy(host => host.Position).Select(host => host.Host!.Name).ToList())
                    .ToList(),
            })
            .AsSplitQuery()
            .ToDictionaryAsync(page => page.Id, ct);
        // By their sessions, of which a link has few: how many a page has is beyond guessing.
        var sessions = await db
            .Sessions.IgnoreQueryFilters([LanternDb.NotCancelled])
            .Where(session => ids.Contains(session.PageId))
            .Select(session => new
            {
                session.Id,
                session.PageId,
                session.Time,
            })
            .ToDictionaryAsync(session => session.Id, ct);
        var bookings = (
            await db
                .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
                .AsNoTracking()
                .Where(booking => sessions.Keys.Contains(booking.SessionId))
                .Select(booking => new
                {
                    booking.Id,
                    booking.SessionId,
                    booking.GuestName,
                    booking.CancelledBy,
                })
                .ToListAsync(ct)
        ).Select(booking => (booking, session: sessions[booking.SessionId])).ToLookup(row => row.session.PageId, row => new LinkBookingView(row.booking.Id, row.booking.SessionId, row.booking.GuestName, row.session.Time.LowerBound, row.session.Time.UpperBound, row.booking.CancelledBy));
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
                var page = told[link.Id];
                var own = bookings[link.Id].OrderBy(booking => booking.Start).ToList();
                var course = link.Course;
                return new LinkRow(
                    link.Id,
                    course.StateAt(now),
                    page.Title,
                    [.. link.Guests.Select(guest => guest.Name)],
                    page.Seats,
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
