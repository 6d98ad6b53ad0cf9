using NodaTime;
using NodaTime.TimeZones;

namespace LooseLantern.Core.Days;

/// <summary>
/// A part of a range in which wall clock and instants differ by one offset; all in ticks, [Start, End).
/// </summary>
internal readonly record struct ZonePart(long Start, long End, long Offset);

/// <summary>
/// The parts of a range between the clock changes of a zone, in order of time; they leave nothing out.
/// </summary>
internal struct ZoneParts(DateTimeZone zone, Core.Span range)
{
    private Instant _next = range.Start;

    public ZonePart Current { get; private set; }

    public readonly ZoneParts GetEnumerator() => this;

    public bool MoveNext()
    {
        if (_next >= range.End)
            return false;
        ZoneInterval interval = zone.GetZoneInterval(_next);
        var end = interval.HasEnd ? Instant.Min(interval.End, range.End) : range.End;
        Current = new ZonePart(_next.ToUnixTimeTicks(), end.ToUnixTimeTicks(), interval.WallOffset.Ticks);
        _next = end;
        return true;
    }
}
