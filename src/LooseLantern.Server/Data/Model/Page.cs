using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Data.Model;

public enum PageState
{
    Draft,
    Published,

    /// <summary>Put away: no guest can open it and no list names it, but it can be had back.</summary>
    Archived,
}

public enum PlaceKind
{
    InPerson,
    Phone,
    Video,
    OwnWords,
}

/// <summary>
/// A booking page: one kind of appointment with all its rules. Buffers, notice and steps are whole minutes.
/// </summary>
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

    /// <summary>Whether guests are shown only starts that stand a step or more apart.</summary>
    public bool StartsApart { get; set; }

    public int BufferBefore { get; set; }

    public int BufferAfter { get; set; }

    public int Notice { get; set; }

    public int AheadDays { get; set; }

    /// <summary>A run of dates or no end, in place of <see cref="AheadDays"/>; null for so many days ahead.</summary>
    public PageWindow? Window { get; set; }

    public HoursMode HoursMode { get; set; }

    public Guid? HoursId { get; set; }

    public HoursRow? Hours { get; set; }

    /// <summary>Most sessions that may start on one local date of the page's zone; null for any number.</summary>
    public int? DailyCap { get; set; }

    /// <summary>Most sessions that may start in one ISO week of the page's zone; null for any number.</summary>
    public int? WeeklyCap { get; set; }

    /// <summary>How many guests one session takes.</summary>
    public int Places { get; set; } = 1;

    /// <summary>Whether a guest who comes back gets the same hosts again where they are free.</summary>
    public bool KeepsHosts { get; set; }

    public List<SeatRow> Seats { get; } = [];

    /// <summary>Two letters that tell its bookings and blocks apart on boards and lists.</summary>
    public string Mark { get; set; } = "";

    /// <summary>The office hours it is open in, instead of <see cref="Hours"/>; none for a page by the week.</summary>
    public List<BlockRow> Blocks { get; } = [];

    /// <summary>
    /// Whether each block is one opening for its whole length, instead of being cut into openings from its start.
    /// </summary>
    public bool OffersWholeBlocks { get; set; }

    /// <summary>Where it asks or writes other calendars of its hosts than usual.</summary>
    public IReadOnlyList<CalendarChoice> CalendarChoices { get; set; } = [];

    /// <summary>What its guests may do with their bookings.</summary>
    public ChangeRules Changes { get; set; } = ChangeRules.Usual;

    /// <summary>What it asks its guests, in order.</summary>
    public IReadOnlyList<Question> Questions { get; set; } = [];

    /// <summary>What it sends.</summary>
    public PagePost Post { get; set; } = PagePost.Usual;

    /// <summary>For how many hours an asked booking waits for a yes; null where a booking stands at once.</summary>
    public int? ApprovalHours { get; set; }

    public PageDetails Details { get; set; } = PageDetails.Usual;

    /// <summary>What is not published yet of a page that is, or was; null where guests have all of it.</summary>
    public PageForm? Draft { get; set; }

    /// <summary>The offer of the availability link whose page it is; null for a page of a desk.</summary>
    public LinkOffer? Offer { get; set; }

    public PageState State { get; set; }

    /// <summary>Rises with each saved change; a save that names an older one is refused.</summary>
    public int Version { get; set; } = 1;

    public Instant CreatedAt { get; init; }

    /// <summary>Who of the team made it; of a link, the link says so.</summary>
    public Guid? MadeBy { get; set; }
}

/// <summary>One seat of a page's line-up.</summary>
public sealed class SeatRow : IBelongsToWorkspace
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required Guid WorkspaceId { get; init; }

    public Guid PageId { get; init; }

    public required int Position { get; set; }

    /// <summary>How it chooses among its free hosts.</summary>
    public SeatFill Fill { get; set; }

    /// <summary>What it makes of the host who keeps the guest.</summary>
    public SeatKeeper Keeper { get; set; }

    public List<SeatHost> Hosts { get; } = [];
}

/// <summary>A host that may fill a seat.</summary>
public sealed class SeatHost : IBelongsToWorkspace
{
    public required Guid WorkspaceId { get; init; }

    public Guid SeatId { get; init; }

    public required Guid HostId { get; init; }

    public Host? Host { get; set; }

    public required int Position { get; set; }

    /// <summary>
    /// When the host was put in the seat; a newcomer is not given everything until level with the others.
    /// </summary>
    public required Instant Since { get; init; }
}
