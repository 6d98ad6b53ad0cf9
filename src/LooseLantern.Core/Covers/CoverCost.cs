namespace LooseLantern.Core.Covers;

/// <summary>What a plan costs; each part outweighs all that follow.</summary>
/// <param name="Left">Sessions that are not kept at their time, as seats without a host: each session counts as
/// much.</param>
/// <param name="Changes">Seats that lost nobody and get somebody else all the same.</param>
/// <param name="Load">How unevenly the work falls: each session costs its host what they have already for their weight,
/// those of the plan counted one by one.</param>
/// <param name="Places">How far down the orders of the seats it goes; it only chooses among plans that are as good
/// otherwise and come up together, and nothing is looked for any longer because of it.</param>
internal readonly record struct CoverCost(long Left, long Changes, long Load, long Places) : IComparable<CoverCost>
{
    public static CoverCost operator +(CoverCost one, CoverCost other) =>
        new(one.Left + other.Left, one.Changes + other.Changes, one.Load + other.Load, one.Places + other.Places);

    public static CoverCost operator -(CoverCost one, CoverCost other) =>
        new(one.Left - other.Left, one.Changes - other.Changes, one.Load - other.Load, one.Places - other.Places);

    public static bool operator <(CoverCost one, CoverCost other) => one.CompareTo(other) < 0;

    public static bool operator >(CoverCost one, CoverCost other) => one.CompareTo(other) > 0;

    /// <summary>Whether it is better in anything but the order of the seats.</summary>
    public bool IsBetterThan(CoverCost other) => (this with { Places = 0 }) < (other with { Places = 0 });

    public int CompareTo(CoverCost other)
    {
        if (Left != other.Left)
            return Left.CompareTo(other.Left);
        if (Changes != other.Changes)
            return Changes.CompareTo(other.Changes);
        return Load != other.Load ? Load.CompareTo(other.Load) : Places.CompareTo(other.Places);
    }
}
