using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>What a mail to an address of ours says.</summary>
public enum MailMeaning
{
    Accepts,
    AcceptsTentatively,
    Declines,

    /// <summary>Asks for another time (COUNTER of RFC 5546).</summary>
    Wishes,

    /// <summary>Words for people to read.</summary>
    Words,
}

/// <summary>A mail that came to the address of a booking, or of a letter, kept as it came.</summary>
public sealed class IncomingMail : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    /// <summary>Null for one that answers a letter.</summary>
    public Guid? BookingId { get; init; }

    /// <summary>The letter it answers; null for one about a booking.</summary>
    public Guid? MessageId { get; init; }

    public required Instant ReceivedAt { get; init; }

    public required string FromName { get; init; }

    public required string FromEmail { get; init; }

    public required string Subject { get; init; }

    public required string Text { get; init; }

    /// <summary>Its iCalendar part, if it has one.</summary>
    public string? Calendar { get; init; }

    public required MailMeaning Meaning { get; init; }

    /// <summary>Why its calendar part changed nothing, in words; null where it did, or where there is none.</summary>
    public string? NotUnderstood { get; init; }

    public Instant? WishStart { get; init; }

    public Instant? WishEnd { get; init; }

    /// <summary>SHA-256 of what tells it from others, so that one that comes twice is kept once.</summary>
    public required byte[] Fingerprint { get; init; }
}
