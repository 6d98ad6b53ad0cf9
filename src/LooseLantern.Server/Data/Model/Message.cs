using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

public enum MessageKind
{
    BookedForGuest,
    BookedForHost,

    /// <summary>Somebody else takes the guest's booking over.</summary>
    HostChangedForGuest,

    MovedForGuest,
    MovedForHost,
    CancelledForGuest,
    CancelledForHost,
}

public enum MessageState
{
    Due,
    Sent,

    /// <summary>It came back, or could not be sent for too long; it is not tried again by itself.</summary>
    Failed,
}

/// <summary>
/// Something to tell somebody, written in the transaction of what it speaks of, so that neither can be there without the other. It says what was so
/// then, whatever became of it before it was sent.
/// </summary>
public sealed class Message : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required MessageKind Kind { get; init; }

    public required Guid BookingId { get; init; }

    public Booking? Booking { get; init; }

    public required string ToName { get; init; }

    public required string ToAddress { get; init; }

    /// <summary>Stays the same over every try to send it, so that a receiver can tell a repeat.</summary>
    public required string MessageId { get; init; }

    public required Instant WrittenAt { get; init; }

    public required Instant DueAt { get; set; }

    public MessageState State { get; set; }

    public required string FromName { get; init; }

    public required string Subject { get; init; }

    /// <summary>The plain text. Secrets stand in it as marks (see <c>Secrets</c> of the post), and are put in when it goes out.</summary>
    public required string Text { get; init; }

    public required string Html { get; init; }

    /// <summary>The iCalendar part; null for a plain mail.</summary>
    public string? Calendar { get; init; }

    /// <summary>The METHOD of the iCalendar part (RFC 5546).</summary>
    public string? CalendarMethod { get; init; }

    public int Attempts { get; set; }

    /// <summary>What stood in the way of the last try, in words.</summary>
    public string? Fault { get; set; }

    public Instant? SentAt { get; set; }

    /// <summary>Until when a server of ours is sending it; one that stopped in the middle is not waited for longer.</summary>
    public Instant? SendingUntil { get; set; }
}
