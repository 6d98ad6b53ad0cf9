using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>Pages as guests see them.</summary>
public sealed class GuestPageViews(LanternDb db, Pictures pictures, IClock clock)
{
    /// <param name="page">With everything it includes; what it says need not be published.</param>
    /// <param name="hostsAt">Where the pictures of its hosts are; null for below its own address.</param>
    public async Task<GuestPage> OfAsync(Page page, string workspace, CancellationToken ct, string? hostsAt = null)
    {
        var now = clock.GetCurrentInstant();
        var (first, last) = PageRulesOf.DatesToAsk(page, now.InZone(DateTimeZoneProviders.Tzdb[page.Zone]).Date);
        var details = page.Details;
        var desk = page.Desk!;
        var (logo, banner) = await pictures.PathsAsync(desk.Id, DeskEndpoints.PathOf(desk.Address), ct);
        var (_, own) = await pictures.PathsAsync(
            page.Id,
            $"{DeskEndpoints.PathOf(desk.Address)}/pages/{page.Address}",
            ct
        );
        return new GuestPage(
            workspace,
            desk.Name,
            $"/{desk.Address}",
            PageView.PathOf(page),
            page.Title,
            Markdown.ToHtml(page.Description),
            page.PlaceKind,
            page.Place,
            Markdown.ToHtml(details.Place.Directions),
            details.Place.HostsRing,
            details.Face.ShowsHosts ? PageView.SeatNames(page) : [],
            details.Face.ShowsHosts
                ? await HostsAsync(page, hostsAt ?? $"/api/public/desks/{desk.Address}/pages/{page.Address}/hosts", ct)
                : [],
            page.Places,
            page.Zone,
            details.Face.PlaceZoneOnly,
            page.Durations,
            now,
            first,
            last,
            page.ApprovalHours,
            details.Face.Language,
            details.Face.Accent is { Length: > 0 } accent ? accent : desk.Accent,
            logo,
            own ?? banner,
            page.Changes.MayMove ? page.Changes.MoveUntil : null,
            page.Changes.MayCancel ? page.Changes.CancelUntil : null,
            GuestQuestions.Of(page),
            Guest: null
        )
        {
            CancelWords = page.Changes.CancelWords,
            MostParty = page.Places == 1 ? 1 : Math.Min(page.Places, page.Changes.MostBrought + 1),
            ForOthers = details.ForOthers,
        };
    }

    /// <summary>A host's picture, where the page shows its hosts; else null.</summary>
    public async Task<Portrait?> PortraitAsync(Page page, Guid hostId, CancellationToken ct)
    {
        var person = page
            .Seats.SelectMany(seat => seat.Hosts)
            .FirstOrDefault(host => host.HostId == hostId)
            ?.Host?.PersonId;
        return person is null || !page.Details.Face.ShowsHosts
            ? null
            : await db.Portraits.AsNoTracking().FirstOrDefaultAsync(row => row.PersonId == person, ct);
    }

    private async Task<IReadOnlyList<GuestHost>> HostsAsync(Page page, string root, CancellationToken ct)
    {
        var hosts = page
            .Seats.OrderBy(seat => seat.Position)
            .SelectMany(seat => seat.Hosts.OrderBy(host => host.Position))
            .Select(host => host.Host!)
            .DistinctBy(host => host.Id)
            .ToList();
        var people = hosts.Select(host => host.PersonId).OfType<Guid>().ToList();
        var lines = await db
            .Users.AsNoTracking()
            .Where(person => people.Contains(person.Id))
            .ToDictionaryAsync(person => person.Id, person => person.Line, ct);
        var pictured = await db
            .Portraits.Where(row => people.Contains(row.PersonId))
            .Select(row => row.PersonId)
            .ToListAsync(ct);
        return hosts.ConvertAll(host => new GuestHost(
            host.Name,
            host.PersonId is { } id ? lines.GetValueOrDefault(id, "") : "",
            host.PersonId is { } person && pictured.Contains(person) ? $"{root}/{host.Id}/portrait" : null
        ));
    }
}
