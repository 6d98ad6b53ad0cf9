using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Tenancy;

namespace LooseLantern.Server.Data.Model;

/// <summary>A named set of hours, of a host or of a page.</summary>
public sealed class HoursRow : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required string Name { get; set; }

    public required HoursDocument Document { get; set; }
}
