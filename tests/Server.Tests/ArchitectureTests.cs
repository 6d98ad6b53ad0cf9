using LooseLantern.Core.Openings;
using LooseLantern.Formats.ICalendar.Reading;
using NetArchTest.Rules;

namespace Server.Tests;

/// <summary>Arrows point one way: Server to Formats to Core.</summary>
public class ArchitectureTests
{
    [Theory]
    [InlineData("LooseLantern.Formats")]
    [InlineData("LooseLantern.Server")]
    [InlineData("Microsoft.AspNetCore")]
    [InlineData("Microsoft.EntityFrameworkCore")]
    [InlineData("Ical.Net")]
    [InlineData("Npgsql")]
    public void Core_knows_nothing_of(string other) =>
        Types
            .InAssembly(typeof(Opening).Assembly)
            .ShouldNot()
            .HaveDependencyOn(other)
            .GetResult()
            .FailingTypeNames.ShouldBeNull();

    [Theory]
    [InlineData("LooseLantern.Server")]
    [InlineData("Microsoft.AspNetCore")]
    [InlineData("Microsoft.EntityFrameworkCore")]
    public void Formats_know_nothing_of(string other) =>
        Types
            .InAssembly(typeof(CalendarFile).Assembly)
            .ShouldNot()
            .HaveDependencyOn(other)
            .GetResult()
            .FailingTypeNames.ShouldBeNull();

    [Theory]
    [InlineData("LooseLantern.Core")]
    [InlineData("LooseLantern.Formats")]
    [InlineData("LooseLantern.Server")]
    public void Stand_ins_know_nothing_of(string other) =>
        Types
            .InAssembly(typeof(LooseLantern.StandIns.StandInApp).Assembly)
            .ShouldNot()
            .HaveDependencyOn(other)
            .GetResult()
            .FailingTypeNames.ShouldBeNull();

    // Culture data writes a DateTime it is given; nothing else of Core touches the type.
    [Fact]
    public void Core_asks_no_clock() =>
        Types
            .InAssembly(typeof(Opening).Assembly)
            .That()
            .DoNotHaveName("DateForms")
            .ShouldNot()
            .HaveDependencyOnAny(
                "NodaTime.IClock",
                "NodaTime.SystemClock",
                "System.DateTime",
                "System.Diagnostics.Stopwatch"
            )
            .GetResult()
            .FailingTypeNames.ShouldBeNull();

    /// <summary>Who locked them elsewhere would sooner or later do it in another order, and wait in a ring.</summary>
    [Fact]
    public void Pages_and_hosts_are_locked_in_one_place() =>
        Directory
            .EnumerateFiles(Path.Combine(Checkout.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(file =>
                System.Text.RegularExpressions.Regex.IsMatch(
                    File.ReadAllText(file),
                    @"FROM (pages|hosts)\b[^;]*?FOR (NO KEY )?UPDATE"
                )
            )
            .Select(Path.GetFileName)
            .ShouldBe(["TimeLocks.cs"]);
}
