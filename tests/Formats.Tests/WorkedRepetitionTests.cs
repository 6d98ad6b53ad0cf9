using NodaTime.Text;

namespace Formats.Tests;

/// <summary>
/// Rules with the times that another program made of them, one a line in Repetitions/worked.txt: rule, start of the
/// event, from and until when it is asked for, and the first 25 starts but for that of the event itself. They were
/// worked out by a library of another language (python-dateutil 2.9), which walks through all dates from the start on.
/// </summary>
public class WorkedRepetitionTests
{
    private const int MostCompared = 25;

    private static readonly LocalDateTimePattern Pattern = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    private static readonly string Lines = Path.Combine(AppContext.BaseDirectory, "Repetitions", "worked.txt");

    [Fact]
    public void Rules_name_the_times_that_a_walk_through_all_dates_finds()
    {
        var wrong = new List<string>();
        var lines = File.ReadAllLines(Environment.GetEnvironmentVariable("LANTERN_REPETITIONS") ?? Lines);
        foreach (var line in lines)
        {
            var parts = line.Split('|');
            // No further than is compared, so that none comes to more than is read of one event.
            var until = parts[4].Length == 0 ? At(parts[3]) : At(parts[4].Split(' ')[^1]) + Duration.FromSeconds(1);
            var found = string.Join(' ', Starts(parts[0], parts[1], parts[2], until));
            if (found != parts[4])
                wrong.Add($"{parts[0]} from {parts[1]}, {parts[2]} to {parts[3]}:\n  {found}\n  {parts[4]}");
        }

        lines.Length.ShouldBeGreaterThan(300);
        wrong.ShouldBeEmpty($"{wrong.Count} of {lines.Length}:\n{string.Join('\n', wrong.Take(5))}");
    }

    private static IEnumerable<string> Starts(string rule, string start, string from, Instant until) =>
        CalendarFile
            .Parse(CalendarText.Calendar(CalendarText.Event($"UID:a\nDTSTART:{start}Z\nDURATION:PT1S\nRRULE:{rule}")))
            .Read(new Span(At(from), until), DateTimeZone.Utc, new ReadingBudget())
            .Entries.Select(entry => entry.Time.Start)
            .Where(time => time >= At(from) && time != At(start))
            .Take(MostCompared)
            .Select(time => Pattern.Format(time.InUtc().LocalDateTime));

    private static Instant At(string text) => Pattern.Parse(text).Value.InUtc().ToInstant();
}
