using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>
/// What became of bookings and is still to be told, written in the transaction of what it speaks of. Messages are
/// written from it as soon as that is committed, and it is gone in the transaction that adds them.
/// </summary>
public sealed class TellingRow : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    /// <summary>The page of the bookings, whose lock is held by whoever changes them.</summary>
    public required Guid PageId { get; init; }

    public required Guid[] BookingIds { get; init; }

    public required Telling Telling { get; init; }

    /// <summary>
    /// Until when a server of ours is at it; one that stopped in the middle is not waited for longer.
    /// </summary>
    public Instant? WorkingUntil { get; set; }
}
