using System.Globalization;
using System.Net;
using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Letters;

/// <summary>What a letter offers, looked up for its guest.</summary>
/// <param name="Form">Of the link that is to be made; null where none is.</param>
/// <param name="Link">The link the guest has already.</param>
/// <param name="Page">The page that is offered, or that of the link, as it is saved or would be.</param>
/// <param name="Openings">How many there are; null where the guest is asked first, or nothing is offered.</param>
/// <param name="Times">Written out; empty where there are none to show.</param>
public sealed record OfferInLetter(
    LinkForm? Form,
    AvailabilityLink? Link,
    Page? Page,
    int? Openings,
    LinkTextAnswer? Times,
    LocalDate? Ends
);

/// <summary>Fills the blanks of letters in.</summary>
public sealed class LetterWriting(
    LanternDb db,
    GuestDetails guests,
    LetterEditing letters,
    LinkFilling filling,
    LinkEditing links,
    PageReading pages,
    OpeningsInputs inputs,
    LinkTexts texts,
    PublicAddress site,
    Actor actor,
    IClock clock
)
{
    private const string Times = "⟦times⟧";
    private const int DaysLookedAt = 28;
    private const int UsualDays = 14;

    public async Task<Guest> GuestAsync(Guid id, CancellationToken ct) => await guests.FindAsync(id, ct);

    /// <summary>The letter as it would go out now; nothing is made or sent.</summary>
    /// <exception cref="Refusal">400 naming what of the words or the offer is wrong; 404 for what is not
    /// there.</exception>
    public async Task<LetterPreview> PreviewAsync(LetterRequest request, CancellationToken ct)
    {
        await letters.RequireWordsAsync(request.Subject, request.Body, ct);
        var guest = await GuestAsync(request.GuestId, ct);
        var offer = await OfferAsync(request.Offer, guest, ct);
        var written = await WriteAsync(request, guest, offer, address: "…", ct);
        return new LetterPreview(
            written.Mail.Subject,
            PostInserts.Masked(written.Mail.Text),
            PostInserts.Masked(written.Mail.Html),
            EmailOf(guest),
            written.Unfilled,
            offer.Openings,
            LanguageOf(guest),
            ZoneOf(guest, offer)
        );
    }

    /// <summary>What can be offered to this guest now.</summary>
    public async Task<LetterChoices> ChoicesAsync(Guid guestId, CancellationToken ct)
    {
        var guest = await GuestAsync(guestId, ct);
        var now = clock.GetCurrentInstant();
        var theirs = db.LinkGuests.Where(row => row.GuestId == guest.Id).Select(row => row.LinkId);
        return new LetterChoices(
            await db
                .LinkPatterns.AsNoTracking()
                .OrderBy(row => row.Name)
                .Select(row => new NamedPattern(row.Id, row.Name))
                .ToListAsync(ct),
            await db
                .Links.AsNoTracking()
                .Where(link => theirs.Contains(link.Id) && link.TakesMore && link.EndsAt > now)
                .OrderByDescending(link => link.MadeAt)
                .Select(link => new NamedLink(link.Id, link.Page!.Title, link.EndsOn))
                .ToListAsync(ct),
            await db
                .DeskPages.AsNoTracking()
                .Where(page => page.State == PageState.Published)
                .OrderBy(page => page.Title)
                .ThenBy(page => page.Id)
                .Select(page => new NamedPage(page.Id, page.Title, page.Desk!.Name))
                .ToListAsync(ct)
        );
    }

    public static string EmailOf(Guest guest) =>
        guest
            .Emails.OrderBy(email => email.Place)
            .ThenBy(email => email.Key)
            .Select(email => email.Email)
            .FirstOrDefault()
        ?? "";

    public static string LanguageOf(Guest guest) => guest.Language ?? "en";

    public static string ZoneOf(Guest guest, OfferInLetter offer) => guest.Zone ?? offer.Page?.Zone ?? "UTC";

    /// <summary>What the letter offers this guest now.</summary>
    /// <exception cref="Refusal">400 naming what of the offer is wrong; 409 for a link that is over.</exception>
    public async Task<OfferInLetter> OfferAsync(LetterOffer offer, Guest guest, CancellationToken ct) =>
        offer.Kind switch
        {
            LetterOffers.Pattern => await OfPatternAsync(offer, guest, ct),
            LetterOffers.Link => await OfLinkAsync(offer, guest, ct),
            LetterOffers.Page => await OfPageAsync(offer, ct),
            _ => new OfferInLetter(null, null, null, null, null, null),
        };

    /// <summary>The words with all blanks filled in, and which of those that are needed are not.</summary>
    /// <param name="address">Where the guest books, from the root of the site.</param>
    public async Task<(WrittenMail Mail, IReadOnlyList<string> Unfilled)> WriteAsync(
        LetterRequest request,
        Guest guest,
        OfferInLetter offer,
        string address,
        CancellationToken ct
    )
    {
        var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
        var deskId = offer.Page?.DeskId;
        var desk = await db
            .Desks.AsNoTracking()
            .Where(row => deskId == null || row.Id == deskId)
            .OrderBy(row => row.Id)
            .Select(row => row.Name)
            .FirstOrDefaultAsync(ct);
        var values = new Dictionary<string, string>
        {
            ["first_name"] = PostInserts.Harmless(guest.Name.Split(' ')[0]),
            ["guest"] = PostInserts.Harmless(guest.Name),
            ["organisation"] = PostInserts.Harmless(guest.Organisation),
            ["sender"] = actor.Required.Name,
            ["workspace"] = workspace.Name,
            ["desk"] = desk ?? "",
            ["hosts"] = offer.Page is { } page ? await HostsAsync(page, ct) : "",
            ["page"] = offer.Page?.Title ?? "",
            ["times"] = offer.Times is null || offer.Openings is 0 ? "" : Times,
            ["link"] = offer.Page is null ? "" : site.Value + address,
            ["ends"] = offer.Ends is { } ends ? ends.ToString("D", CultureOf(LanguageOf(guest))) : "",
        };
        foreach (var (name, field) in LetterBlanks.ByName(workspace.GuestFields))
            values[name] = PostInserts.Harmless(guest.Fields.GetValueOrDefault(field.Id, ""));

        var unfilled = LetterBlanks
            .NeededBy(request.Subject)
            .Concat(LetterBlanks.NeededBy(request.Body))
            .Distinct()
            .Where(name => values.GetValueOrDefault(name, "").Length == 0)
            .ToList();
        // What is typed here is no insert of ours.
        var mail = PostTemplates.WriteTitled(
            new OwnWords(PostInserts.Harmless(request.Subject), PostInserts.Harmless(request.Body)),
            values
        );
        var (text, html) = (offer.Times?.Text ?? "", offer.Times?.Html ?? "");
        return (
            mail with
            {
                Text = mail.Text.Replace(Times, text, StringComparison.Ordinal),
                Html = mail
                    .Html.Replace($"<p>{WebUtility.HtmlEncode(Times)}</p>", html, StringComparison.Ordinal)
                    .Replace(
                        WebUtility.HtmlEncode(Times),
                        WebUtility.HtmlEncode(text).Replace("\n", "<br>", StringComparison.Ordinal),
                        StringComparison.Ordinal
                    ),
            },
            unfilled
        );
    }

    private async Task<OfferInLetter> OfPatternAsync(LetterOffer offer, Guest guest, CancellationToken ct)
    {
        var pattern = await db.LinkPatterns.AsNoTracking().FirstOrDefaultAsync(row => row.Id == offer.Id, ct)
            ?? throw Refusal.Invalid("offer.id", "letter-pattern");
        var form = pattern.Form;
        var today = clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb[form.Times.Zone]).Date;
        var until = offer.Until ?? today.PlusDays(UsualDays);
        form = form with
        {
            Guests = [new LinkGuest(guest.Name, EmailOf(guest))],
            GuestZone = guest.Zone ?? "",
            GuestLanguage = LanguageOf(guest),
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
        inputs.For(tidy.Guests, saved: null);
        var page = await filling.TryOutAsync(tidy.Times, null, ct);
        (page.Title, page.DeskId, page.PlaceKind, page.Place) = (tidy.Title, tidy.DeskId, tidy.PlaceKind, tidy.Place);
        return await TimesAsync(page, tidy.Details.Text, guest, tidy, null, until, ct);
    }

    private async Task<OfferInLetter> OfLinkAsync(LetterOffer offer, Guest guest, CancellationToken ct)
    {
        var id = offer.Id ?? throw Refusal.Invalid("offer.id", "letter-link");
        if (!await db.LinkGuests.AnyAsync(row => row.LinkId == id && row.GuestId == guest.Id, ct))
            throw Refusal.Invalid("offer.id", "letter-link");
        var link = await links.GetAsync(id, ct);
        if (!link.Course.MayBeTakenAt(clock.GetCurrentInstant()))
            throw new Refusal(StatusCodes.Status409Conflict, "letter-link-over");
        return await TimesAsync(link.Page!, link.Text, guest, null, link, link.EndsOn, ct);
    }

    private async Task<OfferInLetter> TimesAsync(
        Page page,
        LinkText how,
        Guest guest,
        LinkForm? form,
        AvailabilityLink? link,
        LocalDate ends,
        CancellationToken ct
    )
    {
        var asks = page.Offer!.Times.By == OfferBy.Asked;
        var zone = guest.Zone ?? "";
        var shown = await texts.ShownAsync(page, zone, null, null, page.Durations[0], ct, how.MostListed);
        // The address has a blank of its own.
        var written = texts.Write(page, how with { WithAddress = false }, zone, LanguageOf(guest), shown, null);
        return new OfferInLetter(form, link, page, asks ? null : shown.Count, asks ? null : written, ends);
    }

    private async Task<OfferInLetter> OfPageAsync(LetterOffer offer, CancellationToken ct)
    {
        var kept = offer.Id is { } id ? await pages.OfAsync(id, ct) : null;
        if (kept is not { Page: { State: PageState.Published, Offer: null } whole })
            throw Refusal.Invalid("offer.id", "letter-page");
        var rules = inputs.Rules(whole);
        var today = inputs.Today(rules);
        var openings = await inputs.OpeningsAsync(rules, today, today.PlusDays(DaysLookedAt), whole.Durations[0], ct);
        return new OfferInLetter(null, null, whole, openings.Count, null, null);
    }

    private static CultureInfo CultureOf(string language) =>
        CultureInfo.GetCultureInfo(language == "en" ? "en-GB" : language);

    private async Task<string> HostsAsync(Page page, CancellationToken ct)
    {
        var ids = page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).Distinct().ToList();
        var names = await db
            .Hosts.AsNoTracking()
            .Where(host => ids.Contains(host.Id) && host.Kind == HostKind.Person)
            .ToDictionaryAsync(host => host.Id, host => host.Name, ct);
        return string.Join(", ", ids.Where(names.ContainsKey).Select(id => names[id]));
    }
}
