using LooseLantern.Core.Questions;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Guests;

/// <summary>How faults in answers, and in what is asked of answers, are said.</summary>
public static class QuestionPhrases
{
    public static Phrase Of(AnswerFault fault) =>
        fault switch
        {
            AnswerFault.NotAsked => "answer-not-asked",
            AnswerFault.NotAgreed => "answer-agree",
            AnswerFault.NotChosen => "answer-choose",
            AnswerFault.Missing => "answer",
            AnswerFault.NotOneLine => Phrase.Of("answer-one-line", ("most", AnswerCheck.MostShort)),
            AnswerFault.TooLong => Phrase.Of("too-long", ("most", AnswerCheck.MostLong)),
            AnswerFault.NoNumber => "answer-number",
            AnswerFault.NoDate => "answer-date",
            AnswerFault.NoEmail => "email",
            AnswerFault.NoWebPage => "web-page",
            AnswerFault.NoPhone => "answer-phone",
            AnswerFault.NotOffered => "answer-offered",
            AnswerFault.NotAllOffered => "answer-all-offered",
            AnswerFault.NoEmails => "answer-emails",
            AnswerFault.NoYesOrNo => "answer-yes-or-no",
            _ => "answer-agree-or-leave",
        };

    public static Phrase Of(ScreenFault fault) =>
        fault switch
        {
            ScreenFault.NotAsked => "screening-question",
            ScreenFault.NoSuchTest => "screening-test",
            ScreenFault.NoNumber => "screening-number",
            ScreenFault.NoDate => "screening-date",
            ScreenFault.NotOffered => "screening-offered",
            ScreenFault.NoYesOrNo => "screening-yes-or-no",
            _ => "screening-line",
        };
}
