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

    /// <summary>The booking is with somebody else from now on.</summary>
    GivenAwayForHost,

    /// <summary>For somebody whom a guest brings along.</summary>
    BookedForCompanion,
    CancelledForCompanion,

    ReminderForGuest,
    ReminderForHost,

    /// <summary>A booking that waits for a yes.</summary>
    AskedForGuest,
    AskedForHost,
    DeclinedForGuest,
    LapsedForGuest,

    /// <summary>The video room, which mail before had to go out without.</summary>
    RoomForGuest,

    /// <summary>What somebody of the team writes to everybody who comes to a session.</summary>
    WordsForGuest,

    LapsedForHost,

    /// <summary>For whoever made the page or link and is no host: what was asked for is declined.</summary>
    DeclinedForHost,

    /// <summary>The guest's calendar declined, or asks for another time, or the guest wrote.</summary>
    RepliedForHost,

    /// <summary>A guest answered a letter.</summary>
    RepliedForSender,

    /// <summary>The times of an availability link.</summary>
    LinkForGuest,

    /// <summary>The same again, to a guest who has not answered.</summary>
    LinkAgainForGuest,

    /// <summary>What somebody of the team writes to one guest.</summary>
    LetterForGuest,

    /// <summary>Hosts can't come: what is kept with others, and what is offered anew.</summary>
    CoverForGuest,

    /// <summary>Nothing is left of a link that is out.</summary>
    NoneLeftForMaker,

    /// <summary>None of a link's times suits; the guest asks for others.</summary>
    WishForMaker,

    /// <summary>A guest who was asked first said which times suit them.</summary>
    SuitsForMaker,

    PasswordReset,
    JoinInvitation,

    /// <summary>A link by which somebody of the team proves their address.</summary>
    ProveAddress,

    /// <summary>A link by which a workspace is made.</summary>
    SignUp,

    /// <summary>To who wants to make a workspace, and has a sign-in already.</summary>
    SignUpKnown,

    /// <summary>A code by which a guest proves an address.</summary>
    CodeForGuest,

    /// <summary>All that somebody hears of once a day.</summary>
    Daily,
}

public enum MessageState
{
    Due,
    Sent,

    /// <summary>Waits to go out with the reader's other messages of the day.</summary>
    Gathered,

    /// <summary>It came back, or could not be sent for too long; it is not tried again by itself.</summary>
    Failed,
}

/// <summary>What keeps a message that is due from being sent. It waits, and is sent when that is over.</summary>
public enum MessageHold
{
    /// <summary>No owner of the workspace has proven a mail address; only owners are mailed.</summary>
    Unproven,

    /// <summary>The workspace is new, and mailed as many strangers in an hour as it may.</summary>
    FirstDay,

    /// <summary>Somebody who comes along had a mail within the hour.</summary>
    OftenToOne,
}

/// <summary>
/// Something to tell somebody. What tells of bookings is written from a <see cref="TellingRow"/>, which is there or not
/// with what it speaks of; all else in the transaction of what it speaks of. It says what was so then, whatever became
/// of it before it was sent.
/// </summary>
public sealed class Message : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required MessageKind Kind { get; init; }

    /// <summary>Null for one that speaks of no booking.</summary>
    public Guid? BookingId { get; set; }

    public Booking? Booking { get; init; }

    /// <summary>The reader, where that is somebody of the team.</summary>
    public Guid? PersonId { get; set; }

    /// <summary>A secret that only its reader may know, besides the booking's.</summary>
    public string? ProtectedSecret { get; set; }

    /// <summary>The link it offers; null for none.</summary>
    public Guid? LinkId { get; set; }

    /// <summary>The mailing it is the first letter of; null for none.</summary>
    public Guid? MailingId { get; set; }

    /// <summary>The letter of a mailing that is asked about again; null for none.</summary>
    public Guid? AgainOf { get; set; }

    /// <summary>Who of the team wrote it; null for what is written by itself.</summary>
    public Guid? WrittenBy { get; set; }

    /// <summary>
    /// SHA-256 of the secret in the address that answers to it come to; null where they come to its booking's, or where
    /// none are awaited.
    /// </summary>
    public byte[]? ReplySecretHash { get; set; }

    public string? ProtectedReplySecret { get; set; }

    /// <summary>Files of the page that go along.</summary>
    public Guid[] FileIds { get; set; } = [];

    public required string ToName { get; init; }

    public required string ToEmail { get; init; }

    /// <summary>Stays the same over every try to send it, so that a receiver can tell a repeat.</summary>
    public required string MessageId { get; init; }

    public required Instant WrittenAt { get; init; }

    public required Instant DueAt { get; set; }

    public MessageState State { get; set; }

    public required string FromName { get; init; }

    public required string Subject { get; init; }

    /// <summary>
    /// The plain text. Secrets stand in it as inserts (<c>PostInserts</c>), and are put in when it goes out.
    /// </summary>
    public required string Text { get; init; }

    public required string Html { get; init; }

    /// <summary>The iCalendar part; null for a plain mail.</summary>
    public string? Calendar { get; set; }

    /// <summary>
    /// More iCalendar objects, where it speaks of several bookings: each of them is one file, since an object speaks of
    /// one UID (RFC 5546 section 3.2.2).
    /// </summary>
    public string[] MoreCalendars { get; set; } = [];

    /// <summary>The METHOD of the iCalendar part (RFC 5546).</summary>
    public string? CalendarMethod { get; set; }

    /// <summary>Why it is not sent though it is due; null where nothing keeps it.</summary>
    public MessageHold? HeldBack { get; set; }

    /// <summary>When it went out of the allowance of mails to strangers; null for one that needs none.</summary>
    public Instant? LetOutAt { get; set; }

    public int Attempts { get; set; }

    /// <summary>What stood in the way of the last try, in words.</summary>
    public string? Fault { get; set; }

    /// <summary>
    /// Why words of the page's own could not be filled in, so that it is in ours; null where nothing was wrong.
    /// </summary>
    public string? OwnWordsFault { get; init; }

    public Instant? SentAt { get; set; }

    /// <summary>What it tells of, as long as that can be taken back; it goes out once it can't. Null for what goes at
    /// once.</summary>
    public Guid? ActId { get; set; }

    /// <summary>
    /// Until when a server of ours is sending it; one that stopped in the middle is not waited for longer.
    /// </summary>
    public Instant? SendingUntil { get; set; }
}
