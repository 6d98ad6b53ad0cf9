using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using NodaTime;

namespace LooseLantern.Server.Features.Board;

/// <summary>What a bar is; later ones are drawn over earlier ones.</summary>
public enum BarKind
{
    /// <summary>The host's hours.</summary>
    Hours,

    /// <summary>Hours that a dated change has closed.</summary>
    Leave,

    /// <summary>Office hours of a page.</summary>
    Block,

    /// <summary>An event of a calendar that takes the time.</summary>
    Busy,

    /// <summary>An event picked as free.</summary>
    Free,

    /// <summary>A time that a link offers and nobody holds.</summary>
    Offered,

    /// <summary>Time kept for a link or poll.</summary>
    Held,

    /// <summary>A booking.</summary>
    Booked,
}

/// <summary>
/// A bar in a lane: wall-clock minutes of the day in the board's zone, and the whole span it is a part of.
/// </summary>
/// <param name="Source">The calendar, the page or the hours that say so.</param>
/// <param name="Mark">The two letters of its page; empty for what belongs to none.</param>
/// <param name="Outside">What somebody did to a booking's event in this host's calendar, where that waits for an
/// answer.</param>
/// <param name="Block">Which of its page's blocks it is; null for all else.</param>
/// <param name="Path">Where it leads, from the root of the site: to its booking, session or link; null for what leads
/// nowhere.</param>
/// <param name="LinkId">The link that it is offered or held for; null for all else.</param>
public sealed record BoardBar(
    BarKind Kind,
    int FromMinute,
    int ToMinute,
    Instant Start,
    Instant End,
    string Title,
    string Source,
    bool WholeDay,
    bool Tentative,
    string Mark,
    BoardBlock? Block,
    OutsideView? Outside,
    Guid? LinkId = null,
    string? Path = null
);

/// <summary>One coming of a block.</summary>
/// <param name="Index">Its place in the page's list of blocks.</param>
/// <param name="Start">Local start in the page's zone.</param>
/// <param name="MayChange">Whether the person who asks may move, stretch and erase it.</param>
public sealed record BoardBlock(
    Guid PageId,
    int Index,
    LocalDateTime Start,
    int Length,
    bool Repeats,
    string Zone,
    bool MayChange
);

public sealed record BoardLane(Guid HostId, IReadOnlyList<BoardBar> Bars);

/// <summary>A run of a day in which all, or any, of the hosts are free.</summary>
public sealed record FreeRun(int FromMinute, int ToMinute, Instant Start, Instant End);

/// <param name="AllFree">When all of the board's hosts are within their hours and free.</param>
/// <param name="AnyFree">When at least one of them is.</param>
public sealed record BoardDay(
    LocalDate Date,
    IReadOnlyList<BoardLane> Lanes,
    IReadOnlyList<FreeRun> AllFree,
    IReadOnlyList<FreeRun> AnyFree
);

/// <param name="Calendars">How many calendars are joined; with none, all of the host's hours look free.</param>
/// <param name="MayOffer">Whether the person who asks may offer this host's time.</param>
public sealed record BoardHost(Guid Id, HostKind Kind, string Name, string Zone, int Calendars, bool MayOffer);

/// <param name="Zone">IANA id of the zone that days and minutes are in.</param>
public sealed record BoardAnswer(
    Instant Now,
    string Zone,
    IReadOnlyList<BoardHost> Hosts,
    IReadOnlyList<BoardDay> Days
);
