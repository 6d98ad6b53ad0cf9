using LooseLantern.Server.Tenancy;

namespace LooseLantern.Server.Data.Model;

/// <summary>A public front with an address of its own, under which its pages stand.</summary>
public sealed class Desk : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    /// <summary>First part of a page's path; unique over all workspaces.</summary>
    public required string Address { get; set; }

    public required string Name { get; set; }
}
