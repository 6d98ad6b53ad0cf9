using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Identity;

namespace LooseLantern.Server.Data.Model;

/// <summary>Somebody with a sign-in. The three roles go together in any mix.</summary>
public sealed class Person : IdentityUser<Guid>, IBelongsToWorkspace
{
    public Person() => Id = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required string Name { get; set; }

    public bool IsOwner { get; set; }

    public bool IsCoordinator { get; set; }
}
