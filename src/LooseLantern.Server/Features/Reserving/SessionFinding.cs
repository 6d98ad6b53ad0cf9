using LooseLantern.Core;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>What finding a session for a wish needs to know, asked in a round trip that others may share.</summary>
public sealed record SessionAsked(FactsAsked Facts, AssignmentAsked Assignment);

/// <summary>A session that a wish is granted in.</summary>
/// <param name="New">The time of its hosts that is committed by it, where it is new; else nothing.</param>
/// <param name="CountsKeeper">Whether who keeps the guest counted.</param>
public sealed record FoundSession(Session Session, IReadOnlyList<CommitmentRow> New, bool CountsKeeper = false);

/// <summary>Finds a session for a wish, computing anew under the locks that its caller holds.</summary>
public sealed class SessionFinding(LanternDb db, OpeningsInputs inputs, IClock clock)
{
    public SessionAsked Ask(RoundTrip trip, BookingWish wish, Page page)
    {
        var rules = inputs.Rules(page, wish.Party, wish.Known);
        var day = wish.Start.InZone(rules.Zone).Date;
        return new SessionAsked(
            inputs.Ask(trip, new FactsWanted(rules, day, day, wish.Duration)),
            new AssignmentAsked(trip, page, [wish.Start], new Meeting(wish.ContactEmail))
        );
    }

    /// <summary>One with room at that time, or a new one; null where the time is not open.</summary>
    /// <exception cref="Refusal">409 with how many places are left, where there are some and more people
    /// come.</exception>
    public async Task<FoundSession?> FindAsync(BookingWish wish, Page page, SessionAsked asked, CancellationToken ct)
    {
        var input = await asked.Facts.InputAsync(db, ct);
        var found = await JoinedAsync(input, wish, ct) ?? New(input, wish, page, asked.Assignment);
        if (found is null)
            PlacesLeft.RequireRoom(input, wish.Start);
        return found;
    }

    /// <summary>The session of a group page that still has room then, or null.</summary>
    private async Task<FoundSession?> JoinedAsync(OpeningsInput input, BookingWish wish, CancellationToken ct)
    {
        if (OpeningsComputation.SessionToJoin(input, wish.Start) is not { } id)
            return null;
        var sessionId = Guid.Parse(id);
        return new FoundSession(
            await db.Sessions.Include(row => row.Hosts).SingleAsync(row => row.Id == sessionId, ct),
            New: []
        );
    }

    /// <summary>
    /// A session of its own with a host in each seat, or null where the time is not open. It is not written yet.
    /// </summary>
    private FoundSession? New(OpeningsInput input, BookingWish wish, Page page, AssignmentAsked assignment)
    {
        var now = clock.GetCurrentInstant();
        var facts = assignment.Facts(wish.Start, now);
        // Whoever holds the time for a link keeps it.
        var holders = input.AsHolder is { } link
            ? input
                .Hosts.Where(host => host.Commitments.Any(row => row.Holder == link && row.Start == wish.Start))
                .Select(host => host.Id)
                .ToHashSet()
            : [];
        if (holders.Count > 0)
            facts = facts with { Keep = holders };
        var counts = input.Keeper is not null;
        // Who holds the time comes first; on an open page, whose guest somebody is by their answers.
        input = input with
        {
            Keeper = holders.Count > 0 ? null : input.Keeper ?? NewKeepers.ByAnswer(page, wish.Answers),
        };
        if (Assignment.For(input, wish.Start, facts) is not { } hosts)
            return null;

        var time = new Span(wish.Start, wish.Start + Duration.FromMinutes(wish.Duration));
        var id = Guid.CreateVersion7();
        var session = new Session
        {
            Id = id,
            WorkspaceId = page.WorkspaceId,
            PageId = page.Id,
            Time = time.ToRange(),
            Uid = id.ToString(),
        };
        return new FoundSession(session, Seating.SeatNew(session, [.. hosts.Select(Guid.Parse)], page, now), counts);
    }
}
