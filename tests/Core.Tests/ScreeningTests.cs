using LooseLantern.Core.Questions;

namespace Core.Tests;

/// <summary>What answers lead to.</summary>
public class ScreeningTests
{
    private static readonly Question[] Asked =
    [
        Ask("length", QuestionKind.Number),
        Ask("start", QuestionKind.Date),
        Ask("budget", QuestionKind.OneOf, "now", "next year"),
        Ask("wants", QuestionKind.SomeOf, "sails", "spars"),
        Ask("afloat", QuestionKind.YesNo),
        Ask("name", QuestionKind.Short),
        Ask("more", QuestionKind.Long),
    ];

    [Theory]
    [InlineData("length", ScreenTest.Over, "24", "24.5", true)]
    [InlineData("length", ScreenTest.Over, "24", "24", false)]
    [InlineData("length", ScreenTest.Over, "24", "9", false)] // as numbers, not as words
    [InlineData("length", ScreenTest.Under, "24", "9", true)]
    [InlineData("length", ScreenTest.Is, "24", "24.0", true)]
    [InlineData("length", ScreenTest.IsNot, "24", "23", true)]
    [InlineData("start", ScreenTest.Over, "2027-01-01", "2027-01-02", true)]
    [InlineData("start", ScreenTest.Under, "2027-01-01", "2027-01-01", false)]
    [InlineData("start", ScreenTest.Over, "2027-01-01", "soon", false)]
    [InlineData("start", ScreenTest.Under, "2027-01-01", "soon", false)]
    [InlineData("budget", ScreenTest.Is, "now", "now", true)]
    [InlineData("budget", ScreenTest.IsNot, "now", "next year", true)]
    [InlineData("wants", ScreenTest.Is, "spars", "sails\nspars", true)]
    [InlineData("wants", ScreenTest.IsNot, "spars", "sails", true)]
    [InlineData("afloat", ScreenTest.Is, "yes", "no", false)]
    [InlineData("name", ScreenTest.Is, "Petrel", " petrel ", true)]
    [InlineData("more", ScreenTest.IsAnswered, "", "Much.", true)]
    [InlineData("more", ScreenTest.IsAnswered, "", "4", true)]
    [InlineData("more", ScreenTest.IsAnswered, "", "", false)]
    [InlineData("more", ScreenTest.IsNotAnswered, "", "", true)]
    [InlineData("more", ScreenTest.IsNotAnswered, "", "Much.", false)]
    public void An_answer_is_compared_as_what_it_is(
        string key,
        ScreenTest test,
        string value,
        string answer,
        bool holds
    ) => (Of([Rule(new ScreenCondition(key, test, value))], (key, answer)).Stop is not null).ShouldBe(holds);

    [Theory]
    [InlineData("length", ScreenTest.IsNot, "24")]
    [InlineData("length", ScreenTest.Under, "24")]
    [InlineData("budget", ScreenTest.IsNot, "now")]
    public void What_is_not_answered_stops_nobody(string key, ScreenTest test, string value) =>
        Of([Rule(new ScreenCondition(key, test, value))]).Stop.ShouldBeNull();

    [Fact]
    public void Conditions_are_joined_by_all_or_by_any()
    {
        ScreenCondition[] both = [new("budget", ScreenTest.IsNot, "now"), new("start", ScreenTest.Over, "2027-01-01")];
        Of([Rule(both)], ("budget", "next year"), ("start", "2026-12-20")).Stop.ShouldBeNull();
        Of([Rule(both) with { All = false }], ("budget", "next year"), ("start", "2026-12-20")).Stop.ShouldNotBeNull();
        Of([Rule(both)], ("budget", "next year"), ("start", "2027-02-01")).Stop.ShouldNotBeNull();
    }

    [Fact]
    public void The_first_rule_that_ends_the_way_decides_and_flags_are_all_told()
    {
        var rules = new[]
        {
            Rule(new ScreenCondition("length", ScreenTest.Over, "10")) with
            {
                Then = ScreenAct.Flag,
                Words = "long",
            },
            Rule(new ScreenCondition("length", ScreenTest.Over, "20")) with
            {
                Words = "Ring the yard.",
            },
            Rule(new ScreenCondition("length", ScreenTest.Over, "15")) with
            {
                Then = ScreenAct.GoElsewhere,
                Words = "There",
                Address = "/desk/page",
            },
            Rule(new ScreenCondition("length", ScreenTest.Over, "12")) with
            {
                Then = ScreenAct.Flag,
                Words = "very long",
            },
        };
        var outcome = Of(rules, ("length", "24"));
        outcome.Stop!.Words.ShouldBe("Ring the yard.");
        outcome.Flags.ShouldBe(["long", "very long"]);
        Of(rules, ("length", "16")).Stop!.Words.ShouldBe("There");
        Of(rules, ("length", "11"))
            .ShouldSatisfyAllConditions(one => one.Stop.ShouldBeNull(), one => one.Flags.ShouldBe(["long"]));
    }

    [Fact]
    public void A_rule_without_conditions_or_about_a_question_that_has_gone_stops_nobody()
    {
        Of([Rule()]).Stop.ShouldBeNull();
        Of([Rule(new ScreenCondition("gone", ScreenTest.IsNotAnswered, ""))]).Stop.ShouldBeNull();
    }

    [Fact]
    public void What_makes_no_sense_of_a_condition_is_told()
    {
        ScreenFault? Fault(string key, ScreenTest test, string value) =>
            Screening.FaultOf(Asked.FirstOrDefault(one => one.Key == key), new ScreenCondition(key, test, value));
        Fault("gone", ScreenTest.Is, "x").ShouldBe(ScreenFault.NotAsked);
        Fault("more", ScreenTest.Over, "1").ShouldBe(ScreenFault.NoSuchTest);
        Fault("length", ScreenTest.Over, "long").ShouldBe(ScreenFault.NoNumber);
        Fault("start", ScreenTest.Under, "tomorrow").ShouldBe(ScreenFault.NoDate);
        Fault("budget", ScreenTest.Is, "later").ShouldBe(ScreenFault.NotOffered);
        Fault("afloat", ScreenTest.Is, "maybe").ShouldBe(ScreenFault.NoYesOrNo);
        Fault("name", ScreenTest.Is, " ").ShouldBe(ScreenFault.NoValue);
        Fault("length", ScreenTest.Over, "24").ShouldBeNull();
        Fault("more", ScreenTest.IsAnswered, "").ShouldBeNull();
    }

    private static Question Ask(string key, QuestionKind kind, params string[] options) =>
        new(key, kind, "?", "", IsNeeded: false, options, "");

    private static ScreeningRule Rule(params ScreenCondition[] conditions) =>
        new(conditions, All: true, ScreenAct.DontBook, "No.", "");

    private static ScreeningOutcome Of(ScreeningRule[] rules, params (string Key, string Answer)[] answers) =>
        Screening.Of(Asked, rules, answers.ToDictionary(answer => answer.Key, answer => answer.Answer));
}
