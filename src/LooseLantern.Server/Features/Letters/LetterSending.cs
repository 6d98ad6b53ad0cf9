using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Letters;

/// <param name="LinkId">Of the link that it offers; null where it offers none.</param>
public sealed record LetterSent(Guid? LinkId);

/// <summary>
/// Sends letters, or hands them over for one's own mail program. The link is made with the letter, in one transaction:
/// there is both or neither.
/// </summary>
public sealed class LetterSending(
    LanternDb db,
    Tenant tenant,
    LetterEditing letters,
    LetterWriting writing,
    LetterOffering offering,
    LinkEditing links,
    LinkMaking making,
    PersonalAddresses personal,
    PrivateLinks secrets,
    ReplyAddresses replies,
    RecordKeeping record,
    WorkSignals signals,
    Actor actor,
    IClock clock
)
{
    /// <param name="key">Of the press; the same again sends nothing twice.</param>
    /// <exception cref="Refusal">400 naming what is wrong or not filled in; 404; 409 where nothing of the offer is
    /// open, or its link is over. Nothing is made then.</exception>
    public async Task<LetterSent> SendAsync(LetterRequest request, string key, CancellationToken ct)
    {
        Guid? linkId = null;
        var isNew = await InTurnAsync(request, key, ct, async made =>
        {
            linkId = made.LinkId;
            if (LetterWriting.EmailOf(made.Guest).Length == 0)
                throw Refusal.Invalid("guestId", "letter-email");
            var mail = Write(request, made, PostInserts.Own);
            var message = PostDraft.Of(
                tenant.WorkspaceId!.Value,
                made.Setting.Desk,
                MessageKind.LetterForGuest,
                LetterWriting.ReaderOf(made.Guest, made.Offer),
                mail,
                clock.GetCurrentInstant(),
                id: IdOf("letter", key)
            );
            message.ProtectedSecret = made.ProtectedSecret;
            (message.LinkId, message.WrittenBy) = (made.LinkId, actor.Required.Id);
            replies.Await(message);
            db.Messages.Add(message);
            record.Note(made.Guest.Id, $"Wrote to {RecordWords.Guest}");
            await db.SaveChangesAsync(ct);
        });
        if (isNew)
            signals.Messages.Wake();
        return new LetterSent(linkId);
    }

    /// <summary>
    /// The letter as a message (RFC 5322) with text and HTML that mail programs open as a draft; its link is made and
    /// out.
    /// </summary>
    /// <inheritdoc cref="SendAsync"/>
    public async Task<byte[]> DraftAsync(LetterRequest request, string key, CancellationToken ct)
    {
        byte[] bytes = [];
        var isNew = await InTurnAsync(request, key, ct, async made =>
        {
            var mail = Write(request, made, made.ProtectedSecret is { } secret ? secrets.Reveal(secret) : "");
            bytes = await DraftMail.WriteAsync(
                mail,
                [new LinkGuest(made.Guest.Name, LetterWriting.EmailOf(made.Guest))],
                ct
            );
            record.Note(made.Guest.Id, $"Took a letter to {RecordWords.Guest} as a draft");
            await db.SaveChangesAsync(ct);
        });
        // The same press sent it by the post already.
        return isNew ? bytes : throw new Refusal(StatusCodes.Status422UnprocessableEntity, "key-used");
    }

    private sealed record Made(
        Guest Guest,
        OfferInLetter Offer,
        LetterSetting Setting,
        Guid? LinkId,
        string? ProtectedSecret,
        Func<string, string>? PathOf
    );

    /// <summary>Makes what the letter offers, and then what is to be made of it, once for each key.</summary>
    /// <returns>Whether it was not done before.</returns>
    private async Task<bool> InTurnAsync(LetterRequest request, string key, CancellationToken ct, Func<Made, Task> then)
    {
        IdempotencyKeys.Require(key);
        await letters.RequireWordsAsync(request.Subject, request.Body, ct);
        var guest = await writing.GuestAsync(request.GuestId, ct);
        var offer = await offering.OfAsync(request.Offer, guest, ct);
        if (offer.Openings is 0)
            throw new Refusal(StatusCodes.Status409Conflict, "none-left");
        var setting = await writing.SettingAsync(offer.Page, ct);
        var (_, unfilled) = writing.Write(setting, request.Words, guest, offer, "/");
        if (unfilled.Count > 0)
            throw Refusal.Invalid(
                "body",
                Phrase.Of("letter-unfilled", ("blanks", unfilled.Select(name => $"{{{{ {name} }}}}").ToArray()))
            );

        // By locks of its own; one that is out already stays so.
        if (offer.Link is { OutAt: null } draft)
            offer = offer with { Link = await links.SendOutAsync(draft.Id, ct) };
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // One press after the other, so that what was done by the same key is seen.
        var id = IdOf("letter", key);
        await PressIds.TakeTurnAsync(db, id, ct);
        if (await db.Messages.AnyAsync(row => row.Id == id, ct))
            return false;
        var made = await MakeAsync(guest, offer, setting, key, ct);
        await then(made);
        await transaction.CommitAsync(ct);
        return true;
    }

    private async Task<Made> MakeAsync(
        Guest guest,
        OfferInLetter offer,
        LetterSetting setting,
        string key,
        CancellationToken ct
    )
    {
        if (offer.Form is { } form)
        {
            var id = IdOf("link", key);
            var link = await db.Links.AnyAsync(row => row.Id == id, ct)
                ? await links.GetAsync(id, ct)
                : await making.CreateAsync(form, ct, LinkGoes.Out, id);
            return OfLink(guest, offer, setting, link);
        }

        if (offer.Link is { } known)
            return OfLink(guest, offer, setting, known);

        if (offer.Page is not { } page)
            return new Made(guest, offer, setting, null, null, null);
        var path = (
            await personal.MakeAsync(page, new GuestRequest(guest.Name, LetterWriting.EmailOf(guest)), ct)
        ).Path;
        var secret = path[(path.LastIndexOf('=') + 1)..];
        return new Made(guest, offer, setting, null, secrets.Keep(secret).Protected, other =>
            path.Replace(secret, other)
        );
    }

    private static Made OfLink(Guest guest, OfferInLetter offer, LetterSetting setting, AvailabilityLink link) =>
        new(guest, offer, setting, link.Id, link.ProtectedSecret, secret => LinkAddresses.Path(link.Topic, secret));

    private WrittenMail Write(LetterRequest request, Made made, string secret) =>
        writing.Write(made.Setting, request.Words, made.Guest, made.Offer, made.PathOf?.Invoke(secret) ?? "").Mail;

    private Guid IdOf(string what, string key) => PressIds.Of(tenant.WorkspaceId!.Value, actor.Required.Id, what, key);
}
