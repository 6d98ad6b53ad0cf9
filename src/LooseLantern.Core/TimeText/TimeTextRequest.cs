using System.Globalization;
using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.TimeText;

public enum Clock
{
    /// <summary>As usual in the language.</summary>
    Usual,
    Hours12,
    Hours24,
}

/// <summary>How times are to be written.</summary>
/// <param name="Culture">Whose dates, weekdays, and marks of the clock are used, such as en-GB, de, fr, es or
/// da.</param>
/// <param name="Zone">The zone by whose days the times are grouped.</param>
/// <param name="Second">A second zone, written in brackets behind the first; null for none.</param>
/// <param name="MergeTouching">Whether openings that touch or overlap become one range.</param>
/// <param name="Today">The reader's date; years are written only of dates in another year.</param>
public sealed record TimeTextRequest(
    CultureInfo Culture,
    Clock Clock,
    DateTimeZone Zone,
    DateTimeZone? Second,
    bool MergeTouching,
    LocalDate Today
);

/// <summary>Openings as text.</summary>
/// <param name="Zones">Which zones the times are in, in words.</param>
/// <param name="Days">By date.</param>
public sealed record TimeTextResult(string Zones, IReadOnlyList<TimeTextDay> Days)
{
    /// <summary>All of it as plain lines: the zones, then each day with its times indented below.</summary>
    public override string ToString() =>
        string.Join(
            '\n',
            Days.SelectMany(day => day.Times.Select(time => "  " + time.Text).Prepend(day.Heading)).Prepend(Zones)
        );
}

public sealed record TimeTextDay(LocalDate Date, string Heading, IReadOnlyList<TimeTextTime> Times);

/// <param name="Openings">The openings it stands for: one, or those of a range.</param>
public sealed record TimeTextTime(string Text, IReadOnlyList<Opening> Openings);
