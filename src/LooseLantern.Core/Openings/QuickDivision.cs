using System.Runtime.CompilerServices;

namespace LooseLantern.Core.Openings;

/// <summary>
/// Divides by one number again and again, rounding down, by a product with its inverse; exact for all below 2^63
/// (Granlund and Montgomery, Division by invariant integers using multiplication, 1994).
/// </summary>
internal readonly struct QuickDivision
{
    private readonly ulong _inverse;
    private readonly int _shift;

    /// <param name="by">From 2.</param>
    public QuickDivision(long by)
    {
        // With 64 + shift bits behind the point, the inverse is the largest that fits a word, rounded up: it is off by
        // less than 2^-64 - shift, times a number below 2^63 by less than the step from one quotient to the next.
        _shift = 63 - (int)ulong.LeadingZeroCount((ulong)by - 1);
        _inverse = (ulong)(((UInt128.One << (64 + _shift)) + (UInt128)by - 1) / (UInt128)by);
    }

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    public ulong Of(ulong number) => Math.BigMul(number, _inverse, out _) >> _shift;
}
