using LooseLantern.Core.Covers;
using LooseLantern.Core.Reasons;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Features.Undo;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Covers;

/// <summary>
/// Carries a plan out: all of it in one transaction, or nothing. Whoever takes a session is looked at under the locks
/// of all pages and hosts it is about; what is left is cancelled, its guests have a link to new times, and each guest
/// one letter.
/// </summary>
public sealed class CoverCommitting(
    LanternDb db,
    CoverFacts facts,
    CoverLetters letters,
    LinkMaking making,
    LinkTaking taking,
    Cancelling cancelling,
    Invitations invitations,
    PostWords words,
    EventWishes wishes,
    Tellings tellings,
    CalendarLooking looking,
    TimeLocks locks,
    Allowances allowances,
    RecordKeeping record,
    WorkSignals signals,
    IClock clock
)
{
    public const int MostOfAWord = 2_000;

    /// <summary>The letters as their guests will read them; nothing is done by it.</summary>
    /// <exception cref="Refusal">As for carrying it out.</exception>
    public async Task<IReadOnlyList<CoverLetterView>> LettersAsync(CoverForm form, CancellationToken ct)
    {
        var changes = await ChangesAsync(form, ct);
        var names = await NamesAsync(changes, form, ct);
        return
        [
            .. (await letters.PlanAsync(changes, form, ct)).Select(letter =>
            {
                var mail = letters.Write(letter, form, names, PathOf(letter.Offer, link: null));
                return new CoverLetterView(
                    letter.Reader.Name,
                    letter.Reader.Email,
                    letter.Kept.Count,
                    letter.Left.Count,
                    mail.Subject,
                    PostInserts.Masked(mail.Text),
                    PostInserts.Masked(mail.Html)
                );
            }),
        ];
    }

    /// <exception cref="Refusal">400 naming what of the form is wrong; 403 where a host does not let the person who
    /// asks; 409 where something of it was changed meanwhile, or somebody is not free any more. Nothing is written
    /// then.</exception>
    public async Task<CoverDone> CommitAsync(CoverForm form, CancellationToken ct)
    {
        var found = await ChangesAsync(form, ct);
        if (found.Count == 0)
            return new CoverDone(0, 0, 0);
        var names = await NamesAsync(found, form, ct);
        Guid[] newcomers = [.. found.SelectMany(change => change.Newcomers).Distinct()];
        await looking.FreshenAsync(newcomers, ct);
        await facts.PrepareAsync([.. found.Select(change => change.Session)], newcomers, ct);
        var planned = await letters.PlanAsync(found, form, ct);

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // Nobody knows of them yet, so that nobody waits for them either.
        var links = await MakeLinksAsync(planned, ct);
        Guid[] pages = [.. found.Select(change => change.Session.PageId).Distinct()];
        await locks.TakeAsync(
            new TimeLock
            {
                Pages = pages,
                Hosts =
                [
                    .. found
                        .SelectMany(change => change.Before.Concat(change.After ?? []))
                        .Select(seat => seat.Host)
                        .Distinct(),
                ],
            },
            ct
        );
        var changes = await LockedAsync(found, ct);
        await RequireFreeAsync(changes, newcomers, names, ct);
        try
        {
            await WriteAsync(changes, form, names, ct);
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: CommitmentRow.NoDoubleBooking })
        {
            throw new Refusal(StatusCodes.Status409Conflict, "not-free");
        }

        foreach (var page in pages.Order())
            await taking.SettleAsync(page, ct);
        await WriteLettersAsync(planned, links, form, names, ct);
        await db.SayWholeAsync(WholeOf(changes, form, names), ct);
        await transaction.CommitAsync(ct);
        signals.Messages.Wake();
        return new CoverDone(
            changes.Count(change => !change.IsLeft),
            changes.Count(change => change.IsLeft),
            planned.Count
        );
    }

    /// <summary>What is to be done, against what is there.</summary>
    private async Task<List<CoverChange>> ChangesAsync(CoverForm form, CancellationToken ct)
    {
        if (form.Away is not { Count: > 0 })
            throw Refusal.Invalid("away", "cover-away");
        if (form.Word.Length > MostOfAWord)
            throw Refusal.Invalid("word", Phrase.Of("too-long", ("most", MostOfAWord)));
        if (form.Lines is not { Count: > 0 and <= CoverComputation.MostSessions })
            throw Refusal.Invalid("lines", Phrase.Of("cover-lines", ("most", CoverComputation.MostSessions)));
        if (form.Lines.Select(line => line.Session).Distinct().Count() < form.Lines.Count)
            throw Refusal.Invalid("lines", "cover-seats");
        Guid[] ids = [.. form.Lines.Select(line => line.Session)];
        var sessions = await CoverFacts
            .Whole(db.Sessions.AsNoTracking())
            .Where(session => ids.Contains(session.Id))
            .ToDictionaryAsync(session => session.Id, ct);
        var changes = new List<CoverChange>();
        foreach (var line in form.Lines)
        {
            if (!sessions.TryGetValue(line.Session, out var session))
                throw Changed();
            var change = new CoverChange(session, line.Before, line.After);
            if (
                line.After is { } after
                && (
                    after.Count == 0
                    || after.Select(seat => seat.Host).Distinct().Count() < after.Count
                    || after.Any(seat => form.Away.Contains(seat.Host))
                    || !after
                        .Select(seat => seat.Seat)
                        .Order()
                        .SequenceEqual(CoverPlanning.SeatsOf(session, form.Away).Select(seat => seat.Seat).Order())
                )
            )
                throw Refusal.Invalid("lines", "cover-seats");
            RequireUnchanged(change, session);
            if (!change.IsNone)
                changes.Add(change);
        }

        await allowances.RequireAsync(
            [.. changes.SelectMany(change => change.Before).Select(seat => seat.Host).Distinct()],
            Allowance.Move,
            ct
        );
        await allowances.RequireAsync(
            [.. changes.SelectMany(change => change.Newcomers).Distinct()],
            Allowance.Book,
            ct
        );
        return changes;
    }

    private static void RequireUnchanged(CoverChange change, Session session)
    {
        if (
            !CoverChange.SeatsOf(session).SequenceEqual(change.Before.OrderBy(seat => seat.Seat))
            || session.Time != change.Session.Time
        )
            throw Changed();
    }

    private async Task<List<CoverChange>> LockedAsync(List<CoverChange> found, CancellationToken ct)
    {
        Guid[] ids = [.. found.Select(change => change.Session.Id)];
        var sessions = await CoverFacts
            .Whole(db.Sessions)
            .Where(session => ids.Contains(session.Id))
            .ToDictionaryAsync(session => session.Id, ct);
        var now = clock.GetCurrentInstant();
        return found.ConvertAll(change =>
        {
            if (
                !sessions.TryGetValue(change.Session.Id, out var session)
                || !session
                    .Bookings.Select(booking => booking.Id)
                    .Order()
                    .SequenceEqual(change.Session.Bookings.Select(booking => booking.Id).Order())
            )
                throw Changed();
            RequireUnchanged(change, session);
            if (session.Time.LowerBound <= now)
                throw new Refusal(StatusCodes.Status409Conflict, "over");
            return change with { Session = session };
        });
    }

    private async Task RequireFreeAsync(
        List<CoverChange> changes,
        Guid[] newcomers,
        Dictionary<Guid, string> names,
        CancellationToken ct
    )
    {
        var obstacles = await facts.ObstaclesAsync([.. changes.Select(change => change.Session)], newcomers, ct);
        foreach (var change in changes)
        {
            foreach (var host in change.Newcomers)
            {
                // Outside their hours somebody may be asked to come by hand.
                if (obstacles[(change.Session.Id, host)] is { Rule: not Rule.Hours } obstacle)
                    throw NotFree(
                        Phrase.Of(obstacle.Rule == Rule.Calendars ? "host-busy" : "host-booked", ("name", names[host]))
                    );
            }
        }

        var twice = CoverComputation.CollidingByHand(
            new CoverInput(
                [
                    .. changes
                        .Where(change => !change.IsLeft)
                        .Select(change => new CoveredSession(
                            CoverPlanning.Id(change.Session.Id),
                            change.Session.Time.ToSpan(),
                            change.Session.Page!.BufferBefore,
                            change.Session.Page.BufferAfter,
                            []
                        )
                        {
                            Decided = [.. change.After!.Select(seat => CoverPlanning.Id(seat.Host))],
                        }),
                ],
                new Dictionary<string, CoverLoad>()
            )
        );
        if (twice is { } collision)
            throw NotFree(Phrase.Of("host-booked", ("name", names[Guid.Parse(collision.Host)])));
    }

    private static Refusal NotFree(Phrase why) =>
        new(StatusCodes.Status409Conflict, "not-free", Phrase.Of("not-free.taker", ("why", Phrases.Mend(why))));

    /// <summary>Time is freed before any of it is given away: two may swap theirs.</summary>
    private async Task WriteAsync(
        List<CoverChange> changes,
        CoverForm form,
        Dictionary<Guid, string> names,
        CancellationToken ct
    )
    {
        var now = clock.GetCurrentInstant();
        var kept = changes.Where(change => !change.IsLeft).ToList();
        var likes = new Dictionary<Guid, CommitmentRow>();
        foreach (var change in kept)
            likes[change.Session.Id] = await SeatGiving.TakeAwayAsync(
                db,
                change.Session,
                change.Before.Except(change.After!).Select(seat => seat.Host),
                ct
            );
        await db.SaveChangesAsync(ct);
        foreach (var change in kept)
        {
            foreach (var seat in change.After!.Except(change.Before))
                SeatGiving.Add(db, change.Session, likes[change.Session.Id], seat.Host, seat.Seat, now);
            SeatGiving.Changed(change.Session);
            Note(change, names);
            Tell(
                change,
                new Telling(Occasion.HostChanged)
                {
                    NewHosts = change.Newcomers,
                    FormerHosts = change.Former,
                    TeamAlone = !form.TellKept,
                    ByLetter = true,
                }
            );
        }

        foreach (var change in changes.Where(change => change.IsLeft))
        {
            foreach (var group in change.Session.Bookings.GroupBy(booking => booking.WaitsUntil is not null))
                tellings.Add(
                    change.Session.PageId,
                    [.. group.Select(booking => booking.Id)],
                    new Telling(group.Key ? Occasion.Declined : Occasion.Cancelled) { ByLetter = true }
                );
            await cancelling.EndAllAsync(change.Session, now, ct);
            Note(change, names);
        }

        await wishes.SaveAsync([.. changes.Select(change => change.Session)], ct);
    }

    private void Tell(CoverChange change, Telling telling)
    {
        // What waits for a yes is told apart from what stands.
        foreach (var group in change.Session.Bookings.GroupBy(booking => booking.WaitsUntil is not null))
            tellings.Add(change.Session.PageId, [.. group.Select(booking => booking.Id)], telling);
    }

    private void Note(CoverChange change, Dictionary<Guid, string> names)
    {
        string Of(IEnumerable<Guid> hosts) => string.Join(", ", hosts.Select(host => names[host]));
        var what =
            change.IsLeft ? $"Called off the booking of {RecordWords.Guest} and offered new times"
            : change.Newcomers.Count == 0 ? $"Removed {Of(change.Former)} from the booking of {RecordWords.Guest}"
            : $"Gave the booking of {RecordWords.Guest} from {Of(change.Former)} to {Of(change.Newcomers)}";
        foreach (var booking in change.Session.Bookings)
            record.Note(booking.Id, what, change.Before.Select(seat => seat.Host).Concat(change.Newcomers));
    }

    private async Task<Dictionary<string, AvailabilityLink>> MakeLinksAsync(
        IReadOnlyList<CoverLetter> planned,
        CancellationToken ct
    )
    {
        var links = new Dictionary<string, AvailabilityLink>();
        foreach (var letter in planned.Where(letter => letter.Offer is not null).DistinctBy(letter => letter.OfferKey))
            links[letter.OfferKey] = await making.CreateAsync(letter.Offer!, ct, LinkGoes.Out);
        return links;
    }

    private async Task WriteLettersAsync(
        IReadOnlyList<CoverLetter> planned,
        Dictionary<string, AvailabilityLink> links,
        CoverForm form,
        Dictionary<Guid, string> names,
        CancellationToken ct
    )
    {
        db.ChangeTracker.Clear();
        var abouts = (
            await AboutBooking.ReadAsync(
                db,
                [
                    .. planned
                        .SelectMany(letter => letter.Kept.Concat(letter.Left))
                        .Select(news => news.About.Booking.Id)
                        .Distinct(),
                ],
                ct
            )
        ).ToDictionary(about => about.Booking.Id);
        foreach (var letter in planned)
        {
            var link = links.GetValueOrDefault(letter.OfferKey);
            var message = letters.MessageOf(
                letter,
                letters.Write(letter, form, names, PathOf(letter.Offer, link)),
                link
            );
            var calendars = letter
                .Kept.Concat(letter.Left)
                .Select(news => (news.Change.IsLeft, About: abouts[news.About.Booking.Id]))
                .Where(one =>
                    one.About.Page.Post.ToGuests == GuestMail.Invitation && one.About.Booking.WaitsUntil is null
                )
                .Select(
                    (one, at) =>
                    {
                        var method = one.IsLeft ? InvitationMethod.Cancel : InvitationMethod.Request;
                        var said = words.Of(one.About, new Telling(Occasion.HostChanged), letter.Reader);
                        // Only of the first the mail has the private link.
                        var text = invitations.ForGuest(
                            one.About,
                            method,
                            GuestMails.Appointment(one.About, said),
                            withLink: at == 0 && one.About.Booking.Id == message.BookingId
                        );
                        return (Method: InvitationFile.MethodOf(method), Text: text);
                    }
                )
                .ToList();
            if (calendars is [var first, .. var more])
            {
                (message.Calendar, message.CalendarMethod) = (first.Text, first.Method);
                message.MoreCalendars = [.. more.Select(one => one.Text)];
            }

            db.Messages.Add(message);
        }

        UndoMail.Keep(db);
        await db.SaveChangesAsync(ct);
    }

    private static string WholeOf(List<CoverChange> changes, CoverForm form, Dictionary<Guid, string> names)
    {
        var (kept, left) = (changes.Count(change => !change.IsLeft), changes.Count(change => change.IsLeft));
        return $"Found cover for {string.Join(", ", form.Away.Where(names.ContainsKey).Select(host => names[host]))}: "
            + string.Join(
                ", ",
                new[]
                {
                    kept > 0 ? $"{kept} went to others" : "",
                    left > 0 ? $"{left} {(left == 1 ? "is" : "are")} offered new times" : "",
                }.Where(part => part.Length > 0)
            );
    }

    private static string? PathOf(LinkForm? offer, AvailabilityLink? link) =>
        offer is null ? null : LinkAddresses.Path(link?.Topic ?? LinkAddresses.TopicOf(offer.Title), PostInserts.Own);

    private Task<Dictionary<Guid, string>> NamesAsync(List<CoverChange> changes, CoverForm form, CancellationToken ct)
    {
        Guid[] ids =
        [
            .. changes
                .SelectMany(change => change.Before.Concat(change.After ?? []))
                .Select(seat => seat.Host)
                .Concat(form.Away)
                .Distinct(),
        ];
        return db.Hosts.Where(host => ids.Contains(host.Id)).ToDictionaryAsync(host => host.Id, host => host.Name, ct);
    }

    private static Refusal Changed() =>
        new(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.cover");
}
