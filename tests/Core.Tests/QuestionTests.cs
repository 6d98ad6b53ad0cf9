using LooseLantern.Core.Questions;

namespace Core.Tests;

/// <summary>Whether answers answer questions.</summary>
public class QuestionTests
{
    private static Question Of(QuestionKind kind, bool isNeeded = false, params string[] options) =>
        new("q", kind, "?", "", isNeeded, options, "");

    private static string? MendOf(Question question, string answer) =>
        AnswerCheck.Faults([question], new Dictionary<string, string> { ["q"] = answer }).GetValueOrDefault("q");

    [Theory]
    [InlineData(QuestionKind.Short, "A ketch")]
    [InlineData(QuestionKind.Long, "A ketch\nof larch")]
    [InlineData(QuestionKind.Number, "-7.5")]
    [InlineData(QuestionKind.Number, " 12 ")]
    [InlineData(QuestionKind.Date, "2028-02-29")]
    [InlineData(QuestionKind.Date, "1000-01-01")]
    [InlineData(QuestionKind.Date, "2999-12-31")]
    [InlineData(QuestionKind.Email, "ottilie@wren-charters.example")]
    [InlineData(QuestionKind.Web, "https://wren-charters.example/ketch?x=1")]
    [InlineData(QuestionKind.Phone, "+45 55-01 (02) 03")]
    [InlineData(QuestionKind.Phone, "12345")]
    [InlineData(QuestionKind.Phone, "12345678901234567890")]
    [InlineData(QuestionKind.YesNo, "no")]
    [InlineData(QuestionKind.Consent, "yes")]
    public void An_answer_of_its_kind_is_well(QuestionKind kind, string answer) =>
        MendOf(Of(kind, isNeeded: true), answer).ShouldBeNull();

    [Theory]
    [InlineData(QuestionKind.Short, "two\nlines")]
    [InlineData(QuestionKind.Number, "1,5")]
    [InlineData(QuestionKind.Number, "1e9")]
    [InlineData(QuestionKind.Number, "a dozen")]
    [InlineData(QuestionKind.Date, "2027-02-29")]
    [InlineData(QuestionKind.Date, "tomorrow")]
    [InlineData(QuestionKind.Date, "0999-12-31")]
    [InlineData(QuestionKind.Date, "3000-01-01")]
    [InlineData(QuestionKind.Email, "ottilie@wren")]
    [InlineData(QuestionKind.Email, "a b@c.example")]
    [InlineData(QuestionKind.Web, "javascript:alert(1)")]
    [InlineData(QuestionKind.Web, "wren.example")]
    [InlineData(QuestionKind.Phone, "ring me")]
    [InlineData(QuestionKind.Phone, "1234")]
    [InlineData(QuestionKind.Phone, "123456789012345678901")]
    [InlineData(QuestionKind.YesNo, "perhaps")]
    [InlineData(QuestionKind.Consent, "no")]
    public void What_is_not_of_its_kind_is_told_how_to_mend(QuestionKind kind, string answer) =>
        MendOf(Of(kind), answer).ShouldNotBeNull().ShouldEndWith(".");

    [Fact]
    public void Options_are_those_that_are_offered()
    {
        var (one, some) = (
            Of(QuestionKind.OneOf, false, "oak", "larch"),
            Of(QuestionKind.SomeOf, false, "oak", "larch", "teak")
        );
        MendOf(one, "larch").ShouldBeNull();
        MendOf(one, "pine").ShouldNotBeNull();
        MendOf(some, "teak\noak").ShouldBeNull();
        MendOf(some, "teak\npine").ShouldNotBeNull();
        AnswerCheck.Tidy(some, "teak\noak\nteak").ShouldBe("oak\nteak");
    }

    [Fact]
    public void What_is_needed_has_to_be_answered_what_is_not_may_stay_empty_and_what_nobody_asks_is_no_answer()
    {
        foreach (var kind in Enum.GetValues<QuestionKind>())
        {
            MendOf(Of(kind, isNeeded: true, "a"), "  ").ShouldNotBeNull();
            MendOf(Of(kind, isNeeded: false, "a"), "").ShouldBeNull();
        }

        AnswerCheck.Faults([], new Dictionary<string, string> { ["old"] = "x" }).Keys.ShouldBe(["old"]);
    }

    [Fact]
    public void What_is_too_long_is_refused()
    {
        MendOf(Of(QuestionKind.Short), new string('x', AnswerCheck.MostShort + 1)).ShouldNotBeNull();
        MendOf(Of(QuestionKind.Long), new string('x', AnswerCheck.MostLong + 1)).ShouldNotBeNull();
        MendOf(Of(QuestionKind.Long), new string('x', AnswerCheck.MostLong)).ShouldBeNull();
    }
}
