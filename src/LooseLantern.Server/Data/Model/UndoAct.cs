using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>
/// One press of somebody of the team that can be taken back as a whole, as long as the mail of it waits. It is written
/// in the transaction of what it did.
/// </summary>
public sealed class UndoAct : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid PersonId { get; init; }

    public required Instant At { get; init; }

    /// <summary>Until when its mail waits, and it can be taken back.</summary>
    public required Instant Until { get; init; }

    /// <summary>What it did as a whole, where that is more than its lines in the record; else empty.</summary>
    public string Whole { get; set; } = "";

    public Instant? UndoneAt { get; set; }
}

/// <summary>
/// A row as it was before and after a change of an act. It is written by a trigger, whatever changes the row, and goes
/// with its act soon after that can't be taken back any more.
/// </summary>
public sealed class UndoRow : IBelongsToWorkspace
{
    public long Id { get; init; }

    public required Guid WorkspaceId { get; init; }

    public required Guid ActId { get; init; }

    /// <summary>The table.</summary>
    public required string Of { get; init; }

    /// <summary>The columns of its primary key, as JSON.</summary>
    public required string Key { get; init; }

    /// <summary>The whole row as JSON; null where it was added.</summary>
    public string? Before { get; init; }

    /// <summary>Null where it was deleted.</summary>
    public string? After { get; init; }
}
