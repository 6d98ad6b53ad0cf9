using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.Suggestions;

/// <summary>
/// The best openings to put to somebody. Each is scored by what speaks for it; they are chosen one after the other,
/// since what spreads them over days depends on those already chosen. The same input gives the same suggestions; of
/// equal ones the earlier is chosen.
/// </summary>
public sealed class SuggestionsComputation
{
    /// <summary>Taken time farther away than this is not near.</summary>
    public static readonly Duration NearWithin = Duration.FromHours(3);

    /// <summary>In this time what being soon counts for falls by half.</summary>
    public static readonly Duration HalvesEvery = Duration.FromDays(4);

    private const int DecentFrom = 8 * 60;
    private const int DecentTo = 18 * 60;
    private const int BearableBeyond = 2 * 60;

    private readonly OpeningsInput _input;
    private readonly IReadOnlyList<DateTimeZone> _zones;
    private readonly SuggestionWeights _weights;
    private readonly List<List<TakenTime>> _seats;
    private readonly Duration _usable;

    private SuggestionsComputation(OpeningsInput input, IEnumerable<DateTimeZone> zones, SuggestionWeights weights)
    {
        (_input, _weights) = (input, weights);
        _zones = [.. zones.Prepend(input.Page.Zone).Distinct()];
        _usable = Duration.FromMinutes(input.Duration + input.Page.BufferBefore + input.Page.BufferAfter);
        var range = DateRange.Around(input.Page.Zone, input.From, input.To);
        var hosts = input.Hosts.ToDictionary(
            host => host.Id,
            host => new TakenTime(
                input,
                host,
                input.Page.Only is null ? StretchIndex.OfHours(input.Page, host.Hours, range) : null
            )
        );
        _seats = [.. input.Page.LineUp.Select(seat => seat.AnyOf.Select(id => hosts[id]).ToList())];
    }

    /// <summary>
    /// Up to <paramref name="count"/> of the openings of <paramref name="input"/>, by start, each with why it was
    /// chosen.
    /// </summary>
    /// <param name="zones">The zones of everybody concerned besides the page's: hosts and guests.</param>
    public static IReadOnlyList<Suggestion> Of(
        OpeningsInput input,
        int count,
        IEnumerable<DateTimeZone> zones,
        SuggestionWeights? weights = null
    ) =>
        [
            .. new SuggestionsComputation(input, zones, weights ?? new SuggestionWeights())
                .Choose(OpeningsComputation.Openings(input), count)
                .OrderBy(suggestion => suggestion.Opening.Start),
        ];

    /// <summary>
    /// Up to <paramref name="count"/> of the openings that lie in time that suits a guest, the best first.
    /// </summary>
    /// <param name="suits">What suits them, from <see cref="SuitedTimes.Joined"/>.</param>
    /// <param name="zones">The zones of everybody concerned besides the page's: hosts and guests.</param>
    public static IReadOnlyList<Suggestion> Ranked(
        OpeningsInput input,
        IReadOnlyList<Span> suits,
        int count,
        IEnumerable<DateTimeZone> zones
    ) =>
        new SuggestionsComputation(input, zones, new SuggestionWeights()).Choose(
            SuitedTimes.Within(OpeningsComputation.Openings(input), suits),
            count
        );

    /// <summary>The best first.</summary>
    private List<Suggestion> Choose(IEnumerable<Opening> openings, int count)
    {
        var left = openings.Select(opening => (Opening: opening, Alone: Alone(opening))).ToList();
        var chosen = new List<Suggestion>();
        while (chosen.Count < count && left.Count > 0)
        {
            var best = left.Select(candidate => With(candidate.Opening, candidate.Alone, chosen))
                .MaxBy(suggestion => suggestion.Score)!;
            chosen.Add(best);
            // Overlapping ones would be the same suggestion twice.
            left.RemoveAll(candidate =>
                new Span(candidate.Opening.Start, candidate.Opening.End).Meets(
                    new Span(best.Opening.Start, best.Opening.End)
                )
            );
        }

        return chosen;
    }

    /// <summary>What speaks for an opening whatever else is chosen.</summary>
    private List<Praise> Alone(Opening opening)
    {
        var time = new Span(opening.Start, opening.End);
        var seats = _seats.Select(seat => BestOfSeat(seat, time)).ToList();
        var nearest = seats.MaxBy(seat => seat.Near);
        var wait = opening.Start > _input.Now ? opening.Start - _input.Now : Duration.Zero;
        return
        [
            new Praise(SuggestedFor.NextToOthers, _weights.NextToOthers * seats.Average(seat => seat.Near))
            {
                Host = nearest.Host,
                Neighbour = nearest.Neighbour,
            },
            new Praise(SuggestedFor.NoCrumbs, _weights.NoCrumbs * seats.Average(seat => seat.Clean)),
            new Praise(SuggestedFor.DecentHours, _weights.DecentHours * _zones.Min(zone => Decency(time, zone))),
            new Praise(SuggestedFor.Soon, _weights.Soon * Math.Pow(0.5, wait / HalvesEvery)),
        ];
    }

    private Suggestion With(Opening opening, List<Praise> alone, List<Suggestion> chosen)
    {
        var here = HalfDay(opening);
        var isFirstOfDay = !chosen.Exists(other => HalfDay(other.Opening).Date == here.Date);
        var isFirstOfHalf = !chosen.Exists(other => HalfDay(other.Opening) == here);
        Praise[] spread =
        [
            new(SuggestedFor.AnotherDay, isFirstOfDay ? _weights.AnotherDay : 0),
            new(SuggestedFor.AnotherHalfDay, isFirstOfHalf ? _weights.AnotherHalfDay : 0),
        ];
        var all = alone.Concat(spread).ToList();
        // The first one chosen is the first of its day in any case; that is no merit to tell.
        var told = all.Where(praise => praise.Points > 0 && (chosen.Count > 0 || !spread.Contains(praise)));
        return new Suggestion(
            opening,
            [.. told.OrderByDescending(praise => praise.Points)],
            all.Sum(praise => praise.Points)
        );
    }

    private (LocalDate Date, bool Afternoon) HalfDay(Opening opening)
    {
        var local = opening.Start.InZone(_input.Page.Zone).LocalDateTime;
        return (local.Date, local.Hour >= 12);
    }

    /// <summary>Of the hosts of a seat who have nothing then, the one for whom the time is best.</summary>
    private (double Near, double Clean, string? Host, Span? Neighbour) BestOfSeat(List<TakenTime> seat, Span time)
    {
        var best = (Near: 0.0, Clean: 0.0, Host: (string?)null, Neighbour: (Span?)null);
        foreach (var host in seat)
        {
            if (host.Around(time) is not var (before, after))
                continue;
            var (gapBefore, gapAfter) = host.Gaps(time, before, after);
            var clean =
                (IsCrumb(gapBefore, _input.Page.BufferBefore) ? 0 : 0.5)
                + (IsCrumb(gapAfter, _input.Page.BufferAfter) ? 0 : 0.5);
            var (distance, neighbour) = Nearest(time, before, after);
            var near = neighbour is null ? 0 : Math.Max(0, 1 - distance / NearWithin);
            if (best.Host is null || near + clean > best.Near + best.Clean)
                best = (near, clean, host.Host, near > 0 ? neighbour : null);
        }

        return best;
    }

    /// <summary>
    /// Time that is left over, more than the buffer that has to be there and less than another appointment takes.
    /// </summary>
    private bool IsCrumb(Duration? gap, int buffer) =>
        gap is { } left && left > Duration.FromMinutes(buffer) && left < _usable;

    private static (Duration Distance, Span? Neighbour) Nearest(Span time, Span? before, Span? after)
    {
        Duration? back = before is { } earlier ? time.Start - earlier.End : null;
        Duration? ahead = after is { } later ? later.Start - time.End : null;
        if (back is null && ahead is null)
            return (Duration.Zero, null);
        return ahead is null || (back is not null && back <= ahead) ? (back!.Value, before) : (ahead.Value, after);
    }

    private static double Decency(Span time, DateTimeZone zone)
    {
        var start = time.Start.InZone(zone).TimeOfDay;
        var from = start.Hour * 60 + start.Minute;
        var to = from + (int)time.Length.TotalMinutes;
        var beyond = Math.Max(Math.Max(0, DecentFrom - from), Math.Max(0, to - DecentTo));
        return Math.Max(0, 1 - (double)beyond / BearableBeyond);
    }
}
