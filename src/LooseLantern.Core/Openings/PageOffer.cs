using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>Rules 2 to 5: what is asked of the page alone, whoever the hosts are.</summary>
internal sealed class PageOffer
{
    private readonly OpeningsInput _input;
    private readonly PageRules _page;
    private readonly Duration _duration;
    private readonly Instant _earliest;

    public PageOffer(OpeningsInput input)
    {
        _input = input;
        _page = input.Page;
        _duration = Duration.FromMinutes(input.Duration);
        _earliest = input.Now + Duration.FromMinutes(_page.Notice);
        (FirstDate, LastDate) = _page.Window.Within(input.From, input.To, input.Now.InZone(_page.Zone).Date);
        if (_page.Only is OnlyTimes.Painted painted)
            Painted = StretchIndex.OfPainted(painted.Spans);
    }

    /// <summary>
    /// The dates that the window and the request have in common; the first is after the last where there are none.
    /// </summary>
    public LocalDate FirstDate { get; }

    public LocalDate LastDate { get; }

    /// <summary>
    /// Rule 4 by painted spans, which also stand in for hours on the grid; null where the page has none.
    /// </summary>
    public StretchIndex? Painted { get; }

    /// <summary>
    /// Rules 2, 3 and, where `only` is set, 4: all that is asked of a session that already stands (rule 11).
    /// </summary>
    public bool OffersSession(Span time)
    {
        var date = time.Start.InZone(_page.Zone).Date;
        return time.Start >= _earliest
            && FirstDate <= date
            && date <= LastDate
            && _page.Only switch
            {
                OnlyTimes.Painted => Painted!.Containing(time.Start) is { } stretch && stretch.Time.Contains(time),
                OnlyTimes.Exact exact => exact.Starts.Contains(time.Start),
                _ => true,
            };
    }

    /// <summary>
    /// Rules 2 to 5, for sessions that would be new. With painted spans also rule 1 where the grid is counted from
    /// them.
    /// </summary>
    /// <param name="starts">Empty; what is offered is added.</param>
    /// <param name="axis">With exact starts, no others than those.</param>
    public void AddNewStarts(StartSet starts, StartAxis axis)
    {
        var caps = Caps(_input);
        var promised = caps is null
            ? null
            : new HashSet<Span>(_input.Hosts.SelectMany(host => Promises.Of(_input, host)));
        foreach (var run in DateRun.Of(axis, _page.Zone))
        {
            if (run.Date < FirstDate || run.Date > LastDate)
                continue;
            if (caps is null || caps.HasRoom(run.Date))
                starts.Add(run.From, run.To);
            else
                AddPromised(starts, axis, run, promised!);
        }

        starts.Remove(0, axis.FirstAtOrAfter(Ceiling(_earliest)));
        if (Painted is not null)
        {
            starts.IntersectWith(StretchStarts.Of(Painted, axis, _input.Duration * NodaConstants.TicksPerMinute));
            if (_page.StepFrom == StepFrom.Open)
                StartGrid.KeepOnGridOf(starts, axis, Painted, _page.Step);
        }
    }

    /// <summary>The page's own caps; null where it has none.</summary>
    public static CapCount? Caps(OpeningsInput input)
    {
        var page = input.Page;
        if (page.DailyCap is null && page.WeeklyCap is null)
            return null;
        return new CapCount(
            page.Zone,
            page.DailyCap,
            page.WeeklyCap,
            page.Sessions.Where(session => session.Id != input.Moving).Select(session => (session.Id, session.Start))
        );
    }

    private void AddPromised(StartSet starts, StartAxis axis, DateRun run, HashSet<Span> promised)
    {
        for (var position = run.From; position < run.To; position++)
        {
            var start = Instant.FromUnixTimeTicks(axis[position]);
            if (promised.Contains(new Span(start, start + _duration)))
                starts.Add(position);
        }
    }

    /// <summary>
    /// Notice counts from now, which may be finer than a tick; a start a fraction of a tick too early is too early.
    /// </summary>
    private static long Ceiling(Instant instant)
    {
        var ticks = instant.ToUnixTimeTicks();
        return Instant.FromUnixTimeTicks(ticks) < instant ? ticks + 1 : ticks;
    }
}
