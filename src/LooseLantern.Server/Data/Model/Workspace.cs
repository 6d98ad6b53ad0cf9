using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>One organisation's data.</summary>
public sealed class Workspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required string Name { get; set; }

    /// <summary>IANA id of the zone its new pages and boards start from.</summary>
    public required string Zone { get; set; }

    /// <summary>
    /// For how many hours the last known state of a calendar counts while it can't be reached; then its hosts' openings
    /// close.
    /// </summary>
    public int ClosesAfterHours { get; set; } = 24;

    /// <summary>
    /// When an owner first proved a mail address; for a day from then on it mails strangers only so often.
    /// </summary>
    public Instant? MailOpenedAt { get; set; }

    /// <summary>How many bookings to come one guest may have on all its pages, told by the email.</summary>
    public int MostOpen { get; set; } = UsualMostOpen;

    public const int UsualMostOpen = 12;

    /// <summary>
    /// For how many minutes the mail of what the team does to bookings, links and pages waits, and that can be taken
    /// back; 0 for not at all.
    /// </summary>
    public int UndoMinutes { get; set; } = UsualUndoMinutes;

    public const int UsualUndoMinutes = 1;

    /// <summary>What everybody's new pages start from.</summary>
    public UsualSettings Usual { get; set; } = UsualSettings.None;

    /// <summary>What sorts of appointments its pages are, by name.</summary>
    public string[] Kinds { get; set; } = [];

    /// <summary>What it wants to know of its guests besides what all have, in the order it is shown.</summary>
    public IReadOnlyList<GuestField> GuestFields { get; set; } = [];

    /// <summary>For how long its guests are kept.</summary>
    public GuestRetention GuestRetention { get; set; } = GuestRetention.Ever;

    /// <summary>When it is looked for guests whose time is over next; null where all are kept.</summary>
    public Instant? RetentionDueAt { get; set; }

    /// <summary>The steps of the first run that were gone through, by name.</summary>
    public string[] FirstSteps { get; set; } = [];

    /// <summary>When the first run was put away for good.</summary>
    public Instant? FirstRunEndedAt { get; set; }
}
