using LooseLantern.Core.LineUps;
using LooseLantern.Core.Links;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Letters;

/// <summary>What a letter offers, looked up for its guest.</summary>
/// <param name="Form">Of the link that is to be made; null where none is.</param>
/// <param name="Link">The link the guest has already.</param>
/// <param name="Page">The page that is offered, or that of the link, as it is saved or would be.</param>
/// <param name="Openings">How many there are; null where the guest is asked first, or nothing is offered.</param>
/// <param name="Times">Written out; null where there are none to show.</param>
public sealed record OfferInLetter(
    LinkForm? Form,
    AvailabilityLink? Link,
    Page? Page,
    int? Openings,
    LinkTextAnswer? Times,
    LocalDate? Ends
);

/// <summary>How much there is of an offer.</summary>
/// <param name="Room">How many guests can each have a time: fewer than there are openings, where those overlap.</param>
public sealed record OfferSupply(int Openings, int Room);

/// <summary>Looks up what letters offer, as it is now.</summary>
public sealed class LetterOffering(
    LanternDb db,
    LinkFilling filling,
    LinkEditing links,
    PageReading pages,
    OpeningsInputs inputs,
    LinkTexts texts,
    IClock clock
)
{
    private const int DaysLookedAt = 28;
    private const int UsualDays = 14;

    /// <summary>What the letter offers this guest now.</summary>
    /// <exception cref="Refusal">400 naming what of the offer is wrong; 409 for a link that is over.</exception>
    public async Task<OfferInLetter> OfAsync(LetterOffer offer, Guest guest, CancellationToken ct) =>
        offer.Kind == LetterOffers.Link
            ? await OfLinkAsync(offer, guest, ct)
            : (await ForEachAsync(offer, [guest], ct))[0];

    /// <summary>
    /// The same offered to several, each by a link or an address of their own; all draw on the same times.
    /// </summary>
    /// <param name="guests">At least one; they need not be saved.</param>
    /// <exception cref="Refusal">400 naming what of the offer is wrong.</exception>
    public async Task<IReadOnlyList<OfferInLetter>> ForEachAsync(
        LetterOffer offer,
        IReadOnlyList<Guest> guests,
        CancellationToken ct
    ) =>
        offer.Kind switch
        {
            LetterOffers.Pattern => await OfPatternAsync(offer, guests, ct),
            LetterOffers.Page => [.. Enumerable.Repeat(await OfPageAsync(offer, ct), guests.Count)],
            LetterOffers.Nothing => [.. guests.Select(_ => new OfferInLetter(null, null, null, null, null, null))],
            _ => throw Refusal.Invalid("offer.kind", "mailing-offer"),
        };

    /// <summary>
    /// All that a page or link offers, however few of it are shown at once. Null where nothing of ours is shown.
    /// </summary>
    /// <param name="most">At which room stops to be counted.</param>
    public async Task<OfferSupply?> SupplyAsync(Page page, int most, CancellationToken ct)
    {
        if (page.Offer?.Times.By == OfferBy.Asked)
            return null;
        // The times are counted that anybody can have: whose guest somebody is makes them no fewer.
        inputs.For(null, saved: null);
        var rules = inputs.Rules(page);
        var (today, last) = DatesOf(page, rules);
        return last >= today && await inputs.InputAsync(rules, today, last, page.Durations[0], ct) is { } input
            ? new OfferSupply(OpeningsComputation.Openings(input).Count, Room.For(input, most))
            : new OfferSupply(0, 0);
    }

    private (LocalDate First, LocalDate Last) DatesOf(Page page, AskedPage rules)
    {
        var today = inputs.Today(rules);
        return (
            today,
            page.Offer is { } offer
                ? LocalDate.Min(offer.Times.Until, today.PlusDays(PageLimits.MostDaysAsked - 1))
                : today.PlusDays(DaysLookedAt)
        );
    }

    private async Task<IReadOnlyList<OfferInLetter>> OfPatternAsync(
        LetterOffer offer,
        IReadOnlyList<Guest> guests,
        CancellationToken ct
    )
    {
        var pattern = await LetterPatterns.RequireAsync(db, offer.Id, "offer.id", ct);
        var form = pattern.Form;
        var today = clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb[form.Times.Zone]).Date;
        var until = offer.Until ?? today.PlusDays(UsualDays);
        form = For(guests[0], form) with
        {
            Times = form.Times with
            {
                LineUp = offer.LineUp is { Count: > 0 } lineUp ? lineUp : form.Times.LineUp,
                Overridden = [],
                Offer = form.Times.Offer with { Until = until },
            },
            Details = form.Details with { EndsOn = until, StartedFrom = $"the pattern “{pattern.Name}”", Topic = "" },
        };
        var tidy = await filling.CheckAsync(form, ct);
        if (until < today)
            throw Refusal.Invalid("offer.until", "link-until-past");
        var page = await filling.TryOutAsync(tidy.Times, null, ct);
        (page.Title, page.DeskId, page.PlaceKind, page.Place) = (tidy.Title, tidy.DeskId, tidy.PlaceKind, tidy.Place);

        // Openings are looked up once for all to whom the same ones show.
        var (shown, offers) = (new Dictionary<(string, Guid?), IReadOnlyList<Opening>>(), new List<OfferInLetter>());
        var countsKeeper = page.Seats.Any(seat => seat.Keeper != SeatKeeper.Counts);
        foreach (var guest in guests)
        {
            var own = For(guest, tidy);
            var key = (guest.Zone ?? "", countsKeeper ? guest.KeeperId : null);
            inputs.For(own.Guests, saved: null);
            if (!shown.TryGetValue(key, out var openings))
                shown[key] = openings = await ShownAsync(page, tidy.Details.Text, guest, ct);
            offers.Add(Written(page, tidy.Details.Text, guest, openings, own, null, until));
        }

        return offers;
    }

    private static LinkForm For(Guest guest, LinkForm form) =>
        form with
        {
            Guests = [new LinkGuest(guest.Name, LetterWriting.EmailOf(guest))],
            GuestZone = guest.Zone ?? "",
            GuestLanguage = LetterWriting.LanguageOf(guest),
        };

    private async Task<OfferInLetter> OfLinkAsync(LetterOffer offer, Guest guest, CancellationToken ct)
    {
        var id = offer.Id ?? throw Refusal.Invalid("offer.id", "letter-link");
        if (!await db.LinkGuests.AnyAsync(row => row.LinkId == id && row.GuestId == guest.Id, ct))
            throw Refusal.Invalid("offer.id", "letter-link");
        var link = await links.GetAsync(id, ct);
        if (!link.Course.MayBeTakenAt(clock.GetCurrentInstant()))
            throw new Refusal(StatusCodes.Status409Conflict, "letter-link-over");
        var openings = await ShownAsync(link.Page!, link.Text, guest, ct);
        return Written(link.Page!, link.Text, guest, openings, null, link, link.EndsOn);
    }

    private Task<IReadOnlyList<Opening>> ShownAsync(Page page, LinkText how, Guest guest, CancellationToken ct) =>
        texts.ShownAsync(page, guest.Zone ?? "", null, null, page.Durations[0], ct, how.MostListed);

    private OfferInLetter Written(
        Page page,
        LinkText how,
        Guest guest,
        IReadOnlyList<Opening> openings,
        LinkForm? form,
        AvailabilityLink? link,
        LocalDate ends
    )
    {
        if (page.Offer!.Times.By == OfferBy.Asked)
            return new OfferInLetter(form, link, page, null, null, ends);
        // The address has a blank of its own.
        var written = texts.Write(
            page,
            how with
            {
                WithAddress = false,
            },
            guest.Zone ?? "",
            LetterWriting.LanguageOf(guest),
            openings,
            null
        );
        return new OfferInLetter(form, link, page, openings.Count, written, ends);
    }

    private async Task<OfferInLetter> OfPageAsync(LetterOffer offer, CancellationToken ct)
    {
        var kept = offer.Id is { } id ? await pages.OfAsync(id, ct) : null;
        if (kept is not { Page: { State: PageState.Published, Offer: null } whole })
            throw Refusal.Invalid("offer.id", "letter-page");
        var rules = inputs.Rules(whole);
        var (today, last) = DatesOf(whole, rules);
        var openings = await inputs.OpeningsAsync(rules, today, last, whole.Durations[0], ct);
        return new OfferInLetter(null, null, whole, openings.Count, null, null);
    }
}
