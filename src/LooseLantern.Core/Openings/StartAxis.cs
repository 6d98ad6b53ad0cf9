namespace LooseLantern.Core.Openings;

/// <summary>
/// The starts that are asked about, in order of time, each once. Rules are answered as runs of positions on it. Times
/// are ticks of 100 ns since the Unix epoch (<see cref="NodaTime.Instant.ToUnixTimeTicks"/>); parts finer than a tick
/// are cut off.
/// </summary>
internal sealed class StartAxis
{
    private readonly long[] _starts;

    // Starts are mostly evenly spread, so a table by equal pieces of time finds a position in about one step.
    private readonly int[] _firstOfPiece;
    private readonly int _shift;

    /// <param name="sorted">In order of time, each once.</param>
    public StartAxis(long[] sorted)
    {
        _starts = sorted;
        if (sorted.Length == 0)
        {
            _firstOfPiece = [];
            return;
        }

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

    public int Count => _starts.Length;

    public long this[int position] => _starts[position];

    /// <summary>The first position at or after a time; <see cref="Count"/> where there is none.</summary>
    public int FirstAtOrAfter(long ticks)
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

    /// <summary>The first position after a time; <see cref="Count"/> where there is none.</summary>
    public int FirstAfter(long ticks) => FirstAtOrAfter(ticks + 1);

    /// <summary>The position of exactly that time, or -1.</summary>
    public int Find(long ticks)
    {
        var position = FirstAtOrAfter(ticks);
        return position < _starts.Length && _starts[position] == ticks ? position : -1;
    }

    private int PieceOf(long ticks) => (int)((ulong)(ticks - _starts[0]) >> _shift);
}
