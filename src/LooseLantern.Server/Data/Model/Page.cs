using LooseLantern.Core.Openings;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

public enum PageState
{
    Draft,
    Published,
}

public enum PlaceKind
{
    InPerson,
    Phone,
    Video,
    OwnWords,
}

/// <summary>A booking page: one kind of appointment with all its rules. Buffers, notice and steps are whole minutes.</summary>
public sealed class Page : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public required Guid DeskId { get; set; }

    public Desk? Desk { get; set; }

    /// <summary>Second part of its path, unique under its desk.</summary>
    public required string Address { get; set; }

    public required string Title { get; set; }

    public string Description { get; set; } = "";

    public PlaceKind PlaceKind { get; set; }

    public string Place { get; set; } = "";

    public required string Zone { get; set; }

    /// <summary>The lengths a guest may choose from, the first one preset.</summary>
    public required int[] Durations { get; set; }

    public int Step { get; set; }

    public int StepOffset { get; set; }

    public StepFrom StepFrom { get; set; }

    public int BufferBefore { get; set; }

    public int BufferAfter { get; set; }

    public int Notice { get; set; }

    public int AheadDays { get; set; }

    public HoursMode HoursMode { get; set; }

    public Guid? HoursId { get; set; }

    public HoursRow? Hours { get; set; }

    public List<SeatRow> Seats { get; } = [];

    public PageState State { get; set; }

    /// <summary>Rises with each saved change; a save that names an older one is refused.</summary>
    public int Version { get; set; } = 1;

    public Instant CreatedAt { get; init; }
}

/// <summary>One seat of a page's line-up.</summary>
public sealed class SeatRow : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public Guid PageId { get; init; }

    public required int Position { get; set; }

    public List<SeatHost> Hosts { get; } = [];
}

/// <summary>A host that may fill a seat.</summary>
public sealed class SeatHost : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public Guid SeatId { get; init; }

    public required Guid HostId { get; init; }

    public Host? Host { get; init; }

    public required int Position { get; set; }
}
