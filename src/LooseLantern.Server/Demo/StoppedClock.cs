using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>A clock that stands, for what the demo did some days ago.</summary>
internal sealed class StoppedClock(Instant at) : IClock
{
    public Instant GetCurrentInstant() => at;
}
