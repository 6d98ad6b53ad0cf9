using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>One line of the record: who did what, and for whom.</summary>
public sealed class RecordEntry : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Instant At { get; init; }

    public required Guid PersonId { get; init; }

    /// <summary>As it was then, since people leave.</summary>
    public required string PersonName { get; init; }

    /// <summary>
    /// The hosts it was done for, other than the person's own; empty where they did it for themselves.
    /// </summary>
    public required Guid[] ForHosts { get; init; }

    /// <summary>The press that did it, where that could be taken back for a while.</summary>
    public Guid? ActId { get; init; }

    /// <summary>What it was done to: a page, hours, a host, a person.</summary>
    public required Guid SubjectId { get; init; }

    /// <summary>In words, such as "Published “Hull survey”".</summary>
    public required string What { get; init; }
}
