namespace Core.Tests;

/// <summary>Short ways to write inputs: everything open and unlimited unless said.</summary>
internal static class Sketch
{
    public static readonly DateTimeZone Copenhagen = DateTimeZoneProviders.Tzdb["Europe/Copenhagen"];

    public static Instant At(string text) => NodaTime.Text.InstantPattern.General.Parse(text).Value;

    public static Span Span(string start, string end) => new(At(start), At(end));

    public static PageRules Page(DateTimeZone? zone = null) =>
        new(
            "page",
            zone ?? Copenhagen,
            Step: 30,
            StepOffset: 0,
            StepFrom.Clock,
            BufferBefore: 0,
            BufferAfter: 0,
            Notice: 0,
            new BookingWindow.Open(),
            HoursMode.Hosts,
            Hours: null,
            DailyCap: null,
            WeeklyCap: null,
            Places: 1,
            [new Seat(["h1"])],
            Only: null,
            Sessions: []
        );

    public static HostFacts Host(string id = "h1", HoursSet? hours = null, params Span[] busy) =>
        new(
            id,
            Copenhagen,
            DailyCap: null,
            WeeklyCap: null,
            IgnoresCalendars: false,
            hours ?? Open("09:00-12:00"),
            busy,
            []
        );

    /// <summary>The same open times on every day of the week, in Copenhagen unless said.</summary>
    public static HoursSet Open(string times, DateTimeZone? zone = null, params DatedChange[] changes)
    {
        IReadOnlyList<OpenTime> open = [.. Times(times)];
        return new HoursSet(
            zone ?? Copenhagen,
            Enum.GetValues<IsoDayOfWeek>().Where(day => day != IsoDayOfWeek.None).ToDictionary(day => day, _ => open),
            changes
        );
    }

    public static IEnumerable<OpenTime> Times(string times) =>
        times
            .Split(',', StringSplitOptions.RemoveEmptyEntries)
            .Select(pair =>
            {
                OpenTime.TryParseMinute(pair[..5], out var from).ShouldBeTrue();
                OpenTime.TryParseMinute(pair[6..], out var to).ShouldBeTrue();
                return new OpenTime(from, to);
            });

    /// <summary>A Tuesday in winter, UTC+1 in Copenhagen, asked the evening before.</summary>
    public static OpeningsInput Tuesday(PageRules page, params HostFacts[] hosts) =>
        On(new LocalDate(2026, 12, 1), page, hosts) with
        {
            Now = At("2026-11-30T20:00:00Z"),
        };

    public static OpeningsInput On(LocalDate date, PageRules page, params HostFacts[] hosts) =>
        new(
            At("2000-01-01T00:00:00Z"),
            date,
            date,
            30,
            AsHolder: null,
            Moving: null,
            page,
            hosts.Length == 0 ? [Host()] : hosts
        );

    /// <summary>The starts as times of day in UTC, "08:00 08:30".</summary>
    public static string Starts(OpeningsInput input) =>
        string.Join(' ', OpeningsComputation.Openings(input).Select(opening => opening.Start.ToString("HH:mm", null)));
}
