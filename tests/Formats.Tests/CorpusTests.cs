using System.Text.Json;
using LooseLantern.Formats.Cases;

namespace Formats.Tests;

/// <summary>Whole computations with answers worked out by hand, one file each, in tests/Cases.</summary>
public class CorpusTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Cases");

    public static TheoryData<string> Names() =>
        [.. Directory.GetFiles(Folder, "case-??.json").Select(file => Path.GetFileNameWithoutExtension(file)).Order()];

    [Theory, MemberData(nameof(Names))]
    public void Gives_the_answer_worked_out_by_hand(string name)
    {
        var reading = CaseFile.Read(File.ReadAllBytes(Path.Combine(Folder, name + ".json")));

        reading.Faults.ShouldBeEmpty();
        Compact(CaseAnswer.Write(reading)).ShouldBe(Compact(File.ReadAllText(Path.Combine(Folder, name + ".expected.json"))));
    }

    [Fact]
    public void All_the_cases_are_there() => Names().Count.ShouldBeGreaterThanOrEqualTo(14);

    private static string Compact(string json) => JsonSerializer.Serialize(JsonDocument.Parse(json).RootElement);
}
