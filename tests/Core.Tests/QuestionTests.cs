using LooseLantern.Core.Questions;

namespace Core.Tests;

/// <summary>Whether answers answer questions.</summary>
public class QuestionTests
{
    private static Question Of(QuestionKind kind, bool isNeeded = false, params string[] options) =>
        new("q", kind, "?", "", isNeeded, options, "");

    private static AnswerFault? FaultOf(Question question, string answer) =>
        AnswerCheck
            .Faults([question], new Dictionary<string, string> { ["q"] = answer })
            .TryGetValue("q", out var fault)
            ? fault
            : null;

    [Theory]
    [InlineData(QuestionKind.Short, "A ketch")]
    [InlineData(QuestionKind.Long, "A ketch\nof larch")]
    [InlineData(QuestionKind.Number, "-7.5")]
    [InlineData(QuestionKind.Number, " 12 ")]
    [InlineData(QuestionKind.Number, "0.1234567890123456789012345678")]
    [InlineData(QuestionKind.Date, "2028-02-29")]
    [InlineData(QuestionKind.Date, "1000-01-01")]
    [InlineData(QuestionKind.Date, "2999-12-31")]
    [InlineData(QuestionKind.Email, "ottilie@wren-charters.example")]
    [InlineData(QuestionKind.Web, "https://wren-charters.example/ketch?x=1")]
    [InlineData(QuestionKind.Web, "wren-charters.example/ketch")]
    [InlineData(QuestionKind.Phone, "+45 55-01 (02) 03")]
    [InlineData(QuestionKind.Phone, "12345")]
    [InlineData(QuestionKind.Phone, "12345678901234567890")]
    [InlineData(QuestionKind.YesNo, "no")]
    [InlineData(QuestionKind.Consent, "yes")]
    public void An_answer_of_its_kind_is_well(QuestionKind kind, string answer) =>
        FaultOf(Of(kind, isNeeded: true), answer).ShouldBeNull();

    [Theory]
    [InlineData(QuestionKind.Short, "two\nlines", AnswerFault.NotOneLine)]
    [InlineData(QuestionKind.Number, "1,5", AnswerFault.NoNumber)]
    [InlineData(QuestionKind.Number, "0.12345678901234567890123456789", AnswerFault.NoNumber)]
    [InlineData(QuestionKind.Number, "1e9", AnswerFault.NoNumber)]
    [InlineData(QuestionKind.Number, "a dozen", AnswerFault.NoNumber)]
    [InlineData(QuestionKind.Date, "2027-02-29", AnswerFault.NoDate)]
    [InlineData(QuestionKind.Date, "tomorrow", AnswerFault.NoDate)]
    [InlineData(QuestionKind.Date, "0999-12-31", AnswerFault.NoDate)]
    [InlineData(QuestionKind.Date, "3000-01-01", AnswerFault.NoDate)]
    [InlineData(QuestionKind.Email, "ottilie@wren", AnswerFault.NoEmail)]
    [InlineData(QuestionKind.Email, "a b@c.example", AnswerFault.NoEmail)]
    [InlineData(QuestionKind.Web, "javascript:alert(1)", AnswerFault.NoWebPage)]
    [InlineData(QuestionKind.Web, "our web page", AnswerFault.NoWebPage)]
    [InlineData(QuestionKind.Phone, "ring me", AnswerFault.NoPhone)]
    [InlineData(QuestionKind.Phone, "1234", AnswerFault.NoPhone)]
    [InlineData(QuestionKind.Phone, "123456789012345678901", AnswerFault.NoPhone)]
    [InlineData(QuestionKind.YesNo, "perhaps", AnswerFault.NoYesOrNo)]
    [InlineData(QuestionKind.Consent, "no", AnswerFault.NoAgreement)]
    public void What_is_not_of_its_kind_is_told(QuestionKind kind, string answer, AnswerFault fault) =>
        FaultOf(Of(kind), answer).ShouldBe(fault);

    [Fact]
    public void Options_are_those_that_are_offered()
    {
        var (one, some) = (
            Of(QuestionKind.OneOf, false, "oak", "larch"),
            Of(QuestionKind.SomeOf, false, "oak", "larch", "teak")
        );
        FaultOf(one, "larch").ShouldBeNull();
        FaultOf(one, "pine").ShouldBe(AnswerFault.NotOffered);
        FaultOf(some, "teak\noak").ShouldBeNull();
        FaultOf(some, "teak\npine").ShouldBe(AnswerFault.NotAllOffered);
        AnswerCheck.Tidy(some, "teak\noak\nteak").ShouldBe("oak\nteak");
    }

    [Fact]
    public void What_is_needed_has_to_be_answered_what_is_not_may_stay_empty_and_what_nobody_asks_is_no_answer()
    {
        foreach (var kind in Enum.GetValues<QuestionKind>())
        {
            FaultOf(Of(kind, isNeeded: true, "a"), "  ")
                .ShouldBe(
                    kind switch
                    {
                        QuestionKind.Consent => AnswerFault.NotAgreed,
                        QuestionKind.OneOf or QuestionKind.SomeOf or QuestionKind.YesNo => AnswerFault.NotChosen,
                        _ => AnswerFault.Missing,
                    }
                );
            FaultOf(Of(kind, isNeeded: false, "a"), "").ShouldBeNull();
        }

        AnswerCheck
            .Faults([], new Dictionary<string, string> { ["old"] = "x" })
            .ShouldBe(new Dictionary<string, AnswerFault> { ["old"] = AnswerFault.NotAsked });
    }

    [Fact]
    public void What_is_too_long_is_refused()
    {
        FaultOf(Of(QuestionKind.Short), new string('x', AnswerCheck.MostShort + 1)).ShouldBe(AnswerFault.NotOneLine);
        FaultOf(Of(QuestionKind.Long), new string('x', AnswerCheck.MostLong + 1)).ShouldBe(AnswerFault.TooLong);
        FaultOf(Of(QuestionKind.Long), new string('x', AnswerCheck.MostLong)).ShouldBeNull();
    }
}
