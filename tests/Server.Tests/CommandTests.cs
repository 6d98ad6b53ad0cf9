using System.Diagnostics;

namespace Server.Tests;

/// <summary>
/// The lantern command says what is wrong with what it is given, before it builds or starts anything.
/// </summary>
public class CommandTests
{
    [Theory]
    [InlineData("up --at tomorrow", "2026-12-07T08:00+01:00")]
    [InlineData("up --at 2026-12-07T08:00", "with an offset")]
    [InlineData("up --port many", "--port needs a number")]
    [InlineData("up --port 70000", "--port needs a number")]
    [InlineData("up --sideways", "--sideways")]
    [InlineData("down-under", "down-under")]
    [InlineData("test everything", "everything")]
    [InlineData("bench everything", "everything")]
    public async Task A_wrong_word_is_refused_with_the_right_one(string words, string said)
    {
        var (code, _, error) = await RunAsync(words);
        code.ShouldNotBe(0);
        error.ShouldContain(said);
    }

    [Theory]
    [InlineData("up --help")]
    [InlineData("help")]
    public async Task Help_lists_every_option(string words)
    {
        var (code, output, _) = await RunAsync(words);
        code.ShouldBe(0);
        foreach (var option in new[] { "up", "test", "--at", "--port", "--no-demo", "--large", "--fresh" })
            output.ShouldContain(option);
    }

    private static async Task<(int Code, string Output, string Error)> RunAsync(string words)
    {
        using var process = Process.Start(
            new ProcessStartInfo("bash", $"{Path.Combine(Checkout.Root, "lantern")} {words}")
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return (process.ExitCode, await output, await error);
    }
}
