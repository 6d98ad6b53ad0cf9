using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>An invitation to join the workspace, taken up by its secret link, once.</summary>
public sealed class Invitation : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required string Name { get; init; }

    public required string Email { get; init; }

    public required bool IsOwner { get; init; }

    public required bool IsCoordinator { get; init; }

    public required bool IsHost { get; init; }

    /// <summary>Who invites.</summary>
    public required Guid ByPersonId { get; init; }

    public required byte[] SecretHash { get; init; }

    public required string ProtectedSecret { get; init; }

    public required Instant ExpiresAt { get; init; }

    public Instant? TakenUpAt { get; set; }
}
