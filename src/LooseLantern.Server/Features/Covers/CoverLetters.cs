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
    /// <summary>What stays first.</summary>
    public IEnumerable<CoverNews> All => Kept.Concat(Left);

    public CoverNews First => All.First();

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
        var told = changes.Where(change => change.IsLeft || form.TellKept).ToList();
        var hosts = await offering.HostsAsync(ct);
        hosts.ExceptWith(form.Away);
        var abouts = (
            await AboutBooking.ReadAsync(
                db,
                [.. told.SelectMany(change => change.Session.Bookings).Select(booking => booking.Id)],
                ct
            )
        ).ToDictionary(about => about.Booking.Id);
        var news = told.SelectMany(change =>
                change
                    .Session.Bookings.Where(change.IsOfLetter)
                    .OrderBy(booking => booking.Id)
                    .Select(booking => new CoverNews(change, abouts[booking.Id]))
            )
            .SelectMany(one => Reader.AllOf(one.About.Booking).Select(reader => (Reader: reader, News: one)))
            .ToList();
        var letters = new List<CoverLetter>();
        // Who booked for several reads of each of them apart: each has a link of their own.
        foreach (
            var ofReader in news.GroupBy(one => (one.Reader.Email.ToUpperInvariant(), one.News.About.Booking.GuestId))
        )
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
                        offering.Form(
                            ofPage[0].Change.Session.Page!,
                            [.. ofPage.Select(one => (one.Change.Session, one.About.Booking))],
                            hosts
                        )
                    )
                );
        }

        return letters;
    }

    /// <param name="names">Of hosts, by id.</param>
    /// <param name="link">That it offers; null as long as it is not made, and where the page is offered.</param>
    internal WrittenMail Write(
        CoverLetter letter,
        CoverForm form,
        IReadOnlyDictionary<Guid, string> names,
        AvailabilityLink? link
    )
    {
        var reader = letter.Reader;
        var said = SaidOf(letter.First, reader, names);
        var away = letter
            .All.SelectMany(news => news.Change.Before.Select(seat => seat.Host))
            .Where(form.Away.Contains)
            .Distinct()
            .Select(host => names[host]);
        said["former"] = string.Join(", ", away);
        said["word"] = PostInserts.Harmless(form.Word.Trim());
        var zones = letter.All.Select(news => SaidOf(news, reader, names)["zones"]).Distinct();
        // Told once beneath them all, or beside each where they differ.
        var isOneZone = zones.Count() == 1;
        if (!isOneZone)
            said["zones"] = "";
        said["kept"] = Lines("CoverKept", letter.Kept, reader, names, isOneZone);
        said["left"] = Lines("CoverLeft", letter.Left, reader, names, isOneZone);
        said["offer_link"] = letter.Offer is { } offer
            ? words.Link(LinkAddresses.Path(link?.Topic ?? LinkAddresses.TopicOf(offer.Title), PostInserts.Own))
            : said["page_link"];
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
        IReadOnlyDictionary<Guid, string> names,
        bool isOneZone
    ) =>
        string.Join(
            '\n',
            all.Select(news =>
            {
                var said = SaidOf(news, reader, names);
                if (isOneZone)
                    said["zones"] = "";
                return PostTemplates.Line(kind, reader.Language, said);
            })
        );

    private Dictionary<string, string> SaidOf(CoverNews news, Reader reader, IReadOnlyDictionary<Guid, string> names)
    {
        var said = words.Of(news.About, new Telling(Occasion.HostChanged), reader);
        if (news.Change.After is { } after)
            said["hosts"] = string.Join(", ", after.OrderBy(seat => seat.Seat).Select(seat => names[seat.Host]));
        return said;
    }
}
