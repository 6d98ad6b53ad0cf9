using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What a page asks its guests: its own questions, and before them what its place makes needed.</summary>
public static class GuestQuestions
{
    /// <summary>The key of the number that hosts ring; no question of a page's own has it.</summary>
    public const string Number = "number-to-ring";

    public static IReadOnlyList<Question> Of(Page page) =>
        IsRung(page)
            ?
            [
                new Question(Number, QuestionKind.Phone, Words(page.Details.Face.Language), "", IsNeeded: true, [], ""),
                .. page.Questions,
            ]
            : page.Questions;

    /// <summary>Those whose answers a guest may change later; whom they bring along is changed by itself.</summary>
    public static IReadOnlyList<Question> Changeable(Page page) =>
        [.. Of(page).Where(question => question.Kind != QuestionKind.Others)];

    private static bool IsRung(Page page) => page.PlaceKind == PlaceKind.Phone && page.Details.Place.HostsRing;

    private static string Words(string language) =>
        language switch
        {
            "de" => "Unter welcher Nummer rufen wir Sie an?",
            "fr" => "À quel numéro pouvons-nous vous appeler ?",
            "es" => "¿A qué número le llamamos?",
            "da" => "Hvilket nummer skal vi ringe til?",
            _ => "Which number shall we ring?",
        };
}
