using System.Globalization;
using System.Net;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Letters;

/// <summary>What blanks are filled in with, the same for all guests that something is offered to.</summary>
/// <param name="Desk">Its name; empty where there is none.</param>
/// <param name="Hosts">Their names.</param>
public sealed record LetterSetting(string Workspace, IReadOnlyList<GuestField> Fields, string Desk, string Hosts);

/// <summary>Fills the blanks of letters in.</summary>
public sealed class LetterWriting(
    LanternDb db,
    GuestDetails guests,
    LetterEditing letters,
    LetterOffering offering,
    PublicAddress site,
    Actor actor,
    IClock clock
)
{
    private const string Times = "⟦times⟧";

    public async Task<Guest> GuestAsync(Guid id, CancellationToken ct) => await guests.FindAsync(id, ct);

    /// <summary>The letter as it would go out now; nothing is made or sent.</summary>
    /// <exception cref="Refusal">400 naming what of the words or the offer is wrong; 404 for what is not
    /// there.</exception>
    public async Task<LetterPreview> PreviewAsync(LetterRequest request, CancellationToken ct)
    {
        await letters.RequireWordsAsync(request.Subject, request.Body, ct);
        var guest = await GuestAsync(request.GuestId, ct);
        var offer = await offering.OfAsync(request.Offer, guest, ct);
        var written = Write(await SettingAsync(offer.Page, ct), request.Words, guest, offer, address: "…");
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
    /// <param name="guestId">Null for anybody, who has no links yet.</param>
    public async Task<LetterChoices> ChoicesAsync(Guid? guestId, CancellationToken ct)
    {
        var guest = guestId is { } id ? (await GuestAsync(id, ct)).Id : Guid.Empty;
        var now = clock.GetCurrentInstant();
        var theirs = db.LinkGuests.Where(row => row.GuestId == guest).Select(row => row.LinkId);
        return new LetterChoices(
            await LetterPatterns.ListAsync(db, ct),
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

    public static Reader ReaderOf(Guest guest, OfferInLetter offer) =>
        new(guest.Name, EmailOf(guest), LanguageOf(guest), Core.TimeText.Clock.Usual, ZoneOf(guest, offer));

    public static string ZoneOf(Guest guest, OfferInLetter offer) => guest.Zone ?? offer.Page?.Zone ?? "UTC";

    /// <summary>What is offered, as blanks have it.</summary>
    /// <param name="page">That is offered, or of the link; null for nothing.</param>
    public async Task<LetterSetting> SettingAsync(Page? page, CancellationToken ct)
    {
        var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
        var deskId = page?.DeskId;
        var desk = await db
            .Desks.AsNoTracking()
            .Where(row => deskId == null || row.Id == deskId)
            .OrderBy(row => row.Id)
            .Select(row => row.Name)
            .FirstOrDefaultAsync(ct);
        return new LetterSetting(
            workspace.Name,
            workspace.GuestFields,
            desk ?? "",
            page is null ? "" : await HostsAsync(page, ct)
        );
    }

    /// <summary>The words with all blanks filled in, and which of those that are needed are not.</summary>
    /// <param name="address">Where the guest books, from the root of the site.</param>
    public (WrittenMail Mail, IReadOnlyList<string> Unfilled) Write(
        LetterSetting setting,
        LetterWords words,
        Guest guest,
        OfferInLetter offer,
        string address
    )
    {
        var values = new Dictionary<string, string>
        {
            ["first_name"] = PostInserts.Harmless(guest.Name.Split(' ')[0]),
            ["guest"] = PostInserts.Harmless(guest.Name),
            ["organisation"] = PostInserts.Harmless(guest.Organisation),
            ["sender"] = actor.Required.Name,
            ["workspace"] = setting.Workspace,
            ["desk"] = setting.Desk,
            ["hosts"] = setting.Hosts,
            ["page"] = offer.Page?.Title ?? "",
            ["times"] = offer.Times is null || offer.Openings is 0 ? "" : Times,
            ["link"] = offer.Page is null ? "" : site.Value + address,
            ["ends"] = offer.Ends is { } ends ? ends.ToString("D", CultureOf(LanguageOf(guest))) : "",
        };
        foreach (var (name, field) in LetterBlanks.ByName(setting.Fields))
            values[name] = PostInserts.Harmless(guest.Fields.GetValueOrDefault(field.Id, ""));

        var unfilled = LetterBlanks
            .NeededBy(words.Subject)
            .Concat(LetterBlanks.NeededBy(words.Body))
            .Distinct()
            .Where(name => values.GetValueOrDefault(name, "").Length == 0)
            .ToList();
        // What is typed here is no insert of ours.
        var mail = PostTemplates.WriteTitled(
            new OwnWords(PostInserts.Harmless(words.Subject), PostInserts.Harmless(words.Body)),
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
