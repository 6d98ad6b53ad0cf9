using System.Text.RegularExpressions;
using LooseLantern.Core.Hours;
using LooseLantern.Formats.ICalendar.Reading;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Blocks;

/// <summary>
/// Turns blocks into the hours Core computes with: an empty week, and a dated change for each date that a block lies
/// on.
/// </summary>
public static partial class OfficeHours
{
    public const int MostMinutes = 24 * 60;

    /// <summary>The most times one block may start within the dates asked for.</summary>
    public const int MostStarts = 1_000;

    /// <param name="from">First date to count.</param>
    /// <param name="to">Last date to count.</param>
    /// <exception cref="BlockRuleException">When a rule can't be read.</exception>
    public static HoursSet Of(IReadOnlyCollection<Block> blocks, DateTimeZone zone, LocalDate from, LocalDate to)
    {
        var byDate = new SortedDictionary<LocalDate, List<(int From, int To)>>();
        foreach (
            var (block, start) in blocks.SelectMany(
                block => Starts(block, from.PlusDays(-1), to),
                (block, start) => (block, start)
            )
        )
        {
            var minute = start.Hour * 60 + start.Minute;
            Add(start.Date, minute, Math.Min(minute + block.Length, OpenTime.MinutesOfDay));
            if (minute + block.Length > OpenTime.MinutesOfDay)
                Add(start.Date.PlusDays(1), 0, minute + block.Length - OpenTime.MinutesOfDay);
        }

        return new HoursSet(
            zone,
            new Dictionary<IsoDayOfWeek, IReadOnlyList<OpenTime>>(),
            [
                .. byDate
                    .Where(day => day.Key >= from && day.Key <= to)
                    .Select(day => new DatedChange(day.Key, day.Key, OpenTime.Joined(day.Value))),
            ]
        );

        void Add(LocalDate date, int open, int close)
        {
            if (!byDate.TryGetValue(date, out var times))
                byDate[date] = times = [];
            times.Add((open, close));
        }
    }

    /// <summary>The local times at which a block starts, from one date to another, both included.</summary>
    /// <exception cref="BlockRuleException">When its rule can't be read.</exception>
    public static IReadOnlyList<LocalDateTime> Starts(Block block, LocalDate from, LocalDate to)
    {
        IReadOnlyList<LocalDateTime> starts;
        if (block.Rule is null)
            starts = block.Start.Date >= from && block.Start.Date <= to ? [block.Start] : [];
        else
        {
            if (!Frequency().IsMatch(block.Rule))
                throw new BlockRuleException(
                    $"RRULE \"{block.Rule}\" repeats neither daily nor weekly, monthly or yearly."
                );
            try
            {
                var line = new ContentLine(1, "RRULE", new Dictionary<string, string>(), block.Rule);
                var first = new TimeValue(1, block.Start, IsDate: false, IsUtc: false, ZoneId: null);
                var budget = new ReadingBudget().ForEvent();
                starts =
                [
                    .. Repetition
                        .Read(line, first, instant => instant.InUtc().LocalDateTime)
                        .Starts(from.AtMidnight(), to.PlusDays(1).AtMidnight(), budget)
                        .Take(MostStarts + 1),
                ];
                if (budget.IsOver || starts.Count > MostStarts)
                    throw new BlockRuleException($"This repeats more than {MostStarts} times.");
            }
            catch (EventFaultException e)
            {
                throw new BlockRuleException(e.Message);
            }
        }

        return [.. starts.Where(start => !block.Without.Contains(start.Date))];
    }

    /// <summary>The date of a rule's UNTIL (RFC 5545 section 3.3.10); null where it names none.</summary>
    public static LocalDate? LastDate(string rule) =>
        Until().Match(rule) is { Success: true } until
        && NodaTime.Text.LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd").Parse(until.Groups[2].Value)
            is { Success: true } date
            ? date.Value
            : null;

    [GeneratedRegex("(^|;)UNTIL=([0-9]{8})", RegexOptions.IgnoreCase)]
    private static partial Regex Until();

    // Office hours that came again each minute would be no office hours.
    [GeneratedRegex("(^|;)FREQ=(DAILY|WEEKLY|MONTHLY|YEARLY)(;|$)", RegexOptions.IgnoreCase)]
    private static partial Regex Frequency();
}
