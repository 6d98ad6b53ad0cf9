using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>What a host lets one coordinator do for them.</summary>
public sealed class ActingFor : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    /// <summary>The host whose work it is.</summary>
    public required Guid HostId { get; init; }

    /// <summary>The coordinator who does it.</summary>
    public required Guid PersonId { get; init; }

    /// <summary>Offer their time on pages, and set up their calendars and hours.</summary>
    public bool MayOffer { get; set; }

    /// <summary>Book their time for a guest.</summary>
    public bool MayBook { get; set; }

    /// <summary>Move and cancel their bookings.</summary>
    public bool MayMove { get; set; }

    /// <summary>Read what their calendars' events are called; else they are only busy.</summary>
    public bool SeesTitles { get; set; }

    public required Instant Since { get; init; }
}
