using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What a page's screening makes of a guest's answers, before anything is reserved.</summary>
public static class ScreenedOut
{
    /// <returns>What the team is told of the booking.</returns>
    /// <exception cref="Refusal">422 with the coordinator's words, and where to go instead, if anywhere.</exception>
    public static string[] Check(Page page, IReadOnlyList<Question> questions, IReadOnlyList<GivenAnswer> answers)
    {
        var outcome = Screening.Of(questions, page.Details.Screening, answers.ToDictionary(answer => answer.Key, answer => answer.Text));
        if (outcome.Stop is not { } stop) return [.. outcome.Flags];
        throw new Refusal(StatusCodes.Status422UnprocessableEntity, "screened", "This can’t be reserved here.", stop.Words) { More = { ["goTo"] = stop.Address.Length == 0 ? null : stop.Address } };
    }
}
