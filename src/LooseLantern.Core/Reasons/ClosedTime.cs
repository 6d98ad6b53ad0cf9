using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.Reasons;

/// <summary>Where an appointment lies outside open time.</summary>
internal static class ClosedTime
{
    /// <summary>
    /// The first part of <paramref name="time"/> that lies in no stretch; null where one holds all of it.
    /// </summary>
    public static Span? FirstWithin(Span time, StretchIndex stretches)
    {
        var closedFrom = stretches.Containing(time.Start) is { } around ? around.Time.End : time.Start;
        if (closedFrom >= time.End)
            return null;
        var opensAgain = stretches
            .All.Select(stretch => stretch.Time.Start)
            .Where(start => start > closedFrom)
            .DefaultIfEmpty(time.End)
            .Min();
        return new Span(closedFrom, Instant.Min(opensAgain, time.End));
    }
}
