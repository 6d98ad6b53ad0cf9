using Fluid;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Reads words of a page's own: tokens, and what stands only under a condition. Loops and the like are no words: one
/// that ran for long would hold up the booking that it speaks of.
/// </summary>
public static class OwnWordsParser
{
    private static readonly string[] Known = ["if", "unless"];

    private static readonly FluidParser Parser = Make();

    /// <param name="error">Why it can't be read, in one line.</param>
    public static bool TryParse(string words, out IFluidTemplate template, out string error)
    {
        var isRead = Parser.TryParse(words, out template, out error);
        error = error?.Split('\n')[0] ?? "";
        return isRead;
    }

    public static IFluidTemplate Parse(string words) => Parser.Parse(words);

    private static FluidParser Make()
    {
        var parser = new FluidParser();
        foreach (var tag in parser.RegisteredTags.Keys.Except(Known).ToList())
            parser.RegisteredTags.Remove(tag);
        return parser;
    }
}
