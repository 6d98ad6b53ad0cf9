using LooseLantern.Core.Covers;
using LooseLantern.Core.Reasons;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Covers;

/// <summary>
/// Whether a plan can be carried out: what somebody asks for against what is there, before any lock is taken and again
/// once nobody else can change it.
/// </summary>
public sealed class CoverChecking(LanternDb db, CoverFacts facts, Allowances allowances, IClock clock)
{
    public const int MostOfAWord = 2_000;

    internal const string ChangedMeanwhile = "changed-meanwhile";

    /// <summary>What is to be done, against what is there.</summary>
    /// <exception cref="Refusal">400 naming what of the form is wrong; 403 where a host does not let the person who
    /// asks; 409 where something of it was changed meanwhile.</exception>
    internal async Task<List<CoverChange>> ChangesAsync(CoverForm form, CancellationToken ct)
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

    /// <summary>The same once all is locked, tracked.</summary>
    internal async Task<List<CoverChange>> LockedAsync(List<CoverChange> found, CancellationToken ct)
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

    /// <summary>Whoever takes a session is free for it, and has no two at once.</summary>
    internal async Task RequireFreeAsync(
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

    /// <summary>
    /// What was done already, where all is as the form would have it: the answer to a press may have been lost on its
    /// way. Null where it is not.
    /// </summary>
    internal async Task<CoverDone?> DoneAsync(CoverForm form, CancellationToken ct)
    {
        Guid[] ids = [.. form.Lines.Select(line => line.Session)];
        var sessions = await db
            .Sessions.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(session => session.Hosts)
            .Include(session => session.Bookings)
            .AsSplitQuery()
            .Where(session => ids.Contains(session.Id))
            .ToDictionaryAsync(session => session.Id, ct);
        var isDone = form.Lines.All(line =>
            sessions.TryGetValue(line.Session, out var session)
            && (
                line.After is { } after
                    ? session.CancelledAt is null
                        && CoverChange.SeatsOf(session).SequenceEqual(after.OrderBy(seat => seat.Seat))
                    : session.CancelledAt is not null
                        && session.Bookings.TrueForAll(booking =>
                            booking.CancelledBy is CancelledBy.Team or CancelledBy.Declined
                        )
            )
        );
        if (!isDone)
            return null;
        Guid[] bookings = [.. sessions.Values.SelectMany(session => session.Bookings).Select(booking => booking.Id)];
        var left = form.Lines.Count(line => line.After is null);
        return new CoverDone(
            form.Lines.Count - left,
            left,
            await db.Messages.CountAsync(
                message => message.Kind == MessageKind.CoverForGuest && bookings.Contains(message.BookingId!.Value),
                ct
            )
        );
    }

    /// <summary>Of all hosts it is about, by id.</summary>
    internal Task<Dictionary<Guid, string>> NamesAsync(List<CoverChange> changes, CoverForm form, CancellationToken ct)
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

    private static Refusal Changed() => new(StatusCodes.Status409Conflict, ChangedMeanwhile, "changed-meanwhile.cover");
}
