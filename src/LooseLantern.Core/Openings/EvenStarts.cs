using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>So many starts, each a step after the one before; times are ticks since the Unix epoch.</summary>
internal readonly record struct EvenStarts(long First, long Step, int Count)
{
    public long this[int position] => First + position * Step;

    public long Last => this[Count - 1];

    /// <summary>These and those after them as one, where the latter go on at the same step.</summary>
    public bool GoesOnWith(EvenStarts next) => next.Step == Step && next.First == First + Count * Step;

    public IEnumerable<Instant> Instants()
    {
        for (var i = 0; i < Count; i++)
            yield return Instant.FromUnixTimeTicks(this[i]);
    }
}
