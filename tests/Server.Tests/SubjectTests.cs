using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Profile;

namespace Server.Tests;

/// <summary>Nobody can have us send their own words as a headline.</summary>
public class SubjectTests
{
    private const string Theirs = "You have won";

    [Fact]
    public void No_subject_begins_with_what_a_stranger_chose()
    {
        foreach (var language in MeEndpoints.Languages)
        {
            // Letters are written by the team, for each guest anew.
            foreach (var kind in Enum.GetValues<MessageKind>().Except([MessageKind.LetterForGuest]))
            {
                foreach (var reply in (string[])["Declines", "Wishes", "Words"])
                {
                    var subject = PostTemplates.Write(kind, language, Words(reply)).Subject;
                    subject.ShouldNotBeEmpty($"{kind} in {language}");
                    subject.ShouldNotStartWith(Theirs, customMessage: $"{kind} in {language}");
                }
            }
        }
    }

    [Theory]
    [InlineData("{{ guest }}, see you soon", "Talk: You have won, see you soon")]
    [InlineData("{% if guest != \"\" %}{{ word }}{% endif %}!", "Talk: You have won!")]
    [InlineData("See you soon, {{ guest }}", "See you soon, You have won")]
    public void A_subject_of_a_pages_own_begins_with_its_title_then(string subject, string written) =>
        PostTemplates.Write(new OwnWords(subject, "Hello"), Words("Words")).Subject.ShouldBe(written);

    private static Dictionary<string, string> Words(string reply)
    {
        var words = PostWords.Tokens.Keys.ToDictionary(name => name, _ => Theirs);
        foreach (var name in (string[])["writer", "guest", "inviter", "reader", "wished", "parts", "code"])
            words[name] = Theirs;
        (words["page"], words["workspace"], words["desk"], words["day"], words["hosts"]) = (
            "Talk",
            "Yard",
            "Yard",
            "Tuesday",
            "Ada"
        );
        (words["count"], words["asks"], words["reply"]) = ("2", "", reply);
        return words;
    }
}
