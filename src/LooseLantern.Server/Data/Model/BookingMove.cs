using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>A booking went from one time to another.</summary>
public sealed class BookingMove : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid BookingId { get; init; }

    public required Instant At { get; init; }

    /// <summary>When it started before, and <see cref="Now"/> from then on.</summary>
    public required Instant Was { get; init; }

    public required Instant Now { get; init; }

    /// <summary>Whether the guest did it, and not the team or a host in their calendar.</summary>
    public required bool ByGuest { get; init; }
}
