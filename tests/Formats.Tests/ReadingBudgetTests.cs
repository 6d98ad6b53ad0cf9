using CsCheck;
using static Formats.Tests.CalendarText;

namespace Formats.Tests;

/// <summary>
/// However a calendar is written, reading it takes no more steps and entries than it may, and what stands beside it is
/// read as ever.
/// </summary>
public class ReadingBudgetTests
{
    private const int MostSteps = ReadingBudget.MostSteps + ReadingBudget.ReserveSteps + ReadingBudget.ZoneSteps;

    private static readonly Span TwoYears = new(Instant.FromUtc(2026, 1, 1, 0, 0), Instant.FromUtc(2027, 7, 1, 0, 0));

    private static readonly string Honest = string.Join(
        '\n',
        Event("UID:once\nSUMMARY:Once\nDTSTART:20270301T090000Z\nDURATION:PT1H"),
        Event("UID:weekly\nSUMMARY:Weekly\nDTSTART:19990104T070000Z\nDURATION:PT1H\nRRULE:FREQ=WEEKLY"),
        Event("UID:daily\nSUMMARY:Daily\nDTSTART:20200104T120000Z\nDURATION:PT1H\nRRULE:FREQ=DAILY;COUNT=4000")
    );

    public static TheoryData<string> Names() => [.. HostileCalendars.All.Keys];

    [Theory, MemberData(nameof(Names))]
    public void A_hostile_calendar_takes_no_more_than_it_may_and_frees_nothing_beside_it(string name)
    {
        var budget = new ReadingBudget(TestContext.Current.CancellationToken);
        var reading = CalendarFile
            .Parse(Calendar(HostileCalendars.All[name], Honest))
            .Read(TwoYears, Copenhagen, budget);

        RequireWithin(budget, reading);
        reading.Entries.Count(entry => entry.Title == "Once").ShouldBe(1);
        reading.Entries.Count(entry => entry.Title == "Weekly").ShouldBe(78);
        // Among thousands that ask for as little as it does, one can be left out; then it is listed.
        if (name != HostileCalendars.ThousandsEachDay)
            reading.Entries.Count(entry => entry.Title == "Daily").ShouldBe(546);
        else
            reading.Unread.ShouldContain(unread => unread.Title == "Daily" && unread.IsPartly);
    }

    [Fact]
    public void There_are_enough_of_them() => HostileCalendars.All.Count.ShouldBeGreaterThan(60);

    [Fact]
    public void Rules_made_at_random_take_no_more_than_they_may()
    {
        var list = Gen.Int[-400, 400].Array[0, 80];
        var part = Gen.Select(
            Gen.OneOf([
                .. new[]
                {
                    "BYSECOND",
                    "BYMINUTE",
                    "BYHOUR",
                    "BYDAY",
                    "BYMONTHDAY",
                    "BYYEARDAY",
                    "BYWEEKNO",
                    "BYMONTH",
                    "BYSETPOS",
                    "COUNT",
                    "INTERVAL",
                }.Select(Gen.Const),
            ]),
            list,
            (name, numbers) =>
                name is "COUNT" or "INTERVAL"
                    ? $"{name}={Math.Abs(numbers.Sum()) + 1}"
                    : $"{name}={string.Join(',', numbers.Where(number => Fits(name, number)).Select(number => name == "BYDAY" ? "MOTUWETHFRSASU".Substring(Math.Abs(number) % 7 * 2, 2) : $"{number}"))}"
        );
        Gen.Select(
                Gen.OneOf([
                    .. new[] { "SECONDLY", "MINUTELY", "HOURLY", "DAILY", "WEEKLY", "MONTHLY", "YEARLY" }.Select(
                        Gen.Const
                    ),
                ]),
                part.Array[0, 5],
                Gen.Int[1, 2026],
                Gen.Int[0, 40_000]
            )
            .Sample(
                (every, parts, year, minutes) =>
                {
                    var rule = string.Join(
                        ';',
                        parts
                            .DistinctBy(each => each.Split('=')[0])
                            .Where(each => !each.EndsWith('='))
                            .Prepend($"FREQ={every}")
                    );
                    var budget = new ReadingBudget();
                    var text = Calendar(
                        Event($"UID:a\nDTSTART:{year:0000}0101T000000Z\nDURATION:PT{minutes}M\nRRULE:{rule}")
                    );
                    RequireWithin(budget, CalendarFile.Parse(text).Read(TwoYears, Copenhagen, budget));
                },
                iter: 200
            );
    }

    [Fact]
    public void Of_an_event_that_goes_over_what_was_found_counts_and_it_is_listed_with_its_title()
    {
        var reading = Read(
            Event("UID:a\nSUMMARY:Each second\nDTSTART:20260504T090000Z\nDURATION:PT1S\nRRULE:FREQ=SECONDLY")
        );

        // Nothing fits between its times, so that they are one.
        var start = Instant.FromUtc(2026, 5, 4, 9, 0);
        reading
            .Entries.ShouldHaveSingleItem()
            .Time.ShouldBe(new Span(start, start + Duration.FromSeconds(ReadingBudget.EventEntries)));
        var listed = reading.Unread.ShouldHaveSingleItem();
        listed.ShouldSatisfyAllConditions(
            () => listed.IsPartly.ShouldBeTrue(),
            () => listed.Title.ShouldBe("Each second"),
            () => listed.Fault.ShouldContain("more times than are read")
        );
    }

    [Theory]
    [InlineData("FREQ=SECONDLY;UNTIL=19700102T000000Z", 5)]
    // Half an hour before and five minutes in it, each with its period.
    [InlineData("FREQ=SECONDLY;INTERVAL=30;COUNT=99999999", 150)]
    [InlineData("FREQ=MINUTELY;BYHOUR=9;BYMINUTE=0", 40)]
    [InlineData("FREQ=YEARLY;BYMONTH=12", 200)]
    public void What_lies_before_the_time_that_is_asked_for_is_passed_over(string rule, int most)
    {
        var budget = new ReadingBudget();
        var file = CalendarFile.Parse(Calendar(Event(HostileCalendars.Repeating("19700101T000000Z", rule))));
        file.Read(
            new Span(Instant.FromUtc(2026, 1, 1, 0, 0), Instant.FromUtc(2026, 1, 1, 0, 5)),
            DateTimeZone.Utc,
            budget
        );
        budget.Steps.ShouldBeLessThan(most);
    }

    [Fact]
    public void Times_of_such_an_event_between_which_something_fits_stay_apart()
    {
        var reading = Read(Event("UID:a\nDTSTART:20260101T000000Z\nDURATION:PT1M\nRRULE:FREQ=MINUTELY;INTERVAL=2"));

        reading.Unread.ShouldHaveSingleItem().IsPartly.ShouldBeTrue();
        reading.Entries.Count.ShouldBe(ReadingBudget.EventEntries);
    }

    [Fact]
    public void What_takes_too_long_is_cut_and_the_text_around_it_does_not_count()
    {
        var each = Enumerable
            .Range(0, 40)
            .Select(n => Event($"UID:{n}\nDTSTART:20260105T090000Z\nDURATION:PT1H\nRRULE:FREQ=DAILY"));
        var file = CalendarFile.Parse(Calendar([.. each]));

        // Ten seconds go by while other files of the calendar are read.
        var slow = new Ticking();
        var late = new ReadingBudget(time: slow);
        slow.Now += TimeSpan.FromSeconds(10);
        file.Read(Year(2026), Copenhagen, late).Unread.ShouldBeEmpty();

        // A look at the clock each thousand steps shows three seconds more.
        var hard = new Ticking { Each = TimeSpan.FromSeconds(3) };
        file.Read(Year(2026), Copenhagen, new ReadingBudget(time: hard)).Unread.ShouldNotBeEmpty();
    }

    [Fact]
    public void Whoever_asked_and_has_left_is_read_for_no_longer()
    {
        using var left = new CancellationTokenSource();
        left.Cancel();
        var file = CalendarFile.Parse(Calendar(Event(HostileCalendars.Repeating("19700101T000000Z", "FREQ=SECONDLY"))));
        Should.Throw<OperationCanceledException>(() => file.Read(TwoYears, Copenhagen, new ReadingBudget(left.Token)));
    }

    /// <summary>Time as a test has it pass: so much with each look.</summary>
    private sealed class Ticking : TimeProvider
    {
        public TimeSpan Now { get; set; }

        public TimeSpan Each { get; init; }

        public override long TimestampFrequency => TimeSpan.TicksPerSecond;

        public override long GetTimestamp() => (Now += Each).Ticks;
    }

    private static bool Fits(string name, int number) =>
        name switch
        {
            "BYSECOND" or "BYMINUTE" => number is >= 0 and <= 59,
            "BYHOUR" => number is >= 0 and <= 23,
            "BYMONTHDAY" => number != 0 && Math.Abs(number) <= 31,
            "BYYEARDAY" or "BYSETPOS" => number != 0 && Math.Abs(number) <= 366,
            "BYWEEKNO" => number != 0 && Math.Abs(number) <= 53,
            "BYMONTH" => number is >= 1 and <= 12,
            _ => true,
        };

    private static void RequireWithin(ReadingBudget budget, CalendarReading reading)
    {
        budget.Steps.ShouldBeLessThanOrEqualTo(MostSteps);
        reading.Entries.Count.ShouldBeLessThanOrEqualTo(ReadingBudget.MostEntries);
        reading.Unread.ShouldAllBe(unread => unread.Title.Length <= 200);
    }
}
