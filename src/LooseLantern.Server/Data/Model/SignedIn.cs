using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>One place where a person is signed in. Its cookie holds only while this row is there.</summary>
public sealed class SignedIn : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid PersonId { get; init; }

    public required Instant Since { get; init; }

    public required Instant SeenAt { get; set; }

    /// <summary>Browser and system as far as they tell, in words.</summary>
    public required string Device { get; init; }

    public required string NetworkAddress { get; init; }
}
