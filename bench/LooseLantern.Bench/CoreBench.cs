using BenchmarkDotNet.Attributes;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Relaxations;

namespace LooseLantern.Bench;

/// <summary>
/// Openings from raw input, beside the floor: reading the same spans once and writing the answer. What counts is the
/// ratio of the two, on one machine in one run.
/// </summary>
[MemoryDiagnoser]
public class CoreBench
{
    private OpeningsInput _input = null!;
    private IReadOnlyList<Opening> _answer = null!;

    public static IEnumerable<string> Sizes =>
        [
            "5 hosts, 30 days",
            "50 hosts, 90 days",
            "50 hosts, 365 days",
            "1000 hosts, 90 days",
            "1000 hosts, 90 days, dark",
        ];

    [ParamsSource(nameof(Sizes))]
    public string Size { get; set; } = "";

    [GlobalSetup]
    public void Setup()
    {
        var words = Size.Split(' ');
        var (hosts, days) = (int.Parse(words[0], null), int.Parse(words[2], null));
        _input = words[^1] == "dark" ? Panel.Dark(hosts, days) : Panel.Of(hosts, days);
        _answer = OpeningsComputation.Openings(_input);
        Console.WriteLine($"// {Size}: {_answer.Count} openings");
    }

    [Benchmark(Baseline = true)]
    public (long, List<Opening>) Floor()
    {
        var sum = 0L;
        foreach (var host in _input.Hosts)
        {
            var busy = host.Busy;
            for (var i = 0; i < busy.Count; i++)
                sum += busy[i].Start.ToUnixTimeTicks() ^ busy[i].End.ToUnixTimeTicks();
        }

        var written = new List<Opening>(_answer.Count);
        foreach (var opening in _answer)
            written.Add(new Opening(opening.Start, opening.End, opening.PlacesLeft));
        return (sum, written);
    }

    [Benchmark]
    public IReadOnlyList<Opening> Openings() => OpeningsComputation.Openings(_input);
}

/// <summary>
/// All relaxations of a page, as the editor asks for them on each change, beside one computation of its openings.
/// </summary>
public class RelaxationBench
{
    private readonly OpeningsInput _input = Panel.Of(5, 30);

    [Benchmark(Baseline = true)]
    public IReadOnlyList<Opening> Openings() => OpeningsComputation.Openings(_input);

    [Benchmark]
    public IReadOnlyList<Relaxation> Relaxations() => RelaxationsComputation.Of(_input, ["h0001", "h0003"]);
}
