using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>Writes the mails by which guests of a mailing are asked again, within the caller's transaction.</summary>
public sealed class MailingAgainPost(
    LanternDb db,
    LinkPost post,
    ReplyAddresses replies,
    PublicAddress site,
    Actor actor,
    IClock clock
)
{
    /// <param name="shown">What each link shows; one that is not among them is not written to.</param>
    public async Task AskByLinksAsync(
        List<MailingGuestRow> silent,
        IReadOnlyDictionary<Guid, IReadOnlyList<Opening>> shown,
        string word,
        CancellationToken ct
    )
    {
        var ids = silent.ConvertAll(guest => guest.LinkId!.Value);
        var all = await db
            .Links.Include(link => link.Page!)
                .ThenInclude(page => page.Desk)
            .Where(link => ids.Contains(link.Id))
            .ToListAsync(ct);
        foreach (var link in all.Where(link => shown.ContainsKey(link.Id)))
        {
            link.SentBy = actor.Required.Id;
            await post.SendAsync(
                link,
                MessageKind.LinkAgainForGuest,
                word,
                actor.Required.Name,
                null,
                ct,
                shown[link.Id]
            );
            (link.AskedAgainAt, link.AskedAgain) = (clock.GetCurrentInstant(), link.AskedAgain + 1);
        }
    }

    /// <summary>By the same address of the page as before.</summary>
    public async Task AskByPageAsync(Page page, List<MailingGuestRow> silent, string word, CancellationToken ct)
    {
        var letters = silent.ConvertAll(guest => guest.MessageId!.Value);
        var firsts = await db.Messages.Where(row => letters.Contains(row.Id)).ToDictionaryAsync(row => row.Id, ct);
        var ids = silent.ConvertAll(guest => guest.GuestId);
        var languages = await db
            .Guests.Where(row => ids.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Language, ct);
        foreach (var guest in silent)
        {
            var language = guest.GuestId is { } one ? languages.GetValueOrDefault(one) : null;
            db.Messages.Add(MessageOf(page, guest, firsts[guest.MessageId!.Value], language ?? "en", word));
        }
    }

    private Message MessageOf(Page page, MailingGuestRow guest, Message first, string language, string word)
    {
        var address = site.Value + PersonalAddresses.PathOf(page, PostInserts.Own);
        var mail = PostTemplates.Write(
            MessageKind.LinkAgainForGuest,
            language,
            new Dictionary<string, string>
            {
                ["first_name"] = PostInserts.Harmless(guest.Name.Split(' ')[0]),
                ["page"] = page.Title,
                ["desk"] = first.FromName,
                ["sender"] = actor.Required.Name,
                ["word"] = PostInserts.Harmless(word.Trim()),
                ["asks"] = "",
                ["link"] = address,
                ["times"] = address,
            }
        );
        var message = PostDraft.Of(
            first.WorkspaceId,
            first.FromName,
            MessageKind.LinkAgainForGuest,
            new Reader(guest.Name, guest.Email, language, Core.TimeText.Clock.Usual, page.Zone),
            mail,
            clock.GetCurrentInstant()
        );
        (message.AgainOf, message.ProtectedSecret, message.WrittenBy) = (
            first.Id,
            first.ProtectedSecret,
            actor.Required.Id
        );
        replies.Await(message);
        return message;
    }
}
