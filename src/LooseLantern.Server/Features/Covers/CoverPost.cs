using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Undo;

namespace LooseLantern.Server.Features.Covers;

/// <summary>A letter that is written, with the link it offers.</summary>
internal sealed record CoverDraft(CoverLetter Letter, Message Message);

/// <summary>
/// The letters of a plan as messages: written with the links they offer before anything is locked, and given the
/// appointments as they are once all is done.
/// </summary>
public sealed class CoverPost(
    LanternDb db,
    CoverLetters letters,
    LinkMaking making,
    Invitations invitations,
    PostWords words
)
{
    /// <summary>Makes the links and writes the letters; within the transaction that does the rest.</summary>
    internal async Task<IReadOnlyList<CoverDraft>> DraftAsync(
        IReadOnlyList<CoverLetter> planned,
        CoverForm form,
        IReadOnlyDictionary<Guid, string> names,
        CancellationToken ct
    )
    {
        var links = new Dictionary<string, AvailabilityLink>();
        foreach (var letter in planned.Where(letter => letter.Offer is not null).DistinctBy(letter => letter.OfferKey))
            links[letter.OfferKey] = await making.CreateAsync(letter.Offer!, ct, LinkGoes.Out);
        return
        [
            .. planned.Select(letter =>
            {
                var link = links.GetValueOrDefault(letter.OfferKey);
                return new CoverDraft(
                    letter,
                    letters.MessageOf(letter, letters.Write(letter, form, names, link), link)
                );
            }),
        ];
    }

    /// <summary>Saves them with the appointments, once everything else is saved.</summary>
    internal async Task AddAsync(IReadOnlyList<CoverDraft> drafts, CancellationToken ct)
    {
        db.ChangeTracker.Clear();
        var ids = drafts.SelectMany(draft => draft.Letter.All).Select(news => news.About.Booking.Id).Distinct();
        var abouts = (await AboutBooking.ReadAsync(db, [.. ids], ct)).ToDictionary(about => about.Booking.Id);
        foreach (var (letter, message) in drafts)
        {
            var calendars = letter
                .All.Select(news => (news.Change.IsLeft, About: abouts[news.About.Booking.Id]))
                .Where(one =>
                    one.About.Page.Post.ToGuests == GuestMail.Invitation && one.About.Booking.WaitsUntil is null
                )
                .Select(one => CalendarOf(one.About, one.IsLeft, letter.Reader, message))
                .ToList();
            if (calendars is [var first, .. var more])
            {
                (message.Calendar, message.CalendarMethod) = first;
                message.MoreCalendars = [.. more.Select(one => one.Text)];
            }

            db.Messages.Add(message);
        }

        UndoMail.Keep(db);
        await db.SaveChangesAsync(ct);
    }

    private (string Text, string Method) CalendarOf(AboutBooking about, bool isLeft, Reader reader, Message message)
    {
        var method = isLeft ? InvitationMethod.Cancel : InvitationMethod.Request;
        var said = words.Of(about, new Telling(Occasion.HostChanged), reader);
        // The mail has the private link of that booking alone.
        var withLink = about.Booking.Id == message.BookingId;
        return (
            invitations.ForGuest(about, method, GuestMails.Appointment(about, said), withLink),
            InvitationFile.MethodOf(method)
        );
    }
}
