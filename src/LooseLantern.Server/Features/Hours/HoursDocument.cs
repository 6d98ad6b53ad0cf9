using LooseLantern.Core.Hours;
using NodaTime;

namespace LooseLantern.Server.Features.Hours;

/// <summary>Hours as they are stored and sent: times of day as "HH:MM", to "24:00".</summary>
/// <param name="Zone">IANA id.</param>
public sealed record HoursDocument(string Zone, WeekDocument Week, IReadOnlyList<DatedChangeDocument> Changes)
{
    /// <summary>The same as Core computes with. The document must have passed <see cref="HoursRules"/>.</summary>
    public HoursSet ToCore() =>
        new(
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
            [.. Changes.SelectMany(change => change.ToCore())]
        );

    internal static OpenTime[] OpenTimes(IReadOnlyList<OpenTimeDocument> open) =>
        [.. open.Select(time => time.ToCore())];
}

/// <summary>The open times of each weekday; an empty list is a closed day.</summary>
public sealed record WeekDocument(
    IReadOnlyList<OpenTimeDocument> Mon,
    IReadOnlyList<OpenTimeDocument> Tue,
    IReadOnlyList<OpenTimeDocument> Wed,
    IReadOnlyList<OpenTimeDocument> Thu,
    IReadOnlyList<OpenTimeDocument> Fri,
    IReadOnlyList<OpenTimeDocument> Sat,
    IReadOnlyList<OpenTimeDocument> Sun
);

public sealed record OpenTimeDocument(string From, string To)
{
    public OpenTime ToCore()
    {
        if (!OpenTime.TryParseMinute(From, out var from) || !OpenTime.TryParseMinute(To, out var to))
            throw new FormatException($"\"{From}\" to \"{To}\" is no open time.");
        return new OpenTime(from, to);
    }
}

/// <summary>The weekdays, named as in <see cref="WeekDocument"/>.</summary>
public enum WeekdayName
{
    Mon = IsoDayOfWeek.Monday,
    Tue = IsoDayOfWeek.Tuesday,
    Wed = IsoDayOfWeek.Wednesday,
    Thu = IsoDayOfWeek.Thursday,
    Fri = IsoDayOfWeek.Friday,
    Sat = IsoDayOfWeek.Saturday,
    Sun = IsoDayOfWeek.Sunday,
}

/// <summary>
/// Other open times, or none, from one date to another, both included. Of changes that meet, the last listed counts.
/// </summary>
/// <param name="Name">What it is, such as the name of a holiday; null for none.</param>
/// <param name="Weekdays">Only these days of the run; null for every day.</param>
public sealed record DatedChangeDocument(
    LocalDate From,
    LocalDate To,
    IReadOnlyList<OpenTimeDocument> Open,
    string? Name = null,
    IReadOnlyList<WeekdayName>? Weekdays = null
)
{
    /// <summary>Whether a date is one of those it changes.</summary>
    public bool Covers(LocalDate date) =>
        From <= date && date <= To && (Weekdays is null || Weekdays.Contains((WeekdayName)date.DayOfWeek));

    /// <summary>
    /// One change of Core's for the run, or one for each of its dates where only some weekdays change.
    /// </summary>
    public IEnumerable<DatedChange> ToCore()
    {
        var open = HoursDocument.OpenTimes(Open);
        if (Weekdays is null)
            return [new DatedChange(From, To, open)];
        return Enumerable
            .Range(0, Period.DaysBetween(From, To) + 1)
            .Select(From.PlusDays)
            .Where(Covers)
            .Select(date => new DatedChange(date, date, open));
    }
}
