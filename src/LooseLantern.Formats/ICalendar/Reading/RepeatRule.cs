using System.Globalization;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>FREQ of a rule, by how often.</summary>
internal enum RepeatEvery
{
    Year,
    Month,
    Week,
    Day,
    Hour,
    Minute,
    Second,
}

/// <param name="Nth">Which of them in the month or year, from its end where negative; 0 for each.</param>
internal readonly record struct RepeatDay(int Nth, IsoDayOfWeek Day);

/// <summary>
/// An RRULE as written (RFC 5545 section 3.3.10). Lists are in order and without doubles; one that is empty was not
/// given.
/// </summary>
internal sealed record RepeatRule
{
    private const int MostPositions = 1_000_000;

    public required RepeatEvery Every { get; init; }

    public int Interval { get; init; } = 1;

    public long? Count { get; init; }

    /// <summary>UNTIL as it stands, without what its zone makes of it.</summary>
    public TimeValue? Until { get; init; }

    public IsoDayOfWeek WeekStart { get; init; } = IsoDayOfWeek.Monday;

    public IReadOnlyList<int> Seconds { get; init; } = [];

    public IReadOnlyList<int> Minutes { get; init; } = [];

    public IReadOnlyList<int> Hours { get; init; } = [];

    public IReadOnlyList<RepeatDay> Days { get; init; } = [];

    public IReadOnlyList<int> MonthDays { get; init; } = [];

    public IReadOnlyList<int> YearDays { get; init; } = [];

    public IReadOnlyList<int> Weeks { get; init; } = [];

    public IReadOnlyList<int> Months { get; init; } = [];

    public IReadOnlyList<int> Positions { get; init; } = [];

    /// <summary>Whether nothing but the interval says when it is.</summary>
    public bool IsPlain =>
        Seconds.Count
            + Minutes.Count
            + Hours.Count
            + Days.Count
            + MonthDays.Count
            + YearDays.Count
            + Weeks.Count
            + Months.Count
            + Positions.Count
        == 0;

    /// <exception cref="EventFaultException">When it can't be read; says which part.</exception>
    public static RepeatRule Read(ContentLine line)
    {
        var parts = PartsOf(line);
        var rule = new RepeatRule
        {
            Every = Frequency(parts.GetValueOrDefault("FREQ")),
            Interval = One("INTERVAL", 1_000_000) ?? 1,
            Count = One("COUNT", int.MaxValue),
            Until = parts.TryGetValue("UNTIL", out var until) ? TimeValue.Read(line, until) : null,
            WeekStart = parts.TryGetValue("WKST", out var start) ? Weekday(start) : IsoDayOfWeek.Monday,
            // A leap second is read as the second before it.
            Seconds = [.. Numbers("BYSECOND", 0, 60).Select(second => Math.Min(second, 59)).Distinct()],
            Minutes = Numbers("BYMINUTE", 0, 59),
            Hours = Numbers("BYHOUR", 0, 23),
            Days = [.. Texts("BYDAY").Select(Day).Distinct()],
            MonthDays = Signed("BYMONTHDAY", 31),
            YearDays = Signed("BYYEARDAY", 366),
            Weeks = Signed("BYWEEKNO", 53),
            Months = Numbers("BYMONTH", 1, 12),
            Positions = Signed("BYSETPOS", MostPositions),
        };
        // RFC 7529: rules of other calendars, and days that are moved where a month does not have them.
        if (parts.TryGetValue("RSCALE", out var scale) && !Is(scale, "GREGORIAN"))
            throw Fault(line, $"the calendar {scale} is not known here");
        if (parts.TryGetValue("SKIP", out var skip) && !Is(skip, "OMIT"))
            throw Fault(line, $"SKIP={skip} is not known here");
        return rule;

        RepeatEvery Frequency(string? text)
        {
            foreach (var every in Enum.GetValues<RepeatEvery>())
            {
                if (text is not null && Is(text, NameOf(every)))
                    return every;
            }

            throw Fault(line, text is null ? "it does not say how often (FREQ)" : $"FREQ={text} is none that there is");
        }

        IEnumerable<string> Texts(string name) =>
            parts.TryGetValue(name, out var value) ? value.Split(',').Select(each => each.Trim()) : [];

        IReadOnlyList<int> Numbers(string name, int least, int most) =>
            [.. Texts(name).Select(text => Number(name, text, least, most)).Distinct().Order()];

        IReadOnlyList<int> Signed(string name, int most)
        {
            var numbers = Numbers(name, -most, most);
            return numbers.Contains(0) ? throw Fault(line, $"{name} counts from 1, or from -1") : numbers;
        }

        int? One(string name, int most) =>
            parts.TryGetValue(name, out var value) ? Number(name, value.Trim(), 1, most) : null;

        int Number(string name, string text, int least, int most) =>
            int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
            && number >= least
            && number <= most
                ? number
                : throw Fault(line, $"{name} \"{text}\" is no number from {least} to {most}");

        RepeatDay Day(string text) =>
            text.Length <= 2
                ? new RepeatDay(0, Weekday(text))
                : new RepeatDay(Number("BYDAY", text[..^2], -53, 53), Weekday(text[^2..]));

        IsoDayOfWeek Weekday(string text) =>
            text.Trim().ToUpperInvariant() switch
            {
                "MO" => IsoDayOfWeek.Monday,
                "TU" => IsoDayOfWeek.Tuesday,
                "WE" => IsoDayOfWeek.Wednesday,
                "TH" => IsoDayOfWeek.Thursday,
                "FR" => IsoDayOfWeek.Friday,
                "SA" => IsoDayOfWeek.Saturday,
                "SU" => IsoDayOfWeek.Sunday,
                var other => throw Fault(line, $"\"{other}\" is no day of the week (MO, say)"),
            };
    }

    /// <summary>How often a rule repeats, whatever else is wrong with it; null where it does not say.</summary>
    public static RepeatEvery? EveryOf(ContentLine line)
    {
        foreach (var every in Enum.GetValues<RepeatEvery>())
        {
            if (line.Value.Contains($"FREQ={NameOf(every)}", StringComparison.OrdinalIgnoreCase))
                return every;
        }

        return null;
    }

    private static Dictionary<string, string> PartsOf(ContentLine line)
    {
        var parts = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        foreach (
            var part in line.Value.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        )
        {
            if (part.Split('=', 2) is not [var name, var value])
                throw Fault(line, $"\"{part}\" has no value");
            if (!parts.TryAdd(name.Trim(), value.Trim()))
                throw Fault(line, $"{name} stands in it twice");
        }

        return parts;
    }

    private static string NameOf(RepeatEvery every) =>
        every switch
        {
            RepeatEvery.Day => "DAILY",
            var other => $"{other}LY".ToUpperInvariant(),
        };

    private static bool Is(string text, string value) => text.Equals(value, StringComparison.OrdinalIgnoreCase);

    private static EventFaultException Fault(ContentLine line, string why) =>
        new(line.Line, $"RRULE \"{CutText.At(line.Value, 120)}\" can't be read: {CutText.At(why, 120)}.");
}
