using System.Runtime.CompilerServices;
using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// The starts that are asked about, in order of time, each once. Rules are answered as runs of positions on it. Times
/// are ticks of 100 ns since the Unix epoch (<see cref="NodaTime.Instant.ToUnixTimeTicks"/>); parts finer than a tick
/// are cut off. Most grids are even from end to end, clock changes and all; positions on those are only reckoned.
/// </summary>
internal sealed class StartAxis
{
    // No starts where the axis is even.
    private readonly long[] _starts;
    private readonly EvenStarts _even;
    private readonly bool _isEven;
    private readonly QuickDivision _byStep;

    // So long before the first start that whole steps since then are the starts before a time.
    private readonly long _origin;

    // Others are mostly evenly spread, so a table by equal pieces of time finds a position in about one step.
    private readonly int[] _firstOfPiece = [];
    private readonly int _shift;

    /// <param name="even">At least one.</param>
    public StartAxis(EvenStarts even)
    {
        (_starts, _even, _isEven, Count) = ([], even, true, even.Count);
        (_byStep, _origin) = (new QuickDivision(even.Step), even.First - even.Step + 1);
    }

    /// <param name="sorted">In order of time, each once.</param>
    public StartAxis(long[] sorted)
    {
        (_starts, Count) = (sorted, sorted.Length);
        if (sorted.Length == 0)
            return;
        var reach = (ulong)(sorted[^1] - sorted[0]);
        while (reach >> _shift > (ulong)sorted.Length * 2)
            _shift++;
        _firstOfPiece = new int[(int)(reach >> _shift) + 2];
        var position = 0;
        for (var piece = 0; piece < _firstOfPiece.Length; piece++)
        {
            while (position < sorted.Length && PieceOf(sorted[position]) < piece)
                position++;
            _firstOfPiece[piece] = position;
        }
    }

    /// <param name="runs">In order of time, with no start in two of them.</param>
    public static StartAxis Of(List<EvenStarts> runs)
    {
        if (runs.Count == 1)
            return new StartAxis(runs[0]);
        var starts = new List<long>();
        foreach (var run in runs)
        {
            for (var i = 0; i < run.Count; i++)
                starts.Add(run[i]);
        }

        return new StartAxis([.. starts]);
    }

    public int Count { get; }

    public long this[int position] => _isEven ? _even[position] : _starts[position];

    /// <summary>
    /// How many starts a week has, each week as the week before; 0 where that is not so, or starts are not even.
    /// </summary>
    public int StartsOfWeek =>
        _isEven && NodaConstants.TicksPerWeek % _even.Step == 0 ? (int)(NodaConstants.TicksPerWeek / _even.Step) : 0;

    /// <summary>The first position at or after a time; <see cref="Count"/> where there is none.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    public int FirstAtOrAfter(long ticks) =>
        _isEven ? (int)Math.Min((ulong)Count, _byStep.Of((ulong)Math.Max(ticks - _origin, 0))) : FirstInTable(ticks);

    /// <summary>The first position after a time; <see cref="Count"/> where there is none.</summary>
    public int FirstAfter(long ticks) => FirstAtOrAfter(ticks + 1);

    /// <summary>The position of exactly that time, or -1.</summary>
    public int Find(long ticks)
    {
        var position = FirstAtOrAfter(ticks);
        return position < Count && this[position] == ticks ? position : -1;
    }

    private int FirstInTable(long ticks)
    {
        if (_starts.Length == 0 || ticks <= _starts[0])
            return 0;
        if (ticks > _starts[^1])
            return _starts.Length;
        // A piece of an even grid has one start at most, so the first step, made without a branch, is nearly always the
        // last.
        var position = _firstOfPiece[PieceOf(ticks)];
        position += (int)((ulong)(_starts[position] - ticks) >> 63);
        if (_starts[position] >= ticks)
            return position;

        var (low, high) = (position + 1, _firstOfPiece[PieceOf(ticks) + 1]);
        while (low < high)
        {
            var middle = (low + high) >>> 1;
            if (_starts[middle] < ticks)
                low = middle + 1;
            else
                high = middle;
        }

        return low;
    }

    private int PieceOf(long ticks) => (int)((ulong)(ticks - _starts[0]) >> _shift);
}
