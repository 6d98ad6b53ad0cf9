using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Letters;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>What a mailing offers its silent guests now.</summary>
/// <param name="Page">The page that is offered, whole; null where each has a link.</param>
/// <param name="ByLink">What each link shows.</param>
public sealed record OfferedNow(Page? Page, IReadOnlyDictionary<Guid, IReadOnlyList<Opening>> ByLink);

/// <summary>Looks up what is still open of a mailing, for those who are asked again.</summary>
public sealed class MailingOffered(
    LanternDb db,
    LinkEditing links,
    LinkTexts texts,
    PageReading reading,
    LetterOffering offering
)
{
    /// <param name="silent">At least one.</param>
    /// <exception cref="Refusal">409 where nothing is left.</exception>
    public async Task<OfferedNow> OfAsync(Mailing mailing, List<MailingGuestRow> silent, CancellationToken ct)
    {
        if (mailing.PageId is { } pageId)
        {
            var page = (await reading.OfAsync(pageId, ct))!.Page;
            return await offering.SupplyAsync(page, 1, ct) is { Room: 0 }
                ? throw NoneLeft()
                : new OfferedNow(page, new Dictionary<Guid, IReadOnlyList<Opening>>());
        }

        var first = await links.GetAsync(silent[0].LinkId!.Value, ct);
        var countsKeeper = first.Page!.Seats.Any(seat => seat.Keeper != SeatKeeper.Counts);
        var keepers = countsKeeper ? await KeepersAsync(silent, ct) : [];
        var zones = await db
            .Links.Where(row => row.MailingId == mailing.Id)
            .ToDictionaryAsync(row => row.Id, row => row.GuestZone, ct);
        var (byLink, shown) = (
            new Dictionary<Guid, IReadOnlyList<Opening>>(),
            new Dictionary<(string, Guid?), IReadOnlyList<Opening>>()
        );
        foreach (var guest in silent)
        {
            // All draw on the same times; where hosts' own guests come first, those of one keeper do.
            var id = guest.LinkId!.Value;
            var key = (zones[id], guest.GuestId is { } known ? keepers.GetValueOrDefault(known) : null);
            if (!shown.TryGetValue(key, out var openings))
                shown[key] = openings = await ShownAsync(
                    countsKeeper ? await links.GetAsync(id, ct) : first,
                    key.Item1,
                    ct
                );
            if (openings.Count == 0 && !LinkPost.AsksFirst(first))
                throw NoneLeft();
            byLink[id] = openings;
        }

        db.ChangeTracker.Clear();
        return new OfferedNow(null, byLink);
    }

    private Task<Dictionary<Guid, Guid?>> KeepersAsync(List<MailingGuestRow> guests, CancellationToken ct)
    {
        var ids = guests.ConvertAll(guest => guest.GuestId);
        return db.Guests.Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.KeeperId, ct);
    }

    private Task<IReadOnlyList<Opening>> ShownAsync(AvailabilityLink link, string zone, CancellationToken ct) =>
        texts.ShownAsync(link.Page!, zone, null, null, link.Page!.Durations[0], ct, link.Text.MostListed);

    private static Refusal NoneLeft() => new(StatusCodes.Status409Conflict, "none-left");
}
