using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>What somebody did, in the calendar, to an event that we wrote there.</summary>
public enum OutsideChange
{
    None,
    Moved,
    Deleted,
}

/// <summary>
/// The event of a session, or of time that is held, in one host's calendar: that it should be there or be gone, and
/// what of that is done. It is changed in the transaction of what it speaks of, and carried out after it until it has
/// succeeded.
/// </summary>
public sealed class WrittenEvent : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid HostId { get; init; }

    public Host? Host { get; init; }

    public required Guid CalendarId { get; init; }

    public Calendar? Calendar { get; init; }

    /// <summary>The iCalendar UID: the session's, or one of the held time's own.</summary>
    public required string Uid { get; init; }

    public Guid? SessionId { get; init; }

    public Session? Session { get; init; }

    /// <summary>The commitment of time that is held; null for a session.</summary>
    public Guid? HoldId { get; init; }

    /// <summary>What held time is called.</summary>
    public string HoldTitle { get; init; } = "";

    /// <summary>Whether it should be there.</summary>
    public bool IsWanted { get; set; } = true;

    /// <summary>Its host deleted it, and that is well so: it is not written again.</summary>
    public bool IsLeftOff { get; set; }

    /// <summary>Rises with each change of what should be there.</summary>
    public int Wish { get; set; } = 1;

    /// <summary>When it is carried out next; null when what should be there is.</summary>
    public Instant? DueAt { get; set; }

    /// <summary>
    /// Until when a server of ours is carrying it out; one that stopped in the middle is not waited for longer.
    /// </summary>
    public Instant? WritingUntil { get; set; }

    public int Attempts { get; set; }

    public string? Fault { get; set; }

    /// <summary>Its path in the calendar; null before it was first written.</summary>
    public string? Path { get; set; }

    public string? EntityTag { get; set; }

    /// <summary>The time it was last written with.</summary>
    public Instant? WrittenStart { get; set; }

    public Instant? WrittenEnd { get; set; }

    /// <summary>
    /// The other time that it was to be written with when that broke off, so that it may stand there; null where
    /// nothing broke off.
    /// </summary>
    public Instant? TriedStart { get; set; }

    public Instant? TriedEnd { get; set; }

    public OutsideChange Outside { get; set; }

    /// <summary>Where it was moved to.</summary>
    public Instant? OutsideStart { get; set; }

    public Instant? OutsideEnd { get; set; }

    public Instant? NoticedAt { get; set; }
}
