using LooseLantern.Core.LineUps;

namespace LooseLantern.Core.Openings;

/// <summary>
/// What computations write on, one after another, so that nothing but their answers is allocated. Each thread keeps one
/// for the next computation; what grew beyond a bound is given up.
/// </summary>
internal sealed class ComputationMemory : IDisposable
{
    // Of 8 bytes each: what a thousand hosts with hours of their own need for a quarter of a year.
    private const int MostWordsKept = 1 << 18;

    [ThreadStatic]
    private static ComputationMemory? _kept;

    private ulong[] _ofPage = [];
    private ulong[] _ofHost = [];
    private ulong[] _seatsOf = [];

    public HoursStarts Hours { get; } = new();

    public SeatCounts Seats { get; } = new();

    /// <summary>Positions of hosts in the input, by id.</summary>
    public Dictionary<string, int> Hosts { get; } = new(StringComparer.Ordinal);

    /// <summary>For whoever disposes of it when the answer stands.</summary>
    public static ComputationMemory Take()
    {
        var taken = _kept ?? new ComputationMemory();
        _kept = null;
        return taken;
    }

    /// <summary>The empty set of an axis with so many starts, for those that the page offers.</summary>
    public StartSet OfPage(int starts) => new(Cleared(ref _ofPage, StartSet.WordsFor(starts)));

    /// <summary>The same, for those that one host can take.</summary>
    public StartSet OfHost(int starts) => new(Cleared(ref _ofHost, StartSet.WordsFor(starts)));

    /// <summary>For each host of the input the seats that they fit; none yet.</summary>
    public Span<ulong> SeatsOf(int hosts) => Cleared(ref _seatsOf, hosts);

    public void Dispose()
    {
        // Nothing of anybody's input is held on to.
        Hours.End();
        Hosts.Clear();
        if (Hours.Size + Seats.Size + _ofPage.Length + _ofHost.Length + _seatsOf.Length <= MostWordsKept)
            _kept = this;
    }

    private static Span<ulong> Cleared(ref ulong[] words, int count)
    {
        if (words.Length < count)
            words = new ulong[count];
        var cleared = words.AsSpan(0, count);
        cleared.Clear();
        return cleared;
    }
}
