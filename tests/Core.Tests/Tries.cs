namespace Core.Tests;

/// <summary>How many random inputs a property is tried on.</summary>
internal static class Tries
{
    /// <summary>
    /// All of them by ./lantern test core --long; else three of twenty, which find what is wrong often enough at each
    /// change, as the seed is another one each time.
    /// </summary>
    public static int Of(int all) =>
        Environment.GetEnvironmentVariable("LANTERN_LONG") == "yes" ? all : Math.Max(60, all * 3 / 20);
}
