using System.Globalization;
using Server.Tests.Faults;

namespace Server.Tests;

/// <summary>
/// What is said to be booked stays booked, and is told once, whatever is killed meanwhile. LANTERN_FAULTS sets how many
/// operations (60 unless set), LANTERN_FAULTS_SEED which; ./lantern bench faults does the same at length.
/// </summary>
public sealed class FaultTests
{
    private const int Usual = 300;

    // At length every forty operations, or four hundred where there are very many; a short run has each kind of fault
    // that takes little time.
    private const int Every = 40;
    private const int EveryOfVeryMany = 400;
    private const int VeryMany = 10_000;
    private const int FewFaults = 4;

    [Fact]
    public async Task Nothing_is_lost_doubled_or_left_over_whatever_fails()
    {
        var count = Setting("LANTERN_FAULTS", Usual);
        var seed = Setting("LANTERN_FAULTS_SEED", Random.Shared.Next());
        // Enough times for all that is booked and not cancelled.
        var days = Math.Clamp(28 + count / 100, 28, 365);
        await using var world = await FaultWorld.StartAsync(days);
        var run = new FaultRun(world, seed, days);
        await run.GoAsync(
            count,
            count == Usual ? FewFaults
                : count < VeryMany ? count / Every
                : count / EveryOfVeryMany
        );
        var faults = await new FaultCheck(world, run).LookAsync();
        var told =
            $"seed {seed}: {string.Join(", ", run.Done.Select(row => $"{row.Key} {row.Value}"))}; {world.Outages.Answered} answers, {world.Outages.Lost} lost";
        if (count != Usual)
            Console.WriteLine($"{told}; {run.All.Count} bookings; {faults.Count} faults");
        faults.ShouldBeEmpty(told);
        run.All.Count.ShouldBeGreaterThan(count / 5, told);
    }

    private static int Setting(string name, int usual) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), CultureInfo.InvariantCulture, out var set) ? set : usual;
}
