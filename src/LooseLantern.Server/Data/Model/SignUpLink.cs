using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>A link by which whoever has the address makes a workspace, once; of no workspace yet.</summary>
public sealed class SignUpLink
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required string Email { get; init; }

    /// <summary>Language tag of the mail.</summary>
    public required string Language { get; init; }

    /// <summary>
    /// Whether somebody signs in with the address already: then the mail says that, and no link works.
    /// </summary>
    public required bool IsKnown { get; init; }

    public required byte[] SecretHash { get; init; }

    public required string ProtectedSecret { get; init; }

    public required Instant MadeAt { get; init; }

    public required Instant ExpiresAt { get; init; }

    public Instant? UsedAt { get; set; }

    /// <summary>When its mail is next to be sent; null once it was, or can't be.</summary>
    public required Instant? DueAt { get; set; }

    /// <summary>Until when a server of ours is sending it.</summary>
    public Instant? SendingUntil { get; set; }

    public int Attempts { get; set; }

    /// <summary>What stood in the way of the last try, in words.</summary>
    public string? Fault { get; set; }
}
