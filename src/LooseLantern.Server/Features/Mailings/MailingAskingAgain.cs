using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Letters;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>Asks those of a mailing again who are silent; whoever booked or answered is not written to.</summary>
public sealed class MailingAskingAgain(
    LanternDb db,
    Tenant tenant,
    MailingViews views,
    LinkEditing links,
    LinkPost post,
    LinkTexts texts,
    PageReading reading,
    LetterOffering offering,
    ReplyAddresses replies,
    PublicAddress site,
    RecordKeeping record,
    WorkSignals signals,
    Actor actor,
    IClock clock
)
{
    /// <param name="word">Of whoever asks, in the place of ours; may be empty.</param>
    /// <param name="key">Of the press; the same again asks nobody twice.</param>
    /// <exception cref="Refusal">400 where the word is too long; 404; 409 where nobody is silent, or nothing is
    /// left.</exception>
    public async Task AskAsync(Guid id, string word, string key, CancellationToken ct)
    {
        if (key is { Length: 0 or > 200 })
            throw Refusal.Invalid("Idempotency-Key", "idempotency-key");
        if (word.Length > LinkPost.MostOfAWord)
            throw Refusal.Invalid("word", Phrase.Of("too-long", ("most", LinkPost.MostOfAWord)));
        var press = PressIds.Of(tenant.WorkspaceId!.Value, actor.Required.Id, $"again {id}", key);
        var mailing = await db.Mailings.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("mailing");
        if (mailing.LastPress == press)
            return;
        // What is open is looked up before anything is locked: who books by one of the links is not to wait for that.
        var offered = await OfferedAsync(mailing, await SilentAsync(id, ct), ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await PressIds.TakeTurnAsync(db, id, ct);
        mailing = await db.Mailings.SingleAsync(row => row.Id == id, ct);
        if (mailing.LastPress == press)
            return;
        // Whoever books at this moment is waited for, and is not silent then.
        await db.Database.ExecuteSqlAsync(
            $"SELECT 1 FROM links WHERE mailing_id = {id} ORDER BY id FOR NO KEY UPDATE",
            ct
        );
        var silent = await SilentAsync(id, ct);
        if (offered.Page is { } page)
            await AskOfPageAsync(page, silent, word, ct);
        else
            await AskOfLinksAsync(silent, offered.ByLink, word, ct);
        (mailing.AskedAgainAt, mailing.LastPress) = (clock.GetCurrentInstant(), press);
        record.Note(id, $"Asked {silent.Count} {(silent.Count == 1 ? "guest" : "guests")} again: “{mailing.Title}”");
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        signals.Messages.Wake();
    }

    /// <param name="Page">The page that is offered, whole; null where each has a link.</param>
    /// <param name="ByLink">What each link shows.</param>
    private sealed record Offered(Page? Page, IReadOnlyDictionary<Guid, IReadOnlyList<Opening>> ByLink);

    /// <exception cref="Refusal">409 where nobody is silent.</exception>
    private async Task<List<MailingGuestRow>> SilentAsync(Guid id, CancellationToken ct)
    {
        var silent = (await views.GuestsAsync(id, ct))
            .Where(guest => guest.Standing is MailingStanding.Opened or MailingStanding.Unopened)
            .ToList();
        return silent.Count > 0 ? silent : throw new Refusal(StatusCodes.Status409Conflict, "mailing-none-silent");
    }

    /// <exception cref="Refusal">409 where nothing is left.</exception>
    private async Task<Offered> OfferedAsync(Mailing mailing, List<MailingGuestRow> silent, CancellationToken ct)
    {
        var byLink = new Dictionary<Guid, IReadOnlyList<Opening>>();
        if (mailing.PageId is { } pageId)
        {
            var page = (await reading.OfAsync(pageId, ct))!.Page;
            return await offering.SupplyAsync(page, 1, ct) is { Room: 0 }
                ? throw new Refusal(StatusCodes.Status409Conflict, "none-left")
                : new Offered(page, byLink);
        }

        var first = await links.GetAsync(silent[0].LinkId!.Value, ct);
        var countsKeeper = first.Page!.Seats.Any(seat => seat.Keeper != SeatKeeper.Counts);
        var shown = new Dictionary<(string, Guid?), IReadOnlyList<Opening>>();
        var zones = await db
            .Links.Where(row => row.MailingId == mailing.Id)
            .ToDictionaryAsync(row => row.Id, row => row.GuestZone, ct);
        var guestIds = silent.ConvertAll(guest => guest.GuestId);
        var keepers = countsKeeper
            ? await db
                .Guests.Where(row => guestIds.Contains(row.Id))
                .ToDictionaryAsync(row => row.Id, row => row.KeeperId, ct)
            : [];
        foreach (var guest in silent)
        {
            // All draw on the same times; where hosts' own guests come first, those of one keeper do.
            var id = guest.LinkId!.Value;
            var key = (zones[id], guest.GuestId is { } known ? keepers.GetValueOrDefault(known) : null);
            if (!shown.TryGetValue(key, out var openings))
                shown[key] = openings = await ShownAsync(
                    countsKeeper ? await links.GetAsync(id, ct) : first,
                    key.Item1,
                    ct
                );
            if (openings.Count == 0 && !LinkPost.AsksFirst(first))
                throw new Refusal(StatusCodes.Status409Conflict, "none-left");
            byLink[id] = openings;
        }

        db.ChangeTracker.Clear();
        return new Offered(null, byLink);
    }

    private Task<IReadOnlyList<Opening>> ShownAsync(AvailabilityLink link, string zone, CancellationToken ct) =>
        texts.ShownAsync(link.Page!, zone, null, null, link.Page!.Durations[0], ct, link.Text.MostListed);

    private async Task AskOfLinksAsync(
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

    private async Task AskOfPageAsync(Page page, List<MailingGuestRow> silent, string word, CancellationToken ct)
    {
        var letters = silent.ConvertAll(guest => guest.MessageId!.Value);
        var firsts = await db.Messages.Where(row => letters.Contains(row.Id)).ToListAsync(ct);
        var languages = await LanguagesAsync(silent, ct);
        foreach (var guest in silent)
        {
            var first = firsts.Single(row => row.Id == guest.MessageId);
            var language = guest.GuestId is { } one ? languages.GetValueOrDefault(one) ?? "en" : "en";
            var reader = new Reader(guest.Name, guest.Email, language, Core.TimeText.Clock.Usual, page.Zone);
            var message = PostDraft.Of(
                tenant.WorkspaceId!.Value,
                first.FromName,
                MessageKind.LinkAgainForGuest,
                reader,
                PostTemplates.Write(
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
                        ["link"] = site.Value + PersonalAddresses.PathOf(page, PostInserts.Own),
                        ["times"] = site.Value + PersonalAddresses.PathOf(page, PostInserts.Own),
                    }
                ),
                clock.GetCurrentInstant()
            );
            (message.AgainOf, message.ProtectedSecret, message.WrittenBy) = (
                first.Id,
                first.ProtectedSecret,
                actor.Required.Id
            );
            replies.Await(message);
            db.Messages.Add(message);
        }
    }

    private async Task<Dictionary<Guid, string?>> LanguagesAsync(List<MailingGuestRow> guests, CancellationToken ct)
    {
        var ids = guests.Where(guest => guest.GuestId is not null).Select(guest => guest.GuestId!.Value).ToList();
        return await db
            .Guests.AsNoTracking()
            .Where(guest => ids.Contains(guest.Id))
            .ToDictionaryAsync(guest => guest.Id, guest => guest.Language, ct);
    }
}
