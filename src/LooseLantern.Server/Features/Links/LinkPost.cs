using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>Writes mail about links. The random part of an address is put in when it goes out, so that the post opens no link.</summary>
public sealed class LinkPost(LanternDb db, LinkTexts texts, PostWords words, IClock clock)
{
    public const int MostOfAWord = 2_000;

    private const string Times = "⟦times⟧";

    /// <summary>Sends its guests the times, or asks them again.</summary>
    /// <param name="word">Of whoever sends it; may be empty.</param>
    /// <exception cref="Refusal">400 where no guest has an email, or the word is too long.</exception>
    public async Task SendAsync(AvailabilityLink link, MessageKind kind, string word, string sender, CancellationToken ct)
    {
        var page = link.Page!;
        var guests = link.Guests.Where(guest => guest.Email.Length > 0).ToList();
        if (guests.Count == 0) throw Refusal.Invalid("guests", "Give the guest’s email, or copy the text and send it yourself.");
        if (word.Length > MostOfAWord) throw Refusal.Invalid("word", $"Keep it to {MostOfAWord} characters.");
        var openings = await texts.ShownAsync(page, link.GuestZone, null, null, page.Durations[0], ct);
        if (openings.Count == 0) throw new Refusal(StatusCodes.Status409Conflict, "none-left", "None of its times is open any more.", "Mark others first, then send it.");
        // Without the address nobody could answer a mail of ours.
        var written = texts.Write(page, link.Text with { WithAddress = true }, link.GuestZone, link.GuestLanguage, openings, LinkAddresses.Path(link.Topic, PostMarks.Own));
        foreach (var guest in guests)
        {
            var reader = new Reader(guest.Name, guest.Email, link.GuestLanguage, Core.TimeText.Clock.Usual, link.GuestZone.Length == 0 ? page.Zone : link.GuestZone);
            var letter = PostTemplates.Write(kind, reader.Language, new Dictionary<string, string>
            {
                ["first_name"] = PostMarks.Harmless(guest.Name.Split(' ')[0]), ["page"] = page.Title, ["desk"] = page.Desk!.Name, ["sender"] = sender, ["word"] = PostMarks.Harmless(word.Trim()), ["times"] = Times,
            });
            var message = PostDraft.Of(link.WorkspaceId, page.Desk.Name, kind, reader, letter with
            {
                Text = letter.Text.Replace(Times, written.Text, StringComparison.Ordinal), Html = letter.Html.Replace($"<p>{System.Net.WebUtility.HtmlEncode(Times)}</p>", written.Html, StringComparison.Ordinal),
            }, clock.GetCurrentInstant());
            message.ProtectedSecret = link.ProtectedSecret;
            db.Messages.Add(message);
        }
    }

    /// <summary>Tells whoever made it of something that needs them.</summary>
    /// <param name="lines">What the guest wishes, a line each; none where nothing is left.</param>
    public async Task TellMakerAsync(AvailabilityLink link, MessageKind kind, IReadOnlyList<string> lines, string word, CancellationToken ct)
    {
        if (link.MadeBy is not { } id || await db.Users.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id && row.LeftAt == null, ct) is not { } person) return;
        var (page, reader) = (link.Page!, Reader.Of(person));
        var letter = PostTemplates.Write(kind, reader.Language, new Dictionary<string, string>
        {
            ["first_name"] = reader.Name.Split(' ')[0], ["page"] = page.Title, ["guest"] = PostMarks.Harmless(string.Join(", ", link.Guests.Select(guest => guest.Name))), ["word"] = PostMarks.Harmless(word),
            ["wished"] = PostMarks.Harmless(string.Join('\n', lines)), ["link"] = words.Link($"/work/links/{link.Id:D}"),
        });
        var message = PostDraft.Of(link.WorkspaceId, page.Desk!.Name, kind, reader, letter, clock.GetCurrentInstant());
        message.PersonId = person.Id;
        db.Messages.Add(message);
    }

    /// <summary>A time as a reader of the maker's reads it.</summary>
    public string InWords(Core.Span span, string zone) => words.Said(span, new Reader("", "", "en", Core.TimeText.Clock.Usual, zone));
}
