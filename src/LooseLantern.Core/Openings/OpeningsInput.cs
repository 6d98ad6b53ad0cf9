using LooseLantern.Core.Hours;
using LooseLantern.Core.LineUps;
using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// Everything one computation of openings needs. It is complete: sessions for the whole ISO weeks of From to To, busy
/// spans and commitments to a day and the largest buffers beyond both ends; holds that have run out are not in it.
/// </summary>
/// <param name="Now">The instant of asking; notice and a window "ahead" count from it.</param>
/// <param name="From">First local date in the page's zone, included.</param>
/// <param name="To">Last local date in the page's zone, included.</param>
/// <param name="Duration">Whole minutes, from 1.</param>
/// <param name="AsHolder">The holder whose own holds do not block, or null.</param>
/// <param name="Moving">The session that is being moved elsewhere, or null.</param>
public sealed record OpeningsInput(
    Instant Now,
    LocalDate From,
    LocalDate To,
    int Duration,
    string? AsHolder,
    string? Moving,
    PageRules Page,
    IReadOnlyList<HostFacts> Hosts
)
{
    /// <summary>
    /// How many people come with the booking that is asked for, from 1: places are people. More than a page has places
    /// for have no openings.
    /// </summary>
    public int Party { get; init; } = 1;

    /// <summary>
    /// The host who keeps the guest that asks, where a seat considers that (<see cref="Keepers.Narrow"/>); else null.
    /// </summary>
    public string? Keeper { get; init; }
}

public enum StepFrom
{
    /// <summary>Starts lie on the wall clock of the page's zone.</summary>
    Clock,

    /// <summary>Starts are counted from the start of each open stretch.</summary>
    Open,
}

public enum HoursMode
{
    Hosts,
    Page,
    Both,
}

/// <summary>How far a page offers.</summary>
public abstract record BookingWindow
{
    private BookingWindow() { }

    /// <summary>Today and so many days after it, in the page's zone.</summary>
    public sealed record Ahead(int Days) : BookingWindow;

    /// <summary>A run of local dates, both included.</summary>
    public sealed record Dates(LocalDate From, LocalDate To) : BookingWindow;

    public sealed record Open : BookingWindow;

    /// <summary>
    /// The dates from <paramref name="from"/> to <paramref name="to"/> that the window offers; the first is after the
    /// last where it offers none of them.
    /// </summary>
    /// <param name="today">The local date in the page's zone.</param>
    public (LocalDate First, LocalDate Last) Within(LocalDate from, LocalDate to, LocalDate today) =>
        this switch
        {
            Ahead ahead => (LocalDate.Max(from, today), LocalDate.Min(to, today.PlusDays(ahead.Days))),
            Dates dates => (LocalDate.Max(from, dates.From), LocalDate.Min(to, dates.To)),
            _ => (from, to),
        };
}

/// <summary>Times that take the place of hours: painted spans, or exact starts.</summary>
public abstract record OnlyTimes
{
    private OnlyTimes() { }

    public sealed record Painted(IReadOnlyList<Span> Spans) : OnlyTimes;

    public sealed record Exact(IReadOnlyList<Instant> Starts) : OnlyTimes;
}

/// <summary>One place in the line-up, filled by any one of its eligible hosts, named by id in their order.</summary>
public sealed record Seat(IReadOnlyList<string> AnyOf)
{
    /// <summary>What it makes of the host who keeps the guest.</summary>
    public SeatKeeper Keeper { get; init; }
}

/// <summary>One start of a page as booked, with how many people come to it: guests and whom they bring.</summary>
public sealed record SessionFacts(string Id, Instant Start, Instant End, int Guests);

/// <summary>A page's rules. Buffers, notice and steps are whole minutes; caps are sessions, null for none.</summary>
public sealed record PageRules(
    string Id,
    DateTimeZone Zone,
    int Step,
    int StepOffset,
    StepFrom StepFrom,
    int BufferBefore,
    int BufferAfter,
    int Notice,
    BookingWindow Window,
    HoursMode HoursMode,
    HoursSet? Hours,
    int? DailyCap,
    int? WeeklyCap,
    int Places,
    IReadOnlyList<Seat> LineUp,
    OnlyTimes? Only,
    IReadOnlyList<SessionFacts> Sessions
);

public enum CommitmentKind
{
    Booking,
    Hold,
}

/// <summary>
/// Time of a host that we gave away ourselves. A booking's holder is its session, a hold's a link or a poll.
/// </summary>
public sealed record Commitment(
    CommitmentKind Kind,
    string Holder,
    string? Page,
    Instant Start,
    Instant End,
    int BufferBefore,
    int BufferAfter
);

/// <summary>
/// One host: hours (null: always open), busy spans of the calendars that are asked (not asked at all where
/// <paramref name="IgnoresCalendars"/>), and commitments, which always count.
/// </summary>
public sealed record HostFacts(
    string Id,
    DateTimeZone Zone,
    int? DailyCap,
    int? WeeklyCap,
    bool IgnoresCalendars,
    HoursSet? Hours,
    IReadOnlyList<Span> Busy,
    IReadOnlyList<Commitment> Commitments
)
{
    /// <summary>
    /// Where each busy span comes from, in their order; null where nobody asks for reasons with sources.
    /// </summary>
    public IReadOnlyList<BusySource>? BusySources { get; init; }
}

/// <summary>What a busy span comes from.</summary>
/// <param name="Title">The event's title; null where the reader may not see it.</param>
public sealed record BusySource(string Calendar, string? Title);

/// <summary>A start a guest can reserve now, with its end and how many places it has left.</summary>
public sealed record Opening(Instant Start, Instant End, int PlacesLeft);
