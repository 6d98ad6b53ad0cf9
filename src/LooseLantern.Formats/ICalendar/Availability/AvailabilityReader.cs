using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.Hours;
using LooseLantern.Formats.ICalendar.Reading;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Availability;

/// <summary>Open times of a run of dates that differ from their weekdays'.</summary>
public sealed record ReadChange(LocalDate From, LocalDate To, IReadOnlyList<OpenTime> Open, string? Name);

/// <param name="Week">Open times of each weekday.</param>
public sealed record ReadHours(
    DateTimeZone Zone,
    IReadOnlyDictionary<IsoDayOfWeek, IReadOnlyList<OpenTime>> Week,
    IReadOnlyList<ReadChange> Changes
);

/// <summary>
/// Reads VAVAILABILITY (RFC 7953) as weekly hours with dated changes. At each instant the availability of highest
/// priority that covers it decides (section 4); what that comes to on each date of the next three years is compared
/// with the week into which it settles.
/// </summary>
public static class AvailabilityReader
{
    public const int Years = 3;

    /// <summary>
    /// The most VAVAILABILITYs read of one file, and the most times that are available in all of them.
    /// </summary>
    public const int MostParts = 500;
    public const int MostTimes = 50_000;

    private const int LowestPriority = 10;
    private const int SettledWeeks = 8;

    /// <param name="today">The first date that matters; what lies before it is not read.</param>
    /// <param name="owner">The zone of floating times, and of a file that names no other.</param>
    /// <exception cref="CalendarFileException">When the file is no iCalendar, has no availability, or has a part that
    /// can't be read.</exception>
    public static ReadHours Read(byte[] file, LocalDate today, DateTimeZone owner, CancellationToken ct = default)
    {
        var components = CalendarFile.Components(file);
        var availabilities = components.Where(component => component.Name == "VAVAILABILITY").ToList();
        if (availabilities.Count == 0)
            throw new CalendarFileException(
                null,
                "There is no VAVAILABILITY in the file; it may hold events instead of hours."
            );

        if (availabilities.Count > MostParts)
            throw TooMany();
        var budget = new ReadingBudget(ct);
        var zones = new CalendarZones(owner, CalendarFile.ZonesIn(components), budget);
        try
        {
            var zone = ZoneOf(availabilities, zones) ?? owner;
            var (first, last) = (today, today.PlusYears(Years));
            var range = new Span(LocalDays.Start(zone, first), LocalDays.Start(zone, last.PlusDays(1)));
            var layers = availabilities
                .Select(availability => Layer.Read(availability, zones, range, budget))
                .OrderBy(layer => layer.Priority)
                .ToList();

            if (layers.Sum(layer => layer.Available.Count) > MostTimes)
                throw TooMany();
            var open = ByDate(Available(layers, range), zone);
            var week = WeekOf(open, last);
            return new ReadHours(zone, week, ChangesOf(open, week, first, last, date => NameOf(layers, date, zone)));
        }
        catch (EventFaultException e)
        {
            throw new CalendarFileException(e.Line, e.Message);
        }
    }

    private static CalendarFileException TooMany() =>
        new(
            null,
            $"The file holds more than {MostTimes} available times of three years; that is more than hours can be made of."
        );

    /// <summary>The zone of the first available time that names one.</summary>
    private static DateTimeZone? ZoneOf(IEnumerable<Component> availabilities, CalendarZones zones)
    {
        foreach (
            var line in availabilities
                .SelectMany(availability => availability.Within)
                .SelectMany(available => available.All("DTSTART"))
        )
        {
            if (
                TimeValue.Read(line) is { ZoneId: not null } named
                && zones.Of(named) is var zone
                && DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone.Id) is { } known
            )
                return known;
        }

        return null;
    }

    /// <summary>
    /// The available time within the range: each layer decides for what it covers and no layer above it does.
    /// </summary>
    private static IReadOnlyList<Span> Available(IReadOnlyList<Layer> layers, Span range)
    {
        List<Span> undecided = [range];
        List<Span> available = [];
        foreach (var layer in layers)
        {
            var decided = Meet(undecided, [layer.Cover]);
            available.AddRange(Meet(decided, layer.Available));
            undecided = Without(undecided, layer.Cover);
        }

        return [.. available.OrderBy(span => span.Start)];
    }

    private static List<Span> Meet(IEnumerable<Span> these, IReadOnlyList<Span> those) =>
        [
            .. these.SelectMany(
                one => those.Where(other => other.Meets(one)),
                (one, other) => new Span(Instant.Max(one.Start, other.Start), Instant.Min(one.End, other.End))
            ),
        ];

    private static List<Span> Without(IEnumerable<Span> spans, Span taken) =>
        [
            .. spans
                .SelectMany(span =>
                    taken.Meets(span)
                        ? new[]
                        {
                            new Span(span.Start, Instant.Max(span.Start, taken.Start)),
                            new Span(Instant.Min(span.End, taken.End), span.End),
                        }
                        : [span]
                )
                .Where(span => !span.IsEmpty),
        ];

    private static Dictionary<LocalDate, IReadOnlyList<OpenTime>> ByDate(
        IReadOnlyList<Span> available,
        DateTimeZone zone
    ) =>
        available
            .SelectMany(span => DaySlices.Of(span, zone))
            .GroupBy(slice => slice.Date)
            .ToDictionary(
                day => day.Key,
                day => OpenTime.Joined(day.Select(slice => (slice.FromMinute, slice.ToMinute)))
            );

    /// <summary>
    /// For each weekday what its dates at the end of the range mostly are: by then changes have run out.
    /// </summary>
    private static Dictionary<IsoDayOfWeek, IReadOnlyList<OpenTime>> WeekOf(
        Dictionary<LocalDate, IReadOnlyList<OpenTime>> open,
        LocalDate last
    ) =>
        Enumerable
            .Range(0, 7)
            .Select(day => last.PlusDays(-day))
            .ToDictionary(
                date => date.DayOfWeek,
                date =>
                    Enumerable
                        .Range(0, SettledWeeks)
                        .Select(week => open.GetValueOrDefault(date.PlusWeeks(-week), []))
                        .GroupBy(times => string.Join(' ', times))
                        .MaxBy(group => group.Count())!
                        .First()
            );

    private static List<ReadChange> ChangesOf(
        Dictionary<LocalDate, IReadOnlyList<OpenTime>> open,
        Dictionary<IsoDayOfWeek, IReadOnlyList<OpenTime>> week,
        LocalDate first,
        LocalDate last,
        Func<LocalDate, string?> nameOf
    )
    {
        var changes = new List<ReadChange>();
        for (var date = first; date <= last; date = date.PlusDays(1))
        {
            var times = open.GetValueOrDefault(date, []);
            if (times.SequenceEqual(week[date.DayOfWeek]))
                continue;
            var name = nameOf(date);
            if (
                changes.Count > 0
                && changes[^1] is var before
                && before.To.PlusDays(1) == date
                && before.Name == name
                && before.Open.SequenceEqual(times)
            )
                changes[^1] = before with { To = date };
            else
                changes.Add(new ReadChange(date, date, times, name));
        }

        return changes;
    }

    private static string? NameOf(IReadOnlyList<Layer> layers, LocalDate date, DateTimeZone zone)
    {
        var noon = date.At(LocalTime.Noon).InZoneLeniently(zone).ToInstant();
        return layers.FirstOrDefault(layer => layer.IsBounded && layer.Cover.Contains(noon))?.Name;
    }

    /// <summary>One VAVAILABILITY: what it covers, and what of that is available.</summary>
    private sealed record Layer(int Priority, Span Cover, bool IsBounded, IReadOnlyList<Span> Available, string? Name)
    {
        public static Layer Read(Component component, CalendarZones zones, Span range, ReadingBudget budget)
        {
            var start = component.Single("DTSTART") is { } from ? zones.At(TimeValue.Read(from)) : range.Start;
            var end =
                component.Single("DTEND") is { } to ? zones.At(TimeValue.Read(to))
                : component.Single("DURATION") is { } length
                    ? EventLength.Read(length) is var read ? start + Duration.FromDays(read.Days) + read.Exact
                        : start
                : range.End;
            var cover = new Span(
                Instant.Max(start, range.Start),
                Instant.Max(Instant.Max(start, range.Start), Instant.Min(end, range.End))
            );
            // One more than is allowed is enough to tell that it is too many.
            var available = component
                .Within.Where(within => within.Name == "AVAILABLE")
                .SelectMany(within => Times(within, zones, range, budget))
                .Take(MostTimes + 1);
            var priority =
                component.Single("PRIORITY") is { } line
                && int.TryParse(line.Value.Trim(), out var number)
                && number is >= 1 and <= 9
                    ? number
                    : LowestPriority;
            var name = component.First("SUMMARY")?.Text().Trim();
            return new Layer(
                priority,
                cover,
                component.Single("DTEND") is not null,
                [.. available],
                string.IsNullOrEmpty(name) ? null : name
            );
        }

        /// <summary>Hours of which only a part is read would be wrong ones: then there are none.</summary>
        private static IEnumerable<Span> Times(
            Component available,
            CalendarZones zones,
            Span range,
            ReadingBudget budget
        )
        {
            var own = budget.ForEvent();
            foreach (var entry in EventSeries.Read(available, zones).Occurrences(range, [], own))
                yield return entry.Time;
            budget.Pause();
            if (own.IsOver)
                throw TooMany();
        }
    }
}
