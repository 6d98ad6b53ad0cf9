namespace LooseLantern.Core.Covers;

/// <summary>Sessions that lost hosts, and who could take them instead.</summary>
/// <param name="Sessions">In the order in which they are to be told of; ids are distinct.</param>
/// <param name="Loads">By host, what they have beside these sessions; one who is not listed has nothing and weighs
/// one.</param>
public sealed record CoverInput(IReadOnlyList<CoveredSession> Sessions, IReadOnlyDictionary<string, CoverLoad> Loads);

/// <summary>One session whose hosts are looked for anew.</summary>
/// <param name="Time">When it is; it stays there.</param>
/// <param name="BufferBefore">Minutes kept free around everything else its hosts have; likewise after.</param>
/// <param name="Seats">Those that lost their host, and the others.</param>
public sealed record CoveredSession(
    string Id,
    Span Time,
    int BufferBefore,
    int BufferAfter,
    IReadOnlyList<CoveredSeat> Seats
)
{
    /// <summary>What somebody decided by hand: who has each seat, in their order. Null where it is to be worked
    /// out.</summary>
    public IReadOnlyList<string>? Decided { get; init; }

    /// <summary>Whether somebody decided by hand that nobody takes it.</summary>
    public bool IsLeftByHand { get; init; }
}

/// <summary>One seat of such a session.</summary>
/// <param name="Had">Who has it now.</param>
/// <param name="IsLost">Whether they can't come.</param>
/// <param name="CanTake">Who else could have it, in the order they are to be asked: eligible, and free then but for the
/// sessions of this plan.</param>
public sealed record CoveredSeat(string Had, bool IsLost, IReadOnlyList<string> CanTake);

/// <summary>What a host has to do beside the sessions of the plan.</summary>
/// <param name="Sessions">How many, in the time that counts.</param>
/// <param name="Weight">How much of the work is the host's share, from 1.</param>
public sealed record CoverLoad(int Sessions, int Weight);
