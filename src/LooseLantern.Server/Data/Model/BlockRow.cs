using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>A run of office hours of a page, once or repeating, on the wall clock of the page's zone.</summary>
public sealed class BlockRow : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public Guid PageId { get; init; }

    public required LocalDateTime Start { get; set; }

    /// <summary>Minutes of wall clock; it may run over midnight.</summary>
    public required int Length { get; set; }

    /// <summary>RFC 5545 section 3.3.10, without "RRULE:"; null for a block that comes once.</summary>
    public string? Rule { get; set; }

    /// <summary>Dates on which it does not come.</summary>
    public LocalDate[] Without { get; set; } = [];
}
