using System.Numerics;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;

namespace LooseLantern.Core.Openings;

/// <summary>A set of positions on a <see cref="StartAxis"/>, one bit each, on words that somebody lends it.</summary>
internal readonly ref struct StartSet
{
    private readonly Span<ulong> _words;

    /// <param name="words">As many as <see cref="WordsFor"/> says, with what is in the set already.</param>
    public StartSet(Span<ulong> words)
    {
        _words = words;
    }

    /// <summary>64 positions each; those past the axis' end are never set.</summary>
    public Span<ulong> Words => _words;

    public bool IsEmpty => !_words.ContainsAnyExcept(0UL);

    /// <summary>How many words the starts of an axis take.</summary>
    public static int WordsFor(int starts) => (starts + 63) >> 6;

    /// <summary>The empty set of an axis with so many starts, on words of its own.</summary>
    public static StartSet Empty(int starts) => new(new ulong[WordsFor(starts)]);

    public bool Contains(int position) => (_words[position >> 6] >> position & 1) != 0;

    public void Add(int position) => _words[position >> 6] |= 1UL << position;

    /// <summary>Adds the positions [from, to); nothing where to is not after from.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
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
        for (var word = first + 1; word < last; word++)
            _words[word] = ulong.MaxValue;
        _words[last] |= tail;
    }

    /// <summary>Takes the positions [from, to) out; nothing where to is not after from.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
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
        for (var word = first + 1; word < last; word++)
            _words[word] = 0;
        _words[last] &= ~tail;
    }

    public void IntersectWith(StartSet other)
    {
        var wide = Wide(_words);
        var others = Wide(other._words);
        for (var i = 0; i < wide.Length; i++)
            wide[i] &= others[i];
        for (var word = wide.Length * Vector<ulong>.Count; word < _words.Length; word++)
            _words[word] &= other._words[word];
    }

    /// <summary>Adds what is in both of two others.</summary>
    public void AddBoth(StartSet one, StartSet other)
    {
        var wide = Wide(_words);
        var ones = Wide(one._words);
        var others = Wide(other._words);
        for (var i = 0; i < wide.Length; i++)
            wide[i] |= ones[i] & others[i];
        for (var word = wide.Length * Vector<ulong>.Count; word < _words.Length; word++)
            _words[word] |= one._words[word] & other._words[word];
    }

    /// <summary>Becomes what is in one and not in another.</summary>
    /// <returns>Whether there is any.</returns>
    public bool BecomeDifference(StartSet one, StartSet other)
    {
        var any = 0UL;
        for (var word = 0; word < _words.Length; word++)
            any |= _words[word] = one._words[word] & ~other._words[word];
        return any != 0;
    }

    public int CountSet()
    {
        var count = 0;
        foreach (var word in _words)
            count += BitOperations.PopCount(word);
        return count;
    }

    /// <summary>The positions in it, in order; as they are now, whatever is taken out meanwhile.</summary>
    public Positions GetEnumerator() => new(_words);

    private static Span<Vector<ulong>> Wide(Span<ulong> words) => MemoryMarshal.Cast<ulong, Vector<ulong>>(words);

    /// <summary>Goes through a set.</summary>
    public ref struct Positions(ReadOnlySpan<ulong> words)
    {
        private readonly ReadOnlySpan<ulong> _words = words;
        private int _word = -1;
        private ulong _left = 0;

        public int Current { get; private set; } = -1;

        public bool MoveNext()
        {
            while (_left == 0)
            {
                if (++_word == _words.Length)
                    return false;
                _left = _words[_word];
            }

            Current = (_word << 6) + BitOperations.TrailingZeroCount(_left);
            _left &= _left - 1;
            return true;
        }
    }
}
