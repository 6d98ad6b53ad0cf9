using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>A page as it once was published.</summary>
public sealed class PageEdition : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid PageId { get; init; }

    /// <summary>From 1, rising.</summary>
    public required int Number { get; init; }

    public required Instant At { get; init; }

    /// <summary>Who published it; empty for the product itself.</summary>
    public required string By { get; init; }

    public required PageForm Form { get; init; }
}

/// <summary>
/// An address under which a page was published once; whoever comes to it is led to where the page is now.
/// </summary>
public sealed class FormerAddress : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public required Guid DeskId { get; init; }

    public required string Address { get; init; }

    public required Guid PageId { get; set; }
}
