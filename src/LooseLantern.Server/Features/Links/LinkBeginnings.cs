using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Features.Links;

public sealed record PageBeginning(Guid Id, string Title, string Desk);

public sealed record LinkBeginning(Guid Id, string Title, IReadOnlyList<string> Guests, Instant MadeAt);

public sealed record PatternBeginning(Guid Id, string Name, LinkForm Form);

/// <param name="Entry">By which its people are asked for.</param>
/// <param name="Minutes">How long it was.</param>
/// <param name="HostIds">Who had it in their calendars.</param>
public sealed record EventBeginning(long Entry, string Title, Instant Start, int Minutes, IReadOnlyList<Guid> HostIds);

/// <summary>A guest who is known from bookings.</summary>
public sealed record KnownGuest(string Name, string Email, string Zone, string Language);

/// <summary>How many more of each there are than are listed; they are found by a search.</summary>
public sealed record MoreBeginnings(int Pages, int Links, int Patterns, int Events);

/// <summary>What a link can be started from: the latest first.</summary>
public sealed record BeginningsAnswer(
    IReadOnlyList<PageBeginning> Pages,
    IReadOnlyList<LinkBeginning> Links,
    IReadOnlyList<PatternBeginning> Patterns,
    IReadOnlyList<EventBeginning> Events,
    IReadOnlyList<KnownGuest> Guests,
    MoreBeginnings More,
    LastUsed Last
);

/// <summary>What was used last, to press instead of choosing it again.</summary>
/// <param name="DeskId">Of the last link of whoever asks; null before there is one.</param>
/// <param name="LineUp">With whom their last link was; empty before there is one.</param>
/// <param name="Durations">Minutes, those that the team's links took last; the latest first.</param>
public sealed record LastUsed(Guid? DeskId, IReadOnlyList<Pages.SeatForm> LineUp, IReadOnlyList<int> Durations);

public sealed record PatternForm(string Name, LinkForm Form);

/// <summary>What links are started from, and the patterns that are saved for it.</summary>
public sealed class LinkBeginnings(
    LanternDb db,
    LinkFilling filling,
    Allowances allowances,
    Tenant tenant,
    Actor actor,
    IClock clock
)
{
    private const int Most = 12;
    private const int MostPatterns = 200;
    private const int MostLookedAt = 20;
    private const int MostDurations = 4;
    private static readonly Duration Behind = Duration.FromDays(120);

    /// <param name="search">Words, guests, titles; null for the latest.</param>
    public async Task<BeginningsAnswer> FindAsync(string? search, CancellationToken ct)
    {
        var like = Words.Containing(search ?? "");
        var allPages = db.DeskPages.Where(page =>
            page.State != PageState.Archived && EF.Functions.ILike(page.Title, like, "\\")
        );
        var pages = await allPages
            .OrderBy(page => page.Title)
            .Take(Most)
            .Select(page => new PageBeginning(page.Id, page.Title, page.Desk!.Name))
            .ToListAsync(ct);
        // One mailing would fill the list with links that are all alike.
        var isSearched = !string.IsNullOrWhiteSpace(search);
        var allLinks = db.LinksContaining(search ?? "").Where(link => isSearched || link.MailingId == null);
        var links = await allLinks
            .AsNoTracking()
            .Include(link => link.Page)
            .OrderByDescending(link => link.MadeAt)
            .Take(Most)
            .ToListAsync(ct);
        var allPatterns = db.LinkPatterns.Where(pattern => EF.Functions.ILike(pattern.Name, like, "\\"));
        var patterns = await allPatterns.AsNoTracking().OrderBy(pattern => pattern.Name).Take(Most).ToListAsync(ct);
        var (events, moreEvents) = await EventsAsync(like, ct);
        return new BeginningsAnswer(
            pages,
            links.ConvertAll(link => new LinkBeginning(
                link.Id,
                link.Page!.Title,
                [.. link.Guests.Select(guest => guest.Name)],
                link.MadeAt
            )),
            patterns.ConvertAll(pattern => new PatternBeginning(pattern.Id, pattern.Name, pattern.Form)),
            events,
            await GuestsAsync(like, ct),
            new MoreBeginnings(
                await MoreAsync(allPages, pages.Count, ct),
                await MoreAsync(allLinks, links.Count, ct),
                await MoreAsync(allPatterns, patterns.Count, ct),
                moreEvents
            ),
            await LastAsync(ct)
        );
    }

    private async Task<LastUsed> LastAsync(CancellationToken ct)
    {
        var latest = await db
            .Links.AsNoTracking()
            .OrderByDescending(link => link.MadeAt)
            .Take(MostLookedAt)
            .Select(link => link.Page!.Durations)
            .ToListAsync(ct);
        var personId = actor.Person?.Id;
        var own = personId is null
            ? null
            : await db
                .Links.AsNoTracking()
                .Where(link => link.MadeBy == personId && !link.IsAmongOurselves)
                .OrderByDescending(link => link.MadeAt)
                .Include(link => link.Page!)
                    .ThenInclude(page => page.Seats)
                        .ThenInclude(seat => seat.Hosts)
                            .ThenInclude(host => host.Host)
                .FirstOrDefaultAsync(ct);
        return new LastUsed(
            own?.Page!.DeskId,
            [
                .. (own?.Page!.Seats ?? [])
                    .OrderBy(seat => seat.Position)
                    .Select(seat => new Pages.SeatForm(
                        [
                            .. seat
                                .Hosts.Where(host => host.Host!.RetiredAt == null)
                                .OrderBy(host => host.Position)
                                .Select(host => host.HostId),
                        ],
                        seat.Fill
                    ))
                    .Where(seat => seat.HostIds.Count > 0),
            ],
            [.. latest.SelectMany(durations => durations).Distinct().Take(MostDurations)]
        );
    }

    /// <summary>How many are not listed; counted only where a list is full.</summary>
    private static async Task<int> MoreAsync<T>(IQueryable<T> all, int listed, CancellationToken ct) =>
        listed < Most ? 0 : await all.CountAsync(ct) - listed;

    /// <summary>Past events whose titles whoever asks may read, each with everybody who had it.</summary>
    private async Task<(IReadOnlyList<EventBeginning> Listed, int More)> EventsAsync(string like, CancellationToken ct)
    {
        var titled = await allowances.HostsAsync(Allowance.SeeTitles, ct);
        var now = clock.GetCurrentInstant();
        var past = new NpgsqlRange<Instant>(
            now - Behind,
            lowerBoundIsInclusive: true,
            now,
            upperBoundIsInclusive: false
        );
        var entries = await db
            .CalendarEntries.AsNoTracking()
            .Where(entry =>
                titled.Contains(entry.HostId)
                && entry.Span.Overlaps(past)
                && !entry.WholeDay
                && entry.Title != ""
                && EF.Functions.ILike(entry.Title, like, "\\")
            )
            .OrderByDescending(entry => entry.Span)
            .Take(400)
            .Select(entry => new
            {
                entry.Id,
                entry.Title,
                entry.Span,
                entry.HostId,
            })
            .ToListAsync(ct);
        var events = entries
            .GroupBy(entry => (entry.Title, entry.Span.LowerBound, entry.Span.UpperBound))
            .GroupBy(same => same.Key.Title, StringComparer.OrdinalIgnoreCase)
            .Select(again => again.MaxBy(same => same.Key.LowerBound)!)
            .OrderByDescending(same => same.Key.LowerBound)
            .ToList();
        return (
            [
                .. events
                    .Take(Most)
                    .Select(same => new EventBeginning(
                        same.First().Id,
                        same.Key.Title,
                        same.Key.LowerBound,
                        (int)(same.Key.UpperBound - same.Key.LowerBound).TotalMinutes,
                        [.. same.Select(entry => entry.HostId).Distinct()]
                    )),
            ],
            Math.Max(0, events.Count - Most)
        );
    }

    /// <summary>Guests who can be written to, those whom the team knows latest first.</summary>
    private async Task<IReadOnlyList<KnownGuest>> GuestsAsync(string like, CancellationToken ct) =>
        await db
            .Guests.AsNoTracking()
            .Where(guest =>
                guest.MergedInto == null
                && guest.Emails.Count > 0
                && (
                    EF.Functions.ILike(guest.Name, like, "\\")
                    || guest.Emails.Any(email => EF.Functions.ILike(email.Email, like, "\\"))
                )
            )
            .OrderByDescending(guest => guest.MadeAt)
            .ThenBy(guest => guest.Id)
            .Take(Most)
            .Select(guest => new KnownGuest(
                guest.Name,
                guest.Emails.OrderBy(email => email.Place).ThenBy(email => email.Key).First().Email,
                guest.Zone ?? "",
                guest.Language ?? "en"
            ))
            .ToListAsync(ct);

    /// <summary>
    /// Saves an offer under a name; one of that name is written over. Picks and guests are not part of a pattern.
    /// </summary>
    /// <exception cref="Refusal">400 for a name or an offer that is wrong.</exception>
    public async Task<PatternBeginning> SaveAsync(PatternForm pattern, CancellationToken ct)
    {
        if (!Words.FitOneLine(pattern.Name))
            throw Refusal.Invalid("name", "pattern-name");
        var form = await filling.CheckAsync(pattern.Form, ct);
        form = form with
        {
            Guests = [],
            GuestZone = "",
            Times = form.Times with
            {
                Offer = form.Times.Offer with
                {
                    Picked = [],
                    Painted = [.. form.Times.Offer.Painted.Where(paint => paint.IsWeekly)],
                },
            },
            Details = form.Details with { Notes = "", StartedFrom = "" },
        };
        var name = pattern.Name.Trim();
        var row = await db.LinkPatterns.FirstOrDefaultAsync(known => known.Name == name, ct);
        if (row is null)
        {
            if (await db.LinkPatterns.CountAsync(ct) >= MostPatterns)
                throw Refusal.Invalid("name", Phrase.Of("patterns-full", ("most", MostPatterns)));
            db.LinkPatterns.Add(
                row = new LinkPattern
                {
                    WorkspaceId = tenant.WorkspaceId!.Value,
                    Name = name,
                    Form = form,
                    SavedAt = clock.GetCurrentInstant(),
                }
            );
        }
        else
            (row.Form, row.SavedAt) = (form, clock.GetCurrentInstant());
        await db.SaveChangesAsync(ct);
        return new PatternBeginning(row.Id, row.Name, row.Form);
    }

    public async Task RemoveAsync(Guid id, CancellationToken ct)
    {
        if (await db.LinkPatterns.Where(pattern => pattern.Id == id).ExecuteDeleteAsync(ct) == 0)
            throw Refusal.NotFound("pattern");
    }
}
