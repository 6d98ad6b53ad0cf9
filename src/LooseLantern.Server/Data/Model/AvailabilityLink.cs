using LooseLantern.Core.Links;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>
/// An availability link: times for one guest, or a few, by an address of its own. What is arranged by it stands in a
/// page of its own, which no desk lists and which has the link's id; so it is booked, moved and told of as any other.
/// </summary>
public sealed class AvailabilityLink : IBelongsToWorkspace
{
    /// <summary>Its page's id, and that of the holder of what it holds.</summary>
    public required Guid Id { get; init; }

    public required Guid WorkspaceId { get; init; }

    public Page? Page { get; init; }

    /// <summary>Whom it is for.</summary>
    public IReadOnlyList<LinkGuest> Guests { get; set; } = [];

    /// <summary>IANA id of the zone its guests read times in; empty where it is not known.</summary>
    public string GuestZone { get; set; } = "";

    /// <summary>Language tag of what is written to its guests.</summary>
    public string GuestLanguage { get; set; } = "en";

    /// <summary>Words at the beginning of its address: small letters, digits and hyphens.</summary>
    public required string Topic { get; set; }

    /// <summary>SHA-256 of the random part of its address.</summary>
    public required byte[] SecretHash { get; init; }

    public required string ProtectedSecret { get; init; }

    public Guid? MadeBy { get; init; }

    /// <summary>The mailing it went out in; null for one that was made by itself.</summary>
    public Guid? MailingId { get; init; }

    /// <summary>Who let it out, or mailed it last.</summary>
    public Guid? SentBy { get; set; }

    public required Instant MadeAt { get; init; }

    public Instant? OutAt { get; set; }

    /// <summary>When its times were given out as text, without its address; null where they were not.</summary>
    public Instant? GivenAt { get; set; }

    public Instant? RevokedAt { get; set; }

    /// <summary>The last local date, in the page's zone, on which it can be used.</summary>
    public required LocalDate EndsOn { get; set; }

    /// <summary>How many times of it may be taken.</summary>
    public int Takes { get; set; } = 1;

    /// <summary>
    /// Of several guests: whether all of them are booked when one takes a time; else each takes one of their own.
    /// </summary>
    public bool Together { get; set; } = true;

    /// <summary>Whether a booking that is cancelled makes room for another.</summary>
    public bool Reopens { get; set; } = true;

    public Instant? FirstOpenedAt { get; set; }

    public Instant? LastOpenedAt { get; set; }

    public int Opened { get; set; }

    /// <summary>Until when its picked times are held; null where they are not.</summary>
    public Instant? HoldUntil { get; set; }

    /// <summary>For the team alone; may be empty.</summary>
    public string Notes { get; set; } = "";

    /// <summary>What it was started from, in words; empty for nothing.</summary>
    public string StartedFrom { get; set; } = "";

    /// <summary>Whether it is a time among ourselves, for which no guest is asked.</summary>
    public bool IsAmongOurselves { get; set; }

    public LinkText Text { get; set; } = LinkText.Usual;

    public Instant? AskedAgainAt { get; set; }

    public int AskedAgain { get; set; }

    /// <summary>When it was found that nothing is left of it; null while something is.</summary>
    public Instant? NoneLeftAt { get; set; }

    /// <summary>When it is looked at next for whether anything is left.</summary>
    public required Instant CheckDueAt { get; set; }

    /// <summary>Where it stands until <see cref="EndsAt"/>; kept at each change by <see cref="Settle"/>.</summary>
    public LinkState State { get; private set; }

    /// <summary>Whether a time of it may be taken until <see cref="EndsAt"/>.</summary>
    public bool TakesMore { get; private set; }

    /// <summary>When its last date is over; null for one that is revoked.</summary>
    public Instant? EndsAt { get; private set; }

    /// <summary>Where it stands from <see cref="EndsAt"/> on.</summary>
    public LinkState StateThen { get; private set; }

    /// <summary>Where it stands, as Core told at its last change. Whoever lists or looks reads this.</summary>
    public LinkCourse Course => new(State, TakesMore, EndsAt, StateThen);

    public List<Wish> Wishes { get; } = [];

    /// <summary>Where its guests are asked first: what they said suits them, the latest of each.</summary>
    public IReadOnlyList<GuestTimes> Suits { get; set; } = [];

    /// <summary>Where its guests are asked first: whether the best that fits is booked by itself.</summary>
    public bool BooksByItself { get; set; }

    /// <summary>Keeps where it stands, after a change of it or of what was booked by it.</summary>
    public void Settle(LinkCourse course) =>
        (State, TakesMore, EndsAt, StateThen) = (course.State, course.TakesMore, course.EndsAt, course.Then);
}

/// <summary>A guest of a link.</summary>
/// <param name="Email">May be empty, where only the name is known.</param>
public sealed record LinkGuest(string Name, string Email);

/// <summary>A stretch of time that suits somebody, [Start, End).</summary>
public sealed record SuitedStretch(Instant Start, Instant End);

/// <summary>The times that suit a guest, as they said.</summary>
/// <param name="Email">May be empty, where the link names them without one.</param>
/// <param name="Zone">IANA id of the zone they named them in.</param>
/// <param name="Clock">By which they named them; null for the one that is usual in their language.</param>
/// <param name="Words">For whoever sent the link; may be empty.</param>
/// <param name="Duration">Minutes that they chose, of those the link offers.</param>
public sealed record GuestTimes(
    string Name,
    string Email,
    string Zone,
    ClockForm? Clock,
    string Words,
    Instant At,
    int Duration,
    IReadOnlyList<SuitedStretch> Stretches
);

/// <summary>In whose zone times are written.</summary>
public enum LinkZones
{
    Guest,
    Own,
    Both,
}

/// <summary>How a link's times are written out.</summary>
/// <param name="AsRanges">Whether times that touch become one range; null for the usual: each of those that were
/// picked, and ranges of a whole list.</param>
/// <param name="Clock">Null for the one that is usual in the language.</param>
/// <param name="WithAddress">Whether it ends with the address.</param>
/// <param name="MostListed">How many of the openings stand in it at the most, the best ones; null for all.</param>
public sealed record LinkText(
    LinkZones Zones,
    bool? AsRanges,
    ClockForm? Clock,
    bool WithAddress,
    int? MostListed = null
)
{
    public static readonly LinkText Usual = new(LinkZones.Both, AsRanges: null, Clock: null, WithAddress: true);
}

/// <summary>A link's offer, with what it does to hosts' calendars.</summary>
/// <param name="Overridden">The hosts whose calendars are not asked.</param>
/// <param name="LeavesFree">Whether what is booked stands in hosts' calendars as free time.</param>
public sealed record LinkOffer(Offer Times, IReadOnlyList<Guid> Overridden, bool LeavesFree);

/// <summary>A time that a guest asks for, which is not among the openings.</summary>
public sealed class Wish : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public Guid LinkId { get; init; }

    public required Instant Start { get; init; }

    public required Instant End { get; init; }

    /// <summary>Of the guest, with all the times that were sent with it; may be empty.</summary>
    public required string Words { get; init; }

    /// <summary>Who wrote it; empty where the link is for nobody by name.</summary>
    public string By { get; init; } = "";

    public required Instant At { get; init; }
}

/// <summary>A saved offer from which links start.</summary>
public sealed class LinkPattern : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required string Name { get; set; }

    public required Features.Links.LinkForm Form { get; set; }

    public required Instant SavedAt { get; set; }
}
