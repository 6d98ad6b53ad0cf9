using LooseLantern.Core.Hours;
using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.Reasons;

/// <summary>
/// Rules 6 to 9 (and 1 where the grid is counted from open stretches), of one host and one appointment, each with what
/// fails it.
/// </summary>
internal sealed class HostReasons
{
    private readonly OpeningsInput _input;
    private readonly PageRules _page;
    private readonly HostFacts _host;
    private readonly Span _time;
    private readonly Span _wide;

    public HostReasons(OpeningsInput input, HostFacts host, Span time)
    {
        (_input, _page, _host, _time) = (input, input.Page, host, time);
        _wide = new Span(
            time.Start - Duration.FromMinutes(_page.BufferBefore),
            time.End + Duration.FromMinutes(_page.BufferAfter)
        );
        var stretches = _page.Only switch
        {
            OnlyTimes.Painted painted => StretchIndex.OfPainted(painted.Spans),
            OnlyTimes.Exact => null,
            _ => StretchIndex.OfHours(_page, host.Hours, time),
        };
        Stretch = stretches?.Containing(time.Start);
        All = [.. Grid(), .. Hours(), .. Calendars(), .. Commitments(), .. Caps()];
    }

    /// <summary>
    /// The open (or painted) stretch that contains the start; null where there is none, or none is asked for.
    /// </summary>
    public OpenStretch? Stretch { get; }

    /// <summary>
    /// All that this host lacks; empty for one who can take the appointment. Without the page's own hours, which are
    /// cited once.
    /// </summary>
    public IReadOnlyList<Reason> All { get; }

    private IEnumerable<Reason> Grid()
    {
        // Painted spans and a page's own hours give every host the same stretch; that reason is the page's.
        if (_page.StepFrom != StepFrom.Open || _page.Only is not null || _page.HoursMode == HoursMode.Page)
            yield break;
        if (Stretch is { HasStart: true } stretch && !StartGrid.IsOnGridOf(stretch.Time.Start, _time.Start, _page.Step))
            yield return Fails(Rule.Grid) with
            {
                Span = stretch.Time,
            };
    }

    private IEnumerable<Reason> Hours()
    {
        if (_page.Only is not null || _page.HoursMode == HoursMode.Page || _host.Hours is null)
            yield break;
        var own = StretchIndex.OfHours(_page with { HoursMode = HoursMode.Hosts }, _host.Hours, _time);
        if (ClosedTime.FirstWithin(_time, own) is { } closed)
            yield return Fails(Rule.Hours) with
            {
                Span = closed,
            };
    }

    private IEnumerable<Reason> Calendars() =>
        _host.IgnoresCalendars
            ? []
            : _host
                .Busy.Select((busy, i) => (busy, source: _host.BusySources?[i]))
                .Where(pair => !pair.busy.IsEmpty && pair.busy.Meets(_wide))
                .Distinct()
                .OrderBy(pair => pair.busy.Start)
                .ThenBy(pair => pair.busy.End)
                .ThenBy(pair => pair.source?.Calendar, StringComparer.Ordinal)
                .ThenBy(pair => pair.source?.Title, StringComparer.Ordinal)
                .Select(pair => Fails(Rule.Calendars) with { Span = pair.busy, Source = pair.source });

    private IEnumerable<Reason> Commitments() =>
        HostStarts
            .Blocking(_input, _host)
            .Where(commitment =>
                new Span(commitment.Start, commitment.End).Meets(_wide)
                || _time.Meets(
                    new Span(
                        commitment.Start - Duration.FromMinutes(commitment.BufferBefore),
                        commitment.End + Duration.FromMinutes(commitment.BufferAfter)
                    )
                )
            )
            .Distinct()
            .OrderBy(commitment => commitment.Start)
            .ThenBy(commitment => commitment.End)
            .ThenBy(commitment => commitment.Holder, StringComparer.Ordinal)
            .Select(commitment =>
                Fails(Rule.Commitments) with
                {
                    Span = new Span(commitment.Start, commitment.End),
                    Commitment = commitment,
                }
            );

    private IEnumerable<Reason> Caps()
    {
        if (_host.DailyCap is null && _host.WeeklyCap is null)
            return [];
        if (HostStarts.Promised(_input, _host).Contains(_time))
            return [];
        var date = _time.Start.InZone(_host.Zone).Date;
        return HostStarts
            .Caps(_input, _host)
            .Reached(date)
            .Select(cap =>
                Fails(Rule.HostCaps) with
                {
                    Cap = cap,
                    Span = ReasonsComputation.SpanOf(cap.Period, date, _host.Zone),
                }
            );
    }

    private Reason Fails(Rule rule) => new(rule) { Host = _host.Id };
}
