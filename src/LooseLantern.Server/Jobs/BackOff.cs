using NodaTime;

namespace LooseLantern.Server.Jobs;

/// <summary>
/// How long to wait before what failed is tried again: half a minute, then twice as long after each try, up to a bound.
/// </summary>
public static class BackOff
{
    private static readonly Duration First = Duration.FromSeconds(30);

    /// <param name="attempts">How many have failed, from 1.</param>
    public static Duration After(int attempts, Duration most) =>
        Duration.Min(most, First * Math.Pow(2, Math.Min(attempts - 1, 20)));
}
