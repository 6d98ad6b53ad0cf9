using NodaTime;

namespace LooseLantern.Core.Links;

/// <summary>How it is said what an availability link offers.</summary>
public enum OfferBy
{
    /// <summary>Exact times that were picked.</summary>
    Picked,

    /// <summary>What is free in time that was painted.</summary>
    Painted,

    /// <summary>Whatever is free.</summary>
    Free,

    /// <summary>
    /// Whatever is free, of which nothing is shown: the guest is asked first for the times that suit them.
    /// </summary>
    Asked,
}

/// <summary>A run of painted time, on the wall clock of the link's zone.</summary>
/// <param name="Minutes">Of wall clock; it may run over midnight.</param>
/// <param name="IsWeekly">Whether it comes again each week as long as the link lives.</param>
public sealed record PaintedTime(LocalDateTime Start, int Minutes, bool IsWeekly);

/// <summary>
/// What a link offers. Picks and paint are kept whichever of them counts, so that another choice loses nothing of what
/// was picked.
/// </summary>
/// <param name="Picked">Starts.</param>
/// <param name="Days">The days of the week that count, for what is painted or free; none for all of them.</param>
/// <param name="FromMinute">The earliest minute of a day on which an appointment may start, for what is painted or
/// free.</param>
/// <param name="ToMinute">The latest minute of a day at which it may end.</param>
/// <param name="Until">The last local date it offers, in the link's zone.</param>
/// <param name="MostShown">How many openings are shown at the most; null for all.</param>
public sealed record Offer(
    OfferBy By,
    IReadOnlyList<Instant> Picked,
    IReadOnlyList<PaintedTime> Painted,
    IReadOnlyList<IsoDayOfWeek> Days,
    int FromMinute,
    int ToMinute,
    LocalDate Until,
    int? MostShown
)
{
    /// <summary>The first local date it offers; null for today.</summary>
    public LocalDate? From { get; init; }
}
