using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// Rules 6 to 9 (and 1 where the grid is counted from open stretches): the starts that single hosts can take.
/// </summary>
internal sealed class HostStarts
{
    private readonly OpeningsInput _input;
    private readonly StartAxis _axis;
    private readonly long _duration;
    private readonly long _before;
    private readonly long _after;
    private readonly Dictionary<StretchIndex, StartSet> _open = [];
    private readonly Dictionary<DateTimeZone, List<DateRun>> _dates = [];

    public HostStarts(OpeningsInput input, StartAxis axis)
    {
        (_input, _axis) = (input, axis);
        _duration = Ticks(input.Duration);
        _before = Ticks(input.Page.BufferBefore);
        _after = Ticks(input.Page.BufferAfter);
    }

    /// <param name="stretches">Where the host is open; null where `only` takes the place of hours.</param>
    public StartSet Of(HostFacts host, StretchIndex? stretches)
    {
        var starts = stretches is null ? StartSet.All(_axis.Count) : Open(stretches).Copy();
        if (!host.IgnoresCalendars)
            RemoveBusy(starts, host.Busy);
        RemoveCommitments(starts, host);
        if (host.DailyCap is not null || host.WeeklyCap is not null)
            RemoveCapped(starts, host);
        return starts;
    }

    /// <summary>
    /// The commitments that stand in the way: not empty, not the asking holder's own holds, not what is being moved.
    /// </summary>
    public static IEnumerable<Commitment> Blocking(OpeningsInput input, HostFacts host) =>
        host.Commitments.Where(commitment =>
            commitment.End > commitment.Start
            && !(
                commitment.Kind == CommitmentKind.Hold
                    ? input.AsHolder is { } holder && commitment.Holder == holder
                    : input.Moving is { } session && commitment.Holder == session
            )
        );

    /// <summary>What the asking holder holds on a host: rules 5 and 9 are not asked of exactly that time.</summary>
    public static IEnumerable<Span> Promised(OpeningsInput input, HostFacts host) =>
        input.AsHolder is not { } holder
            ? []
            : host
                .Commitments.Where(commitment => commitment.Kind == CommitmentKind.Hold && commitment.Holder == holder)
                .Select(commitment => new Span(commitment.Start, commitment.End));

    public static CapCount Caps(OpeningsInput input, HostFacts host) =>
        new(
            host.Zone,
            host.DailyCap,
            host.WeeklyCap,
            Blocking(input, host)
                .Where(commitment => commitment.Kind == CommitmentKind.Booking)
                .Select(booking => (booking.Holder, booking.Start))
        );

    private StartSet Open(StretchIndex stretches)
    {
        // Hosts who share their hours share the answer.
        if (_open.TryGetValue(stretches, out var known))
            return known;
        long? step = _input.Page.StepFrom == StepFrom.Open ? Ticks(_input.Page.Step) : null;
        return _open[stretches] = StretchStarts.Of(stretches, _axis, _duration, step);
    }

    /// <summary>
    /// Rule 7 turned round: [s - before, s + d + after) meets [a, b) exactly where a - d - after &lt; s &lt; b +
    /// before. Neither bound is in it, so an appointment may fit to the minute between two others.
    /// </summary>
    private void RemoveBusy(StartSet starts, IReadOnlyList<Span> busy)
    {
        var (lead, trail) = (_duration + _after, _before);
        foreach (ref readonly var span in busy is Span[] array ? array : busy.ToArray().AsSpan())
        {
            var (start, end) = (span.Start.ToUnixTimeTicks(), span.End.ToUnixTimeTicks());
            if (start < end)
                Remove(starts, start - lead, end + trail);
        }
    }

    /// <summary>
    /// Rule 8: the page's buffers around the appointment against the commitment, and the appointment against the
    /// commitment's own buffers.
    /// </summary>
    private void RemoveCommitments(StartSet starts, HostFacts host)
    {
        foreach (var commitment in Blocking(_input, host))
        {
            var (start, end) = (commitment.Start.ToUnixTimeTicks(), commitment.End.ToUnixTimeTicks());
            Remove(starts, start - _duration - _after, end + _before);
            Remove(starts, start - Ticks(commitment.BufferBefore) - _duration, end + Ticks(commitment.BufferAfter));
        }
    }

    private void RemoveCapped(StartSet starts, HostFacts host)
    {
        var caps = Caps(_input, host);
        if (!_dates.TryGetValue(host.Zone, out var dates))
            dates = _dates[host.Zone] = DateRun.Of(_axis, host.Zone);
        var kept = PositionsOf(
            Promised(_input, host).Where(time => time.Length == Duration.FromMinutes(_input.Duration)),
            starts
        );
        foreach (var run in dates)
        {
            if (!caps.HasRoom(run.Date))
                starts.Remove(run.From, run.To);
        }

        foreach (var position in kept)
            starts.Add(position);
    }

    private List<int> PositionsOf(IEnumerable<Span> times, StartSet among) =>
        [
            .. times
                .Select(time => _axis.Find(time.Start.ToUnixTimeTicks()))
                .Where(position => position >= 0 && among.Contains(position)),
        ];

    private void Remove(StartSet starts, long after, long before)
    {
        if (before > after)
            starts.Remove(_axis.FirstAfter(after), _axis.FirstAtOrAfter(before));
    }

    private static long Ticks(int minutes) => minutes * NodaConstants.TicksPerMinute;
}
