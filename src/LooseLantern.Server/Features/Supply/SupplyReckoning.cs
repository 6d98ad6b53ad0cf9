using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Reserving;
using NodaTime;

namespace LooseLantern.Server.Features.Supply;

/// <summary>One opening as a bar: its start, and its wall-clock minutes of the day in the page's zone.</summary>
public sealed record SupplyOpening(Instant Start, int FromMinute, int ToMinute);

public sealed record SupplyDay(LocalDate Date, IReadOnlyList<SupplyOpening> Openings);

/// <summary>A mistake by which a page offers nothing at all.</summary>
/// <param name="Host">Whose hours it is about; null for the page's.</param>
/// <param name="Minutes">The longest run of open time, where that is too short.</param>
/// <param name="Opens">The date on which hours are open next, where that is too late.</param>
public sealed record EmptyView(EmptyKind Kind, string? Host, int? Minutes, LocalDate? Opens);

/// <summary>A host of a seat, in turn.</summary>
/// <param name="Sessions">How many sessions of the page count as theirs within 30 days before and after.</param>
public sealed record TurnView(string Host, int Sessions);

/// <param name="Turns">Of each seat its hosts in the order in which the next opening would go to them, were all of them
/// free.</param>
/// <param name="Now">The instant this was computed for.</param>
/// <param name="Zone">The page's zone, by whose days it is counted.</param>
/// <param name="Duration">Minutes; the duration that was counted.</param>
/// <param name="Today">The local date in the page's zone.</param>
/// <param name="Days">As many as were asked for from the first one that is offered, those beyond the window without
/// openings.</param>
/// <param name="LastDate">The last local date that the page offers.</param>
/// <param name="Worked">What grid and buffers come to for the first opening; null where there is none.</param>
/// <param name="BeyondHosts">Of a page with hours of its own: how many of its openings lie beyond its hosts' hours, or
/// on their closed dates.</param>
/// <param name="Empty">Where there is none at all: the mistakes that lead to it, if any.</param>
public sealed record SupplyAnswer(
    Instant Now,
    string Zone,
    int Duration,
    int Total,
    LocalDate Today,
    IReadOnlyList<SupplyDay> Days,
    LocalDate LastDate,
    IReadOnlyList<EmptyView> Empty,
    IReadOnlyList<IReadOnlyList<TurnView>> Turns,
    WorkedExample? Worked,
    int BeyondHosts
);

/// <summary>How many openings a page offers, by day and in all.</summary>
public sealed class SupplyReckoning(LanternDb db, OpeningsInputs inputs, IClock clock)
{
    /// <summary>
    /// The next weeks of a page, saved or not, from the first date that it offers, in the page's zone.
    /// </summary>
    /// <param name="page">With its seats and hours.</param>
    /// <param name="duration">Minutes, or null for the preset one.</param>
    public async Task<SupplyAnswer> NextWeeksAsync(Page page, int? duration, int weeks, CancellationToken ct)
    {
        var rules = inputs.Rules(page);
        var minutes = DurationOf(page, duration);
        var today = inputs.Today(rules);
        var (first, _) = PageRulesOf.DatesToAsk(page, today);
        var input = await inputs.InputAsync(rules, first, first.PlusDays((weeks * 7) - 1), minutes, ct);
        var openings = input is null ? [] : OpeningsComputation.Openings(input);

        var byDay = openings.ToLookup(opening => opening.Start.InZone(rules.Zone).Date);
        var days = Enumerable
            .Range(0, weeks * 7)
            .Select(first.PlusDays)
            .Select(date => new SupplyDay(
                date,
                [
                    .. byDay[date]
                        .Select(opening =>
                            (opening, slice: DaySlices.Of(new Span(opening.Start, opening.End), rules.Zone).First())
                        )
                        .Select(pair => new SupplyOpening(
                            pair.opening.Start,
                            pair.slice.FromMinute,
                            pair.slice.ToMinute
                        )),
                ]
            ));
        return new SupplyAnswer(
            clock.GetCurrentInstant(),
            page.Zone,
            minutes,
            openings.Count,
            today,
            [.. days],
            PageRulesOf.DatesOf(page, today).Last,
            openings.Count > 0 ? [] : await EmptyAsync(rules, first, weeks, minutes, input, ct),
            await TurnsAsync(page, rules, openings.Count > 0 ? openings[0].Start : clock.GetCurrentInstant(), ct),
            openings.Count > 0 ? WorkedExample.Of(rules.Rules, openings[0]) : null,
            input is null ? 0 : BeyondHosts(input, openings)
        );
    }

    /// <summary>
    /// What is offered by the page's own hours and would not be where its hosts' had to be open, too: asked on the same
    /// starts, so that a grid which moves with hours does not count.
    /// </summary>
    private static int BeyondHosts(OpeningsInput input, IReadOnlyList<Opening> openings)
    {
        if (input.Page.HoursMode != HoursMode.Page || openings.Count == 0)
            return 0;
        var both = input with
        {
            Page = input.Page with { HoursMode = HoursMode.Hosts, StepFrom = StepFrom.Clock, Step = 1, StepOffset = 0 },
        };
        var within = OpeningsComputation.Openings(both).Select(opening => opening.Start).ToHashSet();
        return openings.Count(opening => !within.Contains(opening.Start));
    }

    private async Task<IReadOnlyList<IReadOnlyList<TurnView>>> TurnsAsync(
        Page page,
        AskedPage rules,
        Instant start,
        CancellationToken ct
    )
    {
        var trip = new RoundTrip(db);
        var assignment = new AssignmentAsked(trip, page, [start], new Meeting(""), isShown: true);
        await trip.RunAsync(ct);
        var facts = assignment.Facts(start, clock.GetCurrentInstant());
        var names = await inputs.NamesAsync(rules.HostIds, ct);
        return
        [
            .. Assignment
                .Turns(rules.Rules.LineUp, start, facts)
                .Select(seat =>
                    (IReadOnlyList<TurnView>)[.. seat.Select(turn => new TurnView(names[turn.Host], turn.Sessions))]
                ),
        ];
    }

    internal static int DurationOf(Page page, int? asked) =>
        asked is { } duration && page.Durations.Contains(duration) ? duration : page.Durations[0];

    private async Task<IReadOnlyList<EmptyView>> EmptyAsync(
        AskedPage rules,
        LocalDate first,
        int weeks,
        int minutes,
        OpeningsInput? input,
        CancellationToken ct
    )
    {
        input ??= await inputs.ReadAsync(rules, first, first.PlusDays((weeks * 7) - 1), minutes, ct);
        var names = await inputs.NamesAsync(rules.HostIds, ct);
        return
        [
            .. EmptyCause
                .Of(input)
                .Select(cause => new EmptyView(
                    cause.Kind,
                    cause.Host is { } id ? names[id] : null,
                    cause.Minutes,
                    cause.Opens
                )),
        ];
    }
}
