using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.Reasons;

/// <summary>A seat that nobody can fill, with what each of its hosts lacks.</summary>
public sealed record DarkSeat(int Position, IReadOnlyList<HostLacks> Hosts);

/// <summary>Why a stretch of time has no openings: every rule that fails for starts in it, each once.</summary>
/// <param name="OfPage">What fails for the page itself, whoever takes part.</param>
/// <param name="Seats">By position.</param>
/// <param name="Shared">Hosts that several seats share, where each alone could be filled.</param>
public sealed record DarkTime(IReadOnlyList<Reason> OfPage, IReadOnlyList<DarkSeat> Seats, IReadOnlyList<string> Shared)
{
    // Finer than people name times. A grid by the clock is asked at its own starts instead; others begin anew with each
    // open time.
    private const int MinutesBetweenAsked = 15;

    /// <summary>Asks starts all through a stretch, those that are openings left out.</summary>
    /// <param name="input">Of the days that the stretch lies in.</param>
    /// <exception cref="ArgumentException">As for <see cref="OpeningsComputation.Openings"/>.</exception>
    public static DarkTime Within(OpeningsInput input, Span stretch)
    {
        var openings = OpeningsComputation.Openings(input).Select(opening => opening.Start).ToHashSet();
        var ofPage = new List<Reason>();
        var ofSeats = new SortedDictionary<int, List<(string Host, Reason Reason)>>();
        var shared = new List<string>();
        foreach (var start in Starts(input.Page, stretch))
        {
            if (openings.Contains(start))
                continue;
            var reasons = ReasonsComputation.FailingAt(input, start);
            // A start between two of the grid says nothing of the stretch where more is in the way.
            foreach (var reason in reasons.Where(reason => reason.Rule != Rule.Grid || reasons.Count == 1))
                Add(reason);
        }

        return new DarkTime(
            Merged(ofPage),
            [
                .. ofSeats.Select(seat => new DarkSeat(
                    seat.Key,
                    [
                        .. seat
                            .Value.GroupBy(pair => pair.Host)
                            .Select(host => new HostLacks(host.Key, Merged([.. host.Select(pair => pair.Reason)]))),
                    ]
                )),
            ],
            [.. shared.Distinct()]
        );

        void Add(Reason reason)
        {
            shared.AddRange(reason.Shared ?? []);
            if (reason.Pool is { } pool)
            {
                foreach (var seat in reason.Seats!)
                    OfSeat(seat).AddRange(pool.SelectMany(lacks => lacks.Reasons, (lacks, one) => (lacks.Host, one)));
            }
            else if (reason.Host is { } host)
                OfSeat(
                        input
                            .Page.LineUp.Select((seat, at) => (seat, at))
                            .First(pair => pair.seat.AnyOf.Count == 1 && pair.seat.AnyOf[0] == host)
                            .at
                    )
                    .Add((host, reason));
            else if (reason.Shared is null)
                ofPage.Add(reason);
        }

        List<(string, Reason)> OfSeat(int seat) =>
            ofSeats.TryGetValue(seat, out var known) ? known : ofSeats[seat] = [];
    }

    private static IEnumerable<Instant> Starts(PageRules page, Span stretch)
    {
        var (asked, offset) =
            page.StepFrom == StepFrom.Clock ? (page, page.StepOffset) : (page with { Step = MinutesBetweenAsked }, 0);
        return StartGrid
            .ByClock(asked, stretch.Start.InZone(page.Zone).Date, stretch.End.InZone(page.Zone).Date, offset)
            .SelectMany(run => run.Instants())
            .Where(stretch.Contains);
    }

    /// <summary>Each reason once; of closed time one reason for each run of it.</summary>
    private static List<Reason> Merged(IReadOnlyList<Reason> reasons)
    {
        var closed = reasons
            .Where(reason => reason.Rule is Rule.Hours or Rule.Only && reason.Span is not null)
            .ToList();
        return
        [
            .. closed
                .GroupBy(reason => (reason.Rule, reason.Host))
                .SelectMany(
                    alike => SpanUnion.Of(alike.Select(reason => reason.Span!.Value)),
                    (alike, span) => new Reason(alike.Key.Rule) { Host = alike.Key.Host, Span = span }
                ),
            .. reasons.Except(closed).Distinct(),
        ];
    }
}
