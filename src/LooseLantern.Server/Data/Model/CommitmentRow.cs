using LooseLantern.Core.Openings;
using LooseLantern.Server.Tenancy;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Data.Model;

/// <summary>
/// Time of a host that is given away. The database itself refuses two that overlap unless they have the same holder, so
/// that a double booking can't be stored even by a mistake in the code above.
/// </summary>
public sealed class CommitmentRow : IBelongsToWorkspace
{
    public const string NoDoubleBooking = "commitments_no_double_booking";

    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid HostId { get; init; }

    /// <summary>The session of a booking; the link or poll of a hold.</summary>
    public required Guid HolderId { get; init; }

    public required CommitmentKind Kind { get; init; }

    public Guid? PageId { get; init; }

    public required NpgsqlRange<Instant> Span { get; set; }

    public required int BufferBefore { get; set; }

    public required int BufferAfter { get; set; }

    /// <summary>
    /// Until when it is held; null for a booking. What has run out counts as gone, whether or not it was taken away
    /// yet.
    /// </summary>
    public Instant? HeldUntil { get; set; }
}
