using System.Text.RegularExpressions;
using Ganss.Xss;
using LooseLantern.Core;
using Markdig;

namespace LooseLantern.Server.Features.Guests;

/// <summary>
/// Words of a coordinator, written in Markdown (CommonMark), as HTML that is safe to show to anybody.
/// </summary>
public static partial class Markdown
{
    private const int MostFirstWords = 160;
    private const int MostMilliseconds = 500;

    private static readonly MarkdownPipeline Pipeline = new MarkdownPipelineBuilder()
        .DisableHtml()
        .UseAutoLinks()
        .UseSoftlineBreakAsHardlineBreak()
        .Build();

    private static readonly HtmlSanitizer Sanitizer = new(
        new HtmlSanitizerOptions
        {
            AllowedTags = new HashSet<string>
            {
                "p",
                "br",
                "strong",
                "em",
                "ul",
                "ol",
                "li",
                "a",
                "h2",
                "h3",
                "h4",
                "blockquote",
                "code",
                "hr",
            },
            AllowedAttributes = new HashSet<string> { "href", "start" },
            UriAttributes = new HashSet<string> { "href" },
            AllowedSchemes = new HashSet<string> { "https", "http", "mailto", "tel" },
        }
    );

    static Markdown() =>
        Sanitizer.PostProcessNode += (_, node) =>
        {
            // Links lead away from the form; what is typed there stays.
            if (node.Node is not AngleSharp.Html.Dom.IHtmlAnchorElement link)
                return;
            link.SetAttribute("target", "_blank");
            link.SetAttribute("rel", "noopener nofollow");
        };

    /// <summary>
    /// Whether it can be shown in every way that it is shown; brackets by the thousand in each other can't. Asked when
    /// it is saved.
    /// </summary>
    public static bool CanBeShown(string? markdown)
    {
        if (string.IsNullOrEmpty(markdown))
            return true;
        try
        {
            Html(markdown);
            ToText(markdown);
            FirstWords(markdown);
            return true;
        }
        catch (Exception e) when (e is ArgumentException or RegexMatchTimeoutException)
        {
            return false;
        }
    }

    public static string ToHtml(string markdown)
    {
        try
        {
            return Html(markdown);
        }
        catch (ArgumentException)
        {
            // Kept before it was asked for: as plain words.
            return $"<p>{System.Net.WebUtility.HtmlEncode(markdown)}</p>";
        }
    }

    // The parser refuses what is nested more than 128 deep.
    private static string Html(string markdown) =>
        markdown.Length == 0
            ? ""
            : Sanitizer
                .Sanitize(
                    Markdig
                        .Markdown.ToHtml(markdown, Pipeline)
                        .Replace("<h1", "<h2", StringComparison.Ordinal)
                        .Replace("</h1", "</h2", StringComparison.Ordinal)
                )
                .Trim();

    /// <summary>
    /// As plain text that reads well where nothing is set in type, as in mail and calendar files: links bear their
    /// address behind their words, points begin with a dash, and marks of emphasis are gone.
    /// </summary>
    public static string ToText(string markdown)
    {
        var text = markdown.ReplaceLineEndings("\n");
        text = Link()
            .Replace(text, match =>
                match.Groups[1].Value == match.Groups[2].Value
                    ? match.Groups[2].Value
                    : $"{match.Groups[1].Value} ({match.Groups[2].Value})"
            );
        text = AutoLink().Replace(text, "$1");
        text = Heading().Replace(text, "");
        text = Point().Replace(text, "$1- ");
        text = Emphasis().Replace(text, "$2");
        text = Escape().Replace(text, "$1");
        return text.Trim();
    }

    [GeneratedRegex(@"!?\[([^\]\n]*)\]\(\s*<?([^\s)>]+)>?[^)\n]*\)", RegexOptions.None, MostMilliseconds)]
    private static partial Regex Link();

    [GeneratedRegex(@"<((?:https?://|mailto:)[^\s>]+)>", RegexOptions.None, MostMilliseconds)]
    private static partial Regex AutoLink();

    [GeneratedRegex(@"^ {0,3}#{1,6}[ \t]+", RegexOptions.Multiline, MostMilliseconds)]
    private static partial Regex Heading();

    [GeneratedRegex(@"^([ \t]*)[*+-][ \t]+", RegexOptions.Multiline, MostMilliseconds)]
    private static partial Regex Point();

    [GeneratedRegex(@"(?<![\\\w*_])(\*\*|__|\*|_)(?=\S)(.+?)(?<=\S)\1(?![\w*_])", RegexOptions.None, MostMilliseconds)]
    private static partial Regex Emphasis();

    [GeneratedRegex(@"\\([\\`*_{}\[\]()#+.!>-])", RegexOptions.None, MostMilliseconds)]
    private static partial Regex Escape();

    /// <summary>The beginning of it as plain words, for lists.</summary>
    public static string FirstWords(string markdown)
    {
        var words = Markdig.Markdown.ToPlainText(markdown, Pipeline).Trim();
        var line = words.Split('\n', 2)[0].Trim();
        if (line.Length <= MostFirstWords)
            return line;
        var cut = CutText.At(line, MostFirstWords);
        var space = cut.LastIndexOf(' ');
        return $"{(space > 0 ? cut[..space] : cut)} …";
    }
}
