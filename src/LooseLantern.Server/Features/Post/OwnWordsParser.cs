using Fluid;
using Fluid.Ast;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Reads words of a page's own: tokens, and what stands only under a condition. Loops, ranges and filters that make
/// much out of little are no words: one that ran for long would hold up the booking that it speaks of.
/// </summary>
public static class OwnWordsParser
{
    private static readonly string[] Known = ["if", "unless"];

    /// <summary>What may be done with a token: nothing that makes it longer.</summary>
    private static readonly string[] Filters = ["default", "upcase", "downcase", "capitalize", "strip", "escape"];

    private static readonly FluidParser Parser = Make();

    /// <param name="error">Why it can't be read, in one line.</param>
    public static bool TryParse(string words, out IFluidTemplate template, out string error)
    {
        var isRead = Parser.TryParse(words, out template, out error);
        error = error?.Split('\n')[0] ?? "";
        if (!isRead)
            return false;
        var reader = new Reader();
        reader.VisitTemplate(template);
        error = reader.Fault ?? "";
        return reader.Fault is null;
    }

    /// <exception cref="ParseException">For words that would be refused today.</exception>
    public static IFluidTemplate Parse(string words) =>
        TryParse(words, out var template, out var error) ? template : throw new ParseException(error);

    private static FluidParser Make()
    {
        var parser = new FluidParser();
        foreach (var tag in parser.RegisteredTags.Keys.Except(Known).ToList())
            parser.RegisteredTags.Remove(tag);
        return parser;
    }

    private sealed class Reader : AstVisitor
    {
        public string? Fault { get; private set; }

        protected override Expression VisitRangeExpression(RangeExpression rangeExpression)
        {
            Fault ??= "Ranges such as (1..9) can't stand here.";
            return rangeExpression;
        }

        protected override Expression VisitFilterExpression(FilterExpression filterExpression)
        {
            if (!Filters.Contains(filterExpression.Name))
                Fault ??=
                    $"The filter \"{filterExpression.Name}\" can't stand here; there are {string.Join(", ", Filters)}.";
            return base.VisitFilterExpression(filterExpression);
        }
    }
}
