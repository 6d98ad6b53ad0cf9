using LooseLantern.Server.Features.Calendars.BuiltIn;
using LooseLantern.Server.Tenancy;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Data.Model;

/// <summary>Where a calendar comes from.</summary>
public enum CalendarKind
{
    /// <summary>A file that was uploaded.</summary>
    File,

    /// <summary>An address at which an iCalendar file is fetched again and again.</summary>
    Address,

    /// <summary>A collection of a CalDAV account (RFC 4791).</summary>
    Account,

    /// <summary>Kept here, with entries made here; everybody has one.</summary>
    BuiltIn,
}

/// <summary>
/// A calendar that was joined. What it was read from is kept, so that repeating events can be read further ahead as
/// time goes on.
/// </summary>
public sealed class Calendar : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required CalendarKind Kind { get; init; }

    /// <summary>Whose it is; null for one of the whole team.</summary>
    public Guid? HostId { get; init; }

    public Host? Host { get; init; }

    /// <summary>Whose openings it counts for: its host's alone, or several hosts' for one of the whole team.</summary>
    public List<CalendarHost> For { get; } = [];

    public required string Name { get; set; }

    /// <summary>Whether its busy times are in the way of openings; else it is only shown.</summary>
    public bool IsAsked { get; set; } = true;

    /// <summary>Whether what it has only tentatively is in the way too.</summary>
    public bool TentativeCounts { get; set; } = true;

    /// <summary>Where it is from, in words that give no secret away: the file's name, or the server's.</summary>
    public required string Source { get; set; }

    /// <summary>When what it says last came anew.</summary>
    public required Instant LoadedAt { get; set; }

    /// <summary>The run of time whose occurrences are in <see cref="CalendarEntryRow"/>.</summary>
    public required NpgsqlRange<Instant> ReadRange { get; set; }

    /// <summary>The CalDAV account it is a collection of.</summary>
    public Guid? AccountId { get; init; }

    public CalendarAccount? Account { get; init; }

    /// <summary>The collection's address in its account.</summary>
    public string? CollectionUrl { get; init; }

    /// <summary>The iCalendar address under Data Protection: whoever knows it can read the calendar.</summary>
    public string? ProtectedAddress { get; set; }

    /// <summary>Whether events can be written to it.</summary>
    public bool MayWrite { get; set; }

    /// <summary>
    /// Whether its server tells what changed since a token (RFC 6578); else entity tags are compared.
    /// </summary>
    public bool TellsChanges { get; set; }

    public string? SyncToken { get; set; }

    /// <summary>The entity tag of an address, as it was sent.</summary>
    public string? EntityTag { get; set; }

    /// <summary>
    /// Seconds between looks, where its publisher asks for that (REFRESH-INTERVAL, RFC 7986 section 5.7).
    /// </summary>
    public int? RefreshSeconds { get; set; }

    /// <summary>When it was last looked at with success.</summary>
    public required Instant LookedAt { get; set; }

    /// <summary>When all of it was last read anew, whatever its server says has not changed.</summary>
    public required Instant ReadWholeAt { get; set; }

    /// <summary>When it is looked at next; null for what never changes by itself.</summary>
    public Instant? NextLookAt { get; set; }

    /// <summary>
    /// Until when a server of ours is looking at it; one that stopped in the middle is not waited for longer.
    /// </summary>
    public Instant? LookingUntil { get; set; }

    /// <summary>How many looks were kept; one that began before another ended is not.</summary>
    public int Looks { get; set; }

    public Instant? UnreachableSince { get; set; }

    public int Attempts { get; set; }

    /// <summary>What stood in the way of the last look, in words.</summary>
    public string? Fault { get; set; }

    public List<UnreadEventRow> Unread { get; } = [];
}

/// <summary>A host whose openings a calendar counts for.</summary>
public sealed class CalendarHost : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public Guid CalendarId { get; init; }

    public required Guid HostId { get; init; }

    public Host? Host { get; init; }
}

/// <summary>A CalDAV account of a person, through which some of its calendars are joined.</summary>
public sealed class CalendarAccount : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    /// <summary>Where its calendars are found (the principal of RFC 5397, or what stands in for one).</summary>
    public required string Url { get; set; }

    public required string UserName { get; set; }

    /// <summary>Under Data Protection; never shown again.</summary>
    public required string ProtectedPassword { get; set; }
}

/// <summary>
/// A text that a calendar is made of: the whole file of an address or an upload, or one object of a collection.
/// </summary>
public sealed class CalendarResource : IBelongsToWorkspace
{
    public long Id { get; init; }

    public required Guid WorkspaceId { get; init; }

    public required Guid CalendarId { get; init; }

    /// <summary>Its path on its server; empty for a whole file.</summary>
    public required string Path { get; init; }

    public string? EntityTag { get; set; }

    public required byte[] Body { get; set; }

    /// <summary>The entry as it was typed, of the calendar that is kept here.</summary>
    public OwnEntryForm? Own { get; set; }
}

/// <summary>One occurrence of an event of a calendar, for one of the hosts it counts for.</summary>
public sealed class CalendarEntryRow : IBelongsToWorkspace
{
    public long Id { get; init; }

    public required Guid WorkspaceId { get; init; }

    public required Guid CalendarId { get; init; }

    public Calendar? Calendar { get; init; }

    public required long ResourceId { get; init; }

    public required Guid HostId { get; init; }

    public required NpgsqlRange<Instant> Span { get; init; }

    public required string Title { get; init; }

    public required bool WholeDay { get; init; }

    /// <summary>Marked as free in the calendar: shown, but never in the way.</summary>
    public required bool Free { get; init; }

    public required bool Tentative { get; init; }
}

/// <summary>An event that could not be read, or not all of it.</summary>
public sealed class UnreadEventRow : IBelongsToWorkspace
{
    public long Id { get; init; }

    public required Guid WorkspaceId { get; init; }

    public Guid CalendarId { get; init; }

    public required long ResourceId { get; init; }

    public required int Line { get; init; }

    public required string Title { get; init; }

    public required string Fault { get; init; }

    /// <summary>Whether what was found of it counts; there was more of it than is read of one event.</summary>
    public required bool IsPartly { get; init; }
}
