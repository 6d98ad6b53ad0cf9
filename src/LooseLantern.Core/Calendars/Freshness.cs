using NodaTime;

namespace LooseLantern.Core.Calendars;

/// <summary>How fresh is what is known of a calendar that is looked at again and again.</summary>
/// <param name="LookedAt">When it was last looked at with success.</param>
/// <param name="UnreachableSince">Since when looks fail; null while they succeed.</param>
/// <param name="Rhythm">How long its publisher asks to wait between looks; zero where they come all the time.</param>
public readonly record struct Freshness(Instant LookedAt, Instant? UnreachableSince, Duration Rhythm)
{
    /// <summary>
    /// From when the openings of its hosts are closed, unless it can be reached before; null while it can be.
    /// </summary>
    /// <param name="counts">For how long its last known state counts.</param>
    public Instant? ClosesAt(Duration counts) => UnreachableSince is null ? null : LookedAt + counts;

    /// <summary>
    /// Whether its last known state no longer counts: it could not be reached for so long, or nobody tried that long
    /// after they should have. It is not known to be free then, so all of its hosts' time is closed.
    /// </summary>
    public bool IsTooOld(Duration counts, Instant now) => TooOldAt(counts) <= now;

    /// <summary>From when on its last known state no longer counts, unless it is looked at before.</summary>
    public Instant TooOldAt(Duration counts) => LookedAt + counts + (UnreachableSince is null ? Rhythm : Duration.Zero);
}
