using LooseLantern.Core.Days;
using LooseLantern.Core.Hours;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Openings.HostRules;
using NodaTime;

namespace LooseLantern.Core.Reasons;

/// <summary>
/// Why a time is not offered: each rule asked once more of one start, this time to the end, so that all that stands in
/// the way is named and not only the first of it.
/// </summary>
public sealed class ReasonsComputation
{
    private readonly OpeningsInput _input;
    private readonly PageRules _page;
    private readonly Span _time;
    private readonly LocalDate _date;
    private readonly List<string> _lineUp;
    private readonly AppointmentAsked _asked;
    private readonly Dictionary<string, HostFacts> _facts;
    private readonly Dictionary<string, IReadOnlyList<Reason>> _hosts;

    private ReasonsComputation(OpeningsInput input, Instant start)
    {
        _input = input;
        _page = input.Page;
        _time = new Span(start, start + Duration.FromMinutes(input.Duration));
        _date = start.InZone(_page.Zone).Date;
        _lineUp = [.. _page.LineUp.SelectMany(seat => seat.AnyOf).Distinct()];
        _asked = new AppointmentAsked(input, _time);
        _facts = input.Hosts.Where(host => _lineUp.Contains(host.Id)).ToDictionary(host => host.Id);
        _hosts = _facts.ToDictionary(pair => pair.Key, pair => AllHostRules.Reasons(pair.Value, _asked));
    }

    /// <summary>
    /// Every rule that fails for a start of <paramref name="input"/>'s duration, and the first start after it that
    /// works.
    /// </summary>
    /// <exception cref="ArgumentException">As for <see cref="OpeningsComputation.Openings"/>.</exception>
    public static StartReasons For(OpeningsInput input, Instant start)
    {
        var openings = OpeningsComputation.Openings(input);
        var computation = new ReasonsComputation(input, start);
        var opening = openings.FirstOrDefault(candidate => candidate.Start == start);
        return new StartReasons(
            start,
            computation._time.End,
            opening,
            opening is null ? computation.Failing() : [],
            openings.FirstOrDefault(candidate => candidate.Start > start)
        );
    }

    /// <summary>Every rule that fails for a start, which is no opening.</summary>
    internal static IReadOnlyList<Reason> FailingAt(OpeningsInput input, Instant start) =>
        new ReasonsComputation(input, start).Failing();

    private List<Reason> Failing() =>
        [
            .. ((Reason?[])[Notice(), Window(), Only(), PageHours()])
                .OfType<Reason>()
                .Concat(PageCaps())
                .Concat(Named())
                .Concat(Grid())
                .Concat(LineUp())
                .Concat(FullSessions())
                .OrderBy(reason => reason.Rule),
        ];

    private Reason? Notice()
    {
        var earliest = _input.Now + Duration.FromMinutes(_page.Notice);
        return _time.Start >= earliest ? null : new Reason(Rule.Notice) { Span = new Span(_input.Now, earliest) };
    }

    private Reason? Window()
    {
        var (first, last) = _page.Window.Within(_input.From, _input.To, _input.Now.InZone(_page.Zone).Date);
        if (first <= _date && _date <= last)
            return null;
        return new Reason(Rule.Window) { Span = first <= last ? DaysOf(_page.Zone, first, last) : null };
    }

    private Reason? Only() =>
        _page.Only switch
        {
            OnlyTimes.Painted painted => ClosedTime.FirstWithin(_time, StretchIndex.OfPainted(painted.Spans))
                is { } closed
                ? new Reason(Rule.Only) { Span = closed }
                : null,
            OnlyTimes.Exact exact when !exact.Starts.Contains(_time.Start) => new Reason(Rule.Only),
            _ => null,
        };

    private IEnumerable<Reason> PageCaps()
    {
        if (PageOffer.Caps(_input) is not { } caps)
            return [];
        if (_input.Hosts.Any(host => Promises.Of(_input, host).Contains(_time)))
            return [];
        return caps.Reached(_date)
            .Select(cap => new Reason(Rule.PageCaps) { Cap = cap, Span = SpanOf(cap.Period, _date, _page.Zone) });
    }

    /// <summary>The page's own hours stand for every host, so they are cited once.</summary>
    private Reason? PageHours()
    {
        if (_page.Only is not null || _page.HoursMode == HoursMode.Hosts)
            return null;
        var stretches = StretchIndex.OfHours(_page with { HoursMode = HoursMode.Page }, hostHours: null, _time);
        return ClosedTime.FirstWithin(_time, stretches) is { } closed ? new Reason(Rule.Hours) { Span = closed } : null;
    }

    /// <summary>What those lack without whom no line-up is complete: the hosts who have a seat to themselves.</summary>
    private IEnumerable<Reason> Named() =>
        _page
            .LineUp.Where(seat => seat.AnyOf.Count == 1)
            .Select(seat => seat.AnyOf[0])
            .Distinct()
            .SelectMany(host => _hosts[host]);

    /// <summary>Rule 1, as far as it is asked of the page; what it is asked of named hosts is among theirs.</summary>
    private IEnumerable<Reason> Grid()
    {
        if (_page.Only is OnlyTimes.Exact)
            yield break;
        if (_page.StepFrom == StepFrom.Clock)
        {
            if (!StartGrid.IsOnClock(_page, _time.Start, _page.StepOffset))
                yield return new Reason(Rule.Grid);
            yield break;
        }

        var around = _lineUp.Select(host => _asked.StretchAround(_facts[host])).OfType<OpenStretch>().ToList();
        var counted = around.Where(stretch => stretch.HasStart).ToList();
        var isOn =
            counted.Count > 0
                ? counted.Exists(stretch => StartGrid.IsOnGridOf(stretch.Time.Start, _time.Start, _page.Step))
                : StartGrid.IsOnClock(_page, _time.Start, stepOffset: 0);
        if (around.Count == 0 || isOn || Named().Any(reason => reason.Rule == Rule.Grid))
            yield break;
        yield return new Reason(Rule.Grid) { Span = counted.Count > 0 ? counted[0].Time : null };
    }

    private IEnumerable<Reason> LineUp()
    {
        var unfilled = new List<Reason>();
        var seats = _page.LineUp.Select((seat, position) => (seat.AnyOf, position)).ToList();
        var isNamedMissing = seats.Exists(seat => seat.AnyOf.Count == 1 && !IsFree(seat.AnyOf[0]));
        foreach (
            var alike in seats
                .Where(seat => seat.AnyOf.Count > 1)
                .GroupBy(seat => string.Join('\n', seat.AnyOf.Order(StringComparer.Ordinal)))
        )
        {
            if (alike.First().AnyOf.Any(IsFree))
                continue;
            unfilled.Add(
                new Reason(Rule.LineUp)
                {
                    Seats = [.. alike.Select(seat => seat.position)],
                    Pool = [.. alike.First().AnyOf.Select(host => new HostLacks(host, _hosts[host]))],
                }
            );
        }

        if (unfilled.Count > 0 || isNamedMissing)
            return unfilled;
        var free = seats.Select(seat => (IReadOnlyList<string>)[.. seat.AnyOf.Where(IsFree)]).ToList();
        return SharedSeats.Smallest(free) is { } shared
            ? [new Reason(Rule.LineUp) { Seats = shared.Seats, Shared = shared.Hosts }]
            : [];
    }

    /// <summary>
    /// Sessions of a group page at just this time that have no room for the party; none by name where no session has.
    /// </summary>
    private IEnumerable<Reason> FullSessions() =>
        _input.Party > _page.Places ? [new Reason(Rule.Places)]
        : _page.Places == 1 ? []
        : _page
            .Sessions.Where(session =>
                session.Id != _input.Moving
                && session.Start == _time.Start
                && session.End == _time.End
                && session.Guests + _input.Party > _page.Places
            )
            .OrderBy(session => session.Id, StringComparer.Ordinal)
            .Select(session => new Reason(Rule.Places) { Session = session.Id, Span = _time });

    private bool IsFree(string host) => _hosts[host].Count == 0;

    internal static Span SpanOf(CapPeriod period, LocalDate date, DateTimeZone zone) =>
        period == CapPeriod.Day
            ? DaysOf(zone, date, date)
            : DaysOf(zone, CapCount.MondayOf(date), CapCount.MondayOf(date).PlusDays(6));

    private static Span DaysOf(DateTimeZone zone, LocalDate first, LocalDate last) =>
        new(LocalDays.Start(zone, first), LocalDays.Start(zone, last.PlusDays(1)));
}
