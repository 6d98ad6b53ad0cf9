using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Gives a seat of a session, with the time that is committed for it, to another host, under the locks of its page and
/// of both. Nothing is saved by it.
/// </summary>
internal static class SeatGiving
{
    /// <param name="session">With its hosts and bookings, tracked.</param>
    public static async Task GiveAsync(
        LanternDb db,
        Session session,
        Guid from,
        Guid to,
        Instant now,
        CancellationToken ct
    )
    {
        var old = session.Hosts.Single(host => host.HostId == from);
        session.Hosts.Remove(old);
        db.Remove(old);
        session.Hosts.Add(
            new SessionHost
            {
                WorkspaceId = session.WorkspaceId,
                HostId = to,
                Seat = old.Seat,
                AssignedAt = now,
            }
        );
        var committed = await db
            .Commitments.Where(row => row.HolderId == session.Id && row.HostId == from)
            .ToListAsync(ct);
        foreach (var commitment in committed)
        {
            db.Commitments.Remove(commitment);
            db.Commitments.Add(For(commitment, to));
        }

        Changed(session);
    }

    /// <summary>Puts one more host into it, in a seat after all others.</summary>
    /// <inheritdoc cref="GiveAsync"/>
    public static async Task AddAsync(LanternDb db, Session session, Guid host, Instant now, CancellationToken ct)
    {
        session.Hosts.Add(
            new SessionHost
            {
                WorkspaceId = session.WorkspaceId,
                HostId = host,
                Seat = session.Hosts.Max(row => row.Seat) + 1,
                AssignedAt = now,
            }
        );
        var like = await db.Commitments.AsNoTracking().FirstAsync(row => row.HolderId == session.Id, ct);
        db.Commitments.Add(For(like, host));
        Changed(session);
    }

    /// <summary>Takes a host out of it, whose time is free again.</summary>
    /// <inheritdoc cref="GiveAsync"/>
    public static async Task RemoveAsync(LanternDb db, Session session, Guid host, CancellationToken ct)
    {
        var old = session.Hosts.Single(row => row.HostId == host);
        session.Hosts.Remove(old);
        db.Remove(old);
        db.Commitments.RemoveRange(
            await db.Commitments.Where(row => row.HolderId == session.Id && row.HostId == host).ToListAsync(ct)
        );
        Changed(session);
    }

    /// <summary>
    /// Takes hosts out of it, whoever comes instead; to be saved before any of their time is given away.
    /// </summary>
    /// <returns>A commitment of the session, by which others are made.</returns>
    public static async Task<CommitmentRow> TakeAwayAsync(
        LanternDb db,
        Session session,
        IEnumerable<Guid> hosts,
        CancellationToken ct
    )
    {
        var committed = await db.Commitments.Where(row => row.HolderId == session.Id).ToListAsync(ct);
        foreach (var host in hosts.ToList())
        {
            var old = session.Hosts.Single(row => row.HostId == host);
            session.Hosts.Remove(old);
            db.Remove(old);
            db.Commitments.RemoveRange(committed.Where(row => row.HostId == host));
        }

        return committed[0];
    }

    /// <summary>Puts a host into a seat of it that nobody has.</summary>
    /// <param name="like">A commitment of the session.</param>
    public static void Add(LanternDb db, Session session, CommitmentRow like, Guid host, int seat, Instant now)
    {
        session.Hosts.Add(
            new SessionHost
            {
                WorkspaceId = session.WorkspaceId,
                HostId = host,
                Seat = seat,
                AssignedAt = now,
            }
        );
        db.Commitments.Add(For(like, host));
    }

    private static CommitmentRow For(CommitmentRow like, Guid host) =>
        new()
        {
            WorkspaceId = like.WorkspaceId,
            HostId = host,
            HolderId = like.HolderId,
            Kind = like.Kind,
            PageId = like.PageId,
            Span = like.Span,
            BufferBefore = like.BufferBefore,
            BufferAfter = like.BufferAfter,
        };

    public static void Changed(Session session)
    {
        session.Sequence++;
        foreach (var booking in session.Bookings)
            booking.Sequence++;
    }
}
