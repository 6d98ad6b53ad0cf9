using System.Security.Cryptography;
using System.Text;
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
    LinkEditing links,
    PersonalAddresses personal,
    PrivateLinks secrets,
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
            var reader = new Reader(
                made.Guest.Name,
                LetterWriting.EmailOf(made.Guest),
                LetterWriting.LanguageOf(made.Guest),
                Core.TimeText.Clock.Usual,
                LetterWriting.ZoneOf(made.Guest, made.Offer)
            );
            var (mail, _) = await WriteAsync(request, made, PostInserts.Own, ct);
            var message = PostDraft.Of(
                tenant.WorkspaceId!.Value,
                made.Desk,
                MessageKind.LetterForGuest,
                reader,
                mail,
                clock.GetCurrentInstant(),
                id: IdOf("letter", key)
            );
            message.ProtectedSecret = made.ProtectedSecret;
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
            var (mail, _) = await WriteAsync(
                request,
                made,
                made.ProtectedSecret is { } secret ? secrets.Reveal(secret) : "",
                ct
            );
            bytes = await DraftMail.WriteAsync(
                mail,
                [new LinkGuest(made.Guest.Name, LetterWriting.EmailOf(made.Guest))],
                ct
            );
            await db.SaveChangesAsync(ct);
        });
        // The same press sent it by the post already.
        return isNew ? bytes : throw new Refusal(StatusCodes.Status422UnprocessableEntity, "key-used");
    }

    private sealed record Made(
        Guest Guest,
        OfferInLetter Offer,
        string Desk,
        Guid? LinkId,
        string? ProtectedSecret,
        Func<string, string>? PathOf
    );

    /// <summary>Makes what the letter offers, and then what is to be made of it, once for each key.</summary>
    /// <returns>Whether it was not done before.</returns>
    private async Task<bool> InTurnAsync(LetterRequest request, string key, CancellationToken ct, Func<Made, Task> then)
    {
        if (key is { Length: 0 or > 200 })
            throw Refusal.Invalid("Idempotency-Key", "idempotency-key");
        await letters.RequireWordsAsync(request.Subject, request.Body, ct);
        var guest = await writing.GuestAsync(request.GuestId, ct);
        var offer = await writing.OfferAsync(request.Offer, guest, ct);
        if (offer.Openings is 0)
            throw new Refusal(StatusCodes.Status409Conflict, "none-left");
        var (_, unfilled) = await writing.WriteAsync(request, guest, offer, "/", ct);
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
        var (id, turn) = (IdOf("letter", key), $"letter {IdOf("letter", key)}");
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtextextended({turn}, 0))", ct);
        if (await db.Messages.AnyAsync(row => row.Id == id, ct))
            return false;
        var deskId = offer.Page?.DeskId;
        var desk = await db
            .Desks.AsNoTracking()
            .Where(row => deskId == null || row.Id == deskId)
            .OrderBy(row => row.Id)
            .Select(row => row.Name)
            .FirstAsync(ct);
        var made = await MakeAsync(guest, offer, desk, key, ct);
        await then(made);
        await transaction.CommitAsync(ct);
        return true;
    }

    private async Task<Made> MakeAsync(Guest guest, OfferInLetter offer, string desk, string key, CancellationToken ct)
    {
        if (offer.Form is { } form)
        {
            var id = IdOf("link", key);
            var link = await db.Links.AnyAsync(row => row.Id == id, ct)
                ? await links.GetAsync(id, ct)
                : await links.CreateAsync(form, ct, LinkGoes.Out, id);
            return OfLink(guest, offer, desk, link);
        }

        if (offer.Link is { } known)
            return OfLink(guest, offer, desk, known);

        if (offer.Page is not { } page)
            return new Made(guest, offer, desk, null, null, null);
        var path = (
            await personal.MakeAsync(page, new GuestRequest(guest.Name, LetterWriting.EmailOf(guest)), ct)
        ).Path;
        var secret = path[(path.LastIndexOf('=') + 1)..];
        return new Made(guest, offer, desk, null, secrets.Keep(secret).Protected, other => path.Replace(secret, other));
    }

    private Made OfLink(Guest guest, OfferInLetter offer, string desk, AvailabilityLink link) =>
        new(guest, offer, desk, link.Id, link.ProtectedSecret, secret => LinkAddresses.Path(link.Topic, secret));

    private async Task<(WrittenMail, IReadOnlyList<string>)> WriteAsync(
        LetterRequest request,
        Made made,
        string secret,
        CancellationToken ct
    ) => await writing.WriteAsync(request, made.Guest, made.Offer, made.PathOf?.Invoke(secret) ?? "", ct);

    /// <summary>The id that a thing made by a press has, of who pressed alone.</summary>
    private Guid IdOf(string what, string key) =>
        new(
            SHA256
                .HashData(Encoding.UTF8.GetBytes($"{what} {tenant.WorkspaceId:D} {actor.Required.Id:D} {key}"))
                .AsSpan(0, 16)
        );
}
