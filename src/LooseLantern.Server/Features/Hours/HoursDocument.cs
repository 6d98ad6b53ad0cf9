using LooseLantern.Core.Hours;
using NodaTime;

namespace LooseLantern.Server.Features.Hours;

/// <summary>Hours as they are stored and sent: times of day as "HH:MM", to "24:00".</summary>
/// <param name="Zone">IANA id.</param>
public sealed record HoursDocument(string Zone, WeekDocument Week, IReadOnlyList<DatedChangeDocument> Changes)
{
    /// <summary>The same as Core computes with. The document must have passed <see cref="HoursRules"/>.</summary>
    public HoursSet ToCore() => new(
        DateTimeZoneProviders.Tzdb[Zone],
        new Dictionary<IsoDayOfWeek, IReadOnlyList<OpenTime>>
        {
            [IsoDayOfWeek.Monday] = OpenTimes(Week.Mon),
            [IsoDayOfWeek.Tuesday] = OpenTimes(Week.Tue),
            [IsoDayOfWeek.Wednesday] = OpenTimes(Week.Wed),
            [IsoDayOfWeek.Thursday] = OpenTimes(Week.Thu),
            [IsoDayOfWeek.Friday] = OpenTimes(Week.Fri),
            [IsoDayOfWeek.Saturday] = OpenTimes(Week.Sat),
            [IsoDayOfWeek.Sunday] = OpenTimes(Week.Sun),
        },
        [.. Changes.Select(change => new DatedChange(change.From, change.To, OpenTimes(change.Open)))]);

    private static OpenTime[] OpenTimes(IReadOnlyList<OpenTimeDocument> open) => [.. open.Select(time => time.ToCore())];
}

/// <summary>The open times of each weekday; an empty list is a closed day.</summary>
public sealed record WeekDocument(
    IReadOnlyList<OpenTimeDocument> Mon,
    IReadOnlyList<OpenTimeDocument> Tue,
    IReadOnlyList<OpenTimeDocument> Wed,
    IReadOnlyList<OpenTimeDocument> Thu,
    IReadOnlyList<OpenTimeDocument> Fri,
    IReadOnlyList<OpenTimeDocument> Sat,
    IReadOnlyList<OpenTimeDocument> Sun);

public sealed record OpenTimeDocument(string From, string To)
{
    public OpenTime ToCore()
    {
        if (!OpenTime.TryParseMinute(From, out var from) || !OpenTime.TryParseMinute(To, out var to))
            throw new FormatException($"\"{From}\" to \"{To}\" is no open time.");
        return new OpenTime(from, to);
    }
}

/// <summary>Other open times, or none, from one date to another, both included.</summary>
public sealed record DatedChangeDocument(LocalDate From, LocalDate To, IReadOnlyList<OpenTimeDocument> Open);
