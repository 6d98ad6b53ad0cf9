using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>A link by which somebody of the team shows that their mail address is theirs, once.</summary>
public sealed class AddressProof : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid PersonId { get; init; }

    public required byte[] SecretHash { get; init; }

    public required Instant ExpiresAt { get; init; }

    public Instant? UsedAt { get; set; }
}
