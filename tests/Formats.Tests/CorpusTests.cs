using System.Text.Json.Nodes;
using LooseLantern.Formats.Cases;

namespace Formats.Tests;

/// <summary>
/// Whole computations with their answers, one file each, in tests/Cases (its README tells where the answers come from).
/// </summary>
public class CorpusTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Cases");

    public static TheoryData<string> Names() =>
        [
            .. Directory
                .GetFiles(Folder, "*.expected.json")
                .Select(file => Path.GetFileName(file).Replace(".expected.json", ""))
                .Order(),
        ];

    [Theory, MemberData(nameof(Names))]
    public void Gives_the_answer_written_down(string name)
    {
        var reading = CaseFile.Read(File.ReadAllBytes(Path.Combine(Folder, name + ".json")));

        reading.Faults.ShouldBeEmpty();
        Compact(CaseAnswer.Write(reading))
            .ShouldBe(Compact(File.ReadAllText(Path.Combine(Folder, name + ".expected.json"))));
    }

    [Fact]
    public void All_the_cases_are_there() =>
        Names()
            .Count.ShouldBe(
                Directory.GetFiles(Folder, "*.json").Length / 2,
                "a case without an answer, or an answer without its case"
            );

    /// <summary>The tables may be newer than the answer that was written down.</summary>
    private static string Compact(string json)
    {
        var answer = JsonNode.Parse(json)!.AsObject();
        answer.Remove("zones");
        return answer.ToJsonString();
    }
}
