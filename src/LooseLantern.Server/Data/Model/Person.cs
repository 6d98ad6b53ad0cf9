using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Identity;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>How times of day are written for a reader.</summary>
public enum ClockForm
{
    /// <summary>14:30.</summary>
    H24,

    /// <summary>2:30 pm.</summary>
    H12,
}

/// <summary>
/// Somebody with a sign-in. The roles owner and coordinator stand here; a person is a host by having a
/// <see cref="Host"/> of their own.
/// </summary>
public sealed class Person : IdentityUser<Guid>, IBelongsToWorkspace
{
    public Person() => Id = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required string Name { get; set; }

    public bool IsOwner { get; set; }

    public bool IsCoordinator { get; set; }

    /// <summary>A line about them, for guests.</summary>
    public string Line { get; set; } = "";

    /// <summary>IANA id of the zone they read times in.</summary>
    public required string Zone { get; set; }

    /// <summary>Language tag (BCP 47) of what is written to them.</summary>
    public string Language { get; set; } = "en";

    public ClockForm Clock { get; set; }

    /// <summary>Whether single keys do something on their screens, where nothing is typed.</summary>
    public bool UsesKeys { get; set; } = true;

    /// <summary>What their new pages start from, where it differs from the workspace's.</summary>
    public UsualSettings Usual { get; set; } = UsualSettings.None;

    /// <summary>What they hear of by mail.</summary>
    public Notifications Notifications { get; set; } = Notifications.Usual;

    /// <summary>
    /// Of the secret in the address at which their bookings can be subscribed to; null where there is none.
    /// </summary>
    public byte[]? FeedSecretHash { get; set; }

    public string? ProtectedFeedSecret { get; set; }

    /// <summary>Whether that has all of the workspace's bookings, and not theirs alone.</summary>
    public bool FeedsAll { get; set; }

    /// <summary>When they showed, by a link that was mailed to it, that their address is theirs.</summary>
    public Instant? EmailProvenAt { get; set; }

    /// <summary>When they left the workspace; they can't sign in from then on.</summary>
    public Instant? LeftAt { get; set; }
}

/// <summary>A picture of a person, apart from their row so that it is read only where it is shown.</summary>
public sealed class Portrait : IBelongsToWorkspace
{
    public required Guid PersonId { get; init; }

    public required Guid WorkspaceId { get; init; }

    public required string MediaType { get; set; }

    public required byte[] Bytes { get; set; }
}
