using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>Rules 6 to 9 (and 1 where the grid is counted from open stretches), for one host.</summary>
internal sealed class HostTime
{
    private readonly OpeningsInput _input;
    private readonly StretchIndex? _stretches;
    private readonly Duration _step;
    private readonly bool _asksHours;
    private readonly bool _gridByHost;
    private readonly ForbiddenStarts _taken;
    private readonly CapCount? _caps;
    private readonly HashSet<Span> _promised;

    /// <param name="stretches">Where the host is open; null where `only` with exact starts takes the place of hours and grid.</param>
    public HostTime(OpeningsInput input, HostFacts host, StretchIndex? stretches, bool asksHours)
    {
        _input = input;
        _stretches = stretches;
        _asksHours = asksHours;
        _step = Duration.FromMinutes(input.Page.Step);
        _gridByHost = input.Page.StepFrom == StepFrom.Open && stretches is not null;

        var blocking = host.Commitments.Where(commitment => commitment.End > commitment.Start && !IsOutOfTheWay(commitment)).ToList();
        _taken = new ForbiddenStarts(Forbidden(host, blocking));

        if (host.DailyCap is not null || host.WeeklyCap is not null)
        {
            var bookings = blocking.Where(commitment => commitment.Kind == CommitmentKind.Booking);
            _caps = new CapCount(host.Zone, host.DailyCap, host.WeeklyCap, bookings.Select(booking => (booking.Holder, booking.Start)));
        }

        _promised = host.Commitments
            .Where(commitment => commitment.Kind == CommitmentKind.Hold && input.AsHolder is { } holder && commitment.Holder == holder)
            .Select(commitment => new Span(commitment.Start, commitment.End))
            .ToHashSet();
    }

    /// <summary>Whether the host can take [start, start + duration). Cheap to ask in any order of starts.</summary>
    public bool CanTake(Span time) =>
        Hours(time) && Grid(time.Start) && !_taken.Contains(time.Start)
        && (_caps is null || _promised.Contains(time) || _caps.HasRoom(time.Start));

    private bool Hours(Span time) =>
        !_asksHours || _stretches is null || (_stretches.Containing(time.Start) is { } stretch && stretch.Time.Contains(time));

    private bool Grid(Instant start)
    {
        if (!_gridByHost) return true;
        if (_stretches!.Containing(start) is not { } stretch) return false;
        return !stretch.HasStart || (start - stretch.Time.Start).BclCompatibleTicks % _step.BclCompatibleTicks == 0;
    }

    private bool IsOutOfTheWay(Commitment commitment) => commitment.Kind switch
    {
        CommitmentKind.Hold => _input.AsHolder is { } holder && commitment.Holder == holder,
        _ => _input.Moving is { } session && commitment.Holder == session,
    };

    /// <summary>
    /// Rules 7 and 8 turned round: for each span that is taken, the open run of starts that would run into it.
    /// [s - before, s + d + after) meets [a, b) exactly where a - d - after &lt; s &lt; b + before.
    /// </summary>
    private IEnumerable<Span> Forbidden(HostFacts host, IEnumerable<Commitment> blocking)
    {
        var page = _input.Page;
        var duration = Duration.FromMinutes(_input.Duration);
        var before = Duration.FromMinutes(page.BufferBefore);
        var after = Duration.FromMinutes(page.BufferAfter);

        if (!host.IgnoresCalendars)
        {
            foreach (var busy in host.Busy.Where(busy => !busy.IsEmpty))
                yield return new Span(busy.Start - duration - after, busy.End + before);
        }

        foreach (var commitment in blocking)
        {
            yield return new Span(commitment.Start - duration - after, commitment.End + before);
            yield return new Span(
                commitment.Start - Duration.FromMinutes(commitment.BufferBefore) - duration,
                commitment.End + Duration.FromMinutes(commitment.BufferAfter));
        }
    }
}
