using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>One offer that went out to several guests at once, by a link, or an address of a page, and a
/// letter of each one's own.</summary>
public sealed class Mailing : IBelongsToWorkspace
{
    public required Guid Id { get; init; }

    public required Guid WorkspaceId { get; init; }

    /// <summary>What is offered, as its links are called.</summary>
    public required string Title { get; init; }

    /// <summary>What the links were started from, in words.</summary>
    public required string StartedFrom { get; init; }

    /// <summary>The page that is offered, by an address of each guest's own; null where each has a link.</summary>
    public Guid? PageId { get; init; }

    /// <summary>To how many it went, also where some of them are erased since.</summary>
    public required int Sent { get; init; }

    public Guid? MadeBy { get; init; }

    public required Instant SentAt { get; init; }

    /// <summary>When the silent were last asked again; null for never.</summary>
    public Instant? AskedAgainAt { get; set; }

    /// <summary>The presses by which they were; the same again asks nobody twice.</summary>
    public Guid[] Presses { get; set; } = [];
}
