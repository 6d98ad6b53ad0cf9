using NodaTime;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// A clock that showed a chosen time when the program started and has run on since, for trying things out on another
/// day.
/// </summary>
public sealed class StartedClock : IClock
{
    private Duration _ahead;

    private StartedClock(Duration ahead) => _ahead = ahead;

    public static StartedClock At(Instant start) => new(start - SystemClock.Instance.GetCurrentInstant());

    public Instant GetCurrentInstant() => SystemClock.Instance.GetCurrentInstant() + _ahead;

    /// <summary>
    /// Goes on from the newest of what is there already, where that is later: time does not go back for what was
    /// booked, mailed or answered at a former start.
    /// </summary>
    public void GoOnFrom(Instant newest)
    {
        if (newest > GetCurrentInstant())
            _ahead = newest - SystemClock.Instance.GetCurrentInstant();
    }
}
