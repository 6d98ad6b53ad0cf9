using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Puts hosts in a session's seats and commits their time as the session has it now. Whoever sat there and does not any
/// more is free.
/// </summary>
internal static class Seating
{
    /// <param name="session">With its hosts.</param>
    /// <param name="committed">What it holds already; none of a new one.</param>
    /// <param name="hosts">By seat.</param>
    public static void Seat(
        LanternDb db,
        Session session,
        IReadOnlyList<CommitmentRow> committed,
        IReadOnlyList<Guid> hosts,
        Page page,
        Instant now
    )
    {
        session.Hosts.RemoveAll(host => !hosts.Contains(host.HostId));
        db.Commitments.RemoveRange(committed.Where(row => !hosts.Contains(row.HostId)));
        for (var seat = 0; seat < hosts.Count; seat++)
        {
            if (session.Hosts.Find(host => host.HostId == hosts[seat]) is { } stays)
                stays.Seat = seat;
            else
                session.Hosts.Add(Host(session, hosts[seat], seat, now));
            if (committed.FirstOrDefault(row => row.HostId == hosts[seat]) is { } held)
                (held.Span, held.BufferBefore, held.BufferAfter) = (session.Time, page.BufferBefore, page.BufferAfter);
            else
            {
                db.Commitments.Add(Commitment(session, hosts[seat], page));
            }
        }
    }

    /// <summary>Seats hosts in a session that is new.</summary>
    /// <param name="hosts">By seat.</param>
    /// <returns>Their time.</returns>
    public static List<CommitmentRow> SeatNew(Session session, IReadOnlyList<Guid> hosts, Page page, Instant now)
    {
        session.Hosts.AddRange(hosts.Select((host, seat) => Host(session, host, seat, now)));
        return [.. hosts.Select(host => Commitment(session, host, page))];
    }

    private static SessionHost Host(Session session, Guid host, int seat, Instant now) =>
        new()
        {
            WorkspaceId = session.WorkspaceId,
            SessionId = session.Id,
            HostId = host,
            Seat = seat,
            AssignedAt = now,
        };

    private static CommitmentRow Commitment(Session session, Guid host, Page page) =>
        new()
        {
            WorkspaceId = session.WorkspaceId,
            HostId = host,
            HolderId = session.Id,
            Kind = CommitmentKind.Booking,
            PageId = page.Offer is null ? page.Id : null,
            Span = session.Time,
            BufferBefore = page.BufferBefore,
            BufferAfter = page.BufferAfter,
        };
}
