using System.Security.Cryptography;
using System.Text;
using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>
/// Writes mail about links. The random part of an address is put in when it goes out, so that the post opens no link.
/// </summary>
public sealed class LinkPost(LanternDb db, LinkTexts texts, PostWords words, ReplyAddresses replies, IClock clock)
{
    public const int MostOfAWord = 2_000;

    private const string Times = "⟦times⟧";

    /// <summary>Whether it can be sent.</summary>
    /// <exception cref="Refusal">400 where no guest has an email, or the word is too long; 409 where nothing of it is
    /// open.</exception>
    public async Task RequireSendingAsync(AvailabilityLink link, string word, CancellationToken ct)
    {
        if (link.Guests.All(guest => guest.Email.Length == 0))
            throw Refusal.Invalid("guests", "link-email");
        if (word.Length > MostOfAWord)
            throw Refusal.Invalid("word", Phrase.Of("too-long", ("most", MostOfAWord)));
        if (!AsksFirst(link) && (await ShownAsync(link, ct)).Count == 0)
            throw new Refusal(StatusCodes.Status409Conflict, "none-left");
    }

    /// <summary>
    /// Sends its guests the times, or asks them again. What was sent with the same key is not sent twice.
    /// </summary>
    /// <param name="word">Of whoever sends it; may be empty.</param>
    /// <param name="key">Of the press it is sent by; null for none.</param>
    /// <param name="shown">What it shows; null to look that up.</param>
    /// <returns>Whether anything is to be sent by it.</returns>
    public async Task<bool> SendAsync(
        AvailabilityLink link,
        MessageKind kind,
        string word,
        string sender,
        string? key,
        CancellationToken ct,
        IReadOnlyList<Core.Openings.Opening>? shown = null
    )
    {
        var (page, isSent) = (link.Page!, false);
        // Without the address nobody could answer a mail of ours.
        var written = texts.Write(
            page,
            link.Text with
            {
                WithAddress = true,
            },
            link.GuestZone,
            link.GuestLanguage,
            shown ?? await ShownAsync(link, ct),
            LinkAddresses.Path(link.Topic, PostInserts.Own)
        );
        foreach (var guest in link.Guests.Where(guest => guest.Email.Length > 0))
        {
            var id = key is null
                ? Guid.CreateVersion7()
                : new Guid(
                    SHA256.HashData(Encoding.UTF8.GetBytes($"{link.Id} {kind} {key} {guest.Email}")).AsSpan(0, 16)
                );
            if (await db.Messages.AnyAsync(known => known.Id == id, ct))
                continue;
            var reader = new Reader(
                guest.Name,
                guest.Email,
                link.GuestLanguage,
                Core.TimeText.Clock.Usual,
                link.GuestZone.Length == 0 ? page.Zone : link.GuestZone
            );
            var message = PostDraft.Of(
                link.WorkspaceId,
                page.Desk!.Name,
                kind,
                reader,
                MailOf(link, kind, guest.Name.Split(' ')[0], word, sender, written),
                clock.GetCurrentInstant(),
                id: id
            );
            message.ProtectedSecret = link.ProtectedSecret;
            (message.LinkId, message.WrittenBy) = (link.Id, link.SentBy);
            replies.Await(message);
            db.Messages.Add(message);
            isSent = true;
        }

        return isSent;
    }

    /// <summary>The mail as a guest reads it, with the times where they belong.</summary>
    private static WrittenMail MailOf(
        AvailabilityLink link,
        MessageKind kind,
        string firstName,
        string word,
        string sender,
        LinkTextAnswer times
    )
    {
        var mail = PostTemplates.Write(
            kind,
            link.GuestLanguage,
            new Dictionary<string, string>
            {
                ["first_name"] = PostInserts.Harmless(firstName),
                ["page"] = link.Page!.Title,
                ["desk"] = link.Page.Desk!.Name,
                ["sender"] = sender,
                ["word"] = PostInserts.Harmless(word.Trim()),
                ["times"] = Times,
                ["asks"] = AsksFirst(link) ? "yes" : "",
            }
        );
        return mail with
        {
            Text = mail.Text.Replace(Times, times.Text, StringComparison.Ordinal),
            Html = mail.Html.Replace(
                $"<p>{System.Net.WebUtility.HtmlEncode(Times)}</p>",
                times.Html,
                StringComparison.Ordinal
            ),
        };
    }

    /// <summary>
    /// The same mail for whoever sends it from their own program, with the link's address in it: nothing is sent here.
    /// </summary>
    /// <param name="address">The link's, from the root of the site.</param>
    /// <exception cref="Refusal">400 where the word is too long; 409 where nothing of it is open, or guests can't open
    /// it yet.</exception>
    public async Task<WrittenMail> DraftAsync(
        AvailabilityLink link,
        string address,
        string word,
        string sender,
        CancellationToken ct
    )
    {
        if (word.Length > MostOfAWord)
            throw Refusal.Invalid("word", Phrase.Of("too-long", ("most", MostOfAWord)));
        if (link.OutAt is null)
            throw new Refusal(StatusCodes.Status409Conflict, "link-draft");
        var shown = await ShownAsync(link, ct);
        if (shown.Count == 0)
            throw new Refusal(StatusCodes.Status409Conflict, "none-left");
        var written = texts.Write(
            link.Page!,
            link.Text with
            {
                WithAddress = true,
            },
            link.GuestZone,
            link.GuestLanguage,
            shown,
            address
        );
        var names = string.Join(", ", link.Guests.Select(guest => guest.Name.Split(' ')[0]).Where(name => name != ""));
        return MailOf(link, MessageKind.LinkForGuest, names, word, sender, written);
    }

    /// <summary>Whether its guests are asked for their times and shown none of ours.</summary>
    public static bool AsksFirst(AvailabilityLink link) => link.Page!.Offer!.Times.By == OfferBy.Asked;

    private Task<IReadOnlyList<Core.Openings.Opening>> ShownAsync(AvailabilityLink link, CancellationToken ct) =>
        texts.ShownAsync(link.Page!, link.GuestZone, null, null, link.Page!.Durations[0], ct, link.Text.MostListed);

    /// <summary>Tells whoever made it of something that needs them.</summary>
    /// <param name="lines">What the guest wishes, a line each; none where nothing is left.</param>
    public async Task TellMakerAsync(
        AvailabilityLink link,
        MessageKind kind,
        IReadOnlyList<string> lines,
        string word,
        CancellationToken ct,
        string by = ""
    )
    {
        if (
            link.MadeBy is not { } maker
            || await db.Users.AsNoTracking().FirstOrDefaultAsync(row => row.Id == maker && row.LeftAt == null, ct)
                is not { } person
        )
            return;
        var (page, reader) = (link.Page!, Reader.Of(person));
        // Of a mailing all guests are without times at once.
        var mailing = kind == MessageKind.NoneLeftForMaker ? link.MailingId : null;
        var mail = PostTemplates.Write(
            kind,
            reader.Language,
            new Dictionary<string, string>
            {
                ["first_name"] = reader.Name.Split(' ')[0],
                ["page"] = page.Title,
                ["guest"] = PostInserts.Harmless(
                    mailing is not null ? ""
                    : by.Length > 0 ? by
                    : string.Join(", ", link.Guests.Select(guest => guest.Name))
                ),
                ["word"] = PostInserts.Harmless(word),
                ["wished"] = PostInserts.Harmless(string.Join('\n', lines)),
                ["link"] = words.Link(mailing is { } id ? $"/work/guests/mailings/{id:D}" : $"/work/links/{link.Id:D}"),
            }
        );
        var message = PostDraft.Of(link.WorkspaceId, page.Desk!.Name, kind, reader, mail, clock.GetCurrentInstant());
        message.PersonId = person.Id;
        db.Messages.Add(message);
    }

    /// <summary>A time as its maker reads it, in the link's zone and beside it in that of whoever named it.</summary>
    /// <param name="guestZone">IANA id, or empty.</param>
    public string InWords(Core.Span span, string zone, string guestZone = "") =>
        words.Said(span, new Reader("", "", "en", Core.TimeText.Clock.Usual, zone), guestZone);
}
