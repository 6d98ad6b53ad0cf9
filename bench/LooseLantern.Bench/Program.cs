using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;
using LooseLantern.Bench;

if (args is ["calendars", .. var names])
{
    CalendarBench.Run(names.FirstOrDefault());
    return;
}

if (args is ["cover"])
{
    CoverBench.Run();
    return;
}

if (args is ["growth"])
{
    GrowthBench.Run();
    return;
}

// ./lantern bench core: in this process, so that nothing is restored or built on the side.
var config = DefaultConfig
    .Instance.AddJob(Job.ShortRun.WithIterationCount(10).WithToolchain(InProcessEmitToolchain.Instance))
    .WithArtifactsPath(Path.Combine(AppContext.BaseDirectory, "results"));
BenchmarkRunner.Run([typeof(CoreBench), typeof(RelaxationBench)], config);
