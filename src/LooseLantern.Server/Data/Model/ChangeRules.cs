namespace LooseLantern.Server.Data.Model;

/// <summary>What guests of a page may do with their booking by its private link.</summary>
/// <param name="MoveUntil">Minutes before the start, after which it is not moved by the guest any more.</param>
/// <param name="CancelUntil">Minutes before the start, after which it is not cancelled by the guest any more.</param>
/// <param name="MostBrought">How many people a guest may bring along.</param>
/// <param name="CancelWords">What guests read where they cancel; may be empty.</param>
/// <param name="AskWhom">Whom to ask once it is too late, in words; where it is empty, whoever leads is named.</param>
public sealed record ChangeRules(
    bool MayMove,
    int MoveUntil,
    bool MayCancel,
    int CancelUntil,
    int MostBrought,
    string CancelWords,
    string AskWhom
)
{
    public static readonly ChangeRules Usual = new(
        MayMove: true,
        MoveUntil: 0,
        MayCancel: true,
        CancelUntil: 0,
        MostBrought: 3,
        CancelWords: "",
        AskWhom: ""
    );
}

/// <summary>Somebody whom a guest brings along.</summary>
public sealed record Companion(string Name, string Email);
