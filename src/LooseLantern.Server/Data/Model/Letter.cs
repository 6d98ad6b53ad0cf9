using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>Saved words to a guest, with blanks that are filled in for each.</summary>
public sealed class Letter : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    /// <summary>Whose own it is; null for one of the whole team.</summary>
    public Guid? PersonId { get; set; }

    /// <summary>What the team calls it.</summary>
    public required string Name { get; set; }

    public required string Subject { get; set; }

    public required string Body { get; set; }

    /// <summary>The pattern that its link starts from; null where that is chosen each time.</summary>
    public Guid? PatternId { get; set; }

    /// <summary>Raised by each change.</summary>
    public int Version { get; set; } = 1;

    public required Instant SavedAt { get; set; }
}
