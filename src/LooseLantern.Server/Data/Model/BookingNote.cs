using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>What somebody noted of a booking, for the team alone.</summary>
public sealed class BookingNote : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid BookingId { get; init; }

    public required Guid PersonId { get; init; }

    /// <summary>As it was then, since people leave.</summary>
    public required string PersonName { get; init; }

    public required Instant At { get; init; }

    public Instant? ChangedAt { get; set; }

    public required string Text { get; set; }
}
