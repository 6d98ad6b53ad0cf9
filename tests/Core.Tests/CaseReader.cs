using System.Text.Json;
using NodaTime.Text;

namespace Core.Tests;

/// <summary>Reads the case files beside these tests; their shape is described in docs/openings.md.</summary>
internal static class CaseReader
{
    public static OpeningsInput Input(JsonElement file) => new(
        At(file.GetProperty("now")),
        Date(file.GetProperty("from")),
        Date(file.GetProperty("to")),
        file.GetProperty("duration").GetInt32(),
        file.GetProperty("asHolder").GetString(),
        file.GetProperty("moving").GetString(),
        Page(file.GetProperty("page")),
        [.. file.GetProperty("hosts").EnumerateArray().Select(Host)]);

    public static IReadOnlyList<Opening> Openings(JsonElement answer) =>
    [
        .. answer.GetProperty("openings").EnumerateArray().Select(opening => new Opening(
            At(opening.GetProperty("start")), At(opening.GetProperty("end")), opening.GetProperty("placesLeft").GetInt32())),
    ];

    private static PageRules Page(JsonElement page) => new(
        page.GetProperty("id").GetString()!,
        Zone(page.GetProperty("zone")),
        page.GetProperty("step").GetInt32(),
        page.GetProperty("stepOffset").GetInt32(),
        Enum.Parse<StepFrom>(page.GetProperty("stepFrom").GetString()!, ignoreCase: true),
        page.GetProperty("bufferBefore").GetInt32(),
        page.GetProperty("bufferAfter").GetInt32(),
        page.GetProperty("notice").GetInt32(),
        Window(page.GetProperty("window")),
        Enum.Parse<HoursMode>(page.GetProperty("hoursMode").GetString()!, ignoreCase: true),
        Hours(page.GetProperty("hours")),
        Number(page.GetProperty("dailyCap")),
        Number(page.GetProperty("weeklyCap")),
        page.GetProperty("places").GetInt32(),
        [.. page.GetProperty("lineup").EnumerateArray().Select(seat =>
            new Seat([.. seat.GetProperty("anyOf").EnumerateArray().Select(id => id.GetString()!)]))],
        Only(page.GetProperty("only")),
        [.. page.GetProperty("sessions").EnumerateArray().Select(session => new SessionFacts(
            session.GetProperty("id").GetString()!, At(session.GetProperty("start")), At(session.GetProperty("end")),
            session.GetProperty("guests").GetInt32()))]);

    private static BookingWindow Window(JsonElement window) => window.GetProperty("kind").GetString() switch
    {
        "ahead" => new BookingWindow.Ahead(window.GetProperty("days").GetInt32()),
        "dates" => new BookingWindow.Dates(Date(window.GetProperty("from")), Date(window.GetProperty("to"))),
        _ => new BookingWindow.Open(),
    };

    private static OnlyTimes? Only(JsonElement only)
    {
        if (only.ValueKind == JsonValueKind.Null) return null;
        if (only.TryGetProperty("starts", out var starts)) return new OnlyTimes.Exact([.. starts.EnumerateArray().Select(At)]);
        return new OnlyTimes.Painted([.. only.GetProperty("spans").EnumerateArray().Select(Span)]);
    }

    private static HostFacts Host(JsonElement host) => new(
        host.GetProperty("id").GetString()!,
        Zone(host.GetProperty("zone")),
        Number(host.GetProperty("dailyCap")),
        Number(host.GetProperty("weeklyCap")),
        host.GetProperty("calendars").GetString() == "ignore",
        Hours(host.GetProperty("hours")),
        [.. host.GetProperty("busy").EnumerateArray().Select(Span)],
        [.. host.GetProperty("commitments").EnumerateArray().Select(commitment => new Commitment(
            commitment.GetProperty("kind").GetString() == "hold" ? CommitmentKind.Hold : CommitmentKind.Booking,
            commitment.GetProperty("holder").GetString()!,
            commitment.TryGetProperty("page", out var page) ? page.GetString() : null,
            At(commitment.GetProperty("start")), At(commitment.GetProperty("end")),
            commitment.GetProperty("bufferBefore").GetInt32(), commitment.GetProperty("bufferAfter").GetInt32()))]);

    private static HoursSet? Hours(JsonElement hours) => hours.ValueKind == JsonValueKind.Null
        ? null
        : new HoursSet(
            Zone(hours.GetProperty("zone")),
            hours.GetProperty("week").EnumerateObject().ToDictionary(day => Weekday(day.Name), day => OpenTimes(day.Value)),
            [.. hours.GetProperty("changes").EnumerateArray().Select(change => new DatedChange(
                Date(change.GetProperty("from")), Date(change.GetProperty("to")), OpenTimes(change.GetProperty("open"))))]);

    private static IReadOnlyList<OpenTime> OpenTimes(JsonElement open) =>
        [.. open.EnumerateArray().Select(pair => new OpenTime(Minute(pair[0]), Minute(pair[1])))];

    private static int Minute(JsonElement text)
    {
        OpenTime.TryParseMinute(text.GetString(), out var minute).ShouldBeTrue(text.GetString());
        return minute;
    }

    private static IsoDayOfWeek Weekday(string name) => name switch
    {
        "mon" => IsoDayOfWeek.Monday,
        "tue" => IsoDayOfWeek.Tuesday,
        "wed" => IsoDayOfWeek.Wednesday,
        "thu" => IsoDayOfWeek.Thursday,
        "fri" => IsoDayOfWeek.Friday,
        "sat" => IsoDayOfWeek.Saturday,
        "sun" => IsoDayOfWeek.Sunday,
        _ => throw new ArgumentException(name),
    };

    private static Span Span(JsonElement pair) => new(At(pair[0]), At(pair[1]));

    private static Instant At(JsonElement text) => InstantPattern.General.Parse(text.GetString()!).Value;

    private static LocalDate Date(JsonElement text) => LocalDatePattern.Iso.Parse(text.GetString()!).Value;

    private static DateTimeZone Zone(JsonElement text) => DateTimeZoneProviders.Tzdb[text.GetString()!];

    private static int? Number(JsonElement number) => number.ValueKind == JsonValueKind.Null ? null : number.GetInt32();
}
