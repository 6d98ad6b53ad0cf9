using LooseLantern.Core.Openings;

namespace LooseLantern.Core.Relaxations;

/// <summary>The single changes that are tried.</summary>
public enum RelaxedRule
{
    NoticeHalved,
    NoticeDropped,
    BufferBeforeHalved,
    BufferBeforeDropped,
    BufferAfterHalved,
    BufferAfterDropped,
    ShorterDuration,
    LongerWindow,
    PageDailyCapRaised,
    PageWeeklyCapRaised,
    HostDailyCapRaised,
    HostWeeklyCapRaised,
    HoursEarlier,
    HoursLater,
    SeatOpened,
    HostOptional,
}

/// <summary>One change of a rule, with the openings it would add.</summary>
public sealed record Relaxation(RelaxedRule Rule)
{
    /// <summary>Openings whose starts are none now, by start.</summary>
    public IReadOnlyList<Opening> Gained { get; init; } = [];

    /// <summary>
    /// How many starts that are openings now would be none, such as by a grid that moves with the hours.
    /// </summary>
    public int Lost { get; init; }

    /// <summary>
    /// The value now and then: minutes of notice, buffers and durations, days of a window, sessions of a cap; null for
    /// other rules.
    /// </summary>
    public (int From, int To)? Value { get; init; }

    /// <summary>The host whose cap is raised, who is added to a seat, or who becomes optional.</summary>
    public string? Host { get; init; }

    /// <summary>The seat that is opened or left out, by position from 0.</summary>
    public int? Seat { get; init; }

    /// <summary>What was computed: the input with that one change. Of all that are handed out it is there.</summary>
    public OpeningsInput Then { get; init; } = null!;

    /// <summary>Whether it is open time that changes.</summary>
    public bool IsOfHours => Rule is RelaxedRule.HoursEarlier or RelaxedRule.HoursLater;
}
