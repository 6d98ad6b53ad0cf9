using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

public enum MessageKind
{
    BookedForGuest,
    BookedForHost,

    /// <summary>Somebody else takes the guest's booking over.</summary>
    HostChangedForGuest,

    MovedForGuest,
    MovedForHost,
}

/// <summary>
/// Something to tell somebody, written in the transaction of what it speaks of, so that neither can be there without the other.
/// </summary>
public sealed class Message : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required MessageKind Kind { get; init; }

    public required Guid BookingId { get; init; }

    public required string ToName { get; init; }

    public required string ToAddress { get; init; }

    /// <summary>Stays the same over every try to send it, so that a receiver can tell a repeat.</summary>
    public required string MessageId { get; init; }

    public required Instant DueAt { get; init; }
}
