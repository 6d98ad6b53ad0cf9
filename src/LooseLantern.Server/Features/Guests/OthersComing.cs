using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Guests;

/// <summary>Whom a guest names as coming along while they reserve.</summary>
public static class OthersComing
{
    /// <param name="answers">As they passed their check.</param>
    /// <exception cref="Refusal">400 naming the question, for more than the page lets, or one that can't be
    /// mailed.</exception>
    public static IReadOnlyList<Companion> Of(
        Page page,
        IReadOnlyList<GivenAnswer> answers,
        string guestEmail,
        MailReach reach
    )
    {
        var asked = answers.Where(answer => answer.Kind == QuestionKind.Others).ToList();
        var emails = asked
            .SelectMany(answer =>
                answer.Text.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            )
            .Where(email => !email.Equals(guestEmail.Trim(), StringComparison.OrdinalIgnoreCase))
            .Distinct(StringComparer.OrdinalIgnoreCase)
            .ToList();
        if (emails.Count > page.Changes.MostBrought)
            throw Refusal.Invalid(
                $"answers.{asked[0].Key}",
                page.Changes.MostBrought == 0
                    ? "nobody-along"
                    : Phrase.Of("too-many-along", ("most", page.Changes.MostBrought))
            );
        if (!emails.TrueForAll(reach.CanMail))
            throw Refusal.Invalid($"answers.{asked[0].Key}", "email-plain");
        return [.. emails.Select(email => new Companion("", email))];
    }
}
