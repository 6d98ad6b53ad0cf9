using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>Rules 2 to 5: what is asked of the page alone, whoever the hosts are.</summary>
internal sealed class PageOffer
{
    private readonly OpeningsInput _input;
    private readonly PageRules _page;
    private readonly Instant _earliest;
    private readonly LocalDate _firstDate;
    private readonly LocalDate _lastDate;
    private readonly StretchIndex? _painted;
    private readonly HashSet<Instant>? _exact;
    private readonly CapCount? _caps;
    private readonly HashSet<Span> _promised;

    public PageOffer(OpeningsInput input)
    {
        _input = input;
        _page = input.Page;
        _earliest = input.Now + Duration.FromMinutes(_page.Notice);

        (_firstDate, _lastDate) = _page.Window.Within(input.From, input.To, input.Now.InZone(_page.Zone).Date);

        if (_page.Only is OnlyTimes.Painted painted) _painted = StretchIndex.OfPainted(painted.Spans);
        if (_page.Only is OnlyTimes.Exact exact) _exact = [.. exact.Starts];

        if (_page.DailyCap is not null || _page.WeeklyCap is not null)
        {
            _caps = new CapCount(
                _page.Zone, _page.DailyCap, _page.WeeklyCap,
                _page.Sessions.Where(session => session.Id != input.Moving).Select(session => (session.Id, session.Start)));
        }

        _promised = input.Hosts
            .SelectMany(host => host.Commitments)
            .Where(commitment => commitment.Kind == CommitmentKind.Hold && input.AsHolder is { } holder && commitment.Holder == holder)
            .Select(commitment => new Span(commitment.Start, commitment.End))
            .ToHashSet();
    }

    /// <summary>Rule 4 by painted spans, which also stand in for hours on the grid; null where the page has none.</summary>
    public StretchIndex? Painted => _painted;

    public bool IsPromised(Span time) => _promised.Contains(time);

    /// <summary>Rules 2, 3 and, where `only` is set, 4: all that is asked of a session that already stands (rule 11).</summary>
    public bool OffersStanding(Span time) => Notice(time) && Window(time) && Only(time);

    /// <summary>Rules 2 to 5, for a session that would be new.</summary>
    public bool OffersNew(Span time) => OffersStanding(time) && Caps(time);

    private bool Notice(Span time) => time.Start >= _earliest;

    private bool Window(Span time)
    {
        var date = time.Start.InZone(_page.Zone).Date;
        return _firstDate <= date && date <= _lastDate;
    }

    private bool Only(Span time)
    {
        if (_painted is not null) return _painted.Containing(time.Start) is { } stretch && stretch.Time.Contains(time);
        return _exact is null || _exact.Contains(time.Start);
    }

    private bool Caps(Span time) => _caps is null || IsPromised(time) || _caps.HasRoom(time.Start);
}
