using LooseLantern.Server.Tenancy;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Data.Model;

/// <summary>A calendar of a host, joined from a file. The file is kept, so that repeating events can be read further ahead as time goes on.</summary>
public sealed class Calendar : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid HostId { get; init; }

    public Host? Host { get; init; }

    public required string Name { get; set; }

    /// <summary>Whether its busy times are in the way of openings; else it is only shown.</summary>
    public bool IsAsked { get; set; } = true;

    /// <summary>Whether what it has only tentatively is in the way too.</summary>
    public bool TentativeCounts { get; set; } = true;

    public required string FileName { get; set; }

    public required byte[] Source { get; set; }

    public required Instant LoadedAt { get; set; }

    /// <summary>The run of time whose occurrences are in <see cref="CalendarEntryRow"/>.</summary>
    public required NpgsqlRange<Instant> ReadRange { get; set; }

    public List<UnreadEventRow> Unread { get; } = [];
}

/// <summary>One occurrence of an event of a calendar.</summary>
public sealed class CalendarEntryRow : IBelongsToWorkspace
{
    public long Id { get; init; }

    public required Guid WorkspaceId { get; init; }

    public required Guid CalendarId { get; init; }

    public Calendar? Calendar { get; init; }

    public required Guid HostId { get; init; }

    public required NpgsqlRange<Instant> Span { get; init; }

    public required string Title { get; init; }

    public required bool WholeDay { get; init; }

    /// <summary>Marked as free in the calendar: shown, but never in the way.</summary>
    public required bool Free { get; init; }

    public required bool Tentative { get; init; }
}

/// <summary>An event of the file that could not be read.</summary>
public sealed class UnreadEventRow : IBelongsToWorkspace
{
    public long Id { get; init; }

    public required Guid WorkspaceId { get; init; }

    public Guid CalendarId { get; init; }

    public required int Line { get; init; }

    public required string Title { get; init; }

    public required string Fault { get; init; }
}
