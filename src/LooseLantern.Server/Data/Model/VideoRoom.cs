using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>
/// The video room of a session: that there should be one or none, and what of that is done. It is changed in the
/// transaction of what it speaks of, and carried out after it until it has succeeded.
/// </summary>
public sealed class VideoRoom : IBelongsToWorkspace
{
    public required Guid SessionId { get; init; }

    public required Guid WorkspaceId { get; init; }

    /// <summary>Where the room is; null before it was made.</summary>
    public string? Link { get; set; }

    /// <summary>What has to be typed there; empty where nothing has to.</summary>
    public string Code { get; set; } = "";

    public bool IsWanted { get; set; } = true;

    /// <summary>Rises with each change of what should be there.</summary>
    public int Wish { get; set; } = 1;

    /// <summary>When it is carried out next; null when what should be there is.</summary>
    public Instant? DueAt { get; set; }

    /// <summary>Until when a server of ours is carrying it out.</summary>
    public Instant? WorkingUntil { get; set; }

    public int Attempts { get; set; }

    public string? Fault { get; set; }
}
