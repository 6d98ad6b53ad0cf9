namespace LooseLantern.Core.Covers;

/// <summary>Who takes what.</summary>
/// <param name="Lines">One for each session, in their order.</param>
/// <param name="IsBest">Whether it is proven that there is no better one; else it is the best that was found within the
/// work that is spent on it.</param>
public sealed record CoverPlan(IReadOnlyList<CoverLine> Lines, bool IsBest);

/// <summary>What becomes of one session.</summary>
/// <param name="Hosts">Who has each seat from now on; null where the session can't be kept at its time.</param>
/// <param name="Lacks">Of one that can't: the seats that stay empty.</param>
public sealed record CoverLine(string Session, IReadOnlyList<string>? Hosts, IReadOnlyList<EmptySeat> Lacks);

/// <summary>A seat that nobody can take.</summary>
/// <param name="Seat">By position from 0.</param>
/// <param name="Needed">Who could take it, were they not needed for another session; empty where nobody could anyway,
/// or where too few are there for all seats of the session.</param>
public sealed record EmptySeat(int Seat, IReadOnlyList<NeededElsewhere> Needed);

/// <param name="Session">The session of the plan that they have at that time.</param>
public sealed record NeededElsewhere(string Host, string Session);
