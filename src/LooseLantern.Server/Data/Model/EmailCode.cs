using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>A code that was mailed to see whether an address is its reader's own.</summary>
public sealed class EmailCode : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid PageId { get; init; }

    /// <summary>In small letters.</summary>
    public required string Email { get; init; }

    /// <summary>SHA-256 of the page, the address and the code.</summary>
    public required byte[] CodeHash { get; init; }

    public required Instant MadeAt { get; init; }

    /// <summary>How often something else was typed.</summary>
    public int WrongTries { get; set; }
}

/// <summary>How often guests of a page looked at a week for something, with nothing of who they are.</summary>
public sealed class LookedFor : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public required Guid PageId { get; init; }

    /// <summary>Its Monday.</summary>
    public required LocalDate Week { get; init; }

    /// <summary>What of the day they chose from; empty where they only looked.</summary>
    public required string Part { get; init; }

    /// <summary>Whether anything was open.</summary>
    public required bool Found { get; init; }

    public int Count { get; set; }
}
