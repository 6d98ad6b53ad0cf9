using System.Text.Json;

namespace Core.Tests;

/// <summary>Whole computations with answers worked out by hand, one file each.</summary>
public class CaseFileTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Cases");

    public static TheoryData<string> Names() =>
        [.. Directory.GetFiles(Folder, "case-??.json").Select(file => Path.GetFileNameWithoutExtension(file)).Order()];

    [Theory, MemberData(nameof(Names))]
    public void Gives_the_answer_worked_out_by_hand(string name)
    {
        using var file = JsonDocument.Parse(File.ReadAllText(Path.Combine(Folder, name + ".json")));
        using var answer = JsonDocument.Parse(File.ReadAllText(Path.Combine(Folder, name + ".expected.json")));

        OpeningsComputation.Openings(CaseReader.Input(file.RootElement)).ShouldBe(CaseReader.Openings(answer.RootElement));
    }

    [Fact]
    public void All_the_cases_are_there() => Names().Count.ShouldBeGreaterThanOrEqualTo(14);
}
