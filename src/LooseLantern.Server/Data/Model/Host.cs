using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

public enum HostKind
{
    Person,
    Room,
    Thing,
}

/// <summary>A person, room or thing whose time gets booked.</summary>
public sealed class Host : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    /// <summary>The person with a sign-in behind it; null for a room or thing.</summary>
    public Guid? PersonId { get; init; }

    /// <summary>When it was taken off the team; it stays for what it was booked for, and takes no more.</summary>
    public Instant? RetiredAt { get; set; }

    public HostKind Kind { get; init; }

    public required string Name { get; set; }

    /// <summary>IANA id; whole days and floating times of the host's calendars are in it.</summary>
    public required string Zone { get; set; }

    /// <summary>The host's usual hours; null for one that is always open.</summary>
    public Guid? HoursId { get; set; }

    public HoursRow? Hours { get; set; }

    /// <summary>Of the secret in the address at which their busy times are told; null where they are not.</summary>
    public byte[]? BusySecretHash { get; set; }

    public string? ProtectedBusySecret { get; set; }

    /// <summary>The calendar to which their new bookings are written; null for the one that is kept here.</summary>
    public Guid? WrittenCalendarId { get; set; }

    /// <summary>The host's share of balanced work, beside the weights of the others.</summary>
    public int Weight { get; set; } = 1;

    /// <summary>
    /// Most sessions that may start on one local date of the host's zone, of all pages together; null for any number.
    /// </summary>
    public int? DailyCap { get; set; }

    /// <summary>
    /// Most sessions that may start in one ISO week of the host's zone, of all pages together; null for any number.
    /// </summary>
    public int? WeeklyCap { get; set; }
}
