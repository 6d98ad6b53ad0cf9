using NodaTime;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// A clock that showed a chosen time when the program started and has run on since, for trying things out on another
/// day.
/// </summary>
public sealed class StartedClock : IClock
{
    private readonly Duration _ahead;

    private StartedClock(Duration ahead) => _ahead = ahead;

    public static IClock At(Instant start) => new StartedClock(start - SystemClock.Instance.GetCurrentInstant());

    public Instant GetCurrentInstant() => SystemClock.Instance.GetCurrentInstant() + _ahead;
}
