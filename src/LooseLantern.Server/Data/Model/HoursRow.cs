using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Tenancy;

namespace LooseLantern.Server.Data.Model;

/// <summary>A named set of hours, of a host or of a page.</summary>
public sealed class HoursRow : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required string Name { get; set; }

    /// <summary>Whether people choose it by its name; false for the hours that one page has for itself.</summary>
    public required bool IsNamed { get; init; }

    /// <summary>Rises with each saved change; a save that names an older one is refused.</summary>
    public int Version { get; set; } = 1;

    public required HoursDocument Document { get; set; }
}
