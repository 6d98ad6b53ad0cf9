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
        var outcome = Outcome(page, questions, answers);
        if (outcome.Stop is not { } stop)
            return [.. outcome.Flags];
        throw new Refusal(StatusCodes.Status422UnprocessableEntity, "screened")
        {
            OwnWords = stop.Words,
            More = { ["goTo"] = stop.Address.Length == 0 ? null : stop.Address },
        };
    }

    /// <summary>
    /// What the team is told once a guest has changed the answers. What is reserved stays reserved, whatever they would
    /// lead to now.
    /// </summary>
    public static string[] FlagsOf(Page page, IReadOnlyList<GivenAnswer> answers, IReadOnlyList<Companion> companions)
    {
        var others = page
            .Questions.Where(question => question.Kind == QuestionKind.Others)
            .Select(question =>
                GivenAnswer.Of(
                    [question],
                    new Dictionary<string, string>
                    {
                        [question.Key] = string.Join('\n', companions.Select(one => one.Email)),
                    }
                )
            );
        return [.. Outcome(page, GuestQuestions.Of(page), [.. answers, .. others.SelectMany(answer => answer)]).Flags];
    }

    private static ScreeningOutcome Outcome(
        Page page,
        IReadOnlyList<Question> questions,
        IReadOnlyList<GivenAnswer> answers
    ) =>
        Screening.Of(
            questions,
            page.Details.Screening,
            answers.ToDictionary(answer => answer.Key, answer => answer.Text)
        );
}
