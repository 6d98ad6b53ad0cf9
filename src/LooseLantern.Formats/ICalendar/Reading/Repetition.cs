using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// One RRULE (RFC 5545 section 3.3.10), worked out on the wall clock: which local times it names. Zones are for the
/// caller to apply, since a repetition follows the wall clock and not elapsed time.
/// </summary>
internal sealed class Repetition
{
    // Some rules match seldom (29 February on a Monday), some never; past this many steps without a match a rule counts
    // as never.
    private const int MostStepsWithoutMatch = 50_000;

    private readonly ContentLine _line;
    private readonly TimeValue _first;
    private readonly CalendarEvent _rule;

    private Repetition(ContentLine line, TimeValue first, CalendarEvent rule) =>
        (_line, _first, _rule) = (line, first, rule);

    /// <param name="first">The DTSTART that the rule belongs to.</param>
    /// <param name="toLocal">The wall clock at an instant, for an UNTIL given in UTC.</param>
    public static Repetition Read(ContentLine line, TimeValue first, Func<Instant, LocalDateTime> toLocal)
    {
        try
        {
            var rule = new RecurrenceRule(line.Value.Trim());
            if (rule.Until is { HasTime: true } until)
            {
                var local = LocalDateTime.FromDateTime(until.Value);
                if (until.IsUtc && !first.IsUtc)
                    local = toLocal(local.InUtc().ToInstant());
                rule.Until = first.IsDate ? ToDate(local.Date) : ToCalDateTime(local);
            }

            var start = first.IsDate ? ToDate(first.Local.Date) : ToCalDateTime(first.Local);
            var holder = new CalendarEvent { DtStart = start };
            holder.RecurrenceRule = rule;
            return new Repetition(line, first, holder);
        }
        catch (Exception e)
            when (e is ArgumentException or FormatException or InvalidOperationException or OverflowException)
        {
            throw new EventFaultException(line.Line, $"RRULE \"{line.Value}\" can't be read: {e.Message}");
        }
    }

    /// <summary>
    /// The local starts from <paramref name="from"/> until before <paramref name="until"/>, the first one of the event
    /// included.
    /// </summary>
    /// <param name="most">How many there may be.</param>
    public IReadOnlyList<LocalDateTime> Starts(LocalDateTime from, LocalDateTime until, int most)
    {
        var starts = new List<LocalDateTime>();
        try
        {
            var after = LocalDateTime.Max(from, _first.Local);
            var options = new EvaluationOptions { MaxUnmatchedIncrementsLimit = MostStepsWithoutMatch };
            foreach (
                var occurrence in _rule.GetOccurrences(
                    _first.IsDate ? ToDate(after.Date) : ToCalDateTime(after),
                    options
                )
            )
            {
                var start = LocalDateTime.FromDateTime(occurrence.Period.StartTime.Value);
                if (start >= until)
                    break;
                if (start < from)
                    continue;
                if (starts.Count == most)
                    throw new EventFaultException(
                        _line.Line,
                        $"This repeats more than {most} times; that is more than is read of one event."
                    );
                starts.Add(start);
            }
        }
        catch (Exception e)
            when (e is EvaluationException or ArgumentException or InvalidOperationException or OverflowException)
        {
            // What was found stands; past it the rule names no date any more.
            if (starts.Count == 0)
                throw new EventFaultException(_line.Line, $"RRULE \"{_line.Value}\" never comes to a date.");
        }

        return starts;
    }

    private static CalDateTime ToDate(LocalDate date) => new(date.Year, date.Month, date.Day);

    private static CalDateTime ToCalDateTime(LocalDateTime local) =>
        new(local.Year, local.Month, local.Day, local.Hour, local.Minute, local.Second);
}
