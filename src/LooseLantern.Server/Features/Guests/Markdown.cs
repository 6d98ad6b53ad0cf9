using Ganss.Xss;
using LooseLantern.Server.Hosting;
using Markdig;

namespace LooseLantern.Server.Features.Guests;

/// <summary>
/// Words of a coordinator, written in Markdown (CommonMark), as HTML that is safe to show to anybody.
/// </summary>
public static class Markdown
{
    private const int MostFirstWords = 160;

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

    public static string ToHtml(string markdown) =>
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

    /// <summary>The beginning of it as plain words, for lists.</summary>
    public static string FirstWords(string markdown)
    {
        var words = Markdig.Markdown.ToPlainText(markdown, Pipeline).Trim();
        var line = words.Split('\n', 2)[0].Trim();
        if (line.Length <= MostFirstWords)
            return line;
        var cut = Words.Cut(line, MostFirstWords);
        var space = cut.LastIndexOf(' ');
        return $"{(space > 0 ? cut[..space] : cut)} …";
    }
}
