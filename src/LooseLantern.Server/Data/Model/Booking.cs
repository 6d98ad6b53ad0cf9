using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

public enum CancelledBy
{
    Guest,

    /// <summary>A host or a coordinator.</summary>
    Team,

    /// <summary>A host or a coordinator, who did not accept it.</summary>
    Declined,

    /// <summary>Nobody answered in time.</summary>
    Lapsed,
}

/// <summary>What the guest's calendar answered to the invitation.</summary>
public enum GuestReply
{
    None,
    Accepted,
    Tentative,
    Declined,
}

/// <summary>What the team noted of a booking once it had begun.</summary>
public enum BookingOutcome
{
    /// <summary>Nothing so far.</summary>
    None,

    Happened,

    /// <summary>The guest did not come.</summary>
    Missed,
}

/// <summary>Who gets the mails of a booking that somebody made for somebody else.</summary>
public enum MailGoesTo
{
    /// <summary>Whoever booked it.</summary>
    Booker,

    /// <summary>Whoever booked it, and the guest.</summary>
    Both,

    /// <summary>Whoever it is booked for.</summary>
    Guest,
}

/// <summary>One guest's reservation of a session.</summary>
public sealed class Booking : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid SessionId { get; set; }

    public Session? Session { get; init; }

    /// <summary>
    /// Whether who keeps the guest counted as it was booked, who was known beforehand: so it does when it is moved.
    /// </summary>
    public bool CountsKeeper { get; init; }

    /// <summary>The guest as the team knows them; found by the database. Null for a time among ourselves.</summary>
    public Guid? GuestId { get; set; }

    /// <summary>The same of who booked it for the guest; null where the guest did.</summary>
    public Guid? BookerId { get; set; }

    public required string GuestName { get; set; }

    /// <summary>Empty where the guest has none, or is not to be mailed.</summary>
    public required string GuestEmail { get; set; }

    /// <summary>How many people come: the guest and whom they bring. So many places of a group page it takes.</summary>
    public int Party { get; set; } = 1;

    /// <summary>Who booked it for the guest, such as a parent for a child; empty where the guest did.</summary>
    public string BookerName { get; init; } = "";

    public string BookerEmail { get; init; } = "";

    /// <summary>Who gets its mails, where somebody booked it for the guest.</summary>
    public MailGoesTo MailTo { get; init; }

    /// <summary>
    /// Whether it is a time among ourselves, which has no guest: who arranged it stands in the guest's place.
    /// </summary>
    public bool IsAmongOurselves { get; init; }

    /// <summary>IANA id of the zone the guest chose the time in.</summary>
    public required string GuestZone { get; set; }

    /// <summary>Language tag of what is written to the guest.</summary>
    public string GuestLanguage { get; init; } = "en";

    /// <summary>By which clock the guest reads times; null for that of the language.</summary>
    public ClockForm? GuestClock { get; init; }

    public required Instant BookedAt { get; init; }

    /// <summary>Who of the team booked it for the guest; null where the guest did.</summary>
    public Guid? BookedBy { get; init; }

    /// <summary>The iCalendar UID of the guest's invitation, kept over every move.</summary>
    public string Uid => Id.ToString("D");

    /// <summary>The iCalendar SEQUENCE of the guest's invitation.</summary>
    public int Sequence { get; set; }

    /// <summary>When it was cancelled; it is left out of everything that stands.</summary>
    public Instant? CancelledAt { get; set; }

    public CancelledBy? CancelledBy { get; set; }

    /// <summary>Why, in the words of whoever cancelled; may be empty.</summary>
    public string CancelWord { get; set; } = "";

    /// <summary>Whether the guest came, as the team noted it.</summary>
    public BookingOutcome Outcome { get; set; }

    /// <summary>What the guest answered, with the questions as they were asked.</summary>
    public IReadOnlyList<GivenAnswer> Answers { get; set; } = [];

    /// <summary>What the page's screening noted of it, for the team.</summary>
    public string[] Flags { get; set; } = [];

    /// <summary>Whom the guest brings along.</summary>
    public IReadOnlyList<Companion> Companions { get; set; } = [];

    /// <summary>What the guest's calendar answered to the invitation as it is now.</summary>
    public GuestReply Reply { get; set; }

    public Instant? RepliedAt { get; set; }

    /// <summary>DTSTAMP of the answer that counts; mail may overtake mail (RFC 5546 section 2.1.5).</summary>
    public Instant? AnswerStamp { get; set; }

    /// <summary>The time the guest would rather have.</summary>
    public Instant? WishStart { get; set; }

    public Instant? WishEnd { get; set; }

    /// <summary>Until when it waits for a yes; null for one that stands.</summary>
    public Instant? WaitsUntil { get; set; }

    /// <summary>
    /// SHA-256 of the secret in the link by which hosts say yes or no; null for one that never waited.
    /// </summary>
    public byte[]? AnswerSecretHash { get; init; }

    public string? ProtectedAnswerSecret { get; init; }

    /// <summary>SHA-256 of the secret in the address that answers to its invitation come to.</summary>
    public required byte[] ReplySecretHash { get; init; }

    public required string ProtectedReplySecret { get; init; }

    /// <summary>SHA-256 of the private link's secret, by which it is found.</summary>
    public required byte[] SecretHash { get; init; }

    /// <summary>The secret itself under Data Protection: the link is needed again in what is sent later.</summary>
    public required string ProtectedSecret { get; init; }
}

/// <summary>The Idempotency-Key a booking was made with: the same key again answers with the same booking.</summary>
public sealed class BookingKey : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public required Guid PageId { get; init; }

    public required string Key { get; init; }

    /// <summary>SHA-256 of what was asked for; the same key with another request is refused.</summary>
    public required byte[] RequestHash { get; init; }

    public required Guid BookingId { get; init; }
}
