using System.Numerics;
using LooseLantern.Core.Hours;
using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>
/// Rule 6, for all hosts of one computation: the starts from which a whole appointment lies within one run of open
/// time. Hosts whose hours say the same are asked once. A run that two sets have in common holds an appointment exactly
/// where a run of each of the two does, so sets are asked one by one.
/// </summary>
internal sealed class HoursStarts
{
    private readonly OpenRuns _runs = new();
    private readonly Dictionary<HoursSet, int> _known = new(SameHours.Comparer);
    private readonly List<(long Start, long End)> _evenWeeks = [];
    private ulong[] _words = [];
    private StartAxis _axis = new([]);
    private Span _range;
    private long _duration;

    /// <summary>How many words it writes on.</summary>
    public int Size => _words.Length;

    /// <param name="duration">In ticks.</param>
    public void Begin(StartAxis axis, long duration)
    {
        (_axis, _duration) = (axis, duration);
        if (axis.Count == 0)
            return;
        _range = new Span(
            Instant.FromUnixTimeTicks(axis[0]),
            Instant.FromUnixTimeTicks(axis[axis.Count - 1] + duration)
        );
    }

    /// <summary>What was asked is forgotten.</summary>
    public void End() => _known.Clear();

    /// <summary>Keeps of some starts those at which an appointment lies within one run of these hours.</summary>
    public void Keep(StartSet starts, HoursSet hours)
    {
        var size = starts.Words.Length;
        if (!_known.TryGetValue(hours, out var at))
        {
            at = _known.Count;
            _known.Add(hours, at);
            if (_words.Length < (at + 1) * size)
                Array.Resize(ref _words, Math.Max((at + 1) * size, _words.Length * 2));
            Write(new StartSet(_words.AsSpan(at * size, size)), hours);
        }

        starts.IntersectWith(new StartSet(_words.AsSpan(at * size, size)));
    }

    private void Write(StartSet starts, HoursSet hours)
    {
        starts.Words.Clear();
        _runs.Read(hours);
        var next = CopyEvenWeeks(starts);
        Tell(starts, next, _axis.Count);
    }

    /// <summary>Where one week is as the week before, words of starts come again, and are copied.</summary>
    /// <returns>The first position that was not written.</returns>
    private int CopyEvenWeeks(StartSet starts)
    {
        if (_axis.StartsOfWeek == 0)
            return 0;
        var next = 0;
        // So many words hold some whole weeks.
        var period = _axis.StartsOfWeek / (int)BigInteger.GreatestCommonDivisor(_axis.StartsOfWeek, 64);
        _runs.FindEvenWeeks(_range, _evenWeeks);
        foreach (var (start, end) in _evenWeeks)
        {
            // Of words that lie within it, with the ends of all their appointments.
            var first = StartSet.WordsFor(_axis.FirstAtOrAfter(start));
            var after = _axis.FirstAfter(end - _duration) / 64;
            if (after - first < 2 * period)
                continue;
            Tell(starts, next, (first + period) * 64);
            for (var word = first + period; word < after; word++)
                starts.Words[word] = starts.Words[word - period];
            next = after * 64;
        }

        return next;
    }

    /// <summary>Adds those of the positions [from, to).</summary>
    private void Tell(StartSet starts, int from, int to)
    {
        if (from >= to)
            return;
        // No run that began before the first start, or goes on after the last end, is any longer for them.
        var range = new Span(
            Instant.FromUnixTimeTicks(_axis[from]),
            Instant.FromUnixTimeTicks(_axis[to - 1] + _duration)
        );
        _runs.Tell(range, new Within(starts, _axis, _duration));
    }

    /// <summary>Adds the starts from which an appointment lies within a run.</summary>
    private readonly ref struct Within(StartSet starts, StartAxis axis, long duration) : ITakesRuns
    {
        private readonly StartSet _starts = starts;

        public void Take(long start, long end) =>
            _starts.Add(axis.FirstAtOrAfter(start), axis.FirstAfter(end - duration));
    }
}
