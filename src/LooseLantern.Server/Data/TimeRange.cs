using LooseLantern.Core;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Data;

/// <summary>Spans as PostgreSQL's tstzrange, half-open as everywhere.</summary>
public static class TimeRange
{
    public static NpgsqlRange<Instant> ToRange(this Span span) =>
        new(span.Start, lowerBoundIsInclusive: true, span.End, upperBoundIsInclusive: false);

    public static Span ToSpan(this NpgsqlRange<Instant> range) =>
        range.IsEmpty ? default : new Span(range.LowerBound, range.UpperBound);
}
