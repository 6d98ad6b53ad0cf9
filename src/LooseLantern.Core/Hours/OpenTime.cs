using System.Globalization;

namespace LooseLantern.Core.Hours;

/// <summary>
/// A run of open wall-clock time within one local day, [From, To), in whole minutes after midnight; To may be 1440
/// (24:00). Hours over midnight are written as two open times: one to 24:00 and one from 00:00 of the next day.
/// </summary>
public readonly record struct OpenTime
{
    public const int MinutesOfDay = 24 * 60;

    /// <exception cref="ArgumentOutOfRangeException">When a bound is outside the day or the end is not after the
    /// start.</exception>
    public OpenTime(int from, int to)
    {
        if (from is < 0 or >= MinutesOfDay)
            throw new ArgumentOutOfRangeException(nameof(from), from, "An open time starts from 00:00 to 23:59.");
        if (to > MinutesOfDay || to <= from)
            throw new ArgumentOutOfRangeException(nameof(to), to, "An open time ends after its start and by 24:00.");
        From = from;
        To = to;
    }

    public int From { get; }

    public int To { get; }

    /// <summary>Reads "HH:MM" to minutes after midnight, "24:00" included; false for anything else.</summary>
    public static bool TryParseMinute(string? text, out int minute)
    {
        minute = 0;
        if (text is not { Length: 5 } || text[2] != ':')
            return false;
        if (!int.TryParse(text.AsSpan(0, 2), NumberStyles.None, CultureInfo.InvariantCulture, out var hours))
            return false;
        if (!int.TryParse(text.AsSpan(3, 2), NumberStyles.None, CultureInfo.InvariantCulture, out var minutes))
            return false;
        if (hours > 24 || minutes > 59 || (hours == 24 && minutes > 0))
            return false;
        minute = hours * 60 + minutes;
        return true;
    }

    /// <summary>Runs of minutes of one day as open times, in order, with those that meet or touch joined.</summary>
    public static IReadOnlyList<OpenTime> Joined(IEnumerable<(int From, int To)> runs)
    {
        var joined = new List<OpenTime>();
        foreach (var (from, to) in runs.Order())
        {
            if (joined.Count > 0 && from <= joined[^1].To)
                joined[^1] = new OpenTime(joined[^1].From, Math.Max(joined[^1].To, to));
            else
                joined.Add(new OpenTime(from, to));
        }

        return joined;
    }

    /// <summary>Writes minutes after midnight as "HH:MM".</summary>
    public static string FormatMinute(int minute) =>
        string.Create(CultureInfo.InvariantCulture, $"{minute / 60:00}:{minute % 60:00}");

    public override string ToString() => $"{FormatMinute(From)}-{FormatMinute(To)}";
}
