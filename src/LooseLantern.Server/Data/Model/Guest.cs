using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>How the team came to know of a guest.</summary>
public enum GuestSource
{
    Booking,
    Link,

    /// <summary>Somebody of the team wrote them down.</summary>
    Hand,
    Import,
}

/// <summary>
/// Somebody outside as the team knows them, over all their bookings and links. The database makes one for whoever books
/// or gets a link and is not known yet (<see cref="Migrations.GuestTriggers"/>), and fills in what was blank; what was
/// known is changed by the team alone.
/// </summary>
public sealed class Guest : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required string Name { get; set; }

    public string Organisation { get; set; } = "";

    public string Phone { get; set; } = "";

    /// <summary>IANA id of the zone they read times in; null where it is not known.</summary>
    public string? Zone { get; set; }

    /// <summary>Language tag of what is written to them; null where it is not known.</summary>
    public string? Language { get; set; }

    /// <summary>By which clock they read times; null where it is not known.</summary>
    public ClockForm? Clock { get; set; }

    /// <summary>The person of the team whose guest they are.</summary>
    public Guid? KeeperId { get; set; }

    /// <summary>The workspace's own fields: a text by the field's id, blank ones left out.</summary>
    public IReadOnlyDictionary<Guid, string> Fields { get; set; } = new Dictionary<Guid, string>();

    public required GuestSource Source { get; init; }

    public required Instant MadeAt { get; init; }

    /// <summary>Raised by each change that somebody of the team makes.</summary>
    public int Version { get; set; } = 1;

    /// <summary>
    /// The email, in small letters, of who booked for them, where they have none of their own: by that and by their
    /// name they are known again. Empty for all others.
    /// </summary>
    public string BookerKey { get; init; } = "";

    /// <summary>Whom they turned out to be; null for all that are shown.</summary>
    public Guid? MergedInto { get; set; }

    /// <summary>Guests of whom somebody said that they are others, though they look alike.</summary>
    public Guid[] NotSame { get; set; } = [];

    /// <summary>The name as names are compared and ordered; worked out by the database.</summary>
    public string NameKey { get; private init; } = "";

    /// <summary>The digits of the phone number; worked out by the database.</summary>
    public string PhoneKey { get; private init; } = "";

    public List<GuestEmail> Emails { get; } = [];
}

/// <summary>An email of a guest. One email is one guest's.</summary>
public sealed class GuestEmail : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    /// <summary>The email in small letters, by which it is found.</summary>
    public required string Key { get; init; }

    public required Guid GuestId { get; set; }

    /// <summary>As it was written first.</summary>
    public required string Email { get; init; }

    /// <summary>The order among the guest's own; the first is the one that is written to.</summary>
    public int Place { get; set; }

    public static string KeyOf(string email) => email.Trim().ToLowerInvariant();
}

/// <summary>Which guest a name on a link stands for; kept by the database.</summary>
public sealed class LinkGuestRow : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public required Guid LinkId { get; init; }

    /// <summary>The place among the link's guests, from 0.</summary>
    public required int Place { get; init; }

    public required Guid GuestId { get; set; }
}

/// <summary>What somebody of the team noted of a guest.</summary>
public sealed class GuestNote : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid GuestId { get; set; }

    public required Guid PersonId { get; init; }

    /// <summary>As it was then, since people leave.</summary>
    public required string PersonName { get; init; }

    public required Instant At { get; init; }

    public Instant? ChangedAt { get; set; }

    public required string Text { get; set; }
}

/// <summary>What sort of value a field of guests has.</summary>
public enum GuestFieldKind
{
    Text,
    Number,

    /// <summary>A date, ISO 8601.</summary>
    Date,

    /// <summary>One of the options.</summary>
    Choice,

    /// <summary>"yes" or "no".</summary>
    YesNo,
}

/// <summary>Something a workspace wants to know of its guests.</summary>
/// <param name="Options">Of a choice.</param>
public sealed record GuestField(Guid Id, string Name, GuestFieldKind Kind, IReadOnlyList<string> Options);

/// <summary>What is known of a guest, and can be chosen when two turn out to be one.</summary>
public sealed record GuestFacts(
    string Name,
    string Organisation,
    string Phone,
    string? Zone,
    string? Language,
    ClockForm? Clock,
    Guid? KeeperId,
    IReadOnlyDictionary<Guid, string> Fields
);

/// <param name="Before">What was known of the one who stays, and <paramref name="After"/> from then on.</param>
/// <param name="Emails">The keys of the emails that came over, as the lists after it do with what is theirs.</param>
/// <param name="BookedFor">Bookings that the other one made for somebody else.</param>
public sealed record MergedThings(
    GuestFacts Before,
    GuestFacts After,
    IReadOnlyList<string> Emails,
    IReadOnlyList<Guid> Bookings,
    IReadOnlyList<Guid> BookedFor,
    IReadOnlyList<Guid> Links,
    IReadOnlyList<Guid> Notes
);

/// <summary>Two guests who turned out to be one, with all it takes to part them again.</summary>
public sealed class GuestMerge : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid KeptId { get; init; }

    public required Guid GoneId { get; init; }

    public required Instant At { get; init; }

    /// <summary>Who said so.</summary>
    public required string PersonName { get; init; }

    public required MergedThings Things { get; init; }

    public Instant? UndoneAt { get; set; }
}
