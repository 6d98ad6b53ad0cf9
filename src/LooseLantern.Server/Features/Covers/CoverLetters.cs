using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using NodaTime;

namespace LooseLantern.Server.Features.Covers;

/// <summary>One booking as a letter speaks of it.</summary>
internal sealed record CoverNews(CoverChange Change, AboutBooking About);

/// <summary>One letter: all that becomes of a guest's bookings.</summary>
/// <param name="Offer">Of the link that is made for it; null where the page is offered, or nothing is left.</param>
internal sealed record CoverLetter(
    Reader Reader,
    IReadOnlyList<CoverNews> Kept,
    IReadOnlyList<CoverNews> Left,
    LinkForm? Offer
)
{
    public CoverNews First => Kept.Concat(Left).First();

    /// <summary>Letters to a guest and to who booked for them offer the same link.</summary>
    public string OfferKey => string.Join(' ', Left.Select(news => news.About.Booking.Id).Order());
}

/// <summary>
/// Writes one letter a guest, whatever becomes of their bookings; only what is left on several pages takes several,
/// since each has a link of its own.
/// </summary>
public sealed class CoverLetters(LanternDb db, PostWords words, CoverOffering offering, Actor actor, IClock clock)
{
    /// <param name="changes">Before anything of it is done.</param>
    internal async Task<IReadOnlyList<CoverLetter>> PlanAsync(
        IReadOnlyList<CoverChange> changes,
        CoverForm form,
        CancellationToken ct
    )
    {
        var told = changes.Where(change => change.IsLeft || (form.TellKept && change.Newcomers.Count > 0)).ToList();
        var abouts = (
            await AboutBooking.ReadAsync(
                db,
                [.. told.SelectMany(change => change.Session.Bookings).Select(booking => booking.Id)],
                ct
            )
        ).ToDictionary(about => about.Booking.Id);
        var news = told.SelectMany(change =>
                change
                    .Session.Bookings.OrderBy(booking => booking.Id)
                    .Select(booking => new CoverNews(change, abouts[booking.Id]))
            )
            .SelectMany(one => Reader.AllOf(one.About.Booking).Select(reader => (Reader: reader, News: one)))
            .ToList();
        var letters = new List<CoverLetter>();
        foreach (var ofReader in news.GroupBy(one => one.Reader.Email, StringComparer.OrdinalIgnoreCase))
        {
            var reader = ofReader.First().Reader;
            var kept = ofReader.Select(one => one.News).Where(one => !one.Change.IsLeft).ToList();
            var left = ofReader
                .Select(one => one.News)
                .Where(one => one.Change.IsLeft)
                .GroupBy(one => one.Change.Session.PageId)
                .ToList();
            if (left.Count == 0)
                letters.Add(new CoverLetter(reader, kept, [], null));
            foreach (var (ofPage, at) in left.Select((ofPage, at) => (ofPage.ToList(), at)))
                letters.Add(
                    new CoverLetter(
                        reader,
                        at == 0 ? kept : [],
                        ofPage,
                        await offering.FormAsync(
                            ofPage[0].Change.Session.Page!,
                            [.. ofPage.Select(one => (one.Change.Session, one.About.Booking))],
                            form.Away,
                            ct
                        )
                    )
                );
        }

        return letters;
    }

    /// <param name="names">Of hosts, by id.</param>
    /// <param name="offerPath">Of its link, from the root of the site, with the insert for its secret; null where the
    /// page is offered.</param>
    internal WrittenMail Write(
        CoverLetter letter,
        CoverForm form,
        IReadOnlyDictionary<Guid, string> names,
        string? offerPath
    )
    {
        var reader = letter.Reader;
        var said = SaidOf(letter.First, reader, names);
        var away = letter
            .Kept.Concat(letter.Left)
            .SelectMany(news => news.Change.Before.Select(seat => seat.Host))
            .Where(form.Away.Contains)
            .Distinct()
            .Select(host => names[host]);
        said["former"] = string.Join(", ", away);
        said["word"] = PostInserts.Harmless(form.Word.Trim());
        said["kept"] = Lines("CoverKept", letter.Kept, reader, names);
        said["left"] = Lines("CoverLeft", letter.Left, reader, names);
        said["offer_link"] = offerPath is null ? said["page_link"] : words.Link(offerPath);
        said["sender"] = PostInserts.Harmless(actor.Person?.Name ?? letter.First.About.Page.Desk!.Name);
        // Of several each has a link of its own, which the guest has from before.
        if (letter.Kept.Count != 1)
            said["link"] = "";
        return PostTemplates.Write(MessageKind.CoverForGuest, reader.Language, said);
    }

    /// <summary>The message of it, not saved yet.</summary>
    /// <param name="link">That it offers; null for none.</param>
    internal Message MessageOf(CoverLetter letter, WrittenMail mail, AvailabilityLink? link)
    {
        var first = letter.First.About;
        var message = PostDraft.Of(
            first.Booking.WorkspaceId,
            first.Page.Desk!.Name,
            MessageKind.CoverForGuest,
            letter.Reader,
            mail,
            clock.GetCurrentInstant(),
            first.Booking.Id
        );
        (message.ProtectedSecret, message.LinkId) = (link?.ProtectedSecret, link?.Id);
        message.WrittenBy = actor.Person?.Id;
        return message;
    }

    private string Lines(
        string kind,
        IReadOnlyList<CoverNews> all,
        Reader reader,
        IReadOnlyDictionary<Guid, string> names
    ) => string.Join('\n', all.Select(news => PostTemplates.Line(kind, reader.Language, SaidOf(news, reader, names))));

    private Dictionary<string, string> SaidOf(CoverNews news, Reader reader, IReadOnlyDictionary<Guid, string> names)
    {
        var said = words.Of(news.About, new Telling(Occasion.HostChanged), reader);
        if (news.Change.After is { } after)
            said["hosts"] = string.Join(", ", after.OrderBy(seat => seat.Seat).Select(seat => names[seat.Host]));
        return said;
    }
}
