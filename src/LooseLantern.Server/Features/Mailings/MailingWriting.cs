using LooseLantern.Core;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Letters;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>One guest's part of a mailing, looked up.</summary>
/// <param name="Guest">As the letter has them; they need not be saved.</param>
/// <param name="Known">Null for somebody new.</param>
public sealed record PreparedLetter(Guest Guest, KnownForMailing? Known, LetterWords Words, OfferInLetter Offer);

/// <param name="Letters">In the order of the guests.</param>
public sealed record PreparedMailing(LetterSetting Setting, IReadOnlyList<PreparedLetter> Letters);

/// <summary>Writes what a mailing would be now; nothing is made or sent.</summary>
public sealed class MailingWriting(
    Tenant tenant,
    LetterEditing letters,
    LetterWriting writing,
    LetterOffering offering,
    MailingGuestFinding finding,
    IClock clock
)
{
    /// <exception cref="Refusal">400 naming what of the guests, the words or the offer is wrong.</exception>
    public async Task<PreparedMailing> PrepareAsync(MailingRequest request, CancellationToken ct)
    {
        var faults = await FaultsAsync(request, ct);
        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
        var keys = request.Guests.Select(one => GuestEmail.KeyOf(one.Email)).ToList();
        var known = await finding.KnownAsync(keys, ct);
        var guests = request.Guests.Select((one, i) => GuestOf(one, known.GetValueOrDefault(keys[i])?.Guest)).ToList();
        var offers = await offering.ForEachAsync(request.Offer, guests, ct);
        var words = new LetterWords(request.Subject, request.Body);
        return new PreparedMailing(
            await writing.SettingAsync(offers[0].Page, ct),
            [
                .. guests.Select(
                    (guest, i) =>
                        new PreparedLetter(
                            guest,
                            known.GetValueOrDefault(keys[i]),
                            request.Guests[i].Own ?? words,
                            offers[i]
                        )
                ),
            ]
        );
    }

    /// <exception cref="Refusal">400 naming what of the guests, the words or the offer is wrong.</exception>
    public async Task<MailingPreview> PreviewAsync(MailingPreviewRequest request, CancellationToken ct)
    {
        var mailing = await PrepareAsync(request.Mailing, ct);
        var written = mailing.Letters.Select(letter => Write(mailing, letter, address: "…")).ToList();
        var supply = mailing.Letters[0].Offer.Page is { } page
            ? await offering.SupplyAsync(page, mailing.Letters.Count, ct)
            : null;
        return new MailingPreview(
            supply?.Openings,
            supply?.Room,
            [
                .. mailing.Letters.Select(
                    (letter, i) =>
                        new MailingLetter(
                            letter.Known?.Guest.Id,
                            written[i].Mail.Subject,
                            written[i].Unfilled,
                            letter.Offer.Openings,
                            letter.Known?.OffersOut ?? 0,
                            LetterWriting.ZoneOf(letter.Guest, letter.Offer),
                            LetterWriting.LanguageOf(letter.Guest)
                        )
                ),
            ],
            request.Show is { } at && at >= 0 && at < written.Count
                ? new ShownLetter(
                    written[at].Mail.Subject,
                    PostInserts.Masked(written[at].Mail.Text),
                    PostInserts.Masked(written[at].Mail.Html)
                )
                : null
        );
    }

    /// <param name="address">Where the guest books, from the root of the site.</param>
    public (WrittenMail Mail, IReadOnlyList<string> Unfilled) Write(
        PreparedMailing mailing,
        PreparedLetter letter,
        string address
    ) => writing.Write(mailing.Setting, letter.Words, letter.Guest, letter.Offer, address);

    /// <summary>As the list says it; what it leaves open is as it is known.</summary>
    private Guest GuestOf(MailingGuest one, Guest? known)
    {
        var guest = new Guest
        {
            Id = known?.Id ?? Guid.CreateVersion7(),
            WorkspaceId = tenant.WorkspaceId!.Value,
            Name = one.Name.Trim(),
            Organisation = known?.Organisation ?? "",
            Zone = one.Zone.Length > 0 ? one.Zone : known?.Zone,
            Language = one.Language.Length > 0 ? one.Language : known?.Language,
            KeeperId = known?.KeeperId,
            Fields = known?.Fields ?? new Dictionary<Guid, string>(),
            Source = GuestSource.Link,
            MadeAt = clock.GetCurrentInstant(),
        };
        guest.Emails.Add(
            new GuestEmail
            {
                WorkspaceId = guest.WorkspaceId,
                Key = GuestEmail.KeyOf(one.Email),
                GuestId = guest.Id,
                Email = one.Email.Trim(),
            }
        );
        return guest;
    }

    private async Task<Dictionary<string, Phrase[]>> FaultsAsync(MailingRequest request, CancellationToken ct)
    {
        var blanks = await letters.KnownAsync(ct);
        var faults = LetterEditing.WordFaults(request.Subject, request.Body, blanks);
        if (request.Guests is not { Count: > 0 and <= MailingGuestFinding.Most })
        {
            faults["guests"] = [Phrase.Of("mailing-guests", ("most", MailingGuestFinding.Most))];
            return faults;
        }

        var seen = new HashSet<string>();
        foreach (var (i, guest) in request.Guests.Index())
        {
            var at = $"guests[{i}]";
            if (guest is null)
            {
                faults[$"{at}.name"] = ["guest-name"];
                continue;
            }

            if (!Words.FitOneLine(guest.Name ?? ""))
                faults[$"{at}.name"] = ["guest-name"];
            if (!EmailAddress.IsPlausible(guest.Email?.Trim()))
                faults[$"{at}.email"] = ["email"];
            else if (!seen.Add(GuestEmail.KeyOf(guest.Email!)))
                faults[$"{at}.email"] = ["mailing-twice"];
            if (guest.Zone is null || (guest.Zone.Length > 0 && !Zones.IsKnown(guest.Zone)))
                faults[$"{at}.zone"] = ["zone-or-none"];
            if (
                guest.Language is null
                || (guest.Language.Length > 0 && !MeEndpoints.Languages.Contains(guest.Language))
            )
                faults[$"{at}.language"] = [Phrase.Of("languages", ("languages", MeEndpoints.Languages))];
            if (guest.Own is not { } own)
                continue;
            foreach (var (field, mends) in LetterEditing.WordFaults(own.Subject, own.Body, blanks))
                faults[$"{at}.own.{field}"] = mends;
        }

        return faults;
    }
}
