using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>The list that a view is a choice of.</summary>
public enum ViewOf
{
    Guests,
    Bookings,
}

/// <summary>A choice of a list that somebody saved for the whole team.</summary>
public sealed class SavedView : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required ViewOf Of { get; init; }

    public required string Name { get; set; }

    /// <summary>The filter of its list, as JSON.</summary>
    public required string Filter { get; set; }

    public required Instant SavedAt { get; set; }
}
