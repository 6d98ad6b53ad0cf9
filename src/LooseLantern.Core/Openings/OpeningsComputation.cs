using LooseLantern.Core.LineUps;
using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// Which starts a guest can reserve. Pure: the same input gives the same openings on any machine; no clock, no database, no zone of its own.
/// The rules and their numbers are written down in docs/openings.md.
/// </summary>
public sealed class OpeningsComputation
{
    private readonly OpeningsInput _input;
    private readonly PageRules _page;
    private readonly Duration _duration;
    private readonly PageOffer _offer;
    private readonly HostTime[] _hosts;
    private readonly StretchIndex[] _stretches;
    private readonly int[][] _seats;

    private OpeningsComputation(OpeningsInput input)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(input.Duration, 1, nameof(input));
        ArgumentOutOfRangeException.ThrowIfLessThan(input.Page.Step, 1, nameof(input));
        ArgumentOutOfRangeException.ThrowIfLessThan(input.To, input.From, nameof(input));

        _input = input;
        _page = input.Page;
        _duration = Duration.FromMinutes(input.Duration);
        _offer = new PageOffer(input);

        var range = DateRange.Around(_page.Zone, input.From, input.To);
        range = range with { End = range.End + _duration };
        var index = input.Hosts.Select((host, position) => (host.Id, position)).ToDictionary(pair => pair.Id, pair => pair.position);
        _stretches = input.Hosts
            .Select(host => _offer.Painted ?? StretchIndex.OfHours(_page, host.Hours, range))
            .ToArray();
        _hosts = input.Hosts
            .Select((host, i) => new HostTime(input, host, _page.Only is OnlyTimes.Exact ? null : _stretches[i], asksHours: _page.Only is null))
            .ToArray();
        _seats = _page.LineUp.Select(seat => seat.AnyOf.Select(id => index[id]).ToArray()).ToArray();
    }

    /// <summary>The openings of <paramref name="input"/>, by start, one for a start.</summary>
    /// <exception cref="ArgumentException">When the input is not complete or in itself wrong (duration or step under 1, From after To).</exception>
    public static IReadOnlyList<Opening> Openings(OpeningsInput input) => new OpeningsComputation(input).Compute();

    /// <summary>
    /// Hosts that can take the opening at <paramref name="start"/>, one for each seat, or null where it is none (rules 1 to 10).
    /// </summary>
    public static IReadOnlyList<string>? HostsFor(OpeningsInput input, Instant start)
    {
        var computation = new OpeningsComputation(input);
        var time = new Span(start, start + computation._duration);
        if (!computation.Candidates().Contains(start) || !computation._offer.OffersNew(time)) return null;
        return computation.LineUpFor(time)?.Select(host => input.Hosts[host].Id).ToList();
    }

    private List<Opening> Compute()
    {
        var openings = new SortedDictionary<Instant, Opening>();
        foreach (var (start, placesLeft) in StandingSessionsWithRoom())
            openings[start] = new Opening(start, start + _duration, placesLeft);

        foreach (var start in Candidates())
        {
            var time = new Span(start, start + _duration);
            if (openings.ContainsKey(start) || !_offer.OffersNew(time) || LineUpFor(time) is null) continue;
            openings[start] = new Opening(time.Start, time.End, _page.Places);
        }

        return [.. openings.Values];
    }

    private IEnumerable<Instant> Candidates()
    {
        if (_page.Only is OnlyTimes.Exact exact) return exact.Starts;
        if (_page.StepFrom == StepFrom.Clock) return StartGrid.ByClock(_input, _page.StepOffset);
        var hostsOfTheLineUp = _seats.SelectMany(seat => seat).Distinct().Select(host => _stretches[host]).Distinct().ToList();
        return StartGrid.FromOpenStretches(_input, hostsOfTheLineUp);
    }

    private int[]? LineUpFor(Span time)
    {
        // Each host is asked at most once for a start, however many seats it is eligible for.
        var asked = new sbyte[_hosts.Length];
        return LineUp.Fill(_seats, host =>
        {
            if (asked[host] == 0) asked[host] = _hosts[host].CanTake(time) ? (sbyte)1 : (sbyte)-1;
            return asked[host] > 0;
        });
    }

    /// <summary>Rule 11: by start, the fewest places left among the sessions that still have room.</summary>
    private IEnumerable<(Instant Start, int PlacesLeft)> StandingSessionsWithRoom() => _page.Places == 1 ? [] : _page.Sessions
        .Where(session => session.Id != _input.Moving && session.Guests < _page.Places && session.End - session.Start == _duration)
        .Where(session => _offer.OffersStanding(new Span(session.Start, session.End)))
        .GroupBy(session => session.Start)
        .Select(sharing => (sharing.Key, sharing.Min(session => _page.Places - session.Guests)));
}
