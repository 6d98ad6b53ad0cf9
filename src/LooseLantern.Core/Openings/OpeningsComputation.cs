using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings.HostRules;
using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// Which starts a guest can reserve. Pure: the same input gives the same openings on any machine; no clock, no
/// database, no zone of its own. The rules and their numbers are written down in docs/openings.md. All starts of the
/// grid are put on one axis; each rule takes runs of them out, as bits.
/// </summary>
public sealed class OpeningsComputation
{
    private readonly OpeningsInput _input;
    private readonly PageRules _page;
    private readonly Duration _duration;
    private readonly PageOffer _offer;

    private OpeningsComputation(OpeningsInput input)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(input.Duration, 1, nameof(input));
        ArgumentOutOfRangeException.ThrowIfLessThan(input.Page.Step, 1, nameof(input));
        ArgumentOutOfRangeException.ThrowIfLessThan(input.Party, 1, nameof(input));
        ArgumentOutOfRangeException.ThrowIfLessThan(input.To, input.From, nameof(input));
        _input = input;
        _page = input.Page;
        _duration = Duration.FromMinutes(input.Duration);
        _offer = new PageOffer(input);
    }

    /// <summary>The openings of <paramref name="input"/>, by start, one for a start.</summary>
    /// <exception cref="ArgumentException">When the input is not complete or in itself wrong (duration, step or party
    /// under 1, From after To).</exception>
    public static IReadOnlyList<Opening> Openings(OpeningsInput input) => new OpeningsComputation(input).Compute();

    /// <summary>
    /// The hosts who could take a new session at <paramref name="start"/> (rules 6 to 9, and 1 where it is asked by
    /// host), whatever the seats; null where the page itself offers no new session then (rules 1 to 5, and 11 for a
    /// party that is too large).
    /// </summary>
    public static IReadOnlySet<string>? HostsFreeAt(OpeningsInput input, Instant start)
    {
        var computation = new OpeningsComputation(input);
        if (computation._offer.FirstDate > computation._offer.LastDate || !computation.FitsANewSession)
            return null;
        var hosts = computation.LineUpHosts();
        var stretches = computation.Stretches(hosts, new Span(start, start + computation._duration));
        if (!computation.OnGrid(start, stretches))
            return null;
        var axis = new StartAxis([start.ToUnixTimeTicks()]);
        if (!computation._offer.NewStarts(axis).Contains(0))
            return null;
        var free = computation.HostsOn(axis, hosts, stretches);
        return hosts.Where((_, host) => free[host].Contains(0)).Select(host => host.Id).ToHashSet();
    }

    /// <summary>
    /// The session that a guest joins who takes the opening at <paramref name="start"/> of a group page (rule 11): of
    /// those with room the one with the fewest places left, then the first by id. Null where none has room, so that a
    /// new session would have to be made.
    /// </summary>
    public static string? SessionToJoin(OpeningsInput input, Instant start) =>
        new OpeningsComputation(input)
            .SessionsWithRoom()
            .Where(session => session.Start == start)
            .OrderByDescending(session => session.Guests)
            .ThenBy(session => session.Id, StringComparer.Ordinal)
            .FirstOrDefault()
            ?.Id;

    /// <summary>Who would not fit into an empty session fits into no other.</summary>
    private bool FitsANewSession => _input.Party <= _page.Places;

    private List<Opening> Compute()
    {
        if (_offer.FirstDate > _offer.LastDate || !FitsANewSession)
            return [];
        var hosts = LineUpHosts();
        var range = DateRange.Around(_page.Zone, _offer.FirstDate, _offer.LastDate);
        var stretches = Stretches(hosts, range with { End = range.End + _duration });
        var axis = new StartAxis(Starts(stretches));

        var starts = _offer.NewStarts(axis);
        var index = hosts
            .Select((host, position) => (host.Id, position))
            .ToDictionary(pair => pair.Id, pair => pair.position);
        var seats = _page.LineUp.Select(seat => seat.AnyOf.Select(id => index[id]).Distinct().ToArray()).ToArray();
        LineUpStarts.KeepFillable(seats, HostsOn(axis, hosts, stretches), starts);

        return WithSessions(starts, axis);
    }

    /// <summary>The hosts of the line-up, each once, in the order of the input.</summary>
    private HostFacts[] LineUpHosts()
    {
        var ids = _page.LineUp.SelectMany(seat => seat.AnyOf).ToHashSet();
        return [.. _input.Hosts.Where(host => ids.Contains(host.Id))];
    }

    /// <summary>
    /// Where each host is open (rule 6); with `only`, which takes the place of hours, painted stretches for the grid or
    /// nothing.
    /// </summary>
    private StretchIndex?[] Stretches(HostFacts[] hosts, Span range)
    {
        if (_page.Only is not null)
            return [.. hosts.Select(_ => _offer.Painted)];
        var byHours = new Dictionary<object, StretchIndex>(ReferenceEqualityComparer.Instance);
        return
        [
            .. hosts.Select(host =>
            {
                var key = _page.HoursMode == HoursMode.Page || host.Hours is null ? this : (object)host.Hours;
                if (!byHours.TryGetValue(key, out var stretches))
                    stretches = byHours[key] = StretchIndex.OfHours(_page, host.Hours, range);
                return stretches;
            }),
        ];
    }

    private long[] Starts(StretchIndex?[] stretches)
    {
        if (_page.Only is OnlyTimes.Exact exact)
            return [.. exact.Starts.Select(start => start.ToUnixTimeTicks()).Order().Distinct()];
        if (_page.StepFrom == StepFrom.Clock)
            return [.. StartGrid.ByClock(_page, _offer.FirstDate, _offer.LastDate, _page.StepOffset)];
        return StartGrid.FromOpenStretches(
            _page,
            _offer.FirstDate,
            _offer.LastDate,
            [.. stretches.Select(index => index!).Distinct()]
        );
    }

    /// <summary>Rule 1, of one start, as far as it is asked of the page.</summary>
    private bool OnGrid(Instant start, StretchIndex?[] stretches)
    {
        if (_page.Only is OnlyTimes.Exact exact)
            return exact.Starts.Contains(start);
        if (_page.StepFrom == StepFrom.Clock)
            return StartGrid.IsOnClock(_page, start, _page.StepOffset);
        var around = stretches
            .Select(index => index!.Containing(start))
            .OfType<Hours.OpenStretch>()
            .Where(stretch => stretch.HasStart)
            .ToList();
        return around.Count == 0
            ? StartGrid.IsOnClock(_page, start, stepOffset: 0)
            : around.Exists(stretch => StartGrid.IsOnGridOf(stretch.Time.Start, start, _page.Step));
    }

    private StartSet[] HostsOn(StartAxis axis, HostFacts[] hosts, StretchIndex?[] stretches)
    {
        var byHost = hosts
            .Zip(stretches)
            .ToDictionary(pair => pair.First.Id, pair => _page.Only is null ? pair.Second : null);
        var asked = new StartsAsked(_input, axis, byHost);
        return [.. hosts.Select(host => AllHostRules.Starts(host, asked))];
    }

    /// <summary>
    /// New sessions and those that have room (rule 11), by start; where both share one, the one with room is the
    /// opening.
    /// </summary>
    private List<Opening> WithSessions(StartSet starts, StartAxis axis)
    {
        var openings = new List<Opening>(starts.CountSet());
        var joined = OpeningsToJoin();
        var next = 0;
        foreach (var position in starts.Positions())
        {
            var start = Instant.FromUnixTimeTicks(axis[position]);
            while (next < joined.Count && joined[next].Start < start)
                openings.Add(joined[next++]);
            if (next < joined.Count && joined[next].Start == start)
                continue;
            openings.Add(new Opening(start, start + _duration, _page.Places));
        }

        openings.AddRange(joined[next..]);
        return openings;
    }

    /// <summary>
    /// Rule 11: by start, the one with the fewest places left among the sessions that have room for the party.
    /// </summary>
    private List<Opening> OpeningsToJoin() =>
        [
            .. SessionsWithRoom()
                .GroupBy(session => session.Start)
                .OrderBy(sharing => sharing.Key)
                .Select(sharing => new Opening(
                    sharing.Key,
                    sharing.Key + _duration,
                    sharing.Min(session => _page.Places - session.Guests)
                )),
        ];

    private IEnumerable<SessionFacts> SessionsWithRoom() =>
        _page.Places == 1
            ? []
            : _page
                .Sessions.Where(session =>
                    session.Id != _input.Moving
                    && session.Guests + _input.Party <= _page.Places
                    && session.End - session.Start == _duration
                )
                .Where(session => _offer.OffersSession(new Span(session.Start, session.End)));
}
