using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Letters;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>
/// Sends one offer to several guests: each one's link or address is made, and their letter written, all of it in one
/// transaction or nothing.
/// </summary>
public sealed class MailingSending(
    LanternDb db,
    Tenant tenant,
    MailingWriting writing,
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
    /// <exception cref="Refusal">400 naming what is wrong or not filled in; 403; 409 where nothing of the offer is open
    /// for one of them. Nothing is made then.</exception>
    public async Task<MailingSent> SendAsync(MailingRequest request, string key, CancellationToken ct)
    {
        IdempotencyKeys.Require(key);
        if (request.Offer.Kind == LetterOffers.Nothing)
            throw Refusal.Invalid("offer.kind", "mailing-offer");
        var mailing = await writing.PrepareAsync(request, ct);
        Require(mailing);
        var id = PressIds.Of(tenant.WorkspaceId!.Value, actor.Required.Id, "mailing", key);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // One press after the other, so that what was done by the same key is seen.
        await PressIds.TakeTurnAsync(db, id, ct);
        if (await db.Mailings.AnyAsync(row => row.Id == id, ct))
            return new MailingSent(id);
        var first = mailing.Letters[0].Offer;
        var made = new Mailing
        {
            Id = id,
            WorkspaceId = tenant.WorkspaceId!.Value,
            Title = first.Page!.Title,
            StartedFrom = first.Form?.Details.StartedFrom ?? "",
            PageId = first.Form is null ? first.Page.Id : null,
            Sent = mailing.Letters.Count,
            MadeBy = actor.Required.Id,
            SentAt = clock.GetCurrentInstant(),
        };
        db.Mailings.Add(made);
        if (first.Form is null)
            SendOfPage(made, mailing, first.Page);
        else
            await SendOfLinksAsync(made, mailing, ct);
        record.Note(
            id,
            $"Sent “{made.Title}” to {made.Sent} {(made.Sent == 1 ? "guest" : "guests")}",
            [.. first.Page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).Distinct()]
        );
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        signals.Messages.Wake();
        return new MailingSent(id);
    }

    private void Require(PreparedMailing mailing)
    {
        var faults = new Dictionary<string, Phrase[]>();
        foreach (var (i, letter) in mailing.Letters.Index())
        {
            if (letter.Offer.Openings is 0)
                throw new Refusal(StatusCodes.Status409Conflict, "none-left");
            var (_, unfilled) = writing.Write(mailing, letter, "/");
            if (unfilled.Count > 0)
                faults[$"guests[{i}]"] =
                [
                    Phrase.Of("letter-unfilled", ("blanks", unfilled.Select(name => $"{{{{ {name} }}}}").ToArray())),
                ];
        }

        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
    }

    private async Task SendOfLinksAsync(Mailing made, PreparedMailing mailing, CancellationToken ct)
    {
        var all = await making.AddForMailingAsync(
            made.Id,
            [.. mailing.Letters.Select(letter => letter.Offer.Form!)],
            ct
        );
        foreach (var (letter, link) in mailing.Letters.Zip(all))
        {
            var message = MessageOf(made, mailing, letter, LinkAddresses.Path(link.Topic, PostInserts.Own));
            (message.LinkId, message.ProtectedSecret) = (link.Id, link.ProtectedSecret);
            db.Messages.Add(message);
        }
    }

    private void SendOfPage(Mailing made, PreparedMailing mailing, Page page)
    {
        foreach (var letter in mailing.Letters)
        {
            var address = personal.Add(page, letter.Guest.Name, LetterWriting.EmailOf(letter.Guest));
            var message = MessageOf(made, mailing, letter, PersonalAddresses.PathOf(page, PostInserts.Own));
            message.ProtectedSecret = secrets.Keep(address).Protected;
            db.Messages.Add(message);
        }
    }

    private Message MessageOf(Mailing made, PreparedMailing mailing, PreparedLetter letter, string path)
    {
        var message = PostDraft.Of(
            made.WorkspaceId,
            mailing.Setting.Desk,
            MessageKind.LetterForGuest,
            LetterWriting.ReaderOf(letter.Guest, letter.Offer),
            writing.Write(mailing, letter, path).Mail,
            made.SentAt
        );
        (message.MailingId, message.WrittenBy) = (made.Id, made.MadeBy);
        replies.Await(message);
        return message;
    }
}
