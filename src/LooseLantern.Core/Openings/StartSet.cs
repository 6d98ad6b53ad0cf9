using System.Numerics;

namespace LooseLantern.Core.Openings;

/// <summary>A set of positions on a <see cref="StartAxis"/>, one bit each.</summary>
internal sealed class StartSet
{
    private readonly ulong[] _words;
    private readonly int _count;

    /// <summary>The empty set of an axis with so many starts.</summary>
    public StartSet(int count)
    {
        _count = count;
        _words = new ulong[(count + 63) >> 6];
    }

    private StartSet(StartSet other)
    {
        _count = other._count;
        _words = (ulong[])other._words.Clone();
    }

    /// <summary>64 positions each; those past the axis' end are never set.</summary>
    public ulong[] Words => _words;

    public static StartSet All(int count)
    {
        var all = new StartSet(count);
        all.Add(0, count);
        return all;
    }

    public StartSet Copy() => new(this);

    public bool Contains(int position) => (_words[position >> 6] >> position & 1) != 0;

    public void Add(int position) => _words[position >> 6] |= 1UL << position;

    /// <summary>Adds the positions [from, to); nothing where to is not after from.</summary>
    public void Add(int from, int to)
    {
        if (to <= from)
            return;
        int first = from >> 6,
            last = (to - 1) >> 6;
        var (head, tail) = (ulong.MaxValue << from, ulong.MaxValue >> -to);
        if (first == last)
        {
            _words[first] |= head & tail;
            return;
        }

        _words[first] |= head;
        _words.AsSpan(first + 1, last - first - 1).Fill(ulong.MaxValue);
        _words[last] |= tail;
    }

    /// <summary>Takes the positions [from, to) out; nothing where to is not after from.</summary>
    public void Remove(int from, int to)
    {
        if (to <= from)
            return;
        int first = from >> 6,
            last = (to - 1) >> 6;
        var (head, tail) = (ulong.MaxValue << from, ulong.MaxValue >> -to);
        if (first == last)
        {
            _words[first] &= ~(head & tail);
            return;
        }

        _words[first] &= ~head;
        _words.AsSpan(first + 1, last - first - 1).Clear();
        _words[last] &= ~tail;
    }

    public void IntersectWith(StartSet other)
    {
        for (var word = 0; word < _words.Length; word++)
            _words[word] &= other._words[word];
    }

    public int CountSet()
    {
        var count = 0;
        foreach (var word in _words)
            count += BitOperations.PopCount(word);
        return count;
    }

    /// <summary>The positions in it, in order.</summary>
    public IEnumerable<int> Positions()
    {
        for (var word = 0; word < _words.Length; word++)
        {
            for (var left = _words[word]; left != 0; left &= left - 1)
                yield return (word << 6) + BitOperations.TrailingZeroCount(left);
        }
    }
}
