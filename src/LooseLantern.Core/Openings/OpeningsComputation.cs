using LooseLantern.Core.Hours;
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
        var offered = StartSet.Empty(axis.Count);
        computation._offer.AddNewStarts(offered, axis);
        if (offered.IsEmpty)
            return null;
        using var memory = ComputationMemory.Take();
        var asked = computation.Asked(axis, memory, stretches);
        return hosts.Where(host => computation.CanTake(host, asked)).Select(host => host.Id).ToHashSet();
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
        var stretches = _page.StepFrom == StepFrom.Open ? Stretches(LineUpHosts(), Range) : null;
        var axis = Axis(stretches);
        using var memory = ComputationMemory.Take();
        var starts = memory.OfPage(axis.Count);
        _offer.AddNewStarts(starts, axis);
        KeepFillable(starts, Asked(axis, memory, stretches), memory);
        return WithSessions(starts, axis);
    }

    /// <summary>All days that are offered, with an appointment that begins on the last.</summary>
    private Span Range
    {
        get
        {
            var range = DateRange.Around(_page.Zone, _offer.FirstDate, _offer.LastDate);
            return range with { End = range.End + _duration };
        }
    }

    /// <summary>Rule 10. Hosts are asked only as far as they are needed.</summary>
    private void KeepFillable(StartSet starts, StartsAsked asked, ComputationMemory memory)
    {
        var seatsOf = memory.SeatsOf(_input.Hosts.Count);
        var counts = memory.Seats;
        var ofHost = memory.OfHost(asked.Axis.Count);
        if (
            !ReadSeats(seatsOf, memory.Hosts)
            || !counts.Begin(seatsOf, _page.LineUp.Count, StartSet.WordsFor(asked.Axis.Count))
        )
        {
            KeepFillableOneByOne(starts, asked);
            return;
        }

        counts.KeepFillable(starts, groups: 0);
        for (var group = 0; group < counts.Groups; group++)
        {
            foreach (var host in counts.HostsOf(group))
            {
                if (!ofHost.BecomeDifference(starts, counts.Enough(group)))
                    break;
                AllHostRules.Keep(ofHost, _input.Hosts[host], asked);
                counts.Add(group, ofHost);
            }

            counts.KeepFillable(starts, group + 1);
        }
    }

    /// <summary>For each host of the input the seats that they fit, a bit each; false where there are more seats than
    /// bits.</summary>
    private bool ReadSeats(Span<ulong> seatsOf, Dictionary<string, int> positions)
    {
        for (var host = 0; host < _input.Hosts.Count; host++)
            positions.Add(_input.Hosts[host].Id, host);
        for (var seat = 0; seat < _page.LineUp.Count; seat++)
        {
            var anyOf = _page.LineUp[seat].AnyOf;
            for (var i = 0; i < anyOf.Count; i++)
                seatsOf[positions[anyOf[i]]] |= 1UL << seat;
        }

        return _page.LineUp.Count <= 64;
    }

    private void KeepFillableOneByOne(StartSet starts, StartsAsked asked)
    {
        var hosts = LineUpHosts();
        var index = hosts
            .Select((host, position) => (host.Id, position))
            .ToDictionary(pair => pair.Id, pair => pair.position);
        var seats = _page.LineUp.Select(seat => seat.AnyOf.Select(id => index[id]).Distinct().ToArray()).ToArray();
        var free = new ulong[hosts.Length][];
        for (var host = 0; host < hosts.Length; host++)
        {
            free[host] = starts.Words.ToArray();
            AllHostRules.Keep(new StartSet(free[host]), hosts[host], asked);
        }

        foreach (var position in starts)
        {
            if (LineUp.Fill(seats, host => new StartSet(free[host]).Contains(position)) is null)
                starts.Remove(position, position + 1);
        }
    }

    private bool CanTake(HostFacts host, StartsAsked asked)
    {
        var starts = StartSet.Empty(asked.Axis.Count);
        starts.Add(0, asked.Axis.Count);
        AllHostRules.Keep(starts, host, asked);
        return !starts.IsEmpty;
    }

    private StartsAsked Asked(StartAxis axis, ComputationMemory memory, Dictionary<string, StretchIndex>? stretches)
    {
        memory.Hours.Begin(axis, StartsAsked.Ticks(_input.Duration));
        return new StartsAsked(_input, axis, memory.Hours, _page.Only is null ? stretches : null);
    }

    /// <summary>The hosts of the line-up, each once, in the order of the input.</summary>
    private HostFacts[] LineUpHosts()
    {
        var ids = _page.LineUp.SelectMany(seat => seat.AnyOf).ToHashSet();
        return [.. _input.Hosts.Where(host => ids.Contains(host.Id))];
    }

    /// <summary>
    /// Where each host is open (rule 6), by id, for a grid that is counted from there; with `only`, which takes the
    /// place of hours, painted stretches or nothing. Null where the grid is the clock's.
    /// </summary>
    private Dictionary<string, StretchIndex>? Stretches(HostFacts[] hosts, Span range)
    {
        if (_page.StepFrom == StepFrom.Clock || _page.Only is OnlyTimes.Exact)
            return null;
        var byHours = new Dictionary<HoursSet, StretchIndex>(SameHours.Comparer);
        var common = _offer.Painted ?? StretchIndex.OfHours(_page, hostHours: null, range);
        return hosts.ToDictionary(
            host => host.Id,
            host =>
            {
                if (_page.Only is not null || _page.HoursMode == HoursMode.Page || host.Hours is null)
                    return common;
                if (!byHours.TryGetValue(host.Hours, out var stretches))
                    stretches = byHours[host.Hours] = StretchIndex.OfHours(_page, host.Hours, range);
                return stretches;
            }
        );
    }

    private StartAxis Axis(Dictionary<string, StretchIndex>? stretches)
    {
        if (_page.Only is OnlyTimes.Exact exact)
            return new StartAxis([.. exact.Starts.Select(start => start.ToUnixTimeTicks()).Order().Distinct()]);
        if (stretches is null)
            return StartAxis.Of(StartGrid.ByClock(_page, _offer.FirstDate, _offer.LastDate, _page.StepOffset));
        return new StartAxis(
            StartGrid.FromOpenStretches(_page, _offer.FirstDate, _offer.LastDate, [.. stretches.Values.Distinct()])
        );
    }

    /// <summary>Rule 1, of one start, as far as it is asked of the page.</summary>
    private bool OnGrid(Instant start, Dictionary<string, StretchIndex>? stretches)
    {
        if (_page.Only is OnlyTimes.Exact exact)
            return exact.Starts.Contains(start);
        if (stretches is null)
            return StartGrid.IsOnClock(_page, start, _page.StepOffset);
        var around = stretches
            .Values.Select(index => index.Containing(start))
            .OfType<OpenStretch>()
            .Where(stretch => stretch.HasStart)
            .ToList();
        return around.Count == 0
            ? StartGrid.IsOnClock(_page, start, stepOffset: 0)
            : around.Exists(stretch => StartGrid.IsOnGridOf(stretch.Time.Start, start, _page.Step));
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
        foreach (var position in starts)
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
