using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
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
    CoverChecking checking,
    CoverFacts facts,
    CoverLetters letters,
    CoverPost post,
    LinkTaking taking,
    Cancelling cancelling,
    EventWishes wishes,
    Tellings tellings,
    CalendarLooking looking,
    TimeLocks locks,
    RecordKeeping record,
    WorkSignals signals,
    IClock clock
)
{
    /// <summary>The letters as their guests will read them; nothing is done by it.</summary>
    /// <exception cref="Refusal">As for carrying it out.</exception>
    public async Task<IReadOnlyList<CoverLetterView>> LettersAsync(CoverForm form, CancellationToken ct)
    {
        var changes = await checking.ChangesAsync(form, ct);
        var names = await checking.NamesAsync(changes, form, ct);
        return
        [
            .. (await letters.PlanAsync(changes, form, ct)).Select(letter =>
            {
                var mail = letters.Write(letter, form, names, link: null);
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

    /// <summary>The same again, because its answer was lost, does nothing and is answered as the first time.</summary>
    /// <exception cref="Refusal">400 naming what of the form is wrong; 403 where a host does not let the person who
    /// asks; 409 where something of it was changed meanwhile, or somebody is not free any more. Nothing is written
    /// then.</exception>
    public async Task<CoverDone> CommitAsync(CoverForm form, CancellationToken ct)
    {
        try
        {
            return await CarryOutAsync(form, ct);
        }
        catch (Refusal refusal) when (refusal.Code == CoverChecking.ChangedMeanwhile)
        {
            db.ChangeTracker.Clear();
            if (await checking.DoneAsync(form, ct) is { } done)
                return done;
            throw;
        }
    }

    private async Task<CoverDone> CarryOutAsync(CoverForm form, CancellationToken ct)
    {
        var found = await checking.ChangesAsync(form, ct);
        if (found.Count == 0)
            return new CoverDone(0, 0, 0);
        var names = await checking.NamesAsync(found, form, ct);
        Guid[] newcomers = [.. found.SelectMany(change => change.Newcomers).Distinct()];
        await looking.FreshenAsync(newcomers, ct);
        await facts.PrepareAsync([.. found.Select(change => change.Session)], newcomers, ct);
        var planned = await letters.PlanAsync(found, form, ct);

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // Nobody knows of the links yet, so that nobody waits for them; nor is a word written under a lock.
        var drafts = await post.DraftAsync(planned, form, names, ct);
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
        var changes = await checking.LockedAsync(found, ct);
        await checking.RequireFreeAsync(changes, newcomers, names, ct);
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
        await post.AddAsync(drafts, ct);
        await db.SayWholeAsync(WholeOf(changes, form, names), ct);
        await transaction.CommitAsync(ct);
        signals.Messages.Wake();
        return new CoverDone(
            changes.Count(change => !change.IsLeft),
            changes.Count(change => change.IsLeft),
            planned.Count
        );
    }

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
            Tell(change, form);
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

    private void Tell(CoverChange change, CoverForm form)
    {
        // What waits for a yes is told apart from what stands: it is asked for as it is now.
        foreach (var group in change.Session.Bookings.GroupBy(booking => booking.WaitsUntil is not null))
            tellings.Add(
                change.Session.PageId,
                [.. group.Select(booking => booking.Id)],
                new Telling(Occasion.HostChanged)
                {
                    NewHosts = change.Newcomers,
                    FormerHosts = change.Former,
                    TeamAlone = !form.TellKept,
                    ByLetter = change.IsOfLetter(group.First()),
                }
            );
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
}
