using LooseLantern.Core.Openings;
using LooseLantern.Core.Questions;

namespace LooseLantern.Core.LineUps;

/// <summary>What a seat makes of the host who keeps the guest.</summary>
public enum SeatKeeper
{
    /// <summary>Nothing: they are one of the seat's hosts.</summary>
    Counts = 0,

    /// <summary>They take it where they are free, else it is filled as usual.</summary>
    First,

    /// <summary>Nobody else takes it.</summary>
    Only,
}

/// <summary>A guest whose answer is so is this host's.</summary>
public sealed record KeeperByAnswer(ScreenCondition If, string Host);

/// <summary>
/// Seats and the keeper of a guest who is known before they look: by an address or a link of their own. On an open page
/// nobody is known, and the usual rules count.
/// </summary>
public static class Keepers
{
    /// <summary>
    /// The input for a guest of this host: the first seat that is for the keeper only, and that they are eligible for,
    /// is theirs alone. A seat they are not eligible for is filled as usual.
    /// </summary>
    /// <param name="keeper">A host's id; null where the guest is not known, or nobody's.</param>
    public static OpeningsInput Narrow(OpeningsInput input, string? keeper)
    {
        var lineUp = input.Page.LineUp;
        if (keeper is null || !lineUp.Any(seat => Considers(seat, keeper)))
            return input;
        var at = lineUp.ToList().FindIndex(seat => seat.Keeper == SeatKeeper.Only && seat.AnyOf.Contains(keeper));
        return input with
        {
            Keeper = keeper,
            Page =
                at < 0
                    ? input.Page
                    : input.Page with
                    {
                        LineUp = [.. lineUp.Select((seat, i) => i == at ? seat with { AnyOf = [keeper] } : seat)],
                    },
        };
    }

    /// <summary>Whether the keeper is put into this seat before others.</summary>
    public static bool Considers(Seat seat, string keeper) =>
        seat.Keeper != SeatKeeper.Counts && seat.AnyOf.Contains(keeper);

    /// <summary>The keeper, where a seat of the input is theirs alone; else null.</summary>
    public static string? OnlyOf(OpeningsInput input) =>
        input.Keeper is { } keeper
        && input.Page.LineUp.Any(seat => seat is { Keeper: SeatKeeper.Only, AnyOf: [var only] } && only == keeper)
            ? keeper
            : null;

    /// <summary>Whose guest somebody is by what they answered, the first rule that is met; null for nobody's.</summary>
    /// <param name="answers">By key, such as passed <see cref="AnswerCheck"/>.</param>
    public static string? ByAnswer(
        IReadOnlyList<Question> questions,
        IReadOnlyList<KeeperByAnswer> rules,
        IReadOnlyDictionary<string, string> answers
    ) => rules.FirstOrDefault(rule => Screening.Holds(questions, rule.If, answers))?.Host;
}
