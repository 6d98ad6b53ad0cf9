using CsCheck;
using LooseLantern.Core.Days;

namespace Core.Tests;

/// <summary>
/// Random inputs with everything at once, small enough to be reckoned minute by minute and dense enough that rules
/// meet.
/// </summary>
internal static class RandomInput
{
    // Zones with half hours, quarter hours, a change of half an hour, changes at midnight, and a missing day.
    private static readonly (string Zone, LocalDate Date)[] Places =
    [
        ("Europe/Copenhagen", new(2026, 3, 28)),
        ("Europe/Copenhagen", new(2026, 10, 24)),
        ("Australia/Lord_Howe", new(2026, 4, 4)),
        ("Australia/Lord_Howe", new(2026, 10, 3)),
        ("Africa/Casablanca", new(2026, 2, 14)),
        ("Asia/Kathmandu", new(2026, 7, 1)),
        ("America/St_Johns", new(2006, 10, 28)),
        ("America/St_Johns", new(2026, 3, 7)),
        ("Pacific/Apia", new(2011, 12, 29)),
        ("UTC", new(2026, 12, 31)),
    ];

    private static readonly string[] HoursZones =
    [
        "Europe/Copenhagen",
        "Australia/Lord_Howe",
        "America/St_Johns",
        "Asia/Kathmandu",
        "Pacific/Apia",
        "UTC",
    ];

    public static Gen<OpeningsInput> Any { get; } =
        from place in OneOf(Places)
        let zone = DateTimeZoneProviders.Tzdb[place.Zone]
        let noon = LocalDays.Start(zone, place.Date) + Duration.FromHours(12)
        from days in Gen.Int[0, 1]
        from duration in OneOf(15, 30, 45, 60, 90)
        from now in Instants(noon, 40 * 60)
        from hosts in Gen.Select(Host("a", noon), Host("b", noon), Host("c", noon), (a, b, c) => new[] { a, b, c })
        from page in Page(zone, place.Date, noon, duration)
        from asHolder in OneOf<string?>(null, null, "k1", "k2")
        from moving in OneOf<string?>(null, null, "s1")
        from party in OneOf(1, 1, 1, 2, 3)
        select new OpeningsInput(
            now - Duration.FromDays(1),
            place.Date,
            place.Date.PlusDays(days),
            duration,
            asHolder,
            moving,
            page,
            hosts
        )
        {
            Party = party,
        };

    /// <summary>Months of weeks that are alike, with clock changes and days off here and there.</summary>
    public static Gen<OpeningsInput> Months { get; } =
        from input in Any
        from days in Gen.Int[60, 130]
        from step in OneOf(15, 20, 30, 50, 60)
        from offset in Gen.Int[0, step - 1]
        from off in DayOff(days).Array[0, 3]
        select OverMonths(input, days, step, offset, off);

    private static Gen<Func<LocalDate, DatedChange>> DayOff(int days) =>
        from first in Gen.Int[-2, days]
        from length in Gen.Int[0, 3]
        from open in OpenTimes
        select (Func<LocalDate, DatedChange>)(
            start => new DatedChange(start.PlusDays(first), start.PlusDays(first + length), open)
        );

    private static OpeningsInput OverMonths(
        OpeningsInput input,
        int days,
        int step,
        int offset,
        Func<LocalDate, DatedChange>[] off
    )
    {
        var from = input.From.PlusDays(-days / 2);
        var changes = off.Select(change => change(from)).ToList();
        return input with
        {
            Now = input.Now - Duration.FromDays(days),
            From = from,
            To = from.PlusDays(days),
            Page = input.Page with
            {
                Step = step,
                StepOffset = offset,
                StepFrom = StepFrom.Clock,
                Window = new BookingWindow.Open(),
                Only = null,
            },
            Hosts =
            [
                .. input.Hosts.Select(
                    (host, at) =>
                        host with
                        {
                            Hours = host.Hours is { } hours ? hours with { Changes = [.. changes.Skip(at)] } : null,
                        }
                ),
            ],
        };
    }

    /// <summary>Many seats and hosts, pools that overlap, and hosts busy in half of the hours; nothing else.</summary>
    public static Gen<OpeningsInput> LineUps { get; } =
        from busy in Gen.Bool.Array[6].Array[8]
        from seats in Gen.Int[0, 7].Array[1, 5].Array[1, 8]
        let ids = Enumerable.Range(0, 8).Select(i => $"h{i}").ToArray()
        let first = Sketch.At("2026-12-01T08:00:00Z")
        select Sketch.Tuesday(
            Sketch.Page() with
            {
                Step = 60,
                LineUp = [.. seats.Select(seat => new Seat([.. seat.Distinct().Select(i => ids[i])]))],
            },
            [
                .. ids.Select(
                    (id, i) =>
                        Sketch.Host(
                            id,
                            Sketch.Open("09:00-15:00"),
                            [
                                .. Enumerable
                                    .Range(0, 6)
                                    .Where(hour => busy[i][hour])
                                    .Select(hour => new Span(
                                        first + Duration.FromHours(hour),
                                        first + Duration.FromHours(hour + 1)
                                    )),
                            ]
                        )
                ),
            ]
        );

    private static Gen<T> OneOf<T>(params T[] choices) => Gen.Int[0, choices.Length - 1].Select(i => choices[i]);

    private static Gen<PageRules> Page(DateTimeZone zone, LocalDate date, Instant noon, int duration) =>
        from step in OneOf(10, 15, 20, 30, 50, 60, 75)
        from offset in Gen.Int[0, step - 1]
        from stepFrom in OneOf(StepFrom.Clock, StepFrom.Open)
        from before in OneOf(0, 0, 10, 25)
        from after in OneOf(0, 0, 5, 20)
        from notice in OneOf(0, 0, 60, 600)
        from window in OneOf<BookingWindow>(
            new BookingWindow.Open(),
            new BookingWindow.Ahead(1),
            new BookingWindow.Ahead(2),
            new BookingWindow.Dates(date, date),
            new BookingWindow.Dates(date.PlusDays(1), date.PlusDays(9))
        )
        from mode in OneOf(HoursMode.Hosts, HoursMode.Hosts, HoursMode.Page, HoursMode.Both)
        from hours in Hours(date)
        from daily in Cap
        from weekly in Cap
        from places in OneOf(1, 1, 3)
        from lineUp in OneOf<Seat[]>(
            [new(["a"])],
            [new(["a", "b", "c"])],
            [new(["a", "b"]), new(["a"])],
            [new(["b", "a"]), new(["c", "b"]), new(["a", "c"])],
            [new(["a"]), new(["b"])]
        )
        from only in Only(noon)
        from sessions in (
            from start in Near(noon)
            from length in OneOf(duration, duration, 30)
            from guests in Gen.Int[1, 3]
            select (start, length, guests)
        ).Array[0, 3]
        select new PageRules(
            "page",
            zone,
            step,
            offset,
            stepFrom,
            before,
            after,
            notice,
            window,
            mode,
            hours,
            daily,
            weekly,
            places,
            lineUp,
            only,
            [
                .. sessions.Select(
                    (session, i) =>
                        new SessionFacts(
                            $"s{i}",
                            session.start,
                            session.start + Duration.FromMinutes(session.length),
                            session.guests
                        )
                ),
            ]
        );

    private static Gen<HostFacts> Host(string id, Instant noon) =>
        from hours in Hours(noon.InUtc().Date)
        from always in Gen.Int[0, 5]
        from zone in OneOf(HoursZones)
        from daily in Cap
        from weekly in Cap
        from ignores in Gen.Int[0, 4]
        from busy in (
            from start in Near(noon)
            from length in Gen.Int[-10, 200]
            select new Span(start, start + Duration.FromMinutes(length))
        ).Array[0, 5]
        from commitments in Commitment(noon).Array[0, 4]
        select new HostFacts(
            id,
            DateTimeZoneProviders.Tzdb[zone],
            daily,
            weekly,
            ignores == 0,
            always == 0 ? null : hours,
            busy,
            commitments
        );

    private static Gen<Commitment> Commitment(Instant noon) =>
        from kind in OneOf(CommitmentKind.Booking, CommitmentKind.Hold)
        from holder in OneOf("s1", "s2", "k1", "k2")
        from start in Near(noon)
        from length in OneOf(0, 15, 30, 45, 60, 90, 130)
        from before in OneOf(0, 0, 15)
        from after in OneOf(0, 0, 30)
        select new Commitment(kind, holder, "page", start, start + Duration.FromMinutes(length), before, after);

    private static Gen<HoursSet> Hours(LocalDate around) => Gen.Frequency((7, Changing(around)), (1, AlwaysOpen));

    /// <summary>Open at every instant, so that there is no start to count a grid from.</summary>
    private static Gen<HoursSet> AlwaysOpen { get; } =
        from zone in OneOf(HoursZones)
        select new HoursSet(
            DateTimeZoneProviders.Tzdb[zone],
            Enumerable
                .Range(1, 7)
                .ToDictionary(day => (IsoDayOfWeek)day, _ => (IReadOnlyList<OpenTime>)[new OpenTime(0, 1440)]),
            []
        );

    private static Gen<HoursSet> Changing(LocalDate around) =>
        from zone in OneOf(HoursZones)
        from week in OpenTimes.Array[7]
        from changes in (
            from first in Gen.Int[-2, 2]
            from length in Gen.Int[0, 2]
            from open in OpenTimes
            select new DatedChange(around.PlusDays(first), around.PlusDays(first + length), open)
        ).Array[0, 2]
        select new HoursSet(
            DateTimeZoneProviders.Tzdb[zone],
            week.Select((open, day) => (open, day: (IsoDayOfWeek)(day + 1)))
                .ToDictionary(pair => pair.day, pair => (IReadOnlyList<OpenTime>)pair.open),
            changes
        );

    private static Gen<OpenTime[]> OpenTimes { get; } =
        Gen.OneOf(
            OneOf<OpenTime[]>([new(0, 1440)], []),
            from a in Gen.Int[0, 700]
            from b in Gen.Int[a + 1, 1000]
            from c in Gen.Int[b, 1200]
            from d in Gen.Int[c + 1, 1440]
            select new OpenTime[] { new(a, b), new(c, d) },
            from a in Gen.Int[1, 80]
            from b in Gen.Int[1100, 1430]
            select new OpenTime[] { new(0, a * 5), new(b, 1440) }
        );

    private static Gen<OnlyTimes?> Only(Instant noon) =>
        Gen.Frequency(
            (6, OneOf<OnlyTimes?>([null])),
            (
                1,
                (
                    from start in Near(noon)
                    from length in Gen.Int[-5, 240]
                    select new Span(start, start + Duration.FromMinutes(length))
                )
                    .Array[1, 4]
                    .Select(spans => (OnlyTimes?)new OnlyTimes.Painted(spans))
            ),
            (1, Near(noon).Array[1, 12].Select(starts => (OnlyTimes?)new OnlyTimes.Exact(starts)))
        );

    private static Gen<int?> Cap { get; } = OneOf<int?>(null, null, 1, 2);

    /// <summary>Within two days, mostly on whole minutes and now and then on half of one.</summary>
    private static Gen<Instant> Near(Instant noon) =>
        from minute in Gen.Int[-36 * 60, 36 * 60]
        from half in Gen.Int[0, 12]
        from even in Gen.Bool
        select noon + Duration.FromMinutes(even ? minute / 15 * 15 : minute) + Duration.FromSeconds(half == 0 ? 30 : 0);

    private static Gen<Instant> Instants(Instant noon, int minutes) =>
        Gen.Int[-minutes, minutes].Select(minute => noon + Duration.FromMinutes(minute));
}
