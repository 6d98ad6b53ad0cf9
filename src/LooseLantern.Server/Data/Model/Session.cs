using LooseLantern.Server.Tenancy;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Data.Model;

/// <summary>One start of a page as booked: its time, its hosts, its guests' bookings.</summary>
public sealed class Session : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid PageId { get; init; }

    public Page? Page { get; set; }

    public required NpgsqlRange<Instant> Time { get; set; }

    /// <summary>The iCalendar UID, kept over every move.</summary>
    public required string Uid { get; init; }

    /// <summary>The iCalendar SEQUENCE.</summary>
    public int Sequence { get; set; }

    /// <summary>When the last of its bookings was cancelled; it is left out of everything that stands.</summary>
    public Instant? CancelledAt { get; set; }

    public List<SessionHost> Hosts { get; } = [];

    public List<Booking> Bookings { get; } = [];
}

/// <summary>Who fills which seat of a session.</summary>
public sealed class SessionHost : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public Guid SessionId { get; init; }

    public required Guid HostId { get; init; }

    public Host? Host { get; init; }

    public required int Seat { get; set; }

    public required Instant AssignedAt { get; set; }
}
